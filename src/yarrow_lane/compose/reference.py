"""The one reference picture: what the canvas is to show, at any scale. All later rooms see only this."""

import hashlib
from collections.abc import Sequence
from dataclasses import replace
from typing import Protocol

import numpy as np

from yarrow_lane.compose.composition import Compose, ComposeTrouble, to_photo
from yarrow_lane.compose.cutting.soft import CutOut
from yarrow_lane.compose.drawing.backdrop import Backdrop
from yarrow_lane.compose.drawing.layers import Tile, codes, lay_piece
from yarrow_lane.compose.drawing.sprite import ONE, Sprite
from yarrow_lane.compose.ground import Ground
from yarrow_lane.compose.pieces import Move, Piece, Ring
from yarrow_lane.compose.places import BEHIND, photo_px_per_mm
from yarrow_lane.compose.recolour import recolour
from yarrow_lane.measure.kept import kept
from yarrow_lane.measure.plane import Rect
from yarrow_lane.measure.progress import SILENT, Progress
from yarrow_lane.measure.raster import Picture, piece

VERSION = 1  # raise it when the same composition renders to other pixels
FINEST_PX_PER_MM = 6.0  # of canvas: our choice, a 0.5 mm stroke needs two pixels; an edge worked out finer is not painted
_SMALL_PX, _SCREEN_PX = 400, 1200  # our choice: a cut-out's longer side for thumbnails, and for all that is only looked at
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


def screen_scale(piece: Piece) -> float:
    """The scale of the photograph's px at which a piece is cut out to be looked at."""
    return _scale_of(piece, _SCREEN_PX)


def _scale_of(piece: Piece, longer_px: int) -> float:
    bounds = piece.bounds
    return min(1.0, longer_px / max(1.0, bounds.width, bounds.height))


def _fine_scale(piece: Piece) -> float:
    """In steps of a quarter of an octave, so that a nudge of its size does not ask for it anew."""
    fine = 1.0
    while fine / piece.mm_per_px > FINEST_PX_PER_MM:
        fine *= 2**-0.25
    return fine


def cut_scale(piece: Piece, px_per_mm: float) -> float:
    """At which of three scales a picture of so many px per mm needs it: as a thumbnail, as looked at, or for print."""
    needed = piece.mm_per_px * px_per_mm
    looked_at = screen_scale(piece)
    for scale in (_scale_of(piece, _SMALL_PX), looked_at):
        if needed <= scale * 1.05:
            return scale
    return max(looked_at, _fine_scale(piece))


def outline_key(outline: Sequence[Ring]) -> str:
    """A short name of an outline with its coats."""
    return hashlib.sha256(repr(tuple(outline)).encode()).hexdigest()[:16]


@kept(64)
def reference_key(compose: Compose) -> str:
    """A short name of the reference: equal compositions have equal names; empty while there is none.

    What is not seen does not count: names, known lengths, sides, the wall. A photograph alone is named as it was before there were
    pieces, so that what older studios were painted from is still known.
    """
    if not compose.framed:
        return ""
    laid = compose.behind
    framed = f"Framed(photo_id={laid.photo_id!r}, crop={laid.crop!r})" if laid is not None else "None"
    made_of = f"({VERSION}, {compose.width_mm!r}, {compose.height_mm!r}, {framed})"
    if compose.pieces or compose.ground != Ground() or compose.recoloured:
        seen = tuple(replace(p, name="", far=1.0, sitter_id=0) for p in compose.pieces)
        made_of += repr((_ground_seen(compose.ground), seen))
        made_of += repr(tuple(replace(r, name="", id=0) for r in compose.recoloured if not r.move.plain) or "")
    return hashlib.sha256(made_of.encode()).hexdigest()[:16]


def _ground_seen(ground: Ground) -> Ground:
    """Without what its kind does not show."""
    match ground.kind:
        case "photograph":
            return replace(ground, colours=((0.0, 0.0, 0.0),) * 2, degrees=0.0)
        case "colour":
            return replace(ground, colours=(ground.colours[0],) * 2, degrees=0.0, blur_mm=0.0, move=Move())
        case "gradient":
            return replace(ground, blur_mm=0.0, move=Move())


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
    out = np.empty((height, width, 3), np.uint8)
    for row in range(0, height, _ROWS):
        progress.at(row / height)
        tile = Tile(area_mm.x * px_per_mm, area_mm.y * px_per_mm + row, width, min(_ROWS, height - row), px_per_mm)
        ground = backdrop.tile(tile)
        for each, sprite in sprites:
            lay_piece(ground, each, sprite, tile)
        recolour(ground, compose.recoloured, tile.left, tile.top, px_per_mm, ONE)
        out[row : row + tile.height] = codes(ground)
    return out


def working_px_per_mm(compose: Compose, longer_px: int) -> float:
    """The scale at which the whole canvas is at most `longer_px` long and not every photograph is enlarged."""
    whole = longer_px / max(compose.width_mm, compose.height_mm)
    own = [photo_px_per_mm(compose, p.id) for p in compose.pieces]
    if compose.behind is not None:
        own.append(photo_px_per_mm(compose, BEHIND))
    return min(whole, max(own))


def photographs_of(compose: Compose) -> tuple[str, ...]:
    """The ids of all photographs the reference is made of, each once."""
    behind = (compose.behind.photo_id,) if compose.behind is not None else ()
    return tuple(dict.fromkeys((*behind, *(p.photo_id for p in compose.pieces))))
