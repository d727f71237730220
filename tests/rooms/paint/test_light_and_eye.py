"""Colour difference, weights of light and eye, Kubelka and Munk: against published values and a reference library."""

import warnings

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from yarrow_lane.measure.colour.adaptation import adapted
from yarrow_lane.measure.colour.cielab import lab_from_linear, linear_from_lab
from yarrow_lane.measure.colour.difference import difference
from yarrow_lane.paint.bands import LIGHTS, WAVELENGTHS, weights, white
from yarrow_lane.paint.kubelka_munk import film, from_inside, from_outside, thick
from yarrow_lane.paint.pigments.curves import curves
from yarrow_lane.paint.seen import lab_of, quick_lab

with warnings.catch_warnings():
    warnings.simplefilter("ignore")
    import colour

# The test data of G. Sharma, W. Wu and E. N. Dalal, The CIEDE2000 color-difference formula, Color Res. Appl. 30 (2005), table 1, typed.
SHARMA = """
50 2.6772 -79.7751 50 0 -82.7485 2.0425
50 3.1571 -77.2803 50 0 -82.7485 2.8615
50 2.8361 -74.0200 50 0 -82.7485 3.4412
50 -1.3802 -84.2814 50 0 -82.7485 1.0000
50 -1.1848 -84.8006 50 0 -82.7485 1.0000
50 -0.9009 -85.5211 50 0 -82.7485 1.0000
50 0 0 50 -1 2 2.3669
50 -1 2 50 0 0 2.3669
50 2.4900 -0.0010 50 -2.4900 0.0009 7.1792
50 2.4900 -0.0010 50 -2.4900 0.0010 7.1792
50 2.4900 -0.0010 50 -2.4900 0.0011 7.2195
50 2.4900 -0.0010 50 -2.4900 0.0012 7.2195
50 -0.0010 2.4900 50 0.0009 -2.4900 4.8045
50 -0.0010 2.4900 50 0.0010 -2.4900 4.8045
50 -0.0010 2.4900 50 0.0011 -2.4900 4.7461
50 2.5 0 50 0 -2.5 4.3065
50 2.5 0 73 25 -18 27.1492
50 2.5 0 61 -5 29 22.8977
50 2.5 0 56 -27 -3 31.9030
50 2.5 0 58 24 15 19.4535
50 2.5 0 50 3.1736 0.5854 1.0000
50 2.5 0 50 3.2972 0 1.0000
50 2.5 0 50 1.8634 0.5757 1.0000
50 2.5 0 50 3.2592 0.3350 1.0000
60.2574 -34.0099 36.2677 60.4626 -34.1751 39.4387 1.2644
63.0109 -31.0961 -5.8663 62.8187 -29.7946 -4.0864 1.2630
61.2901 3.7196 -5.3901 61.4292 2.2480 -4.9620 1.8731
35.0831 -44.1164 3.7933 35.0232 -40.0716 1.5901 1.8645
22.7233 20.0904 -46.6940 23.0331 14.9730 -42.5619 2.0373
36.4612 47.8580 18.3852 36.2715 50.5065 21.2231 1.4146
90.8027 -2.0831 1.4410 91.1528 -1.6435 0.0447 1.4441
90.9257 -0.5406 -0.9208 88.6381 -0.8985 -0.7239 1.5381
6.7747 -0.2908 -2.4247 5.8714 -0.0985 -2.2286 0.6377
2.0776 0.0795 -1.1350 0.9033 -0.0636 -0.5514 0.9082
"""


def test_the_published_pairs_of_ciede2000():
    rows = np.array([[float(v) for v in line.split()] for line in SHARMA.strip().splitlines()])
    assert len(rows) == 34
    assert difference(rows[:, :3], rows[:, 3:6]) == pytest.approx(rows[:, 6], abs=1e-4)


def test_ciede2000_equals_the_librarys_on_random_colours():
    rng = np.random.default_rng(4)
    one = np.stack([rng.uniform(0, 100, 5000), rng.uniform(-90, 90, 5000), rng.uniform(-90, 90, 5000)], 1)
    other = one + rng.normal(size=one.shape) * rng.choice([0.5, 5, 40], (5000, 1))
    assert np.abs(difference(one, other) - colour.delta_E(one, other, method="CIE 2000")).max() < 1e-9


