"""What lies behind the sitters, as light: a colour, a gradient, or the photograph as far out of focus as wished."""

import math
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.compose.composition import Compose, Framed
from yarrow_lane.compose.drawing.colour_move import moved_light
from yarrow_lane.compose.drawing.layers import Tile
from yarrow_lane.compose.drawing.sprite import ONE
from yarrow_lane.measure.colour.cielab import linear_from_lab
from yarrow_lane.measure.colour.srgb import linear_from_srgb8
from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Rect
from yarrow_lane.measure.raster import Picture, piece

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

_SIGMA_PX = (
    4.0  # a blurred photograph is blurred at a size where its blur is so wide: one small picture, no seams between tiles
)
_STEPS = 1025


class Backdrop:
    """Painted tile by tile; `photo` gives the upright photograph of an id, once."""

    def __init__(self, compose: Compose, photo: Picture | None) -> None:
        self._compose, self._photo = compose, photo
        self._blurred: tuple[NDArray[np.float32], float] | None = None

    def tile(self, tile: Tile) -> NDArray[np.float32]:
        """(height, width, 3) light, white at `ONE`."""
        ground = self._compose.ground
        if ground.kind == "photograph":
            assert self._photo is not None and self._compose.background is not None
            return np.asarray(self._from_photo(tile, self._photo, self._compose.background) * np.float32(ONE), np.float32)
        if ground.kind == "colour":
            colour = np.clip(linear_from_lab(np.array(ground.colours[0])), 0, 1) * ONE
            return np.broadcast_to(colour, (tile.height, tile.width, 3)).astype(np.float32)
        turn = math.radians(ground.degrees)
        way = math.sin(turn), -math.cos(turn)
        long = abs(way[0]) * self._compose.width_mm + abs(way[1]) * self._compose.height_mm
        xs = (np.arange(tile.width) + tile.left + 0.5) / tile.px_per_mm - self._compose.width_mm / 2
        ys = (np.arange(tile.height) + tile.top + 0.5) / tile.px_per_mm - self._compose.height_mm / 2
        share = np.clip((xs[None, :] * way[0] + ys[:, None] * way[1]) / long + 0.5, 0, 1) * (_STEPS - 1)
        one, other = np.array(ground.colours[0]), np.array(ground.colours[1])
        along = np.linspace(0, 1, _STEPS)[:, None]
        table = (np.clip(linear_from_lab(one * (1 - along) + other * along), 0, 1) * ONE).astype(np.float32)
        below = share.astype(np.int32)
        part = (share - below)[..., None]
        found = table[below] * (1 - part) + table[np.minimum(below + 1, _STEPS - 1)] * part
        # A broken pattern of half a code at most, else 8 bits show as bands. It belongs to the canvas and not to the tile.
        grain = _grain(tile)
        return np.asarray(found * (1 + grain[..., None]), np.float32)

    def _from_photo(self, tile: Tile, photo: Picture, laid: Framed) -> NDArray[np.float32]:
        ground = self._compose.ground
        each = laid.crop.width / self._compose.width_mm / tile.px_per_mm  # photograph px for each px of the result
        area = Rect(
            laid.crop.x + tile.left * each, laid.crop.y + tile.top * each, tile.width * each, tile.height * each
        )  # fmt: skip
        if ground.blur_mm <= 0:
            light = linear_from_srgb8(piece(photo, area, tile.width, tile.height))
            return moved_light(light, ground.move)
        soft, scale = self._soft(photo, ground.blur_mm * laid.crop.width / self._compose.width_mm)
        xs = (area.x + (np.arange(tile.width) + 0.5) * each) * scale - 0.5
        ys = (area.y + (np.arange(tile.height) + 0.5) * each) * scale - 0.5
        map_x = np.ascontiguousarray(np.broadcast_to(xs.astype(np.float32), (tile.height, tile.width)))
        map_y = np.ascontiguousarray(np.broadcast_to(ys.astype(np.float32)[:, None], (tile.height, tile.width)))
        return np.asarray(cv2.remap(soft, map_x, map_y, cv2.INTER_LINEAR, borderMode=cv2.BORDER_REPLICATE), np.float32)

    def _soft(self, photo: Picture, sigma_px: float) -> tuple[NDArray[np.float32], float]:
        if self._blurred is None:
            height, width = photo.shape[:2]
            scale = min(1.0, _SIGMA_PX / sigma_px)
            small = max(2, round(width * scale)), max(2, round(height * scale))
            shrunk = piece(photo, Rect(0, 0, width, height), *small)
            light = moved_light(linear_from_srgb8(shrunk), self._compose.ground.move)
            sigma = sigma_px * small[0] / width
            soft = cv2.GaussianBlur(light, (0, 0), sigma, borderType=cv2.BORDER_REPLICATE)
            self._blurred = (np.asarray(soft, np.float32), small[0] / width)
        return self._blurred


def _grain(tile: Tile) -> NDArray[np.float32]:
    """-0.004 to 0.004 by place on the canvas: interleaved gradient noise, which has no pattern the eye finds."""
    xs = np.floor(np.arange(tile.width) + tile.left + 0.5)[None, :]
    ys = np.floor(np.arange(tile.height) + tile.top + 0.5)[:, None]
    noise = np.mod(52.9829189 * np.mod(0.06711056 * xs + 0.00583715 * ys, 1.0), 1.0)
    return np.asarray((noise - 0.5) * 0.008, np.float32)
