"""The paints mixes are made of, as the solvers see them, and what a mix of them is."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.paint.kubelka_munk import SEEN, Spectra
from yarrow_lane.paint.pigments.entries import Opacity
from yarrow_lane.paint.seen import quick_lab

TINT_PARTS = 10  # of white to one of a colour in a let-down: our choice
STRONG = 3.0  # mean absorption of a strong tinter, in the unit in which titanium white scatters 1: our choice
Parts = NDArray[np.float64]  # (..., n) of each paint, in any one unit


@dataclass(frozen=True)
class Paint:
    """One of them; `doubt` is the spread of the logarithm of its strength, `tint` whether it is a let-down in white."""

    id: int
    absorbing: Spectra
    scattering: Spectra
    white: bool
    opacity: Opacity
    doubt: float
    tint: bool = False


@dataclass(frozen=True, eq=False)
class Paints:
    """Several, in columns."""

    all: tuple[Paint, ...]
    absorbing: NDArray[np.float64]
    scattering: NDArray[np.float64]

    @classmethod
    def of(cls, all: Sequence[Paint]) -> "Paints":
        return cls(tuple(all), np.array([p.absorbing for p in all]), np.array([p.scattering for p in all]))

    def __len__(self) -> int:
        return len(self.all)

    @property
    def whites(self) -> tuple[int, ...]:
        """Columns of the whites."""
        return tuple(n for n, p in enumerate(self.all) if p.white)

    @property
    def strong(self) -> tuple[int, ...]:
        """Columns of those of which a touch is too much."""
        return tuple(n for n, p in enumerate(self.all) if p.absorbing.mean() > STRONG)

    def column(self, paint_id: int, tint: bool = False) -> int:
        """Where that paint stands; raises `KeyError` when it is not among them."""
        for n, paint in enumerate(self.all):
            if paint.id == paint_id and paint.tint == tint:
                return n
        raise KeyError(paint_id)

    def only(self, columns: Sequence[int]) -> "Paints":
        """Some of them, in that order."""
        return Paints.of([self.all[n] for n in columns])

    def mixed(self, parts: Parts) -> tuple[Spectra, Spectra]:
        """K and S of mixes by volume, (..., n) parts to (..., 36) each."""
        shares = parts / parts.sum(axis=-1, keepdims=True)
        return shares @ self.absorbing, shares @ self.scattering

    def lab(self, parts: Parts, gloss: float = SEEN) -> NDArray[np.float64]:
        """Lab of the mixes in opaque paint by daylight."""
        return np.asarray(quick_lab(*self.mixed(parts), gloss))

    @property
    def tints(self) -> "Paints | None":
        """The whites with every colour let down 1 to 10 in the purest of them; None without a white."""
        if not self.whites:
            return None
        white = min((self.all[n] for n in self.whites), key=lambda p: p.absorbing.mean())
        return Paints.of([self.all[n] for n in self.whites] + [let_down(p, white) for p in self.all if not p.white])


def let_down(paint: Paint, white: Paint) -> Paint:
    """A colour first mixed with ten parts of white."""
    whole = 1 + TINT_PARTS
    return replace(
        paint,
        absorbing=(paint.absorbing + TINT_PARTS * white.absorbing) / whole,
        scattering=(paint.scattering + TINT_PARTS * white.scattering) / whole,
        tint=True,
    )
