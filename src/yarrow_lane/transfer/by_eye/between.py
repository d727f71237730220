"""Shapes between things: what the sitters leave of the canvas, to be looked at flat; and the edges of the sitters themselves."""

from collections.abc import Sequence
from typing import TYPE_CHECKING

from yarrow_lane.measure.late import late
from yarrow_lane.measure.outlines import shape_of
from yarrow_lane.measure.plane import Point, Polygon

if TYPE_CHECKING:
    import shapely
else:
    shapely = late("shapely")

_LEAST_SHARE = 0.004  # of the canvas: smaller shapes are not looked at; our choice
_EDGES = ("highest", "lowest", "leftmost", "rightmost")


def shapes_between(rings: Sequence[Polygon], size_mm: tuple[float, float]) -> tuple[Polygon, ...]:
    """The pieces the rings leave of the canvas, the largest first, canvas mm; one with holes hangs together by a cut."""
    shape = shapely.box(0, 0, *size_mm)
    for ring in rings:
        shape = shapely.difference(shape, shape_of(ring))
    least = _LEAST_SHARE * size_mm[0] * size_mm[1]
    parts = [p for p in shapely.get_parts(shape) if isinstance(p, shapely.Polygon) and p.area >= least]
    return tuple(
        tuple((float(x), float(y)) for ring in (part.exterior, *part.interiors) for x, y in ring.coords)
        for part in sorted(parts, key=lambda p: -p.area)
    )


def edges_of(named: Sequence[tuple[str, Polygon]], size_mm: tuple[float, float]) -> dict[str, Point]:
    """Highest, lowest, leftmost and rightmost point of each, by name; what the canvas's edge cuts off is no point to measure from."""
    found: dict[str, Point] = {}
    width, height = size_mm
    for name, ring in named:
        if not ring:
            continue
        ends = min(ring, key=lambda p: p[1]), max(ring, key=lambda p: p[1]), min(ring), max(ring)
        for edge, at in zip(_EDGES, ends, strict=True):
            if 1 <= at[0] <= width - 1 and 1 <= at[1] <= height - 1:
                found[f"{name}'s {edge} point" if name else f"the {edge} point"] = at
    return found
