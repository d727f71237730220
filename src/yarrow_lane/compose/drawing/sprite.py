"""A cut-out as it is laid down: premultiplied light, halved as often as a scale asks for."""

from typing import TYPE_CHECKING, Any

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.compose.cutting.cut_out import CutOut
from yarrow_lane.compose.drawing.colour_move import moved_light
from yarrow_lane.compose.pieces import Move
from yarrow_lane.measure.colour.srgb import linear_from_srgb8
from yarrow_lane.measure.late import late

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

ONE = 32768.0  # white in 16 bits: room above it for what was made lighter
Layer = NDArray[np.uint16]
_STRIP = 256
_MOST_HALVINGS = 6


class Sprite:
    """The levels of one cut-out under one change of colour, made when they are asked for.

    Each is (H, W, 4) uint16 light times alpha, and alpha, 1.0 at `ONE`.
    """

    def __init__(self, cut: CutOut, move: Move) -> None:
        self.box, self.scale = cut.box, cut.scale
        self._cut, self._move = cut, move
        self._levels: dict[int, Layer] = {}

    @property
    def bytes(self) -> int:
        return sum(level.nbytes for level in self._levels.values()) + self._cut.rgba.nbytes

    def level_for(self, wanted_scale: float) -> int:
        """How often halved it is still not enlarged, at so many px of the result for each px of the photograph."""
        found = 0
        while wanted_scale * (2 << found) <= self.scale and found < _MOST_HALVINGS:
            found += 1
        return found

    def level(self, halvings: int) -> Layer:
        if halvings not in self._levels:
            self._levels[halvings] = self._made(1 << halvings)
        return self._levels[halvings]

    def _made(self, times: int) -> Layer:
        rgba = self._cut.rgba
        height, width = -(-rgba.shape[0] // times), -(-rgba.shape[1] // times)
        out = np.empty((height, width, 4), np.uint16)
        rows = max(1, _STRIP // times)
        for top in range(0, height, rows):
            part = rgba[top * times : (top + rows) * times]
            if times == 1 and self._move.plain:
                # The finest level as it is: no averaging, nothing to be undone.
                share = part[..., 3:].astype(np.float32) * np.float32(1 / 255)
                light: NDArray[Any] = linear_from_srgb8(np.ascontiguousarray(part[..., :3]))
                light *= share
                light *= ONE
                light += 0.5
                out[top : top + len(part), :, :3] = light
                out[top : top + len(part), :, 3:] = share * np.float32(ONE) + np.float32(0.5)
                continue
            alpha = part[..., 3].astype(np.float32) / 255
            light = linear_from_srgb8(np.ascontiguousarray(part[..., :3])) * alpha[..., None]
            whole: NDArray[Any] = np.dstack([light, alpha])
            tall = min(rows, height - top)
            below, beside = tall * times - whole.shape[0], width * times - whole.shape[1]
            if below or beside:
                whole = cv2.copyMakeBorder(whole, 0, below, 0, beside, cv2.BORDER_REPLICATE)
            if times > 1:
                whole = cv2.resize(whole, (width, tall), interpolation=cv2.INTER_AREA)
            if not self._move.plain:
                cover = whole[..., 3:]
                whole[..., :3] = moved_light(whole[..., :3] / np.maximum(cover, 1e-4), self._move) * cover
            out[top : top + tall] = np.clip(whole * ONE + 0.5, 0, 65535)
        return out
