"""The best way along an unrolled strip of a picture, from one end to the other, one step sideways at a time."""

import numpy as np
from numpy.typing import NDArray

BEND = 0.15  # price of a step sideways, in shares of a strong gain (our choice)
_NEVER = -1e9


def best_way(gain: NDArray[np.floating], begin: int | None = None, end: int | None = None) -> NDArray[np.int64]:
    """The column at each row with the largest gain in all, by one dynamic programme; `gain` (rows, columns), ends fixed where told."""
    rows, columns = gain.shape
    at = np.arange(columns)
    best = gain[0] if begin is None else np.where(at == begin, gain[0], _NEVER)
    back = np.zeros((rows, columns), np.int8)
    for n in range(1, rows):
        shifted = np.stack([np.r_[_NEVER, best[:-1]] - BEND, best, np.r_[best[1:], _NEVER] - BEND])
        pick = shifted.argmax(0)
        back[n] = pick - 1
        best = shifted[pick, at] + gain[n]
    way = np.zeros(rows, np.int64)
    way[-1] = int(best.argmax()) if end is None else end
    for n in range(rows - 1, 0, -1):
        way[n - 1] = np.clip(way[n] + back[n, way[n]], 0, columns - 1)
    return way
