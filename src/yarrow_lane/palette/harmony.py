"""Harmony of the whole: which families of hue a picture or a palette holds."""

from collections import Counter
from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.paint.seen import Lab
from yarrow_lane.palette.words import hue_words

_CELL, _MIDDLE, _SIDE = 10.0, 16, 32  # Lab units a cell, and how many cells each way hold every colour
_LEAST = 0.02  # of the picture: a family below it is an accent not counted; our choice


def family(lab: Lab) -> str:
    """The hue's plain name: 'orange', 'blue green', 'grey'."""
    return hue_words(lab).split(",")[0].removeprefix("greyed ").removeprefix("strong ")


def families(labs: Sequence[Lab], weights: Sequence[float] | None = None) -> tuple[tuple[str, float], ...]:
    """Families with their share, largest first."""
    total: Counter[str] = Counter()
    for lab, weight in zip(labs, weights or [1.0] * len(labs), strict=True):
        total[family(lab)] += weight  # type: ignore[assignment]
    whole = sum(total.values()) or 1.0
    return tuple((name, share / whole) for name, share in total.most_common() if share / whole >= _LEAST)


def families_of_picture(lab: NDArray[np.floating]) -> tuple[tuple[str, float], ...]:
    """Of a reference as Lab (H, W, 3), by area: colours are grouped into cells of ten units first."""
    # One number a cell: sorting rows would hold up the interface.
    cells = np.round(lab.reshape(-1, 3) / _CELL).astype(np.int64) + _MIDDLE
    counts = np.bincount(cells @ np.array([1, _SIDE, _SIDE**2]))
    there = np.nonzero(counts)[0]
    labs = [tuple(float(_CELL * (n // _SIDE**k % _SIDE - _MIDDLE)) for k in range(3)) for n in there]
    return families([(a, b, c) for a, b, c in labs], [float(counts[n]) for n in there])
