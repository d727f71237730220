"""Sheets of paper and the points of PDF (1 pt = 1/72 in, ISO 32000-1)."""

from yarrow_lane.measure.lengths import MM_PER_INCH, THIN_SPACE

PAPER_MM: dict[str, tuple[float, float]] = {
    "A4": (210.0, 297.0),  # ISO 216
    "Letter": (215.9, 279.4),  # 8 1/2 x 11 in
}
MARGIN_MM = 12.0  # our choice: clear of the 5 mm most printers cannot reach, with room for letters


def points(length_mm: float) -> float:
    """Millimetres as PDF points."""
    return length_mm * 72.0 / MM_PER_INCH


def plain_text(text: str) -> str:
    """The standard PDF fonts hold Latin-1 only; other letters show as a question mark."""
    return text.replace(THIN_SPACE, " ").encode("latin-1", "replace").decode("latin-1")
