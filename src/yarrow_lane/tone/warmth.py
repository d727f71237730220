"""Warm and cool: where lights are warm and shadows cool, or the reverse."""

from dataclasses import dataclass
from typing import TYPE_CHECKING, Literal

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.colour.warm import WARM
from yarrow_lane.measure.late import late

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

Scheme = Literal["warm lights, cool shadows", "cool lights, warm shadows", "one temperature"]
_SEEN = 3.0  # Lab units between lights and shadows that are told apart: our choice
_SHADOW, _LIGHT = 30, 70  # per cent of the lightness: our choice
_SOFT_SHARE = 0.012  # of the longer side: what is looked at together; our choice


@dataclass(frozen=True, eq=False)
class Warmth:
    """`field` (H, W): warmer (above 0) or cooler than the picture's middle, Lab units; means of lights and shadows, and what that is."""

    field: NDArray[np.float32]
    lights: float
    shadows: float
    scheme: Scheme


def warmth_of(lab: NDArray[np.floating], of: NDArray[np.bool_] | None = None) -> Warmth:
    """Of a reference as Lab (H, W, 3); `of` are the pixels whose lights and shadows are told, the sitter's.

    The photograph's own middle is called neither: its white balance is not known.
    """
    along = lab[..., 1] * WARM[0] + lab[..., 2] * WARM[1]
    inside = np.ones(along.shape, bool) if of is None or not of.any() else of
    middle = float(np.median(along[inside]))
    soft = max(0.8, _SOFT_SHARE * max(along.shape))
    field = cv2.GaussianBlur((along - middle).astype(np.float32), (0, 0), soft)
    lightness = lab[..., 0]
    low, high = np.percentile(lightness[inside], (_SHADOW, _LIGHT))
    lights = float((along - middle)[inside & (lightness >= high)].mean())
    shadows = float((along - middle)[inside & (lightness <= low)].mean())
    apart = lights - shadows
    scheme: Scheme = "one temperature"
    if apart >= _SEEN:
        scheme = "warm lights, cool shadows"
    elif apart <= -_SEEN:
        scheme = "cool lights, warm shadows"
    return Warmth(np.asarray(field, np.float32), lights, shadows, scheme)
