"""A change of colour in the painter's terms, done to light: white balance first, then value and contrast.

Sliders and words share one axis for warm and cool: hue 55 degrees of CIELAB, from blue to orange. Our choice.
"""

import math
from typing import Any

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.compose.pieces import Move
from yarrow_lane.measure.colour.cielab import WHITE_D65, XYZ_FROM_LINEAR

Light = NDArray[Any]  # float32 (..., 3)
WARM_DEG = 55.0
_LUMINANCE = XYZ_FROM_LINEAR[1].astype(np.float32)
_SHOULDER = 92.0  # L*: above it what is made lighter runs out softly, so that no white is burnt flat. Our choice
BRIGHTEST = 1.9  # of white: what is lighter is cut off. Our choice, above it nothing differs on paper


def linear_from_lab(lab: NDArray[np.floating]) -> Light:
    """Linear sRGB light of CIELAB under D65, (..., 3) to the same; not clipped."""
    fy = (lab[..., 0] + 16) / 116
    f = np.stack([fy + lab[..., 1] / 500, fy, fy - lab[..., 2] / 200], axis=-1)
    xyz = np.where(f > 6 / 29, f**3, 3 * (6 / 29) ** 2 * (f - 4 / 29)) * WHITE_D65
    return np.asarray(xyz @ np.linalg.inv(XYZ_FROM_LINEAR).T, np.float32)


def warm_and_pink(a: float, b: float) -> tuple[float, float]:
    """How far a colour's a* and b* lie along warm and across it, pink."""
    cos, sin = math.cos(math.radians(WARM_DEG)), math.sin(math.radians(WARM_DEG))
    return a * cos + b * sin, a * sin - b * cos


def gains(warm: float, pink: float) -> Light:
    """What each of red, green and blue is multiplied by, so that middle grey (L* 50) moves that far and keeps its luminance."""
    cos, sin = math.cos(math.radians(WARM_DEG)), math.sin(math.radians(WARM_DEG))
    moved = np.array([50.0, warm * cos + pink * sin, warm * sin - pink * cos])
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
