"""The kept photographs on paper, each with its use and its rights."""

import io
from dataclasses import dataclass

from reportlab.pdfgen.canvas import Canvas

from yarrow_lane.documents.paper import embedded, fitted, font, points
from yarrow_lane.documents.print_plan import MARGIN_MM, PAPER_MM
from yarrow_lane.measure.raster import Picture

_COLUMNS, _ROWS = 3, 4
_WORDS_MM = 17.0


@dataclass(frozen=True)
class SheetPhoto:
    """One picture, (H, W, 3) sRGB, and the lines beneath it."""

    picture: Picture
    name: str
    lines: tuple[str, ...]


def contact_sheet(title: str, photos: tuple[SheetPhoto, ...], paper: str) -> bytes:
    """Twelve to a sheet, never stretched; a sheet with words alone when there are none."""
    width, height = PAPER_MM[paper]
    out = io.BytesIO()
    pdf = Canvas(out, pagesize=(points(width), points(height)), invariant=1)
    pdf.setTitle(f"{title}: photographs")
    cell_w = (width - 2 * MARGIN_MM) / _COLUMNS
    cell_h = (height - 2 * MARGIN_MM - 10) / _ROWS
    each = _COLUMNS * _ROWS
    room = points(width - 2 * MARGIN_MM)
    for start in range(0, max(1, len(photos)), each):
        pdf.setFont(font("Bold"), 12)
        pdf.drawString(
            points(MARGIN_MM), points(height - MARGIN_MM) - 9, fitted(f"{title}: kept photographs", font("Bold"), 12, room)
        )
        if not photos:
            pdf.setFont(font(), 10)
            pdf.drawString(points(MARGIN_MM), points(height - MARGIN_MM) - 28, "No photograph is kept yet.")
        for n, photo in enumerate(photos[start : start + each]):
            row, column = divmod(n, _COLUMNS)
            _cell(pdf, photo, MARGIN_MM + column * cell_w, height - MARGIN_MM - 10 - row * cell_h, cell_w, cell_h)
        pdf.showPage()
    pdf.save()
    return out.getvalue()


def _cell(pdf: Canvas, photo: SheetPhoto, x: float, top: float, width: float, height: float) -> None:
    room_w, room_h = width - 4, height - _WORDS_MM - 2
    tall, wide = photo.picture.shape[:2]
    scale = min(room_w / wide, room_h / tall)
    image = embedded(photo.picture)
    pdf.drawImage(image, points(x), points(top - tall * scale), points(wide * scale), points(tall * scale))
    y = points(top - room_h) - 10
    pdf.setFont(font("Bold"), 8)
    pdf.drawString(points(x), y, fitted(photo.name, font("Bold"), 8, points(room_w)))
    pdf.setFont(font(), 8)
    for line in photo.lines[:3]:
        y -= 10
        pdf.drawString(points(x), y, fitted(line, font(), 8, points(room_w)))
