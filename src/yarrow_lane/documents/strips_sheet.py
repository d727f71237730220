"""Strips of the reference at true size, to cut out without a white border and hold beside the paint; with a map of where they belong."""

from collections.abc import Callable, Sequence

from reportlab.pdfgen.canvas import Canvas

from yarrow_lane.check.strips import Strip
from yarrow_lane.documents.paper import begun_pdf, embedded, font, points, wrapped
from yarrow_lane.measure.plane import Rect
from yarrow_lane.measure.raster import Picture
from yarrow_lane.transfer.paper import PAPER_MM, Paper

_MARGIN_MM, _HEAD_MM, _BLEED_MM, _APART_MM = 10.0, 24.0, 2.0, 8.0
_MAP_MM = 70.0
_HOW = (
    "Print at 100 % and check the ruler. Cut along the ticks: the picture runs on past them, so that no white is left. Hold the strip's "
    "edge on the paint: lighter or darker first, then warmer or cooler. A print has its own blacks: judge darks against the strip's own."
)


def strips_sheet(
    title: str, strips: Sequence[Strip], size_mm: tuple[float, float], paper: Paper, part: Callable[[Rect], Picture]
) -> bytes:  # fmt: skip
    """A PDF; `part` gives any area of the canvas (mm) as a picture for print."""
    wide, high = PAPER_MM[paper]
    buffer, pdf = begun_pdf(f"{title}: strips", (wide, high))
    _head(pdf, title, wide, high)
    _map(pdf, strips, size_mm, wide, high)
    canvas = Rect(0, 0, *size_mm)
    x, low = _MARGIN_MM + _BLEED_MM, high - _MARGIN_MM - _HEAD_MM - _MAP_MM
    for number, strip in enumerate(strips, 1):
        turned = strip.area.width > strip.area.height
        across, along = sorted((strip.area.width, strip.area.height))
        if x + across + _BLEED_MM > wide - _MARGIN_MM or along > low - _MARGIN_MM:
            pdf.showPage()
            x, low = _MARGIN_MM + _BLEED_MM, high - _MARGIN_MM - 8
        bled = _bled(strip.area, canvas)
        _strip(pdf, number, strip.area, bled, turned, x, low, part(bled))
        x += across + 2 * _BLEED_MM + _APART_MM
    pdf.showPage()
    pdf.save()
    return buffer.getvalue()


def _bled(area: Rect, canvas: Rect) -> Rect:
    left, top = max(canvas.x, area.x - _BLEED_MM), max(canvas.y, area.y - _BLEED_MM)
    right, bottom = min(canvas.right, area.right + _BLEED_MM), min(canvas.bottom, area.bottom + _BLEED_MM)
    return Rect(left, top, right - left, bottom - top)


def _head(pdf: Canvas, title: str, wide: float, high: float) -> None:
    pdf.setFont(font("Bold"), 14)
    pdf.drawString(points(_MARGIN_MM), points(high - _MARGIN_MM - 5), f"Strips of {title}, true size")
    pdf.setFont(font(), 9)
    for n, line in enumerate(wrapped(_HOW, font(), 9, points(wide - 2 * _MARGIN_MM))):
        pdf.drawString(points(_MARGIN_MM), points(high - _MARGIN_MM - 11 - 4.2 * n), line)


def _map(pdf: Canvas, strips: Sequence[Strip], size_mm: tuple[float, float], wide: float, high: float) -> None:
    """The canvas small, each strip with its number; a ruler of 100 mm beside it."""
    scale = (_MAP_MM - 8) / max(size_mm)
    left, top = _MARGIN_MM, high - _MARGIN_MM - _HEAD_MM
    pdf.setLineWidth(0.5)
    pdf.rect(points(left), points(top - size_mm[1] * scale), points(size_mm[0] * scale), points(size_mm[1] * scale))
    pdf.setFont(font("Bold"), 8)
    for number, strip in enumerate(strips, 1):
        a = strip.area
        x, y = left + a.x * scale, top - a.bottom * scale
        pdf.rect(points(x), points(y), points(a.width * scale), points(a.height * scale))
        pdf.drawCentredString(points(x + a.width * scale / 2), points(y + a.height * scale / 2 - 1), str(number))
    x = max(left + size_mm[0] * scale + 8, wide - _MARGIN_MM - 104)
    pdf.line(points(x), points(top - 6), points(x + 100), points(top - 6))
    for mm in range(0, 101, 10):
        pdf.line(points(x + mm), points(top - 6), points(x + mm), points(top - (3.5 if mm % 50 == 0 else 4.5)))
    pdf.setFont(font(), 7)
    pdf.drawString(points(x), points(top - 10), "100 mm")


def _strip(
    pdf: Canvas, number: int, area: Rect, bled: Rect, turned: bool, x: float, low: float, picture: Picture
) -> None:  # fmt: skip
    """Upright on the sheet, its left top corner at (x, low) from below; `turned` for one that lies on the canvas."""
    across, along = (area.height, area.width) if turned else (area.width, area.height)
    pdf.saveState()
    if turned:
        # A quarter clockwise: its left end is up.
        pdf.translate(points(x + across + bled.bottom - area.bottom), points(low + area.x - bled.x))
        pdf.rotate(-90)
        pdf.drawImage(embedded(picture), 0, -points(bled.height), points(bled.width), points(bled.height))
    else:
        pdf.drawImage(
            embedded(picture), points(x - (area.x - bled.x)), points(low + area.y - bled.y - bled.height), points(bled.width),
            points(bled.height),
        )  # fmt: skip
    pdf.restoreState()
    pdf.setLineWidth(0.3)
    for cx, cy, dx, dy in (
        (x, low, -1, 0), (x, low, 0, 1), (x + across, low, 1, 0), (x + across, low, 0, 1),
        (x, low - along, -1, 0), (x, low - along, 0, -1), (x + across, low - along, 1, 0), (x + across, low - along, 0, -1),
    ):  # fmt: skip
        far, end = _BLEED_MM + 0.3, _BLEED_MM + 2.3
        pdf.line(points(cx + dx * far), points(cy + dy * far), points(cx + dx * end), points(cy + dy * end))
    pdf.setFont(font("Bold"), 8)
    way = " (its left end up)" if turned else ""
    pdf.drawString(points(x), points(low + _BLEED_MM + 2.6), f"{number}{way}")
