"""A part of the picture tried in another colour: a collar, a reflection, a lawn's green under a chin."""

from dataclasses import dataclass

from yarrow_lane.compose.pieces import Move, PieceTrouble
from yarrow_lane.measure.outlines import polygon_area
from yarrow_lane.measure.plane import Polygon

SOFT_MM = 3.0  # how softly it goes over into what is round it: our choice
MOST = 12  # our choice: more is painting on the screen


@dataclass(frozen=True)
class Recoloured:
    """`outline` in canvas mm; `soft_mm` is the standard deviation of its edge."""

    id: int
    name: str
    outline: Polygon
    move: Move = Move()
    soft_mm: float = SOFT_MM


def checked(parts: tuple[Recoloured, ...], outline: Polygon) -> None:
    """Raises `PieceTrouble` for a part of nothing, or one too many."""
    if len(parts) >= MOST:
        raise PieceTrouble("The part was not taken", f"{MOST} parts are recoloured already", "give one up first")
    if len(outline) < 3 or polygon_area(outline) < 4:
        raise PieceTrouble("The part was not taken", "the line encloses nothing", "go round the part")
