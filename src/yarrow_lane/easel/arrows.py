"""Strokes to be drawn on a patch as arrows: root to tip, nine tenths of a stroke long, spread over it."""

from math import cos, radians, sin, sqrt

from yarrow_lane.layers import coverage
from yarrow_lane.layers.coverage import Rings
from yarrow_lane.layers.flow.flow import Flow
from yarrow_lane.measure.plane import Point

_SHARE = 0.9  # of a stroke, so that arrows do not touch
_WANTED = 12  # our choice: what is taken in at a glance
_LEAST_GAP = 1.25  # of a stroke's length
_SHORTEST_MM = 2.0


def arrows_in(rings: Rings, cm2: float, length_mm: float, angle: float, flow: Flow | None) -> tuple[tuple[Point, Point], ...]:
    """(root, tip) each in canvas mm; `angle` degrees clockwise of 12 is taken where no flow is known."""
    length = max(_SHORTEST_MM, length_mm) * _SHARE
    gap = max(sqrt(max(cm2, 0.1) * 100 / _WANTED), _LEAST_GAP * length)
    xs = [p[0] for p in rings[0]]
    ys = [p[1] for p in rings[0]]
    found = []
    row, y = 0, min(ys) + gap / 2
    while y < max(ys):
        x = min(xs) + (gap / 2 if row % 2 else gap)
        while x < max(xs):
            if coverage.holds(rings, (x, y)):
                dx, dy = _way((x, y), angle, flow)
                found.append(((x - dx * length / 2, y - dy * length / 2), (x + dx * length / 2, y + dy * length / 2)))
            x += gap
        row, y = row + 1, y + gap * 0.87
    return tuple(found)


def _way(at: Point, angle: float, flow: Flow | None) -> Point:
    if flow is not None:
        cell = flow.at(at)
        x, y = float(flow.x[cell]), float(flow.y[cell])
        if flow.fur[cell] and x * x + y * y > 0.25:
            return x, y
    turned = radians(angle)
    return sin(turned), -cos(turned)
