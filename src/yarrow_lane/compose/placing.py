"""Placing sitters on the canvas: every step from one composition to the next."""

import itertools
from collections.abc import Callable
from dataclasses import replace

from yarrow_lane.compose.composition import Compose, ComposeTrouble
from yarrow_lane.compose.pieces import MOST_PIECES, Piece, PieceTrouble, Ring, foot, moved, scaled, sides_cut
from yarrow_lane.compose.scale import Scales, Tie, one_scale, solve
from yarrow_lane.measure.kept import kept
from yarrow_lane.measure.plane import Point, Rect, polygon_bounds

_SHARE_OF_CANVAS = 0.7  # of the smaller side that a sitter newly placed takes: our choice
_SHARE_BESIDE_OTHERS = 0.5
_SMALLEST, _LARGEST = 1e-3, 1e3  # mm of canvas for a photograph px: beyond lies a slip of the hand


def add_piece(
    compose: Compose, name: str, photo_id: str, outline: tuple[Ring, ...], photo_size: Point, sitter_id: int = 0
) -> Compose:  # fmt: skip
    """Lay a sitter on the canvas, in front, where it stood in the photograph behind, or in the middle.

    Raises `PieceTrouble` for more than ten or an outline round nothing, `ComposeTrouble` without a size.
    """
    if not compose.sized:
        raise ComposeTrouble("The sitter was not placed", "the canvas has no size yet", "choose a size first")
    if len(compose.pieces) >= MOST_PIECES:
        raise PieceTrouble("The sitter was not placed", f"{MOST_PIECES} are on the canvas already", "take one off first")
    if not any(len(r.points) >= 3 for r in outline):
        raise PieceTrouble("The sitter was not placed", "its outline encloses nothing", "cut it out again")
    box = polygon_bounds(p for r in outline for p in r.points)
    behind = compose.background
    if behind is not None and behind.photo_id == photo_id:
        scale = compose.width_mm / behind.crop.width
        at = (box.centre[0] - behind.crop.x) * scale, (box.centre[1] - behind.crop.y) * scale
    else:
        share = _SHARE_OF_CANVAS if not compose.pieces else _SHARE_BESIDE_OTHERS
        scale = share * min(compose.width_mm / box.width, compose.height_mm / box.height)
        at = _where_free(compose, box.width * scale, box.height * scale)
    piece = Piece(compose.next_piece, name, photo_id, outline, box.centre, at, scale, sitter_id=sitter_id)
    placed = replace(compose, pieces=(*compose.pieces, piece), next_piece=compose.next_piece + 1)
    if behind is None and compose.ground.kind == "photograph":  # nothing lies behind: a plain ground, to be changed
        placed = replace(placed, ground=replace(compose.ground, kind="gradient"))
    if behind is not None and behind.photo_id == photo_id:
        return placed
    return snapped(placed, piece.id, photo_size)


def _where_free(compose: Compose, width_mm: float, height_mm: float) -> Point:
    """The middle of a place so large that covers least of those who are there; the canvas's middle while nobody is."""
    taken = [p.bounds_mm for p in compose.pieces]

    def covers(across: float) -> float:
        left = across * compose.width_mm - width_mm / 2
        return sum(max(0.0, min(left + width_mm, b.right) - max(left, b.x)) for b in taken)

    x = min((0.5, 0.78, 0.22), key=covers) * compose.width_mm
    return x, compose.height_mm - height_mm / 2 if taken else compose.height_mm / 2


def change_piece(compose: Compose, piece_id: int, step: Callable[[Piece], Piece]) -> Compose:
    """That piece changed. Raises `PieceTrouble` when it is not there or would be of no size."""
    after = step(compose.piece(piece_id))
    if not _SMALLEST < after.mm_per_px < _LARGEST:
        raise PieceTrouble(f"{after.name} was not scaled", "it would be too small or too large to be seen", "scale it less")
    return replace(compose, pieces=tuple(after if p.id == piece_id else p for p in compose.pieces))


def without_pieces(compose: Compose, ids: set[int]) -> Compose:
    """Those taken off the canvas, with what is known of their lengths."""
    if not ids:
        return compose
    known = tuple(k for k in compose.known if k.piece_id not in ids)
    return replace(compose, pieces=tuple(p for p in compose.pieces if p.id not in ids), known=known)


