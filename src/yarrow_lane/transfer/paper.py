"""Sheets of paper in the painter's printer."""

from typing import Literal

Paper = Literal["A4", "Letter"]
PAPER_MM: dict[str, tuple[float, float]] = {
    "A4": (210.0, 297.0),  # ISO 216
    "Letter": (215.9, 279.4),  # 8 1/2 x 11 in
}
