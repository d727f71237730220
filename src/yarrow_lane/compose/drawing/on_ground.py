"""A cut-out on another ground, in the photograph's own place: its edge is judged there before it is placed."""

from typing import TYPE_CHECKING, Literal

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.compose import pieces
from yarrow_lane.compose.composition import Compose
from yarrow_lane.compose.cutting.cut_out import CutOut
from yarrow_lane.compose.drawing.backdrop import Backdrop
from yarrow_lane.compose.drawing.layers import Tile
from yarrow_lane.compose.drawing.sprite import ONE
from yarrow_lane.compose.pieces import Piece
from yarrow_lane.measure.colour.cielab import linear_from_lab
from yarrow_lane.measure.colour.srgb import linear_from_srgb8, srgb8_from_linear
from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import polygon_bounds
from yarrow_lane.measure.raster import Picture

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

Plain = Literal["black", "white", "grey"]
_LIGHTNESS: dict[Plain, float] = {"black": 0.0, "white": 100.0, "grey": 50.0}
Light = NDArray[np.float32]


def plain_ground(ground: Plain) -> Light:
    """One colour for all, (1, 1, 3) light."""
    return np.clip(linear_from_lab(np.array([[[_LIGHTNESS[ground], 0.0, 0.0]]])), 0, 1).astype(np.float32)


def ground_behind(
    compose: Compose, piece: Piece, photo: Picture | None, width_px: int, height_px: int, scale: float
) -> Light:  # fmt: skip
    """What lies behind the piece on the canvas, brought to the place and scale of its photograph, (H, W, 3) light.

    `photo` is the photograph behind, where the ground is one.
    """
    corners = ((0.0, 0.0), (width_px, 0.0), (width_px, height_px), (0.0, height_px))
    box = polygon_bounds(pieces.to_canvas(piece, corner) for corner in corners)
    px_per_mm = scale / piece.mm_per_px
    wide, high = (max(1, round(side * px_per_mm)) for side in (box.width, box.height))
    there = Backdrop(compose, photo).tile(Tile(box.x * px_per_mm, box.y * px_per_mm, wide, high, px_per_mm))
    size = max(1, round(width_px * scale)), max(1, round(height_px * scale))
    # Where each px of the photograph lies on the tile; px middles lie half a px from their corners on both sides.
    origin = np.array(pieces.to_canvas(piece, (0.0, 0.0)))
    across, down = (np.array(pieces.to_canvas(piece, p)) - origin for p in ((1.0, 0.0), (0.0, 1.0)))
    to_tile = np.stack([across, down], axis=1) * (px_per_mm / scale)
    start = (origin - (box.x, box.y)) * px_per_mm + to_tile @ (0.5, 0.5) - 0.5
    matrix = np.column_stack([to_tile, start])
    flags = cv2.INTER_LINEAR | cv2.WARP_INVERSE_MAP
    found = cv2.warpAffine(there, matrix, size, flags=flags, borderMode=cv2.BORDER_REPLICATE)
    return np.asarray(found * np.float32(1 / ONE), np.float32)


def on_ground(cut: CutOut, width_px: int, height_px: int, ground: Light) -> Picture:
    """The sitter on that light, (1, 1, 3) or as large as the photograph at the cut-out's scale, laid together in light."""
    size = max(1, round(width_px * cut.scale)), max(1, round(height_px * cut.scale))
    whole = np.broadcast_to(np.clip(ground, 0, 1), (size[1], size[0], 3)).astype(np.float32)
    left, top = round(cut.box.x * cut.scale), round(cut.box.y * cut.scale)
    part = cut.rgba[: size[1] - top, : size[0] - left]
    alpha = part[..., 3:].astype(np.float32) / 255
    place = whole[top : top + part.shape[0], left : left + part.shape[1]]
    place *= 1 - alpha
    place += linear_from_srgb8(np.ascontiguousarray(part[..., :3])) * alpha
    return srgb8_from_linear(whole)
