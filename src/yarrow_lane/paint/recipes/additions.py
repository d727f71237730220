"""What to add to a mix that is too orange, too pink, too light: the single paints that move it where it should go."""

from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.colour.warm import PINK, WARM
from yarrow_lane.paint.paints import Paints, Parts
from yarrow_lane.paint.recipes.ladder import FINE
from yarrow_lane.paint.seen import Lab

Fault = Literal[
    "too light", "too dark", "too orange", "too yellow", "too pink", "too green", "too blue", "too strong", "too grey"
]
_MOVE = 4.0  # Lab units a correction is meant to make: our choice, a step that is seen
_LEAST, _MOST = 0.5, 2.0  # of that move: less is not worth a touch, more overshoots
_STRAIGHT = 0.5  # of a correction: one that goes more aside than ahead is none; nor is one larger than the heap
FAULTS: tuple[Fault, ...] = (
    "too light", "too dark", "too orange", "too yellow", "too pink", "too green", "too blue", "too strong", "too grey",
)  # fmt: skip


@dataclass(frozen=True)
class Addition:
    """Add so many eighths of the paint in `column`; `purity` 0..1 is how straight it goes where it should, `left` what it does besides."""

    column: int
    eighths: float
    purity: float
    move: Lab


def _wanted(fault: Fault, lab: NDArray[np.float64]) -> NDArray[np.float64]:
    chroma = max(float(np.hypot(lab[1], lab[2])), 1e-6)
    out = np.array([0.0, lab[1] / chroma, lab[2] / chroma])
    warm, yellow = np.array([0.0, *WARM]), -np.array([0.0, *PINK])
    return {
        "too light": np.array([-1.0, 0, 0]), "too dark": np.array([1.0, 0, 0]),
        "too orange": -warm, "too blue": warm, "too yellow": np.array([0.0, 0.0, -1.0]), "too pink": yellow, "too green": np.array([0.0, 1.0, 0.0]),
        "too strong": -out, "too grey": out,
    }[fault]  # fmt: skip


def additions(paints: Paints, parts: Parts, fault: Fault, wanted: int = 3) -> tuple[Addition, ...]:
    """The purest single additions to a mix (eighths, (n,)), those already in it first among equals."""
    before = paints.lab(parts)
    way, found = _wanted(fault, before), []
    for column in range(len(paints)):
        rows = np.repeat(parts[None], len(FINE), axis=0)
        rows[:, column] += FINE
        moves = paints.lab(rows) - before
        along = moves @ way
        n = int(np.argmin(np.abs(along - _MOVE)))
        purity = float(along[n] / max(float(np.linalg.norm(moves[n])), 1e-9))
        enough = _LEAST * _MOVE <= along[n] <= _MOST * _MOVE
        if enough and purity >= _STRAIGHT and FINE[n] <= parts.sum():
            lightness, a, b = (float(v) for v in moves[n])
            familiar = 0.1 if parts[column] > 0 else 0.0
            found.append((purity + familiar, Addition(column, float(FINE[n]), purity, (lightness, a, b))))
    return tuple(a for _, a in sorted(found, key=lambda f: -f[0])[:wanted])
