"""How paint scatters and absorbs: Kubelka and Munk 1931, Kubelka 1948, with Saunderson's surface 1942 (all from memory).

K absorbs, S scatters, each (..., 36) with the S of titanium white 1; reflectances lie between 0 and 1. Inside the film they are `internal`;
only once, at the top, does the surface come in.
"""

import numpy as np
from numpy.typing import NDArray

Spectra = NDArray[np.float64]

# A film of refractive index about 1.5: what its surface throws back from outside, and from inside (from memory).
K1, K2 = 0.04, 0.60
# The share of the first that reaches the eye: our choices. All of it for an instrument that takes the gloss in, half for satin paint in a
# studio, three tenths photographed with lamps from 45 degrees, a tenth under gloss varnish.
GLOSS_IN, SEEN, PHOTOGRAPHED, VARNISHED = 1.0, 0.5, 0.3, 0.1

# In the unit S of titanium white times thickness: our choices. 10 is about 50 um dry at 0.2 per um (from memory).
COAT, GLAZE_COAT = 10.0, 2.5
_BLUER = (
    0.8  # thin films scatter the short waves more: our choice, so that a white scumble over black is cool as painters know it
)


def thick(absorbing: Spectra, scattering: Spectra) -> Spectra:
    """Internal reflectance of paint so thick that nothing shows through."""
    ratio = absorbing / scattering
    # 1 + q - sqrt(q^2 + 2q) is the same, but cancels for dark paint.
    return np.asarray(1.0 / (1.0 + ratio + np.sqrt(ratio * (ratio + 2.0))))


def film(absorbing: Spectra, scattering: Spectra, thickness: Spectra | float, under: Spectra) -> Spectra:
    """Internal reflectance of a layer over an internal reflectance; finite for no scattering, no absorption and thick films."""
    k, s = absorbing * thickness, scattering * thickness
    beta = np.sqrt(k * (k + 2.0 * s))
    small = beta < 1e-6
    tau = np.where(small, 1.0 - beta * beta / 3.0, np.tanh(beta) / np.where(small, 1.0, beta))
    d = (s + k) * tau + 1.0
    own = s * tau / d
    through = 1.0 / (d * np.cosh(np.minimum(beta, 300.0)))
    return np.asarray(own + through * through * under / (1.0 - under * own))


def effective(thickness: float, wavelengths: Spectra) -> Spectra:
    """The thickness each band meets: films are thicker for blue light. Opaque mixes are not touched by it."""
    return np.asarray(thickness * (wavelengths / 550.0) ** -_BLUER)


def from_outside(internal: Spectra, gloss: float = SEEN, k1: float = K1, k2: float = K2) -> Spectra:
    """What reaches the eye of an internal reflectance."""
    return np.asarray(gloss * k1 + (1.0 - k1) * (1.0 - k2) * internal / (1.0 - k2 * internal))


def from_inside(seen: Spectra, gloss: float = SEEN, k1: float = K1, k2: float = K2) -> Spectra:
    """The internal reflectance of what is seen."""
    rest = np.maximum(seen - gloss * k1, 1e-5)
    return np.asarray(rest / ((1.0 - k1) * (1.0 - k2) + k2 * rest))
