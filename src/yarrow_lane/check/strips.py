"""Which strips of the reference to print and hold beside the paint: few, laid where they tell most."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.plane import Point, Rect

MOST = 4
# All our choice: one sheet holds four, and the eye compares along an edge.
WIDE_MM, LONG_MM = 20.0, 180.0
_STEP_MM, _NEAR_MM = 10.0, 4.0
_VALUES, _A_VALUE, _SEEN = 10, 0.25, 0.02


@dataclass(frozen=True)
class Strip:
    """Where it is cut from the canvas, mm, and the numbers of the faults it crosses."""

    area: Rect
    faults: tuple[int, ...]


@dataclass(frozen=True)
class Strips:
    """`covered` is the share of all faults' weight, `values` how many of ten values the strips show."""

    strips: tuple[Strip, ...]
    covered: float
    values: int


def chosen_strips(
    faults: Sequence[tuple[Point, float]], size_mm: tuple[float, float], lightness: NDArray[np.float32], many: int = MOST
) -> Strips:  # fmt: skip
    """Greedily: each strip the one that crosses most of what is left, and shows values not seen yet.

    `faults` are places (mm) with their weight, `lightness` L* of the reference (H, W).
    """
    width, height = size_mm
    scale = lightness.shape[1] / width
    shapes = ((min(LONG_MM, width), WIDE_MM), (WIDE_MM, min(LONG_MM, height)))
    places = [
        Rect(float(x), float(y), w, h)
        for w, h in shapes
        for x in np.arange(0, max(width - w, 0) + 0.1, _STEP_MM)
        for y in np.arange(0, max(height - h, 0) + 0.1, _STEP_MM)
    ]
    shown = [_values(lightness, place, scale) for place in places]
    left, seen, strips = set(range(len(faults))), np.zeros(_VALUES, bool), []
    for _ in range(min(many, len(places))):
        hits = [{n for n in left if _crosses(p, faults[n][0])} for p in places]
        gain = [
            sum(faults[n][1] for n in hit) + _A_VALUE * int((own & ~seen).sum()) for hit, own in zip(hits, shown, strict=True)
        ]
        best = int(np.argmax(gain))
        strips.append(Strip(places[best], tuple(sorted(hits[best]))))
        left -= hits[best]
        seen |= shown[best]
    whole = sum(w for _, w in faults)
    crossed = sum(faults[n][1] for s in strips for n in s.faults)
    return Strips(tuple(strips), crossed / whole if whole else 0.0, int(seen.sum()))


def _crosses(area: Rect, at: Point) -> bool:
    return (
        area.x - _NEAR_MM <= at[0] <= area.right + _NEAR_MM and area.y - _NEAR_MM <= at[1] <= area.bottom + _NEAR_MM
    )  # fmt: skip


def _values(lightness: NDArray[np.float32], area: Rect, scale: float) -> NDArray[np.bool_]:
    """Which of ten values a strip shows."""
    rows = slice(int(area.y * scale), max(int(area.y * scale) + 1, int(area.bottom * scale)))
    columns = slice(int(area.x * scale), max(int(area.x * scale) + 1, int(area.right * scale)))
    part = lightness[rows, columns]
    return np.asarray(np.histogram(part, _VALUES, (0, 100))[0] > _SEEN * max(1, part.size))
