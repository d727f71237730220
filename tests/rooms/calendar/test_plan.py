"""Sittings over all commissions: lawful by an independent checker, as good as CP-SAT where it proves, stable, with pins."""

import pickle
from dataclasses import replace
from datetime import UTC, date, datetime, timedelta

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.rooms.calendar.checker import faults
from tests.rooms.calendar.optimum import optimum
from tests.rooms.calendar.studios import DAY, MONDAY, OWN, portrait, small_changes, studio
from yarrow_lane.calendar.jobs import Work, job_of
from yarrow_lane.calendar.laying import Laying
from yarrow_lane.calendar.own_time import OwnTime, Span, take_off
from yarrow_lane.calendar.plan import DETAILED_DAYS, moved_since, plan
from yarrow_lane.calendar.question import thorough
from yarrow_lane.calendar.ranking import ranked
from yarrow_lane.calendar.search import Search
from yarrow_lane.calendar.sittings import Pin
from yarrow_lane.calendar.windows import windows
from yarrow_lane.lane.standing import BEFORE, Task

NOW = MONDAY.replace(hour=8)


def laid(works, own=OWN, days=120, effort=3000, pins=None):
    jobs = [job_of(w) for w in works]
    free = windows(own, MONDAY, days)
    search = Search(Laying(jobs, free, own, [[0] * len(j.stints) for j in jobs], pins or {}), lambda laying: 0.0)
    search.begin(search.whole(ranked(jobs, free)))
    search.better(effort)
    return search.laid(), free


def late(laying) -> int:
    return sum(max(0, f - d) for f, d in zip(laying.finish, laying.due, strict=True))


@settings(max_examples=25, deadline=None)
@given(st.integers(0, 10_000), st.integers(1, 5), st.integers(2, 9), st.sampled_from([0, 45]))
def test_a_plan_has_no_faults(seed, count, passes, shortest):
    own = replace(OWN, shortest=shortest)
    laying, free = laid(studio(count, passes, seed), own, 200, 600)
    assert faults(laying, free, own) == []


@pytest.mark.parametrize("seed", [100, 104, 107, 111])
def test_it_is_as_good_as_what_cp_sat_proves(seed):
    """All twenty are run by the bench; here four, each proved in seconds."""
    laying, free = laid(studio(3, 4, seed, 1.6, False), OWN, 40, 40_000)
    status, best, _ = optimum(laying.jobs, free, OWN, laying.start, 40)
    assert status == "OPTIMAL" and late(laying) == best


def test_the_same_work_gives_the_same_plan():
    works = studio(4, 8, 5)
    assert plan(works, NOW, OWN).sittings == plan(works, NOW, OWN).sittings


def test_canvases_dry_while_others_are_painted():
    passes = tuple(Task(f"pass {n}", 60, ((n - 1, 4.5 * DAY),) if n else ((BEFORE, 0.0),)) for n in range(8))
    oil = Work("oil", date(2026, 3, 10), (passes,))
    found = plan([oil, Work("acrylic", date(2026, 6, 1), ((Task("paint", 600),),))], NOW, OWN)
    days = [s.day for s in found.of("oil")]
    assert len(days) == 8 and (days[-1] - days[0]).days >= 31
    assert found.of("acrylic")[0].day == MONDAY.date(), "the easel is not left empty while the oil dries"


def test_a_sitting_says_which_passes_and_what_waits_counts():
    tasks = (Task("block-in", 90, key="1:a"), Task("tips", 30, ((0, 20.0),), key="1:b"))
    rest = (Task("look", 60, ((BEFORE, 48 * 60.0),), whole=True), Task("on its way", 0, ((0, 2 * DAY),), whole=True))
    found = plan([Work("a", None, (tasks, rest))], NOW, OWN)
    first = found.of("a")[0]
    assert [(a.key, a.minutes) for a in first.acts] == [("1:a", 90), ("1:b", 30)] and first.start.hour == 9
    assert found.finish["a"] == MONDAY.date() + timedelta(days=4), "painted Monday, looked at Wednesday, there on Friday"


def test_a_pinned_sitting_stays_and_the_rest_moves_round_it():
    works = studio(3, 8, 3)
    before = plan(works, NOW, OWN)
    sitting = before.of("c0")[0]
    day = sitting.day + timedelta(days=2 if (sitting.day + timedelta(days=2)).weekday() < 5 else 4)
    start = datetime(day.year, day.month, day.day, 13, 30)
    pin = Pin("c0", tuple(a.key for a in sitting.acts), start, 60)
    found = plan(works, NOW, OWN, (pin,), before)
    pinned = [s for s in found.sittings if s.pinned]
    assert [s.commission_id for s in pinned] == ["c0"] and pinned[0].start <= start < pinned[0].end
    assert found.broken == () and len(found.sittings) >= len(before.sittings)


