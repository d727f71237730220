"""Colours in words, mixes that count, and mixes read by the tubes they name."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from yarrow_lane.measure.colour.cielab import lab_from_srgb8
from yarrow_lane.palette.harmony import families, families_of_picture, family
from yarrow_lane.palette.mixes import counts_as_mix
from yarrow_lane.palette.recipe import RecipeTrouble, Share, parts_text, read_recipe, recipe_words
from yarrow_lane.palette.words import beside_words, hue_words

NAMES = {1: "titanium white", 2: "yellow ochre", 3: "burnt sienna", 4: "burnt umber", 5: "ultramarine blue"}


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


@pytest.mark.parametrize(
    ("text", "recipe"),
    [
        ("white 6 : ochre 2", ((1, 6.0), (2, 2.0))),
        ("6 titanium white : 2 yellow ochre : ½ burnt sienna", ((1, 6.0), (2, 2.0), (3, 0.5))),
        ("2 parts of ochre + 1½ sienna", ((2, 2.0), (3, 1.5))),
        ("blue 1/8; white 3", ((1, 3.0), (5, 0.125))),
        ("burnt umber and blue", ((4, 1.0), (5, 1.0))),
        ("white 2,5 : ochre 1", ((1, 2.5), (2, 1.0))),
        ("ochre 1 : ochre 2", ((2, 3.0),)),
    ],
)
def test_a_mix_is_read_by_the_tubes_it_names(text, recipe):
    assert tuple((s.tube, s.parts) for s in read_recipe(text, NAMES)) == recipe


@pytest.mark.parametrize(
    ("text", "why"),
    [
        ("burnt 2 : white 1", "may be burnt sienna or burnt umber"),
        ("sap green 2", "no tube in the paintbox is called “sap green”"),
        ("", "names no parts"),
        ("white 0 : ochre 0", "names no parts"),
        ("white 1/0", "is no number of parts"),
    ],
)
def test_a_mix_that_cannot_be_read_says_why(text, why):
    with pytest.raises(RecipeTrouble) as trouble:
        read_recipe(text, NAMES)
    assert why in str(trouble.value)


@given(st.dictionaries(st.sampled_from(list(NAMES)), st.sampled_from([1, 2, 4, 6, 8, 12, 16, 20, 24, 48, 96, 192]), min_size=1))
def test_what_is_written_is_read_again(parts):
    recipe = tuple(Share(t, e / 8) for t, e in sorted(parts.items(), key=lambda p: -p[1]))
    again = read_recipe(recipe_words(recipe, NAMES), NAMES)
    assert {(s.tube, s.parts) for s in again} == {(s.tube, s.parts) for s in recipe}


def test_parts_are_said_in_eighths():
    assert [parts_text(v) for v in (6, 0.5, 2.5, 0.125, 0.3)] == ["6", "½", "2½", "⅛", "0.3"]


def test_hues_are_counted_in_families(cat):
    assert family((50, 1, 1)) == "grey" and family((50, 30, 40)) == "orange"
    assert families([(50, 30, 40), (50, 0, 0), (40, 28, 41)])[0] == ("orange", pytest.approx(2 / 3))
    found = families_of_picture(lab_from_srgb8(cat))
    assert sum(share for _, share in found) <= 1.001 and found[0][0] in ("orange", "yellow", "grey")
