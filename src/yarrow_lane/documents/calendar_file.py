"""Promise dates and sittings as a calendar file (ICS, RFC 5545)."""

from collections.abc import Mapping, Sequence
from datetime import date, datetime, timedelta
from types import MappingProxyType

from icalendar import Alarm, Calendar, Event

from yarrow_lane.calendar.planning import Sitting
from yarrow_lane.calendar.week import Week
from yarrow_lane.measure.moments import day_after

_BEFORE_PROMISE = timedelta(days=7)  # our choice


def calendar_file(
    promises: Sequence[tuple[str, str, date]],
    sittings: Sequence[Sitting],
    titles: Mapping[str, str],
    week: Week,
    now: datetime,
    warnings: Mapping[str, str] = MappingProxyType({}),
    painted: Mapping[str, int] = MappingProxyType({}),
) -> bytes:
    """Whole-day events for promises (id, title, day), timed ones for sittings, one after the other each day.

    A commission with a warning (a surprise) carries it in each of its events. A promise has an alarm a week before.

    Sittings are in local (floating) time: they are hours at the easel, wherever that stands. Each is known by its number within its
    commission, counted on from the days `painted` already, so that a calendar that reads the file again moves it instead of adding it.
    """
    calendar = Calendar()
    calendar.add("prodid", "-//Yarrow Lane//Commissions//EN")
    calendar.add("version", "2.0")
    for commission_id, title, day in promises:
        event = _event(f"promise-{commission_id}", f"{title}: promised", now, warnings.get(commission_id, ""))
        event.add("dtstart", day)
        event.add("dtend", day_after(day))
        alarm = Alarm()
        alarm.add("action", "DISPLAY")
        alarm.add("description", f"{title}: promised in a week")
        alarm.add("trigger", -_BEFORE_PROMISE)
        event.add_component(alarm)
        calendar.add_component(event)
    start_of: dict[date, datetime] = {}
    numbers = dict(painted)
    for sitting in sittings:
        start = start_of.get(sitting.day, datetime(sitting.day.year, sitting.day.month, sitting.day.day, week.starts_at_hour))
        end = start + timedelta(minutes=round(sitting.minutes))
        start_of[sitting.day] = end
        number = numbers[sitting.commission_id] = numbers.get(sitting.commission_id, 0) + 1
        uid = f"sitting-{sitting.commission_id}-{number}"
        event = _event(uid, f"{titles[sitting.commission_id]}: paint", now, warnings.get(sitting.commission_id, ""))
        event.add("dtstart", start)
        event.add("dtend", end)
        calendar.add_component(event)
    return calendar.to_ical()


def _event(uid: str, summary: str, now: datetime, warning: str) -> Event:
    event = Event()
    event.add("uid", f"{uid}@yarrow-lane")
    event.add("dtstamp", now)
    event.add("sequence", int(now.timestamp() // 60))  # grows with each file: the newest is the one that holds
    event.add("summary", summary)
    if warning:
        event.add("description", warning)
    return event
