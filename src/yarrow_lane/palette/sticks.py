"""Soft pastel: sticks are not mixed but laid over each other; the nearest stick, and two that meet the colour between them.

A stick is a tube's pigment pure or in one of three tints. Grain, pressure and the tooth of the paper are not modelled: two layers are taken
as spots side by side, blended as light.
"""

from dataclasses import dataclass
from itertools import combinations

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.colour.difference import difference
from yarrow_lane.paint.bands import weights, white
from yarrow_lane.paint.kubelka_munk import from_outside, thick
from yarrow_lane.paint.paints import Paints
from yarrow_lane.paint.seen import Lab, lab_from_xyz, triple

# White to one of pigment in a stick, with its words: our choices.
STICKS: tuple[tuple[float, str], ...] = ((0.0, "pure"), (2.0, "tint 1"), (8.0, "tint 2"), (30.0, "tint 3"))
_MATT = 0.4  # pastel has no gloss, and its surface scatters: our choice
COVERED = (0.3, 0.5, 0.7)  # of the first layer by the second: our choices
_SECOND = 0.6  # what a second stick must gain: our choice


@dataclass(frozen=True)
class Laid:
    """One or two sticks (paint id, words), how much of the first the second covers, the Lab and its difference."""

    sticks: tuple[tuple[int, str], ...]
    covered: float
    lab: Lab
    difference: float


def layered(paints: Paints, target: Lab, wanted: int = 5) -> tuple[Laid, ...]:
    """The nearest single sticks and pairs, best first; at least one single."""
    names, xyz = _sticks(paints)
    lab = lab_from_xyz(xyz, white())
    off = difference(lab, np.array(target))
    single = [Laid((names[n],), 0.0, triple(lab[n]), float(off[n])) for n in np.argsort(off)[:2]]
    near = [int(n) for n in np.argsort(((lab - target) ** 2).sum(axis=1))[:24]]
    pairs = []
    for a, b in combinations(near, 2):
        for covered in COVERED:
            both = lab_from_xyz(xyz[a] * (1 - covered) + xyz[b] * covered, white())
            pairs.append(Laid((names[a], names[b]), covered, triple(both), float(difference(both, np.array(target)))))
    best = sorted([*single, *pairs], key=lambda x: x.difference + _SECOND * (len(x.sticks) - 1))[: wanted - 1]
    return (*best, single[0]) if single[0] not in best else (*best,)


def _sticks(paints: Paints) -> tuple[list[tuple[int, str]], NDArray[np.float64]]:
    whites = [p for p in paints.all if p.white]
    names, rows = [], []
    for paint in paints.all:
        for parts, words in STICKS if not paint.white and whites else STICKS[:1]:
            k, s = paint.absorbing, paint.scattering
            if parts:
                k, s = (k + parts * whites[0].absorbing) / (1 + parts), (s + parts * whites[0].scattering) / (1 + parts)
            names.append((paint.id, words))
            rows.append(from_outside(thick(k, s), _MATT) @ weights())
    return names, np.array(rows)
