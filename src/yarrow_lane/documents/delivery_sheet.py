"""The sheet that goes on file with a delivered portrait: its dates, whose photographs it was made from, what was waived."""

import io
from dataclasses import dataclass

from reportlab.pdfgen.canvas import Canvas

from yarrow_lane.documents.paper import font, points, wrapped
from yarrow_lane.documents.print_plan import MARGIN_MM, PAPER_MM

_LABEL_MM = 52.0
_LINE_PT = 14.0
_SIZE = 10


@dataclass(frozen=True)
class DeliverySheet:
    """Sections of (heading, lines), each line a label and its words; an empty label continues the one above."""

    title: str
    below: str
    sections: tuple[tuple[str, tuple[tuple[str, str], ...]], ...]


def delivery_sheet(sheet: DeliverySheet, paper: str) -> bytes:
    """As many sheets as the lines need; nothing is cut."""
    width, height = (points(mm) for mm in PAPER_MM[paper])
    left, room = points(MARGIN_MM), width - 2 * points(MARGIN_MM)
    out = io.BytesIO()
    pdf = Canvas(out, pagesize=(width, height), invariant=1)
    pdf.setTitle(f"{sheet.title}: delivery")
    y = height - left

    def write(x: float, words: str, face: str, size: float, room_pt: float) -> None:
        nonlocal y
        for line in wrapped(words, face, size, room_pt):
            if y < left + _LINE_PT:
                pdf.showPage()
                y = height - left
            y -= size * 1.4
            pdf.setFont(face, size)
            pdf.drawString(x, y, line)

    write(left, sheet.title, font("Bold"), 18, room)
    write(left, sheet.below, font(), _SIZE, room)
    for heading, lines in sheet.sections:
        y -= _LINE_PT
        write(left, heading, font("Bold"), 12, room)
        for label, words in lines:
            if label:
                write(left, label, font("Bold"), _SIZE, points(_LABEL_MM) - 6)
                y += _SIZE * 1.4
            write(left + points(_LABEL_MM), words, font(), _SIZE, room - points(_LABEL_MM))
    pdf.showPage()
    pdf.save()
    return out.getvalue()
