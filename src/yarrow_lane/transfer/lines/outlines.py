"""The edges of the cut-outs as lines: what is seen of each, on the canvas."""

from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np

from yarrow_lane.compose.composition import Compose
from yarrow_lane.compose.cutting.outline import curve
from yarrow_lane.measure.late import late
from yarrow_lane.measure.outlines import shape_of
from yarrow_lane.measure.plane import Polygon

if TYPE_CHECKING:
    import shapely
else:
    shapely = late("shapely")

_RIM_MM = 1.0  # what runs along the canvas's edge is no line: our choice
_LEAST_MM = 3.0
_STEP_MM = 0.5


@dataclass(frozen=True)
class Outlines:
    """`edges`: what is seen of the cut-outs' edges, canvas mm; `rings`: all of them; with `alone` nothing else has lines, for the
    background is no photograph.
    """

    edges: tuple[Polygon, ...] = ()
    rings: tuple[Polygon, ...] = ()
    alone: bool = False

    @property
    def inside(self) -> tuple[Polygon, ...]:
        """Where lines are looked for; empty for everywhere."""
        return self.rings if self.alone else ()


def outlines_of(compose: Compose) -> Outlines:
    """Of all sitters placed; those in front hide the edges of those behind."""
    if not compose.pieces:
        return Outlines()
    canvas = shapely.box(_RIM_MM, _RIM_MM, compose.width_mm - _RIM_MM, compose.height_mm - _RIM_MM)
    seen = canvas
    rings: list[Polygon] = []
    edges: list[Polygon] = []
    for piece in reversed(compose.pieces):
        whole = shape_of([])
        for ring in (curve(outline, 8) for outline in piece.outline_mm):
            closed = np.vstack([ring, ring[:1]])
            left = shapely.intersection(shapely.linestrings(closed), seen)
            edges += _stretches(left)
            rings.append(tuple((float(x), float(y)) for x, y in ring))
            whole = shapely.symmetric_difference(whole, shape_of(rings[-1]))
        seen = shapely.difference(seen, whole)
    return Outlines(tuple(edges), tuple(rings), compose.behind is None)


def _stretches(lines: "shapely.Geometry") -> list[Polygon]:
    """Each connected stretch with points half a mm apart."""
    merged = shapely.line_merge(lines)
    found = []
    for part in shapely.get_parts(merged):
        if isinstance(part, shapely.LineString) and part.length >= _LEAST_MM:
            at = np.linspace(0, part.length, max(3, round(part.length / _STEP_MM) + 1))
            points = shapely.get_coordinates(shapely.line_interpolate_point(part, at))
            found.append(tuple((round(float(x), 2), round(float(y), 2)) for x, y in points))
    return found
