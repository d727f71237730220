"""Today's acts by the clock, over all commissions: what the plan has for today and what else can be done, the most worth doing first."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import datetime, timedelta

from yarrow_lane.calendar.own_time import OwnTime, spans_on
from yarrow_lane.calendar.sun import daylight, zone_of
from yarrow_lane.calendar.whatnow import BREAK_MIN, Advised, Choice, Moment, advised
from yarrow_lane.commission.standing import CommissionStanding, Outlook
from yarrow_lane.lane.standing import Act, Task, can_be_done
from yarrow_lane.measure.words import begun

_STEP_MIN = 5  # our choice: times are told to five minutes
MOST_ACTS = 12  # our choice: more than a day holds
_PLANNED = ("Easel", "Transfer", "Tone", "Palette", "Deliver")  # rooms whose work is in the plan
_SMALL_MIN = 25  # our choice: a pass so short is a small thing
_SMALL_FAMILIES = ("eye", "nose", "mouth")
_NO_HURRY = 10.0  # days in hand of what is not promised: our choice
_MOST_FREES = 1440.0  # a wait longer than a day is worth no more: our choice


@dataclass(frozen=True)
class TimedAct:
    """One act, when to begin it, and the two strongest reasons; `key` names its pass."""

    at: datetime
    commission_id: str
    title: str
    act: Act
    minutes: float
    reasons: tuple[str, ...] = ()
    key: str = ""


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


@dataclass(frozen=True)
class _Open:
    """What one commission could go on with today, in order."""

    choices: tuple[Choice, ...]
    acts: tuple[Act, ...]
    ready: tuple[datetime, ...]


def todays_acts(
    found: Sequence[Outlook], own: OwnTime, now: datetime, since_break: float = 0.0, canvas: str = ""
) -> tuple[TimedAct, ...]:  # fmt: skip
    """The day as it could go from now on; `canvas` stands on the easel, `since_break` minutes at it are over.

    What is still drying is put off until it is dry and others go before it; painting stays within the hours, small acts need none.
    """
    nearest = sorted(found, key=lambda o: (o.standing.promised is None, o.standing.promised or now.date()))
    left = {o.standing.id: _open_to(o, now) for o in nearest}
    names = {o.standing.id: o.standing.title for o in found}
    spans = spans_on(own, now.date())
    midnight = now.replace(hour=0, minute=0, second=0, microsecond=0)
    clock = _rounded_up(now)
    end = max((s.end for s in spans), default=0)
    light = daylight(own.place, now.date(), zone_of(now))
    at = Moment(canvas, "", since_break=since_break)
    acts: list[TimedAct] = []
    while len(acts) < MOST_ACTS:
        minute = (clock - midnight).total_seconds() / 60
        span = next((s for s in spans if s.end > minute), None)
        at_work = span is not None and minute >= span.begin
        at = replace(at, left=span.end - minute if span else 0.0, light_left=max(0.0, light.end - minute) if light else 0.0)
        picked = _pick(left, at, clock, at_work)
        if picked is None and span is not None and not at_work:
            clock, at = midnight + timedelta(minutes=span.begin), replace(at, since_break=0.0)
            continue
        if picked is None:
            later = _next_ready(left, clock)
            if later is None or (later - midnight).total_seconds() / 60 >= end:
                break
            clock = _rounded_up(later)
            continue
        choice = picked.choice
        if not choice.commission_id:
            clock, at = _rounded_up(clock + timedelta(minutes=choice.minutes)), replace(at, since_break=0.0)
            continue
        open_ = left[choice.commission_id]
        minutes = min(choice.minutes, at.left) if choice.painting else choice.minutes
        acts.append(
            TimedAct(
                clock, choice.commission_id, names[choice.commission_id], open_.acts[0], minutes, picked.reasons, choice.key
            )
        )
        clock = _rounded_up(clock + timedelta(minutes=minutes))
        left[choice.commission_id] = _Open(open_.choices[1:], open_.acts[1:], open_.ready[1:])
        if choice.painting:
            fur = at.fur + minutes if choice.fur else 0.0
            at = replace(
                at,
                commission_id=choice.commission_id,
                palette=choice.palette,
                since_break=(at.since_break + minutes) % BREAK_MIN,
                fur=fur,
            )
    return tuple(acts)


def _pick(left: Mapping[str, _Open], at: Moment, clock: datetime, at_work: bool) -> Advised | None:
    choices = []
    for o in left.values():
        if o.choices and (at_work or not o.choices[0].painting):
            wait = max(0.0, (o.ready[0] - clock).total_seconds() / 60)
            if wait < at.left or not wait:
                choices.append(replace(o.choices[0], ready_in=wait))
    ready = [c for c in choices if not c.ready_in]
    found = advised(choices, at if at_work else replace(at, left=1440.0))
    if found and found[0].choice.ready_in and not ready:
        return None
    return next((a for a in found if not a.choice.ready_in), None) if found else None


def _next_ready(left: Mapping[str, _Open], clock: datetime) -> datetime | None:
    return min((o.ready[0] for o in left.values() if o.ready and o.ready[0] > clock), default=None)


def _open_to(o: Outlook, now: datetime) -> _Open:
    """What a room asks for besides painting, then what the plan has for the commission today, each not before its sitting."""
    s = o.standing
    if s.act is None:
        return _Open((), (), ())
    tasks = {t.key or t.words: t for room in s.rooms for t in room}
    frees = _frees(s)
    in_hand = float((s.promised - o.safe).days) if s.promised is not None and o.safe is not None else _NO_HURRY
    choices: list[Choice] = []
    acts: list[Act] = []
    times: list[datetime] = []
    if s.act.door not in _PLANNED:
        choices.append(Choice(s.id, s.act.title, s.act.minutes, in_hand, painting=False))
        acts.append(s.act)
        times.append(s.act.not_before or now)
    for sitting in o.sittings:
        if sitting.day != now.date():
            continue
        for a in sitting.acts:
            task = tasks.get(a.key)
            if task is not None:
                choices.append(_choice(s.id, task, a.minutes, in_hand, frees.get(a.key, 0.0)))
                acts.append(Act(f"Paint {a.words}" if task.family else begun(a.words), "", a.minutes, door=task.door))
                times.append(sitting.start.replace(tzinfo=now.tzinfo))
    return _Open(tuple(choices), tuple(acts), tuple(times))


def _choice(commission_id: str, task: Task, minutes: float, in_hand: float, frees: float) -> Choice:
    return Choice(
        commission_id, task.words, minutes, in_hand, task.palette, not task.whole, 0.0, frees, task.daylight, "fur" in task.family,
        minutes <= _SMALL_MIN and task.family in _SMALL_FAMILIES, True, key=task.key,
    )  # fmt: skip


def _frees(s: CommissionStanding) -> dict[str, float]:
    """Minutes of drying that each pass starts for those after it."""
    found: dict[str, float] = {}
    for room in s.rooms:
        for task in room:
            for place, lag in task.after:
                if place >= 0:
                    key = room[place].key or room[place].words
                    found[key] = min(_MOST_FREES, max(found.get(key, 0.0), lag))
    return found
