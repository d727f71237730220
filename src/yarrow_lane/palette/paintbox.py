"""The paintbox: the painter's own tubes, how each was read, and the dabs that taught what they do together."""

from dataclasses import dataclass, replace
from datetime import date
from typing import Literal

from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.paint.calibration.swatches import Reading
from yarrow_lane.paint.pigments.entries import WHITES, Entry, Opacity, entries
from yarrow_lane.paint.seen import Lab
from yarrow_lane.palette.recipe import Recipe

Medium = Literal["acrylic", "oil", "watercolour", "soft pastel"]
MEDIA: tuple[Medium, ...] = ("acrylic", "oil", "watercolour", "soft pastel")
USUAL_ML = 60.0  # our choice: a usual studio tube
SCARCE_SHARE = 0.15  # of a tube: below it the tube counts as nearly empty; our choice
_MOST_DABS = 60  # our choice: older ones were other tubes


class PaintboxTrouble(Trouble):
    """A tube that is not there, or an amount that cannot be."""


@dataclass(frozen=True)
class Tube:
    """One tube (of pastel a stick). `pigment` is the generic entry it begins from; empty words and opacity are the entry's.

    `readings` are swatches of this very tube; without any it is generic: remembered, not measured.
    """

    id: int
    pigment: str
    name: str = ""
    line: str = ""
    medium: Medium = "acrylic"
    size_ml: float = USUAL_ML
    left_ml: float = USUAL_ML
    opacity: Opacity | None = None
    lightfast: str = ""
    label: str = ""
    readings: tuple[Reading, ...] = ()

    @property
    def entry(self) -> Entry:
        """What is remembered of its pigment."""
        return entries()[self.pigment]

    @property
    def called(self) -> str:
        """The painter's name for it, else the pigment's usual one."""
        return self.name or self.entry.name

    @property
    def white(self) -> bool:
        return self.pigment in WHITES

    @property
    def generic(self) -> bool:
        return not self.readings

    @property
    def scarce(self) -> bool:
        """Nearly empty."""
        return self.left_ml < SCARCE_SHARE * self.size_ml


@dataclass(frozen=True)
class SeenMix:
    """A dab of a mix, and the Lab it was seen to have, dry or `wet`; `by` camera or eye."""

    recipe: Recipe
    lab: Lab
    doubt: float
    wet: bool = False
    by: str = "eye"
    on: date | None = None


@dataclass(frozen=True)
class Paintbox:
    """Everything at hand; `next_id` only grows."""

    tubes: tuple[Tube, ...] = ()
    next_id: int = 1
    seen: tuple[SeenMix, ...] = ()

    def tube(self, tube_id: int) -> Tube:
        """Raises `PaintboxTrouble` when it is not there."""
        for tube in self.tubes:
            if tube.id == tube_id:
                return tube
        raise PaintboxTrouble("That tube is not in the paintbox", "it was taken out")

    def of(self, medium: Medium) -> tuple[Tube, ...]:
        """The tubes of a medium."""
        return tuple(t for t in self.tubes if t.medium == medium)

    @property
    def names(self) -> dict[int, str]:
        """By id, as they are said; where two of a medium bear one name, the line tells them apart."""
        called = [(t.medium, t.called) for t in self.tubes]
        return {
            t.id: t.called if called.count((t.medium, t.called)) == 1 else f"{t.called}, {t.line or t.id}" for t in self.tubes
        }

    @property
    def tinted(self) -> frozenset[int]:
        """Tubes of which a dry mix with a white alone was seen."""
        whites = {t.id for t in self.tubes if t.white}
        pairs = [{s.tube for s in seen.recipe} for seen in self.seen if not seen.wet]
        return frozenset[int]().union(*(pair - whites for pair in pairs if len(pair) == 2 and len(pair & whites) == 1))

    def names_of(self, medium: Medium) -> dict[int, str]:
        """The names of one medium's tubes: what a mix written by hand may mean."""
        names = self.names
        return {t.id: names[t.id] for t in self.of(medium)}


def put_in(box: Paintbox, pigment: str, medium: Medium = "acrylic", **facts: object) -> Paintbox:
    """One more tube, generic until it is read."""
    if pigment not in entries():
        raise PaintboxTrouble("The tube was not put in", f"no pigment is known as {pigment}")
    tube = replace(Tube(box.next_id, pigment, medium=medium), **facts)  # type: ignore[arg-type]
    return replace(box, tubes=(*box.tubes, tube), next_id=box.next_id + 1)


def change_tube(box: Paintbox, tube: Tube) -> Paintbox:
    """That tube written anew; raises `PaintboxTrouble` when it is not there or holds more than it can."""
    box.tube(tube.id)
    if tube.size_ml <= 0 or not 0 <= tube.left_ml <= tube.size_ml:
        raise PaintboxTrouble(
            "The tube was not changed", f"{tube.left_ml:g} ml left of {tube.size_ml:g} ml cannot be", "write what is left"
        )
    return replace(box, tubes=tuple(tube if t.id == tube.id else t for t in box.tubes))


def take_out(box: Paintbox, tube_id: int) -> Paintbox:
    """The tube leaves; mixes on record keep their parts, and what was seen of it goes with it."""
    box.tube(tube_id)
    seen = tuple(s for s in box.seen if all(share.tube != tube_id for share in s.recipe))
    return replace(box, tubes=tuple(t for t in box.tubes if t.id != tube_id), seen=seen)


def read_tube(box: Paintbox, tube_id: int, readings: tuple[Reading, ...]) -> Paintbox:
    """Swatches of that tube were seen; others of the same kind are replaced."""
    tube = box.tube(tube_id)
    kinds = {(r.tint, r.over) for r in readings}
    kept = tuple(r for r in tube.readings if (r.tint, r.over) not in kinds)
    return change_tube(box, replace(tube, readings=(*kept, *readings)))


def saw_mix(box: Paintbox, seen: SeenMix) -> Paintbox:
    """A dab was compared; a newer look at the same mix replaces the older one."""
    for share in seen.recipe:
        box.tube(share.tube)
    others = tuple(s for s in box.seen if s.recipe != seen.recipe or s.wet != seen.wet)
    return replace(box, seen=(*others, seen)[-_MOST_DABS:])


def use_up(box: Paintbox, spent_ml: dict[int, float]) -> Paintbox:
    """Paint was pressed out; a tube never holds less than nothing."""
    return replace(
        box, tubes=tuple(replace(t, left_ml=max(0.0, round(t.left_ml - spent_ml.get(t.id, 0.0), 2))) for t in box.tubes)
    )
