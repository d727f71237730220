"""What the tone room asks to be worked out, each once, beside the interface."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import TYPE_CHECKING

from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.sitters import rings_of
from yarrow_lane.compose.reference import reference_key
from yarrow_lane.desk.derived import Key, Making
from yarrow_lane.measure.plane import Circle, Polygon
from yarrow_lane.palette.sitters import mask_of
from yarrow_lane.tone.grounds import ground_srgb
from yarrow_lane.tone.looked import (
    Looked,
    begun_on,
    looked_at,
    squint_picture,
    study_picture,
    warmth_picture,
)
from yarrow_lane.tone.proposal import Judged, judged_grounds
from yarrow_lane.tone.reserves import Reserve, reserves_of, so_called_whites
from yarrow_lane.tone.shapes import borders
from yarrow_lane.tone.study import Study, study
from yarrow_lane.tone.warmth import Warmth, warmth_of
from yarrow_lane.transfer.landmarks import circles_on, places_on
from yarrow_lane.ui.kit.levels import Levels, make_levels
from yarrow_lane.ui.pictures import Shown

if TYPE_CHECKING:
    from yarrow_lane.ui.workroom import Workroom


@dataclass(frozen=True, eq=False)
class Studied:
    """The study with its picture and the borders of its shapes."""

    study: Study
    levels: Levels
    borders: tuple[Polygon, ...]


@dataclass(frozen=True, eq=False)
class Kept:
    """What is held in reserve, and the whites that are greys."""

    lights: tuple[Reserve, ...]
    darks: tuple[Reserve, ...]
    whites: tuple[Reserve, ...]


def care_of(c: Commission) -> tuple[Circle, ...]:
    """Eyes, nose and mouth on the canvas: small shapes stay there."""
    return circles_on(places_on(c.compose, c.intake.photos))


def named_circles(c: Commission) -> tuple[tuple[str, Circle], ...]:
    """The eyes by name, as wide as an eye is."""
    places = places_on(c.compose, c.intake.photos)
    radii = dict(circles_on(places))
    return tuple((p.full_name, (p.at, radii[p.at])) for p in places if "eye" in p.name and p.at in radii)


class Looking:
    """Asked by the page; answers come on the interface's thread."""

    def __init__(self, workroom: "Workroom", asker: object) -> None:
        self._room, self._asker = workroom, asker

    def _key(self, kind: str, c: Commission, *parameters: object) -> Key:
        return Key(kind, (reference_key(c.compose),), parameters)

    def look(self, c: Commission, ready: Callable[[Looked], None]) -> None:
        """The reference squinted at."""
        squint = c.tone.squint_mm

        def arrived(shown: Shown) -> None:
            scale = shown.picture.shape[1] / c.compose.width_mm
            making = Making(lambda _: looked_at(shown.picture, scale, squint), lambda value: value.bytes)
            self._room.derived.want(self._key("tone look", c, squint), self._asker, making, ready)

        self._room.references.want(c.compose, self._asker, arrived)

    def study(self, c: Commission, ready: Callable[[Looked, Studied], None]) -> None:
        """The values in shapes."""
        tone, care = c.tone, care_of(c)
        key = self._key("tone study", c, tone.squint_mm, tone.count, tone.limits, tone.smallest_mm2, care)

        def make(looked: Looked) -> Studied:
            found = study(looked.squint, tone, care)
            return Studied(found, make_levels(study_picture(found)), borders(found))

        def looked_at_it(looked: Looked) -> None:
            making = Making(lambda _: make(looked), lambda value: value.levels.bytes)
            self._room.derived.want(key, self._asker, making, lambda s: ready(looked, s))

        self.look(c, looked_at_it)

    def begun(self, c: Commission, looked: Looked, ground: str, ready: Callable[[Levels], None]) -> None:
        """The canvas begun on a ground."""
        colour, care = ground_srgb(ground), care_of(c)
        key = self._key("tone begun", c, ground, c.tone.squint_mm, care)
        making = Making(lambda _: make_levels(begun_on(looked, colour, care)), lambda value: value.bytes)
        self._room.derived.want(key, self._asker, making, ready)

    def reserves(self, c: Commission, looked: Looked, ready: Callable[[Kept], None]) -> None:
        """Lightest, darkest, and so-called whites."""
        named = named_circles(c)

        def make() -> Kept:
            lights, darks = reserves_of(looked.lab, looked.px_per_mm, named)
            return Kept(lights, darks, so_called_whites(looked.lab, looked.px_per_mm, named))

        self._room.derived.want(
            self._key("tone reserves", c, named), self._asker, Making(lambda _: make(), lambda _: 40_000), ready
        )

    def warmth(self, c: Commission, looked: Looked, ready: Callable[[tuple[Warmth, Levels]], None]) -> None:
        """Warm and cool, and its map."""

        rings = rings_of(c, 0)

        def make() -> tuple[Warmth, Levels]:
            found = warmth_of(looked.lab, mask_of(rings, looked.lab.shape[:2], looked.px_per_mm))
            return found, make_levels(warmth_picture(looked, found.field))

        making = Making(lambda _: make(), lambda value: value[1].bytes)
        self._room.derived.want(self._key("tone warmth", c, rings), self._asker, making, ready)

    def grounds(self, c: Commission, looked: Looked, ready: Callable[[tuple[Judged, ...]], None]) -> None:
        """Every ground judged against the picture."""
        skin = any(s.kind == "person" for s in c.brief.sitters)
        medium, wipe = c.brief.medium, c.tone.wipe_out
        making = Making(lambda _: judged_grounds(looked.squint.soft, skin, medium, wipe), lambda _: 2_000)
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
