"""Days as they are written: in the local order, by weekday, by so long from today."""

from datetime import date, timedelta

import pytest

from yarrow_lane.measure.dates import DayTrouble, later, parse_day

TODAY = date(2026, 11, 26)  # a Thursday


@pytest.mark.parametrize(
    ("words", "day"),
    [
        ("today", TODAY),
        ("Tomorrow", date(2026, 11, 27)),
        ("fri", date(2026, 11, 27)),
        ("thursday", date(2026, 12, 3)),
        ("next fri", date(2026, 12, 4)),
        ("+3w", date(2026, 12, 17)),
        ("+10", date(2026, 12, 6)),
        ("in 2 months", date(2027, 1, 26)),
        ("18 dec", date(2026, 12, 18)),
        ("Dec 18", date(2026, 12, 18)),
        ("18. December 2027", date(2027, 12, 18)),
        ("Fri 18\u202fDec 2026", date(2026, 12, 18)),
        ("fri, 18 dec", date(2026, 12, 18)),
        ("3 mar", date(2027, 3, 3)),
        ("29 feb", date(2028, 2, 29)),
        ("2026-12-18", date(2026, 12, 18)),
        ("18.12.", date(2026, 12, 18)),
        ("18/12/26", date(2026, 12, 18)),
        ("  ", None),
    ],
)
def test_a_day_is_read_as_it_is_meant(words, day):
    assert parse_day(words, TODAY) == day


@pytest.mark.parametrize(("order", "day"), [("dmy", date(2026, 5, 4)), ("mdy", date(2026, 4, 5)), ("ymd", date(2004, 5, 26))])
def test_numbers_stand_in_the_local_order(order, day):
    assert parse_day("4/5/26", TODAY, order) == day


def test_what_lies_behind_is_read_backwards():
    for words, day in (
        ("thu", date(2026, 11, 19)),
        ("wed", date(2026, 11, 25)),
        ("3 dec", date(2025, 12, 3)),
        ("+2d", date(2026, 11, 24)),
    ):
        assert parse_day(words, TODAY, ahead=False) == day


@pytest.mark.parametrize(
    "words",
    ["soon", "32 dec", "31.2.2026", "13/13/2026", "dec", "18", "f", "18 dec 2026 2027", "½", "+99999999y", "٣ dec ٩٩٩٩٩٩"],
)
def test_what_is_no_day_is_said_in_words(words):
    with pytest.raises(DayTrouble) as found:
        parse_day(words, TODAY)
    assert "no day" in found.value.sentence and "+3w" in found.value.sentence


def test_a_month_later_is_the_same_day_or_the_last_of_its_month():
    assert later(date(2027, 1, 31), 1, "m") == date(2027, 2, 28) and later(date(2028, 2, 29), 1, "y") == date(2029, 2, 28)
    for start in (TODAY + timedelta(days=n) for n in range(0, 800, 7)):
        for count in (-14, -1, 0, 1, 2, 13):
            found = later(start, count, "m")
            assert (found.year * 12 + found.month) - (start.year * 12 + start.month) == count
            assert found.day == start.day or (found + timedelta(days=1)).day == 1
