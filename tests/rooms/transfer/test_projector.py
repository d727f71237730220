"""The projector's sums against examples worked out by hand (SI: lx = lm/m2), and what a tape says."""

import math

import numpy as np
import pytest
from skimage.transform import SimilarityTransform

from yarrow_lane.transfer.projector import (
    Projector,
    ProjectorTrouble,
    knocked,
    knocked_words,
    project,
    read_words,
    squared,
    squared_words,
)


def test_a_usual_projector_on_40_by_50_cm():
    found = project(Projector(1.5, 1920, 1080, 500, 1000), 400, 500, 20)
    assert (found.width_mm, found.height_mm) == pytest.approx((888.9, 500), abs=0.05)  # 500 x 16 / 9
    assert found.distance_mm == pytest.approx(1333, abs=0.5) and found.mm_per_px == pytest.approx(0.463, abs=5e-4)
    assert found.lux == pytest.approx(1125, abs=1)  # 500 lm on 0.4444 m2
    assert found.contrast == pytest.approx(1145 / (1.125 + 20), abs=0.05) and found.finest_mm == pytest.approx(1.39, abs=0.005)
    assert found.most_lux == pytest.approx(561, abs=1) and read_words(found.contrast) == "easy"
    at_most = project(Projector(1.5, 1920, 1080, 500, 1000), 400, 500, found.most_lux)
    assert at_most.contrast == pytest.approx(3, abs=1e-6), "at that light an outline is just read"


def test_a_weak_one_on_a_square_metre_in_daylight():
    found = project(Projector(1.2, 1280, 800, 150, 500), 1000, 1000, 300)
    assert found.width_mm == 1600 and found.distance_mm == 1920 and found.lux == pytest.approx(93.75)
    assert found.contrast == pytest.approx(393.75 / 300.19, abs=0.005) and found.most_lux == pytest.approx(46.6, abs=0.05)
    assert read_words(found.contrast) == "lost"


def test_turned_on_its_side_it_is_brighter_and_finer():
    found = project(Projector(1.5, 1920, 1080, 500, 1000, True), 400, 500, 20)
    assert (found.width_mm, found.height_mm) == pytest.approx((400, 711), abs=0.5)
    assert found.lux == pytest.approx(1758, abs=1) and found.mm_per_px == pytest.approx(0.37, abs=0.001)
    assert found.distance_mm == pytest.approx(1.5 * 711.1, abs=0.5), "the throw is told of the longer side"


@pytest.mark.parametrize("bad", [{"lumens": 0}, {"throw": -1}, {"wide_px": 0}, {"contrast": 1}, {"lumens": math.nan}])
def test_a_projector_that_shows_nothing_is_said(bad):
    with pytest.raises(ProjectorTrouble, match="Nothing can be projected, because"):
        project(Projector(**bad), 400, 500, 20)


def test_diagonals_find_the_lean_and_not_the_keystone():
    lean = squared(400, 400, 400, 645.3, 635.3)
    assert (
        lean.lean_mm == pytest.approx(8.0, abs=0.05) and not lean.holds and "to the right at the foot" in squared_words(lean)[0]
    )
    top, foot, high = 410.0, 390.0, 500.0
    diagonal = math.hypot((top + foot) / 2, high)
    keystone = squared(400, top, foot, diagonal, diagonal)
    assert keystone.lean_mm == 0 and keystone.taper_mm == 20 and "The top is 20 mm wider" in squared_words(keystone)[0]
    right = squared(400, 400.4, 399.8, 640.3, 640.4)
    assert right.holds and squared_words(right) == ("It is square, as far as a tape can tell.",)
    with pytest.raises(ProjectorTrouble, match="a length is missing"):
        squared(400, 400, 0, 640, 640)


def test_after_a_knock_the_light_is_brought_back():
    crosses = np.array([(0.0, 0.0), (400.0, 0.0), (400.0, 500.0), (0.0, 500.0)])
    true = SimilarityTransform(scale=0.99, rotation=math.radians(0.8), translation=(4, -3))
    light = true(crosses)
    shift, degrees, scale = knocked([tuple(p) for p in crosses.tolist()], [tuple(p) for p in light.tolist()])
    back = true.inverse
    assert scale == pytest.approx(back.scale) and degrees == pytest.approx(math.degrees(back.rotation), abs=1e-9)
    assert shift == pytest.approx(tuple(crosses.mean(0) - light.mean(0)))
    words = knocked_words(shift, degrees, scale)
    assert words.startswith("Slide the light") and "anticlockwise" in words and "back" in words
    assert knocked_words((0.2, -0.3), 0.01, 1.0) == "The crosses meet."
    with pytest.raises(ProjectorTrouble):
        knocked([(0, 0)], [(1, 1)])
    with pytest.raises(ProjectorTrouble):
        knocked([(0, 0), (10, 0)], [(1, 1), (1, 1)])
