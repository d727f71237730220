"""The order of patches: which lies over which, and an order in which tips fall over what was painted before."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.layers.flow.axis import Field
from yarrow_lane.layers.raster import Labels

_LONGEST_MM, _INSIDE_MM, _BLOCK_MM, _DEAD_DEG = 25.0, 3.0, 8.0, 10.0  # trials: block normals cancel the raster's staircase
_HEAVY = 0.02  # of a median pair: lighter overlaps do not bind the order
_TOLD = 0.01  # of all overlap: a broken pair heavier than this is told
# Prices of the order inside the freedom that overlaps leave (our choice): way, jumping, dark first, low first, as it was.
_WAY, _JUMP, _DARK, _LOW, _BEFORE = 1.0, 0.25, 0.175, 0.25, 0.6
_BEAM = 12


@dataclass(frozen=True)
class Broken:
    """A pair whose overlap the order breaks: `over` lies over `under` but is painted before it; `share` of all overlap."""

    over: int
    under: int
    share: float


def overlaps_of(
    patches: Labels, x: Field, y: Field, length: Field, px_mm: float
) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
    """mm² of each patch's hair over each other, and mm of border between them, both (n, n): [a, b] is a over b."""
    count = int(patches.max())
    over, border = np.zeros((count, count)), np.zeros((count, count))
    rows, columns = patches.shape
    inside = max(1, round(_INSIDE_MM / px_mm))
    found = []
    for dy, dx in ((0, 1), (1, 0)):
        one, other = patches[: rows - dy, : columns - dx], patches[dy:, dx:]
        ys, xs = np.nonzero((one != other) & (one > 0) & (other > 0))
        a, b = one[ys, xs], other[ys, xs]
        pa = _within(patches, ys, xs, -dy * inside, -dx * inside)
        pb = _within(patches, ys + dy, xs + dx, dy * inside, dx * inside)
        turn = np.where(a < b, 1.0, -1.0)
        first = turn[:, None] > 0
        ways_a, ways_b = np.c_[x[pa], y[pa]], np.c_[x[pb], y[pb]]
        found.append(
            np.column_stack(
                [
                    np.minimum(a, b), np.maximum(a, b), (ys * px_mm / _BLOCK_MM).astype(int), (xs * px_mm / _BLOCK_MM).astype(int),
                    turn * dx * px_mm, turn * dy * px_mm, np.where(first, ways_a, ways_b), np.where(first, ways_b, ways_a),
                    np.where(turn > 0, length[pa], length[pb]), np.where(turn > 0, length[pb], length[pa]),
                ]
            )
        )  # fmt: skip
    sides = np.concatenate(found)
    if not len(sides):
        return over, border
    _, group = np.unique(sides[:, :4], axis=0, return_inverse=True)
    group = group.ravel()
    many = int(group.max()) + 1
    sums = np.stack([np.bincount(group, sides[:, k], many) for k in range(4, 12)], 1)
    sides_in = np.bincount(group, minlength=many)
    first_of = np.zeros(many, int)
    first_of[group] = np.arange(len(group))
    a, b = (sides[first_of, k].astype(int) - 1 for k in (0, 1))
    normal = np.hypot(sums[:, 0], sums[:, 1])
    dead = np.sin(np.deg2rad(_DEAD_DEG)) * normal
    a_over = (sums[:, :2] * sums[:, 2:4]).sum(1) / sides_in
    b_over = -(sums[:, :2] * sums[:, 4:6]).sum(1) / sides_in
    np.add.at(over, (a, b), np.maximum(a_over - dead, 0) * np.minimum(sums[:, 6] / sides_in, _LONGEST_MM))
    np.add.at(over, (b, a), np.maximum(b_over - dead, 0) * np.minimum(sums[:, 7] / sides_in, _LONGEST_MM))
    np.add.at(border, (a, b), normal)
    np.add.at(border, (b, a), normal)
    return over, border


def _within(
    patches: Labels, ys: NDArray[np.int64], xs: NDArray[np.int64], dy: int, dx: int
) -> tuple[NDArray[np.int64], NDArray[np.int64]]:  # fmt: skip
    """A place some mm inside the own patch; the border itself where that lies elsewhere."""
    y2, x2 = np.clip(ys + dy, 0, patches.shape[0] - 1), np.clip(xs + dx, 0, patches.shape[1] - 1)
    own = patches[y2, x2] == patches[ys, xs]
    return np.where(own, y2, ys), np.where(own, x2, xs)


def kept_share(over: NDArray[np.float64], order: Sequence[int]) -> float:
    """Share of the overlap in which what lies over is painted after; 1 where nothing overlaps."""
    rank = np.empty(len(order), int)
    rank[list(order)] = np.arange(len(order))
    total = float(over.sum())
    return float((over * (rank[:, None] > rank)).sum()) / total if total > 0 else 1.0


