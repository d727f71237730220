"""Tasks of all commissions laid over the working days, the nearest promise first, each not before what it waits for.

Earliest due date first is the order that makes the worst lateness smallest on one easel (Jackson 1955); a canvas that has to dry
lets the next ones go before it. Small steps of the way out (sign, varnish, pack) go before any painting: they cost minutes, and a
wait begins with each (our choice).
"""

import heapq
import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date, datetime
from functools import cached_property
from typing import NamedTuple

from yarrow_lane.calendar.week import Week, minutes_left_today
from yarrow_lane.lane.standing import BEFORE, Task
from yarrow_lane.measure.kept import kept
from yarrow_lane.measure.moments import day_after

# Our choice: a sitting shorter than this is not worth setting up for, unless it is the last.
SHORTEST_MIN = 20.0
_SMALL_STEP_MIN = 30.0  # our choice
_TRIES = 4  # our choice: when so many do not fit into what is left of a day, the day is over
# Our choice: so many days at the easel are planned one by one, half a year when every one is filled; what lies beyond is told by
# its hours and waits alone. While canvases dry others go before them: half as much work again is looked at.
DETAILED_DAYS = 130
_LOOKED_AT = 1.5
_DAY_MIN = 1440.0
Rank = tuple[bool, bool, date]


@dataclass(frozen=True)
class Work:
    """What one commission still needs: for each room in order its tasks."""

    commission_id: str
    promised: date | None
    rooms: tuple[tuple[Task, ...], ...]

    @cached_property
    def minutes(self) -> float:
        """All of it."""
        return sum(t.minutes for room in self.rooms for t in room)


@kept(4096)
def _length(work: Work, stretch: float) -> float:
    """Minutes from its first task to its last if nothing else is painted: all work, `stretch` times as long, and all waits."""
    before = 0.0
    for room in work.rooms:
        before = _through([(t, t.minutes, None) for t in room], 0.0, before, stretch)
    return before


def _through(room: Sequence[tuple[Task, float, float | None]], begin: float, before: float, stretch: float) -> float:
    """When a room could be over at the earliest, its tasks that have no end yet not beginning before `begin`.

    `room` has each task with its minutes left and its end, if it is done; `before` is the end of the room before it; a minute at
    the easel takes `stretch` minutes of the calendar. Tasks come after those they wait for.
    """
    found: list[float] = []
    for task, minutes, end in room:
        if end is None:
            starts = (before + lag if n == BEFORE else found[n] + lag for n, lag in task.after)
            end = max((begin, *starts)) + stretch * minutes
        found.append(end)
    return max(found, default=begin)


class Sitting(NamedTuple):
    """Some minutes on one commission on one day."""

    commission_id: str
    day: date
    minutes: float


@dataclass(frozen=True)
class Plan:
    """Sittings by commission in order of days, and the day each could be handed over."""

    sittings: Mapping[str, tuple[Sitting, ...]]
    finish: Mapping[str, date]


class _Canvas:
    """One commission while it is planned: which task is next, and from when. Moments are minutes after today's midnight."""

    def __init__(self, work: Work, midnight: datetime, begin: float) -> None:
        self.work = work
        self._midnight = midnight
        self._rooms = [room for room in work.rooms if room]
        self._before = 0.0
        self._ends: list[float | None] = []
        self._left: list[float] = []
        self._chain = False
        self.finish = begin
        self.sittings: list[Sitting] = []
        self._enter()

    def _enter(self) -> None:
        if self._rooms:
            room = self._rooms[0]
            self._ends = [None] * len(room)
            self._left = [t.minutes for t in room]
            # In a chain only the first that is not done can be next.
            self._chain = all(n == 0 or any(a == n - 1 for a, _ in t.after) for n, t in enumerate(room))

    @property
    def over(self) -> bool:
        return not self._rooms

    def minutes(self) -> float:
        """All minutes still to come."""
        return sum(self._left) + sum(t.minutes for room in self._rooms[1:] for t in room)

    def could_end(self, begin: float, stretch: float) -> float:
        """When all of it could be over if what is still to come begins at `begin` at the earliest."""
        before = self._before
        for number, room in enumerate(self._rooms):
            state = zip(room, self._left, self._ends, strict=True) if number == 0 else ((t, t.minutes, None) for t in room)
            before = _through(list(state), begin, before, stretch)
        return before

    def _ready(self, place: int) -> float:
        """From when a task may be begun; infinite while something before it is not done."""
        task, at = self._rooms[0][place], 0.0
        for n, lag in task.after:
            end = self._before if n == BEFORE else self._ends[n]
            if end is None:
                return math.inf
            at = max(at, end + lag)
        if task.earliest is not None:
            at = max(at, (task.earliest - self._midnight).total_seconds() / 60)
        return at

    def next(self) -> tuple[int, float]:
        """The task to do next and from when: the first that is ready soonest."""
        if self._chain:
            place = self._ends.index(None)
            return place, self._ready(place)
        at, place = min((self._ready(n), n) for n, end in enumerate(self._ends) if end is None)
        return place, at

    def rank(self, place: int, today: date) -> Rank:
        """What is done first of two things that are ready: the smaller comes first."""
        task = self._rooms[0][place]
        large = not (task.whole and task.minutes <= _SMALL_STEP_MIN)
        return large, self.work.promised is None, self.work.promised or today

    def room_for(self, place: int, room: float) -> float:
        """How much of a task fits into the rest of a day: all, a part worth setting up for, or nothing (-1)."""
        left = self._left[place]
        if left <= room:
            return left
        return -1.0 if self._rooms[0][place].whole or room < SHORTEST_MIN else room

    def do(self, place: int, minutes: float, end: float) -> None:
        self._left[place] -= minutes
        if self._left[place] <= 1e-6:
            self._ends[place] = end
            self.finish = max(self.finish, end)
            if None not in self._ends:
                self._before = max(e for e in self._ends if e is not None)
                self._rooms.pop(0)
                self._enter()


