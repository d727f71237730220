"""Today's acts by the clock, over all commissions: what the plan has for today and what else can be done, the most worth doing first."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import datetime, timedelta

from yarrow_lane.calendar.own_time import OwnTime, Span, spans_on
from yarrow_lane.calendar.sun import daylight, zone_of
from yarrow_lane.calendar.whatnow import BREAK_MIN, Advised, Choice, Moment, advised
from yarrow_lane.commission.at_easel import NOWHERE, AtEasel
from yarrow_lane.commission.standing import CommissionStanding, Outlook
from yarrow_lane.lane.standing import BEFORE, Act, Task, can_be_done
from yarrow_lane.measure.words import begun

_STEP_MIN = 5  # our choice: times are told to five minutes
MOST_ACTS = 12  # our choice: more than a day holds
_PLANNED = ("Easel", "Transfer", "Tone", "Palette", "Deliver")  # rooms whose work is in the plan
_SMALL_MIN = 25  # our choice: a pass so short is a small thing
_SMALL_FAMILIES = ("eye", "nose", "mouth")
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
class _Could:
    """Something a commission could go on with today, from when."""

    choice: Choice
    act: Act
    ready: datetime


_Queues = Mapping[str, list[_Could]]  # what each commission could go on with, in order


class _Day:
    """Today's hours and daylight, asked by the clock."""

    def __init__(self, own: OwnTime, now: datetime) -> None:
        self._midnight = now.replace(hour=0, minute=0, second=0, microsecond=0)
        self._spans = spans_on(own, now.date())
        light = daylight(own.place, now.date(), zone_of(now))
        self._dusk = light.end if light is not None else 0

    def _minute(self, clock: datetime) -> float:
        return (clock - self._midnight).total_seconds() / 60

    def _span(self, clock: datetime) -> Span | None:
        """The hours that run, or the next ones."""
        return next((s for s in self._spans if s.end > self._minute(clock)), None)

    def at_work(self, clock: datetime) -> bool:
        """Whether the painter's hours run."""
        span = self._span(clock)
        return span is not None and self._minute(clock) >= span.begin

    def hours_begin(self, clock: datetime) -> datetime | None:
        """When the next hours begin; None while some run, and after the last."""
        span = self._span(clock)
        return None if span is None or self.at_work(clock) else self._midnight + timedelta(minutes=span.begin)

    def over(self, clock: datetime) -> bool:
        """Whether all hours are."""
        return self._span(clock) is None

    def seen(self, at: Moment, clock: datetime) -> Moment:
        """The same moment with what is left of hours and light."""
        minute, span = self._minute(clock), self._span(clock)
        return replace(at, left=span.end - minute if span else 0.0, light_left=max(0.0, self._dusk - minute))


def todays_acts(
    found: Sequence[Outlook], own: OwnTime, now: datetime, here: AtEasel = NOWHERE
) -> tuple[TimedAct, ...]:  # fmt: skip
    """The day as it could go from now on, begun `here`.

    What is still drying is put off until it is dry and others go before it; painting stays within the hours, small acts need none.
    """
    nearest = sorted(found, key=lambda o: (o.standing.promised is None, o.standing.promised or now.date()))
    wells = _wells_at(found, here)
    queues = {o.standing.id: _open_to(o, own, now, here, wells) for o in nearest}
    names = {o.standing.id: o.standing.title for o in found}
    day, clock, at = _Day(own, now), _rounded_up(now), Moment(here.commission_id, wells, since_break=here.since_break)
    acts: list[TimedAct] = []
    while len(acts) < MOST_ACTS:
        at = day.seen(at, clock)
        picked = _pick(queues, at, clock, day.at_work(clock))
        if picked is None:
            begin = day.hours_begin(clock)
            later = begin or _next_ready(queues, clock)
            if later is None or day.over(later):
                break
            clock, at = _rounded_up(later), replace(at, since_break=0.0) if begin is not None else at
            continue
        choice = picked.choice
        minutes = min(choice.minutes, at.left) if choice.painting else choice.minutes
        if choice.commission_id:
            act = queues[choice.commission_id].pop(0).act
            acts.append(
                TimedAct(clock, choice.commission_id, names[choice.commission_id], act, minutes, picked.reasons, choice.key)
            )
        clock, at = _rounded_up(clock + timedelta(minutes=minutes)), _after(at, choice, minutes)
    return tuple(acts)


