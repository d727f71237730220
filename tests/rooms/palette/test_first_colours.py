"""Colours in words, mixes that count, and where the first colours are taken."""

import numpy as np
import pytest

from yarrow_lane.measure.colour.cielab import lab_from_srgb8, lightness_from_srgb8
from yarrow_lane.palette.mixes import counts_as_mix
from yarrow_lane.palette.proposed import proposed_places
from yarrow_lane.palette.words import beside_words, hue_words


@pytest.mark.parametrize(
    ("srgb", "words"),
    [
        ((128, 128, 128), "grey"),
        ((200, 60, 40), "strong red, warm"),
        ((120, 95, 75), "orange, warm"),
        ((40, 60, 190), "strong blue, cool"),
        ((60, 110, 200), "strong blue, cool"),
        ((90, 140, 70), "green, cool"),
        ((235, 225, 205), "greyed yellow, warm"),
    ],
)
def test_a_colour_is_told_in_words(srgb, words):
    lab = lab_from_srgb8(np.array([[srgb]], np.uint8))[0, 0]
    assert hue_words(tuple(lab)) == words


def test_two_colours_are_told_apart_in_words():
    assert beside_words((60, 10, 20), (50, 4, 30)) == "lighter, redder, bluer"
    assert beside_words((50, 1, 1), (50, 0, 0)) == "much the same"


@pytest.mark.parametrize(
    "mix", ["white 6 : ochre 2", "titanium white 3, burnt umber 1", "2 parts of ochre + ½ sienna", "white 1"]
)
def test_a_mix_names_its_paints_in_parts(mix):
    assert counts_as_mix(mix)


@pytest.mark.parametrize("mix", ["", "something warm", "white : ochre 2", "6 : 2", "  ", "3"])
def test_what_names_no_parts_is_no_mix(mix):
    assert not counts_as_mix(mix)


def test_the_first_colours_are_even_patches_dark_middle_and_light():
    import skimage.data

    picture = skimage.data.astronaut()
    places = proposed_places(picture, 2.0, 4.0)
    light = lightness_from_srgb8(picture)
    found = [light[int(2 * y) - 4 : int(2 * y) + 4, int(2 * x) - 4 : int(2 * x) + 4] for x, y in places]
    means = [float(f.mean()) for f in found]
    assert len(places) == 3 and means[0] < 25 and means == sorted(means) and means[2] > 70
    assert all(f.std() < 6 for f in found), "even, not half of one thing and half of another"
    assert proposed_places(picture, 2.0, 400.0) == ()
