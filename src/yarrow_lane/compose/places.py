"""What lies where: from canvas mm to the photograph that is seen there, and back."""

import math
from dataclasses import dataclass, replace

from yarrow_lane.compose import pieces as placed
from yarrow_lane.compose.composition import Compose, ComposeTrouble, Framed
from yarrow_lane.compose.composition import to_canvas as crop_to_canvas
from yarrow_lane.compose.composition import to_photo as crop_to_photo
from yarrow_lane.compose.pieces import Piece
from yarrow_lane.measure.plane import Point, Rect

BEHIND = 0  # in place of a piece's id: the photograph behind
_TWICE_MM = 2.0  # our choice: a soft edge hides less


@dataclass(frozen=True)
class Seen:
    """A place of a photograph (px); `piece_id` is `BEHIND` for the photograph behind the sitters."""

    piece_id: int
    photo_id: str
    at_px: Point


def seen_at(compose: Compose, point_mm: Point) -> Seen | None:
    """What is seen at a place of the canvas; None on a plain ground."""
    for piece in reversed(compose.pieces):
        if placed.holds(piece, point_mm):
            return Seen(piece.id, piece.photo_id, placed.to_photo(piece, point_mm))
    if compose.sized and compose.behind is not None:
        return Seen(BEHIND, compose.behind.photo_id, crop_to_photo(compose, point_mm))
    return None


def to_px(compose: Compose, piece_id: int, point_mm: Point) -> Point:
    """A place of the canvas in px of a piece's photograph, or of the one behind. Raises `ComposeTrouble` where none lies behind."""
    if piece_id != BEHIND:
        return placed.to_photo(compose.piece(piece_id), point_mm)
    return crop_to_photo(compose, point_mm)


def place_of(compose: Compose, seen: Seen) -> Point | None:
    """Where that place of the photograph lies on the canvas; None when what showed it is gone or shows another photograph."""
    if seen.piece_id == BEHIND:
        behind = compose.behind
        return crop_to_canvas(compose, seen.at_px) if behind is not None and behind.photo_id == seen.photo_id else None
    piece = next((p for p in compose.pieces if p.id == seen.piece_id and p.photo_id == seen.photo_id), None)
    return placed.to_canvas(piece, seen.at_px) if piece is not None else None


def places_of_px(compose: Compose, photo_id: str, at_px: Point) -> tuple[tuple[int, Point], ...]:
    """Every place of the canvas where that place of the photograph is seen: (piece id, canvas mm)."""
    found: list[tuple[int, Point]] = []
    ids = [BEHIND, *(p.id for p in compose.pieces if p.photo_id == photo_id)]
    for piece_id in ids:
        at = place_of(compose, Seen(piece_id, photo_id, at_px))
        top = seen_at(compose, at) if at is not None and compose.canvas.holds(at) else None
        if at is not None and top is not None and top.piece_id == piece_id:
            found.append((piece_id, at))
    return tuple(found)


def seen_twice(compose: Compose) -> tuple[Piece, ...]:
    """Those cut from the photograph behind that no longer hide their own picture in it."""
    if compose.behind is None or not compose.sized:
        return ()
    own = [p for p in compose.pieces if p.photo_id == compose.behind.photo_id]
    return tuple(p for p in own if any(_shows_through(compose, p, at) for ring in p.outline for at in ring.points))


def _shows_through(compose: Compose, piece: Piece, at_px: Point) -> bool:
    """Whether that place of its outline is seen in the photograph behind, apart from where the piece has it."""
    there = crop_to_canvas(compose, at_px)
    if not compose.canvas.holds(there) or math.dist(there, placed.to_canvas(piece, at_px)) < _TWICE_MM:
        return False
    return not any(placed.holds(p, there) for p in compose.pieces)


def photo_px_per_mm(compose: Compose, piece_id: int) -> float:
    """Photograph px on each mm of canvas. Raises `ComposeTrouble` where no photograph lies behind."""
    if piece_id != BEHIND:
        return 1 / compose.piece(piece_id).mm_per_px
    if compose.behind is None or not compose.sized:
        raise ComposeTrouble("Nothing was measured", "no crop is laid", "choose the size and lay the crop first")
    return compose.behind.crop.width / compose.width_mm


def widened(compose: Compose, round_mm: float) -> Compose:
    """The same composition on a canvas larger by `round_mm` on every side, as a wrapped canvas shows it.

    The crop reaches beyond the photograph where the photograph ends; its edge is then carried on.
    """
    if round_mm <= 0:
        return compose
    behind = compose.background
    if behind is not None:
        more = round_mm * behind.crop.width / compose.width_mm
        crop = behind.crop
        wide = Rect(crop.x - more, crop.y - more, crop.width + 2 * more, crop.height + 2 * more)
        behind = Framed(behind.photo_id, wide)
    pieces = tuple(placed.moved(p, round_mm, round_mm) for p in compose.pieces)
    recoloured = tuple(
        replace(r, outline=tuple((x + round_mm, y + round_mm) for x, y in r.outline)) for r in compose.recoloured
    )
    size = compose.width_mm + 2 * round_mm, compose.height_mm + 2 * round_mm
    return replace(compose, width_mm=size[0], height_mm=size[1], background=behind, pieces=pieces, recoloured=recoloured)