def _after(at: Moment, choice: Choice, minutes: float) -> Moment:
    """Where the painter stands after an act; a break begins the count anew, and a long pass has its breaks within."""
    if not choice.commission_id:
        return replace(at, since_break=0.0)
    if not choice.painting:
        return at
    fur, since = at.fur + minutes if choice.fur else 0.0, (at.since_break + minutes) % BREAK_MIN
    return replace(at, commission_id=choice.commission_id, palette=choice.palette, since_break=since, fur=fur)


def _pick(queues: _Queues, at: Moment, clock: datetime, at_work: bool) -> Advised | None:
    """The act most worth doing of those that can be begun now; None where waiting for one is better, or none can be."""
    choices = []
    for first in (q[0] for q in queues.values() if q):
        wait = max(0.0, (first.ready - clock).total_seconds() / 60)
        if (at_work or not first.choice.painting) and (not wait or wait < at.left):
            choices.append(replace(first.choice, ready_in=wait))
    found = advised(choices, at if at_work else replace(at, left=1440.0))
    return next((a for a in found if not a.choice.ready_in), None)


def _next_ready(queues: _Queues, clock: datetime) -> datetime | None:
    return min((q[0].ready for q in queues.values() if q and q[0].ready > clock), default=None)


def _wells_at(found: Sequence[Outlook], here: AtEasel) -> str:
    """The wells of the pass that is painted."""
    rooms = (room for o in found if o.standing.id == here.commission_id for room in o.standing.rooms)
    return next((t.palette for room in rooms for t in room if t.key and t.key == here.pass_id), "")


def _open_to(o: Outlook, own: OwnTime, now: datetime, here: AtEasel, wells: str) -> list[_Could]:
    """What a room asks for besides painting, then what the plan has for the commission today, each not before its sitting."""
    s = o.standing
    if s.act is None:
        return []
    tasks = {t.name: t for room in s.rooms for t in room}
    frees = _frees(s)
    in_hand = o.days_in_hand(own.weekdays)
    found: list[_Could] = []
    if s.act.door not in _PLANNED:
        found.append(_Could(Choice(s.id, s.act.title, s.act.minutes, in_hand, painting=False), s.act, s.act.not_before or now))
    for sitting in (x for x in o.sittings if x.day == now.date()):
        for a in (x for x in sitting.acts if x.key in tasks):
            task = tasks[a.key]
            act = Act(f"Paint {a.words}" if task.family else begun(a.words), "", a.minutes, door=task.door)
            choice = _choice(s.id, task, a.minutes, in_hand, frees.get(a.key, 0.0))
            if s.id == here.commission_id and task.palette == wells:
                choice = replace(choice, wells_open=here.wells_open)
            found.append(_Could(choice, act, sitting.start.replace(tzinfo=now.tzinfo)))
    return found


def _choice(commission_id: str, task: Task, minutes: float, in_hand: int | None, frees: float) -> Choice:
    return Choice(
        commission_id, task.words, minutes, in_hand, task.palette, not task.whole, 0.0, frees, task.daylight, "fur" in task.family,
        minutes <= _SMALL_MIN and task.family in _SMALL_FAMILIES, True, key=task.key,
    )  # fmt: skip


def _frees(s: CommissionStanding) -> dict[str, float]:
    """Minutes of drying that each task starts for those after it."""
    found: dict[str, float] = {}
    for room in s.rooms:
        for place, lag in (need for task in room for need in task.after):
            if place != BEFORE:
                name = room[place].name
                found[name] = min(_MOST_FREES, max(found.get(name, 0.0), lag))
    return found
