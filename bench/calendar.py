"""Calendar: speed of planning, nearness to the optimum, honest dates, and how little a small change moves.

With `BENCH_LONG=1` also thirty studios against CP-SAT, a minute each.
"""

import os
import time
from collections.abc import Iterator
from datetime import timedelta

import numpy as np
from tests.rooms.calendar.checker import faults
from tests.rooms.calendar.optimum import optimum
from tests.rooms.calendar.painters import WORLDS, trial
from tests.rooms.calendar.studios import DAY, MONDAY, OWN, small_changes, studio
from tests.rooms.calendar.test_dates import with_families

from bench.figures import figure
from yarrow_lane.calendar.dates import Outcomes
from yarrow_lane.calendar.jobs import job_of
from yarrow_lane.calendar.laying import Laying
from yarrow_lane.calendar.pace import Pace
from yarrow_lane.calendar.painted_days import PaintedDays
from yarrow_lane.calendar.plan import THOROUGH, moved_since, plan
from yarrow_lane.calendar.promising import offers
from yarrow_lane.calendar.question import thorough
from yarrow_lane.calendar.ranking import ranked
from yarrow_lane.calendar.remedies import trouble
from yarrow_lane.calendar.search import Search
from yarrow_lane.calendar.windows import windows

_NOW = MONDAY.replace(hour=8)
_SIZES = ((4, 8), (5, 8), (5, 10), (6, 10), (6, 12), (8, 12))


def _spent(do):
    begin = time.process_time()
    found = do()
    return found, time.process_time() - begin


def _searched(works, effort, days):
    jobs = [job_of(w) for w in works]
    free = windows(OWN, MONDAY, days)
    search = Search(Laying(jobs, free, OWN, [[0] * len(j.stints) for j in jobs], {}), lambda laying: 0.0)
    search.begin(search.whole(ranked(jobs, free)))
    search.better(effort)
    laying = search.laid()
    assert faults(laying, free, OWN) == []
    return laying, free, sum(max(0, f - d) for f, d in zip(laying.finish, laying.due, strict=True))


def _speed() -> Iterator[str]:
    works = studio(20, 40, 7)
    first, _ = _spent(lambda: plan(works, _NOW, OWN))
    again = [_spent(lambda n=n: plan(works, _NOW + timedelta(minutes=n), OWN, (), first))[1] for n in range(5)]
    yield figure("re-plan of 20 commissions, CPU", float(np.median(again)), 0.3, "s")
    behind = studio(6, 12, 9, 1.1)
    quick = plan(behind, _NOW, OWN)
    yield figure("searched on behind, CPU", _spent(lambda: thorough(behind, _NOW, OWN, (), quick))[1], 2.0, "s")
    many = studio(200, 40, 7)
    for w in many:
        job_of(w)
    yield figure("200 commissions of 40 passes, CPU", min(_spent(lambda: plan(many, _NOW, OWN))[1] for _ in range(3)), 0.3, "s")


def _dates() -> Iterator[str]:
    works, pace = with_families(studio(20, 40, 7, 0.7)), Pace({})
    whole = plan(works, _NOW, OWN, effort=0)
    taken = []
    for n in range(4):
        outcomes, first = _spent(lambda n=n: Outcomes(works, whole, pace, PaintedDays((0.9,) * n)))
        taken.append(first + _spent(outcomes.dates)[1])
    yield figure("dates of 20 open commissions, CPU", float(np.median(taken)), 0.1, "s")
    promised = {i: d.safe for i, d in outcomes.dates().items()}
    yield figure("before promising, CPU", _spent(lambda: offers(works[0], outcomes, promised, _NOW, OWN))[1], 0.5, "s")
    late = max(outcomes.ids, key=lambda i: whole.body[i])
    promised[late] = outcomes.dates()[late].likely
    yield figure("remedies, CPU", _spent(lambda: trouble(late, outcomes, promised, OWN, 48, 2))[1], 0.5, "s")


def _calibration() -> Iterator[str]:
    for world in WORLDS:
        for logged in (0, 3, 12):
            found = [t for seed in range(500) for t in trial(1000 + seed, logged, world)]
            share = 100 * float(np.mean([done <= safe for _, safe, done in found]))
            name = f"safe days that hold, {world}, {logged} logged"
            yield figure(f"{name}: that do not", 100 - share, 15.0, "of 100")
            yield figure(f"{name}: that do", share, 95.0, "of 100")


def _stability() -> Iterator[str]:
    moved = []
    for seed in range(12):
        works = studio(6, 12, seed + 50, 0.9)
        before = plan(works, _NOW, OWN)
        moved.append([moved_since(before, plan(c, _NOW, OWN, (), before)) for c in small_changes(works, seed)])
    yield figure("sittings of the week moved by a promise a day nearer", float(np.mean(moved, 0)[1]), 0.5, "")
    yield figure("by a longer pass, a nearer promise, a new piece", float(np.mean(moved)), 0.5, "")


def _optimum() -> Iterator[str]:
    behind = 0
    for seed in range(20):
        laying, free, late = _searched(studio(3, 4, 100 + seed, 1.6, False), THOROUGH, 40)
        status, best, _ = optimum(laying.jobs, free, OWN, laying.start, 60)
        behind += status == "OPTIMAL" and late > best
    yield figure("of 20 small studios that CP-SAT proves, not at the optimum", float(behind), 0.0, "")
    if not os.environ.get("BENCH_LONG"):
        return
    off = []
    for k in range(30):
        count, passes = _SIZES[k % len(_SIZES)]
        works = studio(count, passes, 500 + k, 1.1, False)
        laying, _, late = _searched(works, THOROUGH, int(sum(w.minutes for w in works) / 300 * 2.6 + 120))
        free = windows(OWN, MONDAY, int(max(laying.finish) / DAY * 1.4) + 12)
        _, best, _ = optimum(laying.jobs, free, OWN, laying.start, 60)
        off.append((late - best) / DAY)
    yield figure("30 studios behind CP-SAT after 60 s from our own plan, days late, worst", max(off), 0.5, "d")
    yield figure("the same, studios more than half a day behind", float(sum(o > 0.5 for o in off)), 0.0, "of 30")


def measure() -> Iterator[str]:
    """All figures of the calendar."""
    yield from _speed()
    yield from _dates()
    yield from _stability()
    yield from _optimum()
    yield from _calibration()
