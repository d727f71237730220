"""Laying sprites over each other in light, at exact places: any tile of the whole comes out the same."""

from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.compose import pieces
from yarrow_lane.compose.drawing.sprite import ONE, Layer, Sprite
from yarrow_lane.compose.pieces import Piece
from yarrow_lane.measure.colour.srgb import srgb8_from_linear
from yarrow_lane.measure.late import late
from yarrow_lane.measure.raster import Picture

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

Ground = NDArray[np.float32]  # (H, W, 3) light, white at `ONE`


@dataclass(frozen=True)
class Tile:
    """A part of the whole picture, in its px from the canvas's top left at `px_per_mm`; `left` and `top` may be fractions."""

    left: float
    top: float
    width: int
    height: int
    px_per_mm: float


@dataclass(frozen=True)
class Span:
    """The px of a tile: from left and top up to right and bottom, those left out."""

    left: int
    top: int
    right: int
    bottom: int

    @property
    def empty(self) -> bool:
        return self.right <= self.left or self.bottom <= self.top


def span_of(piece: Piece, sprite: Sprite, tile: Tile, clipped: bool = True) -> Span:
    """Where a piece lies on the tile."""
    corners = [pieces.to_canvas(piece, corner) for corner in sprite.box.corners]
    xs, ys = [x * tile.px_per_mm - tile.left for x, _ in corners], [y * tile.px_per_mm - tile.top for _, y in corners]
    left, top, right, bottom = (
        int(np.floor(min(xs) - 1)),
        int(np.floor(min(ys) - 1)),
        int(np.ceil(max(xs) + 1)),
        int(np.ceil(max(ys) + 1)),
    )
    if clipped:
        left, top, right, bottom = max(0, left), max(0, top), min(tile.width, right), min(tile.height, bottom)
    return Span(left, top, right, bottom)


def warped(piece: Piece, sprite: Sprite, tile: Tile, span: Span) -> Layer:
    """The piece as it lies on those px of the tile, (H, W, 4) premultiplied."""
    halvings = sprite.level_for(piece.mm_per_px * tile.px_per_mm)
    source = sprite.level(halvings)
    # Where the middle of every px of the whole lies on the level: counted from the canvas's corner, so that tiles agree.
    each = sprite.scale / (1 << halvings)
    origin = np.array(pieces.to_photo(piece, (0.0, 0.0)))
    across = (np.array(pieces.to_photo(piece, (1.0, 0.0))) - origin) / tile.px_per_mm * each
    down = (np.array(pieces.to_photo(piece, (0.0, 1.0))) - origin) / tile.px_per_mm * each
    start = (origin - (sprite.box.x, sprite.box.y)) * each - 0.5
    xs = (np.arange(span.left, span.right) + tile.left + 0.5)[None, :]
    ys = (np.arange(span.top, span.bottom) + tile.top + 0.5)[:, None]
    map_x = (across[0] * xs + down[0] * ys + start[0]).astype(np.float32)
    map_y = (across[1] * xs + down[1] * ys + start[1]).astype(np.float32)
    return np.asarray(cv2.remap(source, map_x, map_y, cv2.INTER_LINEAR, borderMode=cv2.BORDER_CONSTANT, borderValue=0))


def lay(ground: Ground, layer: Layer) -> None:
    """Lay a premultiplied layer over the ground, in place, both of one size."""
    rest = cv2.merge([layer[..., 3]] * 3).astype(np.float32)
    rest *= -1 / ONE
    rest += 1
    ground *= rest
    ground += layer[..., :3]


def lay_piece(ground: Ground, piece: Piece, sprite: Sprite, tile: Tile) -> None:
    """Lay a piece over the tile's ground, in place."""
    span = span_of(piece, sprite, tile)
    if not span.empty:
        lay(ground[span.top : span.bottom, span.left : span.right], warped(piece, sprite, tile, span))


def codes(ground: Ground) -> Picture:
    """The light as sRGB codes, (H, W, 3)."""
    return srgb8_from_linear(ground * np.float32(1 / ONE))
