"""A photographed drawing measured against what it should be: straightened, places found, errors parted, words."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from yarrow_lane.measure.plane import Point
from yarrow_lane.measure.raster import Picture
from yarrow_lane.transfer.proof.find import FoundPlace
from yarrow_lane.transfer.proof.split import Whole, off_words, parted

_UNSURE_MM = 10.0  # a place found unsurely farther from where the whole would have it is no guess: our choice


@dataclass(frozen=True)
class Flat:
    """The canvas straightened (H, W, 3), its corners as its sides meet (px of the photograph), sides not well seen, the places found on
    it in the order asked, canvas mm (None where the drawing was not recognised), and the bulge of the lens.
    """

    picture: Picture
    corners: tuple[Point, ...]
    weak: tuple[str, ...]
    found: tuple[FoundPlace, ...] | None
    bulge: float = 0.0


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
    """The whole first, then every place, the worst first; `asked` are the places that were not found surely, each where it is guessed:
    they want a hand. With fewer than two places known there is no whole, and all of them are asked for.
    """

    whole: Whole | None
    places: tuple[Off, ...]
    asked: tuple[tuple[str, Point], ...]

    def holding(self, tolerance_mm: float) -> int:
        """How many are within it."""
        return sum(p.mm <= tolerance_mm for p in self.places)


def judged(names: Sequence[str], meant: Sequence[Point], flat: Flat, by_hand: Mapping[str, Point]) -> Verdict:
    """What a hand set counts, else what was found surely."""
    known: dict[str, tuple[Point, Point]] = {}
    for number, (name, aim) in enumerate(zip(names, meant, strict=True)):
        if name in by_hand:
            known[name] = aim, by_hand[name]
        elif flat.found is not None and flat.found[number].sure:
            known[name] = aim, flat.found[number].at
    if len(known) < 2:
        return Verdict(None, (), tuple((name, by_hand.get(name, aim)) for name, aim in zip(names, meant, strict=True)))
    split = parted([aim for aim, _ in known.values()], [drawn for _, drawn in known.values()])
    places = [
        Off(name, drawn, belongs, rest, name in by_hand)
        for (name, (_, drawn)), belongs, rest in zip(known.items(), split.belongs, split.rest, strict=True)
    ]
    asked = []
    for number, (name, aim) in enumerate(zip(names, meant, strict=True)):
        if name not in known:
            guess = split.whole.carried(aim)
            # What was found unsurely is nearer than the whole says: of 24 drawings fewer than half as many lay more than 2 mm off.
            found = flat.found[number].at if flat.found is not None else guess
            asked.append((name, found if math.dist(found, guess) <= _UNSURE_MM else guess))
    return Verdict(split.whole, tuple(sorted(places, key=lambda p: -p.mm)), tuple(asked))
