"""Pictures in their lightness alone."""

import numpy as np
from numpy.typing import ArrayLike, NDArray

from yarrow_lane.measure.colour.cielab import lightness_from_srgb8
from yarrow_lane.measure.raster import Picture


def grey_code(lightness: ArrayLike) -> NDArray[np.uint8]:
    """The sRGB grey code of each L* 0..100, same shape: the lightest code that is not lighter than asked."""
    levels = np.arange(256, dtype=np.uint8)
    ladder = lightness_from_srgb8(np.repeat(levels[None, :, None], 3, axis=2))[0]
    return np.asarray(np.searchsorted(ladder, np.asarray(lightness) - 1e-3).clip(0, 255), np.uint8)


def grey(picture: Picture) -> Picture:
    """The picture in greys of equal L*, (H, W, 3) to the same."""
    return np.repeat(grey_code(lightness_from_srgb8(picture))[..., None], 3, axis=2)
