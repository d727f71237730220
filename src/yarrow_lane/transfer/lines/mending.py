"""Lines joined, redrawn in part and smoothed by hand: the old one goes, the new one is the painter's."""

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.plane import Point
from yarrow_lane.transfer.lines.choice import Choice
from yarrow_lane.transfer.lines.drawing import LinesTrouble, drawn, evened, nearest, without
from yarrow_lane.transfer.lines.line import Line

_SOFTER = 9.0  # points of half a mm: our choice; a second time takes out more
_END_MM = 6.0  # a line whose ends lie so near is a ring: our choice


def softer(choice: Choice, lines: Sequence[Line], place: Point, reach_mm: float) -> Choice:
    """The line at that place, smoothed. Raises `LinesTrouble` where there is none."""
    line = nearest(lines, place, reach_mm)
    if line is None:
        raise LinesTrouble("No line was smoothed", "there is none", "click on a line")
    left = without(choice, lines, line)
    return drawn(left, evened(line.points, _SOFTER))


def mended(choice: Choice, lines: Sequence[Line], path: Sequence[Point], reach_mm: float) -> Choice:
    """A stroke from one line to another joins them; from a line back to it, it takes the place of the stretch between.

    Raises `LinesTrouble` for a stroke that begins and ends at no line.
    """
    first, last = nearest(lines, path[0], reach_mm), nearest(lines, path[-1], reach_mm)
    if first is None or last is None:
        raise LinesTrouble("Nothing was mended", "the stroke does not begin and end on a line", "draw from line to line")
    stroke = np.asarray(path, np.float64)
    if first is last:
        return drawn(without(choice, lines, first), _points(_redrawn(np.asarray(first.points, np.float64), stroke)))
    one, other = _up_to(first, path[0]), _up_to(last, path[-1])
    joined = np.concatenate([one, stroke, other[::-1]])
    left = without(without(choice, lines, first), lines, last)
    return drawn(left, _points(joined))


def _points(path: NDArray[np.float64]) -> tuple[Point, ...]:
    return tuple((float(x), float(y)) for x, y in path)


def _up_to(line: Line, place: Point) -> NDArray[np.float64]:
    """The longer part of the line up to the place, ending there."""
    points = np.asarray(line.points, np.float64)
    at = int(np.argmin(np.hypot(*(points - np.asarray(place)).T)))
    before, after = points[: at + 1], points[at:][::-1]
    return before if len(before) >= len(after) else after


def _redrawn(points: NDArray[np.float64], stroke: NDArray[np.float64]) -> NDArray[np.float64]:
    """The line with the stretch between the stroke's ends replaced by it."""
    begin, end = (int(np.argmin(np.hypot(*(points - place).T))) for place in (stroke[0], stroke[-1]))
    if begin > end:
        begin, end, stroke = end, begin, stroke[::-1]
    closed = bool(np.hypot(*(points[0] - points[-1])) < _END_MM)
    if closed and end - begin > len(points) / 2:  # round the other way
        return np.concatenate([stroke, points[begin:end][::-1]])
    return np.concatenate([points[:begin], stroke, points[end + 1 :]])
