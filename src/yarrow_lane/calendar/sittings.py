"""Sittings planned over the working days, the nearest promise first."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta

from yarrow_lane.measure.days import working_days

# Our choice: a sitting shorter than this is not worth setting up for, unless it is the last.
SHORTEST_MIN = 20.0


@dataclass(frozen=True)
class Week:
    """The painter's working week: days as 0 = Monday, and minutes of painting on each."""

    weekdays: tuple[int, ...] = (0, 1, 2, 3, 4)
    minutes_a_day: float = 240.0
    starts_at_hour: int = 10


@dataclass(frozen=True)
class Work:
    """What one commission still needs at the easel; `wait_days` follow the last sitting (rest, varnish, packing)."""

    commission_id: str
    minutes_left: float
    promised: date | None
    wait_days: float


@dataclass(frozen=True)
class Sitting:
    """Some minutes on one commission on one day."""

    commission_id: str
    day: date
    minutes: float


def plan_sittings(works: Sequence[Work], today: date, week: Week) -> tuple[Sitting, ...]:
    """Fill the working days from today on, the nearest promise first; unpromised work comes last.

    Earliest due date first is the order that makes the worst lateness smallest on one
    easel (Jackson 1955).
    """
    queue = sorted((w for w in works if w.minutes_left > 0), key=lambda w: (w.promised is None, w.promised or today))
    sittings: list[Sitting] = []
    days = working_days(today, week.weekdays)
    if not queue or week.minutes_a_day <= 0 or not week.weekdays:
        return ()
    day, room = next(days), week.minutes_a_day
    for work in queue:
        left = work.minutes_left
        while left > 1e-6:
            if room < min(SHORTEST_MIN, left):
                day, room = next(days), week.minutes_a_day
            minutes = min(left, room)
            sittings.append(Sitting(work.commission_id, day, minutes))
            left -= minutes
            room -= minutes
    return tuple(sittings)


def likely_finish(work: Work, sittings: Sequence[Sitting], today: date) -> date:
    """The day it could be handed over: the last sitting, then the waits."""
    last = max((s.day for s in sittings if s.commission_id == work.commission_id), default=today)
    whole_days = int(work.wait_days) + (work.wait_days % 1 > 0)
    return last + timedelta(days=whole_days)