def spectra():
    tints = [thick((k + 10 * curves()["PW6"][0]) / 11, (s + 10 * curves()["PW6"][1]) / 11) for k, s in curves().values()]
    own = [thick(k, s) for k, s in curves().values()]
    chart = [
        sd.copy().align(colour.SpectralShape(380, 730, 10)).values for sd in colour.SDS_COLOURCHECKERS["ISO 17321-1"].values()
    ]
    return np.vstack([from_outside(np.array(own)), from_outside(np.array(tints)), chart])


@pytest.mark.parametrize("light", LIGHTS)
def test_tristimulus_values_are_those_of_the_library(light):
    """88 spectra: pigments, their tints and a chart, by ASTM E308 as the library reckons it."""
    eye, lamp = colour.MSDS_CMFS["CIE 1931 2 Degree Standard Observer"], colour.SDS_ILLUMINANTS[LIGHTS[light]]
    with warnings.catch_warnings():
        warnings.simplefilter("ignore")
        expected = [
            colour.sd_to_XYZ(colour.SpectralDistribution(r, WAVELENGTHS), eye, lamp, method="ASTM E308") / 100
            for r in spectra()
        ]
    # Lamps with narrow peaks are read at 10 nm, which the 4-point spread and the library's tables do a little differently.
    assert np.abs(spectra() @ weights(light) - np.array(expected)).max() < (2e-5 if light == "daylight" else 2e-3)
    assert weights(light)[:, 1].sum() == pytest.approx(1)


def test_lab_of_reflectance_is_the_librarys():
    r = spectra()
    mine = lab_of(r)
    theirs = colour.XYZ_to_Lab(r @ weights(), colour.XYZ_to_xy(white()))
    assert np.abs(mine - theirs).max() < 1e-9


def test_adaptation_is_the_librarys_bradford():
    xyz = np.random.default_rng(1).uniform(0.01, 1, (200, 3))
    theirs = colour.adaptation.chromatic_adaptation_VonKries(xyz, white("warm lamp"), white(), transform="Bradford")
    assert np.abs(adapted(xyz, white("warm lamp"), white()) - theirs).max() < 1e-12
    assert np.abs(adapted(white("cool LED"), white("cool LED"), white()) - white()).max() < 1e-12


def test_colours_of_the_screen_come_back():
    rng = np.random.default_rng(2)
    light = rng.uniform(0, 1, (500, 3))
    assert np.abs(linear_from_lab(lab_from_linear(light)) - light).max() < 1e-12


some = st.floats(1e-4, 30.0)


@given(some, some, st.floats(0.01, 0.97))
def test_a_film_without_scattering_is_beers_law(k, x, under):
    assert float(film(np.array([k]), np.zeros(1), x, np.array([under]))[0]) == pytest.approx(
        under * np.exp(-2 * k * x), abs=1e-12
    )


@given(some, some, st.floats(0.01, 0.97))
def test_a_very_thick_film_is_the_paint_itself_and_none_is_the_ground(k, s, under):
    thick_film = film(np.array([k]), np.array([s]), 1e5, np.array([under]))
    assert thick_film[0] == pytest.approx(thick(np.array([k]), np.array([s]))[0], abs=1e-9)
    assert film(np.array([k]), np.array([s]), 1e-10, np.array([under]))[0] == pytest.approx(under, abs=1e-6)


@given(some, some, st.floats(0.05, 5), st.floats(0.01, 0.97))
def test_two_half_coats_are_one_coat(k, s, x, under):
    k, s, under = np.array([k]), np.array([s]), np.array([under])
    assert film(k, s, x / 2, film(k, s, x / 2, under))[0] == pytest.approx(film(k, s, x, under)[0], abs=1e-9)


@given(st.floats(0.0, 0.98), st.floats(0.0, 1.0))
def test_the_surface_is_taken_off_again(r, gloss):
    assert from_inside(from_outside(np.array([r]), gloss), gloss)[0] == pytest.approx(r, abs=1e-4)


def test_the_quick_way_is_the_slow_one(box):
    parts = np.random.default_rng(3).uniform(0, 1, (200, 14))
    k, s = box.mixed(parts)
    slow = lab_of(from_outside(thick(k, s)))
    assert np.abs(quick_lab(k, s) - slow).max() < 1e-9
    assert np.abs(quick_lab(k.astype(np.float32), s.astype(np.float32)) - slow).max() < 0.02
