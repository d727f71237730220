"""The piece on the client's wall: how wide, how high, above what, from how far."""

from dataclasses import dataclass

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
