"""The sitter on other grounds while it is cut out, and the rest of the photograph dimmed."""

from typing import TYPE_CHECKING, Literal

import numpy as np
from PySide6.QtGui import QImage

from yarrow_lane.compose.composition import Compose
from yarrow_lane.compose.cutting.cut_out import CutOut
from yarrow_lane.compose.cutting.outline import filled
from yarrow_lane.compose.drawing.on_ground import ground_behind, on_ground, plain_ground
from yarrow_lane.compose.pieces import Piece, PieceTrouble, Ring
from yarrow_lane.compose.placing import add_piece
from yarrow_lane.compose.reference import outline_key, screen_scale
from yarrow_lane.desk.derived import Key, Making
from yarrow_lane.intake.photos import Photo
from yarrow_lane.measure.progress import Progress
from yarrow_lane.ui.kit.levels import Levels, qimage, see_through
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.rooms.compose.at_hand import BehindPhoto
from yarrow_lane.ui.rooms.compose.cut_work import Work

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.compose.page import ComposePage

Ground = Literal["photograph", "black", "white", "grey", "as placed"]
GROUNDS: tuple[Ground, ...] = ("photograph", "black", "white", "grey", "as placed")
_VEIL_PX, _VEIL = 700, 150  # longer side and darkness: our choice


def veil(rings: tuple[Ring, ...], width: int, height: int) -> QImage:
    """What is not cut out, dimmed; stretched over the photograph."""
    scale = min(1.0, _VEIL_PX / max(width, height))
    small = max(1, round(width * scale)), max(1, round(height * scale))
    inside = filled([r.points for r in rings], *small, scale)
    return see_through(np.zeros((*inside.shape, 3), np.uint8), np.where(inside > 0, 0, _VEIL).astype(np.uint8))


def as_it_would_lie(compose: Compose, work: Work, photo: Photo) -> tuple[Compose, Piece] | None:
    """The composition with the sitter where it is or would be placed; None while the canvas has no place for it."""
    there = next((p for p in compose.pieces if p.id == work.piece_id), None)
    if there is None:
        if not compose.sized:
            return None
        try:
            compose = add_piece(compose, photo.name, photo.id, work.rings, (photo.width_px, photo.height_px), work.sitter_id)
        except PieceTrouble:  # ten are there: it is said when it is to be placed
            return None
        there = compose.pieces[-1]
    return (compose, there) if compose.framed else None


class SeenOn:
    """Shows the sitter on black, white, grey or what lies behind it on the canvas."""

    def __init__(self, page: "ComposePage", view: PictureView) -> None:
        self._page, self._view = page, view
        self._behind = BehindPhoto(page)
        self.ground: Ground = "photograph"
        self._cut: tuple[str, CutOut] | None = None
        self._shown: object = None

    def opened(self) -> None:
        """Another commission came in."""
        self.ground, self._cut, self._shown = "photograph", None, None
        self._behind.forget()

    def left(self) -> None:
        """The painter goes elsewhere."""
        self._behind.leave()

    def choices(self, work: Work, photo: Photo) -> tuple[Ground, ...]:
        """The grounds there are."""
        return GROUNDS if as_it_would_lie(self._page.shown, work, photo) is not None else GROUNDS[:-1]

    def show(self, work: Work, photo: Photo, levels: Levels | None) -> None:
        """On the ground chosen; `levels` is the photograph itself."""
        size = (photo.width_px, photo.height_px)
        if self.ground == "photograph" or not work.rings:
            self._shown = None
            if levels is not None and self._view.levels is not levels:
                self._view.show_levels(levels, size)
            return
        key = outline_key(work.rings)
        if self._cut is None or self._cut[0] != key:
            self._want(key, work, photo)
            return
        cut, ground = self._cut[1], self.ground
        lying = as_it_would_lie(self._page.shown, work, photo) if ground == "as placed" else None
        behind = self._behind.of(lying[0]) if lying is not None else None
        if lying is not None and lying[0].behind is not None and behind is None:
            return  # it is being read
        shown = (key, photo.id, ground, (lying[0].background, lying[0].ground, lying[1]) if lying is not None else None)
        if shown == self._shown:
            return
        self._shown = shown
        if lying is not None:
            light = ground_behind(*lying, behind, *size, cut.scale)
        else:
            light = plain_ground(ground if ground in ("black", "white") else "grey")
        self._view.show_levels(Levels((qimage(on_ground(cut, *size, light)),)), size)

    def _want(self, key: str, work: Work, photo: Photo) -> None:
        piece = Piece(work.piece_id, photo.name, photo.id, work.rings, (0.0, 0.0), (0.0, 0.0), 1e-3)
        scale = screen_scale(piece)
        cut_outs = self._page.workroom.references.cut_outs

        def make(progress: Progress) -> CutOut:
            return cut_outs.of(piece, scale, progress, "quick")

        def ready(cut: CutOut) -> None:
            self._cut = (key, cut)
            self._page.refresh()

        making = Making(make, lambda cut: cut.rgba.nbytes)
        self._page.workroom.derived.want(Key("cut-out seen", (photo.id,), (key, scale)), self._page, making, ready)
