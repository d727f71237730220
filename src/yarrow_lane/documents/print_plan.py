"""Where the gridded reference lies on its sheet, and how large."""

from dataclasses import dataclass

from yarrow_lane.measure.lengths import MM_PER_INCH
from yarrow_lane.transfer.paper import PAPER_MM, Paper
from yarrow_lane.transfer.squares import Squares

MARGIN_MM = 12.0  # our choice: clear of the 5 mm most printers cannot reach, with room for letters
LABEL_MM = 6.0  # our choice: room for the letters and numbers beside the picture
HEAD_MM = 14.0  # our choice: room for the title
PRINT_PX_MM = 300 / MM_PER_INCH  # our choice: 300 px per inch of paper, the usual of photographs in print


@dataclass(frozen=True)
class PrintPlan:
    """Where the reference lies on the sheet, mm from the top left corner, and its scale to the canvas."""

    page_mm: tuple[float, float]
    x_mm: float
    y_mm: float
    width_mm: float
    height_mm: float
    scale: float


def plan_print(squares: Squares, paper: Paper) -> PrintPlan:
    """The largest print of the whole crop that the sheet holds, the sheet lying when the canvas lies.

    `scale` is print over canvas; never larger than the canvas itself.
    """
    short, long = PAPER_MM[paper]
    page = (short, long) if squares.height_mm >= squares.width_mm else (long, short)
    room_w = page[0] - 2 * MARGIN_MM - 2 * LABEL_MM
    room_h = page[1] - 2 * MARGIN_MM - 2 * LABEL_MM - HEAD_MM
    scale = min(room_w / squares.width_mm, room_h / squares.height_mm, 1.0)
    width, height = squares.width_mm * scale, squares.height_mm * scale
    return PrintPlan(page, (page[0] - width) / 2, MARGIN_MM + HEAD_MM + LABEL_MM, width, height, scale)
