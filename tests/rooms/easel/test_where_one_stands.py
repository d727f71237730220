"""Where the painter stands as the clock says, what a touch teaches, and the pass to take the brush for."""

from dataclasses import replace
from datetime import timedelta

import pytest

from tests.conftest import NOON
from tests.rooms.commission.making import fresh, shut_up_to
from yarrow_lane.commission.at_easel import NOWHERE, at_easel
from yarrow_lane.commission.standing import passes_in
from yarrow_lane.easel.clock import clock_face
from yarrow_lane.easel.reminders import reminders, wells_until
from yarrow_lane.easel.session import Easel, FinishedPass, finish_pass, pass_meanwhile, pass_now, pass_to_begin, readiness
from yarrow_lane.easel.touches import touched
from yarrow_lane.lane.happening import ClockStarted, ClockStopped
from yarrow_lane.measure.plane import Rect
from yarrow_lane.paint.drying import Climate
from yarrow_lane.palette.open_time import open_minutes

ROOM = Climate(20, 50)


def minutes(n: float) -> timedelta:
    return timedelta(minutes=n)


def test_nowhere_while_the_clock_stands():
    c = fresh()
    assert at_easel(c, ROOM, NOON) == NOWHERE
    log = (ClockStarted(NOON, "2:block", "fur"), ClockStopped(NOON + minutes(30), "2:block", "fur"))
    assert at_easel(replace(c, log=log), ROOM, NOON + minutes(31)) == NOWHERE


def test_how_long_without_a_break_and_how_long_the_wells_stay_soft():
    log = (ClockStarted(NOON, "2:block", "fur"),)
    c = replace(fresh(), log=log)
    here = at_easel(c, ROOM, NOON + minutes(6))
    assert (here.commission_id, here.pass_id, here.since_break) == (c.id, "2:block", 6.0)
    assert here.wells_open == pytest.approx(open_minutes(ROOM, False) - 6)
    assert at_easel(c, ROOM, NOON + minutes(600)).wells_open == 0.0


def test_oil_and_pastel_have_no_wells_that_skin():
    log = (ClockStarted(NOON, "2:block", "fur"),)
    assert wells_until(log, "oil", ROOM, NOON + minutes(1)) is None and wells_until(log, "soft pastel", ROOM, NOON) is None
    soft, slow = wells_until(log, "acrylic", ROOM, NOON), wells_until(log, "acrylic", replace(ROOM, retarder=1), NOON)
    assert slow > soft > NOON, "a retarder keeps them soft for longer"
    due = reminders(log, (), soft, soft + minutes(1))
    assert any("wells" in r.words for r in due) and not any("wells" in r.words for r in reminders(log, (), None, soft))


def test_a_clock_in_the_future_has_not_begun():
    log = (ClockStarted(NOON + minutes(60), "2:block", "fur"),)
    assert at_easel(replace(fresh(), log=log), ROOM, NOON) == NOWHERE


def test_the_brush_is_for_what_need_not_wait():
    passes = passes_in(shut_up_to("Easel"), ROOM)
    first = pass_now(Easel(), passes, NOON)
    assert pass_to_begin(Easel(), passes, NOON) == first, "nothing is wet yet"
    easel = Easel()
    for p in passes:
        if not readiness(easel, p, NOON).ready:
            break
        easel = finish_pass(easel, p, NOON)
    waits = replace(easel, chosen=p.id)
    assert pass_now(waits, passes, NOON) == p
    other = pass_meanwhile(waits, passes, NOON)
    assert pass_to_begin(waits, passes, NOON) == (other or p) and (other is None or readiness(waits, other, NOON).ready)
    later = NOON + minutes(60 * 24 * 3)
    if not readiness(waits, p, later).waits_for:
        assert pass_to_begin(waits, passes, later) == p, "dry: the one chosen after all"
    assert pass_to_begin(Easel(), (), NOON) is None


DONE = FinishedPass("a", NOON, 60.0, deficit=11.7)


@pytest.mark.parametrize(
    ("after", "dry", "moves", "words"),
    [
        (20, True, -1, "quicker than reckoned"), (90, False, 1, "slower than reckoned"), (90, True, 0, "noted as dry."),
        (30, False, 0, "wet, as reckoned."),
    ],
)  # fmt: skip
def test_a_touch_says_something_of_the_room_or_nothing(after, dry, moves, words):
    factor, said = touched(Easel((DONE,)), "a", NOON + minutes(after), 1.0, dry)
    assert (factor > 1) - (factor < 1) == moves and words in said


def test_what_is_said_is_the_factor_itself_not_its_change():
    factor, said = touched(Easel((DONE,)), "a", NOON + minutes(20), 1.8, True)
    assert 1 < factor < 1.8 and f"{round(100 * (factor - 1))}\u202f% slower than reckoned" in said


def test_oil_teaches_nothing():
    oil = Easel((replace(DONE, deficit=0.0),))
    assert touched(oil, "a", NOON + minutes(10), 1.3, True)[0] == 1.3 and touched(oil, "b", NOON, 1.3, False)[0] == 1.3


def test_the_face_of_the_clock():
    assert [clock_face(m) for m in (0, 0.99, 61.5, 600, -3)] == ["0:00:00", "0:00:59", "1:01:30", "10:00:00", "0:00:00"]


def test_air_round_a_place_stays_on_the_canvas():
    canvas = Rect(0, 0, 300, 400)
    assert Rect(100, 100, 100, 50).with_air(0.2, canvas) == Rect(80, 80, 140, 90)
    corner = Rect(0, 380, 50, 20).with_air(0.5, canvas)
    assert (corner.x, corner.right, corner.bottom) == (0, 75, 400) and corner.y == 355
