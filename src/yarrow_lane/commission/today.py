"""Today's acts by the clock, over all commissions."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

from yarrow_lane.calendar.sittings import Week
from yarrow_lane.commission.standing import Act, Standing

_STEP_MIN = 5  # our choice: times are told to five minutes


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


def todays_acts(standings: Sequence[Standing], week: Week, now: datetime) -> tuple[TimedAct, ...]:
    """The next act of each commission in turn, the nearest promise first, as far as the day reaches.

    What is still drying is put off until it is dry and others go before it; what cannot be
    begun today is left out.
    """
    begin = now.replace(hour=week.starts_at_hour, minute=0, second=0, microsecond=0)
    clock = _rounded_up(max(begin, now))
    midnight = now.replace(hour=23, minute=59, second=0, microsecond=0)
    waiting = [s for s in standings if s.act is not None]
    waiting.sort(key=lambda s: (s.commission.brief.promised is None, s.commission.brief.promised or now.date()))
    acts: list[TimedAct] = []
    painted = 0.0
    while waiting:
        ready = [s for s in waiting if s.act and (s.act.not_before is None or s.act.not_before <= clock)]
        if not ready:
            soonest = min(s.act.not_before for s in waiting if s.act and s.act.not_before)
            clock = _rounded_up(soonest)
            if clock > midnight:
                break
            continue
        chosen = ready[0]
        waiting.remove(chosen)
        act = chosen.act
        assert act is not None
        minutes = min(act.minutes, max(0.0, week.minutes_a_day - painted)) if act.door in ("Easel", "Transfer") else act.minutes
        if minutes <= 0 or clock > midnight:
            continue
        acts.append(TimedAct(clock, chosen.commission.id, chosen.commission.brief.title, act, minutes))
        painted += minutes if act.door in ("Easel", "Transfer") else 0.0
        clock = _rounded_up(clock + timedelta(minutes=minutes))
    return tuple(acts)
