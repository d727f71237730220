"""Where marks are wanted, over the canvas."""

import math
from collections.abc import Sequence

from yarrow_lane.measure.plane import Point, Polygon
from yarrow_lane.transfer.marks.empty import Circle
from yarrow_lane.ui.kit.overlays import Outline, Overlay, Words

_STEPS = 48
_SAID = 3  # of the rings carry words: the widest


def wanting_overlays(wanting: Sequence[Circle], size_mm: Point) -> tuple[Overlay, ...]:
    """Rings, as far as they lie on the canvas, the widest with words."""
    found: list[Overlay] = []
    for number, circle in enumerate(wanting):
        ring = _on_canvas(circle, size_mm)
        found.append(Outline(ring, "here", 1.8, "dashes"))
        if number < _SAID:
            middle = sum(x for x, _ in ring) / len(ring), sum(y for _, y in ring) / len(ring)
            found.append(Words(middle, "add marks", "over"))
    return tuple(found)


def _on_canvas(circle: Circle, size_mm: Point) -> Polygon:
    (x, y), radius = circle
    turns = (2 * math.pi * n / _STEPS for n in range(_STEPS))
    points = ((x + radius * math.cos(turn), y + radius * math.sin(turn)) for turn in turns)
    return tuple((min(max(px, 0.0), size_mm[0]), min(max(py, 0.0), size_mm[1])) for px, py in points)
