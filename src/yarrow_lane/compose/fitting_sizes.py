"""How well a stock size suits: the picture's proportion, the wall, the distance it is seen from, and what the photograph carries."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from yarrow_lane.compose.formats import Format
from yarrow_lane.compose.hanging import diagonal_wanted, width_wanted
from yarrow_lane.compose.wall import Wall
from yarrow_lane.measure.plane import Point

# What weighs alike, our choice: a tenth of the proportion as two fifths of width or diagonal; too little detail counts twice.
_PROPORTION, _THIN = 4.0, 2.0


@dataclass(frozen=True)
class Misfit:
    """How far a size is from what is wanted, each as a logarithm and 0 where it suits.

    `askew` of the proportion, `wide` of the wall's widths and `large` of the diagonals (negative below them), `thin` of what the
    photograph carries.
    """

    askew: float
    wide: float
    large: float
    thin: float

    @property
    def off(self) -> float:
        """All of it, weighed."""
        return _PROPORTION * self.askew + abs(self.wide) + abs(self.large) + _THIN * self.thin

    @property
    def wall_words(self) -> str:
        """What the wall says to its width."""
        return "suits the wall" if self.wide == 0 else f"{'narrow' if self.wide < 0 else 'wide'} for the wall"


def misfit(
    size: Point, proportion: float, widths: Point | None, diagonals: Point | None, carries_mm: Point | None
) -> Misfit:  # fmt: skip
    """Of a canvas of that width and height, mm, lying as a picture of that proportion lies; what is None does not count."""
    width, height = size
    return Misfit(
        abs(math.log(width / height / proportion)),
        _beyond(width, *widths) if widths is not None else 0.0,
        _beyond(math.hypot(width, height), *diagonals) if diagonals is not None else 0.0,
        max(0.0, *(math.log(side / carried) for side, carried in zip(size, carries_mm, strict=True))) if carries_mm else 0.0,
    )


def _beyond(value: float, low: float, high: float) -> float:
    return math.log(value / low) if value < low else math.log(value / high) if value > high else 0.0


def laid(f: Format, proportion: float) -> Point:
    """Width and height of a stock size, mm, lying as a picture of that proportion lies."""
    return (f.long_mm, f.short_mm) if proportion > 1 else (f.short_mm, f.long_mm)


@dataclass(frozen=True)
class Advised:
    """A stock size and how well it suits, 0 exactly; `why` in words."""

    format: Format
    off: float
    why: str


def advised_sizes(
    wall: Wall, proportion: float, formats: Sequence[Format], carries_mm: Point | None, most: int = 3
) -> tuple[Advised, ...]:  # fmt: skip
    """Stock sizes of about that proportion (width over height) that suit the wall, the distance and what the photograph carries.

    `carries_mm` is the largest canvas the photograph carries workably. The best first. Each measure counts by its logarithm.
    """
    widths, diagonals = width_wanted(wall), diagonal_wanted(wall.distance_mm)
    found = []
    for f in formats:
        m = misfit(laid(f, proportion), proportion, widths, diagonals, carries_mm)
        why = [m.wall_words] if widths is not None else []
        why += ["suits the distance"] if m.large == 0 else []
        why += ["more than the photograph carries"] if m.thin > 0 else []
        found.append(Advised(f, m.off, ", ".join(why)))
    found.sort(key=lambda a: a.off)
    return tuple(found[:most])
