"""A box of fourteen generic tubes with its table, and colours its tubes can make."""

import numpy as np
import pytest

from yarrow_lane.paint.paints import Paint, Paints
from yarrow_lane.paint.pigments.curves import curves
from yarrow_lane.paint.pigments.entries import WHITES, entries
from yarrow_lane.paint.recipes.table import make_table

FOURTEEN = (
    "PW6", "PW6:1", "PY43", "PY37", "PO73", "PR108", "PR101", "PR122", "PBr7bs", "PBr7bu", "PB29", "PB15:3", "PG7", "PBk9",
)  # fmt: skip


def box_of(keys, known=None, doubt=0.3) -> Paints:
    """Those pigments as paints, ids from 1."""
    known = known or curves()
    return Paints.of([Paint(n, *known[k], k in WHITES, entries()[k].opacity, doubt) for n, k in enumerate(keys, 1)])


def mixed(parts: dict[str, float], known=None):
    """K and S of a mix by pigment."""
    known, total = known or curves(), sum(parts.values())
    return tuple(np.sum([known[k][n] * p / total for k, p in parts.items()], axis=0) for n in (0, 1))


@pytest.fixture(scope="session")
def box():
    return box_of(FOURTEEN)


@pytest.fixture(scope="session")
def table(box):
    return make_table(box)


@pytest.fixture(scope="session")
def reachable(box):
    """Sixty colours of mixes in any proportion, half of them with white."""
    rng, found = np.random.default_rng(1), []
    for n in range(60):
        some = rng.choice(14, rng.integers(2, 5), replace=False)
        parts = np.zeros(14)
        parts[some] = rng.dirichlet(np.ones(len(some))) / (box.absorbing[some].mean(axis=1) + 0.15) ** 0.5
        parts[0] += (n % 2) * rng.uniform(0, 1) * parts.sum()
        found.append(box.lab(parts))
    return np.array(found)
