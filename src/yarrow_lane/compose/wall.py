"""The client's wall: its colour or their photograph of it, what stands below, from how far it is seen."""

from dataclasses import dataclass

from yarrow_lane.compose.ground import Lab
from yarrow_lane.measure.plane import Point, Polygon


@dataclass(frozen=True)
class Furniture:
    """What stands below the piece, mm; nothing while `name` is empty."""

    name: str = ""
    width_mm: float = 0.0
    height_mm: float = 0.0


@dataclass(frozen=True)
class RoomPhoto:
    """The client's photograph of the wall: four corners (px, from the top left, clockwise) of an upright rectangle on it.

    `width_mm` is how wide that rectangle is, `height_mm` how high; `what` it is ("the door"). The piece's middle hangs at `at_mm`,
    from the rectangle's top left.
    """

    photo_id: str
    corners: Polygon
    width_mm: float
    height_mm: float
    what: str = ""
    at_mm: Point = (0.0, 0.0)


@dataclass(frozen=True)
class Wall:
    """`distance_mm` is where the client looks from; `free_width_mm` 0 while unknown."""

    colour: Lab = (88.0, 0.0, 4.0)  # our choice: an off-white, as most walls are
    source: str = ""
    free_width_mm: float = 0.0
    furniture: Furniture = Furniture()
    distance_mm: float = 2500.0  # our choice: from a chair across a living room
    room: RoomPhoto | None = None
