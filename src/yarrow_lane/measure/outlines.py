"""Outlines of the plane: area, holding, cutting, splitting, neighbours; shapely does the geometry."""

from collections.abc import Iterable, Sequence
from typing import TYPE_CHECKING

import numpy as np

from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Point, Polygon, Rect

if TYPE_CHECKING:
    import shapely
    from shapely.geometry.base import BaseGeometry
else:
    shapely = late("shapely")


def shape_of(polygon: Iterable[Point]) -> "BaseGeometry":
    """The ground an outline encloses; what a crossed outline encloses by the even-odd rule.

    Empty for fewer than three points.
    """
    points = np.asarray(list(polygon), np.float64)
    if len(points) < 3:
        return shapely.Polygon()
    shape = shapely.polygons(points)
    return shape if shapely.is_valid(shape) else shapely.make_valid(shape, method="linework")


def _pieces(shape: "BaseGeometry") -> list["shapely.Polygon"]:
    """The areas of a shape, the largest first; lines and points are left out."""
    parts = shapely.get_parts(shape, return_index=False)
    flat = [p for part in parts for p in (part.geoms if isinstance(part, shapely.MultiPolygon) else [part])]
    return sorted((p for p in flat if isinstance(p, shapely.Polygon) and p.area > 0), key=lambda p: -p.area)


def _outline(shape: "shapely.Polygon") -> Polygon:
    return tuple((float(x), float(y)) for x, y in shape.exterior.coords[:-1])


def polygon_area(polygon: Iterable[Point]) -> float:
    """Area in the square of the points' unit; a crossed outline counts what it encloses; 0 for fewer than three points."""
    return float(shape_of(polygon).area)


def polygon_holds(polygon: Iterable[Point], point: Point) -> bool:
    """Whether the point lies inside."""
    return bool(shapely.contains_xy(shape_of(polygon), *point))


def inner_point(polygon: Iterable[Point]) -> Point:
    """A point well inside; the first corner of what encloses nothing. Raises ValueError for no points."""
    points = tuple(polygon)
    shape = shape_of(points)
    if shape.is_empty or shape.area <= 0:
        if not points:
            raise ValueError("no points")
        return points[0]
    middle = shape.representative_point()
    return float(middle.x), float(middle.y)


def clip_to_rect(polygon: Iterable[Point], rect: Rect) -> Polygon:
    """The part of the polygon inside the rectangle as one outline; empty when nothing is left.

    Several pieces hang together by lines without width, so that none is lost.
    """
    found = _pieces(shapely.intersection(shape_of(polygon), shapely.box(rect.x, rect.y, rect.right, rect.bottom)))
    outlines = [_outline(p) for p in found]
    if len(outlines) < 2:
        return outlines[0] if outlines else ()
    start = outlines[0][0]
    return tuple(p for outline in outlines for p in (*outline, outline[0], start))


def split(polygon: Iterable[Point], line: Sequence[Point]) -> tuple[Polygon, ...]:
    """The pieces a line cuts the polygon into, the largest first; one piece when the line does not cross it."""
    shape = shape_of(polygon)
    if len(line) < 2:
        return tuple(_outline(p) for p in _pieces(shape))
    edges = shapely.unary_union([shape.boundary, shapely.LineString(line)])
    inside = [p for p in shapely.polygonize([edges]).geoms if shape.contains(p.representative_point())]
    return tuple(_outline(p) for p in sorted(inside, key=lambda p: -p.area))


def neighbours(polygons: Sequence[Polygon], reach: float = 0.0) -> tuple[tuple[int, ...], ...]:
    """For each polygon the places of the others that it meets: shared ground or border, or a gap of at most `reach`."""
    shapes = [shape_of(p) for p in polygons]
    if not shapes:
        return ()
    tree = shapely.STRtree(shapes)
    # Without a gap to bridge the plain question is three times quicker.
    one, other = tree.query(shapes, "dwithin", reach) if reach > 0 else tree.query(shapes, "intersects")
    found: list[list[int]] = [[] for _ in shapes]
    for a, b in zip(one.tolist(), other.tolist(), strict=True):
        if a != b:
            found[a].append(b)
    return tuple(tuple(sorted(f)) for f in found)


def bare_areas(polygons: Sequence[Polygon]) -> tuple[float, ...]:
    """The area of each polygon that no later one lies over, in the square of the points' unit."""
    shapes = [shape_of(p) for p in polygons]
    tree = shapely.STRtree(shapes) if shapes else None
    bare: list[float] = []
    for place, shape in enumerate(shapes):
        over = [shapes[n] for n in tree.query(shape).tolist() if n > place] if tree is not None else []
        bare.append(float(shape.difference(shapely.unary_union(over)).area if over else shape.area))
    return tuple(bare)
