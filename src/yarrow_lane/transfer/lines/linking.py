"""Arcs joined to lines where they run on into each other."""

import math

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.transfer.lines.base import Base

_MOST_TURN = 50.0  # degrees at a junction of three or more: our choice
_TANGENT = 8  # points over which the way of an end is taken
End = tuple[int, int]  # arc, and 0 for its first or 1 for its last point


def linked(base: Base, kept: NDArray[np.int64], level: NDArray[np.float64]) -> list[list[tuple[int, bool]]]:
    """The kept arcs in chains: arc and whether it is run backwards. At a junction the straightest pair of like level goes first."""
    arcs = kept.tolist()
    at_node: dict[int, list[End]] = {}
    for arc in arcs:
        first, last = base.nodes[arc].tolist()
        if first != last:
            at_node.setdefault(first, []).append((arc, 0))
            at_node.setdefault(last, []).append((arc, 1))
    mate = _mates(base, at_node, level)
    taken: set[int] = set()
    chains = []
    for arc in sorted(arcs, key=lambda a: -level[a]):
        if arc in taken:
            continue
        taken.add(arc)
        ahead = _followed(arc, 1, mate, taken)
        behind = _followed(arc, 0, mate, taken)
        chains.append([(a, not backwards) for a, backwards in reversed(behind)] + [(arc, False)] + ahead)
    return chains


def _mates(base: Base, at_node: dict[int, list[End]], level: NDArray[np.float64]) -> dict[End, End]:
    mate: dict[End, End] = {}
    for ends in at_node.values():
        pairs = []
        for number, one in enumerate(ends):
            for other in ends[number + 1 :]:
                if one[0] == other[0]:
                    continue
                (ax, ay), (bx, by) = _way_out(base, one), _way_out(base, other)
                turn = math.degrees(math.acos(max(-1.0, min(1.0, -(ax * bx + ay * by)))))
                if len(ends) == 2 or turn < _MOST_TURN:
                    unlike = abs(math.log((level[one[0]] + 1) / (level[other[0]] + 1)))
                    pairs.append((turn / 45 + 1.5 * unlike, one, other))
        for _, one, other in sorted(pairs):
            if one not in mate and other not in mate:
                mate[one], mate[other] = other, one
    return mate


def _way_out(base: Base, end: End) -> tuple[float, float]:
    """The direction in which the arc leaves at that end, of length 1."""
    first, last = int(base.starts[end[0]]), int(base.starts[end[0] + 1]) - 1
    reach = min(_TANGENT, last - first)
    one, other = (
        (base.points[first], base.points[first + reach]) if end[1] == 0 else (base.points[last], base.points[last - reach])
    )
    x, y = float(one[0] - other[0]), float(one[1] - other[1])
    long = math.hypot(x, y) or 1.0
    return x / long, y / long


def _followed(arc: int, side: int, mate: dict[End, End], taken: set[int]) -> list[tuple[int, bool]]:
    found: list[tuple[int, bool]] = []
    while True:
        following = mate.get((arc, side))
        if following is None or following[0] in taken:
            return found
        arc, entered = following
        taken.add(arc)
        side = 1 - entered
        found.append((arc, entered == 1))
