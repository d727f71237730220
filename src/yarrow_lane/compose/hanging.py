"""The piece on the client's wall: how wide, how high, above what, from how far."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from yarrow_lane.compose.formats import Format
from yarrow_lane.compose.sides import Outer
from yarrow_lane.compose.wall import Wall

# A piece over furniture takes two thirds to three quarters of its width: from memory. Of a free wall half to three quarters: our choice.
OVER_FURNITURE = (2 / 3, 3 / 4)
OF_FREE_WALL = (0.5, 0.75)
# Its middle hangs at eye height, or its lower edge so much above what stands below: from memory.
EYE_HEIGHT_MM, ABOVE_MM = 1500.0, 200.0
# It is looked at from 1.5 to 2 of its diagonals: from memory.
DIAGONALS = (1.5, 2.0)


@dataclass(frozen=True)
class Hung:
    """`middle_mm` and `lower_mm` above the floor; `of_width` is its share of the furniture or of the free wall, 0 while unknown."""

    middle_mm: float
    lower_mm: float
    of_width: float
    wanted: tuple[float, float]
    over: str


def hung(wall: Wall, size: Outer) -> Hung:
    """How a piece of that outer size hangs."""
    below = wall.furniture
    if below.name and below.height_mm > 0:
        lower = below.height_mm + ABOVE_MM
        share = size.width_mm / below.width_mm if below.width_mm else 0.0
        return Hung(lower + size.height_mm / 2, lower, share, OVER_FURNITURE, below.name)
    share = size.width_mm / wall.free_width_mm if wall.free_width_mm else 0.0
    return Hung(EYE_HEIGHT_MM, EYE_HEIGHT_MM - size.height_mm / 2, share, OF_FREE_WALL, "free wall")


def width_wanted(wall: Wall) -> tuple[float, float] | None:
    """The widths that suit the wall, mm; None while nothing of it is known."""
    if wall.furniture.name and wall.furniture.width_mm:
        return wall.furniture.width_mm * OVER_FURNITURE[0], wall.furniture.width_mm * OVER_FURNITURE[1]
    if wall.free_width_mm:
        return wall.free_width_mm * OF_FREE_WALL[0], wall.free_width_mm * OF_FREE_WALL[1]
    return None


def diagonal_wanted(distance_mm: float) -> tuple[float, float]:
    """The diagonals that suit the distance it is looked at from, mm."""
    return distance_mm / DIAGONALS[1], distance_mm / DIAGONALS[0]


@dataclass(frozen=True)
class Advised:
    """A stock size and how well it suits, 0 exactly; `why` in words."""

    format: Format
    off: float
    why: str


def advised_sizes(
    wall: Wall, proportion: float, formats: Sequence[Format], carries_mm: tuple[float, float] | None, most: int = 3
) -> tuple[Advised, ...]:  # fmt: skip
    """Stock sizes of about that proportion (width over height) that suit the wall, the distance and what the photograph carries.

    `carries_mm` is the largest canvas the photograph carries workably. The best first. Each measure counts by its logarithm.
    """
    widths, (least, most_diagonal) = width_wanted(wall), diagonal_wanted(wall.distance_mm)
    found = []
    longness = max(proportion, 1 / proportion)
    for f in formats:
        width, height = (f.long_mm, f.short_mm) if proportion > 1 else (f.short_mm, f.long_mm)
        off = 4 * abs(math.log(f.long_mm / f.short_mm / longness))
        why = []
        if widths is not None:
            outside = beyond(width, *widths)
            off += outside
            why.append(
                "suits the wall" if outside == 0 else "narrow for the wall" if width < widths[0] else "wide for the wall"
            )
        outside = beyond(math.hypot(width, height), least, most_diagonal)
        off += outside
        if outside == 0:
            why.append("suits the distance")
        if carries_mm is not None and width > carries_mm[0]:
            off += 2 * math.log(width / carries_mm[0])
            why.append("more than the photograph carries")
        found.append(Advised(f, off, ", ".join(why)))
    found.sort(key=lambda a: a.off)
    return tuple(found[:most])


def beyond(value: float, low: float, high: float) -> float:
    """How far a value is outside a range, as a logarithm: 0 within."""
    return math.log(low / value) if value < low else math.log(value / high) if value > high else 0.0
