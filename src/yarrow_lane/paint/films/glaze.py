"""Glazes and scumbles: one or two paints thinned with medium over what is there."""

from dataclasses import dataclass
from itertools import combinations

import numpy as np
from numpy.typing import ArrayLike, NDArray

from yarrow_lane.measure.colour.difference import difference
from yarrow_lane.paint.bands import WAVELENGTHS, weights, white
from yarrow_lane.paint.kubelka_munk import GLAZE_COAT, K1, K2, SEEN, Spectra, effective, film, from_outside
from yarrow_lane.paint.paints import Paints
from yarrow_lane.paint.seen import Lab, lab_from_xyz, lab_of, triple

# Common practice is 90 to 95 parts of medium to 5 to 10 of paint; 3 and 15 per cent for the rest.
STRENGTHS = (0.03, 0.05, 0.075, 0.10, 0.15)
MOST_COATS = 4
SPREAD = (0.5, 1.0, 2.0)  # how thin and how thick a hand may lay it: our choice; a glaze is always shown with all three


@dataclass(frozen=True)
class Glaze:
    """`paints` columns, half and half where two; `share` of paint in the whole, the rest medium; `coats` of it, each dry first."""

    paints: tuple[int, ...]
    share: float
    coats: int


@dataclass(frozen=True)
class Outcome:
    """A glaze with what it makes: Lab as laid, and its difference to what is wanted."""

    glaze: Glaze
    lab: Lab
    difference: float


def laid(paints: Paints, glaze: Glaze, under: Spectra, thickness: float = 1.0) -> Spectra:
    """Internal reflectance after the glaze over an internal reflectance (..., 36); `thickness` relative to a usual coat."""
    columns = list(glaze.paints)
    k, s = paints.absorbing[columns].mean(axis=0), paints.scattering[columns].mean(axis=0)
    coat = effective(GLAZE_COAT * thickness * glaze.coats, WAVELENGTHS)
    return film(k * glaze.share, s * glaze.share, coat, under)


def three_looks(paints: Paints, glaze: Glaze, under: Spectra) -> tuple[NDArray[np.float64], ...]:
    """Lab laid thin, usual and thick."""
    return tuple(lab_of(from_outside(laid(paints, glaze, under, t))) for t in SPREAD)


class GlazeTable:
    """All glazes of a box: 1 or 2 paints, five strengths, one to four coats."""

    def __init__(self, paints: Paints) -> None:
        self.paints = paints
        singles = [(n,) for n in range(len(paints))]
        self.sets: list[tuple[int, ...]] = [*singles, *combinations(range(len(paints)), 2)]
        amounts = np.array([[s * c for c in range(1, MOST_COATS + 1)] for s in STRENGTHS])
        k = np.array([paints.absorbing[list(s)].mean(axis=0) for s in self.sets])
        s = np.array([paints.scattering[list(s)].mean(axis=0) for s in self.sets])
        coat = effective(GLAZE_COAT, WAVELENGTHS)
        thickness = amounts.ravel()[None, :, None] * coat
        kx, sx = (k[:, None] * thickness).reshape(-1, k.shape[1]), (s[:, None] * thickness).reshape(-1, k.shape[1])
        # R = own + through * Rg / (1 - own Rg): both are the paint's alone and worked out once.
        beta = np.sqrt(kx * (kx + 2 * sx))
        tau = np.where(beta < 1e-6, 1 - beta * beta / 3, np.tanh(beta) / np.maximum(beta, 1e-12))
        d = (sx + kx) * tau + 1
        self._own = (sx * tau / d).astype(np.float32)
        self._through = ((1 / (d * np.cosh(beta))) ** 2).astype(np.float32)

    @property
    def bytes(self) -> int:
        """What it takes in memory."""
        return int(self._own.nbytes + self._through.nbytes)

    def glaze(self, n: int) -> Glaze:
        """The glaze of a row."""
        which, rest = divmod(n, len(STRENGTHS) * MOST_COATS)
        strength, coats = divmod(rest, MOST_COATS)
        return Glaze(self.sets[which], STRENGTHS[strength], coats + 1)

    def over(self, under: Spectra) -> NDArray[np.float32]:
        """Lab of every glaze over an internal reflectance, (m, 3)."""
        ground = under.astype(np.float32)
        r = self._own + self._through * ground / (1 - self._own * ground)
        r /= 1 - np.float32(K2) * r
        xyz = r @ (weights() * ((1 - K1) * (1 - K2))).astype(np.float32) + (SEEN * K1 * white()).astype(np.float32)
        return np.asarray(lab_from_xyz(xyz, white()), np.float32)

    def towards(self, under: Spectra, target: ArrayLike, wanted: int = 3) -> tuple[Outcome, ...]:
        """The glazes that come nearest, simplest first among equals; one of each set of paints."""
        lab = self.over(under)
        goal = np.asarray(target, np.float64)
        near = np.argsort(((lab - goal) ** 2).sum(axis=1))[:400]
        off = difference(lab[near], goal)
        glazes = [self.glaze(int(n)) for n in near]
        # Each coat has to dry, and a second paint has to be mixed in: our choice of what that is worth.
        costs = [o + 0.25 * (g.coats - 1) + 0.3 * (len(g.paints) - 1) for o, g in zip(off, glazes, strict=True)]
        found: dict[tuple[int, ...], Outcome] = {}
        for n in np.argsort(costs):
            outcome = Outcome(glazes[n], triple(lab[near[n]]), float(off[n]))
            found.setdefault(outcome.glaze.paints, outcome)
            if len(found) == wanted:
                break
        return tuple(found.values())
