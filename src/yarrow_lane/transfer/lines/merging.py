"""Cells merged from the weakest border up: the height at which an arc's two sides become one is its level.

The slider from outline to all is this level, so that nothing is worked out again (a hierarchy of regions: Arbelaez and others, 2011).
"""

import heapq
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

_SMALL_MM2, _NARROW_MM = 10.0, 1.5  # our choice: smaller and narrower cells give way sooner


@dataclass(slots=True)
class _Joint:
    """All arcs between two cells: strength times length, length, and their numbers."""

    weight: float = 0.0
    length: float = 0.0
    arcs: list[int] = field(default_factory=list)

    def take(self, other: "_Joint") -> None:
        self.weight += other.weight
        self.length += other.length
        self.arcs += other.arcs


def levels_of(
    cells: NDArray[np.int64], strength: NDArray[np.float64], length_mm: NDArray[np.float64], area_mm2: NDArray[np.float64]
) -> NDArray[np.float64]:  # fmt: skip
    """The level (A) of every arc; `cells` (A, 2), `strength` and `length_mm` (A), `area_mm2` of each cell."""
    joints: dict[tuple[int, int], _Joint] = {}
    by_cell: dict[int, dict[int, _Joint]] = {}
    for number, (one, other) in enumerate(cells.tolist()):
        key = (one, other) if one < other else (other, one)
        length = float(length_mm[number])
        joints.setdefault(key, _Joint()).take(_Joint(float(strength[number]) * length, length, [number]))
    for (one, other), joint in joints.items():
        by_cell.setdefault(one, {})[other] = joint
        by_cell.setdefault(other, {})[one] = joint
    area = dict(enumerate(area_mm2.tolist()))
    round_mm = {cell: sum(j.length for j in near.values()) for cell, near in by_cell.items()}
    turn: dict[tuple[int, int], int] = dict.fromkeys(joints, 0)

    def cost(one: int, other: int, joint: _Joint) -> float:
        least = min(area[one], area[other])
        wide = min(2 * area[one] / (round_mm[one] + 1e-6), 2 * area[other] / (round_mm[other] + 1e-6))
        return joint.weight / max(joint.length, 1e-6) * (least / (least + _SMALL_MM2)) ** 0.5 * wide / (wide + _NARROW_MM)

    heap = [(cost(a, b, joint), a, b, 0) for (a, b), joint in joints.items()]
    heapq.heapify(heap)
    found = np.zeros(len(cells))
    height = 0.0
    while heap:
        here, one, other, when = heapq.heappop(heap)
        if turn.get((one, other)) != when or other not in by_cell.get(one, ()):
            continue
        height = max(height, here)
        joint = by_cell[one].pop(other)
        del by_cell[other][one]
        found[joint.arcs] = height
        if len(by_cell[one]) < len(by_cell[other]):
            one, other = other, one
        area[one] += area[other]
        round_mm[one] += round_mm[other] - 2 * joint.length
        for near, theirs in by_cell.pop(other).items():
            del by_cell[near][other]
            own = by_cell[one].get(near)
            if own is None:
                by_cell[one][near] = by_cell[near][one] = theirs
            else:
                own.take(theirs)
        for near, theirs in by_cell[one].items():
            key = (one, near) if one < near else (near, one)
            turn[key] = turn.get(key, 0) + 1
            heapq.heappush(heap, (cost(*key, theirs), *key, turn[key]))
    return found
