"""The cut-out on other grounds, and the rest of the photograph dimmed, as images."""

from typing import Literal

import numpy as np
from PySide6.QtGui import QImage

from yarrow_lane.compose.composition import Compose
from yarrow_lane.compose.cutting.cut import Found
from yarrow_lane.compose.cutting.cut_out import CutOut
from yarrow_lane.compose.cutting.outline import filled
from yarrow_lane.compose.drawing.backdrop import Backdrop
from yarrow_lane.compose.drawing.colour_move import linear_from_lab
from yarrow_lane.compose.drawing.layers import Tile
from yarrow_lane.compose.drawing.sprite import ONE
from yarrow_lane.compose.ground import Ground as Behind
from yarrow_lane.compose.pieces import Ring
from yarrow_lane.measure.colour.srgb import linear_from_srgb8, srgb8_from_linear
from yarrow_lane.measure.raster import Picture

Ground = Literal["photograph", "black", "white", "grey", "as placed"]
GROUNDS: tuple[Ground, ...] = ("photograph", "black", "white", "grey", "as placed")
_GREY_LAB = 50.0
_VEIL_PX, _VEIL = 700, 150  # longer side and darkness: our choice


def veil(found: Found, rings: tuple[Ring, ...], width: int, height: int) -> QImage:
    """What is not cut out, dimmed; stretched over the photograph."""
    scale = min(1.0, _VEIL_PX / max(width, height))
    small = max(1, round(width * scale)), max(1, round(height * scale))
    inside = filled([r.points for r in rings], *small, scale)
    image = QImage(*small, QImage.Format.Format_ARGB32_Premultiplied)
    rows = np.frombuffer(image.bits(), np.uint8).reshape(small[1], image.bytesPerLine())
    pixels = rows[:, : small[0] * 4].reshape(small[1], small[0], 4)
    pixels[:] = 0
    pixels[..., 3] = np.where(inside > 0, 0, _VEIL)
    return image


def on_ground(cut: CutOut, width: int, height: int, ground: Ground, behind: Behind) -> Picture:
    """The sitter on that ground, the whole photograph's size at the cut-out's scale, laid together in light."""
    size = max(1, round(width * cut.scale)), max(1, round(height * cut.scale))
    match ground:
        case "black":
            under = np.zeros((1, 1, 3), np.float32)
        case "white":
            under = np.ones((1, 1, 3), np.float32)
        case "as placed" if behind.kind != "photograph":
            compose = Compose(float(size[0]), float(size[1]), ground=behind)
            under = Backdrop(compose, None).tile(Tile(0, 0, *size, 1.0)) / np.float32(ONE)
        case "as placed":
            under = linear_from_lab(np.array([[[60.0, 0.0, 8.0]]]))  # behind lies a photograph: a warm light, seen at "place"
        case _:
            under = linear_from_lab(np.array([[[_GREY_LAB, 0.0, 0.0]]]))
    whole = np.broadcast_to(np.clip(under, 0, 1), (size[1], size[0], 3)).astype(np.float32)
    left, top = round(cut.box.x * cut.scale), round(cut.box.y * cut.scale)
    part = cut.rgba[: size[1] - top, : size[0] - left]
    alpha = part[..., 3:].astype(np.float32) / 255
    place = whole[top : top + part.shape[0], left : left + part.shape[1]]
    place *= 1 - alpha
    place += linear_from_srgb8(np.ascontiguousarray(part[..., :3])) * alpha
    return srgb8_from_linear(whole)
