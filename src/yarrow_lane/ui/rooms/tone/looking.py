"""What the tone room asks to be worked out, each once, beside the interface."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import TYPE_CHECKING

from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.sitters import care_of, eyes_of, rings_key, rings_of
from yarrow_lane.compose.reference import reference_key
from yarrow_lane.desk.derived import Key, Making
from yarrow_lane.measure.progress import Progress
from yarrow_lane.palette.sitters import mask_of
from yarrow_lane.tone.colours import Colours
from yarrow_lane.tone.grounds import ground_srgb
from yarrow_lane.tone.pictures import begun_on, squint_picture, study_picture, warmth_picture
from yarrow_lane.tone.proposal import Judged, judged_grounds
from yarrow_lane.tone.reserves import Reserve, reserves_of, so_called_whites
from yarrow_lane.tone.study import Squinted, Study, squinted, study
from yarrow_lane.tone.warmth import Warmth, warmth_of
from yarrow_lane.ui.kit.levels import Levels, make_levels
from yarrow_lane.ui.pictures import Shown
from yarrow_lane.ui.reference_colours import want_colours

if TYPE_CHECKING:
    from yarrow_lane.ui.workroom import Workroom


@dataclass(frozen=True, eq=False)
class Studied:
    """What is looked at, squinted at, its study, and the study's picture."""

    colours: Colours
    squint: Squinted
    study: Study
    levels: Levels


@dataclass(frozen=True, eq=False)
class Kept:
    """What is held in reserve, and the whites that are greys."""

    lights: tuple[Reserve, ...]
    darks: tuple[Reserve, ...]
    whites: tuple[Reserve, ...]


class Looking:
    """Asked by the page; answers come on the interface's thread."""

    def __init__(self, workroom: "Workroom", asker: object) -> None:
        self._room, self._asker = workroom, asker

    def _key(self, kind: str, c: Commission, *parameters: object) -> Key:
        return Key(kind, (reference_key(c.compose),), parameters)

    def squint(self, c: Commission, ready: Callable[[Colours, Squinted], None]) -> None:
        """The reference squinted at."""
        squint = c.tone.squint_mm

        def arrived(colours: Colours) -> None:
            making = Making(lambda _: squinted(colours, squint), lambda value: value.soft.nbytes * 2)
            key = self._key("tone squinted", c, squint)
            self._room.derived.want(key, self._asker, making, lambda found: ready(colours, found))

        want_colours(self._room.references, self._room.derived, c.compose, self._asker, arrived)

    def study(self, c: Commission, ready: Callable[[Studied], None]) -> None:
        """The values in shapes."""
        tone, care = c.tone, care_of(c)
        key = self._key("tone study", c, tone.squint_mm, tone.count, tone.limits, tone.smallest_mm2, care)

        def arrived(colours: Colours, squint: Squinted) -> None:
            def make(_: Progress) -> Studied:
                found = study(squint, tone, care)
                return Studied(colours, squint, found, make_levels(study_picture(found)))

            self._room.derived.want(key, self._asker, Making(make, lambda value: value.levels.bytes), ready)

        self.squint(c, arrived)

    def begun(self, c: Commission, studied: Studied, ground: str, ready: Callable[[Levels], None]) -> None:
        """The canvas begun on a ground."""
        colour, care = ground_srgb(ground), care_of(c)

        def make(_: Progress) -> Levels:
            return make_levels(begun_on(studied.colours, studied.squint, colour, care))

        key = self._key("tone begun", c, ground, c.tone.squint_mm, care)
        self._room.derived.want(key, self._asker, Making(make, lambda value: value.bytes), ready)

    def reserves(self, c: Commission, colours: Colours, ready: Callable[[Kept], None]) -> None:
        """Lightest, darkest, and so-called whites."""
        named = eyes_of(c)

        def make(_: Progress) -> Kept:
            lights, darks = reserves_of(colours.lab, colours.px_per_mm, named)
            return Kept(lights, darks, so_called_whites(colours.lab, colours.px_per_mm, named))

        self._room.derived.want(self._key("tone reserves", c, named), self._asker, Making(make, lambda _: 40_000), ready)

    def warmth(self, c: Commission, colours: Colours, ready: Callable[[tuple[Warmth, Levels]], None]) -> None:
        """Warm and cool of the sitters, and its map."""
        rings = rings_of(c, 0)

        def make(_: Progress) -> tuple[Warmth, Levels]:
            found = warmth_of(colours.lab, mask_of(rings, colours.shape, colours.px_per_mm))
            return found, make_levels(warmth_picture(colours, found.field))

        making = Making(make, lambda value: value[1].bytes)
        self._room.derived.want(self._key("tone warmth", c, rings_key(rings)), self._asker, making, ready)

    def grounds(self, c: Commission, squint: Squinted, ready: Callable[[tuple[Judged, ...]], None]) -> None:
        """Every ground judged against the picture."""
        skin = any(s.kind == "person" for s in c.brief.sitters)
        medium, wipe = c.brief.medium, c.tone.wipe_out
        making = Making(lambda _: judged_grounds(squint.soft, skin, medium, wipe), lambda _: 2_000)
        self._room.derived.want(self._key("tone grounds", c, c.tone.squint_mm, skin, medium, wipe), self._asker, making, ready)

    def squinted(self, c: Commission, ready: Callable[[Levels], None]) -> None:
        """What half-shut eyes see."""
        squint = c.tone.squint_mm

        def arrived(shown: Shown) -> None:
            scale = shown.picture.shape[1] / c.compose.width_mm
            making = Making(
                lambda _: make_levels(squint_picture(shown.picture, scale, squint), with_greys=True), lambda value: value.bytes
            )
            self._room.derived.want(self._key("tone squint", c, squint), self._asker, making, ready)

        self._room.references.want(c.compose, self._asker, arrived)
