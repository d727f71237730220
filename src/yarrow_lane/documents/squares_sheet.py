"""The gridded reference at true size and its table of measures, as a PDF."""

import io

from PIL import Image
from reportlab.lib import colors
from reportlab.lib.utils import ImageReader
from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import Table, TableStyle

from yarrow_lane.documents.paper import fitted, font, points
from yarrow_lane.documents.print_plan import HEAD_MM, MARGIN_MM, PrintPlan, plan_print
from yarrow_lane.measure.lengths import Unit, length_text, number_text, size_text
from yarrow_lane.measure.raster import Picture
from yarrow_lane.transfer.squares import Paper, Squares, column_letter

_INK = 0.13


def squares_sheet(title: str, crop: Picture, squares: Squares, paper: Paper, unit: Unit) -> bytes:
    """The gridded reference, and what to rule on as many sheets as the lines need.

    `crop` is (H, W, 3) sRGB of the whole canvas at print resolution. Lengths on the sheet are true to the millimetre when it is
    printed at 100 %.
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
    pdf.save()
    return buffer.getvalue()


def _reference(pdf: Canvas, plan: PrintPlan, title: str, crop: Picture, squares: Squares, unit: Unit) -> None:
    top = plan.page_mm[1]

    def at(x_mm: float, y_mm: float) -> tuple[float, float]:
        # PDF counts from the bottom left corner.
        return points(plan.x_mm + x_mm * plan.scale), points(top - plan.y_mm - y_mm * plan.scale)

    _heading(pdf, plan, title, f"print at 100 %, without fitting to the page · enlarge × {1 / plan.scale:.2f}")
    image = ImageReader(Image.fromarray(crop))
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
    """Facts on top, then the ruling positions, the table going on over the page where it is long."""
    facts = Table(
        [
            ["Canvas", size_text(squares.width_mm, squares.height_mm, unit)],
            ["Squares", f"{squares.columns} x {squares.rows}"],
            ["Side on the canvas", length_text(squares.side_mm, unit, 2)],
            ["Side on this print", f"{squares.side_mm * plan.scale:.1f} mm"],
            ["This print", f"{plan.width_mm:.1f} x {plan.height_mm:.1f} mm"],
        ],
        colWidths=[points(50), None],
        hAlign="LEFT",
        style=TableStyle([("FONT", (0, 0), (0, -1), font(), 10), ("FONT", (1, 0), (1, -1), font("Bold"), 10), *_TIGHT]),
    )
    width, height = points(plan.page_mm[0] - 2 * MARGIN_MM), points(plan.page_mm[1] - 2 * MARGIN_MM)
    left, top = points(MARGIN_MM), points(plan.page_mm[1] - MARGIN_MM - HEAD_MM)
    words = "measures, each ruled from one edge so that errors do not add up"
    _heading(pdf, plan, title, words)
    _, facts_h = facts.wrapOn(pdf, width, height)
    facts.drawOn(pdf, left, top - facts_h)
    room, rest = top - facts_h - 14 - left, _ruling_table(plan, squares, unit)
    while True:
        pieces = rest.splitOn(pdf, width, room)
        _, table_h = pieces[0].wrapOn(pdf, width, room)
        pieces[0].drawOn(pdf, left, left + room - table_h)
        pdf.showPage()
        if len(pieces) < 2:
            return
        rest = pieces[1]
        _heading(pdf, plan, title, words)
        room = top - left


_TIGHT = [("LEFTPADDING", (0, 0), (-1, -1), 0), ("TOPPADDING", (0, 0), (-1, -1), 1), ("BOTTOMPADDING", (0, 0), (-1, -1), 2)]


def _ruling_table(plan: PrintPlan, squares: Squares, unit: Unit) -> Table:
    across, down = squares.lines_across(), squares.lines_down()
    rows = [
        ["", "Upright lines, from the left edge", "", "Level lines, from the top edge", ""],
        ["line", f"canvas, {unit}", "print, mm", f"canvas, {unit}", "print, mm"],
    ]
    for n in range(max(len(across), len(down))):
        row = [str(n + 1)]
        for lines in (across, down):
            row += [number_text(lines[n], unit, 2), f"{lines[n] * plan.scale:.1f}"] if n < len(lines) else ["", ""]
        rows.append(row)
    style = [
        ("FONT", (0, 0), (-1, 0), font("Bold"), 10), ("FONT", (0, 1), (-1, -1), font(), 9.5), *_TIGHT,
        ("SPAN", (1, 0), (2, 0)), ("SPAN", (3, 0), (4, 0)), ("LINEBELOW", (0, 1), (-1, 1), 0.4, colors.grey),
        ("ALIGN", (1, 1), (-1, -1), "RIGHT"), ("RIGHTPADDING", (1, 0), (-1, -1), 14),
    ]  # fmt: skip
    sides = [points(14), points(34), points(28), points(34), points(28)]
    return Table(rows, colWidths=sides, repeatRows=2, hAlign="LEFT", style=TableStyle(style))
