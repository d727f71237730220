"""Other engagements out of a calendar file (ICS, RFC 5545): repeated ones too, each in the local wall clock."""

from dataclasses import dataclass
from datetime import date, datetime, timedelta, tzinfo
from pathlib import Path
from typing import Any

import icalendar
import recurring_ical_events

from yarrow_lane.calendar.own_time import Engagement
from yarrow_lane.measure.trouble import Trouble

MOST_BYTES = 20_000_000  # our choice: a lifetime of engagements is smaller
AHEAD_DAYS = 550  # our choice: nobody plans farther
_MOST_SAID = 5


class CalendarTrouble(Trouble):
    """A calendar file that cannot be read."""


@dataclass(frozen=True)
class CalendarRead:
    """What a file says of the days ahead, and what in it could not be read, in words."""

    engagements: tuple[Engagement, ...]
    unread: tuple[str, ...] = ()


def read_calendar(path: Path, now: datetime, zone: tzinfo | None = None) -> CalendarRead:
    """Engagements from today on; times are told in `zone` (the machine's own for None), whole days as whole days.

    Events marked as free, and those called off, take no time. One that cannot be read is named and passed over.
    Raises `CalendarTrouble` for a file that is none.
    """
    what = f"“{path.name}” was not read"
    try:
        if path.stat().st_size > MOST_BYTES:
            raise CalendarTrouble(what, "it is larger than 20 MB", "choose the calendar's own file (.ics)")
        data = path.read_bytes()
    except OSError as error:
        raise CalendarTrouble(what, "the file cannot be opened", "choose it again") from error
    whole, unread = _events(data)
    if not whole and not unread:
        raise CalendarTrouble(what, "it is no calendar file", "save the calendar as iCalendar (.ics) and choose that")
    first, last = now.date(), now.date() + timedelta(days=AHEAD_DAYS)
    found: set[Engagement] = set()
    for calendar in whole:
        try:
            events = list(recurring_ical_events.of(calendar).between(first, last))
        except Exception as error:  # a single damaged event must not hide the others, whatever the library says of it
            unread.append(_words(calendar.walk("VEVENT")[0], error))
            continue
        for event in events:
            try:
                engagement = _engagement(event, path.name, zone)
            except (ValueError, TypeError, KeyError, AttributeError, OverflowError) as error:
                unread.append(_words(event, error))
                continue
            if engagement is not None and engagement.end.date() >= first:
                found.add(engagement)
    said = tuple(dict.fromkeys(unread))
    return CalendarRead(tuple(sorted(found, key=lambda e: (e.start, e.end, e.words))), said[:_MOST_SAID] + _more(len(said)))


def _more(count: int) -> tuple[str, ...]:
    return (f"and {count - _MOST_SAID} more",) if count > _MOST_SAID else ()


def _events(data: bytes) -> tuple[list[Any], list[str]]:
    """One calendar for each series of events, so that a damaged one is passed over alone; and what could not be taken apart."""
    text = data.decode("utf-8", "replace").replace("\r\n", "\n").replace("\r", "\n")
    lines = text.replace("\n ", "").replace("\n\t", "").split("\n")
    zones: list[str] = []
    series: dict[str, list[str]] = {}
    block: list[str] = []
    kind, number = "", 0
    for line in lines:
        mark = line.strip().upper()
        if not kind and mark in ("BEGIN:VEVENT", "BEGIN:VTIMEZONE"):
            kind, block = mark[6:], []
        if kind:
            block.append(line)
        if kind and mark == f"END:{kind}":
            if kind == "VTIMEZONE":
                zones += block
            else:
                number += 1
                uid = next((x[4:] for x in block if x.upper().startswith("UID:")), f"none-{number}")
                series.setdefault(uid, []).extend(block)
            kind = ""
    found, unread = [], []
    if kind == "VEVENT":
        unread.append(f"{_summary(block)}: the file breaks off in it")
    for own in series.values():
        body = "\r\n".join(
            ["BEGIN:VCALENDAR", "VERSION:2.0", "PRODID:-//Yarrow Lane//Reading//EN", *zones, *own, "END:VCALENDAR", ""]
        )
        try:
            calendar = icalendar.Calendar.from_ical(body)
        except (ValueError, KeyError, IndexError):
            unread.append(f"{_summary(own)}: it is not written as an event is")
            continue
        found.append(calendar)
    return found, unread


def _summary(lines: list[str]) -> str:
    words = next((x.split(":", 1)[1] for x in lines if x.upper().startswith("SUMMARY") and ":" in x), "an event without a name")
    return words.strip()[:60] or "an event without a name"


def _words(event: Any, error: Exception) -> str:
    name = str(event.get("SUMMARY", "")).strip()[:60] or "an event without a name"
    return f"{name}: its times cannot be read"


def _engagement(event: Any, source: str, zone: tzinfo | None) -> Engagement | None:
    if str(event.get("TRANSP", "OPAQUE")).upper() == "TRANSPARENT" or str(event.get("STATUS", "")).upper() == "CANCELLED":
        return None
    start = _wall(event["DTSTART"].dt, zone)
    if "DTEND" in event:
        end = _wall(event["DTEND"].dt, zone)
    elif "DURATION" in event:
        end = start + event["DURATION"].dt
    else:
        end = start + timedelta(days=1) if not isinstance(event["DTSTART"].dt, datetime) else start
    if end <= start:
        return None
    return Engagement(start, end, str(event.get("SUMMARY", "")).strip()[:80], source)


def _wall(moment: date | datetime, zone: tzinfo | None) -> datetime:
    """The local wall clock; a floating time is local already."""
    if not isinstance(moment, datetime):
        return datetime(moment.year, moment.month, moment.day)
    return moment.astimezone(zone).replace(tzinfo=None) if moment.tzinfo is not None else moment
