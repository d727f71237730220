"""Regions as a raster of labels and back: the raster is the working form of everything that looks at the picture, borders are the record."""

import math
from collections.abc import Mapping, Sequence
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.layers.coverage import GRID_MM, Rings, rings_of_ground
from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Point, Rect

if TYPE_CHECKING:
    import cv2
    import shapely
else:
    cv2 = late("cv2")
    shapely = late("shapely")

Labels = NDArray[np.int32]
PX_PER_MM = 2.0  # measured in the trial: areas within 1.65 %, half the time of 4
_MOST_PX = 1_700_000  # our choice: a canvas of 2 m is worked on more coarsely
_SMOOTH_MM, _TOLERANCE_MM = 0.8, 0.25  # our choice, after the trial's table of points against error
_SHIFT = 4  # binary places of a pixel that OpenCV draws to


def px_per_mm(canvas: Rect) -> float:
    """2 px per mm, less for canvases so large that it would take long."""
    return min(PX_PER_MM, math.sqrt(_MOST_PX / (canvas.width * canvas.height)))


def raster_size(canvas: Rect, scale: float) -> tuple[int, int]:
    """Width and height in px, at least 1."""
    return max(1, round(canvas.width * scale)), max(1, round(canvas.height * scale))


def mask_of(rings: Rings, size: tuple[int, int], scale: float) -> NDArray[np.bool_]:
    """What the rings enclose, (height, width)."""
    mask = np.zeros(size[::-1], np.uint8)
    if rings:
        lines = [np.rint((np.asarray(r, np.float64) * scale - 0.5) * (1 << _SHIFT)).astype(np.int32) for r in rings]
        cv2.fillPoly(mask, lines, (1,), cv2.LINE_8, _SHIFT)
    return mask > 0


def labels_of(parts: Mapping[int, Rings], size: tuple[int, int], scale: float) -> Labels:
    """The id of the region at each px, (height, width); 0 where none lies."""
    labels = np.zeros(size[::-1], np.int32)
    for i, rings in parts.items():
        labels[mask_of(rings, size, scale)] = i
    return labels


def rings_of_labels(labels: Labels, canvas: Rect, smooth_mm: float = _SMOOTH_MM) -> dict[int, Rings]:
    """A partition of the canvas out of a raster of labels: each border smoothed once, for both its sides.

    Small areas are smoothed less; closed borders keep the area they enclosed.
    """
    height, width = labels.shape
    scale = np.array([canvas.width / width, canvas.height / height])
    arcs = [a * scale for a in _arcs(labels)]
    smoothed = [_thinned(_smoothed(a, smooth_mm, float(scale[0]))) for a in arcs]
    lines = [shapely.LineString(a) for a in smoothed if len(a) >= 2]
    box = shapely.box(canvas.x, canvas.y, canvas.right, canvas.bottom)
    noded = shapely.unary_union([box.boundary, *lines], grid_size=GRID_MM)
    faces = shapely.get_parts(shapely.polygonize(shapely.get_parts(noded).tolist()))
    middles = shapely.get_coordinates(shapely.point_on_surface(faces)) / scale
    x, y = np.clip(middles.astype(int), 0, [width - 1, height - 1]).T
    owner = labels[y, x]
    return {int(i): rings_of_ground(shapely.coverage_union_all(faces[owner == i])) for i in np.unique(owner) if i > 0}


def _arcs(labels: Labels) -> list[NDArray[np.float64]]:
    """Borders between labels as walks along px edges, cut where three or more meet or the canvas ends; (n, 2) lattice points."""
    down = np.argwhere(labels[:, 1:] != labels[:, :-1])  # upright edges at x + 1
    across = np.argwhere(labels[1:] != labels[:-1])  # level edges at y + 1
    begin = np.concatenate([down[:, ::-1] + [1, 0], across[:, ::-1] + [0, 1]])
    end = np.concatenate([down[:, ::-1] + [1, 1], across[:, ::-1] + [1, 1]])
    if not len(begin):
        return []
    # Four colours that meet in one point are told apart by the union of what meets: lines are merged at points of two.
    pairs = np.stack([begin, end], 1).reshape(-1, 2).astype(np.float64)
    sides = shapely.linestrings(pairs, indices=np.repeat(np.arange(len(begin)), 2))
    merged = shapely.line_merge(shapely.multilinestrings(sides))
    return [shapely.get_coordinates(g) for g in shapely.get_parts(merged)]


