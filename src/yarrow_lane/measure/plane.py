"""Points, rectangles and polygons of the plane, in whatever unit the caller names."""

from collections.abc import Iterable
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

Point = tuple[float, float]
Polygon = tuple[Point, ...]


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

    def holds(self, point: Point) -> bool:
        """Whether the point lies inside or on the edge."""
        return self.x <= point[0] <= self.right and self.y <= point[1] <= self.bottom


def _corners(polygon: Iterable[Point]) -> NDArray[np.float64]:
    return np.asarray(list(polygon), dtype=np.float64).reshape(-1, 2)


def polygon_area(polygon: Iterable[Point]) -> float:
    """Area by the shoelace sum, in the square of the points' unit; 0 for fewer than three points."""
    points = _corners(polygon)
    if len(points) < 3:
        return 0.0
    x, y = points[:, 0], points[:, 1]
    return float(abs(np.dot(x, np.roll(y, -1)) - np.dot(y, np.roll(x, -1))) / 2)


def polygon_bounds(polygon: Iterable[Point]) -> Rect:
    """The smallest upright rectangle round the points; raises ValueError when there are none."""
    points = _corners(polygon)
    left, top = points.min(axis=0)
    right, bottom = points.max(axis=0)
    return Rect(float(left), float(top), float(right - left), float(bottom - top))


def polygon_holds(polygon: Iterable[Point], point: Point) -> bool:
    """Whether the point lies inside, by counting crossings to the right (even-odd rule)."""
    points = _corners(polygon)
    if len(points) < 3:
        return False
    x0, y0 = points[:, 0], points[:, 1]
    x1, y1 = np.roll(x0, -1), np.roll(y0, -1)
    spans = (y0 > point[1]) != (y1 > point[1])
    with np.errstate(divide="ignore", invalid="ignore"):
        crossing = x0 + (point[1] - y0) * (x1 - x0) / (y1 - y0)
    return bool(np.count_nonzero(spans & (crossing > point[0])) % 2)


def clip_to_rect(polygon: Iterable[Point], rect: Rect) -> Polygon:
    """The part of the polygon inside the rectangle (Sutherland and Hodgman 1974)."""
    points = [(float(x), float(y)) for x, y in polygon]
    for axis, limit, sign in ((0, rect.x, 1), (0, rect.right, -1), (1, rect.y, 1), (1, rect.bottom, -1)):
        kept: list[Point] = []
        for here, there in zip(points, points[1:] + points[:1], strict=True):
            inside_here = sign * (here[axis] - limit) >= 0
            inside_there = sign * (there[axis] - limit) >= 0
            if inside_here:
                kept.append(here)
            if inside_here != inside_there:
                t = (limit - here[axis]) / (there[axis] - here[axis])
                kept.append((here[0] + t * (there[0] - here[0]), here[1] + t * (there[1] - here[1])))
        points = kept
        if not points:
            return ()
    return tuple(points)


def polygons_touch(one: Polygon, other: Polygon) -> bool:
    """Whether two polygons share any ground: an edge crosses, or one lies in the other."""
    if len(one) < 3 or len(other) < 3:
        return False
    a, b = polygon_bounds(one), polygon_bounds(other)
    if a.right < b.x or b.right < a.x or a.bottom < b.y or b.bottom < a.y:
        return False
    if polygon_holds(one, other[0]) or polygon_holds(other, one[0]):
        return True
    p0, q0 = _corners(one), _corners(other)
    p1, q1 = np.roll(p0, -1, axis=0), np.roll(q0, -1, axis=0)

    def side(start: NDArray, end: NDArray, point: NDArray) -> NDArray:
        return (end[..., 0] - start[..., 0]) * (point[..., 1] - start[..., 1]) - (end[..., 1] - start[..., 1]) * (
            point[..., 0] - start[..., 0]
        )

    a0, a1, b0, b1 = p0[:, None], p1[:, None], q0[None], q1[None]
    crossing = (side(a0, a1, b0) * side(a0, a1, b1) <= 0) & (side(b0, b1, a0) * side(b0, b1, a1) <= 0)
    return bool(crossing.any())
