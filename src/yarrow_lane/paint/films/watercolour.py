"""Watercolour: one or two paints in water as a film over paper. The paper is the white; no wet look is foretold, lifting is not reckoned."""

from dataclasses import dataclass
from itertools import combinations

import numpy as np
from numpy.typing import ArrayLike

from yarrow_lane.measure.colour.difference import difference
from yarrow_lane.paint.bands import BANDS, WAVELENGTHS
from yarrow_lane.paint.kubelka_munk import effective, film, from_inside, from_outside
from yarrow_lane.paint.paints import Paints
from yarrow_lane.paint.recipes.ladder import COARSE, ratios
from yarrow_lane.paint.seen import Lab, lab_of, triple

# Parts of water to one of paint, and the film of undiluted watercolour in the unit of a brush coat of acrylic: our choices.
WATER = (1.0, 2.0, 3.0, 5.0, 8.0, 12.0, 20.0, 40.0, 80.0, 160.0)
_COAT = 6.0
_MATT = 0.25  # gloss of bare paper and thin paint: our choice
_PAPER = from_inside(np.full(BANDS, 0.90), _MATT)  # our choice of a usual rag paper
_SIMPLE = 0.4  # what a second paint must gain: our choice


@dataclass(frozen=True, eq=False)
class Washed:
    """Columns and eighths of the paints, parts of water to one of paint, the Lab on paper and its difference."""

    columns: tuple[int, ...]
    eighths: tuple[int, ...]
    water: float
    lab: Lab
    difference: float


def washes(paints: Paints, target: ArrayLike, wanted: int = 5) -> tuple[Washed, ...]:
    """The nearest washes of up to two paints, one of each set; whites are left out, for the paper is white."""
    goal = np.asarray(target, np.float64)
    colours = [n for n in range(len(paints)) if not paints.all[n].white]
    found: list[Washed] = []
    thickness = np.array([_COAT / (1 + w) for w in WATER])[:, None] * effective(1.0, WAVELENGTHS)
    for count in (1, 2):
        steps = ratios(count, COARSE)
        shares = steps / steps.sum(axis=1, keepdims=True)
        for columns in combinations(colours, count):
            k, s = shares @ paints.absorbing[list(columns)], shares @ paints.scattering[list(columns)]
            lab = lab_of(from_outside(film(k[:, None], s[:, None], thickness[None], _PAPER), _MATT)).reshape(-1, 3)
            off = difference(lab, goal)
            best = int(np.argmin(off))
            ratio, water = divmod(best, len(WATER))
            parts = tuple(int(p) for p in steps[ratio])
            found.append(Washed(columns, parts, WATER[water], triple(lab[best]), float(off[best])))
    return tuple(sorted(found, key=lambda w: w.difference + _SIMPLE * len(w.columns))[:wanted])
