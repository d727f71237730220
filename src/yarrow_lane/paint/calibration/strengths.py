"""Strengths of tubes learnt from mixes whose colour was seen: three tints first, then every dab.

Two numbers a tube, how much stronger it absorbs and scatters than believed, and one shared by all tubes, how strong they are against this
white: the table's greatest doubt.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.late import late
from yarrow_lane.paint.paints import Paints, Parts
from yarrow_lane.paint.seen import Lab, quick_lab

if TYPE_CHECKING:
    from scipy import optimize
else:
    optimize = late("scipy.optimize")


_SHARED = 0.5  # doubt of the strength of all against the white, log: our choice, about a factor of two either way
_ABSORBS, _SCATTERS = 0.25, 0.2  # doubts of one tube, log: our choices


@dataclass(frozen=True, eq=False)
class Dab:
    """A mix (eighths over all columns), the Lab it dried to, and the doubt of that."""

    parts: Parts
    lab: Lab
    doubt: float


@dataclass(frozen=True, eq=False)
class Strengths:
    """Logarithms for each column: what K and S are multiplied by; and what is left of the doubt of K."""

    absorbs: NDArray[np.float64]
    scatters: NDArray[np.float64]
    doubt: NDArray[np.float64]


def learnt_strengths(paints: Paints, dabs: Sequence[Dab], shared: bool = True) -> Strengths:
    """The likeliest strengths; titanium white stays the unit, tubes in no dab move with the shared factor alone."""
    count = len(paints)
    before = np.array([p.doubt for p in paints.all])
    if not dabs:
        return Strengths(np.zeros(count), np.zeros(count), before)
    parts, seen = np.array([d.parts for d in dabs]), np.array([d.lab for d in dabs])
    shares = parts / parts.sum(axis=1, keepdims=True)
    noise = np.array([d.doubt for d in dabs])[:, None]
    colours = np.array([not p.white for p in paints.all])
    used = [n for n in range(count) if colours[n] and shares[:, n].any()]
    absorbs_doubt = np.minimum(_ABSORBS, before[used])

    def spread(by: NDArray[np.float64]) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
        k, s = np.where(colours, by[0], 0.0), np.zeros(count)
        k[used] += by[1 : 1 + len(used)]
        s[used] += by[1 + len(used) :]
        return k, s

    def residuals(by: NDArray[np.float64]) -> NDArray[np.float64]:
        k, s = spread(by)
        lab = quick_lab(shares @ (paints.absorbing * np.exp(k)[:, None]), shares @ (paints.scattering * np.exp(s)[:, None]))
        own = [by[1 : 1 + len(used)] / absorbs_doubt, by[1 + len(used) :] / _SCATTERS]
        return np.concatenate([((lab - seen) / noise).ravel(), [by[0] / (_SHARED if shared else 1e-3)], *own])

    found = optimize.least_squares(residuals, np.zeros(1 + 2 * len(used)), method="trf", max_nfev=60)
    left = np.linalg.pinv(found.jac.T @ found.jac)
    doubt = np.where(colours, np.sqrt(np.minimum(before, _ABSORBS) ** 2 + left[0, 0]), before)
    for n, column in enumerate(used, 1):
        doubt[column] = np.sqrt(max(left[0, 0] + left[n, n] + 2 * left[0, n], 0.0))
    return Strengths(*spread(found.x), np.minimum(doubt, before))


def with_strengths(paints: Paints, strengths: Strengths) -> Paints:
    """The paints as strong as they were learnt to be."""
    rows = zip(paints.all, strengths.absorbs, strengths.scatters, strengths.doubt, strict=True)
    return Paints.of([
        replace(p, absorbing=p.absorbing * np.exp(k), scattering=p.scattering * np.exp(s), doubt=float(d)) for p, k, s, d in rows
    ])  # fmt: skip
