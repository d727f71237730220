"""Value in steps against the published table, and shares that add to 100."""

import numpy as np
import pytest

from yarrow_lane.measure.colour.munsell_value import lightness_of, value_of, value_text
from yarrow_lane.measure.shares import percents

# Newhall, Nickerson and Judd 1943, luminance in per cent of smoked magnesium oxide; ASTM D1535 counts it at 97.5 per cent.
PUBLISHED = {1: 1.210, 2: 3.126, 3: 6.555, 4: 12.00, 5: 19.77, 6: 30.05, 7: 43.06, 8: 59.10, 9: 78.66}


def lightness(luminance: float) -> float:
    """L* by its definition (CIE 15:2018)."""
    ratio = luminance / 100
    return 116 * ratio ** (1 / 3) - 16 if ratio > (6 / 29) ** 3 else ratio * (29 / 3) ** 3


@pytest.mark.parametrize(("value", "luminance"), PUBLISHED.items())
def test_values_are_those_of_the_published_table(value, luminance):
    assert value_of(lightness(0.975 * luminance)) == pytest.approx(value, abs=0.02)


def test_value_and_lightness_go_back_and_forth():
    for wanted in np.linspace(0, 10, 41):
        assert value_of(lightness_of(wanted)) == pytest.approx(wanted, abs=0.01)
    assert (value_of(0), value_of(100)) == pytest.approx((0, 10)) and value_text(50.0) == "value 4.9"


def test_shares_add_to_a_hundred():
    assert percents((1 / 3, 1 / 3, 1 / 3)) == (34, 33, 33)
    dice = np.random.default_rng(5)
    for shares in dice.dirichlet((1, 1, 1, 1), 200):
        found = percents(tuple(shares))
        assert sum(found) == 100 and all(abs(f - 100 * s) < 1 for f, s in zip(found, shares, strict=True))
