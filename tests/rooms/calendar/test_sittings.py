"""Sittings over the working days."""

from datetime import date

import pytest
from hypothesis import given
from hypothesis import strategies as st

from yarrow_lane.calendar.sittings import Week, Work, likely_finish, plan_sittings
from yarrow_lane.measure.days import monday_of, working_days_between

FRIDAY = date(2026, 3, 6)
WEEK = Week((0, 1, 2, 3, 4), 240, 10)


def test_the_nearest_promise_is_painted_first_and_weekends_are_free():
    works = [Work("far", 300, date(2026, 5, 1), 3), Work("near", 300, date(2026, 3, 12), 1.5), Work("none", 30, None, 0)]
    plan = plan_sittings(works, FRIDAY, WEEK)
    assert [(s.commission_id, s.day, s.minutes) for s in plan] == [
        ("near", FRIDAY, 240),
        ("near", date(2026, 3, 9), 60),
        ("far", date(2026, 3, 9), 180),
        ("far", date(2026, 3, 10), 120),
        ("none", date(2026, 3, 10), 30),
    ]
    assert likely_finish(works[1], plan, FRIDAY) == date(2026, 3, 11)


@given(
    st.lists(st.tuples(st.floats(1, 3000), st.integers(0, 60)), max_size=8),
    st.sets(st.integers(0, 6), min_size=1),
    st.floats(30, 600),
)
def test_all_work_is_planned_and_no_day_is_overfull(work, weekdays, minutes):
    works = [Work(str(n), m, date.fromordinal(FRIDAY.toordinal() + due), 0) for n, (m, due) in enumerate(work)]
    week = Week(tuple(sorted(weekdays)), minutes)
    plan = plan_sittings(works, FRIDAY, week)
    assert sum(s.minutes for s in plan) == pytest.approx(sum(w.minutes_left for w in works))
    assert all(s.day.weekday() in weekdays for s in plan)
    for day in {s.day for s in plan}:
        assert sum(s.minutes for s in plan if s.day == day) <= minutes + 1e-6


def test_no_working_day_plans_nothing():
    assert plan_sittings([Work("a", 60, None, 0)], FRIDAY, Week(())) == ()


def test_working_days():
    assert working_days_between(FRIDAY, date(2026, 3, 11), WEEK.weekdays) == 3
    assert working_days_between(date(2026, 3, 11), FRIDAY, WEEK.weekdays) == -3
    assert monday_of(FRIDAY) == date(2026, 3, 2)
