"""The composition as it follows the hand: sprites kept, the picture painted where it changes."""

from collections import OrderedDict
from collections.abc import Callable

from PySide6.QtGui import QImage

from yarrow_lane.compose.composition import Compose
from yarrow_lane.compose.drawing.dragging import Dragging
from yarrow_lane.compose.drawing.layers import Tile
from yarrow_lane.compose.drawing.sprite import Sprite
from yarrow_lane.compose.pieces import Piece
from yarrow_lane.compose.reference import cut_key, screen_scale
from yarrow_lane.desk.cut_outs import CutOuts
from yarrow_lane.measure.raster import Picture
from yarrow_lane.ui.kit.levels import qimage

_MOST_PX = 1_000_000  # our choice: more is not painted anew sixty times a second; the view enlarges it
_SPRITES = 24


class UnderHand:
    """Begun when a piece is taken up; none of it is there before every cut-out has come."""

    def __init__(self, cut_outs: CutOuts) -> None:
        self._cut_outs = cut_outs
        self._sprites: OrderedDict[tuple[object, ...], Sprite] = OrderedDict()
        self.dragging: Dragging | None = None
        self.scale = 1.0

    def begin(self, compose: Compose, piece_id: int, photo: Picture | None, screen_px_per_mm: float) -> bool:
        """Take a piece up; False while its picture, or the one behind, is not at hand."""
        self.dragging = None
        if compose.behind is not None and photo is None:
            return False
        if any(self._cut_outs.at_hand(p, screen_scale(p)) is None for p in compose.pieces):
            return False
        most = (_MOST_PX / (compose.width_mm * compose.height_mm)) ** 0.5
        self.scale = min(screen_px_per_mm, most)
        width, height = (max(1, round(side * self.scale)) for side in (compose.width_mm, compose.height_mm))
        tile = Tile(0, 0, width, height, self.scale)
        self.dragging = Dragging(compose, piece_id, self._sprite, photo, tile)
        return True

    def _sprite(self, piece: Piece) -> Sprite:
        scale = screen_scale(piece)
        cut = self._cut_outs.at_hand(piece, scale)
        assert cut is not None
        key = (*cut_key(piece, scale), piece.move, id(cut))
        if key not in self._sprites:
            self._sprites[key] = Sprite(cut, piece.move)
        self._sprites.move_to_end(key)
        while len(self._sprites) > _SPRITES:
            self._sprites.popitem(last=False)
        return self._sprites[key]

    def follow(self, step: Callable[[Dragging, float], None]) -> QImage | None:
        """What it looks like after that step; None while nothing is taken up."""
        if self.dragging is None:
            return None
        step(self.dragging, self.scale)
        return qimage(self.dragging.picture)

    def let_go(self) -> None:
        """The hand is off it."""
        self.dragging = None

    def pixels_of(self, piece: Piece) -> Sprite | None:
        """Its sprite as photographed, if it is at hand: what colour and light are read from."""
        return self._sprite(piece) if self._cut_outs.at_hand(piece, screen_scale(piece)) is not None else None