def climbing(
    over: NDArray[np.float64], border: NDArray[np.float64], middle: NDArray[np.float64], lightness: NDArray[np.float64],
    level: NDArray[np.int64], before: Sequence[int] = (),
) -> list[int]:  # fmt: skip
    """The order to paint, first to last, as places in the matrices.

    What lies over comes after what lies under, as far as pairs allow; levels (background before body before head) come one after the
    other; in what freedom is left the brush goes on to a neighbour, dark before light, low before high, near to an order that was there.
    """
    count = len(over)
    if count <= 1:
        return list(range(count))
    gain = over - over.T
    order = _inserted(gain, _ranked(over, gain))
    rank = np.empty(count, int)
    rank[order] = np.arange(count)
    weights = (over + over.T)[over + over.T > 0]
    heavy = _HEAVY * float(np.median(weights)) if weights.size else np.inf
    below = [
        {b for b in range(count) if level[b] < level[a]}
        | {b for b in np.nonzero((gain[a] > heavy) & (rank < rank[a]))[0].tolist() if level[b] == level[a]}
        for a in range(count)
    ]
    return _walked(below, border, middle, lightness, before)


def _ranked(over: NDArray[np.float64], gain: NDArray[np.float64]) -> list[int]:
    """A height for each patch that fits all pairs in the least squares sense (Jiang et al., HodgeRank, 2011)."""
    both = over + over.T
    laplacian = np.diag(both.sum(1)) - both + 1e-6 * np.eye(len(over))
    return [int(n) for n in np.argsort(np.linalg.solve(laplacian, gain.sum(1)), kind="stable")]


def _inserted(gain: NDArray[np.float64], order: list[int]) -> list[int]:
    """Each patch moved to where it breaks least, until none moves."""
    for _ in range(50):
        moved = False
        for a in range(len(order)):
            at = order.index(a)
            rest = order[:at] + order[at + 1 :]
            gains = np.concatenate([[0], np.cumsum(gain[a, rest])])
            best = int(np.argmax(gains - 1e-9 * np.abs(np.arange(len(gains)) - at)))
            if gains[best] > gains[at] + 1e-9:
                order = [*rest[:best], a, *rest[best:]]
                moved = True
        if not moved:
            break
    return order


def _walked(
    below: Sequence[set[int]], border: NDArray[np.float64], middle: NDArray[np.float64], lightness: NDArray[np.float64],
    before: Sequence[int],
) -> list[int]:  # fmt: skip
    """A beam search over orders that keep `below`."""
    count = len(below)
    across = float(np.linalg.norm(np.ptp(middle, axis=0))) or 1.0
    far = np.linalg.norm(middle[:, None] - middle, axis=-1) / across
    dark = np.argsort(np.argsort(lightness, kind="stable")) / max(count - 1, 1)
    low = 1 - np.argsort(np.argsort(middle[:, 1], kind="stable")) / max(count - 1, 1)
    was = {a: n / max(count - 1, 1) for n, a in enumerate(before)}
    beam: list[tuple[float, tuple[int, ...], frozenset[int]]] = [(0.0, (), frozenset())]
    for t in range(count):
        following: dict[tuple[frozenset[int], int], tuple[float, tuple[int, ...], frozenset[int]]] = {}
        for cost, done, have in beam:
            for a in range(count):
                if a in have or not below[a] <= have:
                    continue
                price = cost + _DARK * abs(dark[a] - t / count) + _LOW * abs(low[a] - t / count)
                if done:
                    price += _WAY * (far[done[-1], a] + (0 if border[done[-1], a] > 0 else _JUMP))
                if a in was:
                    price += _BEFORE * abs(was[a] - t / count)
                now = have | {a}
                if (now, a) not in following or following[now, a][0] > price:
                    following[now, a] = (price, (*done, a), now)
        beam = sorted(following.values(), key=lambda b: b[0])[:_BEAM]
    return list(beam[0][1])


def broken_pairs(over: NDArray[np.float64], order: Sequence[int]) -> tuple[Broken, ...]:
    """What the order breaks, the heaviest first: hair to be pulled over an edge afterwards."""
    rank = np.empty(len(order), int)
    rank[list(order)] = np.arange(len(order))
    total = max(float(over.sum()), 1e-9)
    found = [
        Broken(int(a), int(b), float(over[a, b]) / total)
        for a, b in zip(*np.nonzero(over > _TOLD * total), strict=True)
        if rank[a] < rank[b] and over[a, b] > over[b, a]
    ]
    return tuple(sorted(found, key=lambda b: -b.share))
