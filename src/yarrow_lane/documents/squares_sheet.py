"""The gridded reference at true size and its table of measures, as a PDF."""

import io
from dataclasses import dataclass

from PIL import Image
from reportlab.lib.utils import ImageReader
from reportlab.pdfgen.canvas import Canvas

from yarrow_lane.documents.paper import MARGIN_MM, PAPER_MM, fitted, font, points
from yarrow_lane.measure.lengths import Unit, length_text, number_text, size_text
from yarrow_lane.measure.raster import Picture, resample
from yarrow_lane.transfer.squares import Paper, Squares, column_letter

_LABEL_MM = 6.0  # our choice: room for the letters and numbers beside the picture
_HEAD_MM = 14.0  # our choice: room for the title
_PRINT_PX_MM = 12.0  # our choice: about 300 px per inch
_INK = 0.13


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
    room_w = page[0] - 2 * MARGIN_MM - 2 * _LABEL_MM
    room_h = page[1] - 2 * MARGIN_MM - 2 * _LABEL_MM - _HEAD_MM
    scale = min(room_w / squares.width_mm, room_h / squares.height_mm, 1.0)
    width, height = squares.width_mm * scale, squares.height_mm * scale
    return PrintPlan(page, (page[0] - width) / 2, MARGIN_MM + _HEAD_MM + _LABEL_MM, width, height, scale)


def squares_sheet(title: str, crop: Picture, squares: Squares, paper: Paper, unit: Unit) -> bytes:
    """Two sheets: the gridded reference, and what to rule.

    `crop` is (H, W, 3) sRGB of the whole canvas. Lengths on the sheet are true to the
    millimetre when it is printed at 100 %.
    """
    plan = plan_print(squares, paper)
    buffer = io.BytesIO()
    page = (points(plan.page_mm[0]), points(plan.page_mm[1]))
    pdf = Canvas(buffer, pagesize=page, invariant=1)
    pdf.setTitle(f"{title}: squares")
    pdf.setCreator("Yarrow Lane")
    _reference(pdf, plan, title, crop, squares, unit)
    pdf.showPage()
    _measures(pdf, plan, title, squares, unit)
    pdf.showPage()
    pdf.save()
    return buffer.getvalue()


def _reference(pdf: Canvas, plan: PrintPlan, title: str, crop: Picture, squares: Squares, unit: Unit) -> None:
    top = plan.page_mm[1]

    def at(x_mm: float, y_mm: float) -> tuple[float, float]:
        # PDF counts from the bottom left corner.
        return points(plan.x_mm + x_mm * plan.scale), points(top - plan.y_mm - y_mm * plan.scale)

    _heading(pdf, plan, title, f"print at 100 %, without fitting to the page · enlarge × {1 / plan.scale:.2f}")
    width_px = min(crop.shape[1], round(plan.width_mm * _PRINT_PX_MM))
    height_px = round(width_px * plan.height_mm / plan.width_mm)
    image = ImageReader(Image.fromarray(resample(crop, width_px, height_px)))
    left, bottom = at(0, squares.height_mm)
    pdf.drawImage(image, left, bottom, points(plan.width_mm), points(plan.height_mm))
    # A dark line under a light one shows on any value beneath it.
    for grey, pen in ((0.0, 0.9), (1.0, 0.4)):
        pdf.setStrokeGray(grey)
        pdf.setLineWidth(pen)
        for x in (0.0, *squares.lines_across(), squares.width_mm):
            pdf.line(*at(x, 0), *at(x, squares.height_mm))
        for y in (0.0, *squares.lines_down(), squares.height_mm):
            pdf.line(*at(0, y), *at(squares.width_mm, y))
    pdf.setFillGray(_INK)
    pdf.setFont(font("Bold"), 9)
    for column in range(squares.columns):
        middle = squares.rect(column, 0).centre[0]
        x, y = at(middle, 0)
        pdf.drawCentredString(x, y + points(2), column_letter(column))
        pdf.drawCentredString(x, at(middle, squares.height_mm)[1] - points(4.5), column_letter(column))
    for row in range(squares.rows):
        x, y = at(0, squares.rect(0, row).centre[1])
        pdf.drawRightString(x - points(1.5), y - points(1), str(row + 1))
        pdf.drawString(at(squares.width_mm, 0)[0] + points(1.5), y - points(1), str(row + 1))


def _heading(pdf: Canvas, plan: PrintPlan, title: str, below: str) -> None:
    pdf.setFillGray(_INK)
    left, top = points(MARGIN_MM), points(plan.page_mm[1] - MARGIN_MM)
    pdf.setFont(font("Bold"), 13)
    pdf.drawString(left, top - 10, fitted(title, font("Bold"), 13, points(plan.page_mm[0] - 2 * MARGIN_MM)))
    pdf.setFont(font(), 9)
    pdf.drawString(left, top - 24, below)


def _measures(pdf: Canvas, plan: PrintPlan, title: str, squares: Squares, unit: Unit) -> None:
    _heading(pdf, plan, title, "measures, each ruled from one edge so that errors do not add up")
    left, y = points(MARGIN_MM), points(plan.page_mm[1] - MARGIN_MM - _HEAD_MM - 4)
    facts = (
        ("Canvas", size_text(squares.width_mm, squares.height_mm, unit)),
        ("Squares", f"{squares.columns} x {squares.rows}"),
        ("Side on the canvas", length_text(squares.side_mm, unit, 2)),
        ("Side on this print", f"{squares.side_mm * plan.scale:.1f} mm"),
        ("This print", f"{plan.width_mm:.1f} x {plan.height_mm:.1f} mm"),
    )
    for label, value in facts:
        pdf.setFont(font(), 10)
        pdf.drawString(left, y, label)
        pdf.setFont(font("Bold"), 10)
        pdf.drawString(left + points(50), y, value)
        y -= 15
    columns = (
        ("Upright lines", "from the left edge", squares.lines_across(), left),
        ("Level lines", "from the top edge", squares.lines_down(), left + points(90)),
    )
    y -= 14
    for head, edge, lines, x in columns:
        pdf.setFont(font("Bold"), 10)
        pdf.drawString(x, y, head)
        pdf.setFont(font(), 9)
        pdf.drawString(x, y - 12, f"canvas, {unit}")
        pdf.drawString(x + points(28), y - 12, f"print, mm, {edge}")
        for n, line in enumerate(lines):
            row = y - 26 - 13 * n
            pdf.drawString(x, row, number_text(line, unit, 2))
            pdf.drawString(x + points(28), row, f"{line * plan.scale:.1f}")
