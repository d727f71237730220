"""Tasks over the working days: promises, drying, rests, and a day that is nearly over."""

import itertools
from datetime import UTC, date, datetime, timedelta

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from yarrow_lane.calendar.planning import DETAILED_DAYS, Work, plan
from yarrow_lane.calendar.week import Week, minutes_left_today
from yarrow_lane.lane.standing import BEFORE, Task
from yarrow_lane.measure.days import monday_of, working_days_between

FRIDAY = datetime(2026, 3, 6, 9, 0, tzinfo=UTC)
DAY = FRIDAY.date()
WEEK = Week((0, 1, 2, 3, 4), 240, 10)
HOUR, A_DAY = 60.0, 1440.0


def work(name: str, minutes: float, promised: date | None = None, *more: Task) -> Work:
    return Work(name, promised, ((Task("paint", minutes),), *((m,) for m in more)))


def sittings(found) -> list[tuple[str, date, float]]:
    return sorted(
        ((s.commission_id, s.day, s.minutes) for of in found.sittings.values() for s in of), key=lambda s: (s[1], s[0])
    )


def test_the_nearest_promise_is_painted_first_and_weekends_are_free():
    works = [work("far", 300, date(2026, 5, 1)), work("near", 300, date(2026, 3, 12)), work("none", 30)]
    assert sittings(plan(works, FRIDAY, WEEK)) == [
        ("near", DAY, 240),
        ("far", date(2026, 3, 9), 180),
        ("near", date(2026, 3, 9), 60),
        ("far", date(2026, 3, 10), 120),
        ("none", date(2026, 3, 10), 30),
    ]


def test_an_oil_waits_between_its_passes_and_others_are_painted_meanwhile():
    """Eight passes of an hour, 4.5 days of drying each: the last can begin 31.5 days after the first ended, not in two days."""
    passes = tuple(Task(f"pass {n}", 60, ((n - 1, 4.5 * A_DAY),) if n else ((BEFORE, 0.0),)) for n in range(8))
    oil = Work("oil", date(2026, 3, 10), (passes,))
    found = plan([oil, work("acrylic", 600, date(2026, 6, 1))], FRIDAY, WEEK)
    days = [s.day for s in found.sittings["oil"]]
    assert len(days) == 8 and (days[-1] - days[0]).days >= 31
    assert all((b - a).days >= 4 for a, b in itertools.pairwise(days))
    assert found.sittings["acrylic"][0].day == DAY, "the easel is not left empty while the oil dries"
    assert found.finish["oil"] == days[-1]


def test_waits_after_the_painting_count_and_start_when_it_ends():
    rest = Task("look", 60, ((BEFORE, A_DAY),), whole=True)
    found = plan([work("a", 240, None, rest)], FRIDAY, WEEK)
    assert found.finish["a"] == date(2026, 3, 9), "Friday, a day of rest over the weekend, then Monday"
    later = Task("look", 60, earliest=datetime(2026, 3, 20, 15, 0, tzinfo=UTC), whole=True)
    assert plan([work("a", 240, None, later)], FRIDAY, WEEK).finish["a"] == date(2026, 3, 23), (
        "15:00 is past Friday's four hours"
    )


def test_a_step_of_some_minutes_goes_before_hours_of_painting():
    varnish = Work("done", date(2026, 6, 1), ((Task("varnish", 15, whole=True), Task("pack", 30, ((0, A_DAY),), whole=True)),))
    found = plan([work("late", 2000, date(2026, 3, 7)), varnish], FRIDAY, WEEK)
    assert found.sittings["done"][0].day == DAY


@pytest.mark.parametrize(
    ("hour", "painted", "left"), [(9, 0, 240), (9, 200, 40), (9, 300, 0), (20, 0, 120), (21, 30, 60), (22, 0, 0), (23, 0, 0)]
)
def test_what_is_left_of_today(hour, painted, left):
    assert minutes_left_today(WEEK, FRIDAY.replace(hour=hour), painted) == left
    assert minutes_left_today(WEEK, (FRIDAY + timedelta(days=1)).replace(hour=hour), 0) == 0, "Saturday"


