"""CIELAB under D65 (CIE 15:2018), from sRGB (IEC 61966-2-1:1999 matrix and white)."""

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.colour.srgb import linear_from_srgb8

# Rows X, Y, Z. IEC 61966-2-1:1999, and its white x = 0.3127, y = 0.3290.
XYZ_FROM_LINEAR = np.array([[0.4124, 0.3576, 0.1805], [0.2126, 0.7152, 0.0722], [0.0193, 0.1192, 0.9505]], dtype=np.float64)
LUMINANCE = XYZ_FROM_LINEAR[1]  # of linear red, green and blue
WHITE_D65 = np.array([0.3127 / 0.3290, 1.0, (1 - 0.3127 - 0.3290) / 0.3290])
_EPSILON = (6 / 29) ** 3
_SLOPE = (29 / 6) ** 2 / 3


def _f(ratio: NDArray) -> NDArray:
    return np.where(ratio > _EPSILON, np.cbrt(ratio), _SLOPE * ratio + 4 / 29)


def lab_from_linear(light: NDArray[np.floating]) -> NDArray[np.float64]:
    """L* 0..100, a*, b* of linear sRGB light 0..1, shape (..., 3) to (..., 3)."""
    fx, fy, fz = np.moveaxis(_f((light @ XYZ_FROM_LINEAR.T) / WHITE_D65), -1, 0)
    return np.stack([116 * fy - 16, 500 * (fx - fy), 200 * (fy - fz)], axis=-1)


def lab_from_srgb8(picture: NDArray[np.uint8]) -> NDArray[np.float64]:
    """L* 0..100, a*, b* of 8-bit sRGB, shape (..., 3) to (..., 3)."""
    return lab_from_linear(linear_from_srgb8(picture))


def lightness_from_srgb8(picture: NDArray[np.uint8]) -> NDArray[np.float32]:
    """L* 0..100 of 8-bit sRGB, shape (..., 3) to (...)."""
    luminance = linear_from_srgb8(picture) @ XYZ_FROM_LINEAR[1].astype(np.float32)
    return (116 * _f(luminance) - 16).astype(np.float32)


def linear_from_lab(lab: NDArray[np.floating]) -> NDArray[np.float64]:
    """Linear sRGB light of L*, a*, b*, shape (..., 3) to (..., 3); outside 0..1 where no screen shows it."""
    fy = (lab[..., 0] + 16) / 116
    f = np.stack([fy + lab[..., 1] / 500, fy, fy - lab[..., 2] / 200], axis=-1)
    ratio = np.where(f > 6 / 29, f**3, (f - 4 / 29) / _SLOPE)
    return np.asarray((ratio * WHITE_D65) @ np.linalg.inv(XYZ_FROM_LINEAR).T)
