"""The lines at a place of the slider, out of all there could be."""

from collections.abc import Sequence
from typing import TYPE_CHECKING, Any

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Polygon
from yarrow_lane.transfer.lines.base import STEP_MM, Base
from yarrow_lane.transfer.lines.chains import lengths, means, smoothed
from yarrow_lane.transfer.lines.line import Line
from yarrow_lane.transfer.lines.linking import linked

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

_LEAST_MM = 10.0  # shorter lines are crumbs
_WEAK = 0.35  # of the level: below it the edge is lost there
_WEAK_MM = 3.0  # shorter gaps and shorter dashes are none
_SAME_MM = 1.0  # two thin dark lines nearer than that are one
_BESIDE_MM = 2.5  # a line so near an outline is the outline
_GAP_MM = 6.0  # shorter stretches of an outline between lines are left to the eye
_SHARE = 0.6  # of an arc that is covered: it is the same line
_MASK = 4  # px per mm of the picture of what is there already


def picked(
    base: Base, level: float, size_mm: tuple[float, float], inside: Sequence[Polygon] = (),
    there: Sequence[tuple[Polygon, float]] = (),
) -> tuple[Line, ...]:  # fmt: skip
    """The lines whose level is at least `level`, smooth, at least a centimetre long; lost edges are marked.

    Where `inside` are given, what lies outside all of them is left out. `there` are polygons with a level of their own. All in the
    base's mm.
    """
    if base.count == 0:
        return ()
    kept = np.nonzero(base.level >= _levels_there(base, level, there, size_mm))[0]
    if inside:
        kept = kept[_share(base, kept, _outside(inside, size_mm)) < 0.5]
    kept = _twins_out(base, kept, size_mm)
    chains = linked(base, kept, base.level.astype(np.float64))
    return _as_lines(base, chains)


def left_open(edges: Sequence[Polygon], lines: Sequence[Line], size_mm: tuple[float, float]) -> tuple[Polygon, ...]:
    """The stretches of the edges beside which no line runs: where the picture has none, the cut-out's edge is drawn.

    Each reaches a little over its ends, so that it meets the lines there.
    """
    taken = _nothing(size_mm)
    for line in lines:
        cv2.polylines(taken, [_path(line.points)], False, 1, round(2 * _BESIDE_MM * _MASK), cv2.LINE_8, 4)
    found = []
    for edge in edges:
        free = _on(taken, np.asarray(edge)) == 0
        begin = None
        for number, is_free in enumerate([*free.tolist(), False]):
            if is_free and begin is None:
                begin = number
            elif not is_free and begin is not None:
                if number - begin >= _GAP_MM / STEP_MM:
                    over = round(_BESIDE_MM / STEP_MM)
                    found.append(edge[max(0, begin - over) : number + over])
                begin = None
    return tuple(found)


