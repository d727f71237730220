"""Tasks of all commissions laid over the working days, the nearest promise first, each not before what it waits for.

Earliest due date first is the order that makes the worst lateness smallest on one easel (Jackson 1955); a canvas that has to dry
lets the next ones go before it. Small steps of the way out (sign, varnish, pack) go before any painting: they cost minutes, and a
wait begins with each (our choice).
"""

import heapq
import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date, datetime, timedelta
from typing import NamedTuple

from yarrow_lane.calendar.week import Week, minutes_left_today
from yarrow_lane.lane.standing import BEFORE, Task

# Our choice: a sitting shorter than this is not worth setting up for, unless it is the last.
SHORTEST_MIN = 20.0
_SMALL_STEP_MIN = 30.0  # our choice
# Our choice: so many working days are planned one by one; what lies beyond a year is told by its hours alone.
DETAILED_DAYS = 260
_DAY_MIN = 1440.0


@dataclass(frozen=True)
class Work:
    """What one commission still needs: for each room in order its tasks."""

    commission_id: str
    promised: date | None
    rooms: tuple[tuple[Task, ...], ...]


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
        self._rooms = [list(room) for room in work.rooms if room]
        self._before = 0.0
        self._ends: list[float | None] = []
        self._left: list[float] = []
        self.finish = begin
        self._enter()

    def _enter(self) -> None:
        if self._rooms:
            self._ends = [None] * len(self._rooms[0])
            self._left = [t.minutes for t in self._rooms[0]]

    @property
    def over(self) -> bool:
        return not self._rooms

    def minutes(self) -> float:
        """All minutes still to come."""
        return sum(self._left) + sum(t.minutes for room in self._rooms[1:] for t in room)

    def waits(self) -> float:
        """A floor under the waits still to come, along the chain of the last room."""
        return sum(max((lag for _, lag in t.after), default=0.0) for room in self._rooms[-1:] for t in room)

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
        open_ = [(self._ready(n), n) for n, end in enumerate(self._ends) if end is None]
        at, place = min(open_)
        return place, at

    def rank(self, place: int, today: date) -> tuple[bool, bool, date]:
        """What is done first of two things that are ready: the smaller comes first."""
        task = self._rooms[0][place]
        large = not (task.whole and task.minutes <= _SMALL_STEP_MIN)
        return large, self.work.promised is None, self.work.promised or today

    def room_for(self, place: int, room: float) -> float:
        """How much of a task fits into the rest of a day: all, a part worth setting up for, or nothing."""
        left = self._left[place]
        if left <= room:
            return left
        return 0.0 if self._rooms[0][place].whole or room < SHORTEST_MIN else room

    def do(self, place: int, minutes: float, end: float) -> None:
        self._left[place] -= minutes
        if self._left[place] <= 1e-6:
            self._ends[place] = end
            self.finish = max(self.finish, end)
            if all(e is not None for e in self._ends):
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
    canvases = [_Canvas(w, midnight, minute_now) for w in works]
    sittings: dict[str, list[Sitting]] = {w.commission_id: [] for w in works}
    waiting = [(c.next()[1], n) for n, c in enumerate(canvases) if not c.over]
    heapq.heapify(waiting)
    if week.weekdays and week.minutes_a_day > 0:
        _fill_days(canvases, waiting, sittings, now, minute_now, week, painted_today)
        _tell_by_hours(canvases, today, week)
    finish = {c.work.commission_id: today + timedelta(days=int(c.finish // _DAY_MIN)) for c in canvases}
    return Plan({i: tuple(found) for i, found in sittings.items()}, finish)


def _fill_days(
    canvases: list[_Canvas], waiting: list[tuple[float, int]],
    sittings: dict[str, list[Sitting]], now: datetime, minute_now: float, week: Week, painted_today: float,
) -> None:  # fmt: skip
    """Day by day: of the canvases that are ready the nearest promise first, as long as the day has room."""
    today = now.date()
    ready: list[tuple[tuple[bool, bool, date], int]] = []
    planned = offset = 0
    while (waiting or ready) and planned < DETAILED_DAYS:
        day = today + timedelta(days=offset)
        clock = offset * _DAY_MIN + week.starts_at_hour * 60
        room = week.minutes_a_day
        if offset == 0:
            clock, room = max(clock, minute_now), minutes_left_today(week, now, painted_today)
        offset += 1
        if day.weekday() not in week.weekdays:
            continue
        planned += 1
        end_of_day = clock + room
        later: list[tuple[tuple[bool, bool, date], int]] = []
        while True:
            while waiting and waiting[0][0] <= clock:
                _, n = heapq.heappop(waiting)
                heapq.heappush(ready, (canvases[n].rank(canvases[n].next()[0], today), n))
            if not ready:
                if not waiting or waiting[0][0] >= end_of_day:
                    break
                clock = waiting[0][0]  # everything dries: the painter waits a little
                continue
            key, n = heapq.heappop(ready)
            canvas = canvases[n]
            place, _ = canvas.next()
            minutes = canvas.room_for(place, end_of_day - clock)
            if minutes <= 0 and canvas.room_for(place, math.inf) > 0:
                later.append((key, n))
                continue
            clock += minutes
            canvas.do(place, minutes, clock)
            _note(sittings[canvas.work.commission_id], canvas.work.commission_id, day, minutes)
            if not canvas.over:
                following, at = canvas.next()
                if at <= clock:
                    heapq.heappush(ready, (canvas.rank(following, today), n))
                else:
                    heapq.heappush(waiting, (at, n))
        for entry in later:
            heapq.heappush(ready, entry)


def _note(found: list[Sitting], commission_id: str, day: date, minutes: float) -> None:
    """One sitting a day on one canvas: what follows on the same day is added to it."""
    if minutes <= 0:
        return
    if found and found[-1].day == day:
        found[-1] = found[-1]._replace(minutes=found[-1].minutes + minutes)
    else:
        found.append(Sitting(commission_id, day, minutes))


def _tell_by_hours(canvases: list[_Canvas], today: date, week: Week) -> None:
    """What did not fit into the days planned one by one: its day follows from hours and waits, without single sittings."""
    left = sorted((c for c in canvases if not c.over), key=lambda c: (c.work.promised is None, c.work.promised or today))
    minutes = DETAILED_DAYS * week.minutes_a_day if left else 0.0
    for canvas in left:
        minutes += canvas.minutes()
        days = minutes / week.minutes_a_day * 7 / len(week.weekdays)
        canvas.finish = max(canvas.finish, days * _DAY_MIN + canvas.waits())
