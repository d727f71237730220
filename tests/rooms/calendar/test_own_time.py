"""Hours by weekday, days off, engagements, and the sun against an almanac."""

from datetime import UTC, date, datetime

import pytest

from yarrow_lane.calendar.own_time import (
    Engagement,
    OwnTime,
    Place,
    Span,
    TimeTrouble,
    add_days,
    put_back,
    set_hours,
    set_place,
    spans_from,
    spans_on,
    spans_words,
    take_off,
    with_engagements,
    without_engagements,
)
from yarrow_lane.calendar.sun import LOW_LIGHT, daylight, sun
from yarrow_lane.calendar.windows import windows

MONDAY = date(2026, 3, 2)


def hours(spans) -> list[tuple[int, int]]:
    return [(s.begin // 60, s.end // 60) for s in spans]


def test_hours_are_free_but_for_days_off_and_engagements():
    own = set_hours(OwnTime(), 0, (Span(840, 1020), Span(540, 720)))
    assert hours(spans_on(own, MONDAY)) == [(9, 12), (14, 17)], "sorted"
    dentist = Engagement(datetime(2026, 3, 2, 10, 30), datetime(2026, 3, 2, 15, 0), "dentist", "mine.ics")
    busy = with_engagements(own, "mine.ics", (dentist,))
    assert [(s.begin, s.end) for s in spans_on(busy, MONDAY)] == [(540, 630), (900, 1020)]
    again = with_engagements(busy, "mine.ics", ())
    assert again == own, "a file read again takes the place of what it said before"
    assert without_engagements(busy, "mine.ics") == own
    away = take_off(own, MONDAY, date(2026, 3, 4), "away")
    assert spans_on(away, MONDAY) == () and spans_on(away, date(2026, 3, 5))
    assert spans_on(put_back(away, away.off[0]), MONDAY)


def test_an_engagement_over_midnight_takes_both_days():
    own = OwnTime(hours=((Span(1200, 1440),), (Span(0, 480),), (), (), (), (), ()))
    own = with_engagements(own, "f", (Engagement(datetime(2026, 3, 2, 22, 0), datetime(2026, 3, 3, 2, 0)),))
    assert hours(spans_on(own, MONDAY)) == [(20, 22)] and hours(spans_on(own, date(2026, 3, 3))) == [(2, 8)]


def test_no_sitting_is_longer_than_the_longest():
    own = OwnTime(hours=((Span(480, 1320),), (), (), (), (), (), ()), longest=300)
    assert [s.minutes for s in spans_on(own, MONDAY)] == [300, 300, 180]


def test_days_added_have_a_usual_days_hours_and_only_they():
    own = add_days(OwnTime(), (date(2026, 3, 7), date(2026, 3, 9)))
    assert hours(spans_on(own, date(2026, 3, 7))) == [(10, 14)], "a Saturday"
    assert spans_on(own, date(2026, 3, 14)) == () and len(own.extra) == 1, "Monday the 9th has hours of its own"


@pytest.mark.parametrize(
    ("words", "said"),
    [
        ("10-14", "10:00–14:00"),
        ("9:30 to 12, 13–17.30", "9:30–12:00, 13:00–17:30"),
        ("none", ""),
        ("", ""),
        ("7-8 and 20-22", "7:00–8:00, 20:00–22:00"),
    ],
)
def test_hours_as_a_painter_writes_them(words, said):
    assert spans_words(spans_from(words)) == said


@pytest.mark.parametrize("words", ["ten to two", "10", "14-"])
def test_what_is_no_range_is_said(words):
    with pytest.raises(TimeTrouble, match="range of hours"):
        spans_from(words)


def test_ranges_that_cannot_be_are_refused():
    for spans in ((Span(600, 600),), (Span(700, 600),), (Span(600, 720), Span(700, 800)), (Span(-5, 60),), (Span(1400, 1500),)):
        with pytest.raises(TimeTrouble):
            set_hours(OwnTime(), 2, spans)
    with pytest.raises(TimeTrouble):
        set_place(OwnTime(), Place(91, 0))
    with pytest.raises(TimeTrouble):
        take_off(OwnTime(), date(2026, 3, 4), MONDAY)


# Sunrise and sunset on the meridian of Greenwich, universal time: The Nautical Almanac, tables of sunrise and sunset about the
# solstices (typed from memory, whole minutes).
ALMANAC = [
    (50, date(2026, 6, 21), "03:50", "20:13"), (50, date(2026, 12, 21), "07:56", "16:00"), (40, date(2026, 6, 21), "04:31", "19:33"),
    (40, date(2026, 12, 21), "07:18", "16:38"), (60, date(2026, 6, 21), "02:36", "21:28"), (60, date(2026, 12, 21), "09:03", "14:53"),
]  # fmt: skip


@pytest.mark.parametrize(("latitude", "day", "rise", "set_"), ALMANAC)
def test_the_sun_rises_as_the_almanac_says(latitude, day, rise, set_):
    found = sun(Place(latitude, 0.0), day, UTC)
    for minute, said in ((found.begin, rise), (found.end, set_)):
        assert abs(minute - (int(said[:2]) * 60 + int(said[3:]))) <= 1


def test_where_the_sun_does_not_rise_or_set():
    north = Place(78.0, 15.6)
    assert sun(north, date(2026, 12, 21), UTC) is None and daylight(north, date(2026, 12, 21), UTC) is None
    assert sun(north, date(2026, 6, 21), UTC).minutes == 1440
    day = sun(Place(), MONDAY, UTC)
    assert daylight(Place(), MONDAY, UTC) == Span(day.begin + LOW_LIGHT, day.end - LOW_LIGHT)


def test_windows_leave_out_what_is_over_today_and_round_inwards():
    own = OwnTime(hours=((Span(601, 839),), *((),) * 6))
    found = windows(own, datetime(2026, 3, 2, 11, 2, 30, tzinfo=UTC), 8)
    assert found.begin == (665, 7 * 1440 + 605) and found.end == (835, 7 * 1440 + 835)
    assert found.first == MONDAY and found.minutes == 170 + 230
    assert windows(own, datetime(2026, 3, 2, 23, 59, tzinfo=UTC), 7).begin == ()
