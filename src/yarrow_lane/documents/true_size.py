"""The picture or its lines at true size over several sheets, to trace or to measure from; and the printer's own check."""

import io
from collections.abc import Callable, Sequence

from reportlab.pdfgen.canvas import Canvas

from yarrow_lane.documents.line_paths import At, draw_lines
from yarrow_lane.documents.paper import embedded, font, points
from yarrow_lane.measure.plane import Polygon, Rect
from yarrow_lane.measure.raster import Picture
from yarrow_lane.transfer.lines.line import Line
from yarrow_lane.transfer.sheets import FOOT_MM, OVERLAP_MM, RULER_MM, UNPRINTABLE_MM, LaidSheets, Printer, Sheet, enlarged_for

_CROSS_MM = 3.0
_GREYS = 11  # fields of the scale for checking the printer: L* 0 to 100 in tens


def true_size(
    title: str, laid: LaidSheets, size_mm: tuple[float, float], printer: Printer, mirrored: bool,
    lines: Sequence[Line] = (), part: Callable[[Rect], Picture] | None = None,
) -> bytes:  # fmt: skip
    """A PDF page a sheet: lines, or with `part` the picture of each part of the canvas, then a map of the sheets.

    Crosses mark the corners of the overlap, a ruler of 100 mm proves the size. `mirrored` is for a back rubbed with carbon and drawn
    through from there. The printer's own error is taken out.
    """
    buffer = io.BytesIO()
    wide, high = laid.page_mm
    pdf = Canvas(buffer, pagesize=(points(wide), points(high)), invariant=1)
    pdf.setTitle(f"{title}: true size")
    pdf.setCreator("Yarrow Lane")
    across, along = enlarged_for(printer)
    for sheet in laid.sheets:
        pdf.saveState()
        pdf.scale(across, along)

        def at(x: float, y: float, sheet: Sheet = sheet) -> tuple[float, float]:
            return _placed(sheet, size_mm, mirrored, high / along, x, y)

        _sheet(pdf, sheet, at, mirrored, size_mm, lines, part)
        _foot(
            pdf, f"{title}, sheet {sheet.name} of {laid.columns} × {laid.rows}{', mirrored' if mirrored else ''}", wide / across
        )
        pdf.restoreState()
        pdf.showPage()
    _map(pdf, title, laid, size_mm)
    pdf.save()
    return buffer.getvalue()


def _placed(
    sheet: Sheet, size_mm: tuple[float, float], mirrored: bool, page_high: float, x: float, y: float
) -> tuple[float, float]:  # fmt: skip
    """Canvas mm on the page, pt; PDF counts from below."""
    seen = size_mm[0] - x if mirrored else x
    return points(sheet.x_mm + seen - sheet.part.x), points(page_high - sheet.y_mm - (y - sheet.part.y))


def _sheet(
    pdf: Canvas, sheet: Sheet, at: At, mirrored: bool, size_mm: tuple[float, float], lines: Sequence[Line],
    part: Callable[[Rect], Picture] | None,
) -> None:  # fmt: skip
    area = sheet.part
    # What of the canvas is seen through this sheet.
    real = Rect(size_mm[0] - area.right, area.y, area.width, area.height) if mirrored else area
    left, bottom = points(sheet.x_mm), at(real.x, real.bottom)[1]
    pdf.saveState()
    frame = pdf.beginPath()
    frame.rect(left, bottom, points(area.width), points(area.height))
    pdf.clipPath(frame, stroke=0, fill=0)
    if part is not None:
        picture = part(real)
        shown = picture[:, ::-1] if mirrored else picture
        pdf.drawImage(embedded(shown), left, bottom, points(area.width), points(area.height))

    def on_sheet(path: Polygon) -> bool:
        return any(_near(area, size_mm[0] - x if mirrored else x, y) for x, y in path)

    draw_lines(pdf, lines, at, 0.9, on_sheet)
    pdf.restoreState()
    pdf.setLineWidth(0.4)
    for x in (area.x, area.x + OVERLAP_MM, area.right - OVERLAP_MM, area.right):
        for y in (area.y, area.y + OVERLAP_MM, area.bottom - OVERLAP_MM, area.bottom):
            cx, cy = points(sheet.x_mm + x - area.x), bottom + points(area.bottom - y)
            arm = points(_CROSS_MM / 2)
            pdf.line(cx - arm, cy, cx + arm, cy)
            pdf.line(cx, cy - arm, cx, cy + arm)


def _near(area: Rect, x: float, y: float) -> bool:
    return area.x - 5 <= x <= area.right + 5 and area.y - 5 <= y <= area.bottom + 5


def _foot(pdf: Canvas, words: str, wide_mm: float) -> None:
    """The sheet's name, a ruler of 100 mm, greys from black to white."""
    low = points(UNPRINTABLE_MM + 3)
    left = points(UNPRINTABLE_MM)
    pdf.setFillGray(0)
    pdf.setStrokeGray(0)
    pdf.setFont(font("Bold"), 8)
    pdf.drawString(left, low + points(5), words)
    pdf.setLineWidth(0.5)
    pdf.line(left, low, left + points(RULER_MM), low)
    for mm in range(0, int(RULER_MM) + 1, 10):
        pdf.line(left + points(mm), low, left + points(mm), low + points(2.5 if mm % 50 == 0 else 1.5))
    pdf.setFont(font(), 7)
    pdf.drawString(left + points(RULER_MM + 2), low, "100 mm")
    step = min(6.0, (wide_mm - RULER_MM - 30) / _GREYS)
    for number in range(_GREYS):
        pdf.setFillGray(number / (_GREYS - 1))
        pdf.rect(left + points(RULER_MM + 16 + number * step), low - points(1), points(step), points(4), stroke=1, fill=1)


def _map(pdf: Canvas, title: str, laid: LaidSheets, size_mm: tuple[float, float]) -> None:
    """Where each sheet lies on the canvas."""
    wide, high = laid.page_mm
    room = wide - 2 * UNPRINTABLE_MM - 20, high - 2 * UNPRINTABLE_MM - FOOT_MM - 30
    scale = min(room[0] / size_mm[0], room[1] / size_mm[1])
    left, top = UNPRINTABLE_MM + 10, high - UNPRINTABLE_MM - 20
    pdf.setFillGray(0)
    pdf.setFont(font("Bold"), 13)
    pdf.drawString(points(left), points(high - UNPRINTABLE_MM - 10), f"{title}: how the sheets lie")
    pdf.setFont(font(), 9)
    pdf.drawString(
        points(left),
        points(high - UNPRINTABLE_MM - 15),
        "print at 100 %, without fitting to the page; lay the crosses on each other",
    )
    pdf.setLineWidth(0.5)
    for sheet in laid.sheets:
        x, y = left + sheet.part.x * scale, top - sheet.part.bottom * scale
        pdf.rect(points(x), points(y), points(sheet.part.width * scale), points(sheet.part.height * scale))
        pdf.drawCentredString(points(x + sheet.part.width * scale / 2), points(y + sheet.part.height * scale / 2), sheet.name)
    pdf.showPage()
