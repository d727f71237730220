"""What to mend next: at most ten lines, worst first; what was meant so is kept apart."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

from yarrow_lane.check.drawing import Moved
from yarrow_lane.check.measured import AreaAsked, ColourFault, Measured
from yarrow_lane.check.record import Check, Kind, MeantSo, ToMend, same_place
from yarrow_lane.check.wording import colour_words, where_words
from yarrow_lane.measure.plane import Point
from yarrow_lane.measure.words import begun
from yarrow_lane.transfer.proof.split import off_words

MOST = 10
# How heavy a fault weighs: all our choice, set so that a strange eye comes before a background that is off.
_VALUE, _WARMTH, _DRAWING = 5.0, 8.0, 0.9
_EYE_MM, _ELSE_MM = 1.0, 1.6  # what may be off in the drawing before it counts
_MOST_DRAWING = 6.0
_EYE, _NOSE, _REACH_MM = 2.0, 1.3, 35.0
_BEHIND = 0.5
_USUAL_MM2 = 600.0
_NOTHING_SAID = Check()


@dataclass(frozen=True)
class Fault:
    """One line: what kinds are off and which way, where, how heavy; `colour` or `moved` is what was measured, `meant` and
    `listed` what the painter said of it.
    """

    kinds: tuple[tuple[Kind, int], ...]
    at: Point
    mm: float
    score: float
    where: str
    words: str
    area_id: int = 0
    colour: ColourFault | None = None
    moved: Moved | None = None
    meant: MeantSo | None = None
    listed: ToMend | None = None

    @property
    def line(self) -> str:
        """All of it in one line."""
        return f"{self.where}: {self.words}"

    @property
    def as_meant(self) -> MeantSo:
        """As it is refused."""
        return MeantSo(self.kinds, self.at, self.mm)


def ranked(
    found: Measured, areas: Sequence[AreaAsked], places: Sequence[tuple[str, Point]], size_mm: tuple[float, float],
    check: Check = _NOTHING_SAID,
) -> tuple[Fault, ...]:  # fmt: skip
    """Worst first, ten that count at most; then those that were meant so, as `check` has it."""
    names = {a.id: a for a in areas}
    every = [_of_colour(c, names.get(c.area_id), places, size_mm) for c in found.colour]
    every += [_of_drawing(m, places) for m in found.moved]
    every = [replace(f, meant=_meant(f, check.meant_so), listed=_listed(f, check.to_mend)) for f in every]
    counts = sorted((f for f in every if f.meant is None), key=lambda f: -f.score)
    return (*counts[:MOST], *sorted((f for f in every if f.meant is not None), key=lambda f: -f.score))


def _meant(fault: Fault, meant_so: Sequence[MeantSo]) -> MeantSo | None:
    """A refusal holds for a fault whose kinds it all names: a new kind at the same place is a new fault."""
    return next(
        (m for m in meant_so if same_place(fault.kinds, fault.at, fault.mm, m) and set(fault.kinds) <= set(m.kinds)), None
    )


def _listed(fault: Fault, to_mend: Sequence[ToMend]) -> ToMend | None:
    return next((t for t in to_mend if same_place(fault.kinds, fault.at, fault.mm, t)), None)


def focal(at: Point, places: Sequence[tuple[str, Point]]) -> float:
    """How much more a place counts near eyes, nose and mouth, 1 and up."""
    most = 0.0
    for name, place in places:
        weight = _EYE if name.endswith("eye") else _NOSE if ("nose" in name or "mouth" in name or "beak" in name) else 0.0
        most = max(most, weight * math.exp(-0.5 * (math.dist(at, place) / _REACH_MM) ** 2))
    return 1 + most


def _of_colour(
    c: ColourFault, area: AreaAsked | None, places: Sequence[tuple[str, Point]], size_mm: tuple[float, float]
) -> Fault:  # fmt: skip
    heavy = math.hypot(c.value / _VALUE, c.warmth / _WARMTH)
    size = min(2.5, max(0.5, math.sqrt(c.mm2 / _USUAL_MM2)))
    score = heavy * size * focal(c.at, places) * (_BEHIND if area is not None and area.behind else 1.0)
    kinds: list[tuple[Kind, int]] = []
    if c.value:
        kinds.append(("value", 1 if c.value > 0 else -1))
    if c.warmth:
        kinds.append(("warmth", 1 if c.warmth > 0 else -1))
    name = area.name if area is not None else ""
    return Fault(
        tuple(kinds),
        c.at,
        math.sqrt(c.mm2),
        score,
        where_words(c.at, name, places, size_mm),
        colour_words(c),
        c.area_id,
        colour=c,
    )


def _of_drawing(m: Moved, places: Sequence[tuple[str, Point]]) -> Fault:
    may = _EYE_MM if m.name.endswith("eye") else _ELSE_MM
    score = min(_MOST_DRAWING, _DRAWING * max(0.0, m.mm / may - 0.6)) * focal(m.at, places)
    words = off_words((m.right, m.down))
    return Fault((("drawing", 1),), m.at, 10.0, score, begun(m.name), words, moved=m)
