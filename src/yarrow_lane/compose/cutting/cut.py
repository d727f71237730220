"""From a rough outline and strokes to a mask of the sitter."""

import math
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.compose.cutting.convex import convex_cut
from yarrow_lane.compose.cutting.evidence import (
    Drawn,
    Plane,
    blurred,
    features,
    from_colours,
    from_near_by,
    from_outline,
)
from yarrow_lane.measure.late import late
from yarrow_lane.measure.outlines import polygon_area
from yarrow_lane.measure.plane import Point, Polygon, Rect, polygon_bounds
from yarrow_lane.measure.progress import SILENT, Progress
from yarrow_lane.measure.raster import Picture
from yarrow_lane.measure.trouble import Trouble

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

Mask = NDArray[Any]  # uint8 (H, W), 0 or 1
# All our choice, tuned on rendered sitters.
_WORKING_PX = 480
_MARGIN = 0.18  # of the outline's size round its box
_STEPS, _STEPS_AGAIN = 120, 60
_ROUNDS = 4
_STROKE = 60.0  # evidence of a stroke: nothing outweighs it
_HOLE = 0.03  # of the sitter's area: smaller holes are closed unless stroked out
_PIECE = 0.06  # of the largest piece's area: smaller ones are dropped unless stroked in
_WEAK = 1.0  # evidence nearer to nothing than this: look here


class CutTrouble(Trouble):
    """An outline that encloses nothing to cut out."""


@dataclass(frozen=True)
class Stroke:
    """A drawn stroke, photograph px: what it touches is the sitter, or is not."""

    points: Polygon
    radius: float
    inside: bool


@dataclass(frozen=True)
class Found:
    """The mask of the part of the photograph in `box` (its px): (H, W) 0 or 1 at `scale`, and the evidence there.

    `weak` are pixels of the border at which the evidence hardly speaks.
    """

    mask: Mask
    scale: float
    box: Rect
    weak: NDArray[np.bool_]


def outline_size(outline: Polygon) -> float:
    """The root of its box's area, px."""
    box = polygon_bounds(outline)
    return math.sqrt(box.width * box.height)


def checked_outline(outline: Polygon, width_px: int, height_px: int) -> Polygon:
    """The outline kept on the photograph; raises `CutTrouble` when it encloses nothing there."""
    if len(outline) < 3:
        raise CutTrouble("Nothing was cut out", "the outline has fewer than three points", "go round the sitter")
    kept = tuple((min(max(0.0, x), width_px - 1.0), min(max(0.0, y), height_px - 1.0)) for x, y in outline)
    if polygon_area(kept) < 64:
        raise CutTrouble("Nothing was cut out", "the outline encloses nothing of the photograph", "go round the sitter")
    return kept


class Cut:
    """Keeps what a stroke needs: features, evidence and the last answer, at a working size of at most 480 px."""

    def __init__(self, photo: Picture, outline: Polygon, drawn: Drawn = "traced", progress: Progress = SILENT) -> None:
        """Raises `CutTrouble` for an outline round nothing, `Cancelled`."""
        height, width = photo.shape[:2]
        outline = checked_outline(outline, width, height)
        self.box = _box(outline, width, height)
        left, top = int(self.box.x), int(self.box.y)
        part = photo[top : top + int(self.box.height), left : left + int(self.box.width)]
        self.scale = min(1.0, _WORKING_PX / max(part.shape[:2]))
        self._features = features(np.ascontiguousarray(part), self.scale)
        shape = self._features.weight.shape
        corners = self._working(outline)
        mask = np.zeros(shape, np.uint8)
        cv2.fillPoly(mask, [np.round(corners).astype(np.int32)], 1)
        self._size = max(8.0, outline_size(tuple(map(tuple, corners))))
        self._said = from_outline(mask, self._size, drawn)
        self._pinned = np.zeros(shape, np.uint8)
        self.strokes: tuple[Stroke, ...] = ()
        self._u: Plane | None = None
        self._evidence: Plane = self._said.evidence
        self.found = self._solve(_ROUNDS, _STEPS, progress)

    def _working(self, points: Polygon) -> NDArray[np.float64]:
        """Photograph px to working px."""
        return (np.asarray(points, float).reshape(-1, 2) - (self.box.x, self.box.y)) * self.scale

    def stroke(self, stroke: Stroke, progress: Progress = SILENT) -> Found:
        """Take a stroke to heart; what it touches is settled. Raises `Cancelled`, which leaves the stroke noted."""
        self.strokes = (*self.strokes, stroke)
        line = np.round(self._working(stroke.points)).astype(np.int32).reshape(-1, 1, 2)
        wide = max(1, round(2 * stroke.radius * self.scale))
        cv2.polylines(self._pinned, [line], False, 1 if stroke.inside else 2, wide)
        self.found = self._solve(2, _STEPS_AGAIN, progress)
        return self.found

    def _solve(self, rounds: int, steps: int, progress: Progress) -> Found:
        said = self._said
        if self._u is None:
            inside: Plane = np.asarray(1 / (1 + np.exp(-1.5 * said.evidence)), np.float32)
            inside[said.surely_out] = 0
        else:
            inside = self._settled(self._u)
        near = np.where(said.away > -0.25, 1.0, 0.4).astype(np.float32)  # the far corner of the room counts less
        for number in range(rounds):
            evidence = 0.5 * from_colours(self._features.bins, inside, (1 - inside) * near) + 0.6 * said.evidence
            if self._u is not None and number >= rounds - 2:
                evidence = 0.6 * evidence + 0.35 * self._near_by(self._u)
            evidence[said.surely_out] = -30
            evidence[said.surely_in] = np.maximum(evidence[said.surely_in], 1.5)
            evidence[self._pinned == 1] = _STROKE
            evidence[self._pinned == 2] = -_STROKE
            self._u = convex_cut(evidence, self._features.weight, self._u, steps, progress)
            self._evidence = evidence
            inside = self._settled(self._u)
        assert self._u is not None
        mask = _cleaned((self._u > 0.5).astype(np.uint8), self._pinned)
        return Found(mask, self.scale, self.box, self._weak(mask))

    def _settled(self, u: Plane) -> Plane:
        return np.where(self._pinned == 1, 1.0, np.where(self._pinned == 2, 0.0, u)).astype(np.float32)

    def _near_by(self, u: Plane) -> Plane:
        thin = max(1, int(0.008 * self._size))
        kernel = np.ones((2 * thin + 1,) * 2, np.uint8)
        mask = (u > 0.5).astype(np.uint8)
        inside, outside = (cv2.erode(m, kernel, borderType=cv2.BORDER_REPLICATE) for m in (mask, 1 - mask))
        return from_near_by(self._features.lab, inside, outside, 0.05 * self._size)

    def _weak(self, mask: Mask) -> NDArray[np.bool_]:
        border = cv2.morphologyEx(mask, cv2.MORPH_GRADIENT, np.ones((3, 3), np.uint8), borderType=cv2.BORDER_REPLICATE)
        unsure = blurred(np.abs(np.clip(self._evidence, -4, 4)).astype(np.float32), 2.0) < _WEAK
        return np.asarray((border > 0) & unsure & (self._pinned == 0))


