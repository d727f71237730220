"""sRGB to CIELAB against colour-science, an outside library (IEC 61966-2-1, CIE 15)."""

import warnings

import numpy as np
import pytest

from yarrow_lane.measure.colour.cielab import lab_from_srgb8, lightness_from_srgb8
from yarrow_lane.measure.colour.srgb import linear_from_srgb8, srgb8_from_linear


@pytest.fixture(scope="module")
def colour():
    with warnings.catch_warnings():
        warnings.simplefilter("ignore")
        import colour

    return colour


def test_lightness_within_a_hundredth(colour):
    rng = np.random.default_rng(1)
    codes = np.vstack([rng.integers(0, 256, (4000, 3)), np.repeat(np.arange(256)[:, None], 3, axis=1)]).astype(np.uint8)
    space = colour.RGB_COLOURSPACES["sRGB"]
    with warnings.catch_warnings():
        warnings.simplefilter("ignore")
        expected = colour.XYZ_to_Lab(colour.sRGB_to_XYZ(codes / 255), illuminant=space.whitepoint)
    found = lab_from_srgb8(codes)
    assert np.abs(found[:, 0] - expected[:, 0]).max() < 0.01
    assert np.abs(lightness_from_srgb8(codes) - expected[:, 0]).max() < 0.01
    assert np.abs(found[:, 1:] - expected[:, 1:]).max() < 0.05


def test_every_code_survives_light_and_back():
    codes = np.arange(256, dtype=np.uint8)
    assert (srgb8_from_linear(linear_from_srgb8(codes)) == codes).all()
