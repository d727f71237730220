"""A picture of strength parted into cells: the ground that drains into one hollow (watershed by steepest descent).

A library's flooding gives the same cells but for some px on their borders, which are moved to the crest afterwards anyway.
"""

import math
from typing import TYPE_CHECKING, Any

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.late import late
from yarrow_lane.transfer.lines.strength import Plane

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

_HOLLOW_PX = 2  # a hollow is the lowest so far round it: our choice, smaller ones belong to the next


def cells_of(strength: Plane) -> NDArray[np.int32]:
    """The cell (H, W) of each px, numbered from 0."""
    size = 2 * _HOLLOW_PX + 1
    lowest: NDArray[Any] = cv2.erode(strength, np.ones((size, size), np.uint8))
    hollow = strength <= lowest
    _, number = cv2.connectedComponents(hollow.astype(np.uint8), connectivity=8)
    to = _lower(strength, 1)
    # A dent that is no hollow runs on to the lowest px farther off.
    stuck = (to == np.arange(strength.size).reshape(strength.shape)) & ~hollow
    to[stuck] = _lower(strength, _HOLLOW_PX)[stuck]
    way = to.ravel()
    while True:
        farther = way[way]
        if np.array_equal(farther, way):
            break
        way = farther
    found = number.ravel()[way].reshape(strength.shape).astype(np.int32) - 1
    return np.asarray(found, np.int32)


def _lower(strength: Plane, reach: int) -> NDArray[np.int64]:
    """For each px the number of the px within `reach` to which it falls most steeply, itself where none is lower."""
    height, width = strength.shape
    here = np.arange(strength.size, dtype=np.int64).reshape(strength.shape)
    wide = cv2.copyMakeBorder(strength, reach, reach, reach, reach, cv2.BORDER_CONSTANT, value=float("inf"))
    best, to = np.zeros_like(strength), here.copy()
    for down in range(-reach, reach + 1):
        for across in range(-reach, reach + 1):
            if not (down or across):
                continue
            there = wide[reach + down : reach + down + height, reach + across : reach + across + width]
            fall = (there - strength) / np.float32(math.hypot(down, across))
            lower = fall < best
            best[lower] = fall[lower]
            to[lower] = here[lower] + down * width + across
    return to
