"""The canvas found by the coloured band of the grey frame round it: a guess at its corners, to be looked at like any other."""

from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.check.greys import BAND_SRGB
from yarrow_lane.measure.colour.cielab import lab_from_srgb8
from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Polygon
from yarrow_lane.measure.raster import Picture, resized

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

_LOOKED_PX = 900
# What light and printers leave of the band's colour: our choice.
_CHROMAS, _CASTS_DEG, _HUE_DEG = (26.0, 18.0, 12.0), (0.0, -18.0, 18.0), 24.0
_MOST_OFF = 0.12  # ln, of the proportion: seen aside it is another
_LEAST_SHARE = 0.05  # of the frame that the canvas takes
_CORNER = 0.03  # of the picture: what is closed
_STRAIGHT = 0.03  # of its outline, by which four corners may miss it


def corners_by_band(picture: Picture, size_mm: tuple[float, float]) -> Polygon | None:
    """From the canvas's top left, clockwise, px; None where no band goes all round something of that proportion."""
    small = resized(picture, _LOOKED_PX)
    scale = picture.shape[1] / small.shape[1]
    lab = lab_from_srgb8(small)
    wanted = lab_from_srgb8(np.array([[BAND_SRGB]], np.uint8))[0, 0]
    hue = np.degrees(np.arctan2(lab[..., 2], lab[..., 1]) - np.arctan2(wanted[2], wanted[1]))
    chroma = np.hypot(lab[..., 1], lab[..., 2])
    found: list[tuple[float, int, NDArray[np.float64]]] = []
    for least in _CHROMAS:
        for cast in _CASTS_DEG:  # what the colour of the light turns the band's hue by
            away = np.abs((hue - cast + 180) % 360 - 180)
            four = _hole((chroma > least) & (away < _HUE_DEG))
            off = _off_proportion(four, size_mm) if four is not None else 1.0
            if four is not None and off < _MOST_OFF:
                found.append((off, len(found), four))
    if not found:
        return None
    four = min(found, key=lambda f: f[:2])[2]
    return tuple((round(float(x + 0.5) * scale, 1), round(float(y + 0.5) * scale, 1)) for x, y in four)


def _hole(band: NDArray[np.bool_]) -> NDArray[np.float64] | None:
    """The corners (4, 2) of the largest thing the band goes round, from its top left, clockwise."""
    side = round(_CORNER * max(band.shape)) | 1  # strips leave the corners open
    closed = cv2.morphologyEx(np.pad(band.astype(np.uint8), side), cv2.MORPH_CLOSE, np.ones((side, side), np.uint8))
    rings, tree = cv2.findContours(closed[side:-side, side:-side].copy(), cv2.RETR_CCOMP, cv2.CHAIN_APPROX_NONE)
    if tree is None:
        return None
    holes = [r for r, t in zip(rings, tree[0], strict=True) if t[3] >= 0 and cv2.contourArea(r) > _LEAST_SHARE * band.size]
    if not holes:
        return None
    hole = cv2.convexHull(max(holes, key=cv2.contourArea))
    four = cv2.approxPolyDP(hole, _STRAIGHT * cv2.arcLength(hole, True), True)[:, 0].astype(float)
    if len(four) != 4:
        return None
    middle = four.mean(0)
    four = four[np.argsort(np.arctan2(four[:, 1] - middle[1], four[:, 0] - middle[0]))]  # clockwise, y runs down
    return np.asarray(np.roll(four, -int((four - middle).sum(1).argmin()), 0))


def _off_proportion(four: NDArray[np.float64], size_mm: tuple[float, float]) -> float:
    """ln of how far its proportion is from the canvas's."""
    sides = np.hypot(*(np.roll(four, -1, 0) - four).T)
    return float(abs(np.log((sides[0] + sides[2]) / (sides[1] + sides[3]) * size_mm[1] / size_mm[0])))