def in_order(compose: Compose, piece_id: int, place: int) -> Compose:
    """The piece at that place from the back, 0 the farthest."""
    piece = compose.piece(piece_id)
    others = [p for p in compose.pieces if p.id != piece_id]
    others.insert(min(max(0, place), len(others)), piece)
    return replace(compose, pieces=tuple(others))


def snapped(compose: Compose, piece_id: int, photo_size: Point) -> Compose:
    """A sitter that its own photograph cuts off is moved so that the cut lies on the canvas's edge.

    One side a direction: cut off left and right it is left where it is.
    """
    piece = compose.piece(piece_id)
    across, down = _to_edges(piece, photo_size, compose.canvas)
    return change_piece(compose, piece_id, lambda p: moved(p, across, down))


def open_cuts(compose: Compose, piece_id: int, photo_size: Point) -> tuple[tuple[str, float], ...]:
    """Where the sitter's own photograph cuts it off inside the canvas: the side, and how far from the canvas's edge, mm."""
    piece = compose.piece(piece_id)
    found = []
    for side in sides_cut(piece.outline, photo_size):
        shown, away = _edge_away(piece, side, compose.canvas)
        if away > 0.5:
            found.append((shown, away))
    return tuple(found)


_OPPOSITE = {"left": "right", "right": "left", "top": "bottom", "bottom": "top"}


def _edge_away(piece: Piece, side: str, canvas: Rect) -> tuple[str, float]:
    """As which side a cut shows on the canvas, and how far inside that edge it lies, mm; below 0 beyond it."""
    # A piece turned by a quarter or more shows its cut on another side; the nearest is taken.
    quarter = round(piece.turn_deg / 90) % 4
    order = ("top", "right", "bottom", "left")
    if piece.mirrored and side in ("left", "right"):
        side = _OPPOSITE[side]
    side = order[(order.index(side) + quarter) % 4]
    box = piece.bounds_mm
    away = {"left": box.x, "top": box.y, "right": canvas.right - box.right, "bottom": canvas.bottom - box.bottom}
    return side, away[side]


def _to_edges(piece: Piece, photo_size: Point, canvas: Rect) -> Point:
    move = {"left": 0.0, "top": 0.0, "right": 0.0, "bottom": 0.0}
    for side in sides_cut(piece.outline, photo_size):
        shown, away = _edge_away(piece, side, canvas)
        move[shown] = away
    across = 0.0 if move["left"] and move["right"] else move["right"] - move["left"]
    down = 0.0 if move["top"] and move["bottom"] else move["bottom"] - move["top"]
    return across, down


@kept(64)
def scales_of(compose: Compose) -> Scales:
    """What is known of every sitter's scale. Those cut from one photograph stand at about one distance from its camera.

    Raises `ScaleTrouble` for a length of nothing.
    """
    pairs = itertools.combinations(compose.pieces, 2)
    ties = [Tie(p.id, q.id) for p, q in pairs if p.photo_id == q.photo_id]
    return solve(compose.known, {p.id: p.name for p in compose.pieces}, ties)


def all_at_one_scale(compose: Compose, scales: Scales) -> Compose:
    """Every sitter of known scale at one share of life, its foot staying where it is. Raises `ScaleTrouble` when none is known."""
    now = {p.id: p.mm_per_px for p in compose.pieces}
    _, wanted = one_scale(scales, now, {p.id: p.far for p in compose.pieces})
    for piece_id, mm in wanted.items():
        compose = change_piece(compose, piece_id, lambda p, mm=mm: scaled(p, mm / p.mm_per_px, foot(p)))  # type: ignore[misc]
    return compose


def at_share(compose: Compose, scales: Scales, piece_id: int, share: float) -> Compose:
    """A sitter at a share of life, 1 being life size; its foot stays where it is. Raises KeyError while its scale is unknown."""
    wanted = scales.at_share(piece_id, share)
    return change_piece(compose, piece_id, lambda p: scaled(p, wanted / p.mm_per_px, foot(p)))
