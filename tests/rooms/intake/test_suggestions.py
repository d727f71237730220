"""The detector suggests both eyes or none, and on what has no face it stays silent."""

import math

import numpy as np
import pytest
import skimage.data

from yarrow_lane.demo.sitter_files import sitter_file
from yarrow_lane.intake.brief import SITTER_KINDS
from yarrow_lane.intake.opening import open_picture
from yarrow_lane.intake.suggestions import can_suggest, suggest_eyes


def test_a_face_seen_from_the_front():
    left, right = suggest_eyes(skimage.data.astronaut(), "person")
    # Pupils marked by hand at (204, 101.5) and (246.5, 103.6).
    assert math.dist((left.x, left.y), (204, 101.5)) < 4 and math.dist((right.x, right.y), (246.5, 103.6)) < 4
    assert left.radius_px == pytest.approx(3.4, rel=0.4)


def test_a_rendered_face_within_half_an_iris():
    sitter = sitter_file("person1")
    found = suggest_eyes(open_picture(sitter.jpeg, "person1").picture, "person")
    for guess, true in zip(found, sitter.eyes, strict=True):
        assert math.dist((guess.x, guess.y), (true.x, true.y)) < true.radius_px / 2


@pytest.mark.parametrize("name", ["coffee", "rocket"])
@pytest.mark.parametrize("kind", ["person", "cat"])
def test_no_face_no_guess(name, kind):
    assert suggest_eyes(getattr(skimage.data, name)(), kind) == ()


def test_kinds_without_a_detector_are_told_apart(cat):
    assert [k for k in SITTER_KINDS if can_suggest(k)] == ["person", "cat"]
    assert suggest_eyes(cat, "dog") == ()
    assert suggest_eyes(np.zeros((20, 30, 3), np.uint8), "person") == ()
