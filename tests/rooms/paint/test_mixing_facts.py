"""What painters know of mixes, and the pigments' table: the engine has to agree."""

import numpy as np
import pytest

from tests.rooms.paint.conftest import mixed
from yarrow_lane.measure.colour.difference import difference
from yarrow_lane.paint.bands import WAVELENGTHS
from yarrow_lane.paint.films.layers import covers, spectrum_like
from yarrow_lane.paint.kubelka_munk import GLAZE_COAT, GLOSS_IN, effective, film, from_outside, thick
from yarrow_lane.paint.pigments.building import curves_of, white_curves
from yarrow_lane.paint.pigments.curves import curves
from yarrow_lane.paint.pigments.entries import entries
from yarrow_lane.paint.seen import lab_of, lab_of_paint


def look(parts):
    lightness, a, b = (float(v) for v in lab_of_paint(*mixed(parts)))
    return lightness, float(np.hypot(a, b)), float(np.degrees(np.arctan2(b, a)) % 360)


@pytest.mark.parametrize(
    ("parts", "lightness", "chroma", "hue"),
    [
        # Common practice; limits are our choice of what the words mean.
        ({"PB29": 1, "PY43": 2}, (0, 60), (0, 22), (90, 170)),  # a dull green
        ({"PB29": 1, "PY43": 4}, (0, 70), (0, 25), (90, 170)),
        ({"PB29": 1, "PY43": 2, "PW6": 6}, (40, 80), (0, 25), (90, 180)),
        ({"PB15:3": 1, "PY35": 20}, (0, 80), (35, 99), (110, 165)),  # a vivid green
        ({"PB15:3": 1, "PY74": 20}, (0, 80), (35, 99), (110, 165)),
        ({"PB15:3": 1, "PY74": 20, "PW6": 10}, (0, 90), (35, 99), (110, 175)),
        ({"PB29": 1, "PBr7bu": 1}, (0, 24), (0, 6), None),  # near black
        ({"PB29": 1, "PBr7bs": 1}, (0, 26), (0, 8), None),
        ({"PB29": 1, "PBr7bs": 1, "PW6": 10}, (40, 80), (0, 15), None),  # a grey
        ({"PR122": 1, "PY43": 3}, (0, 99), (0, 99), (20, 70)),
        ({"PR122": 1, "PY43": 6}, (0, 99), (0, 99), (35, 70)),  # an orange
        ({"PR122": 1, "PY43": 6, "PW6": 60}, (72, 99), (10, 35), (20, 75)),  # pale skin
        ({"PR122": 1, "PY43": 6, "PB29": 0.25, "PW6": 40}, (68, 99), (0, 35), None),
        ({"PW6:1": 6, "PY43": 2, "PR122": 1, "PB29": 0.125}, (45, 62), (15, 32), (5, 50)),  # rosy middle skin
        ({"PG7": 1, "PY42": 6}, (0, 99), (0, 99), (90, 170)),
        ({"PBr7bu": 2, "PG7": 0.5, "PY74": 0.5, "PR122": 1}, (0, 25), (0, 8), None),  # a rich black
        ({"PBk9": 1, "PY35": 3}, (30, 55), (15, 40), (95, 120)),  # black and yellow make olive
    ],
)
def test_a_mix_looks_as_painters_know_it(parts, lightness, chroma, hue):
    found = look(parts)
    assert lightness[0] <= found[0] <= lightness[1] and chroma[0] <= found[1] <= chroma[1], found
    assert hue is None or hue[0] <= found[2] <= hue[1], found


def test_a_touch_of_blue_dulls_an_orange_and_more_dulls_it_more():
    chromas = [look({"PR122": 1, "PY43": 6, "PB29": blue})[1] for blue in (0.0, 0.25, 1.0)]
    assert chromas[0] > chromas[1] > chromas[2] + 5


def test_cadmium_red_makes_a_duller_violet_than_magenta():
    assert look({"PR108": 1, "PB29": 1, "PW6": 6})[1] < 0.6 * look({"PR122": 1, "PB29": 1, "PW6": 6})[1]


def test_strong_tinters_stain_white_most():
    white = lab_of_paint(*curves()["PW6"])
    off = {
        k: float(difference(lab_of_paint(*mixed({"PW6": 100, k: 1})), white))
        for k in ("PB15:3", "PR122", "PB29", "PY43", "PBr7bu")
    }
    assert off["PB15:3"] > off["PR122"] > off["PB29"] > off["PY43"] > 3


def test_magenta_pales_to_a_cooler_pink():
    pure, tint = look({"PR122": 1})[2], look({"PR122": 1, "PW6": 10})[2]
    assert (tint - pure) % 360 > 180


def test_a_glaze_is_lighter_than_its_paint_and_darkens_what_is_below():
    k, s = curves()["PB29"]
    ground = thick(*curves()["PW6"])
    coat = effective(GLAZE_COAT, WAVELENGTHS)
    thin, strong = (lab_of(from_outside(film(k * f, s * f, coat, ground))) for f in (0.05, 0.10))
    assert look({"PB29": 1})[0] < strong[0] < thin[0] < look({"PW6": 1})[0] and strong[2] < thin[2] < -20


def test_a_thin_white_over_black_is_cool():
    k, s = curves()["PW6"]
    scumble = lab_of(from_outside(film(k * 0.1, s * 0.1, effective(10.0, WAVELENGTHS), thick(*curves()["PBk9"]))))
    assert scumble[2] < -2


def test_opaque_paint_hides_and_transparent_paint_does_not():
    over_light = spectrum_like((80.0, 0.0, 5.0))
    assert covers(*curves()["PR101"], over_light) == "in one coat"
    assert covers(*curves()["PW6"], spectrum_like((20.0, 0.0, 0.0))) != "in one coat"
    assert covers(*curves()["PY74"], spectrum_like((20.0, 0.0, 0.0))) == "not in three coats"


def test_a_spectrum_made_up_for_a_colour_has_that_colour():
    for lab in ((50.0, 10.0, 20.0), (80.0, 5.0, 60.0), (20.0, 0.0, 0.0), (60.0, -30.0, -20.0)):
        assert np.abs(lab_of(from_outside(spectrum_like(lab))) - lab).max() < 0.2


@pytest.mark.parametrize("key", ["PB29", "PR108"])
def test_the_table_is_what_building_it_gives(key):
    known = entries()
    white = white_curves(known["PW6"])
    k, s, dilution = curves_of(known[key], white)
    assert k == pytest.approx(curves()[key][0], rel=2e-3) and s == pytest.approx(curves()[key][1], rel=2e-3)
    assert 1.5 < dilution < 12


def test_every_entry_has_its_remembered_colour_and_says_it_is_generic():
    off = {k: float(difference(lab_of_paint(*curves()[k], GLOSS_IN), e.masstone)) for k, e in entries().items()}
    assert len(off) == 32 and max(off.values()) < 4.0 and np.median(list(off.values())) < 1.5
    assert all((k > 0).all() and (s > 0).all() for k, s in curves().values())
    assert entries()["PR108"].hazard == "cadmium" and entries()["PR83"].lightfast == "poor"