def _box(outline: Polygon, width: int, height: int) -> Rect:
    box, room = polygon_bounds(outline), outline_size(outline) * _MARGIN
    left, top = max(0, math.floor(box.x - room)), max(0, math.floor(box.y - room))
    right, bottom = min(width, math.ceil(box.right + room)), min(height, math.ceil(box.bottom + room))
    return Rect(left, top, right - left, bottom - top)


def _cleaned(mask: Mask, pinned: Mask) -> Mask:
    """The largest piece and those that are large or stroked in; small holes closed unless they are stroked out."""
    count, labels, stats, _ = cv2.connectedComponentsWithStats(mask, connectivity=4)
    if count <= 1:
        return mask
    areas = stats[1:, cv2.CC_STAT_AREA]
    kept = {1 + n for n, area in enumerate(areas) if area >= _PIECE * areas.max()} | set(np.unique(labels[pinned == 1])) - {0}
    whole = np.isin(labels, list(kept)).astype(np.uint8)
    area = int(whole.sum())
    count, labels, stats, _ = cv2.connectedComponentsWithStats(1 - whole, connectivity=4)
    meant = set(np.unique(labels[pinned == 2]))
    height, width = whole.shape
    for n in range(1, count):
        x, y, w, h, size = stats[n]
        if n not in meant and size < _HOLE * area and x > 0 and y > 0 and x + w < width and y + h < height:
            whole[labels == n] = 1
    return whole


def whole_mask(found: Found, width_px: int, height_px: int) -> Mask:
    """The mask of the whole photograph, (H, W) 0 or 1, its border smooth."""
    whole = np.zeros((height_px, width_px), np.uint8)
    left, top, wide, tall = (int(v) for v in (found.box.x, found.box.y, found.box.width, found.box.height))
    smooth = blurred(found.mask.astype(np.float32), 0.8)
    whole[top : top + tall, left : left + wide] = cv2.resize(smooth, (wide, tall), interpolation=cv2.INTER_CUBIC) > 0.5
    return whole


def weak_share(found: Found) -> float:
    """How much of the border is unsure, 0 to 1."""
    border = cv2.morphologyEx(found.mask, cv2.MORPH_GRADIENT, np.ones((3, 3), np.uint8)).sum()
    return float(found.weak.sum() / max(1, int(border)))


def look_here(found: Found, most: int = 5) -> tuple[Point, ...]:
    """Where the border is weak, the longest stretch first, photograph px; stretches of under a hundredth of the border are left out."""
    joined = cv2.dilate(found.weak.astype(np.uint8), np.ones((5, 5), np.uint8))
    count, labels = cv2.connectedComponents(joined)
    border = max(1, int(cv2.morphologyEx(found.mask, cv2.MORPH_GRADIENT, np.ones((3, 3), np.uint8)).sum()))
    stretches = []
    for n in range(1, count):
        ys, xs = np.nonzero((labels == n) & found.weak)
        if len(xs) >= max(4, border / 100):
            middle = np.argmin((xs - xs.mean()) ** 2 + (ys - ys.mean()) ** 2)
            stretches.append((len(xs), (float(xs[middle]), float(ys[middle]))))
    stretches.sort(reverse=True)
    at = (found.box.x, found.box.y)
    return tuple((at[0] + (x + 0.5) / found.scale, at[1] + (y + 0.5) / found.scale) for _, (x, y) in stretches[:most])
