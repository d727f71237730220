"""Points and upright rectangles of the plane, in whatever unit the caller names."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

Point = tuple[float, float]
Polygon = tuple[Point, ...]
Circle = tuple[Point, float]  # centre and radius


@dataclass(frozen=True)
class Rect:
    """Left, top, width and height; x to the right, y down."""

    x: float
    y: float
    width: float
    height: float

    @property
    def right(self) -> float:
        return self.x + self.width

    @property
    def bottom(self) -> float:
        return self.y + self.height

    @property
    def centre(self) -> Point:
        return self.x + self.width / 2, self.y + self.height / 2

    @property
    def corners(self) -> Polygon:
        """From the top left, clockwise as seen."""
        return (self.x, self.y), (self.right, self.y), (self.right, self.bottom), (self.x, self.bottom)

    def with_air(self, share: float, within: "Rect") -> "Rect":
        """The rectangle with a share of its longer side round it, cut to `within`."""
        air = max(self.width, self.height) * share
        left, top = max(within.x, self.x - air), max(within.y, self.y - air)
        return Rect(left, top, min(within.right, self.right + air) - left, min(within.bottom, self.bottom + air) - top)

    def holds(self, point: Point) -> bool:
        """Whether the point lies inside or on the edge."""
        return self.x <= point[0] <= self.right and self.y <= point[1] <= self.bottom


def ring_area(ring: Sequence[Point]) -> float:
    """What a ring that does not cross itself encloses, by the shoelace; 0 for fewer than three points."""
    return 0.5 * abs(sum(a[0] * b[1] - b[0] * a[1] for a, b in zip(ring, (*ring[1:], *ring[:1]), strict=True)))


def polygon_bounds(polygon: Iterable[Point]) -> Rect:
    """The smallest upright rectangle round the points; raises ValueError when there are none."""
    points = list(polygon)
    left, top = min(x for x, _ in points), min(y for _, y in points)
    return Rect(left, top, max(x for x, _ in points) - left, max(y for _, y in points) - top)
