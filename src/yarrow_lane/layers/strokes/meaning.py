"""What a stroke means, from its form alone: closed, a part; border to border, a cut; along a border, that border anew; inside, a name."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import TYPE_CHECKING, Literal

from yarrow_lane.layers import coverage
from yarrow_lane.layers.regions import Layers, Region, region_at
from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Point, Polygon

if TYPE_CHECKING:
    import shapely
else:
    shapely = late("shapely")

Act = Literal["part", "anew", "give", "cut", "border", "name", "take", "none"]
# All our choice: how near the ends of a closed line are, how near a border counts as on it, how far a new border may lie from the old one.
_CLOSED_MM, _CLOSED_SHARE = 4.0, 0.12
_AT_BORDER_MM = 5.0
_ALONG_MM, _ALONG_SHARE = 8.0, 0.2
_LEAST_MM = 1.5
_SAME_SHARE = 0.3  # of both that a loop and a region share when the loop is meant as the region


@dataclass(frozen=True)
class Meant:
    """What a stroke would do: to `region_id`, with `other_id` where two are concerned; `words` stand beside the pointer."""

    act: Act
    words: str
    region_id: int = 0
    other_id: int = 0


def stroke_length(points: Sequence[Point]) -> float:
    """Along the stroke, mm."""
    return sum(math.dist(a, b) for a, b in pairwise(points))


def is_closed(points: Sequence[Point]) -> bool:
    """Whether the line comes back to where it began, round some ground."""
    length = stroke_length(points)
    if len(points) < 6 or length < 4 * _LEAST_MM:
        return False
    near = max(_CLOSED_MM, _CLOSED_SHARE * length)
    across = max(math.dist(points[0], p) for p in points)
    return math.dist(points[0], points[-1]) <= min(near, 0.6 * across)


def meant(layers: Layers, points: Polygon, chosen: int = 0, reach_mm: float = 0.0) -> Meant:
    """What the stroke means. `chosen` is the region a name stroke names, `reach_mm` how near the pointer can aim."""
    if not layers.regions or not any(r.rings for r in layers.regions):
        return Meant("part", "draws a part") if is_closed(points) else Meant("none", "draw once round the sitter")
    if len(points) < 2 or stroke_length(points) < _LEAST_MM:
        return Meant("none", "")
    first, last = region_at(layers, points[0]), region_at(layers, points[-1])
    middle = _most_on(layers, points)
    if middle is None:
        return Meant("none", "this lies off the canvas")
    told = next((r for r in layers.regions if r.id == chosen and r.rings), None)
    if is_closed(points):
        if told is None:
            return Meant("part", f"a part of {middle.name}", middle.id)
        return _loop_round(told, points)
    border = shapely.LineString
    line = border(points)
    near = max(_AT_BORDER_MM, reach_mm)
    rim = coverage.ground_of(middle.rings).boundary
    ends_at_border = all(rim.distance(shapely.Point(p)) <= near for p in (points[0], points[-1])) or _ends_outside(
        middle, first, last
    )  # fmt: skip
    neighbour = _along(layers, middle, line)
    if neighbour is not None and ends_at_border:
        return Meant("border", f"the border between {middle.name} and {neighbour.name}, anew", middle.id, neighbour.id)
    if ends_at_border and not _same_spot(points):
        return Meant("cut", f"cuts {middle.name} in two", middle.id)
    if first is not None and last is not None and first is not last:
        return Meant("take", f"{first.name} takes what lies here", first.id, last.id)
    if told is not None and told is not middle:
        return Meant("name", f"this is {told.name}", told.id, middle.id)
    return Meant("none", f"inside {middle.name}: choose what this is, or draw over its border", middle.id)


def _loop_round(told: Region, points: Polygon) -> Meant:
    """A closed line while a region is chosen draws that one anew where it lies, and gives it what is enclosed elsewhere."""
    loop = shapely.make_valid(shapely.Polygon(points), method="linework")
    shape = coverage.ground_of(told.rings)
    both = loop.intersection(shape).area
    if both > _SAME_SHARE * max(loop.area, 1e-6) and both > _SAME_SHARE * shape.area:
        return Meant("anew", f"{told.name}, drawn anew", told.id)
    return Meant("give", f"{told.name} takes what is enclosed", told.id)


def _most_on(layers: Layers, points: Polygon) -> Region | None:
    """The region under most of the stroke."""
    found: dict[int, int] = {}
    for p in points[:: max(1, len(points) // 24)]:
        region = region_at(layers, p)
        if region is not None:
            found[region.id] = found.get(region.id, 0) + 1
    return layers.region(max(found, key=lambda i: found[i])) if found else None


def _ends_outside(middle: Region, first: Region | None, last: Region | None) -> bool:
    return first is not middle and last is not middle


def _same_spot(points: Polygon) -> bool:
    return math.dist(points[0], points[-1]) < 2 * _LEAST_MM


def _along(layers: Layers, region: Region, line: "shapely.LineString") -> Region | None:
    """The neighbour along whose border with the region the whole line runs; None where it runs across."""
    near = min(_ALONG_MM, _ALONG_SHARE * line.length)
    shape = coverage.ground_of(region.rings)
    for other in layers.regions:
        if other is region or not other.rings:
            continue
        shared = shape.boundary.intersection(coverage.ground_of(other.rings).boundary)
        if shared.is_empty or shared.length < 0.5 * line.length:
            continue
        if shapely.hausdorff_distance(line, shared, 0.2) <= near or line.within(shared.buffer(near)):
            return other
    return None
