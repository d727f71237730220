"""Where to sign: low on the canvas where it is quiet and finished, and whether light or dark paint will be read there."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from yarrow_lane.measure.outlines import polygon_holds
from yarrow_lane.measure.plane import Point, Polygon
from yarrow_lane.measure.raster import Picture

# Our choices, all of them: how long and high a name stands, how far from the edges, and what a place farther from the corner costs.
_LENGTH_SHARE, _LEAST_MM, _HIGH = 0.14, 18.0, 0.3
_MARGIN_SHARE, _BAND_SHARE = 0.045, 0.2
_FAR_COSTS, _STEPS = 0.012, 28
_MIDDLE = 118.0  # of 255: below it the ground counts as dark


@dataclass(frozen=True)
class SignaturePlace:
    """The middle of the name and its length, canvas mm; `light` paint reads there; `busy` is the mean step of brightness beneath it, 0 to 255."""

    at: Point
    length_mm: float
    light: bool
    busy: float


def signature_length(width_mm: float) -> float:
    """How long a name is on a canvas of that width."""
    return max(_LEAST_MM, _LENGTH_SHARE * width_mm)


def signature_place(
    picture: Picture, width_mm: float, height_mm: float, unfinished: Sequence[Polygon] = ()
) -> SignaturePlace | None:  # fmt: skip
    """The quietest finished place in the lower fifth, corners before the middle, right before left; None where nothing is finished.

    `picture` (H, W, 3) sRGB shows the whole canvas, `unfinished` are areas in mm still to be painted.
    """
    high_px, wide_px = picture.shape[:2]
    scale = wide_px / width_mm
    grey = picture.astype(np.float32) @ np.array([0.299, 0.587, 0.114], np.float32)
    steps = np.zeros_like(grey)
    steps[:, 1:] += np.abs(np.diff(grey, axis=1))
    steps[1:] += np.abs(np.diff(grey, axis=0))
    length = min(signature_length(width_mm), 0.8 * width_mm)
    high, margin = length * _HIGH, _MARGIN_SHARE * min(width_mm, height_mm)
    best: tuple[float, SignaturePlace] | None = None
    low, top = height_mm - margin - high / 2, height_mm * (1 - _BAND_SHARE) + high / 2
    for y in np.linspace(low, min(top, low), 6):
        for x in np.linspace(margin + length / 2, width_mm - margin - length / 2, _STEPS):
            if any(polygon_holds(p, (float(x), float(y))) for p in unfinished):
                continue
            rows = slice(max(0, int((y - high / 2) * scale)), min(high_px, int((y + high / 2) * scale) + 1))
            columns = slice(max(0, int((x - length / 2) * scale)), min(wide_px, int((x + length / 2) * scale) + 1))
            busy, mean = float(steps[rows, columns].mean()), float(grey[rows, columns].mean())
            side = min(width_mm - x, 1.15 * x)  # a left corner is taken when it is clearly quieter
            cost = busy + _FAR_COSTS * 100 * side / width_mm + 0.5 * (low - y) / max(1.0, low - top)
            # In the very middle grey neither paint reads.
            cost += max(0.0, 1 - abs(mean - _MIDDLE) / 24)
            if best is None or cost < best[0]:
                best = cost, SignaturePlace((float(x), float(y)), length, mean < _MIDDLE, busy)
    return None if best is None else best[1]


def corner_words(at: Point, width_mm: float) -> str:
    """Which corner a place is in."""
    share = at[0] / width_mm
    return "bottom right" if share > 0.6 else "bottom left" if share < 0.4 else "bottom middle"
