"""Pictures enlarged by repeating pixels: every measure of edges would call them perfectly sharp."""

import math
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.late import late

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

Grey = NDArray[np.uint8]
# Our choice, read off the tuning pictures: a line that differs from the next by less than this share of the largest difference near by
# repeats it; below this difference (codes) nothing can be told; so many lines are looked at together.
_SAME_SHARE, _LEAST_CODES, _NEAR_LINES = 0.2, 0.8, 9
_LEAST_FACTOR, _UNEVEN = 1.1, 1.15
_ENOUGH_PX, _WINDOW_PX = 2_000_000, 1000


def without_repeats(grey: Grey) -> tuple[Grey, float]:
    """The picture before its pixels were repeated, and how often each was (1.0: not at all), along both axes."""
    height, width = grey.shape
    if grey.size > _ENOUGH_PX:
        y, x = max(0, height // 2 - _WINDOW_PX // 2), max(0, width // 2 - _WINDOW_PX // 2)
        if _factor(grey[y : y + _WINDOW_PX, x : x + _WINDOW_PX]) == 1.0:
            return grey, 1.0
    factor = _factor(grey)
    if factor == 1.0:
        return grey, 1.0
    size = (max(8, round(width / factor)), max(8, round(height / factor)))
    return np.asarray(cv2.resize(grey, size, interpolation=cv2.INTER_NEAREST), np.uint8), factor


def _factor(grey: Grey) -> float:
    down, across = (_repeated(grey, axis) for axis in (0, 1))
    if min(down, across) < _LEAST_FACTOR or max(down, across) / min(down, across) > _UNEVEN:
        return 1.0
    return math.sqrt(down * across)


def _repeated(grey: Grey, axis: int) -> float:
    """How often lines are repeated along an axis; 1.0 where they are not, or cannot be told."""
    steps = np.abs(np.diff(grey.astype(np.int16), axis=axis)).mean(axis=1 - axis).astype(np.float32)
    near = cv2.dilate(steps[:, None], np.ones((_NEAR_LINES, 1), np.uint8)).ravel()
    telling = near > _LEAST_CODES
    if telling.mean() < 0.5:
        return 1.0
    repeat = (steps < _SAME_SHARE * near) & telling
    share = float(repeat.sum() / telling.sum())
    if share <= 0.1:
        return 1.0
    factor = 1 / (1 - share)
    runs = np.diff(np.nonzero(~repeat)[0])  # runs of repeats are short: what is only smooth repeats nothing
    if len(runs) < 8 or float(np.percentile(runs, 95)) > 2 * factor + 2:
        return 1.0
    return factor
