"""Labels moved apart, against SciPy's isotonic regression (the same problem, another solver)."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.optimize import isotonic_regression

from yarrow_lane.measure.spread import spread


@given(st.lists(st.floats(0, 500), max_size=12), st.floats(1, 80))
def test_it_is_the_nearest_arrangement(places, apart):
    places = sorted(places)
    found = spread(places, apart, -1e6, 1e6)
    steps = np.arange(len(places)) * apart
    best = isotonic_regression(np.array(places) - steps).x + steps if places else []
    assert found == pytest.approx(list(best), abs=1e-6)


def test_it_keeps_within_its_ends_and_begins_at_the_first_when_it_cannot():
    assert spread([10, 12], 40, 20, 200) == (20, 60)
    assert spread([195, 198], 40, 20, 200) == (160, 200)
    assert spread([50, 51, 52, 53], 100, 20, 200) == (20, 120, 220, 320)
