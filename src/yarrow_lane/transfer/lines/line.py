"""One line to draw, in canvas mm."""

from dataclasses import dataclass
from typing import Literal

from yarrow_lane.measure.plane import Polygon

# From the picture, from a cut-out's outline, by the painter's hand, or the border of two values.
Source = Literal["picture", "outline", "hand", "values"]


@dataclass(frozen=True)
class Line:
    """`points` about half a mm apart; `weak` one truth a point: lost edges, drawn dashed. `level` is where it drops out."""

    points: Polygon
    weak: tuple[bool, ...]
    level: float
    source: Source = "picture"


def stretches(line: Line) -> list[tuple[Polygon, bool]]:
    """The line in stretches that are firm or lost throughout; neighbours share a point."""
    found: list[tuple[Polygon, bool]] = []
    begin, count = 0, len(line.points)
    for end in range(1, count + 1):
        if end == count or line.weak[end] != line.weak[begin]:
            path = line.points[begin : min(end + 1, count)]
            if len(path) > 1:
                found.append((path, line.weak[begin]))
            begin = end
    return found
