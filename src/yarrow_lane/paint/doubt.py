"""How far a predicted colour may be off, and the word for it."""

from typing import Literal

import numpy as np

from yarrow_lane.measure.colour.difference import difference
from yarrow_lane.paint.paints import Paints, Parts
from yarrow_lane.paint.recipes.solver import slips
from yarrow_lane.paint.seen import quick_lab

Word = Literal["guide", "close", "good"]
# Spread of the logarithm of a tube's strength: our choices, from simulations. Remembered only, after three tints, after its own swatches.
UNKNOWN, TINTED, SWATCHED = 0.5, 0.3, 0.1
_WIDENED = 1.28  # simulated spread against what single tubes add up to: our choice
_CAMERA = 1.0  # CIEDE2000 of a camera or an eye that calibrated the tubes: our choice
_GOOD, _CLOSE = 2.0, 4.0  # our choice of the words' limits


def doubt_of(paints: Paints, parts: Parts) -> float:
    """Expected difference (root mean square) between prediction and paint: strengths, measuring by eye, and the eye or camera."""
    lab, total, step = paints.lab(parts), 0.0, 0.05
    shares = parts / parts.sum()
    k, s = shares @ paints.absorbing, shares @ paints.scattering
    for column in np.nonzero(parts)[0]:
        paint = paints.all[int(column)]
        if not paint.white or paint.tint:
            for more_k, more_s in ((step, 0.0), (0.0, step)):
                moved = quick_lab(k + shares[column] * paint.absorbing * more_k, s + shares[column] * paint.scattering * more_s)
                total += float(difference(moved, lab) / step * paint.doubt) ** 2
    slip = float(slips(paints, parts[None], lab[None])[0])
    return float(np.sqrt((_WIDENED**2) * total + slip**2 + _CAMERA**2))


def word_of(doubt: float) -> Word:
    """Good below 2, close to 4, else a guide."""
    return "good" if doubt < _GOOD else "close" if doubt <= _CLOSE else "guide"
