"""Reserves, warm and cool, the ground and its wash."""

from itertools import pairwise

import numpy as np
import pytest
import skimage.data

from yarrow_lane.lane.part import Plain
from yarrow_lane.measure.colour.cielab import lab_from_srgb8, lightness_from_srgb8
from yarrow_lane.measure.colour.munsell_value import value_of
from yarrow_lane.measure.place_words import place_words
from yarrow_lane.paint.drying import Climate
from yarrow_lane.tone.grounds import GROUNDS, ground_lab, ground_srgb
from yarrow_lane.tone.proposal import judged_grounds
from yarrow_lane.tone.record import TONE
from yarrow_lane.tone.reserves import reserves_of, so_called_whites
from yarrow_lane.tone.warmth import warmth_of
from yarrow_lane.tone.wash import gesso_ml, laid_in_bands, wash_for


def face():
    """A middle grey with a glint in an eye, a dark pupil and a light patch."""
    picture = np.full((300, 240, 3), 130, np.uint8)
    picture[100:110, 80:90] = 8
    picture[102:105, 82:85] = 252
    picture[200:240, 150:200] = 240
    return picture


def test_glints_come_before_larger_lights_and_are_called_by_their_eye():
    lab = lab_from_srgb8(face())
    lights, darks = reserves_of(lab, 1.0, [("left eye", ((85.0, 105.0), 15.0))])
    assert lights[0].near == "left eye" and lights[0].cm2 == pytest.approx(0.09, abs=0.01) and lights[0].value > 9.5
    assert any(r.near == "lower right" for r in lights[1:]), "and the light patch, for the painter to know"
    assert darks[0].near == "left eye" and darks[0].value < 1


def test_places_in_words():
    assert place_words((10, 10), 90, 90) == "upper left" and place_words((45, 45), 90, 90) == "middle"
    assert place_words((45, 80), 90, 90) == "lower middle"


def test_whites_are_told_as_the_greys_they_are():
    lab = lab_from_srgb8(skimage.data.astronaut())
    found = so_called_whites(lab, 2.0)
    assert found and all(6 <= r.value < 10 and np.hypot(*r.lab[1:]) < 11 for r in found)


def test_warm_lights_and_cool_shadows_are_seen_and_the_reverse():
    warm, cool = np.array([220, 180, 130], np.uint8), np.array([50, 60, 85], np.uint8)
    picture = np.zeros((100, 100, 3), np.uint8)
    picture[:, :50], picture[:, 50:] = warm, cool
    found = warmth_of(lab_from_srgb8(picture))
    assert found.scheme == "warm lights, cool shadows" and found.lights > found.shadows
    turned = warmth_of(
        lab_from_srgb8(np.where(picture == warm, np.array([150, 190, 225], np.uint8), np.array([85, 55, 45], np.uint8)))
    )
    assert turned.scheme == "cool lights, warm shadows"
    assert warmth_of(lab_from_srgb8(np.full((40, 40, 3), 128, np.uint8))).scheme == "one temperature"


def test_a_ground_is_proposed_from_which_both_sides_are_judged():
    lightness = lightness_from_srgb8(skimage.data.astronaut())
    for skin in (True, False):
        best = judged_grounds(lightness, skin, "acrylic", False)[0]
        assert best.darker > 0.15 and best.lighter > 0.15 and best.darker + best.near + best.lighter == pytest.approx(1)
        assert best.name != "white"
    assert judged_grounds(lightness, True, "acrylic", False)[0].name == "burnt sienna wash"
    assert judged_grounds(lightness, True, "watercolour", False)[0].name == "white"
    wiped = judged_grounds(lightness, True, "acrylic", True)[0]
    assert GROUNDS[wiped.name].how == "wash" and "wiped" in wiped.why


def test_grounds_look_like_what_they_are_called():
    assert value_of(ground_lab("white")[0]) > 9.3 and value_of(ground_lab("dark umber")[0]) < 4
    red, green, blue = ground_srgb("burnt sienna wash")
    assert red > green > blue and ground_lab("burnt sienna wash")[0] > 40
    assert np.hypot(*ground_lab("middle grey")[1:]) < 4
    assert ground_lab("a ground of long ago") == ground_lab("white")


def test_the_wash_follows_area_and_climate():
    # 30.5 x 40.6 cm: 1238 cm2 of 30 um are 3.7 ml, and half of it stays in the brush.
    small = wash_for("burnt sienna wash", 1238, "acrylic", Climate(19, 58), True)
    assert small.ml == pytest.approx(7.4, abs=0.1) and sum(ml for _, ml in small.parts) == pytest.approx(small.ml)
    assert dict(small.parts)["water"] > 3 * dict(small.parts)["paint"]
    assert small.wipe_min == pytest.approx(small.dry_min / 3)
    assert small.wipe_min == pytest.approx(2 * wash_for("burnt sienna wash", 1238, "acrylic", Climate(19, 58), False).wipe_min)
    damp = wash_for("burnt sienna wash", 1238, "acrylic", Climate(19, 80), True)
    assert damp.wipe_min > small.wipe_min
    large = wash_for("burnt sienna wash", 9000, "acrylic", Climate(24, 35), False)
    assert large.laying_min > large.wipe_min
    bands = laid_in_bands(large, 1000, 4.0)
    assert len(bands) > 1 and bands[0].top_mm == 0 and bands[-1].bottom_mm == pytest.approx(1000)
    assert all(a.ends <= b.begins + 1e-9 for a, b in pairwise(bands))
    assert all(b.ends - b.begins <= large.wipe_min for b in bands)
    assert gesso_ml(100, 2) == pytest.approx(2.4)


@pytest.mark.parametrize(
    ("plain", "limits"), [({}, []), ({"dark_below": 35.0, "light_above": 65.0}, []), ({"dark_below": 30.0}, [30.0, 65.0])]
)
def test_a_study_of_three_values_is_read_as_it_was(plain: Plain, limits):
    found = TONE.upgrades[0]({"ground": "dark umber", **plain}, {})
    assert found["limits"] == limits and found["ground"] == "dark umber" and "dark_below" not in found
