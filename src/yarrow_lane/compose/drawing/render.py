"""The one reference picture: what the canvas is to show, at any scale. All later rooms see only this."""

from typing import Protocol

import numpy as np

from yarrow_lane.compose.composition import Compose, ComposeTrouble, to_photo
from yarrow_lane.compose.cutting.cut_out import CutOut
from yarrow_lane.compose.drawing.backdrop import Backdrop
from yarrow_lane.compose.drawing.layers import Tile, codes, lay_piece
from yarrow_lane.compose.drawing.recolouring import Recolouring
from yarrow_lane.compose.drawing.sprite import Sprite
from yarrow_lane.compose.ground import Ground
from yarrow_lane.compose.pieces import Piece
from yarrow_lane.compose.reference import cut_scale
from yarrow_lane.measure.plane import Rect
from yarrow_lane.measure.progress import SILENT, Progress
from yarrow_lane.measure.raster import Picture, piece

_ROWS = 256


class Sources(Protocol):
    """Where photographs and cut-outs come from."""

    def photo(self, photo_id: str) -> Picture:
        """The upright photograph, (H, W, 3)."""

    def sprite(self, piece: Piece, scale: float) -> Sprite:
        """The piece cut out at the scale that `cut_scale` names."""


class Held:
    """Photographs and cut-outs at hand, by photograph and by piece."""

    def __init__(self, photos: dict[str, Picture], cuts: dict[int, CutOut]) -> None:
        self._photos, self._cuts = photos, cuts

    def photo(self, photo_id: str) -> Picture:
        return self._photos[photo_id]

    def sprite(self, piece: Piece, scale: float) -> Sprite:
        return Sprite(self._cuts[piece.id], piece.move)


def render(compose: Compose, sources: Sources, area_mm: Rect, px_per_mm: float, progress: Progress = SILENT) -> Picture:
    """The part `area_mm` of the canvas at `px_per_mm`, (H, W, 3) sRGB, laid together in linear light.

    The size is rounded to whole pixels. Raises `ComposeTrouble` without anything laid or for an area of no size, `Cancelled` when
    it is no longer wanted.
    """
    if not compose.framed:
        raise ComposeTrouble("There is no reference", "no crop is laid", "choose the size and lay the crop at Compose first")
    if area_mm.width <= 0 or area_mm.height <= 0:
        raise ComposeTrouble("Nothing was shown", "the area has no size")
    width, height = (max(1, round(side * px_per_mm)) for side in (area_mm.width, area_mm.height))
    if compose.background is not None and not (compose.pieces or compose.recoloured) and compose.ground == Ground():
        left, top = to_photo(compose, (area_mm.x, area_mm.y))
        right, bottom = to_photo(compose, (area_mm.right, area_mm.bottom))
        picture = sources.photo(compose.background.photo_id)
        return piece(picture, Rect(left, top, right - left, bottom - top), width, height, progress)
    laid = compose.behind
    backdrop = Backdrop(compose, sources.photo(laid.photo_id) if laid is not None else None)
    sprites = [(p, sources.sprite(p, cut_scale(p, px_per_mm))) for p in compose.pieces]
    recolouring = Recolouring(compose.recoloured, px_per_mm)
    out = np.empty((height, width, 3), np.uint8)
    for row in range(0, height, _ROWS):
        progress.at(row / height)
        tile = Tile(area_mm.x * px_per_mm, area_mm.y * px_per_mm + row, width, min(_ROWS, height - row), px_per_mm)
        ground = backdrop.tile(tile)
        for each, sprite in sprites:
            lay_piece(ground, each, sprite, tile)
        recolouring.do(ground, tile.left, tile.top)
        out[row : row + tile.height] = codes(ground)
    return out
