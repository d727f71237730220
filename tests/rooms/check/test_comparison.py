"""The photograph of the painting beside the reference."""

from datetime import timedelta

import pytest

from tests.conftest import NOON
from yarrow_lane.check.comparison import Check, CheckTrouble, note_seen, painting_rect, put_painting
from yarrow_lane.check.standing import stand


def test_the_painting_is_cut_to_the_canvas_shape():
    rect = painting_rect((4000, 3000), 0.8)
    assert rect.width / rect.height == pytest.approx(0.8) and rect.height == 3000 and rect.centre == (2000, 1500)
    assert painting_rect((1000, 3000), 0.8).width == 1000


def test_what_is_seen_is_written_down_and_stays():
    check = put_painting(note_seen(Check(), " ear too light "), "h", "x.jpg", (10, 10), NOON)
    assert check.seen == ("ear too light",) and (check.photo_id, check.at) == ("h", NOON)
    with pytest.raises(CheckTrouble):
        note_seen(check, "  ")


def test_the_door_shuts_with_a_photograph_of_the_finished_painting():
    early = put_painting(Check(made_from="old"), "h", "x.jpg", (10, 10), NOON)
    assert stand(Check(), NOON, True, "r").wants == "no photograph of the painting"
    assert stand(early, NOON + timedelta(days=1), True, "r").wants == "compare again when the painting is done"
    assert stand(early, NOON, False, "r").wants and stand(early, None, True, "r").wants
    assert stand(early, NOON - timedelta(days=1), True, "r").wants == ""


def test_a_new_photograph_is_compared_with_the_present_reference():
    assert put_painting(Check(made_from="old"), "h", "x.jpg", (10, 10), NOON).made_from == ""
