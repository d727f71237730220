"""Sittings the painter has fixed, laid before everything else."""

from collections.abc import Sequence

from yarrow_lane.calendar.jobs import Job
from yarrow_lane.calendar.own_time import DAY_MIN, OwnTime
from yarrow_lane.calendar.sittings import Pin
from yarrow_lane.calendar.windows import GRID, Windows

Fixed = dict[tuple[int, int], int]  # (job, stint) to its start


def fixed(jobs: Sequence[Job], pins: Sequence[Pin], free: Windows, own: OwnTime) -> Fixed:
    """Stints at pinned times: those of the pin's tasks in order, each dry before the next, as long as the sitting is and the hours reach."""
    number = {j.commission_id: n for n, j in enumerate(jobs)}
    found: Fixed = {}
    taken: list[tuple[int, int, int]] = []  # start, end, job
    for pin in sorted(pins, key=lambda p: p.start):
        n = number.get(pin.commission_id)
        if n is None:
            continue
        others = [(start, end) for start, end, job in taken if job != n]
        taken += [(start, end, n) for start, end in _fix(pin, n, jobs[n], others, found, free, own)]
    return found


def _fix(
    pin: Pin, n: int, job: Job, others: Sequence[tuple[int, int]], found: Fixed, free: Windows, own: OwnTime
) -> list[tuple[int, int]]:  # fmt: skip
    """One pin's stints into `found`; returns what they take."""
    at = (pin.start.date() - free.first).days * DAY_MIN + pin.start.hour * 60 + pin.start.minute
    over, palette, taken = at + pin.minutes, -1, []
    for k, stint in enumerate(job.stints):
        if job.tasks[stint.task].name not in pin.keys or (n, k) in found or not stint.minutes:
            continue
        start = at + (own.palette if palette >= 0 and stint.palette not in (palette, -1) else 0)
        start = max([start, *(found[n, b] + job.stints[b].minutes + lag for b, lag in stint.needs if (n, b) in found)])
        start = -(-start // GRID) * GRID
        end = start + stint.minutes
        clear = all(end + own.canvas <= b or e + own.canvas <= start for b, e in others)
        if end <= over and clear and free.holds(start, end):
            found[n, k] = start
            at, palette = end, stint.palette
            taken.append((start, end))
    return taken
