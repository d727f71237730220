"""The recoloured parts laid over the light of a picture, tile by tile; each part's soft mask is made once."""

from typing import TYPE_CHECKING, Any

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.compose.cutting.evidence import blurred
from yarrow_lane.compose.drawing.colour_move import moved_light
from yarrow_lane.compose.drawing.sprite import ONE
from yarrow_lane.compose.pieces import Move
from yarrow_lane.compose.recolour import Recoloured
from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import polygon_bounds

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")


class Recolouring:
    """The parts of one composition at one scale."""

    def __init__(self, parts: tuple[Recoloured, ...], px_per_mm: float) -> None:
        self._parts = [_Part(p, px_per_mm) for p in parts if not p.move.plain]

    def do(self, ground: NDArray[Any], left_px: float, top_px: float) -> None:
        """Change light (H, W, 3), white at `ONE`, in place; its px lie from `left_px`, `top_px` of the whole on."""
        for part in self._parts:
            part.do(ground, round(left_px), round(top_px))


class _Part:
    """Where it lies in px of the whole, and its mask once it is asked for. Pixels of the whole are counted, so that tiles agree."""

    def __init__(self, part: Recoloured, px_per_mm: float) -> None:
        self._move: Move = part.move
        self._soft = part.soft_mm * px_per_mm
        room = int(np.ceil(4 * self._soft)) + 2
        box = polygon_bounds(part.outline)
        self._left, self._top = int(np.floor(box.x * px_per_mm)) - room, int(np.floor(box.y * px_per_mm)) - room
        self._right = int(np.ceil(box.right * px_per_mm)) + room
        self._bottom = int(np.ceil(box.bottom * px_per_mm)) + room
        self._corners = (np.asarray(part.outline) * px_per_mm - (self._left, self._top)) * 16 - 8
        self._mask: NDArray[Any] | None = None

    def do(self, ground: NDArray[Any], left: int, top: int) -> None:
        x0, x1 = max(self._left, left), min(self._right, left + ground.shape[1])
        y0, y1 = max(self._top, top), min(self._bottom, top + ground.shape[0])
        if x1 <= x0 or y1 <= y0:
            return
        if self._mask is None:
            self._mask = self._drawn()
        share = self._mask[y0 - self._top : y1 - self._top, x0 - self._left : x1 - self._left, None]
        there = ground[y0 - top : y1 - top, x0 - left : x1 - left]
        there += share * (moved_light(there / np.float32(ONE), self._move) * np.float32(ONE) - there)

    def _drawn(self) -> NDArray[Any]:
        mask = np.zeros((self._bottom - self._top, self._right - self._left), np.float32)
        cv2.fillPoly(mask, [np.round(self._corners).astype(np.int32)], 1.0, cv2.LINE_8, 4)
        return blurred(mask, self._soft) if self._soft > 0.3 else mask
