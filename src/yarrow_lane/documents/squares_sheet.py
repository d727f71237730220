"""The gridded reference at true size and its table of measures, as a PDF."""

import io
from collections.abc import Sequence

from reportlab.lib import colors
from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import Table, TableStyle

from yarrow_lane.documents.line_paths import At, draw_lines
from yarrow_lane.documents.paper import embedded, fitted, font, points
from yarrow_lane.documents.print_plan import HEAD_MM, MARGIN_MM, PrintPlan, plan_print
from yarrow_lane.measure.lengths import Unit, length_text, number_text, size_text
from yarrow_lane.measure.raster import Picture
from yarrow_lane.transfer.crossings import Crossing, crossing_words, of_square
from yarrow_lane.transfer.lines.line import Line
from yarrow_lane.transfer.paper import Paper
from yarrow_lane.transfer.squares import Squares, column_letter

_INK = 0.13


def squares_sheet(
    title: str, crop: Picture, squares: Squares, paper: Paper, unit: Unit, lines: Sequence[Line] = (), ticks: Sequence[Crossing] = ()
) -> bytes:  # fmt: skip
    """The gridded reference, the lines to draw under the same squares, what to rule, and where to tick, square by square.

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
    if lines:
        _lines(pdf, plan, title, lines, ticks, squares)
        pdf.showPage()
    _measures(pdf, plan, title, squares, unit)
    if ticks:
        _crossings(pdf, plan, title, ticks, squares, unit)
    pdf.save()
    return buffer.getvalue()


def _reference(pdf: Canvas, plan: PrintPlan, title: str, crop: Picture, squares: Squares, unit: Unit) -> None:
    top = plan.page_mm[1]

    def at(x_mm: float, y_mm: float) -> tuple[float, float]:
        # PDF counts from the bottom left corner.
        return points(plan.x_mm + x_mm * plan.scale), points(top - plan.y_mm - y_mm * plan.scale)

    _heading(pdf, plan, title, f"print at 100 %, without fitting to the page · enlarge × {1 / plan.scale:.2f}")
    image = embedded(crop)
    left, bottom = at(0, squares.height_mm)
    pdf.drawImage(image, left, bottom, points(plan.width_mm), points(plan.height_mm))
    # A dark line under a light one shows on any value beneath it.
    for grey, pen in ((0.0, 0.9), (1.0, 0.4)):
        _rule(pdf, at, squares, grey, pen)
    _letters(pdf, at, squares)


def _lines(
    pdf: Canvas, plan: PrintPlan, title: str, lines: Sequence[Line], ticks: Sequence[Crossing], squares: Squares
) -> None:  # fmt: skip
    """The lines to draw under the squares, a stroke where each crosses a ruled line."""

    def at(x_mm: float, y_mm: float) -> tuple[float, float]:
        return points(plan.x_mm + x_mm * plan.scale), points(plan.page_mm[1] - plan.y_mm - y_mm * plan.scale)

    _heading(pdf, plan, title, "the lines to draw; tick where they cross the ruled lines, then join the ticks")
    _rule(pdf, at, squares, 0.55, 0.4)
    _letters(pdf, at, squares)
    draw_lines(pdf, lines, at, 0.8)
    pdf.setStrokeColorRGB(0.55, 0.16, 0.09)
    pdf.setLineWidth(1.2)
    for tick in ticks:
        x, y = at(*tick.place(squares))
        across, down = (points(1.2), 0) if tick.upright else (0, points(1.2))
        pdf.line(x - across, y - down, x + across, y + down)


def _rule(pdf: Canvas, at: At, squares: Squares, grey: float, pen: float) -> None:
    pdf.setStrokeGray(grey)
    pdf.setLineWidth(pen)
    for x in (0.0, *squares.lines_across(), squares.width_mm):
        pdf.line(*at(x, 0), *at(x, squares.height_mm))
    for y in (0.0, *squares.lines_down(), squares.height_mm):
        pdf.line(*at(0, y), *at(squares.width_mm, y))


def _letters(pdf: Canvas, at: At, squares: Squares) -> None:
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
    _over_pages(pdf, plan, title, words, _ruling_table(plan, squares, unit), top - facts_h - 14 - left)


def _over_pages(pdf: Canvas, plan: PrintPlan, title: str, words: str, rest: Table, room: float) -> None:
    """A table that goes on over the page where it is long; `room` is what the first page has, pt."""
    width, left = points(plan.page_mm[0] - 2 * MARGIN_MM), points(MARGIN_MM)
    while True:
        pieces = rest.splitOn(pdf, width, room)
        _, table_h = pieces[0].wrapOn(pdf, width, room)
        pieces[0].drawOn(pdf, left, left + room - table_h)
        pdf.showPage()
        if len(pieces) < 2:
            return
        rest = pieces[1]
        _heading(pdf, plan, title, words)
        room = points(plan.page_mm[1] - MARGIN_MM - HEAD_MM) - left


def _crossings(
    pdf: Canvas, plan: PrintPlan, title: str, ticks: Sequence[Crossing], squares: Squares, unit: Unit
) -> None:  # fmt: skip
    """Where to tick, square by square."""
    words = f"where the lines cross each square's edges{', to the nearest sixteenth of an inch' if unit == 'in' else ''}"
    rows = [["square", "edge", "on the canvas"]]
    style = [
        ("FONT", (0, 0), (-1, 0), font("Bold"), 10), ("FONT", (0, 1), (-1, -1), font(), 9.5), *_TIGHT,
        ("LINEBELOW", (0, 0), (-1, 0), 0.4, colors.grey),
    ]  # fmt: skip
    for square in squares.all:
        for number, tick in enumerate(of_square(ticks, squares, square)):
            if number == 0 and len(rows) > 1:
                style.append(("LINEABOVE", (0, len(rows)), (-1, len(rows)), 0.2, colors.lightgrey))
            rows.append([squares.name(*square) if number == 0 else "", *crossing_words(tick, squares, square, unit)])
    _heading(pdf, plan, title, words)
    table = Table(rows, colWidths=[points(20), points(30), points(60)], repeatRows=1, hAlign="LEFT", style=TableStyle(style))
    _over_pages(pdf, plan, title, words, table, points(plan.page_mm[1] - MARGIN_MM - HEAD_MM) - points(MARGIN_MM))


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
