"""Pictures made to be looked at anew: squinted at, and two joined along a slanted line."""

import numpy as np

from yarrow_lane.measure.raster import Picture, resample

_SQUINT_PX = 46  # of the longer side: what half shut eyes leave (our choice)


def squinted(picture: Picture) -> Picture:
    """As through half shut eyes, (H, W, 3): masses without detail."""
    height, width = picture.shape[:2]
    scale = _SQUINT_PX / max(height, width)
    few = resample(picture, max(2, round(width * scale)), max(2, round(height * scale)))
    return np.asarray(resample(few, width, height), np.uint8)


def joined(one: Picture, other: Picture) -> Picture:
    """The left of one and the right of the other, along a line that leans; of the other's size."""
    height, width = other.shape[:2]
    whole = np.asarray(resample(one, width, height), np.uint8)
    y, x = np.mgrid[:height, :width]
    left = x < width / 2 + (height / 2 - y) * 0.12
    return np.where(left[..., None], whole, other)
