"""The parts a painter can measure by eye, in eighths of a part."""

from functools import cache, reduce
from itertools import product
from math import gcd

import numpy as np
from numpy.typing import NDArray

# Eighths: 1/8 1/4 1/2 1 2 3 4 6 8 parts; in mixes of four fewer; finer ones are reached when a recipe is polished; 16 and 24 parts only of a
# white. Our choices.
PARTS = (1, 2, 4, 8, 16, 24, 32, 48, 64)
COARSE = (1, 4, 8, 16, 32, 64)
FINE = np.array([1, 2, 4, 6, 8, 12, 16, 20, 24, 32, 40, 48, 56, 64, 80, 96, 128, 192])
ONLY_WHITE = 2  # so many of the last steps
EIGHTHS = 8


@cache
def ratios(count: int, steps: tuple[int, ...]) -> NDArray[np.int16]:
    """Every ratio of so many paints once, (m, count) eighths in its simplest readable form: whole numbers where the largest is at most 8."""
    found = set()
    for parts in product(steps, repeat=count):
        if max(parts) >= EIGHTHS:
            whole = reduce(gcd, parts)
            found.add(_readable(tuple(p // whole for p in parts)))
    return np.array(sorted(found), np.int16)


def _readable(parts: tuple[int, ...]) -> tuple[int, ...]:
    if max(parts) <= EIGHTHS:
        return tuple(EIGHTHS * p for p in parts)
    for times in range(1, max(PARTS) + 1):
        if max(parts) * times >= EIGHTHS and all(p * times in PARTS for p in parts):
            return tuple(p * times for p in parts)
    return parts


def simplest(parts: NDArray[np.floating]) -> NDArray[np.float64]:
    """One recipe in whole numbers where the largest is at most 12, else as it is; eighths in and out."""
    whole = np.round(parts).astype(int)
    shared = reduce(gcd, (int(p) for p in whole if p > 0))
    return np.asarray(whole // shared * EIGHTHS if whole.max() // shared <= 12 else whole, np.float64)