def test_a_pin_on_wet_paint_gives_way_and_is_said():
    tasks = (Task("first", 60, key="a"), Task("second", 60, ((0, 5.0 * DAY),), key="b"))
    pin = Pin("o", ("b",), datetime(2026, 3, 3, 9, 30), 60)
    found = plan([Work("o", None, (tasks,))], NOW, OWN, (pin,))
    assert found.broken == (pin,)
    starts = {a.key: s.start for s in found.sittings for a in s.acts}
    assert starts["b"] - starts["a"] >= timedelta(days=5)


def test_a_small_change_moves_little_of_the_week():
    """A pass that takes longer, a promise a day earlier, a new piece: half a sitting on average at most (the bench runs more)."""
    moved = []
    for seed in range(4):
        works = studio(6, 12, seed + 50, 0.9)
        before = plan(works, NOW, OWN)
        for changed in small_changes(works, seed):
            moved.append(moved_since(before, plan(changed, NOW, OWN, (), before)))
    assert sum(moved) / len(moved) <= 0.5 and before.of("c0")


def test_searching_on_never_makes_it_later():
    works = studio(4, 10, 8, 1.3)
    quick = plan(works, NOW, OWN)
    better = thorough(works, NOW, OWN, (), quick)
    assert better.late <= quick.late + 1


def test_daylight_is_kept():
    own = OwnTime(hours=(*((Span(360, 1320),),) * 5, (), ()), shortest=0)
    tasks = tuple(Task(f"skin {n}", 60, daylight=True, key=str(n), palette="s") for n in range(12))
    found = plan([Work("a", None, (tasks,))], datetime(2026, 12, 21, 6, 0, tzinfo=UTC), own)
    assert all(s.start.hour >= 8 and s.end.hour <= 15 for s in found.sittings), "between 8:50 and 15:15 at Greenwich"


def test_days_off_are_free_and_no_hours_plan_nothing():
    away = take_off(OWN, MONDAY.date(), MONDAY.date() + timedelta(days=6))
    assert plan([Work("a", None, ((Task("paint", 60),),))], NOW, away).of("a")[0].day == date(2026, 3, 9)
    none = plan([Work("a", date(2026, 3, 3), ((Task("paint", 60),),))], NOW, OwnTime(hours=((),) * 7))
    assert none.sittings == () and none.finish == {"a": None}
    assert plan([], NOW, OWN).sittings == ()


def test_a_pass_of_three_hundred_hours_and_a_promise_yesterday():
    monster = Work("m", date(2026, 3, 1), ((Task("paint", 300 * 60.0, key="1"),),))
    found = plan([monster, portrait(__import__("numpy").random.default_rng(1), "p", 6, date(2026, 4, 1))], NOW, OWN)
    assert sum(s.minutes for s in found.of("m")) == 18_000 and found.late > 0
    assert found.finish["m"] > date(2026, 5, 1)


def test_what_lies_beyond_half_a_year_is_told_by_its_hours():
    works = [Work(f"w{n:03d}", date(2026, 4, 1) + timedelta(days=n), ((Task("paint", 6000.0),),)) for n in range(30)]
    found = plan(works, NOW, OWN)
    assert len(found.ids) < 30 and all(found.finish.values())
    assert sum(s.minutes for s in found.sittings) <= 1.6 * DETAILED_DAYS * 300 + 6000
    days = [found.finish[w.commission_id] for w in works]
    assert days[-1] > days[5]


def test_the_clock_set_back_plans_from_the_new_now():
    works = studio(2, 5, 1)
    later = plan(works, NOW + timedelta(days=5), OWN)
    back = plan(works, NOW, OWN, (), later)
    assert back.sittings[0].day == MONDAY.date()


@pytest.mark.parametrize("seed", range(4))
def test_each_sitting_belongs_to_one_commission_and_stays_in_order(seed):
    found = plan(studio(5, 8, seed), NOW, OWN)
    for cid in (*found.finish, "nobody"):
        assert found.of(cid) == tuple(s for s in found.sittings if s.commission_id == cid)
    assert found.sittings and sum(len(found.of(cid)) for cid in found.finish) == len(found.sittings)
    sent = pickle.loads(pickle.dumps(found))  # as it goes to a worker, after it was asked
    assert sent.sittings == found.sittings and all(sent.of(cid) == found.of(cid) for cid in found.finish)
    fewer = replace(found, sittings=found.sittings[:1])
    assert sum(len(fewer.of(cid)) for cid in found.finish) == 1, "another plan does not remember this one"
