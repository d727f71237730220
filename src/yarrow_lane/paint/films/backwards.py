"""Worked backwards: what to paint now, so that a planned glaze ends on the colour that is wanted."""

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import ArrayLike

from yarrow_lane.measure.colour.difference import difference
from yarrow_lane.paint.films.glaze import Glaze, laid
from yarrow_lane.paint.kubelka_munk import from_outside, thick
from yarrow_lane.paint.paints import Parts
from yarrow_lane.paint.recipes.solver import SIMPLE, Wish, solve
from yarrow_lane.paint.recipes.table import RecipeTable
from yarrow_lane.paint.seen import Lab, lab_of, triple

_ROUNDS = 6
_TRIED = 24  # recipes looked at in a round: our choice


@dataclass(frozen=True, eq=False)
class Underlayer:
    """Eighths to paint now, its own Lab, the Lab after the glaze, and how far that ends from what is wanted."""

    parts: Parts
    lab: Lab
    ends: Lab
    difference: float


def under_for(table: RecipeTable, target: ArrayLike, glaze: Glaze, wish: Wish = SIMPLE) -> Underlayer:
    """The underlayer for that glaze and end. The wanted underlayer is moved by what the end missed, a few times.

    Of all recipes met the best counts: near enough its end, and simple.
    """
    goal, paints, quick = np.asarray(target, np.float64), table.paints, replace(wish, rounds=1)
    aim, best = goal.copy(), None
    for _ in range(_ROUNDS):
        found = solve(table, np.clip(aim, (1, -110, -110), (99, 110, 110)), quick, _TRIED)
        internal = thick(*paints.mixed(found.parts))
        ends = lab_of(from_outside(laid(paints, glaze, internal)))
        off = difference(ends, goal)
        n = int(np.argmin(off + 0.15 * (found.parts > 0).sum(axis=1)))
        if best is None or off[n] < best.difference - 0.05:
            best = Underlayer(found.parts[n], triple(found.lab[n]), triple(ends[n]), float(off[n]))
        if off[n] < 0.6:
            break
        # A glaze squeezes differences, so the underlayer has to move further than the end missed.
        aim = aim + 1.3 * (goal - ends[int(np.argmin(off))])
    assert best is not None
    return best
