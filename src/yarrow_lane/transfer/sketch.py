"""A sketch on paper: its lines without the paper, the shadow of the hand and the smudges."""

from typing import TYPE_CHECKING, Any

import numpy as np

from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Rect
from yarrow_lane.measure.raster import Picture

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

# All our choice; mm of a canvas of 50 cm.
_PAPER_MM = 6.0  # wider than any line: what is left is paper and its light
_SOFT_MM = 0.15
_FAINT, _FULL = 0.04, 0.16  # of the paper's light a line takes away: below the first it is grain, from the second on black
_SPECK_MM = 2.0  # shorter is a speck
_RIM_MM = 1.5


def cleaned(paper: Picture, px_per_mm: float) -> Picture:
    """Lines dark on white, (H, W, 3), from a straightened photograph of the same shape."""
    grey = cv2.GaussianBlur(cv2.cvtColor(paper, cv2.COLOR_RGB2GRAY).astype(np.float32), (0, 0), max(0.3, _SOFT_MM * px_per_mm))
    side = 2 * round(_PAPER_MM * px_per_mm / 2) + 1
    light: Any = cv2.GaussianBlur(cv2.dilate(grey, np.ones((side, side), np.uint8)), (0, 0), side / 2)
    taken = 1 - grey / np.maximum(light, 1)
    ink = np.clip((taken - _FAINT) / (_FULL - _FAINT), 0, 1)
    _, labels, stats, _ = cv2.connectedComponentsWithStats((ink > 0).astype(np.uint8), connectivity=8)
    long = np.hypot(stats[:, cv2.CC_STAT_WIDTH], stats[:, cv2.CC_STAT_HEIGHT]) >= _SPECK_MM * px_per_mm
    long[0] = False
    ink = np.where(long[labels], ink, 0)
    rim = round(_RIM_MM * px_per_mm)
    if rim:
        ink[:rim], ink[-rim:], ink[:, :rim], ink[:, -rim:] = 0, 0, 0, 0
    return np.repeat((255 * (1 - ink)).astype(np.uint8)[..., None], 3, 2)


def cut_out(sketch: Picture, size_mm: tuple[float, float], area: Rect) -> Picture:
    """The part of the whole sketch that lies on `area` of the canvas, mm."""
    px_per_mm = sketch.shape[1] / size_mm[0]
    left, top, right, bottom = (round(v * px_per_mm) for v in (area.x, area.y, area.right, area.bottom))
    return sketch[max(0, top) : max(1, bottom), max(0, left) : max(1, right)]
