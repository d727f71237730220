"""What a swatch of a tube looks like, and the tube that looks like that: the remembered curves bent as little as what was seen asks for."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING, Literal

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.late import late
from yarrow_lane.paint.bands import BANDS, WAVELENGTHS
from yarrow_lane.paint.kubelka_munk import COAT, PHOTOGRAPHED, Spectra, effective, film, from_inside, from_outside
from yarrow_lane.paint.paints import TINT_PARTS
from yarrow_lane.paint.pigments.building import K_BUMPS, S_BUMPS, bent, stiffness
from yarrow_lane.paint.seen import Lab, lab_of

if TYPE_CHECKING:
    from scipy import optimize
else:
    optimize = late("scipy.optimize")


Paper = Literal["white", "black"]
# How the curves of a real tube differ from the remembered ones, log: our choices. Level, shape, bend.
_K_DOUBT, _S_DOUBT = (0.35, 0.2, 0.3), (0.35, 0.2, 0.3)
_THICKNESS = 0.35  # a hand lays a coat so much thinner or thicker, log: our choice
# Papers the swatches are painted on, as reflectance: our choice of usual card. Internal, since paint wets them.
_WHITE_CARD = from_inside(np.full(BANDS, 0.88), 0.0)
_BLACK_CARD = from_inside(np.full(BANDS, 0.045), 0.0)
_BEND = K_BUMPS + S_BUMPS


@dataclass(frozen=True)
class Reading:
    """One swatch that was seen: the tube as it is or as a tint of 1 to 10, over which paper, its Lab, and the doubt of that (Lab)."""

    tint: bool
    over: Paper
    lab: Lab
    doubt: float


def swatch(
    curves: tuple[Spectra, Spectra], white: tuple[Spectra, Spectra], tint: bool, over: Paper, gloss: float = PHOTOGRAPHED,
    thickness: float = 1.0,
) -> Spectra:  # fmt: skip
    """What reaches the eye of one brush coat on that paper."""
    k, s = curves
    if tint:
        whole = 1 + TINT_PARTS
        k, s = (k + TINT_PARTS * white[0]) / whole, (s + TINT_PARTS * white[1]) / whole
    coat = effective(COAT * thickness, WAVELENGTHS)
    return from_outside(film(k, s, coat, _WHITE_CARD if over == "white" else _BLACK_CARD), gloss)


@dataclass(frozen=True, eq=False)
class Own:
    """The painter's own tube: its curves, and what is left of the doubt of its strength (log)."""

    curves: tuple[Spectra, Spectra]
    doubt: float


def own_curves(
    remembered: tuple[Spectra, Spectra],
    white: tuple[Spectra, Spectra],
    readings: Sequence[Reading],
    gloss: float = PHOTOGRAPHED,
) -> Own:
    """The likeliest tube given what was seen of it, its coats' thickness and the gloss not being known well.

    One minimum of squares over 9 + 4 bends, two thicknesses and the gloss; the remembered entry is what is believed before.
    """

    def seen(by: NDArray[np.float64]) -> NDArray[np.float64]:
        curves, shine = bent(*remembered, by), float(np.clip(gloss + 0.15 * by[_BEND + 2], 0.0, 1.0))
        coats = np.exp(by[_BEND : _BEND + 2])
        return np.array([
            (lab_of(swatch(curves, white, r.tint, r.over, shine, coats[int(r.tint)])) - r.lab) / _spread(r) for r in readings
        ])  # fmt: skip

    def residuals(by: NDArray[np.float64]) -> NDArray[np.float64]:
        strains = stiffness(by, _K_DOUBT, _S_DOUBT)
        return np.concatenate([seen(by).ravel(), *strains, by[_BEND : _BEND + 2] / _THICKNESS, by[_BEND + 2 :]])

    found = optimize.least_squares(residuals, np.zeros(_BEND + 3), method="trf", max_nfev=40)
    spread = np.linalg.pinv(found.jac.T @ found.jac)[:K_BUMPS, :K_BUMPS]
    level = np.full(K_BUMPS, 1 / K_BUMPS)
    return Own(bent(*remembered, found.x), float(np.sqrt(level @ spread @ level)))


def _spread(reading: Reading) -> NDArray[np.float64]:
    """Doubt in L*, a*, b*: light that is not even moves lightness most, and strong colours more than greys (our choice)."""
    lightness, a, b = reading.lab
    of_light = reading.doubt * (lightness + 16) / 116 + 0.4
    of_hue = 0.5 * reading.doubt + 0.5 + 0.02 * float(np.hypot(a, b))
    return np.array([of_light, of_hue, of_hue])
