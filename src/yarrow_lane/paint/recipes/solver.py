"""The best recipes for a colour: looked up, then polished step by step, and never chosen by difference alone."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike, NDArray

from yarrow_lane.measure.colour.difference import difference
from yarrow_lane.paint.paints import Paints, Parts
from yarrow_lane.paint.recipes.ladder import EIGHTHS, FINE, ONLY_WHITE, PARTS
from yarrow_lane.paint.recipes.table import RecipeTable

# What a recipe costs besides its difference: our choices, tuned so that simple recipes win where the eye sees no gain.
_UNSEEN = 0.7  # below it a difference counts three tenths
_PER_PAINT, _PER_TOUCH, _PER_ODD, _PER_PART, _PER_SLIP = 0.30, 0.12, 0.15, 0.02, 0.25
_NEAREST, _ROUNDS, _KEPT = 200, 3, 10
BY_EYE, TOUCH_BY_EYE = 0.10, 0.20  # how far parts measured by eye are off: our choice


@dataclass(frozen=True)
class Wish:
    """How to choose: `most` paints, how much simplicity counts (1 simple, 0.05 as close as can be), columns not to use."""

    most: int = 4
    simple: float = 1.0
    without: frozenset[int] = frozenset()
    rounds: int = _ROUNDS  # of polishing


SIMPLE, CLOSE = Wish(), Wish(simple=0.05)


@dataclass(frozen=True, eq=False)
class Found:
    """Recipes, best first: (m, n) eighths, their Lab, difference, slip from measuring by eye, and cost."""

    parts: Parts
    lab: NDArray[np.float64]
    difference: NDArray[np.float64]
    slip: NDArray[np.float64]
    cost: NDArray[np.float64]


def softened(off: NDArray[np.float64]) -> NDArray[np.float64]:
    """A difference as it counts: little while it is not seen."""
    return np.where(off < _UNSEEN, 0.3 * off, off - 0.7 * _UNSEEN)


def slips(paints: Paints, parts: Parts, lab: NDArray[np.float64]) -> NDArray[np.float64]:
    """Expected difference (root mean square) of parts measured by eye."""
    total, step = np.zeros(len(parts)), 0.05
    row, column = np.nonzero(parts)
    shifted = parts[row].copy()
    shifted[np.arange(row.size), column] *= 1 + step
    unsure = np.where(parts[row, column] < EIGHTHS, TOUCH_BY_EYE, BY_EYE)
    np.add.at(total, row, (difference(paints.lab(shifted), lab[row]) / step * unsure) ** 2)
    return np.asarray(np.sqrt(total))


def cost(parts: Parts, off: NDArray[np.float64], slip: ArrayLike, simple: float) -> NDArray[np.float64]:
    """Lower is better."""
    used = parts > 0
    counted = (
        _PER_SLIP * np.asarray(slip)
        + _PER_PAINT * used.sum(axis=1)
        + _PER_TOUCH * (used & (parts < EIGHTHS)).sum(axis=1)
        + _PER_ODD * (used & ~np.isin(parts, PARTS)).sum(axis=1)
        + _PER_PART * parts.sum(axis=1) / EIGHTHS
    )
    return np.asarray(softened(off) + simple * counted)


def solve(table: RecipeTable, target: ArrayLike, wish: Wish = SIMPLE, wanted: int = 5) -> Found:
    """The best recipes for a Lab colour, at least one where any paint may be used; see `Wish`."""
    goal, paints = np.asarray(target, np.float64), table.paints
    found = _looked_up(table, goal, wish)
    for n in range(wish.rounds):
        # Far steps first: a ratio between the table's may lie two steps from the nearest of them.
        found = _fittest(paints, _neighbours(paints, found, wish, (-2, -1, 1, 2) if n == 0 else (-1, 1)), goal, wish)
    lab = paints.lab(found)
    off = difference(lab, goal)
    slip = slips(paints, found, lab)
    costs = cost(found, off, slip, wish.simple)
    order = np.argsort(costs)
    shares = found[order] / found[order].max(axis=1, keepdims=True)
    # One ratio may be written in several ways: the cheapest comes first and stays.
    _, once = np.unique(np.round(shares, 6), axis=0, return_index=True)
    best = order[np.sort(once)][:wanted]
    return Found(found[best], lab[best], off[best], slip[best], costs[best])


def _looked_up(table: RecipeTable, goal: NDArray[np.float64], wish: Wish) -> Parts:
    """Near recipes of each count that use nothing unwanted; plain tubes where there is none."""
    pool, banned = [], sum(1 << n for n in wish.without)
    for count, group in enumerate(table.groups, 1):
        if count > wish.most:
            break
        _, near = group.tree.query(goal, k=min(_NEAREST * (6 if banned else 1), group.size))
        near = np.atleast_1d(near)
        if banned:
            near = near[group.masks(near) & banned == 0]
        parts = group.parts(near, len(table.paints))
        pool.append(parts[np.argsort(cost(parts, difference(group.lab[near], goal), 0.0, wish.simple))[:_KEPT]])
    allowed = [n for n in range(len(table.paints)) if n not in wish.without]
    found = np.vstack(pool)
    return found if len(found) else EIGHTHS * np.eye(len(table.paints))[allowed]


def _neighbours(paints: Paints, found: Parts, wish: Wish, steps: tuple[int, ...]) -> Parts:
    """With one part some steps more or less, or a touch or half a part of another paint added."""
    new, whites = [found], set(paints.whites)
    at = np.searchsorted(FINE, found)
    for column in range(len(paints)):
        last = len(FINE) - 1 - (0 if column in whites else ONLY_WHITE)
        used = found[:, column] > 0
        for step in steps:
            if used.any():
                moved = found[used].copy()
                moved[:, column] = FINE[np.clip(at[used, column] + step, 0, last)]
                new.append(moved)
        free = ~used & ((found > 0).sum(axis=1) < wish.most)
        if column not in wish.without and free.any():
            for amount in (1, EIGHTHS // 2):
                more = found[free].copy()
                more[:, column] = amount
                new.append(more)
    return np.vstack(new)


def _fittest(paints: Paints, parts: Parts, goal: NDArray[np.float64], wish: Wish) -> Parts:
    """The best few of each count."""
    costs = cost(parts, difference(paints.lab(parts), goal), 0.0, wish.simple)
    counts = (parts > 0).sum(axis=1)
    kept = []
    for count in range(1, wish.most + 1):
        these = np.nonzero(counts == count)[0]
        kept.append(these[np.argsort(costs[these])[:_KEPT]])
    return parts[np.concatenate(kept)]
