"""From what is remembered of a pigment to its absorption and scattering in 36 bands.

The remembered shape is bent as little as possible, by smooth bumps, until masstone and tint come out. The dilution of the tint is solved
with it, so that mean scattering meets the opacity class: at face value the remembered tints would make several transparent pigments
scatter more than white, and known mixes fail.
"""

from collections.abc import Callable
from functools import cache
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.late import late
from yarrow_lane.paint.bands import BANDS, WAVELENGTHS
from yarrow_lane.paint.kubelka_munk import GLOSS_IN, Spectra
from yarrow_lane.paint.pigments.entries import Entry
from yarrow_lane.paint.seen import lab_of_paint

if TYPE_CHECKING:
    from scipy import optimize
else:
    optimize = late("scipy.optimize")


K_BUMPS, S_BUMPS = 9, 4
_WEAKEST, _STRONGEST = np.log(1.5), np.log(12.0)  # the dilutions looked at: our choice
# Doubts of masstone and tint in Lab, and how freely level, shape and bend of K and S may move (log): our choices.
_MASSTONE, _TINT = 0.8, 0.5
_K_DOUBT, _S_DOUBT = (1.5, 0.9, 0.5), (0.35, 0.25, 0.2)


@cache
def bumps(count: int) -> NDArray[np.float64]:
    """(36, count) smooth bumps over the bands whose rows sum to 1."""
    places = np.linspace(WAVELENGTHS[0], WAVELENGTHS[-1], count)
    near = np.maximum(0.0, 1.0 - np.abs(WAVELENGTHS[:, None] - places) / (places[1] - places[0]))
    smooth = 3 * near**2 - 2 * near**3
    return np.asarray(smooth / smooth.sum(axis=1, keepdims=True))


def bent(absorbing: Spectra, scattering: Spectra, by: NDArray[np.float64]) -> tuple[Spectra, Spectra]:
    """Both curves bent by 9 + 4 log factors."""
    k, s = by[:K_BUMPS], by[K_BUMPS : K_BUMPS + S_BUMPS]
    return absorbing * np.exp(bumps(K_BUMPS) @ k), scattering * np.exp(bumps(S_BUMPS) @ s)


def stiffness(
    by: NDArray[np.float64], k_doubt: tuple[float, float, float], s_doubt: tuple[float, float, float]
) -> list[NDArray[np.float64]]:  # fmt: skip
    """How far a bending strains belief: level, shape and bend of each curve, in units of their doubts."""
    strains = []
    for part, (level, shape, bend) in ((by[:K_BUMPS], k_doubt), (by[K_BUMPS : K_BUMPS + S_BUMPS], s_doubt)):
        strains += [np.array([part.mean() / level]), (part - part.mean()) / shape, np.diff(part, 2) / bend]
    return strains


def remembered_shape(entry: Entry) -> Spectra:
    """Absorption before it is bent."""
    total = np.zeros(BANDS)
    for kind, values in entry.absorption:
        match kind, values:
            case "bump", (middle, width, height):
                total += height * np.exp(-0.5 * ((WAVELENGTHS - middle) / width) ** 2)
            case "edge", (place, width, height):
                total += height / (1 + np.exp((WAVELENGTHS - place) / width))
            case _:
                total += values[0]
    return total


def _fitted(residuals: Callable[[NDArray[np.float64]], NDArray[np.float64]], size: int) -> NDArray[np.float64]:
    return np.asarray(optimize.least_squares(residuals, np.zeros(size), method="trf").x)


def white_curves(entry: Entry) -> tuple[Spectra, Spectra]:
    """Titanium white: its scattering is the unit."""
    shape, one = remembered_shape(entry), np.ones(BANDS)

    def residuals(by: NDArray[np.float64]) -> NDArray[np.float64]:
        seen = lab_of_paint(shape * np.exp(bumps(K_BUMPS) @ by), one, GLOSS_IN)
        return np.concatenate([(seen - np.array(entry.masstone)) / 0.1, by / 1.5, np.diff(by, 2) / 0.6])

    return shape * np.exp(bumps(K_BUMPS) @ _fitted(residuals, K_BUMPS)), one


def curves_of(entry: Entry, white: tuple[Spectra, Spectra]) -> tuple[Spectra, Spectra, float]:
    """Absorption, scattering, and the dilution its remembered tint is taken for (parts of white to one)."""
    low, high = _WEAKEST, _STRONGEST
    dilution = 0.0
    k = s = np.ones(BANDS)
    for _ in range(9):
        dilution = float(np.exp((low + high) / 2))
        k, s = _at_dilution(entry, white, dilution)
        if np.log(s).mean() > np.log(entry.scattering):
            high = np.log(dilution)
        else:
            low = np.log(dilution)
    return k, s, dilution


def _at_dilution(entry: Entry, white: tuple[Spectra, Spectra], dilution: float) -> tuple[Spectra, Spectra]:
    shape = remembered_shape(entry)
    scattering = entry.scattering * (WAVELENGTHS / 550.0) ** -entry.scattering_power

    def residuals(by: NDArray[np.float64]) -> NDArray[np.float64]:
        k, s = bent(shape, scattering, by)
        found = [(lab_of_paint(k, s, GLOSS_IN) - np.array(entry.masstone)) / _MASSTONE]
        if entry.tint is not None:
            tint = lab_of_paint(k + dilution * white[0], s + dilution * white[1], GLOSS_IN)
            found.append((tint - np.array(entry.tint)) / _TINT)
        return np.concatenate([*found, *stiffness(by, _K_DOUBT, _S_DOUBT)])

    return bent(shape, scattering, _fitted(residuals, K_BUMPS + S_BUMPS))
