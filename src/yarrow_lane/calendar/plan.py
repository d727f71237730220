"""Sittings over all commissions: canvases dry while others are painted, pins stay, and as little moves as can be."""

from collections import Counter
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import date, datetime, timedelta

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.calendar.jobs import NEVER, Job, Work, job_of
from yarrow_lane.calendar.laying import Laying, Pins, Rule, broken
from yarrow_lane.calendar.own_time import DAY_MIN, OwnTime
from yarrow_lane.calendar.ranking import ranked
from yarrow_lane.calendar.search import Search, moved, sittings_of
from yarrow_lane.calendar.windows import GRID, LONGEST_DAYS, Windows, windows
from yarrow_lane.measure.moments import day_after
from yarrow_lane.measure.progress import SILENT, Progress

# Our choice: so much is planned stint by stint, about half a year of full days; what lies beyond is told by its hours and waits.
DETAILED_DAYS = 130
_LOOKED_AT = 1.5
QUICK, THOROUGH = 3_500, 75_000  # stints laid while the painter waits (about an eighth of a second), and behind: our choice
MOST_SEARCHED = 1_200  # larger plans are laid once: our choice
NEAR_DAYS = 7  # sittings that have been told are moved only for a gain: our choice
MOVED_PRICE = 2.0 * DAY_MIN  # minutes late that one moved sitting counts for: our choice, after trials
WORTH_SHOWING = float(DAY_MIN)  # a better plan found behind is shown when it gains a day


@dataclass(frozen=True)
class Pin:
    """A sitting the painter has fixed: tasks by key, from when (local wall clock), for how long."""

    commission_id: str
    keys: tuple[str, ...]
    start: datetime
    minutes: int


@dataclass(frozen=True)
class Act:
    """Part of a sitting: a pass or a step, by key (its words without one), and minutes."""

    key: str
    words: str
    minutes: int


@dataclass(frozen=True)
class Sitting:
    """Time at one canvas without another between, local wall clock."""

    commission_id: str
    start: datetime
    end: datetime
    acts: tuple[Act, ...]
    pinned: bool = False

    @property
    def day(self) -> date:
        """Its day."""
        return self.start.date()

    @property
    def minutes(self) -> int:
        """At work, changes of wells left out."""
        return sum(a.minutes for a in self.acts)


@dataclass(frozen=True)
class Plan:
    """Sittings in order of time, and the day each commission could be in the client's hands if all goes as guessed.

    `finish` is None where the hours do not reach. `order` by `rule` lays the same plan again. `broken` are pins that cannot hold. `late` are minutes
    late in all. `laid` holds for every laid stint its start, minutes and commission's number in `ids`; `body` where the painting of each ends;
    `small` are those with nothing but small acts and waits left.
    """

    first: date
    sittings: tuple[Sitting, ...] = ()
    finish: Mapping[str, date | None] = field(default_factory=dict)
    order: tuple[str, ...] = ()
    rule: Rule = "soonest"
    broken: tuple[Pin, ...] = ()
    late: float = 0.0
    ids: tuple[str, ...] = ()
    laid: NDArray[np.int64] = field(default_factory=lambda: np.zeros((3, 0), np.int64), compare=False)
    body: Mapping[str, int] = field(default_factory=dict)
    small: frozenset[str] = frozenset()
    open_minutes: NDArray[np.int64] = field(default_factory=lambda: np.zeros(0, np.int64), compare=False)

    def of(self, commission_id: str) -> tuple[Sitting, ...]:
        """One commission's sittings."""
        return tuple(s for s in self.sittings if s.commission_id == commission_id)


def plan(
    works: Sequence[Work], now: datetime, own: OwnTime, pins: Sequence[Pin] = (), before: Plan | None = None, effort: int = QUICK,
    progress: Progress = SILENT,
) -> Plan:  # fmt: skip
    """Lay all tasks over the painter's hours from now on; with a plan `before` it starts from that one's order and moves little."""
    order = sorted(works, key=lambda w: (w.promised is None, w.promised or now.date(), w.commission_id))
    today = now.date()
    near = _looked_at(order, own)
    jobs = [job_of(w) for w in order[:near]]
    free = windows(own, now, _horizon(jobs, own))
    finish: dict[str, date | None] = {w.commission_id: None for w in order}
    if not free.begin or not jobs:
        return Plan(today, (), finish)
    releases = [_releases(j, now) for j in jobs]
    held = list(pins)
    while True:
        fixed = _fixed(jobs, held, free, own)
        search = Search(Laying(jobs, free, own, releases, fixed), _price(before, today), progress=progress)
        _start(search, jobs, free, before)
        if sum(len(j.stints) for j in jobs) <= MOST_SEARCHED and effort:
            search.better(effort)
        laying = search.laid()
        gone = {jobs[job].commission_id for job, _ in broken(laying)}
        if not gone or not fixed:
            break
        # A pin that would stand on wet paint gives way, the latest first: the ones before it may then hold.
        worst = max((p for p in held if p.commission_id in gone), key=lambda p: p.start)
        held.remove(worst)
    return _told(laying, jobs, order, free, own, finish, [p for p in pins if p not in held], fixed, search)


