"""Shine: light that glossy paint throws back. It is in one photograph and not in the other, when lamp or camera moved between them."""

from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.late import late

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

Floats = NDArray[np.float64]
_LEAST = 2.2  # L* by which one photograph is lighter than the other over a spot: our choice, above the noise measured
_SPOT_CELLS = 5  # 15 mm: shine is broad
_GROWN = 3  # cells: its rim fades


def shine_apart(one: Floats, other: Floats) -> tuple[NDArray[np.bool_], NDArray[np.bool_]]:
    """Where each of two evened photographs shines and the other does not, from L* on cells (h, w): shine only ever adds light."""
    off = cv2.medianBlur(np.asarray(one - other, np.float32), _SPOT_CELLS)
    # Both were evened by themselves: a level or a slope between them is no shine.
    wide = cv2.GaussianBlur(off, (0, 0), min(off.shape) / 4)
    calm = off - np.median(off - wide) - wide * 0.5
    return _grown(calm > _LEAST), _grown(calm < -_LEAST)


def _grown(spots: NDArray[np.bool_]) -> NDArray[np.bool_]:
    solid = cv2.morphologyEx(spots.astype(np.uint8), cv2.MORPH_OPEN, np.ones((3, 3), np.uint8))
    return cv2.dilate(solid, np.ones((2 * _GROWN + 1, 2 * _GROWN + 1), np.uint8)) > 0
