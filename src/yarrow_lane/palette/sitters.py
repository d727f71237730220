"""Whose pixels are whose: the sitter's part of the picture."""

from collections.abc import Sequence
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Point, Polygon

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

_SUB = 4  # bits of a fraction of a pixel, as OpenCV counts them
# An oval of a head in distances between the eyes: our choice, hair or fur included.
_DOWN, _WIDE, _HIGH = 0.45, 1.5, 2.0
_FEWEST_PX = 30  # fewer are no sitter


def mask_of(rings: Sequence[Polygon], shape: tuple[int, int], px_per_mm: float) -> NDArray[np.bool_] | None:
    """(H, W) inside rings in canvas mm, by the even-odd rule; None where they hold too little."""
    if not rings:
        return None
    mask = np.zeros(shape, np.uint8)
    corners = [np.round(np.array(ring) * px_per_mm * 2**_SUB).astype(np.int32) for ring in rings if len(ring) > 2]
    cv2.fillPoly(mask, corners, 1, cv2.LINE_8, _SUB)
    return mask.astype(bool) if int(mask.sum()) >= _FEWEST_PX else None


def head_round(eyes: Sequence[Point]) -> Polygon | None:
    """About where a head lies round two eyes, canvas mm: for photographs nobody is cut out of. None without both."""
    if len(eyes) != 2:
        return None
    apart = float(np.hypot(eyes[1][0] - eyes[0][0], eyes[1][1] - eyes[0][1]))
    middle = (eyes[0][0] + eyes[1][0]) / 2, (eyes[0][1] + eyes[1][1]) / 2 + _DOWN * apart
    turns = np.linspace(0, 2 * np.pi, 48, endpoint=False)
    return tuple((float(middle[0] + _WIDE * apart * np.cos(t)), float(middle[1] + _HIGH * apart * np.sin(t))) for t in turns)
