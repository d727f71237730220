"""The stroke card: a pass's own strokes in one patch, thinned to a few dozen and numbered in the order to paint them."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from yarrow_lane.layers import coverage
from yarrow_lane.layers.coverage import Rings
from yarrow_lane.layers.play.strokes import Strokes
from yarrow_lane.measure.plane import Point, Polygon

SIDE_MM = 80.0
_FEWEST, _MOST, _SHARE = 12, 40, 0.5
_ONE_WAY = 0.85  # resultant length above which strokes go one way (our choice)


@dataclass(frozen=True)
class CardStroke:
    """One stroke: its line in mm from the card's corner, root first, width and length mm, colour sRGB."""

    number: int
    line: Polygon
    width: float
    length: float
    colour: tuple[int, int, int]


@dataclass(frozen=True)
class Card:
    """`corner` mm is where the card's upper left lies on the canvas; `words` say length, width and direction."""

    corner: Point
    strokes: tuple[CardStroke, ...]
    words: str


def card_of(strokes: Strokes, rings: Rings, middle: Point, side_mm: float = SIDE_MM) -> Card:
    """The strokes of a patch about its middle; fewer than a dozen where there are no more."""
    corner = (middle[0] - side_mm / 2, middle[1] - side_mm / 2)
    centre = strokes.points[:, strokes.points.shape[1] // 2]
    near = ((centre >= np.array(corner)) & (centre <= np.array(corner) + side_mm)).all(1)
    inside = [n for n in np.nonzero(near)[0].tolist() if coverage.holds(rings, (float(centre[n, 0]), float(centre[n, 1])))]
    if not inside:
        return Card(corner, (), "no strokes here in this pass")
    picked = _spread(strokes, np.array(inside), corner, side_mm)
    made = []
    for number, n in enumerate(picked, 1):
        line = tuple((round(float(x) - corner[0], 2), round(float(y) - corner[1], 2)) for x, y in strokes.points[n])
        r, g, b = strokes.wells[strokes.colour[n]].tolist()
        made.append(CardStroke(number, line, round(strokes.width, 2), round(float(strokes.length[n]), 1), (r, g, b)))
    return Card(corner, tuple(made), _words(made))


def _spread(strokes: Strokes, inside: np.ndarray, corner: Point, side_mm: float) -> list[int]:
    """Half of them, farthest first in place and direction, in their order of painting."""
    count = min(len(inside), int(np.clip(len(inside) * _SHARE, _FEWEST, _MOST)))
    centre = strokes.points[inside, strokes.points.shape[1] // 2]
    way = strokes.points[inside, -1] - strokes.points[inside, 0]
    way /= np.linalg.norm(way, axis=1, keepdims=True) + 1e-6
    place = np.c_[(centre - np.array(corner)) / side_mm, way * 0.18]
    picked = [int(np.lexsort((centre[:, 0], strokes.group[inside]))[0])]
    far = np.linalg.norm(place - place[picked[0]], axis=1)
    while len(picked) < count:
        n = int(far.argmax())
        picked.append(n)
        far = np.minimum(far, np.linalg.norm(place - place[n], axis=1))
    order = np.lexsort((centre[picked, 0], strokes.group[inside][picked]))
    return [int(inside[picked[k]]) for k in order]


def _words(strokes: Sequence[CardStroke]) -> str:
    lengths = [s.length for s in strokes]
    ways = np.array([np.subtract(s.line[-1], s.line[0]) for s in strokes], float)
    ways /= np.linalg.norm(ways, axis=1, keepdims=True) + 1e-6
    mean = ways.mean(0)
    size = f"{np.percentile(lengths, 10):.0f} to {np.percentile(lengths, 90):.0f} mm, {strokes[0].width:.1f} mm wide"
    if float(np.hypot(*mean)) < _ONE_WAY:
        return f"{size}, turn with the form"
    clock = round(float(np.degrees(np.arctan2(mean[0], -mean[1])) % 360) / 30 * 2) / 2 % 12 or 12
    return f"{size}, towards {clock:g} o'clock"


def outline_of(stroke: CardStroke, taper: bool = True) -> Polygon:
    """The stroke as an area, mm from the card's corner: blunt when broad, in a point when fine."""
    line = np.asarray(stroke.line, float)
    along = np.gradient(line, axis=0)
    along /= np.linalg.norm(along, axis=1, keepdims=True) + 1e-9
    side = np.c_[-along[:, 1], along[:, 0]]
    share = np.linspace(0, 1, len(line))
    end = 0.12 if stroke.width <= 2.5 else 0.7
    half = (stroke.width / 2 * (np.minimum(1, 1.35 * (1 - share) + end) if taper else np.ones_like(share)))[:, None]
    points = np.concatenate([line + side * half, (line - side * half)[::-1]])
    return tuple((float(x), float(y)) for x, y in points)
