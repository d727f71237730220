"""Pictures as arrays: cutting out a piece and resampling it."""

import cv2
import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.plane import Rect

Picture = NDArray[np.uint8]


def resample(picture: Picture, width_px: int, height_px: int) -> Picture:
    """The picture at another size; shrinking averages, so that fine hair does not sparkle.

    `picture` is (H, W, 3) or (H, W), any dtype OpenCV takes; returns (height_px, width_px, ...).
    """
    width_px, height_px = max(1, width_px), max(1, height_px)
    shrinking = width_px <= picture.shape[1] and height_px <= picture.shape[0]
    how = cv2.INTER_AREA if shrinking else cv2.INTER_CUBIC
    return np.asarray(cv2.resize(picture, (width_px, height_px), interpolation=how), dtype=picture.dtype)


def cut(picture: Picture, rect: Rect) -> Picture:
    """The pixels of `rect` (picture px, clipped to the picture), at least one pixel."""
    height, width = picture.shape[:2]
    left = min(max(0, round(rect.x)), width - 1)
    top = min(max(0, round(rect.y)), height - 1)
    right = min(width, max(left + 1, round(rect.right)))
    bottom = min(height, max(top + 1, round(rect.bottom)))
    return picture[top:bottom, left:right]
