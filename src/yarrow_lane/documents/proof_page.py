"""The proof a client sees before paint: one layout, as PDF and as PNG. What does not fit below the picture goes on overleaf."""

import io
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cache
from importlib import resources

import numpy as np
from PIL import Image, ImageDraw, ImageFont
from reportlab.pdfgen.canvas import Canvas

from yarrow_lane.documents.paper import embedded, fitted, font, points, wrapped
from yarrow_lane.documents.print_plan import MARGIN_MM, PAPER_MM
from yarrow_lane.measure.lengths import MM_PER_INCH
from yarrow_lane.measure.plane import Rect
from yarrow_lane.measure.raster import Picture

PNG_PX_MM = 150 / MM_PER_INCH  # our choice: enough for a screen and a small print
PICTURE_PX_MM = 200 / MM_PER_INCH  # our choice: the picture on paper
_TITLE_PT, _BODY_PT = 20.0, 10.5
_LINE = 1.35
_LABEL_MM = 34.0
_GAP_MM = 8.0
_LEAST_PICTURE = 0.5  # of the room under the title: our choice, more words than that go on overleaf
_MARK_GREY, _MARK_ALPHA = 1.0, 0.35


@dataclass(frozen=True)
class ProofPage:
    """What the page says: `facts` are label and words, `below` a sentence under the picture; `mark` lies over it, empty for none."""

    title: str
    below_title: str
    facts: tuple[tuple[str, str], ...]
    canvas_mm: tuple[float, float]
    mark: str = ""


@dataclass(frozen=True)
class Words:
    """A line of text, its baseline at `y_mm` from the top."""

    x_mm: float
    y_mm: float
    text: str
    size_pt: float
    weight: str = "Regular"
    grey: float = 0.13


@dataclass(frozen=True)
class Layout:
    """Where everything lies on the page, mm from its top left; `scale` is the print over the canvas. Overleaf is no picture."""

    page_mm: tuple[float, float]
    picture: Rect | None
    scale: float
    words: tuple[Words, ...]
    mark: str


Sheet = tuple[Layout, Picture | None]  # a page with what fills its picture


def lay_out(page: ProofPage, paper: str) -> tuple[Layout, ...]:
    """The pages: first the picture as large as the sheet allows, never larger than the canvas, with what is said below it."""
    short, long = PAPER_MM[paper]
    lies = page.canvas_mm[0] > page.canvas_mm[1]
    width, height = (long, short) if lies else (short, long)
    room = width - 2 * MARGIN_MM
    lines = [
        (name if n == 0 else "", line)
        for name, text in page.facts
        for n, line in enumerate(wrapped(text, font(), _BODY_PT, points(room - _LABEL_MM)))
    ]
    line_mm = _BODY_PT * _LINE / points(1)
    top = MARGIN_MM + 2 * _TITLE_PT * _LINE / points(1)
    body = height - top - MARGIN_MM
    first = min(len(lines), int(((1 - _LEAST_PICTURE) * body - _GAP_MM) / line_mm))
    foot = first * line_mm + _GAP_MM
    scale = min(room / page.canvas_mm[0], (body - foot) / page.canvas_mm[1], 1.0)
    wide, tall = page.canvas_mm[0] * scale, page.canvas_mm[1] * scale
    picture = Rect((width - wide) / 2, top, wide, tall)
    head = _head(page.title, page.below_title, room)
    found = [Layout((width, height), picture, scale, (*head, *_said(lines[:first], picture.bottom + 8)), page.mark)]
    each = int(body / line_mm)
    for start in range(first, len(lines), each):
        words = _said(lines[start : start + each], top + _BODY_PT / points(1))
        found.append(Layout((width, height), None, scale, (*head, *words), ""))
    return tuple(found)


def _head(title: str, below: str, room_mm: float) -> tuple[Words, ...]:
    room = points(room_mm)
    title, below = fitted(title, font("Bold"), _TITLE_PT, room), fitted(below, font(), _BODY_PT, room)
    return (
        Words(MARGIN_MM, MARGIN_MM + _TITLE_PT / points(1), title, _TITLE_PT, "Bold"),
        Words(MARGIN_MM, MARGIN_MM + (_TITLE_PT * 1.25 + _BODY_PT) / points(1), below, _BODY_PT, grey=0.35),
    )


def _said(lines: Sequence[tuple[str, str]], y_mm: float) -> list[Words]:
    words = []
    for name, line in lines:
        if name:
            words.append(Words(MARGIN_MM, y_mm, name, _BODY_PT, "Bold"))
        words.append(Words(MARGIN_MM + _LABEL_MM, y_mm, line, _BODY_PT))
        y_mm += _BODY_PT * _LINE / points(1)
    return words


