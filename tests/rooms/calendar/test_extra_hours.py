"""Hours on single days, longer days, and the words and tenths that the calendar tells."""

from datetime import date, datetime, timedelta

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from yarrow_lane.calendar.dates import DABS, Dates, reached_by, tenths
from yarrow_lane.calendar.own_time import (
    DAY_MIN,
    Engagement,
    OwnTime,
    Span,
    add_days,
    lengthen,
    minutes_on,
    no_extra,
    spans_on,
    take_off,
    with_engagements,
)
from yarrow_lane.calendar.pace import factor_words
from yarrow_lane.commission.studio import Studio, press, press_before
from yarrow_lane.easel.touches import room_words
from yarrow_lane.measure.days import moved_text
from yarrow_lane.measure.words import counted

MONDAY, SATURDAY = date(2026, 3, 2), date(2026, 3, 7)


def test_an_hour_more_joins_the_hours_it_follows():
    own = lengthen(OwnTime(), [MONDAY, SATURDAY])
    assert [(s.begin, s.end) for s in spans_on(own, MONDAY)] == [(600, 900)], "one sitting, not two"
    assert minutes_on(own, MONDAY) == minutes_on(OwnTime(), MONDAY) + 60
    assert minutes_on(own, SATURDAY) == 0, "a day without hours is not begun by an hour"
    assert spans_on(own, MONDAY + timedelta(days=7)) == spans_on(OwnTime(), MONDAY), "other weeks are as before"
    twice = lengthen(own, [MONDAY])
    assert minutes_on(twice, MONDAY) == minutes_on(own, MONDAY) + 60
    assert no_extra(twice) == OwnTime()


def test_an_hour_more_ends_at_midnight():
    late = OwnTime(hours=((Span(1200, DAY_MIN - 20),), (Span(1200, DAY_MIN),), (), (), (), (), ()))
    assert minutes_on(lengthen(late, [MONDAY]), MONDAY) == 240
    assert lengthen(late, [date(2026, 3, 3)]) == late


def test_days_off_and_engagements_count_for_extra_hours_too():
    own = add_days(OwnTime(), [SATURDAY])
    assert minutes_on(own, SATURDAY) == 240
    fair = Engagement(datetime(2026, 3, 7, 10), datetime(2026, 3, 7, 13), "fair", "f.ics")
    assert minutes_on(with_engagements(own, "f.ics", (fair,)), SATURDAY) == 60
    assert minutes_on(take_off(own, SATURDAY, SATURDAY), SATURDAY) == 0
    assert add_days(OwnTime(hours=((),) * 7), [SATURDAY]).extra == (), "no usual day to copy"


DAYS = st.lists(st.integers(0, 60), min_size=1, max_size=60)


@given(DAYS, st.integers(0, 60))
def test_dabs_dates_and_chance_tell_the_same(days, promised):
    """The chance in tenths is the count of dabs that lie before the promise, and a safe day is kept in 9 of 10."""
    dates = Dates(MONDAY, np.array(days))
    kept = dates.kept(MONDAY + timedelta(days=promised))
    assert kept == pytest.approx(sum(d <= promised for d in days) / len(days))
    assert dates.kept(dates.safe) >= 0.9 and dates.kept(dates.likely) >= 0.5
    assert dates.dabs[4] == dates.likely and dates.dabs[8] == dates.safe and len(dates.dabs) == DABS
    before = sum(d <= MONDAY + timedelta(days=promised) for d in dates.dabs[: DABS - 1])
    assert before == min(DABS - 1, tenths(kept))


def test_a_share_is_reached_by_the_first_day_that_has_it():
    days = np.array([[3, 1], [1, 1], [2, 1], [9, 5]])
    assert reached_by(days, 0.5).tolist() == [2, 1] and reached_by(days, 0.75).tolist() == [3, 1]
    assert reached_by(days, 0.76).tolist() == [9, 5]


def test_tenths_never_flatter():
    assert [tenths(x) for x in (0.0, 0.099, 0.1, 0.5, 0.899, 0.9, 0.3 * 3, 1.0)] == [0, 0, 1, 5, 8, 9, 9, 10]


@pytest.mark.parametrize(
    ("found", "said"),
    [
        (moved_text(1), "1 day later"), (moved_text(-3), "3 days earlier"), (counted(1, "pass"), "1 pass"), (counted(0, "pass"), "0 passes"),
        (counted(2, "stretch"), "2 stretches"), (counted(2, "portrait"), "2 portraits"), (factor_words(1.0), "as guessed"),
        (factor_words(1.254), "25\u202f% longer"), (factor_words(0.8), "20\u202f% less"), (room_words(1.1), "10\u202f% slower than reckoned"),
        (room_words(0.9), "10\u202f% quicker than reckoned"), (room_words(1.0), "as reckoned"),
    ],
)  # fmt: skip
def test_words(found, said):
    assert found == said


def test_pressed_before_the_promises_it_jumps_and_a_week_at_least():
    day = date(2026, 4, 20)
    studio = press_before(Studio(), "c1", day, (day - timedelta(days=12), None))
    assert studio.pressed == (("c1", 13),)
    assert press_before(Studio(), "c1", day, (None,)).pressed == (("c1", 7),)
    assert press(studio, "c1", 0).pressed == ()
