"""What lies on the board, told as a plan."""

from collections.abc import Sequence
from datetime import date, datetime, timedelta
from itertools import groupby

import numpy as np

from yarrow_lane.calendar.board import Laid
from yarrow_lane.calendar.jobs import Job, Work, job_of
from yarrow_lane.calendar.laying import Laying
from yarrow_lane.calendar.own_time import DAY_MIN, OwnTime
from yarrow_lane.calendar.sittings import Act, Pin, Plan, Sitting
from yarrow_lane.calendar.windows import Windows, minutes_by_day
from yarrow_lane.measure.moments import day_after


def told(laying: Laying, beyond: Sequence[Work], free: Windows, own: OwnTime, broken: Sequence[Pin]) -> Plan:
    """The plan that lies; `beyond` are works that are not planned stint by stint, `broken` pins that could not hold."""
    jobs = laying.jobs
    finish: dict[str, date | None] = {}
    rows: list[tuple[int, int, int]] = []
    body: dict[str, int] = {}
    small: set[str] = set()
    for n, job in enumerate(jobs):
        starts = laying.start[n]
        rows += [(s, job.stints[k].minutes, n) for k, s in enumerate(starts) if s >= 0]
        if laying.left[n]:
            finish[job.commission_id] = None
            continue
        finish[job.commission_id] = day_after(free.first, laying.finish[n] // DAY_MIN)
        painted = [s + job.stints[k].minutes for k, s in enumerate(starts) if not job.stints[k].small]
        body[job.commission_id] = max(painted, default=max(starts, default=0))
        if not painted:
            small.add(job.commission_id)
    return Plan(
        first=free.first,
        sittings=_sittings(laying, free.first),
        finish=finish | _by_hours(laying, beyond, free, own),
        order=tuple(jobs[step[0]].commission_id for step in laying.steps),
        rule=laying.rule,
        broken=tuple(broken),
        late=float(sum(max(0, f - d) for f, d in zip(laying.finish, laying.due, strict=True))),
        ids=tuple(j.commission_id for j in jobs),
        laid=np.array(rows, np.int64).reshape(-1, 3).T,
        body=body,
        small=frozenset(small),
        open_minutes=minutes_by_day(free),
    )


def _by_hours(laying: Laying, beyond: Sequence[Work], free: Windows, own: OwnTime) -> dict[str, date | None]:
    """What is not planned stint by stint: its day follows from hours and waits."""
    found: dict[str, date | None] = {}
    begin = max(laying.finish, default=0)
    stretch = 7 * DAY_MIN / own.minutes_a_week
    for work in beyond:
        job = job_of(work)
        waits = max(job.chain, default=0) - job.minutes
        begin += int(stretch * work.minutes)
        found[work.commission_id] = day_after(free.first, (begin + max(0, waits)) // DAY_MIN)
    return found


def _sittings(laying: Laying, first: date) -> tuple[Sitting, ...]:
    """Stints of one canvas in one window, with nothing of another between, told as one sitting."""
    jobs = laying.jobs
    stint_at = {
        (n, s): k for n, row in enumerate(laying.start) for k, s in enumerate(row) if s >= 0 and jobs[n].stints[k].minutes
    }
    midnight = datetime(first.year, first.month, first.day)

    def sitting(n: int, laid: Sequence[Laid]) -> Sitting:
        stints = [stint_at[n, start] for start, *_ in laid]
        begin, end = (midnight + timedelta(minutes=m) for m in (laid[0][0], laid[-1][1]))
        return Sitting(jobs[n].commission_id, begin, end, _acts(jobs[n], stints), any((n, k) in laying.pins for k in stints))

    return tuple(
        sitting(n, list(laid)) for row in laying.board.laid for n, laid in groupby(row, key=lambda stint: stint[2])
    )  # fmt: skip


def _acts(job: Job, stints: Sequence[int]) -> tuple[Act, ...]:
    """Stints that follow each other at one task are one act."""
    acts: list[Act] = []
    for number, parts in groupby(stints, key=lambda k: job.stints[k].task):
        task = job.tasks[number]
        acts.append(Act(task.name, task.words, sum(job.stints[k].minutes for k in parts)))
    return tuple(acts)
