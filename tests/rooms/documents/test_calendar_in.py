"""Other engagements out of calendar files: repeated, in zones, whole days, broken."""

from datetime import UTC, datetime, timedelta
from zoneinfo import ZoneInfo

import icalendar
import pytest

from yarrow_lane.documents.calendar_in import CalendarTrouble, read_calendar

NOW = datetime(2026, 3, 9, 8, 0, tzinfo=UTC)


def file(tmp_path, *events: str, end: str = "END:VCALENDAR", name: str = "mine.ics"):
    path = tmp_path / name
    head = ["BEGIN:VCALENDAR", "VERSION:2.0", "PRODID:-//somebody//EN"]
    path.write_bytes("\r\n".join([*head, *events, end, ""]).encode())
    return path


def event(*lines: str, uid: str = "1") -> str:
    return "\r\n".join(["BEGIN:VEVENT", f"UID:{uid}", "DTSTAMP:20260301T000000Z", *lines, "END:VEVENT"])


def test_a_weekly_lesson_takes_its_hour_but_for_the_one_called_off(tmp_path):
    lesson = event(
        "SUMMARY:Lesson",
        "DTSTART:20260303T170000",
        "DTEND:20260303T183000",
        "RRULE:FREQ=WEEKLY;COUNT=5",
        "EXDATE:20260317T170000",
    )
    found = read_calendar(file(tmp_path, lesson), NOW, UTC)
    assert found.unread == ()
    assert [e.start.day for e in found.engagements] == [10, 24, 31], "the first is over, the third is called off"
    assert found.engagements[0].end - found.engagements[0].start == timedelta(minutes=90)
    assert (found.engagements[0].words, found.engagements[0].source) == ("Lesson", "mine.ics")


def test_zones_are_told_in_the_painters_own(tmp_path):
    call = event("SUMMARY:Call", "DTSTART;TZID=America/New_York:20260320T090000", "DTEND;TZID=America/New_York:20260320T093000")
    (found,) = read_calendar(file(tmp_path, call), NOW, ZoneInfo("Europe/Brussels")).engagements
    assert found.start == datetime(2026, 3, 20, 14, 0), "New York has summer time already, Brussels not yet: five hours"


def test_whole_days_are_whole_and_a_duration_is_an_end(tmp_path):
    holiday = event("SUMMARY:Holiday", "DTSTART;VALUE=DATE:20260401", "DTEND;VALUE=DATE:20260404")
    single = event("SUMMARY:Fair", "DTSTART;VALUE=DATE:20260410", uid="2")
    long = event("SUMMARY:Train", "DTSTART:20260411T220000", "DURATION:PT5H", uid="3")
    found = read_calendar(file(tmp_path, holiday, single, long), NOW, UTC).engagements
    assert [(e.start, e.end) for e in found] == [
        (datetime(2026, 4, 1), datetime(2026, 4, 4)),
        (datetime(2026, 4, 10), datetime(2026, 4, 11)),
        (datetime(2026, 4, 11, 22), datetime(2026, 4, 12, 3)),
    ]


def test_what_takes_no_time_is_left_out(tmp_path):
    free = event("SUMMARY:Birthday", "DTSTART;VALUE=DATE:20260401", "TRANSP:TRANSPARENT")
    off = event("SUMMARY:Off", "DTSTART:20260402T100000", "DTEND:20260402T110000", "STATUS:CANCELLED", uid="2")
    moment = event("SUMMARY:Alarm", "DTSTART:20260403T100000", uid="3")
    past = event("SUMMARY:Past", "DTSTART:20250403T100000", "DTEND:20250403T110000", uid="4")
    assert read_calendar(file(tmp_path, free, off, moment, past), NOW, UTC).engagements == ()


def test_a_damaged_event_is_named_and_the_others_are_read(tmp_path):
    good = event("SUMMARY:Good", "DTSTART:20260402T100000", "DTEND:20260402T110000")
    bad = event("SUMMARY:Bad dates", "DTSTART:yesterday", "DTEND:20260402T110000", uid="2")
    rule = event("SUMMARY:Bad rule", "DTSTART:20260402T100000", "DTEND:20260402T110000", "RRULE:FREQ=SOMETIMES", uid="3")
    found = read_calendar(file(tmp_path, bad, good, rule), NOW, UTC)
    assert [e.words for e in found.engagements] == ["Good"]
    assert len(found.unread) == 2 and any("Bad dates" in w for w in found.unread) and any("Bad rule" in w for w in found.unread)


def test_a_file_that_breaks_off_is_read_as_far_as_it_goes(tmp_path):
    good = event("SUMMARY:Good", "DTSTART:20260402T100000", "DTEND:20260402T110000")
    cut = "BEGIN:VEVENT\r\nUID:9\r\nSUMMARY:Cut off\r\nDTSTART:202604"
    found = read_calendar(file(tmp_path, good, cut, end=""), NOW, UTC)
    assert [e.words for e in found.engagements] == ["Good"] and "Cut off" in found.unread[0]


@pytest.mark.parametrize("data", [b"", b"\xff\xfe\x00junk", b"BEGIN:VCALENDAR\r\nEND:VCALENDAR\r\n", b"<html>sign in</html>"])
def test_what_is_no_calendar_says_so_with_its_name(tmp_path, data):
    path = tmp_path / "holiday.ics"
    path.write_bytes(data)
    with pytest.raises(CalendarTrouble, match="holiday"):
        read_calendar(path, NOW, UTC)
    with pytest.raises(CalendarTrouble):
        read_calendar(tmp_path / "none.ics", NOW, UTC)


def test_our_own_file_comes_back(tmp_path):
    """What another writer of the standard makes of an event is what is read."""
    calendar, e = icalendar.Calendar(), icalendar.Event()
    calendar.add("prodid", "-//x//EN")
    calendar.add("version", "2.0")
    e.add("uid", "a")
    e.add("dtstamp", NOW)
    e.add("summary", "Long name; with, signs \u2013 and more " * 4)
    e.add("dtstart", datetime(2026, 5, 1, 9, 0))
    e.add("dtend", datetime(2026, 5, 1, 10, 0))
    calendar.add_component(e)
    path = tmp_path / "folded.ics"
    path.write_bytes(calendar.to_ical())
    (found,) = read_calendar(path, NOW, UTC).engagements
    assert found.words.startswith("Long name; with, signs – and more Long")
