"""What may be painted now, and the clock."""

from datetime import timedelta

import pytest

from tests.conftest import NOON
from tests.rooms.layers.making import portrait
from yarrow_lane.easel.clock import minutes_logged, running, time_entries
from yarrow_lane.easel.session import Easel, EaselTrouble, choose_pass, finish_pass, pass_now, readiness, wet_until
from yarrow_lane.easel.standing import tasks_left
from yarrow_lane.lane.happening import ClockStarted, ClockStopped, HoursCorrected
from yarrow_lane.layers.sequence import sequence
from yarrow_lane.paint.drying import Climate

PASSES = sequence(portrait(), "acrylic", Climate(20, 50))


def test_nothing_is_painted_over_wet_paint():
    easel, now = Easel(), NOON
    for _ in PASSES:
        paint = pass_now(easel, PASSES, now)
        state = readiness(easel, paint, now)
        if not state.ready:
            assert state.dry_at > now and not state.waits_for
            now = state.dry_at
            state = readiness(easel, pass_now(easel, PASSES, now), now)
            paint = pass_now(easel, PASSES, now)
        assert state.ready
        if state.dry_since is not None:
            assert state.dry_since <= now
        now += timedelta(minutes=paint.minutes)
        easel = finish_pass(easel, paint, now)
    assert pass_now(easel, PASSES, now) is None
    assert wet_until(easel, now) > now
    assert wet_until(easel, now + timedelta(days=1)) is None


def test_a_wash_dries_in_its_time():
    wash = PASSES[0]
    easel = finish_pass(Easel(), wash, NOON)
    following = PASSES[1]
    dry = NOON + timedelta(minutes=wash.dry_minutes)
    assert readiness(easel, following, dry - timedelta(seconds=1)).dry_at == dry
    assert readiness(easel, following, dry).dry_since == dry
    assert readiness(Easel(), following, NOON).waits_for == (wash.id,)


def test_the_painters_choice_outranks_the_order():
    easel = choose_pass(Easel(), PASSES[5].id)
    assert pass_now(easel, PASSES, NOON) == PASSES[5]
    done = finish_pass(easel, PASSES[5], NOON)
    assert pass_now(done, PASSES, NOON) == PASSES[0]
    with pytest.raises(EaselTrouble, match="painted already"):
        finish_pass(done, PASSES[5], NOON)


def test_hours_are_summed_and_corrected():
    def at(minutes):
        return NOON + timedelta(minutes=minutes)

    log = (
        ClockStarted(at(0), "1:wash", "wash"),
        ClockStopped(at(30), "1:wash", "wash"),
        ClockStopped(at(31), "1:wash", "wash"),
        HoursCorrected(at(40), "1:wash", "wash", -10, "the kettle"),
        ClockStarted(at(50), "2:block", "block"),
    )
    assert minutes_logged(log) == 20
    assert minutes_logged(log, "2:block") == 0
    assert running(log).about == "2:block"
    assert [e.minutes for e in time_entries(log)] == [30, -10]


def test_what_is_painted_already_dries_from_when_it_was_painted():
    """An oil pass of ten days ago holds the next back by what is left of its drying, not by the whole of it."""
    passes = sequence(portrait(), "oil", Climate(20, 50))
    first = passes[0]
    easel = finish_pass(Easel(), first, NOON)
    assert first.dry_minutes > 120
    tasks = tasks_left(easel, passes, NOON)
    following = next(t for t, p in zip(tasks, passes[1:], strict=True) if first.id in {n.id for n in p.needs})
    assert following.earliest == NOON + timedelta(minutes=first.dry_minutes)
    assert not any(first.title in t.words for t in tasks)
    left = passes[1:]
    for task, paint in zip(tasks, left, strict=True):
        for place, lag in task.after:
            assert place < 0 or (left[place].id in {n.id for n in paint.needs} and lag == left[place].dry_minutes)
