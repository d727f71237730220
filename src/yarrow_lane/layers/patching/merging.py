"""Cells merged into patches: whatever costs least to lose, until there are as many as a painter wants to think of."""

import heapq
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.layers.patching.cells import Cells
from yarrow_lane.layers.raster import Labels
from yarrow_lane.measure.late import late

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

# All our choice, after trials on made-up furs: prices of an odd form and of size, and what is too small to be a patch.
_FORM, _SIZE, _LEAST_CM2 = 1.4, 0.25, 5.0
_SMOOTH_MM = 8.0
_BOTH_WAYS, _BOTH_OF_ALL = 0.35, 0.003  # of the larger way, and of all overlap: what no order would be right for
_PER_PATCH_CM2, _FEWEST, _MOST = 20.0, 24, 50


def patches_wanted(cm2: float) -> int:
    """How many patches so much fur makes: one in 20 cm², 24 to 50, fewer where there is hardly any."""
    return max(1, min(int(np.clip(cm2 / _PER_PATCH_CM2, _FEWEST, _MOST)), int(cm2 / _LEAST_CM2) or 1))


def merged(cells: Cells, wanted: int, px_mm: float) -> Labels:
    """The patch at each place, 1 to n, 0 outside; never across regions, so there may be a few more than wanted."""
    size, mean = cells.size.copy(), cells.mean.copy()
    borders = _borders(cells)
    edge = {i: sum(near.values()) for i, near in borders.items()}
    alive = {i for i in range(1, len(size)) if size[i] > 0}
    usual = max(1.0, float(size[1:].sum()) / wanted)
    least = _LEAST_CM2 * 100 / px_mm**2
    parent = list(range(len(size)))
    version = [0] * len(size)

    def cost(i: int, j: int) -> float:
        both = size[i] + size[j]
        unlike = float(((mean[i] - mean[j]) ** 2).sum())
        around = edge[i] + edge[j] - 2 * borders[i][j]
        form = around * around / (4 * np.pi * both)
        price = 2 * size[i] * size[j] / both / usual * unlike
        price += _FORM * max(0.0, form - 2) + _SIZE * max(0.0, both / usual - 2.5)
        small = min(size[i], size[j])
        return float(price * ((small / least) ** 2 * 0.3 if small < least else 1.0))

    heap = [
        (cost(i, j), 0, 0, i, j) for i in alive for j in borders[i] if i < j and cells.region[i] == cells.region[j]
    ]  # fmt: skip
    heapq.heapify(heap)
    while heap:
        _, vi, vj, i, j = heapq.heappop(heap)
        if i not in alive or j not in alive or version[i] != vi or version[j] != vj:
            continue
        if len(alive) <= wanted and min(size[i], size[j]) >= least:
            continue
        mean[i] = (mean[i] * size[i] + mean[j] * size[j]) / (size[i] + size[j])
        edge[i] += edge[j] - 2 * borders[i][j]
        size[i] += size[j]
        alive.discard(j)
        parent[j] = i
        version[i] += 1
        for k, length in borders.pop(j).items():
            borders[k].pop(j, None)
            if k != i:
                borders[i][k] = borders[i].get(k, 0) + length
                borders[k][i] = borders[i][k]
        borders[i].pop(j, None)
        for k in borders[i]:
            if cells.region[k] == cells.region[i]:
                heapq.heappush(heap, (cost(i, k), version[i], version[k], i, k))
    number = {i: n for n, i in enumerate(sorted(alive), 1)}
    lookup = np.zeros(len(size), np.int32)
    for i in range(1, len(size)):
        root = i
        while parent[root] != root:
            root = parent[root]
        lookup[i] = number.get(root, 0)
    return np.asarray(lookup[cells.of], np.int32)


