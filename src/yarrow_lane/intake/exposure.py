"""Shadows and highlights that are cut off, and a colour cast that may be there."""

from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.colour.cielab import lab_from_srgb8
from yarrow_lane.measure.late import late
from yarrow_lane.measure.raster import Picture, resized

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

_WHITE_CODE, _BLACK_CODE = 252, 8  # our choice: what a camera's curve has flattened
WARN_SHARE, REJECT_SHARE = 0.02, 0.10  # our choice
_CAST_UNITS = 6.0  # our choice: both estimates must exceed it
_CAST_PX = 400
_CAST_LEAST_PX = 30  # our choice: fewer say nothing


@dataclass(frozen=True)
class Cast:
    """Median a*, b* of the lightest unclipped pixels and of the least colourful ones."""

    light: tuple[float, float]
    grey: tuple[float, float]

    @property
    def words(self) -> str:
        """Said only when both estimates agree; one photograph cannot prove a cast."""
        (a1, b1), (a2, b2) = self.light, self.grey
        found = []
        if min(abs(b1), abs(b2)) > _CAST_UNITS and b1 * b2 > 0:
            found.append("yellow" if b1 > 0 else "blue")
        if min(abs(a1), abs(a2)) > _CAST_UNITS and a1 * a2 > 0:
            found.append("pink" if a1 > 0 else "green")
        return "may be too " + " and ".join(found) if found else "none seen"


def clipped(picture: Picture) -> tuple[NDArray[np.bool_], NDArray[np.bool_]]:
    """Where highlights and where shadows are cut off, (H, W) each."""
    # Channel by channel: a maximum along the short axis of an array costs twenty times as much.
    red, green, blue = cv2.split(np.ascontiguousarray(picture))
    brightest = cv2.max(cv2.max(red, green), blue)
    return brightest >= _WHITE_CODE, brightest <= _BLACK_CODE


def clipped_shares(picture: Picture) -> tuple[float, float]:
    """Share of the picture with cut highlights, and with cut shadows, in strips so that memory stays small."""
    high = low = 0
    for top in range(0, picture.shape[0], 200):
        lights, shadows = clipped(picture[top : top + 200])
        high += int(np.count_nonzero(lights))
        low += int(np.count_nonzero(shadows))
    size = picture.shape[0] * picture.shape[1]
    return high / size, low / size


def cast_places(picture: Picture) -> tuple[NDArray[np.bool_], NDArray[np.bool_], NDArray[np.float64]]:
    """Where a cast is read: the lightest unclipped pixels, and the least colourful ones.

    Both masks (h, w) and the Lab picture (h, w, 3) are of a small copy, since only the colour counts.
    """
    small = resized(picture, _CAST_PX)
    lab = lab_from_srgb8(small)
    fit = (lab[..., 0] > 6) & (small.max(axis=2) < 250)
    if fit.sum() < _CAST_LEAST_PX:
        return np.zeros_like(fit), np.zeros_like(fit), lab
    chroma = np.hypot(lab[..., 1], lab[..., 2])
    light = fit & (lab[..., 0] >= np.percentile(lab[fit][:, 0], 97))
    return light, fit & (chroma <= np.percentile(chroma[fit], 20)), lab


def colour_cast(picture: Picture) -> Cast:
    """Two independent guesses at what white is; no cast where there is too little to judge by."""
    light, grey, lab = cast_places(picture)
    return Cast(_middle(lab[light]), _middle(lab[grey]))


def _middle(lab: NDArray[np.float64]) -> tuple[float, float]:
    return (float(np.median(lab[:, 1])), float(np.median(lab[:, 2]))) if len(lab) else (0.0, 0.0)
