"""Promise dates and sittings as a calendar file (ICS, RFC 5545)."""

from collections.abc import Mapping, Sequence
from datetime import date, datetime, timedelta
from types import MappingProxyType

from icalendar import Alarm, Calendar, Event

from yarrow_lane.calendar.sittings import Sitting
from yarrow_lane.measure.moments import day_after

_BEFORE_PROMISE = timedelta(days=7)  # our choice
_BEFORE_SITTING = timedelta(minutes=30)  # our choice


def calendar_file(
    promises: Sequence[tuple[str, str, date]],
    sittings: Sequence[Sitting],
    titles: Mapping[str, str],
    now: datetime,
    warnings: Mapping[str, str] = MappingProxyType({}),
    painted: Mapping[str, int] = MappingProxyType({}),
    told: Mapping[str, int] = MappingProxyType({}),
) -> bytes:
    """Whole-day events for promises (id, title, day) with an alarm a week before, timed ones for sittings with what is painted.

    A commission with a warning (a surprise) carries it in each of its events. Sittings are in local (floating) time: they are hours at
    the easel, wherever that stands. Each is known by its number within its commission, counted on from the days `painted` already, so
    that a calendar that reads the file again moves it instead of adding it; numbers up to `told`, which an earlier file had and this
    plan has no more, are called off.
    """
    calendar = Calendar()
    calendar.add("prodid", "-//Yarrow Lane//Commissions//EN")
    calendar.add("version", "2.0")
    for commission_id, title, day in promises:
        event = _event(f"promise-{commission_id}", f"{title}: promised", now, warnings.get(commission_id, ""))
        event.add("dtstart", day)
        event.add("dtend", day_after(day))
        event.add_component(_alarm(f"{title}: promised in a week", _BEFORE_PROMISE))
        calendar.add_component(event)
    numbers = dict(painted)
    for sitting in sittings:
        number = numbers[sitting.commission_id] = numbers.get(sitting.commission_id, 0) + 1
        title = titles[sitting.commission_id]
        words = "\n".join(f"{a.words}, {a.minutes} min" for a in sitting.acts)
        warning = warnings.get(sitting.commission_id, "")
        event = _event(
            _sitting_uid(sitting.commission_id, number), f"{title}: paint", now, "\n".join(w for w in (warning, words) if w)
        )
        event.add("dtstart", sitting.start)
        event.add("dtend", sitting.end)
        event.add_component(_alarm(f"{title}: {sitting.acts[0].words}", _BEFORE_SITTING))
        calendar.add_component(event)
    for commission_id, before in told.items():
        for number in range(numbers.get(commission_id, 0) + 1, before + 1):
            event = _event(_sitting_uid(commission_id, number), f"{titles.get(commission_id, 'A portrait')}: paint", now, "")
            event.add("dtstart", now.replace(tzinfo=None, microsecond=0))
            event.add("status", "CANCELLED")
            calendar.add_component(event)
    return calendar.to_ical()


def numbers_told(sittings: Sequence[Sitting], painted: Mapping[str, int], told: Mapping[str, int]) -> dict[str, int]:
    """The highest number of a sitting that any file so far has had, by commission."""
    numbers = dict(painted)
    for sitting in sittings:
        numbers[sitting.commission_id] = numbers.get(sitting.commission_id, 0) + 1
    return {i: max(numbers.get(i, 0), told.get(i, 0)) for i in (*numbers, *told)}


def _sitting_uid(commission_id: str, number: int) -> str:
    return f"sitting-{commission_id}-{number}"


def _alarm(words: str, before: timedelta) -> Alarm:
    alarm = Alarm()
    alarm.add("action", "DISPLAY")
    alarm.add("description", words)
    alarm.add("trigger", -before)
    return alarm


def _event(uid: str, summary: str, now: datetime, description: str) -> Event:
    event = Event()
    event.add("uid", f"{uid}@yarrow-lane")
    event.add("dtstamp", now)
    event.add("sequence", int(now.timestamp() // 60))  # grows with each file: the newest is the one that holds
    event.add("summary", summary)
    if description:
        event.add("description", description)
    return event
