"""The lines to draw as they stand: picked, with the cut-outs' outlines, and what the painter's hand changed."""

import math
from collections.abc import Iterable, Sequence
from dataclasses import replace
from itertools import pairwise

import numpy as np

from yarrow_lane.measure.outlines import polygon_area
from yarrow_lane.measure.plane import Point, Polygon
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.transfer.lines.base import STEP_MM, Base
from yarrow_lane.transfer.lines.chains import evenly, smoothed
from yarrow_lane.transfer.lines.choice import Choice
from yarrow_lane.transfer.lines.line import Line, Source
from yarrow_lane.transfer.lines.outlines import Outlines
from yarrow_lane.transfer.lines.pick import left_open, picked

_HOLDS_MM = 1.5  # a dropped line passes so near the place it was dropped at
_MOST_BY_HAND = 400


class LinesTrouble(Trouble):
    """A line that cannot be drawn or dropped."""


def unit_of(width_mm: float, height_mm: float) -> float:
    """Canvas mm for each mm the lines are worked out in: a large canvas is drawn in larger strokes [our choice: from 50 cm on]."""
    return max(1.0, max(width_mm, height_mm) / 500.0)


def lines_to_draw(base: Base, choice: Choice, size_mm: tuple[float, float], cut: Outlines) -> tuple[Line, ...]:
    """All lines, canvas mm. `base` is in its own unit (`unit_of`)."""
    unit = unit_of(*size_mm)
    edges, inside = ([_scaled(o, 1 / unit) for o in some] for some in (cut.edges, cut.inside))
    there = [(_scaled(p, 1 / unit), level) for p, level in choice.there]
    size = size_mm[0] / unit, size_mm[1] / unit
    own = picked(base, choice.level, size, inside, there)
    lines = [replace(line, points=_scaled(line.points, unit)) for line in own]
    lines += [_whole(_scaled(edge, unit), "outline") for edge in left_open(edges, own, size)]
    lines += [_whole(path, "hand") for path in choice.by_hand]
    return tuple(line for line in lines if line.source == "hand" or not _dropped(line, choice.dropped, _HOLDS_MM * unit))


def _whole(points: Polygon, source: Source) -> Line:
    return Line(points, (False,) * len(points), math.inf, source)


def _scaled(points: Iterable[Point], by: float) -> Polygon:
    return tuple((round(x * by, 3), round(y * by, 3)) for x, y in points)


def _dropped(line: Line, places: Sequence[Point], reach: float) -> bool:
    return any(distance(line, place) <= reach for place in places)


def distance(line: Line, place: Point) -> float:
    """From a place to the line, mm."""
    points = np.asarray(line.points, np.float64)
    step = points[1:] - points[:-1]
    share = ((np.asarray(place) - points[:-1]) * step).sum(1) / np.maximum((step**2).sum(1), 1e-12)
    near = points[:-1] + np.clip(share, 0, 1)[:, None] * step
    return float(np.hypot(*(near - np.asarray(place)).T).min())


def nearest(lines: Sequence[Line], place: Point, reach_mm: float) -> Line | None:
    """The line next to a place, within reach."""
    found = min(lines, key=lambda line: distance(line, place), default=None)
    return found if found is not None and distance(found, place) <= reach_mm else None


def dropped(choice: Choice, lines: Sequence[Line], place: Point, reach_mm: float) -> Choice:
    """Without the line at that place. Raises `LinesTrouble` where there is none."""
    line = nearest(lines, place, reach_mm)
    if line is None:
        raise LinesTrouble("No line was dropped", "there is none", "click on a line")
    return without(choice, lines, line)


def without(choice: Choice, lines: Sequence[Line], line: Line) -> Choice:
    """Without that one of the lines."""
    if line.source == "hand":
        left = tuple(d for d in choice.by_hand if d != line.points)
        return replace(choice, by_hand=left)
    # Noted where it lies farthest from the others, so that none goes with it.
    points = np.asarray(line.points)[:: max(1, len(line.points) // 40)]
    others = [np.asarray(other.points)[::4] for other in lines if other is not line]
    if others:
        every = np.concatenate(others)
        apart = [float(np.hypot(*(every - point).T).min()) for point in points]
        on = points[int(np.argmax(apart))]
    else:
        on = points[len(points) // 2]
    return replace(choice, dropped=(*choice.dropped, (round(float(on[0]), 1), round(float(on[1]), 1))))


def drawn(choice: Choice, path: Sequence[Point]) -> Choice:
    """With a line drawn by hand. Raises `LinesTrouble` for a dot, or when there are too many."""
    long = sum(math.dist(a, b) for a, b in pairwise(path))
    if long < 2.0:
        raise LinesTrouble("No line was drawn", "it is shorter than 2 mm", "hold the button and draw it")
    if len(choice.by_hand) >= _MOST_BY_HAND:
        raise LinesTrouble("The line was not taken", f"there are {_MOST_BY_HAND} by hand", "drop some of them first")
    return replace(choice, by_hand=(*choice.by_hand, evened(path)))


def evened(path: Sequence[Point], sigma: float = 3.0) -> Polygon:
    """A hand's path with its tremble taken out by a Gauss of `sigma` points, which then lie half a mm apart."""
    points = np.asarray(path, np.float64)
    even, starts = evenly(points, np.array([0, len(points)], np.int64), STEP_MM)
    soft = smoothed(even, starts, sigma)
    return tuple((round(float(x), 2), round(float(y), 2)) for x, y in soft)


def with_level_there(choice: Choice, polygon: Polygon, level: float) -> Choice:
    """With another level within a part of the canvas; parts drawn later lie on those before. Raises `LinesTrouble` for a speck."""
    if len(polygon) < 3 or polygon_area(polygon) < 25.0:
        raise LinesTrouble("Nothing was changed", "the part is smaller than 5 by 5 mm", "go round a larger one")
    outline = tuple((round(x, 1), round(y, 1)) for x, y in polygon)
    return replace(choice, there=(*choice.there, (outline, round(level, 3))))
