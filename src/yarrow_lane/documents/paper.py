"""Sheets of paper, the points of PDF (1 pt = 1/72 in, ISO 32000-1) and the letters on them."""

import io
from functools import cache
from importlib import resources

from PIL import Image
from reportlab import rl_config
from reportlab.lib.utils import ImageReader
from reportlab.pdfbase import pdfmetrics
from reportlab.pdfbase.ttfonts import TTFont
from reportlab.pdfgen.canvas import Canvas

from yarrow_lane.measure.lengths import MM_PER_INCH
from yarrow_lane.measure.raster import Picture

rl_config.useA85 = 0  # pictures as bytes: written as letters a large print takes five times as long
_JPEG = 94  # our choice: no difference is seen on paper, and a large print is written ten times as fast as without loss


def points(length_mm: float) -> float:
    """Millimetres as PDF points."""
    return length_mm * 72.0 / MM_PER_INCH


def embedded(picture: Picture) -> ImageReader:
    """A picture (H, W, 3) sRGB as a PDF holds it: a JPEG with every px of its colours."""
    data = io.BytesIO()
    Image.fromarray(picture).save(data, "JPEG", quality=_JPEG, subsampling=0)
    data.seek(0)
    return ImageReader(data)


def begun_pdf(title: str, size_mm: tuple[float, float]) -> tuple[io.BytesIO, Canvas]:
    """An empty document of pages of that size, the same bytes for the same content."""
    buffer = io.BytesIO()
    pdf = Canvas(buffer, pagesize=(points(size_mm[0]), points(size_mm[1])), invariant=1)
    pdf.setTitle(title)
    pdf.setCreator("Yarrow Lane")
    return buffer, pdf


@cache
def font(weight: str = "Regular") -> str:
    """The name, for PDF, of the shipped sans ("Regular", "Bold"): clients' names need more than Latin-1."""
    name = f"YarrowSans-{weight}"
    data = resources.files("yarrow_lane").joinpath("fonts", f"{name}.ttf").read_bytes()
    pdfmetrics.registerFont(TTFont(name, io.BytesIO(data)))
    return name


def fitted(text: str, name: str, size: float, room_pt: float) -> str:
    """The text, cut with an ellipsis where it is wider than `room_pt`."""
    if pdfmetrics.stringWidth(text, name, size) <= room_pt:
        return text
    # A longer beginning is never narrower: what is left is halved.
    low, high = 0, len(text)
    while low < high:
        middle = (low + high + 1) // 2
        if pdfmetrics.stringWidth(text[:middle] + "…", name, size) <= room_pt:
            low = middle
        else:
            high = middle - 1
    return text[:low].rstrip() + "…"


def wrapped(text: str, name: str, size: float, room_pt: float) -> list[str]:
    """The text in lines no wider than `room_pt`; a single longer word is cut."""
    lines: list[str] = []
    for paragraph in text.splitlines() or [""]:
        line = ""
        for word in paragraph.split():
            longer = f"{line} {word}".strip()
            if line and pdfmetrics.stringWidth(longer, name, size) > room_pt:
                lines.append(line)
                line = word
            else:
                line = longer
        lines.append(fitted(line, name, size, room_pt))
    return lines
