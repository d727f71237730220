"""Close-up swelling against a pinhole camera built in the test."""

import numpy as np
import pytest

from yarrow_lane.intake.landmarks import TEMPLATES, Landmark, head_length_px
from yarrow_lane.intake.swelling import SwellingTrouble, camera_distance_mm, swelling, swelling_words


def test_the_handbook_example():
    """At 50 cm a muzzle 12 cm in front of the eyes is 1.3 times too large (handbook, stage 1)."""
    assert swelling(500, 120) == pytest.approx(500 / 380)
    assert swelling_words(swelling(500, 120)) == "the nose is 1.3 times too large"


@pytest.mark.parametrize("distance", [350.0, 500.0, 900.0, 2500.0])
@pytest.mark.parametrize("focal_35", [24.0, 50.0, 85.0])
@pytest.mark.parametrize("size", [(4000, 3000), (3000, 4000), (1500, 1500)])
def test_a_projected_head_tells_the_distance_back(distance, focal_35, size):
    """Project a head of 230 mm and a muzzle 110 mm nearer through a pinhole; measure the picture; compare."""
    focal_px = focal_35 / np.hypot(36, 24) * np.hypot(*size)
    head_px = focal_px * 230 / distance
    assert camera_distance_mm(focal_35, size, head_px, 230) == pytest.approx(distance)
    same_width_far, same_width_near = focal_px * 40 / distance, focal_px * 40 / (distance - 110)
    assert swelling(distance, 110) == pytest.approx(same_width_near / same_width_far)


def test_a_camera_inside_the_head_is_refused():
    with pytest.raises(SwellingTrouble) as error:
        swelling(100, 120)
    assert error.value.remedy


def test_words_carry_the_number():
    assert swelling_words(1.04) == "× 1.04, true enough"
    assert swelling_words(1.14) == "the nose is 1.14 times too large"


def test_heads_are_measured_from_crown_to_chin():
    marks = (Landmark("crown", 10, 10), Landmark("nose tip", 50, 50), Landmark("chin", 40, 50))
    assert head_length_px(marks) == pytest.approx(50)
    assert head_length_px(marks[:2]) is None


def test_each_kind_of_sitter_has_its_template():
    for kind, names in TEMPLATES.items():
        assert {"chin", "crown"} <= set(names), kind
        assert len(set(names)) == len(names)
    assert "left ear tip" in TEMPLATES["dog"] and "left ear tip" not in TEMPLATES["person"]
    assert TEMPLATES["bird"][0] == "beak tip"
