"""The grey frame to print for a canvas of one size: strips to cut out and lay round it, and how."""

from dataclasses import dataclass

from reportlab.pdfgen.canvas import Canvas

from yarrow_lane.check.greys import BAND_MM, BAND_SRGB, GAP_MM, SQUARE_MM, STEPS, STRIP_MM, groups_round
from yarrow_lane.documents.paper import begun_pdf, font, points, wrapped
from yarrow_lane.measure.colour.grey import grey_code
from yarrow_lane.transfer.paper import PAPER_MM, Paper

_MARGIN_MM, _HEAD_MM, _APART_MM = 10.0, 34.0, 4.0
_FLAP_MM = 12.0  # folded back against the canvas's side
_HOW = (
    "Print at 100 % on matt paper. Cut out every strip and fold its flap back along the coloured edge; tape the flaps to the sides of the "
    "canvas, so that the strips lie level with its face and the coloured edge meets it without a gap. Photograph straight on with all of the "
    "frame in the picture, lamps or window from the side, none behind you. The greys are your printer's: alike all round, they show the light."
)
Side = str


@dataclass(frozen=True)
class Piece:
    """A strip to cut out: of which side, its number of how many, from where to where along that side (from its top or left), mm."""

    side: Side
    number: int
    of: int
    begin: float
    end: float


def pieces_of(size_mm: tuple[float, float], paper: Paper) -> tuple[Piece, ...]:
    """No strip longer than the sheet; no cut through a group."""
    longest = PAPER_MM[paper][1] - 2 * _MARGIN_MM
    found = []
    for side in ("left", "right", "top", "bottom"):
        along = 1 if side in ("left", "right") else 0
        length = size_mm[along]
        groups = [
            (min(s.y if along else s.x for s in g.squares), max(s.bottom if along else s.right for s in g.squares))
            for g in groups_round(size_mm)
            if g.side == side
        ]
        cuts = [min(0.0, min(g[0] for g in groups))]
        end = max(length, max(g[1] for g in groups))
        while end - cuts[-1] > longest:
            cut = cuts[-1] + longest
            through = next((g for g in groups if g[0] < cut < g[1]), None)
            cuts.append(through[0] if through is not None else cut)
        cuts.append(end)
        found += [Piece(side, n + 1, len(cuts) - 1, cuts[n], cuts[n + 1]) for n in range(len(cuts) - 1)]
    return tuple(found)


def grey_frame(title: str, size_mm: tuple[float, float], paper: Paper) -> bytes:
    """A PDF of lying pages; every strip at true size."""
    short, long = PAPER_MM[paper]
    buffer, pdf = begun_pdf(f"{title}: the grey frame", (long, short))
    _head(pdf, title, size_mm, long, short)
    y = short - _MARGIN_MM - _HEAD_MM
    for piece in pieces_of(size_mm, paper):
        if y - STRIP_MM - _FLAP_MM < _MARGIN_MM:
            pdf.showPage()
            y = short - _MARGIN_MM
        _strip(pdf, piece, size_mm, _MARGIN_MM, y - STRIP_MM)
        y -= STRIP_MM + _FLAP_MM + _APART_MM
    pdf.showPage()
    pdf.save()
    return buffer.getvalue()


def _head(pdf: Canvas, title: str, size_mm: tuple[float, float], wide: float, high: float) -> None:
    pdf.setFont(font("Bold"), 14)
    size = f"{size_mm[0] / 10:g} × {size_mm[1] / 10:g} cm"
    pdf.drawString(points(_MARGIN_MM), points(high - _MARGIN_MM - 5), f"The grey frame for {title}, {size}")
    pdf.setFont(font(), 9)
    lines = wrapped(_HOW, font(), 9, points(wide - 2 * _MARGIN_MM))
    for n, line in enumerate(lines):
        pdf.drawString(points(_MARGIN_MM), points(high - _MARGIN_MM - 11 - 4.2 * n), line)


def _strip(pdf: Canvas, piece: Piece, size_mm: tuple[float, float], left: float, low: float) -> None:
    """Lying, its coloured edge below: turned so that this edge meets the canvas, its squares lie as the program looks for them."""
    length = piece.end - piece.begin
    along = 1 if piece.side in ("left", "right") else 0
    backwards = piece.side in ("left", "bottom")

    def at(mm: float) -> float:
        """From the strip's left end, by mm along the side."""
        return left + (piece.end - mm if backwards else mm - piece.begin)

    pdf.setStrokeGray(0.6)
    pdf.setLineWidth(0.3)
    pdf.rect(points(left), points(low - _FLAP_MM), points(length), points(STRIP_MM + _FLAP_MM), stroke=1, fill=0)
    pdf.setFillColorRGB(*(code / 255 for code in BAND_SRGB))
    pdf.rect(points(left), points(low), points(length), points(BAND_MM), stroke=0, fill=1)
    for group in groups_round(size_mm):
        if group.side != piece.side:
            continue
        for lightness, square in zip(STEPS, group.squares, strict=True):
            begin, end = (square.y, square.bottom) if along else (square.x, square.right)
            if not piece.begin - 0.01 <= begin < piece.end - 0.01:
                continue
            code = float(grey_code(lightness)) / 255
            pdf.setFillColorRGB(code, code, code)
            x = min(at(begin), at(end))
            pdf.rect(points(x), points(low + GAP_MM), points(SQUARE_MM), points(SQUARE_MM), stroke=0, fill=1)
    pdf.setFillGray(0.0)
    pdf.setFont(font("Bold"), 7)
    many = f", {piece.number} of {piece.of}" if piece.of > 1 else ""
    ends = ("bottom", "top") if piece.side == "left" else ("top", "bottom") if piece.side == "right" else ("left", "right")
    ends = ends if piece.side != "bottom" else ("right", "left")
    words = f"{ends[0]} end   ·   {piece.side} side of the canvas{many}: the coloured edge against it   ·   {ends[1]} end"
    pdf.drawString(points(left + 2), points(low + STRIP_MM - 3.4), words)
    pdf.setFont(font(), 7)
    pdf.drawString(points(left + 2), points(low - 5), "flap: fold back along the colour, tape to the canvas's side")
