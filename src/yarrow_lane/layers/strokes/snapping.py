"""A border drawn by hand led to the edge in the picture beside it: only where the kinds differ in colour, else a hand is better."""

from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.layers.kinds import is_ground, is_hairy
from yarrow_lane.layers.regions import Region
from yarrow_lane.layers.ways import best_way
from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Polygon
from yarrow_lane.measure.raster import Picture

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

# All our choice, after trials with hands off by 1 and 2 mm: a hand within a mm gains next to nothing.
_REACH_MM, _SIDE_MM = 2.5, 2.0
_STEP_MM = 0.75
_AWAY = 0.25  # price of the whole reach


def snaps(one: Region, other: Region) -> bool:
    """Whether the picture knows the border between two regions better than a hand: sitter on ground, hair on skin; never fur on fur, nor eyes."""
    if "eye" in (one.kind, other.kind):
        return False
    return is_ground(one.kind) != is_ground(other.kind) or is_hairy(one.kind) != is_hairy(other.kind)


def snapped(picture: Picture, px_per_mm: float, points: Polygon) -> Polygon:
    """The line along the strongest step of colour within 2.5 mm of a line in mm; picture sRGB (height, width, 3) at `px_per_mm`.

    The strip along the line is unrolled; a step is told between the means of 2 mm on either side, so that hairs cancel out and borders
    stay; one dynamic programme finds the way. Ends stay where they are.
    """
    line = _evenly(np.asarray(points, np.float64), _STEP_MM)
    if len(line) < 4:
        return points
    along = np.gradient(cv2.blur(line, (1, 9), borderType=cv2.BORDER_REPLICATE), axis=0)
    along /= np.linalg.norm(along, axis=1, keepdims=True) + 1e-9
    across = np.c_[-along[:, 1], along[:, 0]]
    step = 1 / px_per_mm
    side, reach = max(1, round(_SIDE_MM / step)), max(1, round(_REACH_MM / step))
    offsets = np.arange(-reach - side, reach + side + 1) * step
    at = (line[:, None] + across[:, None] * offsets[:, None]) * px_per_mm - 0.5
    lab = cv2.cvtColor(np.ascontiguousarray(picture), cv2.COLOR_RGB2LAB)
    strip = cv2.remap(
        lab, at[..., 0].astype(np.float32), at[..., 1].astype(np.float32), cv2.INTER_LINEAR, borderMode=cv2.BORDER_REPLICATE
    ).astype(np.float64)  # fmt: skip
    sums = np.concatenate([np.zeros_like(strip[:, :1]), np.cumsum(strip, axis=1)], axis=1)
    middle = np.arange(side, side + 2 * reach + 1)
    steps = (
        np.linalg.norm((sums[:, middle + side] - sums[:, middle]) - (sums[:, middle] - sums[:, middle - side]), axis=2) / side
    )
    gain = steps / (np.percentile(steps, 95) + 5) - _AWAY * (np.linspace(-1, 1, 2 * reach + 1) ** 2)
    moved = offsets[middle][best_way(gain)]
    moved[0] = moved[-1] = 0.0
    moved = np.convolve(np.pad(moved, 2, "edge"), np.ones(5) / 5, "valid")
    found = line + across * moved[:, None]
    found[0], found[-1] = line[0], line[-1]
    return tuple((float(x), float(y)) for x, y in found)


def _evenly(points: NDArray[np.float64], step: float) -> NDArray[np.float64]:
    away = np.concatenate([[0], np.cumsum(np.hypot(*np.diff(points, axis=0).T))])
    at = np.linspace(0, away[-1], max(2, int(away[-1] / step) + 1))
    return np.stack([np.interp(at, away, points[:, k]) for k in (0, 1)], 1)
