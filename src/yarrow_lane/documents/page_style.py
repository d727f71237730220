"""The one look of the studio's papers: sender, title, blocks down the page, numbers set to the right, a foot with the page."""

import io
from collections.abc import Sequence
from dataclasses import dataclass, field
from datetime import datetime
from functools import cache
from importlib import resources
from xml.sax.saxutils import escape

from reportlab.lib import colors
from reportlab.lib.enums import TA_RIGHT
from reportlab.lib.styles import ParagraphStyle
from reportlab.pdfbase import pdfmetrics
from reportlab.pdfbase.ttfonts import TTFont
from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import (
    BaseDocTemplate,
    Flowable,
    Frame,
    HRFlowable,
    Image,
    KeepTogether,
    PageTemplate,
    Paragraph,
    Spacer,
    Table,
    TableStyle,
)

from yarrow_lane.documents.archival import make_archival
from yarrow_lane.documents.paper import fitted, font, points
from yarrow_lane.documents.print_plan import PAPER_MM

_MARGIN_MM, _TOP_MM, _FOOT_MM = 22.0, 20.0, 24.0  # our choice
_BODY, _SMALL, _TITLE, _HEADING = 10.5, 8.5, 22.0, 12.0  # pt, our choice
_INK, _SOFT, _RULE = colors.HexColor("#1c1c1c"), colors.HexColor("#5a5a5a"), colors.HexColor("#b8b8b8")


@dataclass(frozen=True)
class Words:
    """A paragraph; `small` for remarks."""

    text: str
    small: bool = False


@dataclass(frozen=True)
class Heading:
    """A heading within the paper."""

    text: str


@dataclass(frozen=True)
class Facts:
    """Labels and their words under each other."""

    rows: tuple[tuple[str, str], ...]


@dataclass(frozen=True)
class Sums:
    """Lines with amounts at the right edge as they are printed, then the totals, the last one bold."""

    lines: tuple[tuple[str, str], ...]
    totals: tuple[tuple[str, str], ...] = ()


@dataclass(frozen=True)
class Pictured:
    """A JPEG, at most so wide and high in mm, with words beside or below it."""

    jpeg: bytes = field(repr=False)
    width_mm: float
    height_mm: float
    below: str = ""


@dataclass(frozen=True)
class Signed:
    """A line to sign on, and who signs."""

    who: str
    place: str = ""


@dataclass(frozen=True)
class Listed:
    """Things to tick off by hand."""

    rows: tuple[tuple[str, str], ...]


Block = Words | Heading | Facts | Sums | Pictured | Signed | Listed


@dataclass(frozen=True)
class Paper:
    """One paper: whose it is, to whom, what it is called and bears as a number, and its blocks."""

    title: str
    blocks: tuple[Block, ...]
    sender: tuple[str, ...] = ()
    to: tuple[str, ...] = ()
    right: tuple[tuple[str, str], ...] = ()
    subject: str = ""
    author: str = ""
    at: datetime | None = None
    foot: str = ""


@cache
def serif() -> str:
    """The shipped serif, for titles."""
    name = "YarrowSerif-Bold"
    data = resources.files("yarrow_lane").joinpath("fonts", f"{name}.ttf").read_bytes()
    pdfmetrics.registerFont(TTFont(name, io.BytesIO(data)))
    return name


@cache
def _letters() -> frozenset[int]:
    font()
    return frozenset(pdfmetrics.getFont(font()).face.charToGlyph)


def missing_letters(text: str) -> str:
    """Letters of the text that the shipped faces lack (they have Latin, Greek and Cyrillic), each once."""
    return "".join(dict.fromkeys(c for c in text if ord(c) not in _letters() and not c.isspace()))


@cache
def _style(name: str) -> ParagraphStyle:
    size, bold, soft, align = {
        "body": (_BODY, False, False, 0),
        "bold": (_BODY, True, False, 0),
        "small": (_SMALL, False, True, 0),
        "heading": (_HEADING, True, False, 0),
        "title": (_TITLE, False, False, 0),
        "label": (_BODY, False, True, 0),
        "amount": (_BODY, False, False, TA_RIGHT),
        "total": (_BODY, True, False, TA_RIGHT),
        "right": (_SMALL + 1, False, True, TA_RIGHT),
        "sender": (_SMALL + 1, False, True, 0),
    }[name]
    face = serif() if name == "title" else font("Bold" if bold else "Regular")
    return ParagraphStyle(
        name, fontName=face, fontSize=size, leading=size * 1.38, textColor=_SOFT if soft else _INK, alignment=align,
        spaceAfter=4 if name == "body" else 0, splitLongWords=1,
    )  # fmt: skip


def _para(text: str, style: str) -> Paragraph:
    return Paragraph(escape(text).replace("\n", "<br/>") or "&nbsp;", _style(style))


