"""The picture's own values: where its lightness falls into groups."""

import numpy as np
from numpy.typing import NDArray

BINS = 101  # one a unit of L*


def histogram(lightness: NDArray[np.floating]) -> NDArray[np.int64]:
    """Pixels for each whole L* 0..100."""
    return np.bincount(np.clip(np.round(lightness), 0, 100).astype(np.int64).ravel(), minlength=BINS)


def own_limits(counts: NDArray[np.int64], groups: int) -> tuple[float, ...]:
    """Limits between `groups` groups of L*, those with the least spread inside: exact, by dynamic programming over the histogram.

    Where the picture has fewer different values than groups, the limits that are missing lie evenly above the others.
    """
    at = np.arange(BINS, dtype=np.float64)
    weight = np.concatenate([[0.0], np.cumsum(counts)])
    first = np.concatenate([[0.0], np.cumsum(counts * at)])
    second = np.concatenate([[0.0], np.cumsum(counts * at * at)])
    begin, end = np.meshgrid(np.arange(BINS + 1), np.arange(BINS + 1), indexing="ij")
    inside = weight[end] - weight[begin]
    spread = second[end] - second[begin] - (first[end] - first[begin]) ** 2 / np.maximum(inside, 1e-9)
    # An empty group would cost nothing and hide a value that is asked for.
    spread = np.where((end > begin) & (inside > 0), np.maximum(spread, 0.0), np.inf)
    best, came = spread[0], []
    for _ in range(groups - 1):
        through = best[:, None] + spread
        came.append(through.argmin(axis=0))
        best = through.min(axis=0)
    if not np.isfinite(best[BINS]):
        return _even(counts, groups)
    limits, here = [], BINS
    for row in reversed(came):
        here = int(row[here])
        limits.append(_between(counts, here))
    return tuple(reversed(limits))


def _between(counts: NDArray[np.int64], split: int) -> float:
    """The middle of the gap at a split: groups may lie far apart."""
    below, above = np.nonzero(counts[:split])[0], np.nonzero(counts[split:])[0]
    return float((below[-1] + split + above[0]) / 2)


def _even(counts: NDArray[np.int64], groups: int) -> tuple[float, ...]:
    there = np.nonzero(counts)[0]
    low, high = (float(there[0]), float(there[-1])) if len(there) else (0.0, 100.0)
    low, high = min(low, 50.0 - groups), max(high, 50.0 + groups)
    return tuple(low + (high - low) * n / groups for n in range(1, groups))
