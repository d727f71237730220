"""The ways: handbook paces worked out by hand, what does not do and why, own times."""

from dataclasses import replace

import pytest

from yarrow_lane.transfer.job import Job
from yarrow_lane.transfer.offers import advised, minutes_for, minutes_of, offer
from yarrow_lane.transfer.projector import Projector, project
from yarrow_lane.transfer.record import Transfer, mark_carried, not_carried, parts_left, ways_of
from yarrow_lane.transfer.ways import Stint, Ways, deed_words, pace_of

MIDDLE = Job(400.0, 500.0, 1200.0, 60.0, 80, 14, 1.5, 6, None)


def test_paces_are_those_of_the_handbook():
    """Squares 1.5 min each and 15 of ruling; tracing 25 min + 1 min per 20 cm2; projector 20 min + 1 min per 60 cm2."""
    assert offer("squares", MIDDLE).minutes == pytest.approx(15 + 80 * 1.5)
    assert offer("tracing", MIDDLE).minutes == pytest.approx(25 + 1200 / 20)
    assert offer("projector", MIDDLE).minutes == pytest.approx(20 + 1200 / 60)
    assert offer("tracing", MIDDLE, what="details").minutes == pytest.approx(25 + 60 / 20)
    assert offer("squares", MIDDLE, what="details").minutes == pytest.approx(15 + 14 * 1.5)


def test_what_does_not_do_says_why():
    assert "describe your projector" in offer("projector", MIDDLE).why_not
    faint = project(Projector(1.2, 1280, 800, 150.0, 500.0), 1000.0, 1000.0, 300.0)
    assert "darken the room to 47" in offer("projector", replace(MIDDLE, projected=faint)).why_not, (
        "the design's second example"
    )
    assert "too coarse for eyes" in offer("by eye", MIDDLE).why_not and offer("by eye", MIDDLE, what="outline").why_not == ""
    many = replace(MIDDLE, width_mm=800.0, height_mm=1000.0, sheets=20)
    assert "sheets" in offer("tracing", many).why_not and offer("squares", many).why_not == ""
    assert "too many" in offer("tracing", replace(many, sheets=None)).reach


def test_the_advice_is_the_quickest_that_does_alone_or_as_two():
    assert advised(MIDDLE) == Ways("tracing", "tracing")
    bright = project(Projector(), 400.0, 500.0, 20.0)
    assert advised(replace(MIDDLE, projected=bright)) == Ways("projector", "projector")
    coarse = project(Projector(1.5, 400, 300), 800.0, 1000.0, 5.0)  # few px on a large canvas: 7.5 mm lines
    large = replace(MIDDLE, width_mm=800.0, height_mm=1000.0, subject_cm2=6000.0, details_cm2=300.0, sheets=20, squares=400,
                    detail_squares=20, projected=coarse)  # fmt: skip
    both = advised(large)
    assert both == Ways("projector", "squares") and both.words == "projector, then squares"
    assert minutes_of(large, both) == pytest.approx(sum(minutes_for(large, both, what) for what in ("outline", "details")))
    assert minutes_of(large, both) < minutes_of(large, Ways("squares", "squares"))
    wall = replace(MIDDLE, width_mm=3000.0, height_mm=2000.0, subject_cm2=36_000.0, sheets=None)
    assert advised(wall).outline in ("squares", "scribble marks")


def test_own_times_count_from_two_on():
    one = (Stint("tracing", 60.0, 120.0),)
    assert pace_of("tracing", one) is None and not offer("tracing", MIDDLE, one).own
    slow = (*one, Stint("tracing", 100.0, 200.0), Stint("squares", 10.0, 1.0))
    assert pace_of("tracing", slow) == 2.0
    assert offer("tracing", MIDDLE, slow).minutes == pytest.approx(2 * 85) and offer("tracing", MIDDLE, slow).own
    assert advised(MIDDLE, slow).one != "tracing"


def test_parts_are_carried_over_one_by_one():
    transfer = Transfer(ways=Ways("projector", "squares"))
    assert parts_left(transfer) == ("outline", "details")
    drawn = mark_carried(transfer, ("outline",), "projector", 40.0)
    assert parts_left(drawn) == ("details",) and drawn.carried[0].minutes == 40.0
    assert parts_left(not_carried(drawn, ("outline",))) == ("outline", "details")
    both = mark_carried(Transfer(), ("outline", "details"), "tracing", 90.0)
    assert [c.minutes for c in both.carried] == [45.0, 45.0]
    assert ways_of(Transfer()) == Ways() and ways_of(Transfer(count=8)).one == "squares"
    assert deed_words("projector", "the outline") == "Trace the outline from the projector"
