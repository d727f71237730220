"""A change of colour in the painter's terms, done to light: white balance first, then value and contrast.

Sliders and words share one axis for warm and cool (`measure/colour/warm.py`).
"""

from typing import Any

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.compose.pieces import Move
from yarrow_lane.measure.colour.cielab import XYZ_FROM_LINEAR, linear_from_lab
from yarrow_lane.measure.colour.warm import PINK, WARM

Light = NDArray[Any]  # float32 (..., 3)
_LUMINANCE = XYZ_FROM_LINEAR[1].astype(np.float32)
_SHOULDER = 92.0  # L*: above it what is made lighter runs out softly, so that no white is burnt flat. Our choice
BRIGHTEST = 1.9  # of white: what is lighter is cut off. Our choice, above it nothing differs on paper


def gains(warm: float, pink: float) -> Light:
    """What each of red, green and blue is multiplied by, so that middle grey (L* 50) moves that far and keeps its luminance."""
    moved = np.array([50.0, warm * WARM[0] + pink * PINK[0], warm * WARM[1] + pink * PINK[1]])
    wanted, grey = linear_from_lab(moved), linear_from_lab(np.array([50.0, 0.0, 0.0]))
    found = np.maximum(wanted, 1e-4) / grey
    return np.asarray(found / (found @ _LUMINANCE / _LUMINANCE.sum()), np.float32)


def moved_light(light: Light, move: Move) -> Light:
    """Linear light (..., 3) after the change; hue and saturation of the light stay where value changes."""
    if move.plain:
        return light
    found = light * gains(move.warm, move.pink)
    if move.steps or move.contrast != 1:
        luminance = np.maximum(found @ _LUMINANCE, 1e-6)
        lightness = np.where(luminance > (6 / 29) ** 3, 116 * np.cbrt(luminance) - 16, (29 / 3) ** 3 * luminance)
        wanted = np.maximum(move.pivot + (lightness - move.pivot) * move.contrast + 10 * move.steps, 0)
        room = 100 - _SHOULDER
        wanted = np.where(wanted > _SHOULDER, _SHOULDER + room * (1 - np.exp(-(wanted - _SHOULDER) / room)), wanted)
        after = np.where(wanted > 8, ((wanted + 16) / 116) ** 3, wanted * (3 / 29) ** 3)
        found = found * (after / luminance)[..., None].astype(np.float32)
    return np.asarray(np.minimum(found, BRIGHTEST), np.float32)
