"""sRGB to light and back (IEC 61966-2-1:1999)."""

from functools import cache
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.late import late

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

# Linear-light values of the 256 codes: pictures are 8 bit, so decoding is a table look-up.
_CODES = np.arange(256) / 255.0
LINEAR_OF_CODE = np.where(_CODES <= 0.04045, _CODES / 12.92, ((_CODES + 0.055) / 1.055) ** 2.4).astype(np.float32)


def linear_from_srgb8(picture: NDArray[np.uint8]) -> NDArray[np.float32]:
    """Linear light 0..1 of 8-bit sRGB, same shape.

    OpenCV looks the codes up, since it lets the interface run meanwhile; indexing an array would not.
    """
    flat = np.ascontiguousarray(picture).reshape(-1, 1)
    return np.asarray(cv2.LUT(flat, LINEAR_OF_CODE), np.float32).reshape(picture.shape)


_LEVELS = 65535  # half a level is a fortieth of a code where the curve is steepest


@cache
def _code_of_level() -> NDArray[np.uint8]:
    """The code of 65,536 levels of light; made when the first picture is, since the start has no use for it."""
    light = np.arange(_LEVELS + 1) / _LEVELS
    code = np.where(light <= 0.0031308, 12.92 * light, 1.055 * np.maximum(light, 1e-9) ** (1 / 2.4) - 0.055)
    return np.round(255 * code).astype(np.uint8)


def srgb8_from_linear(light: NDArray[np.floating]) -> NDArray[np.uint8]:
    """8-bit sRGB of linear light 0..1 (clipped), same shape."""
    levels = (np.clip(light, 0.0, 1.0) * np.float32(_LEVELS) + np.float32(0.5)).astype(np.uint16)
    return np.take(_code_of_level(), levels, mode="clip")