def _smoothed(arc: NDArray[np.float64], sigma_mm: float, px_mm: float) -> NDArray[np.float64]:
    """A Gaussian along the border, ends pinned; round ones go round and get their area back."""
    count = len(arc)
    closed = bool((arc[0] == arc[-1]).all())
    # A closed border of a small thing keeps its form: the width is at most a fortieth of its length.
    sigma = min(sigma_mm / px_mm, count / (40 if closed else 12))
    if count < 5 or sigma < 0.3:
        return arc
    reach = min(int(3 * sigma) + 1, count - 2)
    weights = np.exp(-0.5 * (np.arange(-reach, reach + 1) / sigma) ** 2)
    weights /= weights.sum()
    if closed:
        ring = arc[:-1]
        padded = ring[np.arange(-reach, len(ring) + reach) % len(ring)]
    else:
        padded = np.vstack([2 * arc[0] - arc[reach:0:-1], arc, 2 * arc[-1] - arc[-2 : -reach - 2 : -1]])
    soft = np.stack([np.convolve(padded[:, k], weights, "valid") for k in (0, 1)], 1)
    if closed:
        before, after = _shoelace(arc[:-1]), _shoelace(soft)
        middle = soft.mean(0)
        if after:
            soft = middle + (soft - middle) * math.sqrt(abs(before / after))
        return np.vstack([soft, soft[:1]])
    soft[0], soft[-1] = arc[0], arc[-1]
    return soft


def _shoelace(ring: NDArray[np.float64]) -> float:
    x, y = ring[:, 0], ring[:, 1]
    return float(0.5 * (x @ np.roll(y, -1) - y @ np.roll(x, -1)))


def _thinned(arc: NDArray[np.float64]) -> NDArray[np.float64]:
    if len(arc) < 4:
        return arc
    if (arc[0] == arc[-1]).all():  # Douglas and Peucker need two ends that are not the same
        half = len(arc) // 2
        ends = (arc[: half + 1], arc[half:])
        return np.vstack([shapely.get_coordinates(shapely.LineString(p).simplify(_TOLERANCE_MM)) for p in ends])
    return np.asarray(shapely.get_coordinates(shapely.LineString(arc).simplify(_TOLERANCE_MM)), np.float64)


def ground_of_mask(mask: NDArray[np.bool_], scale: float, smooth_mm: float = _SMOOTH_MM) -> Rings:
    """What a mask covers, smoothed, as rings in mm; (height, width) at `scale` px per mm."""
    height, width = mask.shape
    canvas = Rect(0.0, 0.0, width / scale, height / scale)
    return rings_of_labels(mask.astype(np.int32), canvas, smooth_mm).get(1, ())


def without_specks(labels: Labels, least_px: float, keep: Sequence[int] = ()) -> Labels:
    """Small separate pieces of a label go to the label that surrounds them most; those of `keep` stay."""
    labels = labels.copy()
    for i in np.unique(labels).tolist():
        if i in keep:
            continue
        count, pieces, stats, _ = cv2.connectedComponentsWithStats((labels == i).astype(np.uint8), connectivity=4)
        if count <= 2:
            continue
        largest = 1 + int(stats[1:, 4].argmax())
        for n in range(1, count):
            if n == largest or stats[n, 4] >= least_px:
                continue
            x, y, w, h = stats[n, :4].tolist()
            window = np.s_[max(y - 1, 0) : y + h + 1, max(x - 1, 0) : x + w + 1]
            piece = pieces[window] == n
            rim = (cv2.dilate(piece.astype(np.uint8), np.ones((3, 3), np.uint8)) > 0) & ~piece
            if rim.any():
                labels[window][piece] = np.bincount(labels[window][rim]).argmax()
    return labels


def thickest(mask: NDArray[np.bool_]) -> tuple[Point, float]:
    """The middle of the largest circle inside a mask and its radius, px."""
    distance = cv2.distanceTransform(np.pad(mask.astype(np.uint8), 1), cv2.DIST_L2, 5)[1:-1, 1:-1]
    y, x = np.unravel_index(int(distance.argmax()), distance.shape)
    return (float(x) + 0.5, float(y) + 0.5), float(distance[y, x])
