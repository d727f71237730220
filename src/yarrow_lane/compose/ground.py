"""What lies behind the sitters where it is no photograph as it was taken: a colour, a gradient, a photograph made softer."""

from dataclasses import dataclass
from typing import Literal

from yarrow_lane.compose.pieces import Move

GroundKind = Literal["photograph", "colour", "gradient"]
GROUND_KINDS: tuple[GroundKind, ...] = ("photograph", "colour", "gradient")
Lab = tuple[float, float, float]


@dataclass(frozen=True)
class Ground:
    """`colours` are CIELAB under D65, the second for the far end of a gradient that runs at `degrees` clockwise from twelve.

    `blur_mm` (standard deviation, canvas mm) and `move` are for a photograph.
    """

    kind: GroundKind = "photograph"
    colours: tuple[Lab, Lab] = ((68.0, 1.0, 6.0), (42.0, 1.0, 5.0))  # our choice: a warm grey of middle value, darker below
    degrees: float = 180.0
    blur_mm: float = 0.0
    move: Move = Move()
