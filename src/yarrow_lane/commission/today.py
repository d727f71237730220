"""Today's acts by the clock, over all commissions."""

import heapq
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

from yarrow_lane.calendar.week import Week, minutes_left_today
from yarrow_lane.commission.standing import CommissionStanding
from yarrow_lane.lane.standing import Act, can_be_done

_STEP_MIN = 5  # our choice: times are told to five minutes
MOST_ACTS = 12  # our choice: more than a day holds
_AT_THE_CANVAS = ("Easel", "Transfer")


@dataclass(frozen=True)
class TimedAct:
    """One act and when to begin it."""

    at: datetime
    commission_id: str
    title: str
    act: Act
    minutes: float


def _rounded_up(moment: datetime) -> datetime:
    clean = moment.replace(second=0, microsecond=0)
    if clean < moment:
        clean += timedelta(minutes=1)
    return clean + timedelta(minutes=-clean.minute % _STEP_MIN)


def _nearest_promise(standings: Sequence[CommissionStanding], now: datetime) -> list[CommissionStanding]:
    """Those with something to do, the nearest promise first, then those without one."""
    some = (s for s in standings if s.act is not None)
    return sorted(some, key=lambda s: (s.promised is None, s.promised or now.date()))


def meanwhile(standings: Sequence[CommissionStanding], but: str, now: datetime) -> CommissionStanding | None:
    """What can be done now while the commission `but` waits: the nearest promise of the others; None when all of them wait."""
    others = (s for s in _nearest_promise(standings, now) if s.id != but)
    return next((s for s in others if s.act is not None and can_be_done(s.act, now)), None)


def todays_acts(
    standings: Sequence[CommissionStanding], week: Week, now: datetime, painted_today: float = 0.0
) -> tuple[TimedAct, ...]:
    """The next act of each commission in turn, the nearest promise first, as far as the day reaches.

    What is still drying is put off until it is dry and others go before it; what cannot be begun today is left out.
    `painted_today` are minutes of today's painting that are over.
    """
    begin = now.replace(hour=week.starts_at_hour, minute=0, second=0, microsecond=0)
    clock = _rounded_up(max(begin, now))
    midnight = now.replace(hour=23, minute=59, second=0, microsecond=0)
    room = minutes_left_today(week, now, painted_today)
    order = _nearest_promise(standings, now)
    waiting = [(s.act.not_before or clock, n) for n, s in enumerate(order) if s.act is not None]
    heapq.heapify(waiting)
    ready: list[int] = []
    acts: list[TimedAct] = []
    while (waiting or ready) and len(acts) < MOST_ACTS and clock <= midnight:
        while waiting and waiting[0][0] <= clock:
            heapq.heappush(ready, heapq.heappop(waiting)[1])
        if not ready:
            clock = _rounded_up(waiting[0][0])
            continue
        chosen = order[heapq.heappop(ready)]
        act = chosen.act
        assert act is not None
        minutes = act.minutes
        if act.door in _AT_THE_CANVAS:
            minutes = min(minutes, room)
            room -= minutes
        if minutes > 0:
            acts.append(TimedAct(clock, chosen.id, chosen.title, act, minutes))
            clock = _rounded_up(clock + timedelta(minutes=minutes))
    return tuple(acts)
