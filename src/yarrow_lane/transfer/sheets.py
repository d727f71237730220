"""A picture or lines at true size over several sheets: which part of the canvas goes on which, with overlap to glue."""

import math
from dataclasses import dataclass

from yarrow_lane.measure.plane import Rect
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.transfer.paper import PAPER_MM, Paper

UNPRINTABLE_MM = 5.0  # our choice: what most printers cannot reach
OVERLAP_MM = 10.0  # our choice: enough to glue, and to lay the crosses on each other
FOOT_MM = 12.0  # our choice: the ruler and the name of the sheet
RULER_MM = 100.0
_MOST_SHEETS = 400


class SheetsTrouble(Trouble):
    """A print that cannot be laid on sheets."""


@dataclass(frozen=True)
class Sheet:
    """`part` of the canvas (mm) lies on the sheet from `x_mm`, `y_mm`; counted from the top left."""

    column: int
    row: int
    part: Rect
    x_mm: float
    y_mm: float

    @property
    def name(self) -> str:
        return f"{chr(ord('A') + self.column % 26)}{self.row + 1}"


@dataclass(frozen=True)
class LaidSheets:
    """All sheets of a canvas; the paper as it lies in the printer."""

    page_mm: tuple[float, float]
    columns: int
    rows: int
    sheets: tuple[Sheet, ...]


def lay_on_sheets(width_mm: float, height_mm: float, paper: Paper, overlap_mm: float = OVERLAP_MM) -> LaidSheets:
    """As few sheets as hold it, upright or lying. Raises `SheetsTrouble` for what no such number of sheets holds."""
    short, long = PAPER_MM[paper]
    best: LaidSheets | None = None
    for page in ((short, long), (long, short)):
        found = _laid(width_mm, height_mm, page, overlap_mm)
        if best is None or len(found.sheets) < len(best.sheets):
            best = found
    assert best is not None
    if len(best.sheets) > _MOST_SHEETS:
        raise SheetsTrouble(
            "It was not laid on sheets",
            f"it would take {len(best.sheets)} of them",
            "use squares, or the projector, at this size",
        )
    return best


def _laid(width: float, height: float, page: tuple[float, float], overlap: float) -> LaidSheets:
    room = page[0] - 2 * UNPRINTABLE_MM, page[1] - 2 * UNPRINTABLE_MM - FOOT_MM
    columns, rows = (
        1 if side <= free else math.ceil((side - overlap) / (free - overlap))
        for side, free in zip((width, height), room, strict=True)
    )
    # Equal parts: the last sheet is no sliver.
    wide, high = ((side + overlap * (count - 1)) / count for side, count in ((width, columns), (height, rows)))
    sheets = tuple(
        Sheet(
            column, row, Rect(column * (wide - overlap), row * (high - overlap), wide, high),
            UNPRINTABLE_MM + (room[0] - wide) / 2, UNPRINTABLE_MM + (room[1] - high) / 2,
        )
        for row in range(rows)
        for column in range(columns)
    )  # fmt: skip
    return LaidSheets(page, columns, rows, sheets)


@dataclass(frozen=True)
class Printer:
    """What 100 mm become on the painter's printer, across and along the paper; 100 when nothing was measured."""

    across_mm: float = RULER_MM
    along_mm: float = RULER_MM

    @property
    def measured(self) -> bool:
        return (self.across_mm, self.along_mm) != (RULER_MM, RULER_MM)


def set_right(across_mm: float, along_mm: float) -> Printer:
    """From two printed rulers of 100 mm, measured. Raises `SheetsTrouble` for what no printer does."""
    for measured in (across_mm, along_mm):
        if not 90 <= measured <= 110:
            raise SheetsTrouble(
                "The printer was not set right",
                f"a ruler of 100 mm came out {measured:g} mm",
                "print at 100 %, without fitting to the page",
            )
    return Printer(across_mm, along_mm)


def enlarged_for(printer: Printer) -> tuple[float, float]:
    """By how much a page is drawn larger, across and along, so that it comes out true."""
    return RULER_MM / printer.across_mm, RULER_MM / printer.along_mm
