"""A string of mixes from dark to light on few tubes: one set of paints for all steps, and neighbours that change smoothly."""

from collections import Counter
from dataclasses import dataclass
from itertools import pairwise

import numpy as np
from numpy.typing import ArrayLike, NDArray

from yarrow_lane.measure.colour.difference import difference
from yarrow_lane.measure.progress import SILENT, Progress
from yarrow_lane.paint.paints import Paints, Parts
from yarrow_lane.paint.recipes.solver import SIMPLE, Found, Wish, softened, solve
from yarrow_lane.paint.recipes.table import RecipeTable, make_table

_NEAREST = 1500  # recipes of each count looked at for the choice of tubes: our choice, more find no better set
_PER_TUBE = 0.2  # what one more tube must gain in the mean over the steps: our choice
_MISSED, _WORST = 15.0, 6.0  # a set that reaches nothing near, and how much one step may cost a set: our choices
_JUMP = 0.12  # what a change of the logarithm of a share costs between neighbours: our choice
_CANDIDATES = 25
_SHORTLIST = 16  # a set is looked for among so many tubes: our choice, 2 to the 16 sets
PALE_L = 80.0  # lighter colours are mixed from let-downs: our choice
_STRING = Wish(simple=0.6)


@dataclass(frozen=True, eq=False)
class Strung:
    """The paints chosen, and for each step its eighths, Lab, difference and slip, in the order asked for."""

    paints: Paints
    parts: Parts
    lab: NDArray[np.float64]
    difference: NDArray[np.float64]
    slip: NDArray[np.float64]


def shared_paints(
    table: RecipeTable, targets: ArrayLike, most: int = 5, without: frozenset[int] = frozenset(), progress: Progress = SILENT
) -> tuple[int, ...]:  # fmt: skip
    """Columns of the one small set of paints that reaches all steps best, `without` some; raises `Cancelled`."""
    goals = np.asarray(targets, np.float64)
    among = _shortlist(table, goals) if len(table.paints) > _SHORTLIST else tuple(range(len(table.paints)))
    sets = 1 << len(among)
    size = np.array([mask.bit_count() for mask in range(sets)])
    total = np.zeros(sets)
    for n, goal in enumerate(goals):
        progress.at(0.6 * n / len(goals))
        best = _best_by_set(table, goal, among)
        total += np.minimum(best, _WORST) + 0.5 * np.maximum(best - 1.5, 0)
    total = total / len(goals) + _PER_TUBE * size
    total[size > most] = np.inf
    for column in without & set(among):
        total[np.arange(sets) >> among.index(column) & 1 == 1] = np.inf
    mask = int(np.argmin(total))
    return tuple(column for n, column in enumerate(among) if mask >> n & 1)


def _best_by_set(table: RecipeTable, goal: NDArray[np.float64], among: tuple[int, ...]) -> NDArray[np.float64]:
    """The softened difference each set of paints reaches, by its bits: the least of all its subsets."""
    best = np.full(1 << len(among), _MISSED)
    place = np.zeros(len(table.paints), np.int64)
    known = np.zeros(len(table.paints), bool)
    for n, column in enumerate(among):
        place[column], known[column] = 1 << n, True
    for group in table.groups:
        _, near = group.tree.query(goal, k=min(_NEAREST, group.size))
        near = np.atleast_1d(near)
        columns = group.columns[near // len(group.ratios)].astype(np.intp)
        inside = known[columns].all(axis=1)
        if inside.any():
            off = softened(difference(group.lab[near[inside]], goal))
            np.minimum.at(best, place[columns[inside]].sum(axis=1), off)
    for n in range(len(among)):
        halves = best.reshape(-1, 2, 1 << n)
        np.minimum(halves[:, 1], halves[:, 0], out=halves[:, 1])
    return best


def _shortlist(table: RecipeTable, goals: NDArray[np.float64]) -> tuple[int, ...]:
    """The tubes free solves use most."""
    used: Counter[int] = Counter()
    for goal in goals:
        for parts in solve(table, goal, SIMPLE, 8).parts:
            used.update(int(n) for n in np.nonzero(parts)[0])
    chosen = [n for n, _ in used.most_common(_SHORTLIST)]
    return tuple(sorted({*chosen, *table.paints.whites[:1]}))[:_SHORTLIST]


def strung(
    table: RecipeTable, targets: ArrayLike, most: int = 5, without: frozenset[int] = frozenset(), progress: Progress = SILENT
) -> Strung:  # fmt: skip
    """A recipe for every step on at most `most` shared paints; steps from dark to light. Raises `Cancelled`."""
    goals = np.asarray(targets, np.float64)
    paints = table.paints.only(shared_paints(table, goals, most, without, progress))
    own = make_table(paints)
    pale = _pale_table(paints) if (goals[:, 0] > PALE_L).any() else None
    every = paints if pale is None else _both(paints, pale.paints)
    found = []
    for n, goal in enumerate(goals):
        progress.at(0.6 + 0.4 * n / len(goals))
        plain = solve(own, goal, _STRING, _CANDIDATES)
        found.append(_widened(plain, paints, every))
        if pale is not None and goal[0] > PALE_L:
            found[-1] = _joined(found[-1], _widened(solve(pale, goal, _STRING, _CANDIDATES), pale.paints, every))
    chosen = _smoothest(found)
    return Strung(
        every,
        np.array([f.parts[n] for f, n in zip(found, chosen, strict=True)]),
        np.array([f.lab[n] for f, n in zip(found, chosen, strict=True)]),
        np.array([f.difference[n] for f, n in zip(found, chosen, strict=True)]),
        np.array([f.slip[n] for f, n in zip(found, chosen, strict=True)]),
    )


def _pale_table(paints: Paints) -> RecipeTable | None:
    tints = paints.tints
    return make_table(tints, 3) if tints is not None and len(tints) > len(tints.whites) else None


def _both(paints: Paints, tints: Paints) -> Paints:
    return Paints.of([*paints.all, *(p for p in tints.all if p.tint)])


def _widened(found: Found, paints: Paints, every: Paints) -> Found:
    """The same recipes over more columns."""
    if paints is every:
        return found
    parts = np.zeros((len(found.parts), len(every)))
    for n, paint in enumerate(paints.all):
        parts[:, every.column(paint.id, paint.tint)] = found.parts[:, n]
    return Found(parts, found.lab, found.difference, found.slip, found.cost)


def _joined(one: Found, other: Found) -> Found:
    pairs = zip(
        (one.parts, one.lab, one.difference, one.slip, one.cost),
        (other.parts, other.lab, other.difference, other.slip, other.cost),
        strict=True,
    )
    return Found(*(np.concatenate(pair) for pair in pairs))


def _smoothest(found: list[Found]) -> list[int]:
    """Which candidate of each step: the cheapest path, where a jump in the shares of neighbours costs too."""
    shares = [np.log(f.parts / f.parts.sum(axis=1, keepdims=True) + 0.01) for f in found]
    total, back = found[0].cost.copy(), []
    for n, (before, after) in enumerate(pairwise(shares), 1):
        step = _JUMP * np.abs(after[:, None] - before[None]).sum(axis=2) + total[None]
        came = step.argmin(axis=1)
        back.append(came)
        total = found[n].cost + step[np.arange(len(came)), came]
    path = [int(np.argmin(total))]
    for came in reversed(back):
        path.append(int(came[path[-1]]))
    return path[::-1]