def _borders(cells: Cells) -> dict[int, dict[int, float]]:
    """How many grid places two cells meet along."""
    found: dict[int, dict[int, float]] = {i: {} for i in range(1, len(cells.size))}
    of, count = cells.of, len(cells.size)
    keys = []
    for a, b in ((of[:, :-1], of[:, 1:]), (of[:-1], of[1:])):
        differ = (a != b) & (a > 0) & (b > 0)
        keys.append(np.minimum(a, b)[differ].astype(np.int64) * count + np.maximum(a, b)[differ])
    unique, lengths = np.unique(np.concatenate(keys), return_counts=True)
    for key, length in zip(unique.tolist(), lengths.tolist(), strict=True):
        i, j = divmod(key, count)
        found[i][j] = found[j][i] = float(length)
    return found


def rounded(patches: Labels, regions: Labels, px_mm: float) -> Labels:
    """Borders as a brush goes, inside each region; crumbs go to the neighbour they lie in."""
    sigma = _SMOOTH_MM / px_mm
    best = np.full(patches.shape, -1.0, np.float32)
    out = patches.copy()
    margin = int(3 * sigma) + 1
    for label in range(1, int(patches.max()) + 1):
        ys, xs = np.nonzero(patches == label)
        if not len(ys):
            continue
        window = np.s_[max(0, ys.min() - margin) : ys.max() + margin + 1, max(0, xs.min() - margin) : xs.max() + margin + 1]
        soft = cv2.GaussianBlur((patches[window] == label).astype(np.float32), (0, 0), sigma)
        soft[regions[window] != regions[ys[0], xs[0]]] = -2.0
        better = soft > best[window]
        best[window][better] = soft[better]
        out[window][better] = label
    out[regions == 0] = 0
    return _without_crumbs(out, regions)


def _without_crumbs(labels: Labels, regions: Labels) -> Labels:
    crumbs = np.zeros(labels.shape, bool)
    for label in range(1, int(labels.max()) + 1):
        count, pieces, stats, _ = cv2.connectedComponentsWithStats((labels == label).astype(np.uint8), connectivity=4)
        if count > 2:
            crumbs |= (labels == label) & (pieces != 1 + stats[1:, 4].argmax())
    out = labels.copy()
    for region in np.unique(regions[crumbs]).tolist():
        own = (regions == region) & ~crumbs & (labels > 0)
        lost = crumbs & (regions == region)
        if not own.any():
            continue
        _, nearest = cv2.distanceTransformWithLabels((~own).astype(np.uint8), cv2.DIST_L2, 3, labelType=cv2.DIST_LABEL_PIXEL)
        lookup = np.zeros(int(nearest.max()) + 1, np.int32)
        lookup[nearest[own]] = labels[own]
        out[lost] = lookup[nearest[lost]]
    numbers = np.unique(out[out > 0])
    lookup = np.zeros(int(out.max()) + 1, np.int32)
    lookup[numbers] = np.arange(1, len(numbers) + 1)
    return np.asarray(lookup[out], np.int32)


def settled(patches: Labels, overlaps: NDArray[np.float64], features: NDArray[np.float32], regions: Labels) -> Labels:
    """Patches that lie over each other both ways and are alike become one: no order would be right for both."""
    count = int(patches.max())
    size = np.bincount(patches.ravel(), minlength=count + 1)
    mean = np.stack(
        [np.bincount(patches.ravel(), features[..., k].ravel(), count + 1) / np.maximum(size, 1) for k in range(features.shape[-1])], 1
    )  # fmt: skip
    region = np.zeros(count + 1, np.int64)
    region[patches.ravel()] = regions.ravel()
    both = np.minimum(overlaps, overlaps.T)
    strongly = (both > _BOTH_WAYS * np.maximum(overlaps, overlaps.T)) & (both > _BOTH_OF_ALL * overlaps.sum())
    lookup = np.arange(count + 1)
    for i, j in sorted(zip(*np.nonzero(np.triu(strongly)), strict=True), key=lambda p: -both[p]):
        a, b = int(i) + 1, int(j) + 1
        unlike = np.abs(mean[a] - mean[b])
        alike = np.hypot(unlike[0], unlike[1]) < 1.6 and np.linalg.norm(unlike[2:5]) < 1.5 and unlike[5] < 0.8
        if alike and region[a] == region[b] and lookup[a] == a and lookup[b] == b:
            lookup[b] = a
    return np.asarray(lookup[patches], np.int32)
