"""Squares: the same lattice on reference and canvas.

Side on canvas = short side / count (handbook table of numbers). Lines are given
as distances from one edge, cumulatively, so that errors of ruling do not add up.
"""

import math
from dataclasses import dataclass

from yarrow_lane.measure.plane import Rect
from yarrow_lane.measure.trouble import Trouble

Square = tuple[int, int]  # column and row, from 0
FEWEST, MOST = 2, 40
USUAL_COUNT = 8  # our choice: eight to twelve across the short side for a head


def whole_counts(width_mm: float, height_mm: float) -> tuple[int, ...]:
    """Counts across the short side for which every square is whole; often none for a canvas measured in odd inches."""
    return tuple(n for n in range(FEWEST, MOST + 1) if Squares(width_mm, height_mm, n).whole)


class SquaresTrouble(Trouble):
    """A count of squares that cannot be."""


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
