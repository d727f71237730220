"""One axis of warm and cool for every room."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from yarrow_lane.measure.colour.cielab import lab_from_linear, lab_from_srgb8, linear_from_lab
from yarrow_lane.measure.colour.warm import PINK, WARM, warm_and_pink

ab = st.floats(-90, 90)


def test_warm_and_pink_stand_across_each_other():
    assert np.hypot(*WARM) == pytest.approx(1) and np.hypot(*PINK) == pytest.approx(1)
    assert np.dot(WARM, PINK) == pytest.approx(0, abs=1e-12)


@given(ab, ab)
def test_a_colour_is_its_share_of_warm_and_of_pink(a, b):
    warm, pink = warm_and_pink(a, b)
    assert warm * WARM[0] + pink * PINK[0] == pytest.approx(a, abs=1e-9)
    assert warm * WARM[1] + pink * PINK[1] == pytest.approx(b, abs=1e-9)


@pytest.mark.parametrize(
    ("srgb", "warm"), [((230, 120, 40), True), ((200, 60, 40), True), ((40, 90, 210), False), ((60, 140, 160), False)]
)
def test_orange_is_warm_and_blue_is_cool(srgb, warm):
    _, a, b = lab_from_srgb8(np.array([[srgb]], np.uint8))[0, 0]
    assert (warm_and_pink(a, b)[0] > 0) == warm


@given(st.floats(1, 99), st.floats(-60, 60), st.floats(-60, 60))
def test_lab_comes_back_from_light(lightness, a, b):
    lab = np.array([lightness, a, b])
    assert lab_from_linear(linear_from_lab(lab)) == pytest.approx(lab, abs=1e-6)
