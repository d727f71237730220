"""The way out by the clock: what follows when, at the earliest, as waits and days of frame and courier have it."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

from yarrow_lane.lane.standing import Task


@dataclass(frozen=True)
class ClockRow:
    """A step and the earliest moment it can begin."""

    at: datetime
    words: str


def by_the_clock(tasks: Sequence[Task], now: datetime) -> tuple[ClockRow, ...]:
    """Each step after the ones it waits for; the painter's own hours are the calendar's affair.

    Waits that follow the painting itself cannot be told here: the first step is then as early as now.
    """
    ends: list[datetime] = []
    found = []
    for task in tasks:
        start = now
        for before, wait in task.after:
            if 0 <= before < len(ends):
                start = max(start, ends[before] + timedelta(minutes=wait))
        if task.earliest is not None:
            start = max(start, task.earliest)
        ends.append(start + timedelta(minutes=task.minutes))
        found.append(ClockRow(start, task.words))
    return tuple(found)