def _table(rows: Sequence[Sequence[Flowable]], widths: Sequence[float], rules: Sequence[tuple[object, ...]] = ()) -> Table:
    plain = [
        ("VALIGN", (0, 0), (-1, -1), "TOP"), ("LEFTPADDING", (0, 0), (0, -1), 0), ("RIGHTPADDING", (-1, 0), (-1, -1), 0),
        ("TOPPADDING", (0, 0), (-1, -1), 2), ("BOTTOMPADDING", (0, 0), (-1, -1), 2), *rules,
    ]  # fmt: skip
    return Table([list(r) for r in rows], colWidths=list(widths), style=TableStyle(plain), hAlign="LEFT")


def _flow(block: Block, room: float) -> list[Flowable]:
    match block:
        case Words(text, small):
            return [_para(text, "small" if small else "body")]
        case Heading(text):
            return [Spacer(0, 10), _para(text, "heading"), Spacer(0, 3)]
        case Facts(rows):
            label = room * 0.3
            return [_table([(_para(a, "label"), _para(b, "body")) for a, b in rows], (label, room - label))] if rows else []
        case Sums(lines, totals):
            return _sums(lines, totals, room)
        case Pictured(jpeg, width_mm, height_mm, below):
            picture = Image(io.BytesIO(jpeg), points(width_mm), points(height_mm), kind="proportional", hAlign="LEFT")
            return [KeepTogether([picture, *([Spacer(0, 4), _para(below, "small")] if below else [])]), Spacer(0, 8)]
        case Signed(who, place):
            line = HRFlowable(width=room * 0.45, thickness=0.6, color=_INK, hAlign="LEFT")
            words = f"{place}: {who}" if place else who
            return [KeepTogether([Spacer(0, 34), line, Spacer(0, 3), _para(words, "small")])]
        case Listed(rows):
            box = points(4.0)
            squares = [("BOX", (0, n), (0, n), 0.6, _INK) for n in range(len(rows))]
            cells = [(Spacer(box, box), _para(a, "body"), _para(b, "label")) for a, b in rows]
            table = _table(cells, (box + 2, room * 0.42, room * 0.5), (*squares, ("LEFTPADDING", (1, 0), (1, -1), 9)))
            return [table, Spacer(0, 4)]


def _sums(lines: tuple[tuple[str, str], ...], totals: tuple[tuple[str, str], ...], room: float) -> list[Flowable]:
    money = room * 0.26
    rows = [(_para(a, "body"), _para(b, "amount")) for a, b in lines]
    last = len(totals) - 1
    rows += [
        (_para(a, "bold" if n == last else "label"), _para(b, "total" if n == last else "amount"))
        for n, (a, b) in enumerate(totals)
    ]
    rules: list[tuple[object, ...]] = [("LINEABOVE", (0, 0), (-1, 0), 0.6, _RULE)]
    if totals:
        rules += [
            ("LINEABOVE", (0, len(lines)), (-1, len(lines)), 0.6, _RULE),
            ("LINEABOVE", (0, len(rows) - 1), (-1, len(rows) - 1), 0.9, _INK),
        ]
    return [_table(rows, (room - money, money), rules), Spacer(0, 6)]


def paper_pdf(paper: Paper, size: str = "A4") -> bytes:
    """The paper on sheets of that size, as many as it needs; nothing is cut. The same bytes for the same paper."""
    width, height = (points(mm) for mm in PAPER_MM[size])
    margin, top, foot = points(_MARGIN_MM), points(_TOP_MM), points(_FOOT_MM)
    room = width - 2 * margin
    out = io.BytesIO()

    def footed(canvas: Canvas, document: BaseDocTemplate) -> None:
        canvas.setFont(font(), _SMALL)
        canvas.setFillColor(_SOFT)
        canvas.drawString(margin, foot - 24, fitted(paper.foot, font(), _SMALL, room - 40))
        canvas.drawRightString(width - margin, foot - 24, str(document.page))

    document = BaseDocTemplate(out, pagesize=(width, height), invariant=1, title=paper.title, author=paper.author, subject=paper.subject,
                               creator="Yarrow Lane", lang="en")  # fmt: skip
    frame = Frame(margin, foot, room, height - top - foot, 0, 0, 0, 0)
    document.addPageTemplates(PageTemplate("sheet", [frame], onPage=footed))
    story: list[Flowable] = []
    if paper.sender or paper.right:
        left = [_para(line, "bold" if n == 0 else "sender") for n, line in enumerate(paper.sender)]
        right = [_para(f"{a} {b}".strip(), "right") for a, b in paper.right]
        story += [
            _table([(left or [_para("", "sender")], right or [_para("", "right")])], (room * 0.58, room * 0.42)),
            Spacer(0, 14),
        ]
    if paper.to:
        story += [*(_para(line, "body") for line in paper.to), Spacer(0, 18)]
    story += [_para(paper.title, "title"), Spacer(0, 12)]
    for block in paper.blocks:
        story += _flow(block, room)
    document.build(story, canvasmaker=make_archival(paper.title, paper.author, paper.subject, paper.at))
    return out.getvalue()
