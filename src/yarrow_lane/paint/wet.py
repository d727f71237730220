"""Acrylic while it is wet: milky, glossy, and its pigments scatter more.

Milk and index lighten, gloss darkens and enriches the darks; which wins depends on value. The strengths are our choice, a guess that
pairs of wet and dry looks make the painter's own. Not for watercolour, and oil hardly shifts.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.late import late
from yarrow_lane.paint.kubelka_munk import from_outside, thick
from yarrow_lane.paint.paints import Paints, Parts
from yarrow_lane.paint.pigments.entries import Opacity
from yarrow_lane.paint.seen import lab_of

if TYPE_CHECKING:
    from scipy import optimize
else:
    optimize = late("scipy.optimize")


# How much more pigment scatters in the wet vehicle, by opacity: from refractive indices 2.6, 2.0 and 1.7 in 1.39 against 1.49 (from memory).
_RATIO: dict[Opacity, float] = {"opaque": 1.25, "half opaque": 1.55, "transparent": 2.4}
_MILK, _INDEX_SHARE = (
    0.03,
    0.5,
)  # flat scattering of the wet emulsion, and the share of the index effect that is believed: our choices
_GLOSS, _K1, _K2 = 0.3, 0.03, 0.56  # the wet surface: our choices
_PRIOR = np.array([0.6, 0.4, 1.0])  # how far the three may be off: our choice
_NOISE = 1.4  # of a pair of looks, Lab: our choice


@dataclass(frozen=True)
class Wetness:
    """Logarithms of milk and index strength, and the surface, as learnt; all 0 before anything was seen."""

    milk: float = 0.0
    index: float = 0.0
    surface: float = 0.0


def wet_lab(paints: Paints, parts: Parts, wetness: Wetness = Wetness()) -> NDArray[np.float64]:
    """Lab of mixes while wet, (..., n) parts to (..., 3)."""
    more = np.array([1 + _INDEX_SHARE * (_RATIO[p.opacity] - 1) * np.exp(wetness.index) for p in paints.all])
    shares = parts / parts.sum(axis=-1, keepdims=True)
    scattering = shares @ (paints.scattering * more[:, None]) + _MILK * np.exp(wetness.milk)
    gloss = float(np.clip(_GLOSS + 0.1 * wetness.surface, 0.0, 0.5))
    return lab_of(from_outside(thick(shares @ paints.absorbing, scattering), gloss, _K1, _K2))


def learnt(paints: Paints, pairs: Sequence[tuple[Parts, NDArray[np.float64]]]) -> Wetness:
    """From mixes and the Lab they had wet; shrunk towards the usual, so that one pair already helps and none harms."""
    if not pairs:
        return Wetness()
    parts, seen = np.array([p for p, _ in pairs]), np.array([lab for _, lab in pairs])

    def residuals(by: NDArray[np.float64]) -> NDArray[np.float64]:
        off = wet_lab(paints, parts, Wetness(*by)) - seen
        return np.concatenate([off.ravel() / _NOISE, by / _PRIOR])

    found = optimize.least_squares(residuals, np.zeros(3), bounds=([-2.5, -2.5, -1.0], [2.5, 2.5, 3.0])).x
    return Wetness(*(float(v) for v in found))