def _levels_there(
    base: Base, level: float, there: Sequence[tuple[Polygon, float]], size_mm: tuple[float, float]
) -> NDArray[np.float64]:  # fmt: skip
    """The level asked for at each arc, by its middle point."""
    found = np.full(base.count, level)
    middle = base.points[(base.starts[:-1] + base.starts[1:]) // 2]
    for polygon, own in there:
        found[_on(1 - _outside([polygon], size_mm), middle) > 0] = own
    return found


def _outside(inside: Sequence[Polygon], size_mm: tuple[float, float]) -> NDArray[np.uint8]:
    """A picture, `_MASK` px per mm, of what lies in none of the polygons nor beside their edges."""
    found = _nothing(size_mm)
    for polygon in inside:
        cv2.fillPoly(found, [_path(polygon)], 1, cv2.LINE_8, 4)
        cv2.polylines(found, [_path(polygon)], True, 1, round(2 * _BESIDE_MM * _MASK), cv2.LINE_8, 4)
    return np.asarray(1 - found, np.uint8)


def _nothing(size_mm: tuple[float, float]) -> NDArray[np.uint8]:
    return np.zeros(tuple(max(1, round(side * _MASK)) for side in reversed(size_mm)), np.uint8)


def _path(points: "Polygon | NDArray[np.float32]") -> NDArray[np.int32]:
    """For OpenCV, in sixteenths of a px of the mask."""
    return np.rint((np.asarray(points) * _MASK - 0.5) * 16).astype(np.int32)


def _share(base: Base, arcs: NDArray[np.int64], mask: NDArray[np.uint8]) -> NDArray[np.float64]:
    """The share of each arc's points that lie on the mask."""
    return means(_on(mask, base.points), base.starts)[arcs]


def _on(mask: NDArray[np.uint8], points: NDArray[Any]) -> NDArray[np.uint8]:
    """The mask at places (n, 2) in mm."""
    x = np.clip((points[:, 0] * _MASK).astype(int), 0, mask.shape[1] - 1)
    y = np.clip((points[:, 1] * _MASK).astype(int), 0, mask.shape[0] - 1)
    return np.asarray(mask[y, x])


def _twins_out(base: Base, kept: NDArray[np.int64], size_mm: tuple[float, float]) -> NDArray[np.int64]:
    """A thin dark line was found by both its flanks, which now lie on each other: the stronger stays."""
    taken = _nothing(size_mm)
    gone = []
    end = round(1.5 * _SAME_MM / STEP_MM)
    dark = [a for a in kept.tolist() if base.dark[a]]
    for arc in sorted(dark, key=lambda a: -base.level[a] * (base.starts[a + 1] - base.starts[a])):
        points = base.points[base.starts[arc] : base.starts[arc + 1]]
        inner = points[end:-end] if len(points) > 3 * end else points[len(points) // 2 : len(points) // 2 + 1]
        if _on(taken, inner).mean() >= _SHARE:
            gone.append(arc)
            continue
        cv2.polylines(taken, [_path(points)], False, 1, round(2 * _SAME_MM * _MASK), cv2.LINE_8, 4)
    return np.setdiff1d(kept, np.asarray(gone, kept.dtype))


def _as_lines(base: Base, chains: list[list[tuple[int, bool]]]) -> tuple[Line, ...]:
    parts: list[NDArray[np.float32]] = []
    strength: list[NDArray[np.float32]] = []
    begins, levels, rough = [0], [], []
    for chain in chains:
        ways = [(slice(int(base.starts[a]), int(base.starts[a + 1])), back) for a, back in chain]
        points = [base.points[where][::-1] if back else base.points[where] for where, back in ways]
        values = [base.strength[where][::-1] if back else base.strength[where] for where, back in ways]
        counts = np.array([len(p) for p in points], np.float64)
        parts += [points[0], *(p[1:] for p in points[1:])]
        strength += [values[0], *(v[1:] for v in values[1:])]
        begins.append(begins[-1] + int(counts.sum()) - len(points) + 1)
        arcs = [a for a, _ in chain]
        levels.append(float(np.average(base.level[arcs], weights=counts)))
        rough.append(float(np.average(base.rough[arcs], weights=counts)))
    if not chains:
        return ()
    whole, starts = np.concatenate(parts).astype(np.float64), np.asarray(begins, np.int64)
    long = lengths(whole, starts) >= _LEAST_MM
    smooth = _smoothed(whole, starts, np.asarray(rough))
    weak = np.concatenate(strength) < _WEAK * np.repeat(levels, np.diff(starts))
    found = []
    for number in np.nonzero(long)[0].tolist():
        where = slice(int(starts[number]), int(starts[number + 1]))
        found.append(Line(tuple(map(tuple, np.round(smooth[where], 2).tolist())), _lost(weak[where]), round(levels[number], 2)))
    return tuple(found)


def _smoothed(points: NDArray[np.float64], starts: NDArray[np.int64], rough: NDArray[np.float64]) -> NDArray[np.float64]:
    """The rougher both sides are, the smoother the line: between clumps of hair its wiggles say nothing."""
    fine, coarse = smoothed(points, starts, 1.6), smoothed(points, starts, 3.5)
    share = np.clip((np.repeat(rough, np.diff(starts)) - 3.0) / 9.0, 0.0, 1.0)[:, None]
    return fine * (1 - share) + coarse * share


def _lost(weak: NDArray[np.bool_]) -> tuple[bool, ...]:
    """Where the edge is lost, without gaps and dashes of less than 3 mm."""
    size = round(_WEAK_MM / STEP_MM)
    if len(weak) < 3:
        return tuple(weak.tolist())
    kernel = np.ones(size, np.uint8)
    row = weak.astype(np.uint8).reshape(1, -1)
    closed = cv2.morphologyEx(cv2.morphologyEx(row, cv2.MORPH_OPEN, kernel), cv2.MORPH_CLOSE, kernel)
    return tuple((closed.ravel() > 0).tolist())
