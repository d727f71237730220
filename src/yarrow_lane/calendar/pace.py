"""Own pace, learned: how long passes take against the first guess.

log(taken / guessed) = studio + kind of area + this commission + this pass, all normal, so that learning is one solve of a few unknowns.
The commission's own term is needed: passes of one portrait are late together.
"""

import zlib
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]
# Spread of the first guesses: studio, kind, commission and pass together give the handbook's sd of log 0.5 (our choice).
_STUDIO, _KIND, _WORK, _PASS = 0.30, 0.22, 0.22, 0.25
_PRIOR = 8.0  # so many guesses' worth both lower spreads are believed before anything is logged: our choice
_ROUNDS = 8
ENOUGH = 3  # commissions logged before dates are more than first guesses: our choice
_WIDER = 1.5  # the studio's spread until then: a first guess by nobody's hand (our choice, after simulated painters)
_TRUSTED_MIN = 3.0  # a pass logged shorter than this was not timed: our choice


@dataclass(frozen=True)
class Paced:
    """A finished pass: its kind of area, the first guess, what it took (minutes), and its area in cm²."""

    family: str
    guessed: float
    taken: float
    cm2: float = 0.0


class Pace:
    """What the finished passes of all commissions teach; without any it is the first guess, with its doubt."""

    def __init__(self, logged: Mapping[str, Sequence[Paced]]) -> None:
        rows = [(c, p) for c, of in logged.items() for p in of if p.taken >= _TRUSTED_MIN and p.guessed > 0]
        self.families = tuple(sorted({p.family for _, p in rows}))
        self.commissions = tuple(sorted({c for c, _ in rows}))
        self.passes = len(rows)
        self._kind = {f: 1 + n for n, f in enumerate(self.families)}
        self._whole = {c: 1 + len(self.families) + n for n, c in enumerate(self.commissions)}
        size = 1 + len(self.families) + len(self.commissions)
        studio = _STUDIO * (1.0 if len(self.commissions) >= ENOUGH else _WIDER)
        precision = np.r_[studio**-2, np.full(len(self.families), _KIND**-2), np.full(len(self.commissions), _WORK**-2)]
        self.mean, self.covariance = np.zeros(size), np.diag(1 / precision)
        self._pass_var, self._pass_known = _PASS**2, _PRIOR
        self._work_var, self._work_known = _WORK**2, _PRIOR
        if rows:
            self._learn(rows, precision)

    def _learn(self, rows: Sequence[tuple[str, Paced]], precision: Floats) -> None:
        design = np.zeros((len(rows), len(self.mean)))
        at = np.arange(len(rows))
        design[:, 0] = 1
        design[at, [self._kind[p.family] for _, p in rows]] = 1
        design[at, [self._whole[c] for c, _ in rows]] = 1
        ratio = np.log([p.taken / p.guessed for _, p in rows])
        products, sums = design.T @ design, design.T @ ratio
        first = 1 + len(self.families)
        for _ in range(_ROUNDS):  # both lower spreads are learned too: inverse gamma, plugged in
            precision[first:] = 1 / self._work_var
            self.covariance = np.linalg.inv(np.diag(precision) + products / self._pass_var)
            self.mean = self.covariance @ sums / self._pass_var
            residual = float(((ratio - design @ self.mean) ** 2).sum() + np.trace(products @ self.covariance))
            self._pass_var = (_PRIOR * _PASS**2 + residual) / (_PRIOR + len(rows))
            own = float((self.mean[first:] ** 2 + np.diag(self.covariance)[first:]).sum())
            self._work_var = (_PRIOR * _WORK**2 + own) / (_PRIOR + len(self.commissions))
        self._pass_known, self._work_known = _PRIOR + len(rows), _PRIOR + len(self.commissions)

    @property
    def first_guesses(self) -> bool:
        """Whether too little is logged to call it the painter's own."""
        return len(self.commissions) < ENOUGH

    def factor(self, family: str, commission: str = "") -> float:
        """What the first guess is to be multiplied by: the median."""
        row = self._row(family, commission)
        return float(np.exp(row @ self.mean))

    def likely(self, family: str, guessed: float, commission: str = "") -> float:
        """Minutes a pass likely takes, of those first guessed."""
        return guessed * self.factor(family, commission)

    def spread(self, family: str, commission: str = "") -> tuple[float, float]:
        """The factor that a single pass keeps under in 1 of 10 and in 9 of 10."""
        row = self._row(family, commission)
        variance = float(row @ self.covariance @ row) + self._pass_var
        variance += 0.0 if commission in self._whole else self._work_var
        if family not in self._kind:
            variance += _KIND**2
        middle, away = float(row @ self.mean), 1.2816 * variance**0.5
        return float(np.exp(middle - away)), float(np.exp(middle + away))

    def _row(self, family: str, commission: str) -> Floats:
        row = np.zeros(len(self.mean))
        row[0] = 1
        if family in self._kind:
            row[self._kind[family]] = 1
        if commission in self._whole:
            row[self._whole[commission]] = 1
        return row

    # --- draws

    @cached_property
    def _factor_root(self) -> Floats:
        return np.asarray(np.linalg.cholesky(self.covariance + 1e-12 * np.eye(len(self.mean))))

    def draws(self, count: int, seed: int = 1) -> "Draws":
        """So many painters that could be this one."""
        rng = np.random.default_rng(seed)
        terms = self.mean + rng.standard_normal((count, len(self.mean))) @ self._factor_root.T
        passes = np.sqrt(self._pass_var * self._pass_known / rng.chisquare(self._pass_known, count))
        works = np.sqrt(self._work_var * self._work_known / rng.chisquare(self._work_known, count))
        return Draws(self, terms, passes, works)


def factor_words(factor: float) -> str:
    """A factor against the first guess, in words."""
    percent = round(100 * (factor - 1))
    return "as guessed" if not percent else f"{abs(percent)}\u202f% {'longer' if percent > 0 else 'less'}"


class Draws:
    """Painters drawn from what is known; every commission has random numbers of its own, so that taking or moving one changes only
    what it really changes."""

    def __init__(self, pace: Pace, terms: Floats, passes: Floats, works: Floats) -> None:
        self._pace, self._terms, self._passes, self._works = pace, terms, passes, works
        self.count = len(terms)

    def minutes(self, commission: str, families: Sequence[str], guessed: Sequence[float]) -> Floats:
        """Minutes of these passes together, one for each draw."""
        if not len(families):
            return np.zeros(self.count)
        pace = self._pace
        base = self._terms[:, 0].copy()
        if commission in pace._whole:
            base += self._terms[:, pace._whole[commission]]
        else:
            base += self._works * _own(f"{commission}/whole", (self.count,))
        of_kind = {
            f: self._terms[:, pace._kind[f]] if f in pace._kind else _KIND * _own(f"kind/{f}", (self.count,))
            for f in set(families)
        }
        single = np.exp(self._passes[:, None] * _own(commission, (self.count, len(families)))) * np.asarray(guessed, float)
        found = np.zeros(self.count)
        kinds = np.asarray(families)
        for family, term in of_kind.items():
            found += np.exp(base + term) * single[:, kinds == family].sum(1)
        return found


def _own(name: str, shape: tuple[int, ...]) -> Floats:
    return np.random.default_rng(zlib.crc32(name.encode())).standard_normal(shape)
