"""The borders between cells as arcs from junction to junction."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

Points = NDArray[np.float64]


@dataclass(frozen=True)
class Arcs:
    """`points` (N, 2) px corners of all arcs one after the other, `starts` (A + 1) where each begins, `cells` (A, 2) on its sides,
    `nodes` (A, 2) the junctions at its ends; a closed arc has the same at both.
    """

    points: Points
    starts: NDArray[np.int64]
    cells: NDArray[np.int64]
    nodes: NDArray[np.int64]

    @property
    def count(self) -> int:
        return len(self.starts) - 1


def arcs_of(cells: NDArray[np.int32]) -> Arcs:
    """Every border of a picture of cells (H, W), along the cracks between its pixels."""
    one, other, sides = _cracks(cells)
    count = len(one)
    across = cells.shape[1] + 1
    ends = np.concatenate([one, other])
    order = np.argsort(ends, kind="stable")
    degree = np.bincount(ends, minlength=(cells.shape[0] + 1) * across)
    first = np.concatenate([[0], np.cumsum(degree)])
    # Plain lists: walking is done step by step, and single numbers out of arrays are slow.
    at_node, from_node, to_node = (order % count).tolist(), one.tolist(), other.tolist()
    begin, degrees = first.tolist(), degree.tolist()
    used = bytearray(count)
    paths: list[list[int]] = []
    edges: list[int] = []

    def walk(node: int, edge: int) -> None:
        path, start = [node], edge
        while True:
            used[edge] = 1
            node = to_node[edge] if from_node[edge] == node else from_node[edge]
            path.append(node)
            if degrees[node] != 2:
                break
            here = begin[node]
            following = at_node[here + 1] if at_node[here] == edge else at_node[here]
            if used[following]:
                break
            edge = following
        paths.append(path)
        edges.append(start)

    for node in np.nonzero((degree > 0) & (degree != 2))[0].tolist():
        for place in range(begin[node], begin[node + 1]):
            if not used[at_node[place]]:
                walk(node, at_node[place])
    for edge in range(count):
        if not used[edge]:
            walk(from_node[edge], edge)
    lengths = np.array([len(p) for p in paths], np.int64)
    flat = np.concatenate([np.asarray(p, np.int64) for p in paths]) if paths else np.zeros(0, np.int64)
    starts = np.concatenate([[0], np.cumsum(lengths)]).astype(np.int64)
    nodes = np.stack([flat[starts[:-1]], flat[starts[1:] - 1]], 1) if paths else np.zeros((0, 2), np.int64)
    return Arcs(np.stack([flat % across, flat // across], 1).astype(np.float64), starts, sides[edges], nodes)


def _cracks(cells: NDArray[np.int32]) -> tuple[NDArray[np.int64], NDArray[np.int64], NDArray[np.int64]]:
    """Both ends of every crack between two cells, as corner numbers, and the cells (n, 2) on its sides."""
    across = cells.shape[1] + 1
    ys, xs = np.nonzero(cells[:-1] != cells[1:])
    level = ((ys + 1) * across + xs, (ys + 1) * across + xs + 1, cells[ys, xs], cells[ys + 1, xs])
    ys, xs = np.nonzero(cells[:, :-1] != cells[:, 1:])
    upright = (ys * across + xs + 1, (ys + 1) * across + xs + 1, cells[ys, xs], cells[ys, xs + 1])
    one, other, first, second = (np.concatenate([a, b]).astype(np.int64) for a, b in zip(level, upright, strict=True))
    return one, other, np.stack([first, second], 1)
