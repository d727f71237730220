"""What the palette room asks to be worked out, beside the interface: the paintbox made ready, strings, advice, where colours belong."""

import hashlib
from collections.abc import Callable
from dataclasses import replace
from typing import TYPE_CHECKING

from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.sitters import rings_key, rings_of
from yarrow_lane.compose.reference import reference_key
from yarrow_lane.desk.derived import Key, Making
from yarrow_lane.measure.kept import kept
from yarrow_lane.measure.progress import Progress
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.paint.seen import Lab
from yarrow_lane.palette.advice import Advice, advise
from yarrow_lane.palette.belonging import Elsewhere, areas_cm2, elsewhere
from yarrow_lane.palette.harmony import families_of_picture
from yarrow_lane.palette.mixer import Mixer, make_mixer, paints_of
from yarrow_lane.palette.other_media import OtherWay, other_ways
from yarrow_lane.palette.paintbox import Medium, Paintbox
from yarrow_lane.palette.proposed_string import Step, string_steps
from yarrow_lane.palette.recipe import Recipe
from yarrow_lane.palette.sitters import mask_of
from yarrow_lane.palette.starters import SUGGESTED, starter
from yarrow_lane.palette.stringing import proposed_wells, recipes_for, target_of
from yarrow_lane.palette.wells import Well
from yarrow_lane.tone.colours import Colours
from yarrow_lane.tone.grounds import ground_lab
from yarrow_lane.ui.reference_colours import want_colours

if TYPE_CHECKING:
    from yarrow_lane.ui.workroom import Workroom

# What is mixed for a commission in each medium; oil over acrylic is asked for by the painter.
MIXED_IN: dict[str, Medium] = {
    "acrylic": "acrylic", "watercolour": "watercolour", "oil over acrylic": "oil", "oil": "oil", "soft pastel": "soft pastel",
}  # fmt: skip


@kept(8)
def box_key(box: Paintbox) -> str:
    """A short name of a paintbox as far as mixing goes: what is left in the tubes changes no colour."""
    full = tuple(replace(t, left_ml=0.0, size_ml=1.0, name="", line="", label="") for t in box.tubes)
    return hashlib.sha256(repr((full, box.seen)).encode()).hexdigest()[:16]


@kept(8)
def box_or_suggested(box: Paintbox, medium: Medium) -> tuple[Paintbox, bool]:
    """The painter's; while it holds nothing of the medium a usual one, and whether it is suggested."""
    return (box, False) if box.of(medium) else (starter(SUGGESTED, medium, box), True)


def scarce_of(box: Paintbox) -> frozenset[int]:
    """Tubes nearly empty."""
    return frozenset(t.id for t in box.tubes if t.scarce)


