"""The palette on paper: a mixing sheet read from the easel, and a card to paint swatches on, both true to size at 100 %."""

from collections.abc import Sequence
from dataclasses import dataclass

from reportlab.pdfgen.canvas import Canvas

from yarrow_lane.documents.paper import begun_pdf, fitted, font, points, wrapped
from yarrow_lane.measure.plane import Rect
from yarrow_lane.palette.card import FRAME_MM, HEIGHT_MM, MOST_TUBES, USUAL_STEPS, WIDTH_MM, step_rects, swatch_rect

_A4 = (297.0, 210.0)  # ISO 216, lying
_MARGIN = 12.0
_ROW = 24.0  # mm a well: a string of seven on one page, read from an arm's length; our choice
_INK = 0.13


@dataclass(frozen=True)
class SheetWell:
    """A well on the sheet: its name, the photograph's colour and the mix's, the mix in words, and how much."""

    name: str
    photo: tuple[int, int, int]
    mixed: tuple[int, int, int]
    mix: str
    amount: str


def mixing_sheet(title: str, wells: Sequence[SheetWell]) -> bytes:
    """Wells from dark to light, seven a page, with a free square for the dab that was mixed."""
    buffer, pdf = begun_pdf(f"{title}: palette", _A4)
    each = int((_A4[1] - 2 * _MARGIN - 12) // _ROW)
    for page in range(max(1, -(-len(wells) // each))):
        pdf.setFillGray(_INK)
        pdf.setFont(font("Bold"), 18)
        pdf.drawString(points(_MARGIN), points(_A4[1] - _MARGIN - 5), fitted(title, font("Bold"), 18, points(190)))
        pdf.setFont(font(), 10)
        words = "photograph, mix as reckoned, and room for your dab"
        pdf.drawRightString(points(_A4[0] - _MARGIN), points(_A4[1] - _MARGIN - 5), words)
        for n, well in enumerate(wells[page * each : (page + 1) * each]):
            _well(pdf, well, _A4[1] - _MARGIN - 12 - (n + 1) * _ROW)
        pdf.showPage()
    pdf.save()
    return buffer.getvalue()


def _well(pdf: Canvas, well: SheetWell, bottom: float) -> None:
    high = _ROW - 4
    for n, srgb in enumerate((well.photo, well.mixed)):
        pdf.setFillColorRGB(*(v / 255 for v in srgb))
        pdf.rect(points(_MARGIN + n * 24), points(bottom), points(24), points(high), stroke=0, fill=1)
    pdf.setStrokeGray(_INK)
    pdf.setDash(2, 2)
    pdf.rect(points(_MARGIN + 50), points(bottom), points(24), points(high), stroke=1, fill=0)
    pdf.setDash()
    left, room = _MARGIN + 80, _A4[0] - 2 * _MARGIN - 80
    pdf.setFillGray(_INK)
    pdf.setFont(font("Bold"), 20)
    pdf.drawString(points(left), points(bottom + high - 7), fitted(well.name, font("Bold"), 20, points(room - 30)))
    pdf.drawRightString(points(_A4[0] - _MARGIN), points(bottom + high - 7), well.amount)
    pdf.setFont(font(), 15)
    for n, line in enumerate(wrapped(well.mix, font(), 15, points(room))[:2]):
        pdf.drawString(points(left), points(bottom + high - 13.5 - n * 6), line)


def swatch_card() -> bytes:
    """The card at true size: a black FRAME_MM, places for grey steps, and for each tube pure and 1 to 10, half over white, half over black."""
    buffer, pdf = begun_pdf("Swatch card", _A4)
    left, bottom = (_A4[0] - WIDTH_MM) / 2, (_A4[1] - HEIGHT_MM) / 2

    def place(rect: Rect) -> tuple[float, float, float, float]:
        return points(left + rect.x), points(bottom + HEIGHT_MM - rect.bottom), points(rect.width), points(rect.height)

    pdf.setFillGray(0)
    for rect in (
        Rect(0, 0, WIDTH_MM, FRAME_MM), Rect(0, HEIGHT_MM - FRAME_MM, WIDTH_MM, FRAME_MM), Rect(0, 0, FRAME_MM, HEIGHT_MM),
        Rect(WIDTH_MM - FRAME_MM, 0, FRAME_MM, HEIGHT_MM),
    ):  # fmt: skip
        pdf.rect(*place(rect), stroke=0, fill=1)
    pdf.setStrokeGray(0.6)
    pdf.setLineWidth(0.4)
    for rect in step_rects(len(USUAL_STEPS)):
        pdf.rect(*place(rect), stroke=1, fill=0)
    for tube in range(MOST_TUBES):
        for tint in (False, True):
            pdf.setFillGray(0)
            pdf.rect(*place(swatch_rect(tube, tint, "black")), stroke=0, fill=1)
            pdf.rect(*place(swatch_rect(tube, tint, "white")), stroke=1, fill=0)
    pdf.setFillGray(_INK)
    pdf.setFont(font(), 10)
    lines = (
        "Print at 100 %. Lay a grey card with steps on the row above, light on the left. Below: each tube pure, under it 1 part to 10 of your white,",
        "one even brush coat over white and black. Let it dry, lay it on a table of middle value, photograph it from above in even daylight, without gloss.",
        "Cut along the outside of the black frame. Follow each tube's label and safety data sheet.",
    )
    for n, line in enumerate(lines):
        pdf.drawString(points(_MARGIN), points(bottom - 8 - n * 5), line)
    pdf.showPage()
    pdf.save()
    return buffer.getvalue()