def moved_since(one: Plan, other: Plan, days: int = NEAR_DAYS) -> float:
    """How many sittings of the days ahead stand on other days."""
    return moved(_told_days(one, other.first, days), _told_days(other, other.first, days))


# --- before the search


def _looked_at(order: Sequence[Work], own: OwnTime) -> int:
    """How many works, the nearest promise first, come into the days that are planned one by one."""
    minutes, most = 0.0, _LOOKED_AT * DETAILED_DAYS * own.minutes_a_day
    for number, work in enumerate(order):
        minutes += work.minutes
        if minutes > most:
            return number + 1
    return len(order)


def _horizon(jobs: Sequence[Job], own: OwnTime) -> int:
    """Days that surely hold the work: its hours twice, its longest chain of waits, days off, and two months."""
    if not own.minutes_a_week:
        return 0
    hours = sum(j.minutes for j in jobs) / own.minutes_a_week * 7
    chain = max((max(j.chain, default=0) for j in jobs), default=0) / DAY_MIN
    off = sum((o.last - o.first).days + 1 for o in own.off) + len(own.engagements) / 3
    return min(LONGEST_DAYS, int(2 * hours + 2 * chain + off + 60))


def _releases(job: Job, now: datetime) -> list[int]:
    """From when each stint may begin, minutes after today's midnight."""
    midnight = now.replace(hour=0, minute=0, second=0, microsecond=0)
    begin = now.hour * 60 + now.minute
    found = []
    for stint in job.stints:
        at = begin
        if stint.earliest is not None:
            at = max(at, min(NEVER, -int(-(stint.earliest - midnight).total_seconds() // 60)))
        found.append(at)
    return found


def _fixed(jobs: Sequence[Job], pins: Sequence[Pin], free: Windows, own: OwnTime) -> dict[tuple[int, int], int]:
    """Stints at pinned times: those of the pin's tasks in order, each dry before the next, as long as the sitting is and the hours reach."""
    number = {j.commission_id: n for n, j in enumerate(jobs)}
    found: dict[tuple[int, int], int] = {}
    taken: list[tuple[int, int, int]] = []
    for pin in sorted(pins, key=lambda p: p.start):
        n = number.get(pin.commission_id)
        if n is None:
            continue
        job = jobs[n]
        at = (pin.start.date() - free.first).days * DAY_MIN + pin.start.hour * 60 + pin.start.minute
        end, palette = at + pin.minutes, -1
        for k, stint in enumerate(job.stints):
            task = job.tasks[stint.task]
            if (task.key or task.words) not in pin.keys or (n, k) in found or not stint.minutes:
                continue
            start = at + (own.palette if palette >= 0 and stint.palette not in (palette, -1) else 0)
            start = max([start, *(found[n, b] + job.stints[b].minutes + lag for b, lag in stint.needs if (n, b) in found)])
            start = -(-start // GRID) * GRID
            until = start + stint.minutes
            fits = any(b <= start and until <= e for b, e in zip(free.begin, free.end, strict=True))
            clear = all(until + own.canvas <= b or e + own.canvas <= start or m == n for b, e, m in taken)
            if until <= end and fits and clear:
                found[n, k] = start
                at, palette = until, stint.palette
        taken += [(s, s + jobs[m].stints[k].minutes, m) for (m, k), s in found.items() if m == n]
    return found


def _start(search: Search, jobs: Sequence[Job], free: Windows, before: Plan | None) -> None:
    """The order to begin from: the plan before, new canvases at the end; else a first ranking."""
    if before is None or not before.order:
        search.begin(search.whole(ranked(jobs, free)))
        return
    search.follow(before.rule)
    number = {j.commission_id: n for n, j in enumerate(jobs)}
    left = Counter(search.whole(range(len(jobs))))
    order = []
    for name in before.order:
        n = number.get(name)
        if n is not None and left[n] > 0:
            order.append(n)
            left[n] -= 1
    order += [n for n in ranked(jobs, free) for _ in range(left[n])]
    search.begin(order)


def _price(before: Plan | None, today: date) -> Callable[[Laying], float]:
    """What moving the sittings of the next days costs."""
    if before is None:
        return lambda laying: 0.0
    told = _told_days(before, today, NEAR_DAYS)

    def price(laying: Laying) -> float:
        return MOVED_PRICE * moved(sittings_of(laying, NEAR_DAYS * DAY_MIN, DAY_MIN), told)

    return price


def _told_days(told: Plan, first: date, days: int) -> dict[tuple[str, int], int]:
    """Minutes by commission and day from `first` on."""
    found: dict[tuple[str, int], int] = {}
    for s in told.sittings:
        n = (s.day - first).days
        if 0 <= n < days:
            found[s.commission_id, n] = found.get((s.commission_id, n), 0) + s.minutes
    return found


# --- after it


def _told(
    laying: Laying, jobs: Sequence[Job], order: Sequence[Work], free: Windows, own: OwnTime, finish: dict[str, date | None],
    gone: Sequence[Pin], fixed: Pins, search: Search,
) -> Plan:  # fmt: skip
    rows: list[tuple[int, int, int]] = []
    body: dict[str, int] = {}
    small: set[str] = set()
    for n, job in enumerate(jobs):
        starts = laying.start[n]
        if laying.left[n]:
            continue
        finish[job.commission_id] = day_after(free.first, (laying.finish[n]) // DAY_MIN)
        painted = [s + job.stints[k].minutes for k, s in enumerate(starts) if not job.stints[k].small]
        body[job.commission_id] = max(painted, default=max(starts, default=0))
        if not painted:
            small.add(job.commission_id)
    for n, row in enumerate(laying.start):
        rows += [(s, jobs[n].stints[k].minutes, n) for k, s in enumerate(row) if s >= 0]
    finish |= _by_hours(laying, jobs, order[len(jobs) :], free, own)
    return Plan(
        free.first, _sittings(laying, jobs, free, fixed), finish, tuple(jobs[s[0]].commission_id for s in laying.steps), laying.rule, tuple(gone),
        sum(max(0.0, f - d) for f, d in zip(laying.finish, laying.due, strict=True)),
        tuple(j.commission_id for j in jobs), np.array(rows, np.int64).reshape(-1, 3).T, body, frozenset(small), _open_minutes(free),
    )  # fmt: skip


def _open_minutes(free: Windows) -> NDArray[np.int64]:
    """Free minutes of each day."""
    found = np.zeros((free.end[-1] // DAY_MIN + 1) if free.end else 0, np.int64)
    for begin, end in zip(free.begin, free.end, strict=True):
        found[begin // DAY_MIN] += end - begin
    return found


def _by_hours(
    laying: Laying, jobs: Sequence[Job], rest: Sequence[Work], free: Windows, own: OwnTime
) -> dict[str, date | None]:  # fmt: skip
    """What is not planned stint by stint: its day follows from hours and waits."""
    found: dict[str, date | None] = {}
    begin = max((f for f in laying.finish), default=0) if rest else 0
    stretch = 7 * DAY_MIN / own.minutes_a_week
    for work in rest:
        job = job_of(work)
        waits = max(job.chain, default=0) - job.minutes
        begin += int(stretch * work.minutes)
        found[work.commission_id] = day_after(free.first, min(40_000, (begin + max(0, waits)) // DAY_MIN))
    return found


def _sittings(laying: Laying, jobs: Sequence[Job], free: Windows, fixed: Pins) -> tuple[Sitting, ...]:
    """Stints of one canvas in one window, with nothing of another between, told as one sitting."""
    midnight = datetime(free.first.year, free.first.month, free.first.day)
    found: list[Sitting] = []
    where = {(n, s): k for n, row in enumerate(laying.start) for k, s in enumerate(row) if s >= 0 and jobs[n].stints[k].minutes}
    for row in laying.board.laid:
        of: list[tuple[int, int, int]] = []
        for start, end, n, _ in row:
            if of and of[-1][2] != n:
                found.append(_sitting(of, jobs, where, midnight, fixed))
                of = []
            of.append((start, end, n))
        if of:
            found.append(_sitting(of, jobs, where, midnight, fixed))
    return tuple(found)


def _sitting(
    of: Sequence[tuple[int, int, int]], jobs: Sequence[Job], where: Mapping[tuple[int, int], int], midnight: datetime, fixed: Pins
) -> Sitting:  # fmt: skip
    job, pinned = jobs[of[0][2]], False
    acts: list[Act] = []
    for start, end, n in of:
        k = where[n, start]
        task = job.tasks[job.stints[k].task]
        pinned = pinned or (n, k) in fixed
        key = task.key or task.words
        if acts and acts[-1].key == key:
            acts[-1] = Act(key, task.words, acts[-1].minutes + end - start)
        else:
            acts.append(Act(key, task.words, end - start))
    at, until = midnight + timedelta(minutes=of[0][0]), midnight + timedelta(minutes=of[-1][1])
    return Sitting(job.commission_id, at, until, tuple(acts), pinned)