def sheets(layouts: Sequence[Layout], picture: Picture) -> list[Sheet]:
    """The pages with their picture, (H, W, 3) sRGB."""
    return [(layout, picture if layout.picture is not None else None) for layout in layouts]


def as_pdf(pages: Sequence[Sheet], title: str) -> bytes:
    """The pages at true size, letters embedded."""
    out = io.BytesIO()
    pdf = Canvas(out, invariant=1)
    pdf.setTitle(title)
    for layout, picture in pages:
        width, height = (points(mm) for mm in layout.page_mm)
        pdf.setPageSize((width, height))
        if layout.picture is not None and picture is not None:
            _draw(pdf, layout, layout.picture, picture)
        for words in layout.words:
            pdf.setFillGray(words.grey)
            pdf.setFont(font(words.weight), words.size_pt)
            pdf.drawString(points(words.x_mm), height - points(words.y_mm), words.text)
        pdf.showPage()
    pdf.save()
    return out.getvalue()


def _draw(pdf: Canvas, layout: Layout, box: Rect, picture: Picture) -> None:
    place = (points(box.x), points(layout.page_mm[1] - box.bottom), points(box.width), points(box.height))
    pdf.drawImage(embedded(picture), *place)
    if not layout.mark:
        return
    pdf.saveState()
    path = pdf.beginPath()
    path.rect(*place)
    pdf.clipPath(path, stroke=0)
    pdf.setFillGray(_MARK_GREY)
    pdf.setFillAlpha(_MARK_ALPHA)
    size = _mark_pt(box, layout.mark)
    pdf.setFont(font("Bold"), size)
    pdf.translate(place[0] + place[2] / 2, place[1] + place[3] / 2)
    pdf.rotate(30)
    pdf.drawCentredString(0, -size / 3, layout.mark)
    pdf.restoreState()


def _mark_pt(box: Rect, mark: str) -> float:
    return points(box.width) / max(6, len(mark)) * 1.5


@cache
def _letters(weight: str, size_px: int) -> ImageFont.FreeTypeFont:
    data = resources.files("yarrow_lane").joinpath("fonts", f"YarrowSans-{weight}.ttf").read_bytes()
    return ImageFont.truetype(io.BytesIO(data), size_px)


def as_picture(pages: Sequence[Sheet], px_per_mm: float = PNG_PX_MM) -> Picture:
    """The pages below each other as a picture, (H, W, 3) sRGB: the very layout of the PDF."""
    return np.vstack([_page_picture(layout, picture, px_per_mm) for layout, picture in pages])


def _page_picture(layout: Layout, picture: Picture | None, px_per_mm: float) -> Picture:
    size = round(layout.page_mm[0] * px_per_mm), round(layout.page_mm[1] * px_per_mm)
    sheet = Image.new("RGB", size, "white")
    box = layout.picture
    if box is not None and picture is not None:
        wide, tall = max(1, round(box.width * px_per_mm)), max(1, round(box.height * px_per_mm))
        shown = Image.fromarray(picture).resize((wide, tall), Image.Resampling.LANCZOS)
        if layout.mark:
            over = Image.new("L", shown.size, 0)
            letters = _letters("Bold", max(4, round(_mark_pt(box, layout.mark) / points(1) * px_per_mm)))
            ImageDraw.Draw(over).text((wide / 2, tall / 2), layout.mark, round(255 * _MARK_ALPHA), letters, anchor="mm")
            over = over.rotate(30, Image.Resampling.BICUBIC)
            shown.paste(Image.new("RGB", shown.size, "white"), (0, 0), over)
        sheet.paste(shown, (round(box.x * px_per_mm), round(box.y * px_per_mm)))
    draw = ImageDraw.Draw(sheet)
    for words in layout.words:
        letters = _letters(words.weight, max(4, round(words.size_pt / points(1) * px_per_mm)))
        grey = round(255 * words.grey)
        draw.text((words.x_mm * px_per_mm, words.y_mm * px_per_mm), words.text, (grey, grey, grey), letters, anchor="ls")
    return np.asarray(sheet).copy()


def as_png(pages: Sequence[Sheet]) -> bytes:
    """The pages as a PNG that knows its size on paper."""
    out = io.BytesIO()
    dots = PNG_PX_MM * MM_PER_INCH
    Image.fromarray(as_picture(pages)).save(out, "PNG", dpi=(dots, dots))
    return out.getvalue()