class Answering:
    """Asked by the page; answers come on the interface's thread."""

    def __init__(self, workroom: "Workroom", asker: object) -> None:
        self._room, self._asker = workroom, asker

    def mixer(
        self, box: Paintbox, medium: Medium, ready: Callable[[Mixer], None], failed: Callable[[Trouble], None] | None = None
    ) -> None:
        """The paintbox made ready."""
        key = self.mixer_key(box, medium)
        making = Making(lambda progress: make_mixer(box, medium, progress), lambda value: value.bytes)
        self._room.derived.want(key, self._asker, making, ready, failed)

    @staticmethod
    def mixer_key(box: Paintbox, medium: Medium) -> Key:
        return Key("mixer", (box_key(box),), (medium,))

    def colours(self, c: Commission, ready: Callable[[Colours], None]) -> None:
        """The reference in Lab."""
        want_colours(self._room.references, self._room.derived, c.compose, self._asker, ready)

    def string(
        self, c: Commission, box: Paintbox, medium: Medium, sitter_id: int, ready: Callable[[tuple[Well, ...]], None],
        failed: Callable[[Trouble], None],
    ) -> None:  # fmt: skip
        """The string proposed for a sitter."""
        p, rings, scarce = c.palette, rings_of(c, sitter_id), scarce_of(box)
        key = Key(
            "string", (reference_key(c.compose), box_key(box)),
            (medium, sitter_id, p.values, p.most, p.fit_darks, scarce, rings_key(rings)),
        )  # fmt: skip

        def both(mixer: Mixer, colours: Colours) -> None:
            def make(progress: Progress) -> tuple[Well, ...]:
                mask = mask_of(rings, colours.shape, colours.px_per_mm)
                return proposed_wells(mixer, colours.lab, colours.px_per_mm, mask, p, sitter_id, scarce, progress)

            self._room.derived.want(key, self._asker, Making(make, lambda _: 4000), ready)

        self.mixer(box, medium, lambda mixer: self.colours(c, lambda colours: both(mixer, colours)), failed)

    def mixes(
        self, c: Commission, box: Paintbox, medium: Medium, wells: tuple[Well, ...], ready: Callable[[dict[int, Recipe]], None],
        failed: Callable[[Trouble], None],
    ) -> None:  # fmt: skip
        """Mixes on few tubes for wells that have none."""
        p, scarce = c.palette, scarce_of(box)
        targets = tuple(target_of(w.lab, p.fit_darks) for w in wells)
        key = Key("mixes", (box_key(box),), (medium, targets, p.most, scarce))

        def with_mixer(mixer: Mixer) -> None:
            making = Making(lambda progress: recipes_for(mixer, targets, p.most, scarce, progress), lambda _: 2000)
            self._room.derived.want(
                key, self._asker, making, lambda found: ready({w.id: r for w, r in zip(wells, found, strict=True)})
            )

        self.mixer(box, medium, with_mixer, failed)

    def advice(
        self, c: Commission, box: Paintbox, medium: Medium, well: Well, ready: Callable[[Advice], None],
        failed: Callable[[Trouble], None],
    ) -> None:  # fmt: skip
        """All that is said of a well."""
        target, ground = target_of(well.lab, c.palette.fit_darks), ground_lab(c.tone.ground or "white")
        scarce, names = scarce_of(box), box.names
        key = Key("advice", (box_key(box),), (medium, well.recipe, target, ground, scarce, tuple(names.items())))

        def with_mixer(mixer: Mixer) -> None:
            making = Making(
                lambda _: advise(mixer, well.recipe, target, ground, names, scarce, medium == "acrylic"), lambda _: 6000
            )
            self._room.derived.want(key, self._asker, making, ready, failed)

        self.mixer(box, medium, with_mixer, failed)

    def areas(self, c: Commission, sitter_id: int, wells: tuple[Well, ...], ready: Callable[[dict[int, float]], None]) -> None:
        """cm2 of each well of a sitter's palette."""
        labs, rings = tuple(w.lab for w in wells), rings_of(c, sitter_id)
        key = Key("well areas", (reference_key(c.compose),), (labs, rings_key(rings)))

        def with_colours(colours: Colours) -> None:
            def make(_: Progress) -> tuple[float, ...]:
                mask = mask_of(rings, colours.shape, colours.px_per_mm)
                return areas_cm2(colours.lab, colours.px_per_mm, labs, mask)

            self._room.derived.want(
                key, self._asker, Making(make, lambda _: 500),
                lambda found: ready({w.id: cm2 for w, cm2 in zip(wells, found, strict=True)}),
            )  # fmt: skip

        self.colours(c, with_colours)

    def elsewhere(self, c: Commission, well: Well, reach: float, ready: Callable[[Elsewhere], None]) -> None:
        """Where else its colour lies."""
        key = Key("elsewhere", (reference_key(c.compose),), (well.lab, reach))

        def with_colours(colours: Colours) -> None:
            making = Making(
                lambda _: elsewhere(colours.lab, colours.px_per_mm, well.lab, reach), lambda value: value.mask.nbytes
            )
            self._room.derived.want(key, self._asker, making, ready)

        self.colours(c, with_colours)

    def other_ways(
        self, box: Paintbox, medium: Medium, targets: tuple[Lab, ...], ready: Callable[[tuple[tuple[OtherWay, ...], ...]], None],
        failed: Callable[[Trouble], None],
    ) -> None:  # fmt: skip
        """Ways to colours in a medium in which no heap is mixed."""
        names = box.names
        key = Key("other ways", (box_key(box),), (medium, targets, tuple(names.items())))

        def make(_: Progress) -> tuple[tuple[OtherWay, ...], ...]:
            paints, _wet = paints_of(box, medium)
            return tuple(other_ways(paints, medium, target, names) for target in targets)

        self._room.derived.want(key, self._asker, Making(make, lambda _: 4000), ready, failed)

    def steps(self, c: Commission, sitter_id: int, ready: Callable[[tuple[Step, ...]], None]) -> None:
        """The steps of a string alone, for media that are not mixed."""
        rings, count = rings_of(c, sitter_id), c.palette.values
        key = Key("string steps", (reference_key(c.compose),), (count, rings_key(rings)))

        def with_colours(colours: Colours) -> None:
            def make(_: Progress) -> tuple[Step, ...]:
                mask = mask_of(rings, colours.shape, colours.px_per_mm)
                return string_steps(colours.lab, colours.px_per_mm, mask, count)

            self._room.derived.want(key, self._asker, Making(make, lambda _: 1000), ready)

        self.colours(c, with_colours)

    def hues(self, c: Commission, ready: Callable[[tuple[tuple[str, float], ...]], None]) -> None:
        """Families of hue of the picture."""

        def with_colours(colours: Colours) -> None:
            making = Making(lambda _: families_of_picture(colours.lab), lambda _: 500)
            self._room.derived.want(Key("hues", (reference_key(c.compose),)), self._asker, making, ready)

        self.colours(c, with_colours)
