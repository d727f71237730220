"""Layers on paper: strokes of a patch at true size, numbered in the order to paint, and the stages of the canvas as a strip."""

from collections.abc import Sequence

from reportlab.pdfgen.canvas import Canvas

from yarrow_lane.documents.paper import begun_pdf, embedded, fitted, font, points
from yarrow_lane.layers.play.card import SIDE_MM, Card, CardStroke, outline_of
from yarrow_lane.measure.raster import Picture

_A4 = (210.0, 297.0)  # ISO 216, upright
_MARGIN = 14.0
_INK = 0.13
_GAP = 8.0
_RULER_MM = 100
_ACROSS, _DOWN = 4, 5  # stages on a page


def _head(pdf: Canvas, title: str, words: str) -> None:
    pdf.setFillGray(_INK)
    pdf.setFont(font("Bold"), 16)
    pdf.drawString(points(_MARGIN), points(_A4[1] - _MARGIN - 4), fitted(title, font("Bold"), 16, points(120)))
    pdf.setFont(font(), 10)
    pdf.drawRightString(points(_A4[0] - _MARGIN), points(_A4[1] - _MARGIN - 4), words)


def card_pdf(title: str, patch: str, cards: Sequence[tuple[str, Card]]) -> bytes:
    """The passes of a patch, four a page, strokes at true size when printed at 100 %; a ruler of 100 mm to check it."""
    buffer, pdf = begun_pdf(f"{title}: strokes, {patch}", _A4)
    for begin in range(0, max(1, len(cards)), 4):
        _head(pdf, f"{title}, {patch}", "true size: print at 100 %")
        for n, (name, card) in enumerate(cards[begin : begin + 4]):
            left = _MARGIN + (n % 2) * (SIDE_MM + _GAP + 6)
            bottom = _A4[1] - _MARGIN - 14 - (n // 2 + 1) * (SIDE_MM + 26)
            _card(pdf, name, card, left, bottom)
        _ruler(pdf)
        pdf.showPage()
    pdf.save()
    return buffer.getvalue()


def _card(pdf: Canvas, name: str, card: Card, left: float, bottom: float) -> None:
    pdf.setFillGray(0.55)
    pdf.rect(points(left), points(bottom), points(SIDE_MM), points(SIDE_MM), stroke=0, fill=1)
    pdf.saveState()
    clip = pdf.beginPath()
    clip.rect(points(left), points(bottom), points(SIDE_MM), points(SIDE_MM))
    pdf.clipPath(clip, stroke=0)
    for stroke in card.strokes:
        _stroke(pdf, stroke, left, bottom)
    pdf.restoreState()
    pdf.setFillGray(_INK)
    pdf.setFont(font("Bold"), 11)
    pdf.drawString(points(left), points(bottom + SIDE_MM + 7), fitted(name, font("Bold"), 11, points(SIDE_MM)))
    pdf.setFont(font(), 9)
    pdf.drawString(points(left), points(bottom + SIDE_MM + 2.5), fitted(card.words, font(), 9, points(SIDE_MM)))


def _stroke(pdf: Canvas, stroke: CardStroke, left: float, bottom: float) -> None:
    def at(p: tuple[float, float]) -> tuple[float, float]:
        return points(left + p[0]), points(bottom + SIDE_MM - p[1])

    path = pdf.beginPath()
    outline = outline_of(stroke)
    path.moveTo(*at(outline[0]))
    for p in outline[1:]:
        path.lineTo(*at(p))
    path.close()
    pdf.setFillColorRGB(*(v / 255 for v in stroke.colour))
    pdf.setStrokeGray(_INK)
    pdf.setLineWidth(0.3)
    pdf.drawPath(path, stroke=1, fill=1)
    pdf.setFillGray(1)
    x, y = at(stroke.line[0])
    pdf.circle(x, y, points(0.6), stroke=0, fill=1)
    pdf.setFont(font("Bold"), 6)
    pdf.drawString(x + points(0.8), y - points(0.7), str(stroke.number))


def _ruler(pdf: Canvas) -> None:
    left, bottom = _MARGIN, _MARGIN - 2
    pdf.setStrokeGray(_INK)
    pdf.setFillGray(_INK)
    pdf.setLineWidth(0.6)
    pdf.line(points(left), points(bottom), points(left + _RULER_MM), points(bottom))
    for mm in range(0, _RULER_MM + 1, 10):
        pdf.line(points(left + mm), points(bottom), points(left + mm), points(bottom + (4 if mm % 50 == 0 else 2.5)))
    pdf.setFont(font(), 9)
    pdf.drawString(points(left + _RULER_MM + 3), points(bottom), f"{_RULER_MM} mm")


def strip_pdf(title: str, pictures: Sequence[tuple[str, Picture]]) -> bytes:
    """The canvas after each pass, twenty a page, with what was done last; a forecast, and it says so."""
    buffer, pdf = begun_pdf(f"{title}: stages", _A4)
    each = _ACROSS * _DOWN
    wide = (_A4[0] - 2 * _MARGIN - (_ACROSS - 1) * 4) / _ACROSS
    high = (_A4[1] - 2 * _MARGIN - 14 - _DOWN * 9) / _DOWN
    for begin in range(0, max(1, len(pictures)), each):
        _head(pdf, title, "as it should look after each pass, a forecast")
        for n, (name, picture) in enumerate(pictures[begin : begin + each]):
            left = _MARGIN + (n % _ACROSS) * (wide + 4)
            top = _A4[1] - _MARGIN - 12 - (n // _ACROSS) * (high + 9)
            _stage(pdf, name, picture, left, top, wide, high)
        pdf.showPage()
    pdf.save()
    return buffer.getvalue()


def _stage(pdf: Canvas, name: str, picture: Picture, left: float, top: float, wide: float, high: float) -> None:
    rows, columns = picture.shape[:2]
    scale = min(wide / columns, high / rows)
    w, h = columns * scale, rows * scale
    pdf.drawImage(embedded(picture), points(left), points(top - h), points(w), points(h))
    pdf.setFillGray(_INK)
    pdf.setFont(font(), 8)
    pdf.drawString(points(left), points(top - h - 4), fitted(name, font(), 8, points(wide)))
