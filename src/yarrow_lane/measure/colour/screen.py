"""A colour as the screen names it."""

import numpy as np

from yarrow_lane.measure.colour.cielab import linear_from_lab
from yarrow_lane.measure.colour.srgb import srgb8_from_linear


def hex_of(colour: tuple[float, float, float]) -> str:
    """CIE Lab (D65) as "#rrggbb"."""
    codes = srgb8_from_linear(np.clip(linear_from_lab(np.array([colour])), 0, 1))[0]
    return f"#{codes[0]:02x}{codes[1]:02x}{codes[2]:02x}"
