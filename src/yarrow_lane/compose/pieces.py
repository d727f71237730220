"""A piece: a sitter cut out of a photograph, laid on the canvas. Outline in photograph px, place in canvas mm."""

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Literal

from yarrow_lane.measure.outlines import polygon_holds
from yarrow_lane.measure.plane import Point, Polygon, Rect, polygon_bounds
from yarrow_lane.measure.trouble import Trouble

Coat = Literal["fur", "skin", "cloth"]
COATS: tuple[Coat, ...] = ("fur", "skin", "cloth")
MOST_PIECES = 10  # our choice: the largest group the handbook names comes from ten photographs


class PieceTrouble(Trouble):
    """A piece that cannot be."""


@dataclass(frozen=True)
class Move:
    """A change of colour in the painter's terms; the plain one changes nothing.

    `steps` are value steps (10 L*), positive lighter; `contrast` multiplies about `pivot` (L*); `warm` goes along the hue 55
    degrees of CIELAB at middle grey, `pink` across it.
    """

    steps: float = 0.0
    contrast: float = 1.0
    warm: float = 0.0
    pink: float = 0.0
    pivot: float = 50.0

    @property
    def plain(self) -> bool:
        return self.steps == 0 and self.contrast == 1 and self.warm == 0 and self.pink == 0


@dataclass(frozen=True)
class Ring:
    """A closed smooth line through points (photograph px), and the coat at each: one letter a point, f, s or c.

    The ground lies inside by the even-odd rule over all rings of an outline, so that holes are rings of their own.
    """

    points: Polygon
    coats: str = ""

    def coat(self, place: int) -> Coat:
        """The coat at a point; fur where none is written."""
        letter = self.coats[place] if place < len(self.coats) else "f"
        return next(c for c in COATS if c[0] == letter)


@dataclass(frozen=True)
class Piece:
    """`anchor` (photograph px) lies at `at_mm`; `mm_per_px` is its scale, `turn_deg` clockwise, `mirrored` before turning.

    `far` is how much farther than the group it stands on purpose: 1 beside them, 1.2 a fifth farther.
    """

    id: int
    name: str
    photo_id: str
    outline: tuple[Ring, ...]
    anchor: Point
    at_mm: Point
    mm_per_px: float
    turn_deg: float = 0.0
    mirrored: bool = False
    move: Move = Move()
    far: float = 1.0
    sitter_id: int = 0

    # Asked for again and again while a page is shown, and some thousand points long: worked out once a piece.

    @cached_property
    def bounds(self) -> Rect:
        """Round its outline, photograph px."""
        return polygon_bounds(p for ring in self.outline for p in ring.points)

    @cached_property
    def outline_mm(self) -> tuple[Polygon, ...]:
        """The rings' points in canvas mm."""
        return tuple(tuple(to_canvas(self, p) for p in ring.points) for ring in self.outline)

    @cached_property
    def bounds_mm(self) -> Rect:
        """Round the piece on the canvas."""
        return polygon_bounds(p for ring in self.outline_mm for p in ring)


def to_canvas(piece: Piece, point: Point) -> Point:
    """Photograph px to canvas mm."""
    x, y = (point[0] - piece.anchor[0]) * piece.mm_per_px, (point[1] - piece.anchor[1]) * piece.mm_per_px
    if piece.mirrored:
        x = -x
    turn = math.radians(piece.turn_deg)
    cos, sin = math.cos(turn), math.sin(turn)
    return piece.at_mm[0] + cos * x - sin * y, piece.at_mm[1] + sin * x + cos * y


def to_photo(piece: Piece, point: Point) -> Point:
    """Canvas mm to photograph px."""
    dx, dy = point[0] - piece.at_mm[0], point[1] - piece.at_mm[1]
    turn = math.radians(piece.turn_deg)
    cos, sin = math.cos(turn), math.sin(turn)
    x, y = cos * dx + sin * dy, -sin * dx + cos * dy
    if piece.mirrored:
        x = -x
    return piece.anchor[0] + x / piece.mm_per_px, piece.anchor[1] + y / piece.mm_per_px


def holds(piece: Piece, point_mm: Point) -> bool:
    """Whether the canvas mm lies on the piece; holes are no part of it."""
    at = to_photo(piece, point_mm)
    return sum(polygon_holds(ring.points, at) for ring in piece.outline) % 2 == 1


def foot(piece: Piece) -> Point:
    """The middle of its lower edge, canvas mm: what stands on something goes on standing there when it is scaled."""
    box = piece.bounds_mm
    return box.centre[0], box.bottom


def largest(pieces: Iterable[Piece]) -> Piece | None:
    """The one that takes up most room on the canvas, by its box; None of none."""
    return max(pieces, key=lambda p: p.bounds_mm.width * p.bounds_mm.height, default=None)


def moved(piece: Piece, dx_mm: float, dy_mm: float) -> Piece:
    """The piece so much farther right and down."""
    return replace(piece, at_mm=(piece.at_mm[0] + dx_mm, piece.at_mm[1] + dy_mm))


def scaled(piece: Piece, factor: float, about_mm: Point) -> Piece:
    """Larger or smaller, the canvas mm `about_mm` staying where it is."""
    x, y = about_mm
    at = x + (piece.at_mm[0] - x) * factor, y + (piece.at_mm[1] - y) * factor
    return replace(piece, mm_per_px=piece.mm_per_px * factor, at_mm=at)


def turned(piece: Piece, degrees: float, about_mm: Point) -> Piece:
    """Turned clockwise about a canvas mm."""
    turn = math.radians(degrees)
    cos, sin = math.cos(turn), math.sin(turn)
    dx, dy = piece.at_mm[0] - about_mm[0], piece.at_mm[1] - about_mm[1]
    at = about_mm[0] + cos * dx - sin * dy, about_mm[1] + sin * dx + cos * dy
    return replace(piece, turn_deg=(piece.turn_deg + degrees + 180) % 360 - 180, at_mm=at)


def mirrored(piece: Piece) -> Piece:
    """Left for right, its middle staying where it is."""
    middle = piece.bounds_mm.centre
    flipped = replace(piece, mirrored=not piece.mirrored, turn_deg=-piece.turn_deg)
    now = flipped.bounds_mm.centre
    return moved(flipped, middle[0] - now[0], middle[1] - now[1])


def sides_cut(outline: Sequence[Ring], photo_size: Point, near_px: float = 3.0) -> tuple[str, ...]:
    """The edges of its photograph that an outline runs along: "left", "top", "right", "bottom".

    There the sitter goes on but the photograph does not. An outline counts as along an edge where a stretch of at least a
    fiftieth of its size lies within `near_px` of it: our choice, a single hair that touches is no cut.
    """
    bounds = polygon_bounds(p for ring in outline for p in ring.points)
    size = max(bounds.width, bounds.height)
    found: dict[str, float] = {}
    for ring in outline:
        for (x0, y0), (x1, y1) in zip(ring.points, (*ring.points[1:], ring.points[0]), strict=True):
            length = math.hypot(x1 - x0, y1 - y0)
            for side, far in (
                ("left", max(x0, x1)),
                ("top", max(y0, y1)),
                ("right", photo_size[0] - min(x0, x1)),
                ("bottom", photo_size[1] - min(y0, y1)),
            ):
                if far <= near_px:
                    found[side] = found.get(side, 0.0) + length
    return tuple(s for s in ("left", "top", "right", "bottom") if found.get(s, 0.0) >= size / 50)
