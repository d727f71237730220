"""A string of wells from the sitter's own colours: groups of value, each with its colour and a place to look at."""

from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Point
from yarrow_lane.paint.seen import Lab, triple
from yarrow_lane.tone.clusters import histogram, own_limits

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

FEWEST, MOST = 5, 9
_ENDS = 0.5  # per cent of the darkest and lightest pixels left to glints and holes: our choice
_CELL = 8.0  # Lab units of a* and b* that count as one colour: our choice
_SOFT_MM = 1.2  # colours are looked at about so wide: our choice, a small filbert


@dataclass(frozen=True)
class Step:
    """One of the string: its colour, where it is seen best (canvas mm), and its share of the sitter."""

    lab: Lab
    at: Point
    share: float


def string_steps(lab: NDArray[np.floating], px_per_mm: float, of: NDArray[np.bool_] | None, count: int) -> tuple[Step, ...]:
    """`count` steps from dark to light of a reference as Lab (H, W, 3), of the sitter's pixels (H, W); fewer where it has fewer values.

    Groups of lightness with the least spread inside, weighted by area since each pixel counts; the colour is the one most of the group has.
    """
    soft = cv2.GaussianBlur(np.asarray(lab, np.float32), (0, 0), max(0.5, _SOFT_MM * px_per_mm / 2))
    inside = np.ones(soft.shape[:2], bool) if of is None or not of.any() else of
    lightness = soft[..., 0]
    low, high = np.percentile(lightness[inside], (_ENDS, 100 - _ENDS))
    counted = inside & (lightness >= low) & (lightness <= high)
    groups = np.digitize(lightness, own_limits(histogram(lightness[counted]), count))
    steps = []
    for n in range(count):
        group = counted & (groups == n)
        if not group.any():
            continue
        colour = _commonest(soft[group])
        steps.append(Step(triple(colour), _best_place(soft, group, colour, px_per_mm), float(group.sum() / counted.sum())))
    return tuple(steps)


def _commonest(colours: NDArray) -> NDArray:
    """The colour most of a group has: the mean of hair and skin of one value would be neither."""
    cells = np.floor(colours[:, 1:] / _CELL).astype(np.int64)
    keys, counts = np.unique(cells @ np.array([1000, 1]), return_counts=True)
    inside = cells @ np.array([1000, 1]) == keys[np.argmax(counts)]
    middle = colours[inside].mean(axis=0)
    near = ((colours[:, 1:] - middle[1:]) ** 2).sum(axis=1) < _CELL**2
    return np.asarray(colours[near].mean(axis=0) if near.any() else middle)


def _best_place(soft: NDArray, group: NDArray[np.bool_], mean: NDArray, px_per_mm: float) -> Point:
    """Where the group's colour is met purely: near its mean, and well inside the group."""
    depth = cv2.distanceTransform(group.astype(np.uint8), cv2.DIST_L2, 3)
    off = np.sqrt(((soft - mean) ** 2).sum(axis=2))
    worth = np.where(group, np.minimum(depth, 2.5 * px_per_mm) / max(px_per_mm, 1e-6) - 0.5 * off, -np.inf)
    row, column = np.unravel_index(int(np.argmax(worth)), group.shape)
    return float((column + 0.5) / px_per_mm), float((row + 0.5) / px_per_mm)
