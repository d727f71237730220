"""Which way along the axis hair grows: root to tip, from a few strokes, partings drawn, and a first guess from the nose and gravity."""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.layers.flow.axis import Axis, Field
from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Point, Polygon

if TYPE_CHECKING:
    import scipy.sparse as sparse
    import scipy.sparse.linalg as sparse_linalg
else:
    sparse = late("scipy.sparse")
    sparse_linalg = late("scipy.sparse.linalg")

CELL_MM = 4.0
_SEED = 50.0
_PRIOR_ALONE, _PRIOR_WITH_STROKES = 0.003, 0.0005  # a stronger one overrules the painter (trials)
_CUT = 1e-6
UNSURE = 0.15  # of the sign, 0 to 1: less is a place to ask at (trials)


@dataclass(frozen=True)
class Cells:
    """The axis averaged into cells of 4 mm, (rows, columns): `angle` rad, `weight` 0 to 1, `inside` whether fur."""

    angle: Field
    weight: Field
    inside: NDArray[np.bool_]
    mm: float


def cells_of(axis: Axis, mask: NDArray[np.bool_]) -> Cells:
    """Average the axis inside the mask, by how sure it is; mask on the axis's grid."""
    k = max(1, round(CELL_MM / axis.px_mm))
    rows, columns = (n // k for n in axis.angle.shape)
    sure = (mask / (1 + (axis.doubt / 12) ** 2)).astype(np.float32)

    def sums(a: NDArray[np.float32]) -> NDArray[np.float32]:
        return np.asarray(a[: rows * k, : columns * k].reshape(rows, k, columns, k).sum((1, 3)), np.float32)

    x, y = sums(sure * np.cos(2 * axis.angle)), sums(sure * np.sin(2 * axis.angle))
    inside = sums(mask.astype(np.float32)) > 0.5 * k * k
    return Cells(
        np.asarray(0.5 * np.arctan2(y, x) % np.pi, np.float32),
        np.asarray(np.hypot(x, y) / k**2, np.float32),
        inside,
        k * axis.px_mm,
    )


def first_guess(cells: Cells, noses: Sequence[Point]) -> NDArray[np.float64]:
    """Away from the nearest nose near it, downwards farther off; unit vectors (rows, columns, 2). A guess, for an upright animal."""
    rows, columns = np.mgrid[: cells.angle.shape[0], : cells.angle.shape[1]]
    x, y = (columns + 0.5) * cells.mm, (rows + 0.5) * cells.mm
    width = cells.angle.shape[1] * cells.mm
    total = np.dstack([np.zeros_like(x), np.full_like(y, 0.6)])
    if noses:
        away = np.stack([np.dstack([x - nx, y - ny]) for nx, ny in noses])
        far = np.linalg.norm(away, axis=-1)
        nearest = far.argmin(0)
        pick = np.take_along_axis(away, nearest[None, ..., None], 0)[0]
        near = np.take_along_axis(far, nearest[None], 0)[0]
        total += pick / np.maximum(near, 1e-6)[..., None] * (1.3 * np.exp(-((near / (0.45 * width)) ** 2) / 2))[..., None]
    return np.asarray(total / np.maximum(np.linalg.norm(total, axis=-1, keepdims=True), 1e-9), np.float64)


def signs_of(
    cells: Cells, strokes: Sequence[Polygon], partings: Sequence[Polygon], guess: NDArray[np.float64]
) -> NDArray[np.float32]:  # fmt: skip
    """The sign of the axis at each cell, -1 to 1; its size is how sure it is. 0 outside.

    One sparse solve: neighbours along each other agree, strokes are held, the guess is followed faintly; nothing passes a parting.
    """
    shape, inside = cells.angle.shape, cells.inside
    count = int(inside.sum())
    found = np.zeros(shape, np.float32)
    if not count:
        return found
    number = np.full(shape, -1)
    number[inside] = np.arange(count)
    axis = np.dstack([np.cos(cells.angle), np.sin(cells.angle)])
    i, j, weight, turned = _edges(cells, number, axis, partings)
    off = sparse.csr_matrix((np.r_[-weight * turned, -weight * turned], (np.r_[i, j], np.r_[j, i])), (count, count))
    diagonal = np.bincount(i, weight, count) + np.bincount(j, weight, count) + 1e-9
    right = np.zeros(count)
    seeds, wanted = _seeds(cells, number, axis, strokes)
    prior = (axis[inside] * guess[inside]).sum(1)
    faint = _PRIOR_WITH_STROKES if len(seeds) else _PRIOR_ALONE
    diagonal += faint * np.abs(prior)
    right += faint * prior
    diagonal[seeds] += _SEED
    right[seeds] += _SEED * wanted
    solved = sparse_linalg.spsolve((off + sparse.diags(diagonal)).tocsc(), right)
    found[inside] = np.clip(solved, -1, 1)
    return found


def _edges(
    cells: Cells, number: NDArray[np.int64], axis: NDArray[np.float32], partings: Sequence[Polygon]
) -> tuple[NDArray[np.int64], NDArray[np.int64], NDArray[np.float64], NDArray[np.float64]]:  # fmt: skip
    parts: list[tuple[NDArray[np.int64], ...]] = []
    weights, turns = [], []
    rows, columns = cells.angle.shape
    for dy, dx in ((0, 1), (1, 0), (1, 1), (1, -1)):
        a = np.s_[: rows - dy, max(0, -dx) : columns - max(0, dx)]
        b = np.s_[dy:, max(0, -dx) + dx : columns - max(0, dx) + dx]
        ok = cells.inside[a] & cells.inside[b]
        along = (axis[a] * axis[b]).sum(-1)
        w = np.abs(along) ** 4 * np.sqrt(cells.weight[a] * cells.weight[b]) / np.hypot(dx, dy) + 1e-5
        ys, xs = np.nonzero(ok)
        begin = np.c_[xs + max(0, -dx) + 0.5, ys + 0.5] * cells.mm
        cut = _crosses(begin, begin + np.array([dx, dy]) * cells.mm, partings)
        weights.append(np.where(cut, _CUT, w[ok]))
        turns.append(np.where(along[ok] < 0, -1.0, 1.0))
        parts.append((number[a][ok], number[b][ok]))
    return (
        np.concatenate([p[0] for p in parts]), np.concatenate([p[1] for p in parts]), np.concatenate(weights),
        np.concatenate(turns),
    )  # fmt: skip


def _crosses(begin: NDArray[np.float64], end: NDArray[np.float64], lines: Sequence[Polygon]) -> NDArray[np.bool_]:
    """Whether each short way crosses one of the lines."""
    found = np.zeros(len(begin), bool)
    for line in lines:
        points = np.asarray(line, np.float64)
        for p, q in pairwise(points):
            found |= (_side(p, q, begin) * _side(p, q, end) < 0) & (_side2(begin, end, p) * _side2(begin, end, q) < 0)
    return found


def _side(p: NDArray[np.float64], q: NDArray[np.float64], at: NDArray[np.float64]) -> NDArray[np.float64]:
    return np.asarray((q[0] - p[0]) * (at[:, 1] - p[1]) - (q[1] - p[1]) * (at[:, 0] - p[0]), np.float64)


def _side2(begin: NDArray[np.float64], end: NDArray[np.float64], at: NDArray[np.float64]) -> NDArray[np.float64]:
    way = end - begin
    return np.asarray(way[:, 0] * (at[1] - begin[:, 1]) - way[:, 1] * (at[0] - begin[:, 0]), np.float64)


def _seeds(
    cells: Cells, number: NDArray[np.int64], axis: NDArray[np.float32], strokes: Sequence[Polygon]
) -> tuple[NDArray[np.int64], NDArray[np.float64]]:  # fmt: skip
    """Cells under strokes and the sign each wants; where strokes contradict, the later ones win."""
    wanted: dict[int, float] = {}
    for stroke in strokes:
        for point, way in walked(stroke, cells.mm / 2):
            x, y = int(point[0] / cells.mm), int(point[1] / cells.mm)
            if 0 <= y < number.shape[0] and 0 <= x < number.shape[1] and number[y, x] >= 0:
                sign = float(axis[y, x] @ way)
                if abs(sign) > 0.2:  # across the axis a stroke tells nothing of the sign
                    wanted[int(number[y, x])] = 1.0 if sign > 0 else -1.0
    return np.array(list(wanted), np.int64), np.array(list(wanted.values()), np.float64)


def walked(stroke: Polygon, step_mm: float) -> list[tuple[NDArray[np.float64], NDArray[np.float64]]]:
    """Points along a stroke and the unit way it goes there."""
    p = np.asarray(stroke, np.float64)
    if len(p) < 2:
        return []
    lengths = np.hypot(*np.diff(p, axis=0).T)
    away = np.concatenate([[0], np.cumsum(lengths)])
    if away[-1] <= 0:
        return []
    at = np.linspace(0, away[-1], max(2, int(away[-1] / step_mm) + 1))
    line = np.stack([np.interp(at, away, p[:, k]) for k in (0, 1)], 1)
    # The way is taken over a third of the stroke, so that a trembling hand does not turn it.
    reach = max(1, len(line) // 6)
    ways = np.stack([line[min(n + reach, len(line) - 1)] - line[max(n - reach, 0)] for n in range(len(line))])
    ways /= np.maximum(np.linalg.norm(ways, axis=1, keepdims=True), 1e-9)
    return list(zip(line, ways, strict=True))
