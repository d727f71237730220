"""The largest stretches without a mark: where more are wanted."""

from typing import TYPE_CHECKING, Any

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Circle

if TYPE_CHECKING:
    from scipy import spatial
else:
    spatial = late("scipy.spatial")

WIDE_SHARE = 0.09  # of the shorter side: a stretch of that radius wants a mark; our choice
_MOST = 8  # circles told at once; our choice
_RING = np.linspace(0, 2 * np.pi, 8, endpoint=False)
# A painter scribbles over the stretch, not on its middle alone: shares of its radius.
_SCRIBBLED = np.concatenate([[(0.0, 0.0)], 0.75 * np.stack([np.cos(_RING), np.sin(_RING)], 1)])


def largest_empty_circle(marks: NDArray[Any], size_mm: tuple[float, float]) -> Circle:
    """Centre on the canvas and radius, mm, of the largest circle about a place of it that holds none of the marks (n, 2).

    Exact for points: with the marks mirrored in the four sides and corners every candidate is a vertex of their Voronoi diagram.
    """
    width, height = size_mm
    points = np.unique(np.asarray(marks, np.float64).reshape(-1, 2), axis=0)
    if not len(points):
        return (width / 2, height / 2), float(np.hypot(width, height) / 2)
    x, y = points.T
    mirrored = [np.stack([a, b], 1) for a in (x, -x, 2 * width - x) for b in (y, -y, 2 * height - y)]
    corners = spatial.Voronoi(np.concatenate(mirrored)).vertices
    inside = np.all((corners > -1e-6) & (corners < np.array(size_mm) + 1e-6), 1)
    corners = np.clip(corners[inside], 0, size_mm)
    away = spatial.cKDTree(points).query(corners)[0]
    best = int(np.argmax(away))
    return (float(corners[best, 0]), float(corners[best, 1])), float(away[best])


def wanting_marks(marks: NDArray[Any], size_mm: tuple[float, float], wide_mm: float | None = None) -> tuple[Circle, ...]:
    """Where marks are to be added, the widest first, mm; for the next each counts as scribbled over."""
    wanted = wide_mm if wide_mm is not None else WIDE_SHARE * min(size_mm)
    known = np.asarray(marks, np.float64).reshape(-1, 2)
    found: list[Circle] = []
    while len(found) < _MOST:
        centre, radius = largest_empty_circle(known, size_mm)
        if radius < wanted:
            break
        found.append((centre, radius))
        known = np.concatenate([known, centre + radius * _SCRIBBLED])
    return tuple(found)
