"""The colour a reflectance is seen as."""

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.colour.cielab import linear_from_lab
from yarrow_lane.measure.colour.srgb import srgb8_from_linear
from yarrow_lane.paint.bands import weights, white
from yarrow_lane.paint.kubelka_munk import K1, K2, SEEN, Spectra, from_outside, thick

_EPSILON, _KAPPA = 216 / 24389, 24389 / 27  # CIE 15:2018
Lab = tuple[float, float, float]
Srgb = tuple[int, int, int]


def lab_from_xyz(xyz: NDArray[np.floating], of_white: NDArray[np.float64]) -> NDArray:
    """CIELAB (CIE 15:2018), shape (..., 3) to (..., 3)."""
    t = np.asarray(xyz) / of_white.astype(np.asarray(xyz).dtype)
    f = np.where(t > _EPSILON, np.cbrt(np.maximum(t, 1e-12)), (_KAPPA * t + 16) / 116)
    return np.stack([116 * f[..., 1] - 16, 500 * (f[..., 0] - f[..., 1]), 200 * (f[..., 1] - f[..., 2])], axis=-1)


def lab_of(reflectance: Spectra) -> NDArray[np.float64]:
    """Lab by daylight of what reaches the eye, (..., 36) to (..., 3)."""
    return lab_from_xyz(reflectance @ weights(), white())


def lab_of_paint(absorbing: Spectra, scattering: Spectra, gloss: float = SEEN) -> NDArray[np.float64]:
    """Lab of opaque paint."""
    return lab_of(from_outside(thick(absorbing, scattering), gloss))


def quick_lab(absorbing: NDArray, scattering: NDArray, gloss: float = SEEN) -> NDArray:
    """The same by daylight, in the arrays' own precision and without intermediate spectra: for tables of a million mixes."""
    kind = absorbing.dtype
    q = absorbing / scattering
    r = 1 / (1 + q + np.sqrt(q * (q + 2)))
    r /= 1 - kind.type(K2) * r
    xyz = r @ (weights() * ((1 - K1) * (1 - K2))).astype(kind) + (gloss * K1 * white()).astype(kind)
    return lab_from_xyz(xyz, white())


def srgb_of(lab: NDArray | Lab) -> Srgb:
    """The nearest colour a screen shows."""
    red, green, blue = (int(v) for v in srgb8_from_linear(linear_from_lab(np.asarray(lab, np.float64))))
    return red, green, blue


def triple(lab: NDArray) -> Lab:
    """As it is kept on record."""
    lightness, a, b = (round(float(v), 3) for v in lab)
    return lightness, a, b