def test_at_eleven_at_night_nothing_is_planned_for_today():
    late = plan([work("a", 60)], FRIDAY.replace(hour=23), WEEK)
    assert late.sittings["a"][0].day == date(2026, 3, 9)
    assert plan([work("a", 60)], FRIDAY, WEEK, painted_today=230).sittings["a"][0].day == date(2026, 3, 9)


@given(
    st.lists(st.tuples(st.floats(1, 3000), st.integers(0, 60), st.booleans()), max_size=8),
    st.sets(st.integers(0, 6), min_size=1),
    st.floats(30, 600),
)
def test_all_work_is_planned_and_no_day_is_overfull(loads, weekdays, minutes):
    assume(sum(m for m, _, _ in loads) < 0.9 * DETAILED_DAYS * minutes)
    due = [date.fromordinal(DAY.toordinal() + d) for _, d, _ in loads]
    works = [
        work(str(n), m, due[n], *((Task("rest", 0, ((BEFORE, 2 * A_DAY),)),) if rests else ()))
        for n, (m, _, rests) in enumerate(loads)
    ]
    found = plan(works, FRIDAY, Week(tuple(sorted(weekdays)), minutes))
    every = sittings(found)
    assert sum(s[2] for s in every) == pytest.approx(sum(m for m, _, _ in loads))
    assert all(day.weekday() in weekdays for _, day, _ in every)
    for day in {s[1] for s in every}:
        assert sum(m for _, d, m in every if d == day) <= minutes + 1e-6
    for n, (_, _, rests) in enumerate(loads):
        last = found.sittings[str(n)][-1].day
        assert (found.finish[str(n)] - last).days >= (2 if rests else 0)


def test_what_lies_beyond_a_year_is_told_by_its_hours():
    whole = 240.0 * (DETAILED_DAYS + 100)
    found = plan([work("first", whole, date(2026, 4, 1)), work("second", 2400, date(2026, 5, 1))], FRIDAY, WEEK)
    expected = (DETAILED_DAYS + 100) * 7 / 5
    assert (found.finish["first"] - DAY).days == pytest.approx(expected, rel=0.03)
    assert found.finish["second"] > found.finish["first"]


@pytest.mark.parametrize("busy", [0, 240 * 100, 240 * 400])
def test_half_a_year_of_drying_is_waited_for_once(busy):
    """Six months from the last pass to the varnish, whether the days between are empty, half full or over-full."""
    way_out = (
        Task("sign", 15),
        Task("varnish", 15, ((0, 0.0), (BEFORE, 182 * A_DAY)), whole=True),
        Task("pack", 30, ((1, A_DAY),)),
    )
    oil = Work("oil", date(2026, 3, 10), ((Task("paint", 480),), way_out))
    works = [oil, work("others", busy, date(2026, 12, 1))] if busy else [oil]
    found = plan(works, FRIDAY, WEEK)
    painted = next(s.day for s in found.sittings["oil"] if s.minutes)
    assert 182 <= (found.finish["oil"] - painted).days <= 182 + 10


def test_days_on_which_everything_dries_cost_nothing():
    """A chain of ten passes with a month between them ends after nine months, each with its sitting."""
    passes = tuple(Task(f"pass {n}", 60, ((n - 1, 30 * A_DAY),) if n else ((BEFORE, 0.0),)) for n in range(10))
    found = plan([Work("oil", None, (passes,))], FRIDAY, WEEK)
    assert len(found.sittings["oil"]) == 10 and 270 <= (found.finish["oil"] - DAY).days <= 290


def test_no_working_day_plans_nothing():
    found = plan([work("a", 60)], FRIDAY, Week(()))
    assert found.sittings["a"] == () and found.finish["a"] == DAY


def test_working_days():
    assert working_days_between(DAY, date(2026, 3, 11), WEEK.weekdays) == 3
    assert working_days_between(date(2026, 3, 11), DAY, WEEK.weekdays) == -3
    assert monday_of(DAY) == date(2026, 3, 2)
