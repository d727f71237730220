"""How far a naming stroke reaches: cheapest ways from the stroke against cheapest ways from what is out of its reach."""

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.layers.raster import Labels
from yarrow_lane.layers.strokes.pieces import Pieces
from yarrow_lane.measure.plane import Polygon

# All our choice, from trials with a simulated hand on the made-up sitters.
_LEAST_REACH_MM, _REACH_OF_STROKE = 8.0, 0.75
_CLUSTERS = 4
_ROUNDS = 200


def stroke_px(points: Polygon, px_per_mm: float, shape: tuple[int, int], half_width_mm: float = 0.5) -> NDArray[np.int64]:
    """The px a stroke in mm goes over, (n, 2) as x, y; none off the picture."""
    p = np.asarray(points, np.float64) * px_per_mm
    if len(p) == 1:
        p = np.vstack([p, p + 0.01])
    away = np.concatenate([[0], np.cumsum(np.hypot(*np.diff(p, axis=0).T))])
    at = np.linspace(0, away[-1], max(2, int(away[-1]) + 1))
    line = np.stack([np.interp(at, away, p[:, k]) for k in (0, 1)], 1)
    reach = max(0, round(half_width_mm * px_per_mm))
    offsets = np.stack(np.meshgrid(np.arange(-reach, reach + 1), np.arange(-reach, reach + 1)), -1).reshape(-1, 2)
    px = np.unique((np.floor(line)[:, None] + offsets).reshape(-1, 2).astype(np.int64), axis=0)
    inside = (px >= 0).all(1) & (px[:, 0] < shape[1]) & (px[:, 1] < shape[0])
    return np.asarray(px[inside], np.int64)


def spread(pieces: Pieces, labels: Labels, points: Polygon, label: int) -> Labels:
    """The labels after a stroke in mm named what lies under it `label`; nothing out of reach changes.

    A stroke beside the picture changes nothing.
    """
    px = stroke_px(points, pieces.px_per_mm, pieces.of.shape)
    if not len(px):
        return labels
    first = np.zeros(pieces.count, np.int64)
    first[pieces.of.ravel()] = np.arange(pieces.of.size)
    own = labels.ravel()[first]
    touched = np.unique(pieces.of[px[:, 1], px[:, 0]]).astype(np.int64)
    length = float(np.hypot(*(px.max(0) - px.min(0)))) / pieces.px_per_mm
    reach = max(_LEAST_REACH_MM, _REACH_OF_STROKE * length) * pieces.px_per_mm
    near = (pieces.middle >= px.min(0) - reach).all(1) & (pieces.middle <= px.max(0) + reach).all(1)
    ids = np.nonzero(near)[0]
    along = px[:: max(1, len(px) // 24)]
    away = np.full(pieces.count, 9.0)
    away[ids] = np.sqrt(((pieces.middle[ids, None] - along) ** 2).sum(2)).min(1) / reach
    unlike = np.full(pieces.count, 99.0)
    models = _centres(pieces.colour[touched])
    unlike[ids] = np.sqrt(((pieces.colour[ids, None] - models) ** 2).sum(2)).min(1)
    active = near & (away <= 1.15)
    active[touched] = True
    inside = active[pieces.pairs].all(1)
    i, j = pieces.pairs[inside].T
    cost = 0.25 + pieces.contrast[inside] ** 1.5
    rival = active & (away > 0.85) & (own != label)
    rival[touched] = False
    mine = _flood(pieces.count, touched, i, j, cost, np.clip(unlike / 12, 0, 2))
    theirs = _flood(pieces.count, np.nonzero(rival)[0], i, j, cost, np.zeros(pieces.count))
    taken = active & (mine < theirs)
    taken[touched] = True
    taken = _joined(pieces, taken, touched)
    return np.where(taken[pieces.of], np.int32(label), labels)


def _centres(colours: NDArray[np.float64]) -> NDArray[np.float64]:
    """A few colours that stand for many: by value, then refined; the same for the same strokes."""
    if len(colours) <= _CLUSTERS:
        return colours
    order = colours[np.argsort(colours[:, 0], kind="stable")]
    centres = order[((np.arange(_CLUSTERS) + 0.5) / _CLUSTERS * len(order)).astype(int)]
    for _ in range(4):
        nearest = ((colours[:, None] - centres) ** 2).sum(2).argmin(1)
        centres = np.stack([colours[nearest == k].mean(0) if (nearest == k).any() else centres[k] for k in range(_CLUSTERS)])
    return centres


def _flood(
    count: int, sources: NDArray[np.int64], i: NDArray[np.int64], j: NDArray[np.int64], cost: NDArray[np.float64],
    own: NDArray[np.float64],
) -> NDArray[np.float64]:  # fmt: skip
    """The cheapest way to each piece; entering a piece costs what `own` says, crossing a border what it steps."""
    found = np.full(count, np.inf)
    found[sources] = 0
    for _ in range(_ROUNDS):
        before = found.copy()
        np.minimum.at(found, j, found[i] + cost + own[j])
        np.minimum.at(found, i, found[j] + cost + own[i])
        if np.array_equal(before, found):
            break
    return found


def _joined(pieces: Pieces, taken: NDArray[np.bool_], touched: NDArray[np.int64]) -> NDArray[np.bool_]:
    """Only what hangs together with the stroke."""
    i, j = pieces.pairs[taken[pieces.pairs].all(1)].T
    reached = np.zeros(pieces.count, bool)
    reached[touched] = True
    for _ in range(_ROUNDS):
        before = int(reached.sum())
        reached[i] |= reached[j]
        reached[j] |= reached[i]
        if int(reached.sum()) == before:
            break
    return reached & taken
