"""A piece under the hand: what lies below and above it is painted once, and only where it was and is is painted again.

Moved by whole px of the screen it is the very picture that `render` gives; turned and scaled it is drawn at half the size and
finely when the hand rests.
"""

from collections.abc import Callable
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.compose.composition import Compose
from yarrow_lane.compose.drawing.backdrop import Backdrop
from yarrow_lane.compose.drawing.layers import Span, Tile, codes, lay, lay_piece, span_of, warped
from yarrow_lane.compose.drawing.recolouring import Recolouring
from yarrow_lane.compose.drawing.sprite import ONE, Layer, Sprite
from yarrow_lane.compose.pieces import Piece, moved
from yarrow_lane.measure.late import late
from yarrow_lane.measure.raster import Picture

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

Plane = NDArray[np.float32]


class Under:
    """What lies below and above one piece, at one scale: light below (H, W, 3), and above it light and what shows through."""

    def __init__(
        self, compose: Compose, piece_id: int, sprites: Callable[[Piece], Sprite], photo: Picture | None, tile: Tile
    ) -> None:  # fmt: skip
        self._recolouring = Recolouring(compose.recoloured, tile.px_per_mm)
        place = next(n for n, p in enumerate(compose.pieces) if p.id == piece_id)
        self.tile = tile
        self.below = Backdrop(compose, photo).tile(tile)
        for other in compose.pieces[:place]:
            lay_piece(self.below, other, sprites(other), tile)
        self.above: tuple[Plane, Plane] | None = None
        if compose.pieces[place + 1 :]:
            shape = (tile.height, tile.width, 3)
            dark, light = np.zeros(shape, np.float32), np.full(shape, ONE, np.float32)
            for other in compose.pieces[place + 1 :]:
                for ground in (dark, light):
                    lay_piece(ground, other, sprites(other), tile)
            self.above = (dark, (light - dark) / np.float32(ONE))

    def painted(self, span: Span, layer: Layer, at: Span) -> Picture:
        """The codes of the px of `span`, with the piece's `layer` laid at `at`."""
        rows, columns = slice(span.top, span.bottom), slice(span.left, span.right)
        ground = self.below[rows, columns].copy()
        common = Span(
            max(span.left, at.left), max(span.top, at.top), min(span.right, at.right), min(span.bottom, at.bottom)
        )  # fmt: skip
        if not common.empty:
            part = ground[common.top - span.top : common.bottom - span.top, common.left - span.left : common.right - span.left]
            lay(part, layer[common.top - at.top : common.bottom - at.top, common.left - at.left : common.right - at.left])
        if self.above is not None:
            light, through = self.above
            ground *= through[rows, columns]
            ground += light[rows, columns]
        tile = self.tile
        self._recolouring.do(ground, tile.left + span.left, tile.top + span.top)
        return codes(ground)


class Dragging:
    """`picture` is what the screen shows, (H, W, 3) sRGB, kept up to date in place."""

    def __init__(
        self, compose: Compose, piece_id: int, sprites: Callable[[Piece], Sprite], photo: Picture | None, tile: Tile
    ) -> None:  # fmt: skip
        self.piece = self._home = compose.piece(piece_id)
        self._sprite = sprites(self.piece)
        self._whole = Under(compose, piece_id, sprites, photo, tile)
        self._coarse: Under | None = None
        self._compose, self._sprites, self._photo = compose, sprites, photo
        self._tile = tile
        self._span = span_of(self.piece, self._sprite, tile, clipped=False)
        self._layer = warped(self.piece, self._sprite, tile, self._span)
        self._at = self._span
        everything = Span(0, 0, tile.width, tile.height)
        self.picture = np.ascontiguousarray(self._whole.painted(everything, self._layer, self._at))

    def shift(self, across_px: int, down_px: int) -> None:
        """The piece so many px of the screen from where it was taken up."""
        at = Span(
            self._span.left + across_px, self._span.top + down_px, self._span.right + across_px, self._span.bottom + down_px
        )  # fmt: skip
        before, self._at = self._at, at
        scale = self._tile.px_per_mm
        self.piece = moved(self._home, across_px / scale, down_px / scale)
        both = Span(
            min(before.left, at.left), min(before.top, at.top), max(before.right, at.right), max(before.bottom, at.bottom)
        )  # fmt: skip
        apart = (both.right - both.left) * (both.bottom - both.top) > _area(before) + _area(at)
        for span in (before, at) if apart else (both,):
            span = Span(
                max(0, span.left), max(0, span.top), min(self._tile.width, span.right), min(self._tile.height, span.bottom)
            )  # fmt: skip
            if not span.empty:
                self.picture[span.top : span.bottom, span.left : span.right] = self._whole.painted(span, self._layer, at)

    def become(self, piece: Piece) -> None:
        """The piece turned or scaled: the whole at half the size, enlarged."""
        fine = self._tile
        coarse = Tile(fine.left / 2, fine.top / 2, -(-fine.width // 2), -(-fine.height // 2), fine.px_per_mm / 2)
        if self._coarse is None:
            self._coarse = Under(self._compose, piece.id, self._sprites, self._photo, coarse)
        self.piece = piece
        span = span_of(piece, self._sprite, coarse)
        everything = Span(0, 0, coarse.width, coarse.height)
        layer = warped(piece, self._sprite, coarse, span) if not span.empty else np.zeros((0, 0, 4), np.uint16)
        small = self._coarse.painted(everything, layer, span)
        cv2.resize(small, (fine.width, fine.height), dst=self.picture, interpolation=cv2.INTER_LINEAR)


def _area(span: Span) -> int:
    return max(0, span.right - span.left) * max(0, span.bottom - span.top)
