"""Greys of equal lightness."""

import numpy as np
import pytest

from yarrow_lane.measure.colour.cielab import lightness_from_srgb8
from yarrow_lane.measure.colour.grey import grey, grey_code


def test_greys_keep_the_lightness(cat):
    found = lightness_from_srgb8(grey(cat))
    assert abs(found - lightness_from_srgb8(cat)).max() < 0.6


@pytest.mark.parametrize(("lightness", "code"), [(0, 0), (100, 255), (53.585, 128), (26.65, 63.5)])
def test_codes_against_the_published_curve(lightness, code):
    """sRGB grey 128 is L* 53.585 (IEC 61966-2-1 and CIE 15 worked out by hand)."""
    assert abs(int(grey_code(np.array(lightness))) - code) <= 1
