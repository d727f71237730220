"""A photographed drawing measured against what it should be: straightened, places found, errors parted, words."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from yarrow_lane.measure.plane import Point
from yarrow_lane.measure.raster import Picture
from yarrow_lane.transfer.proof.find import FoundPlace
from yarrow_lane.transfer.proof.split import Whole, off_words, parted


@dataclass(frozen=True)
class Flat:
    """The canvas straightened (H, W, 3), its corners as its sides meet (px of the photograph), sides not well seen, and the places
    found on it in the order asked, canvas mm; None where the drawing was not recognised.
    """

    picture: Picture
    corners: tuple[Point, ...]
    weak: tuple[str, ...]
    found: tuple[FoundPlace, ...] | None


@dataclass(frozen=True)
class Off:
    """One place: where it was drawn, where it belongs with the whole taken out, how far off (mm right and down), set by hand or found."""

    name: str
    drawn: Point
    belongs: Point
    rest: Point
    by_hand: bool

    @property
    def mm(self) -> float:
        return math.hypot(*self.rest)

    @property
    def words(self) -> str:
        return off_words(self.rest)


@dataclass(frozen=True)
class Verdict:
    """The whole first, then every place, the worst first; `asked` are the places no line led to: they want a click."""

    whole: Whole
    places: tuple[Off, ...]
    asked: tuple[str, ...]

    def holding(self, tolerance_mm: float) -> int:
        """How many are within it."""
        return sum(p.mm <= tolerance_mm for p in self.places)


def judged(names: Sequence[str], meant: Sequence[Point], flat: Flat, by_hand: dict[str, Point]) -> Verdict | None:
    """What a hand set counts, else what was found surely; None with fewer than two places."""
    known: list[tuple[str, Point, Point, bool]] = []
    asked = []
    for number, (name, aim) in enumerate(zip(names, meant, strict=True)):
        if name in by_hand:
            known.append((name, aim, by_hand[name], True))
        elif flat.found is not None and flat.found[number].sure:
            known.append((name, aim, flat.found[number].at, False))
        else:
            asked.append(name)
    if len(known) < 2:
        return None
    split = parted([k[1] for k in known], [k[2] for k in known])
    places = [
        Off(name, drawn, belongs, rest, hand)
        for (name, _, drawn, hand), belongs, rest in zip(known, split.belongs, split.rest, strict=True)
    ]
    return Verdict(split.whole, tuple(sorted(places, key=lambda p: -p.mm)), tuple(asked))
