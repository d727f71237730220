"""Lengths of life that can be seen in a photograph: what scale is told from."""

from dataclasses import dataclass

from yarrow_lane.measure.plane import Point

# Adult pupils apart: 63 mm, standard deviation 3.7 mm. Dodgson 2004 (mean and range 50 to 75 mm); the deviation is from memory.
PUPILS_MM, PUPILS_DOUBT_MM = 63.0, 3.7
CLICK_PX = 2.0  # how well an end is hit: our choice
DOUBT_SHARE = 0.05  # of a length whose doubt nobody told: our choice


@dataclass(frozen=True)
class Known:
    """`a` to `b` (px of the piece's photograph) is `mm` long in life, one standard deviation `doubt_mm`; `source` says from whom.

    `seen` is the share of the length that is seen when it points at the viewer: the cosine of that turn.
    """

    piece_id: int
    what: str
    a: Point
    b: Point
    mm: float
    doubt_mm: float
    source: str = ""
    seen: float = 1.0