def plan(works: Sequence[Work], now: datetime, week: Week, painted_today: float = 0.0) -> Plan:
    """Lay all tasks over the working days from now on; `painted_today` are minutes of today that are over already.

    Nothing is planned without working days; then everything could be handed over today.
    """
    today = now.date()
    midnight = now.replace(hour=0, minute=0, second=0, microsecond=0)
    minute_now = (now - midnight).total_seconds() / 60
    order = sorted(works, key=lambda w: (w.promised is None, w.promised or today))
    near = _looked_at(order, week)
    canvases = [_Canvas(w, midnight, minute_now) for w in order[:near]]
    finish = {w.commission_id: today for w in order}
    if week.weekdays and week.minutes_a_day > 0:
        days = _fill_days(canvases, now, minute_now, week, painted_today)
        finish |= _told_by_hours(canvases, order[near:], today, days, week)
    finish |= {c.work.commission_id: day_after(today, int(c.finish // _DAY_MIN)) for c in canvases if c.over}
    sittings: dict[str, tuple[Sitting, ...]] = {w.commission_id: () for w in order}
    sittings |= {c.work.commission_id: tuple(c.sittings) for c in canvases}
    return Plan(sittings, finish)


def _looked_at(order: Sequence[Work], week: Week) -> int:
    """How many of the works, the nearest promise first, can come into the days that are planned one by one."""
    minutes, most = 0.0, _LOOKED_AT * DETAILED_DAYS * week.minutes_a_day
    for number, work in enumerate(order):
        minutes += work.minutes
        if minutes > most:
            return number + 1
    return len(order)


def _fill_days(canvases: list[_Canvas], now: datetime, minute_now: float, week: Week, painted_today: float) -> int:
    """Day by day: of the canvases that are ready the nearest promise first, as long as the day has room.

    Days on which everything dries are passed over. Returns how many days from today were reached.
    """
    today = now.date()
    waiting = [(at, n, place) for n, c in enumerate(canvases) if not c.over for place, at in [c.next()]]
    heapq.heapify(waiting)
    ready: list[tuple[Rank, int, int]] = []
    planned = offset = 0
    while (waiting or ready) and planned < DETAILED_DAYS:
        if not ready:
            offset = max(offset, int(waiting[0][0] // _DAY_MIN))
        day = day_after(today, offset)
        clock = offset * _DAY_MIN + week.starts_at_hour * 60
        room = week.minutes_a_day
        if offset == 0:
            clock, room = max(clock, minute_now), minutes_left_today(week, now, painted_today)
        offset += 1
        if day.weekday() not in week.weekdays:
            continue
        planned += 1
        end_of_day = clock + room
        later: list[tuple[Rank, int, int]] = []
        while len(later) < _TRIES:
            while waiting and waiting[0][0] <= clock:
                _, n, place = heapq.heappop(waiting)
                heapq.heappush(ready, (canvases[n].rank(place, today), n, place))
            if not ready:
                if not waiting or waiting[0][0] >= end_of_day:
                    break
                clock = waiting[0][0]  # everything dries: the painter waits a little
                continue
            entry = heapq.heappop(ready)
            _, n, place = entry
            canvas = canvases[n]
            minutes = canvas.room_for(place, end_of_day - clock)
            if minutes < 0:
                later.append(entry)
                continue
            clock += minutes
            canvas.do(place, minutes, clock)
            _note(canvas.sittings, canvas.work.commission_id, day, minutes)
            if not canvas.over:
                following, at = canvas.next()
                if at <= clock:
                    heapq.heappush(ready, (canvas.rank(following, today), n, following))
                else:
                    heapq.heappush(waiting, (at, n, following))
        for entry in later:
            heapq.heappush(ready, entry)
    return offset


def _note(found: list[Sitting], commission_id: str, day: date, minutes: float) -> None:
    """One sitting a day on one canvas: what follows on the same day is added to it."""
    if minutes <= 0:
        return
    if found and found[-1].day == day:
        found[-1] = found[-1]._replace(minutes=found[-1].minutes + minutes)
    else:
        found.append(Sitting(commission_id, day, minutes))


def _told_by_hours(begun: list[_Canvas], rest: Sequence[Work], today: date, days: int, week: Week) -> dict[str, date]:
    """What did not fit into the `days` planned one by one: its day follows from hours and waits, without single sittings."""
    stretch = 7 * _DAY_MIN / (week.minutes_a_day * len(week.weekdays))
    begin = days * _DAY_MIN  # moved on by the hours of each canvas for those after it
    ends: dict[str, float] = {}
    for canvas in begun:
        if not canvas.over:
            ends[canvas.work.commission_id] = canvas.could_end(begin, stretch)
            begin += stretch * canvas.minutes()
    for work in rest:
        ends[work.commission_id] = begin + _length(work, stretch)
        begin += stretch * work.minutes
    return {i: day_after(today, int(end // _DAY_MIN)) for i, end in ends.items()}
