"""Small cells of like direction, value, colour and length: what patches are merged from."""

from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.layers.flow.axis import Field
from yarrow_lane.layers.raster import Labels
from yarrow_lane.measure.late import late

if TYPE_CHECKING:
    import scipy.sparse as sparse
    import scipy.sparse.csgraph as csgraph
else:
    sparse = late("scipy.sparse")
    csgraph = late("scipy.sparse.csgraph")

# What makes a painter change something, 1 each (our choice, after trials): a turn of 25 degrees, 9 L*, 9 of a* or b* (told less), length x1.8.
_TURN = 2 * np.sin(np.deg2rad(25) / 2)
_LIGHT, _HUE, _HUE_WEIGHT, _LENGTH, _LENGTH_WEIGHT = 9.0, 9.0, 0.7, np.log(1.8), 0.8
_ROUNDS = 4
_COMPACT = 0.35


@dataclass(frozen=True)
class Cells:
    """`of` is the cell at each place of the grid, 0 outside; `mean` (n + 1, k) features, `size` (n + 1) grid places, `region` its region."""

    of: Labels
    mean: NDArray[np.float64]
    size: NDArray[np.float64]
    region: NDArray[np.int64]


def features_of(x: Field, y: Field, lab: Field, length: Field) -> NDArray[np.float32]:
    """Signed way, L*, a*, b* and ln length on one scale, (rows, columns, 6): signed, so that partings and whorls separate."""
    return np.dstack(
        [
            x / _TURN, y / _TURN, lab[..., 0] / _LIGHT, lab[..., 1] / _HUE * _HUE_WEIGHT, lab[..., 2] / _HUE * _HUE_WEIGHT,
            np.log(np.maximum(length, 0.5)) / _LENGTH * _LENGTH_WEIGHT,
        ]
    ).astype(np.float32)  # fmt: skip


def cells_of(features: NDArray[np.float32], regions: Labels, count: int) -> Cells:
    """About `count` cells over where `regions` is not 0, none across two regions: clustering in place and features (SLIC's idea)."""
    rows, columns = regions.shape
    inside = regions > 0
    step = max(2, int(np.sqrt(inside.sum() / max(1, count))))
    ys, xs = (g.ravel() for g in np.mgrid[step // 2 : rows : step, step // 2 : columns : step])
    ok = inside[ys, xs]
    centres = np.c_[ys[ok], xs[ok]].astype(np.float64)
    own = features[ys[ok], xs[ok]].astype(np.float64)
    owner = regions[ys[ok], xs[ok]]
    of = np.zeros(regions.shape, np.int32)
    compact = _COMPACT * np.sqrt(features.shape[-1]) / step
    for _ in range(_ROUNDS):
        best = np.full(regions.shape, np.inf)
        of[:] = 0
        for n, (cy, cx) in enumerate(centres):
            top, left = max(0, int(cy) - step * 2), max(0, int(cx) - step * 2)
            window = np.s_[top : int(cy) + step * 2 + 1, left : int(cx) + step * 2 + 1]
            near = features[window] - own[n]
            wy = np.arange(window[0].start, window[0].start + near.shape[0]) - cy
            wx = np.arange(window[1].start, window[1].start + near.shape[1]) - cx
            cost = (near * near).sum(-1) + ((wy * wy)[:, None] + wx * wx) * compact**2
            cost[regions[window] != owner[n]] = np.inf
            better = cost < best[window]
            best[window][better] = cost[better]
            of[window][better] = n + 1
        flat = of.ravel()
        size = np.bincount(flat, minlength=len(centres) + 1)[1:]
        there = size > 0
        row, column = np.divmod(np.arange(flat.size), columns)
        for k, values in enumerate((row, column)):
            sums = np.bincount(flat, values, len(centres) + 1)[1:]
            centres[there, k] = sums[there] / size[there]
        for k in range(features.shape[-1]):
            sums = np.bincount(flat, features[..., k].ravel(), len(centres) + 1)[1:]
            own[there, k] = sums[there] / size[there]
    return _joined(of, features, regions)


def _joined(of: Labels, features: NDArray[np.float32], regions: Labels) -> Cells:
    """Every connected piece a cell of its own; places no centre reached are joined to what lies beside them."""
    code = of.astype(np.int64)
    missing = (of == 0) & (regions > 0)
    code[missing] = -regions[missing]
    number = np.arange(of.size).reshape(of.shape)
    pairs = []
    for a, b in ((np.s_[:, :-1], np.s_[:, 1:]), (np.s_[:-1], np.s_[1:])):
        same = (code[a] == code[b]) & (code[a] != 0)
        pairs.append(np.stack([number[a][same], number[b][same]]))
    i, j = np.concatenate(pairs, axis=1)
    graph = sparse.coo_matrix((np.ones(len(i), bool), (i, j)), (of.size, of.size))
    _, component = csgraph.connected_components(graph, directed=False)
    used = np.unique(component[code.ravel() != 0])
    lookup = np.zeros(int(component.max()) + 1, np.int32)
    lookup[used] = np.arange(1, len(used) + 1)
    pieces = np.where(code != 0, lookup[component].reshape(of.shape), 0).astype(np.int32)
    at = len(used)
    flat = pieces.ravel()
    size = np.asarray(np.bincount(flat, minlength=at + 1), np.float64)
    sums = np.stack([np.bincount(flat, features[..., k].ravel(), at + 1) for k in range(features.shape[-1])], 1)
    mean = np.asarray(sums / np.maximum(size, 1)[:, None], np.float64)
    region = np.zeros(at + 1, np.int64)
    region[flat] = regions.ravel()
    return Cells(pieces, mean, size, region)
