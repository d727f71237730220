"""Grounds a canvas is toned with, and their colours as the paint engine sees them."""

from dataclasses import dataclass
from typing import Literal

import numpy as np

from yarrow_lane.measure.kept import kept
from yarrow_lane.paint.bands import WAVELENGTHS
from yarrow_lane.paint.kubelka_munk import COAT, Spectra, effective, film, from_outside, thick
from yarrow_lane.paint.pigments.curves import curves
from yarrow_lane.paint.seen import Lab, Srgb, lab_of, srgb_of, triple

How = Literal["bare", "wash", "opaque"]


@dataclass(frozen=True)
class Ground:
    """`parts` by pigment; a wash is `share` of paint in a thin coat over gesso, opaque grounds cover. `warm` as painters call it."""

    how: How
    parts: tuple[tuple[str, float], ...]
    share: float = 1.0
    warm: bool = False


# Names on record stay; what they are mixed from is our choice of what the trade commonly uses.
GROUNDS: dict[str, Ground] = {
    "white": Ground("bare", (("PW6", 1.0),)),
    "burnt sienna wash": Ground("wash", (("PBr7bs", 1.0),), 0.11, True),
    "raw umber wash": Ground("wash", (("PBr7ru", 1.0),), 0.11),
    "ochre and gesso": Ground("opaque", (("PW6", 3.0), ("PY43", 2.0)), warm=True),
    "middle grey": Ground("opaque", (("PW6", 6.0), ("PBk9", 1.0))),
    "dark umber": Ground("opaque", (("PBr7bu", 3.0), ("PW6", 1.0)), warm=True),
}
_WASH_COAT = 0.5  # of a brush coat: our choice


def _mixed(parts: tuple[tuple[str, float], ...]) -> tuple[Spectra, Spectra]:
    known, total = curves(), sum(p for _, p in parts)
    k = np.sum([known[key][0] * p / total for key, p in parts], axis=0)
    s = np.sum([known[key][1] * p / total for key, p in parts], axis=0)
    return k, s


def ground_spectrum(name: str, share: float | None = None) -> Spectra:
    """Internal reflectance; of a wash with that share of paint in it, or its usual one. Unknown names are bare."""
    ground = GROUNDS.get(name, GROUNDS["white"])
    gesso = thick(*_mixed((("PW6", 1.0),)))
    k, s = _mixed(ground.parts)
    match ground.how:
        case "bare":
            return gesso
        case "wash":
            strength = ground.share if share is None else share
            return film(k * strength, s * strength, effective(COAT * _WASH_COAT, WAVELENGTHS), gesso)
        case _:
            return thick(k, s)


@kept(32)
def ground_lab(name: str) -> Lab:
    """As it is seen in the studio."""
    return triple(lab_of(from_outside(ground_spectrum(name))))


@kept(32)
def ground_srgb(name: str) -> Srgb:
    """On the screen."""
    return srgb_of(ground_lab(name))
