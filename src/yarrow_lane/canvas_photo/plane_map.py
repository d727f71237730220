"""Plane maps, 3 x 3: places carried from one plane to another."""

from typing import Any

import numpy as np
from numpy.typing import NDArray


def carried(matrix: NDArray[Any], points: NDArray[Any]) -> NDArray[np.float64]:
    """Places (..., 2) as the map has them."""
    found = np.concatenate([points, np.ones((*points.shape[:-1], 1))], -1) @ matrix.T
    return np.asarray(found[..., :2] / found[..., 2:])


def plane_map(of: NDArray[np.float64], to: NDArray[np.float64]) -> NDArray[np.float64]:
    """The one that carries four points (4, 2) to four."""
    rows = []
    for (x, y), (u, v) in zip(of, to, strict=True):
        rows += [(x, y, 1, 0, 0, 0, -u * x, -u * y), (0, 0, 0, x, y, 1, -v * x, -v * y)]
    return np.append(np.linalg.solve(np.array(rows), to.ravel()), 1.0).reshape(3, 3)
