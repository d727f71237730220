"""The marked canvas with the reference over it on one page, as large as it goes: to draw from, beside the canvas."""

import io
from collections.abc import Sequence

from reportlab.pdfgen.canvas import Canvas

from yarrow_lane.documents.line_paths import draw_lines
from yarrow_lane.documents.paper import embedded, fitted, font, points
from yarrow_lane.documents.print_plan import HEAD_MM, MARGIN_MM
from yarrow_lane.measure.raster import Picture
from yarrow_lane.transfer.lines.line import Line
from yarrow_lane.transfer.paper import PAPER_MM, Paper


def overlay_page(title: str, picture: Picture, size_mm: tuple[float, float], paper: Paper, lines: Sequence[Line] = ()) -> bytes:
    """A PDF of one page, upright or lying as the canvas is; `picture` (H, W, 3) is the whole canvas, `lines` lie over it."""
    short, long = PAPER_MM[paper]
    wide, high = (long, short) if size_mm[0] > size_mm[1] else (short, long)
    room = wide - 2 * MARGIN_MM, high - 2 * MARGIN_MM - HEAD_MM
    scale = min(room[0] / size_mm[0], room[1] / size_mm[1])
    left, top = (wide - size_mm[0] * scale) / 2, high - MARGIN_MM - HEAD_MM
    buffer = io.BytesIO()
    pdf = Canvas(buffer, pagesize=(points(wide), points(high)), invariant=1)
    pdf.setTitle(f"{title}: over the marks")
    pdf.setCreator("Yarrow Lane")
    pdf.setFont(font("Bold"), 13)
    name = fitted(title, font("Bold"), 13, points(room[0]))
    pdf.drawString(points(MARGIN_MM), points(high - MARGIN_MM - 5), name)
    pdf.setFont(font(), 9)
    pdf.drawString(
        points(MARGIN_MM), points(high - MARGIN_MM - 10), f"draw where its lines meet the marks · 1 : {1 / scale:.2f}"
    )
    bottom = top - size_mm[1] * scale
    image = embedded(picture)
    pdf.drawImage(image, points(left), points(bottom), points(size_mm[0] * scale), points(size_mm[1] * scale))
    draw_lines(pdf, lines, lambda x, y: (points(left + x * scale), points(top - y * scale)), 0.8, lambda _: True)
    pdf.showPage()
    pdf.save()
    return buffer.getvalue()
