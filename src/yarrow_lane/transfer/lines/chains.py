"""Many polylines as one array: smoothed, measured and moved all at once."""

from typing import Any

import numpy as np
from numpy.typing import NDArray

Points = NDArray[np.float64]
Starts = NDArray[np.int64]


def lengths(points: Points, starts: Starts) -> NDArray[np.float64]:
    """Of each line, in the points' own unit."""
    steps = np.hypot(*np.diff(points, axis=0).T)
    steps[starts[1:-1] - 1] = 0.0  # from one line to the next is no step
    run = np.concatenate([[0.0], np.cumsum(steps)])
    return np.asarray(run[starts[1:] - 1] - run[starts[:-1]])


def means(values: NDArray[Any], starts: Starts) -> NDArray[np.float64]:
    """Of the values (N) at each line's points."""
    return np.add.reduceat(np.asarray(values, np.float64), starts[:-1]) / np.diff(starts)


def evenly(points: Points, starts: Starts, step: float) -> tuple[Points, Starts]:
    """Each line with points about `step` apart, both ends kept; at least two points a line."""
    long = lengths(points, starts)
    counts = np.maximum(2, np.rint(long / step).astype(np.int64) + 1)
    begins = np.concatenate([[0], np.cumsum(counts)]).astype(np.int64)
    steps = np.hypot(*np.diff(points, axis=0).T)
    # Each line takes up its own stretch of one long ruler, so that one interpolation serves all.
    steps[starts[1:-1] - 1] = 1.0
    along = np.concatenate([[0.0], np.cumsum(steps)])
    number = np.repeat(np.arange(len(counts)), counts)
    share = (np.arange(begins[-1]) - begins[number]) / (counts[number] - 1)
    at = along[starts[:-1]][number] + share * long[number]
    return np.stack([np.interp(at, along, points[:, side]) for side in (0, 1)], 1), begins


def smoothed(points: Points, starts: Starts, sigma: float) -> Points:
    """Each open line by a Gauss of `sigma` points, its ends staying: beyond them it goes on point-mirrored."""
    reach = max(1, int(3 * sigma) + 1)
    weights = np.exp(-0.5 * (np.arange(-reach, reach + 1) / sigma) ** 2)
    weights /= weights.sum()
    number = np.repeat(np.arange(len(starts) - 1), np.diff(starts))
    first, last = starts[:-1][number], starts[1:][number] - 1
    here = np.arange(len(points))
    found = np.zeros_like(points)
    for offset, weight in zip(range(-reach, reach + 1), weights, strict=True):
        there = here + offset
        low, high = there < first, there > last
        place = np.where(low, np.minimum(2 * first - there, last), np.where(high, np.maximum(2 * last - there, first), there))
        value = points[place]
        value[low] = 2 * points[first[low]] - value[low]
        value[high] = 2 * points[last[high]] - value[high]
        found += weight * value
    return found


def normals(points: Points, starts: Starts) -> Points:
    """Unit normals (N, 2), to the right of the way as y runs down."""
    number = np.repeat(np.arange(len(starts) - 1), np.diff(starts))
    ahead = np.minimum(np.arange(len(points)) + 1, starts[1:][number] - 1)
    behind = np.maximum(np.arange(len(points)) - 1, starts[:-1][number])
    along = points[ahead] - points[behind]
    along /= np.hypot(*along.T)[:, None] + 1e-9
    return np.stack([-along[:, 1], along[:, 0]], 1)
