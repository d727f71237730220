"""Squares: the same lattice on reference and canvas.

Side on canvas = short side / count (handbook table of numbers). Lines are given
as distances from one edge, cumulatively, so that errors of ruling do not add up.
"""

import math
import statistics
from collections.abc import Iterable
from dataclasses import dataclass, replace
from datetime import datetime

from yarrow_lane.compose.composition import Compose
from yarrow_lane.lane.part import Part, as_it_was
from yarrow_lane.measure.plane import Rect
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.transfer.lines.choice import Choice
from yarrow_lane.transfer.paper import Paper
from yarrow_lane.transfer.projector import Projector
from yarrow_lane.transfer.proof.photo import Photos
from yarrow_lane.transfer.sheets import Printer

Square = tuple[int, int]  # column and row, from 0
FEWEST, MOST = 2, 40
USUAL_COUNT = 8  # our choice: eight to twelve across the short side for a head
MINUTES_EACH = 1.5  # our choice, first guess of the pace
MINUTES_RULING = 15.0  # our choice
# Our choice: shorter is a slip of the key, longer a pause; a pace is told from three squares on.
_SHORTEST, _LONGEST, _ENOUGH, _MOST_LOGGED = 0.1, 15.0, 3, 200


def whole_counts(width_mm: float, height_mm: float) -> tuple[int, ...]:
    """Counts across the short side for which every square is whole; often none for a canvas measured in odd inches."""
    return tuple(n for n in range(FEWEST, MOST + 1) if Squares(width_mm, height_mm, n).whole)


class SquaresTrouble(Trouble):
    """A count of squares that cannot be."""


@dataclass(frozen=True)
class Transfer:
    """Squares across the short side, those drawn as (column, row) from 0, and the print's paper.

    `made_from` is the reference the drawing was begun from, `quartered` the squares ruled finer (None: as proposed), `lines` what was
    chosen of the lines to draw, `minutes` how long squares took one after the other, `marked` when the last was marked.
    """

    count: int = 0
    drawn: tuple[Square, ...] = ()
    paper: Paper = "A4"
    made_from: str = ""
    quartered: tuple[Square, ...] | None = None
    lines: Choice = Choice()
    minutes: tuple[float, ...] = ()
    marked: datetime | None = None
    projector: Projector = Projector()
    room_lux: float = 20.0
    printer: Printer = Printer()
    photos: Photos = ()


# Version 1 added `made_from`, version 2 the lines, quartered squares, the projector, the printer and photographs of the drawing.
TRANSFER = Part("transfer", Transfer, "Transfer", (as_it_was, as_it_was))


@dataclass(frozen=True)
class Squares:
    """The lattice of one canvas: whole squares from the top left corner, the last may be cut."""

    width_mm: float
    height_mm: float
    count: int

    @property
    def side_mm(self) -> float:
        return min(self.width_mm, self.height_mm) / self.count

    @property
    def columns(self) -> int:
        return _whole(self.width_mm / self.side_mm)

    @property
    def rows(self) -> int:
        return _whole(self.height_mm / self.side_mm)

    @property
    def whole(self) -> bool:
        """Whether no square is cut by the canvas's edge; half a millimetre is less than canvases differ by [our choice]."""
        long = max(self.width_mm, self.height_mm)
        return abs(long - round(long / self.side_mm) * self.side_mm) < 0.5

    def lines_across(self) -> tuple[float, ...]:
        """Where the upright lines are ruled, mm from the left edge, the edges left out."""
        return tuple(self.side_mm * n for n in range(1, self.columns))

    def lines_down(self) -> tuple[float, ...]:
        """Where the level lines are ruled, mm from the top edge, the edges left out."""
        return tuple(self.side_mm * n for n in range(1, self.rows))

    def rect(self, column: int, row: int) -> Rect:
        """One square in canvas mm, cut at the canvas's edge."""
        x, y = column * self.side_mm, row * self.side_mm
        return Rect(x, y, min(self.side_mm, self.width_mm - x), min(self.side_mm, self.height_mm - y))

    def name(self, column: int, row: int) -> str:
        """Letter across, number down: "D4"."""
        return f"{column_letter(column)}{row + 1}"

    @property
    def all(self) -> tuple[Square, ...]:
        """Every square, row by row."""
        return tuple((c, r) for r in range(self.rows) for c in range(self.columns))


def squares_of(compose: Compose, transfer: Transfer) -> Squares | None:
    """The lattice on the canvas, once there is a size and a count."""
    if not compose.sized or transfer.count == 0:
        return None
    return Squares(compose.width_mm, compose.height_mm, transfer.count)


def _whole(ratio: float) -> int:
    """Round up, but forgive the last bits of a division that should come out even."""
    return math.ceil(ratio - 1e-9)


def column_letter(column: int) -> str:
    """A to Z, then AA, AB and so on."""
    letters = ""
    number = column + 1
    while number:
        number, rest = divmod(number - 1, 26)
        letters = chr(ord("A") + rest) + letters
    return letters


def set_count(transfer: Transfer, count: int) -> Transfer:
    """Choose the squares across the short side; another lattice starts with none drawn.

    Raises `SquaresTrouble` outside 2 to 40.
    """
    if not FEWEST <= count <= MOST:
        raise SquaresTrouble("The squares were not changed", f"{count} across is outside {FEWEST} to {MOST}")
    if count == transfer.count:
        return transfer
    return replace(transfer, count=count, drawn=(), made_from="", quartered=None)


def set_quartered(transfer: Transfer, squares: Iterable[Square]) -> Transfer:
    """These squares are ruled finer, no others."""
    return replace(transfer, quartered=tuple(sorted(set(squares))))


def set_lines(transfer: Transfer, choice: Choice, made_from: str) -> Transfer:
    """Another choice of the lines to draw; `made_from` is the reference they belong to."""
    return replace(transfer, lines=replace(choice, made_from=made_from))


def set_paper(transfer: Transfer, paper: Paper) -> Transfer:
    """The paper in the painter's printer."""
    return replace(transfer, paper=paper)


def mark_drawn(transfer: Transfer, column: int, row: int, drawn: bool, now: datetime | None = None) -> Transfer:
    """Mark one square as drawn on the canvas, or take the mark off. With `now` the time since the mark before is logged."""
    others = tuple(s for s in transfer.drawn if s != (column, row))
    if not drawn:
        return replace(transfer, drawn=others)
    after = replace(transfer, drawn=tuple(sorted((*others, (column, row)))))
    if now is None or (column, row) in transfer.drawn:
        return after
    minutes = (now - transfer.marked).total_seconds() / 60 if transfer.marked is not None else 0.0
    logged = (*transfer.minutes, round(minutes, 2))[-_MOST_LOGGED:] if _SHORTEST < minutes < _LONGEST else transfer.minutes
    return replace(after, minutes=logged, marked=now)


def mark_several(transfer: Transfer, squares: Iterable[Square]) -> Transfer:
    """Mark a row, or all up to here; nothing is logged of the time."""
    return replace(transfer, drawn=tuple(sorted({*transfer.drawn, *squares})))


def minutes_each(transfer: Transfer) -> float:
    """What a square takes: the middle of those logged, from three on; else a first guess."""
    return statistics.median(transfer.minutes) if len(transfer.minutes) >= _ENOUGH else MINUTES_EACH


def minutes_left(squares: Squares, transfer: Transfer) -> float:
    """The time still needed, ruling included until the first square is drawn."""
    drawn = len(transfer.drawn)
    return (squares.columns * squares.rows - drawn) * minutes_each(transfer) + (MINUTES_RULING if drawn == 0 else 0.0)
