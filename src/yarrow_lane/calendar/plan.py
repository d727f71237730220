"""Sittings over all commissions: canvases dry while others are painted, pins stay, and as little moves as can be."""

from collections import Counter
from collections.abc import Callable, Sequence
from datetime import date, datetime

from yarrow_lane.calendar.jobs import NEVER, Job, Work, job_of
from yarrow_lane.calendar.laying import Laying, broken
from yarrow_lane.calendar.own_time import DAY_MIN, OwnTime
from yarrow_lane.calendar.pinning import fixed
from yarrow_lane.calendar.ranking import ranked
from yarrow_lane.calendar.search import CommissionDay, Search, days_of, moved
from yarrow_lane.calendar.sittings import Pin, Plan
from yarrow_lane.calendar.telling import told
from yarrow_lane.calendar.windows import LONGEST_DAYS, Windows, minutes_by_day, windows
from yarrow_lane.measure.progress import SILENT, Progress

# Our choice: so much is planned stint by stint, about half a year of full days; what lies beyond is told by its hours and waits.
DETAILED_DAYS = 130
_LOOKED_AT = 1.5
QUICK, THOROUGH = 3_500, 75_000  # stints laid while the painter waits (about an eighth of a second), and behind: our choice
MOST_SEARCHED = 1_200  # larger plans are laid once: our choice
NEAR_DAYS = 7  # sittings that have been told are moved only for a gain: our choice
MOVED_PRICE = 2.0 * DAY_MIN  # minutes late that one moved sitting counts for: our choice, after trials
WORTH_SHOWING = float(DAY_MIN)  # a better plan found behind is shown when it gains a day


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
    if not free.begin or not jobs:
        # An empty studio has its hours all the same: a first piece is promised from them.
        return Plan(today, finish={w.commission_id: None for w in order}, open_minutes=minutes_by_day(free))
    releases = [_releases(j, now) for j in jobs]
    held = list(pins)
    while True:
        begun = Laying(jobs, free, own, releases, fixed(jobs, held, free, own))
        search = Search(begun, _price(before, today), progress=progress)
        _start(search, jobs, free, before)
        if sum(len(j.stints) for j in jobs) <= MOST_SEARCHED and effort:
            search.better(effort)
        laying = search.laid()
        gone = {jobs[job].commission_id for job, _ in broken(laying)}
        if not gone:
            break
        # A pin that would stand on wet paint gives way, the latest first: the ones before it may then hold.
        worst = max((p for p in held if p.commission_id in gone), key=lambda p: p.start)
        held.remove(worst)
    return told(laying, order[near:], free, own, [p for p in pins if p not in held])


def moved_since(one: Plan, other: Plan, days: int = NEAR_DAYS) -> float:
    """How many sittings of the days ahead stand on other days."""
    return moved(_days_told(one, other.first, days), _days_told(other, other.first, days))


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
    was = _days_told(before, today, NEAR_DAYS)
    return lambda laying: MOVED_PRICE * moved(days_of(laying, NEAR_DAYS), was)


def _days_told(plan: Plan, first: date, days: int) -> frozenset[CommissionDay]:
    """Which commission a plan paints on which of the days from `first` on."""
    found = ((s.commission_id, (s.day - first).days) for s in plan.sittings)
    return frozenset((commission_id, n) for commission_id, n in found if 0 <= n < days)
