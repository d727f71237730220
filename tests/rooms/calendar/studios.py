"""Made-up studios: portraits of regions and coats with drying, rest, last sitting, varnish, packing and courier."""

import math
from dataclasses import replace
from datetime import UTC, date, datetime, timedelta

import numpy as np

from yarrow_lane.calendar.jobs import Work
from yarrow_lane.calendar.own_time import OwnTime, Span
from yarrow_lane.lane.standing import BEFORE, Task

MONDAY = datetime(2026, 3, 2, 0, 0, tzinfo=UTC)
DAY = 1440
WEEK = (*(((Span(570, 750), Span(810, 930)),) * 5), (), ())
OWN = OwnTime(hours=WEEK, shortest=0)


def _round(minutes: float) -> int:
    return max(5, 5 * round(minutes / 5))


def portrait(rng, name: str, passes: int, promised: date | None = None, oil: bool = False, daylight: bool = True) -> Work:
    """Regions of five coats each; neighbours dry before a coat; then the way out."""
    regions = max(2, round(passes / 5))
    coats = sorted((step + 0.3 * rng.random(), r, step) for r in range(regions) for step in range(5))[:passes]
    tasks, last = [], {}
    for n, (_, r, step) in enumerate(coats):
        minutes = _round(min(240, max(10, rng.lognormal(math.log(28), 0.55))))
        dry = int(rng.integers(2, 6)) * DAY if oil and step >= 2 else int(rng.choice([5, 15, 15, 20, 40]))
        after = [last[r]] if r in last else []
        beside = (r + 1) % regions
        if beside in last and rng.random() < 0.6:
            after.append(last[beside])
        tasks.append(
            Task(f"coat {n}", minutes, tuple(after) or ((BEFORE, 0.0),), key=f"{n}", palette=str(r % 4),
                 daylight=daylight and r % 4 == 1)
        )  # fmt: skip
        last[r] = (n, float(dry))
    rest = float(rng.choice([24, 36, 48]) * 60)
    way_out = (
        Task("look", 60, ((BEFORE, rest),), whole=True, daylight=daylight),
        Task("varnish", 15, ((0, 3.0 * DAY),), whole=True),
        Task("varnish", 15, ((1, 180.0),), whole=True),
        Task("pack", 30, ((2, float(DAY)),), whole=True),
        Task("on its way", 0, ((3, float(rng.choice([1, 2, 3]) * DAY)),), whole=True),
    )
    return Work(name, promised, (tuple(tasks), way_out))


def studio(count: int, passes: int, seed: int, load: float = 1.0, daylight: bool = True) -> list[Work]:
    """So many portraits with promises about as tight as `load` says."""
    rng = np.random.default_rng(seed)
    works = [portrait(rng, f"c{n}", passes, None, rng.random() < 0.12, daylight) for n in range(count)]
    total = sum(w.minutes for w in works) / 300 * 7 / 5 * 1.15
    found = []
    for w in works:
        lead = 6 + w.minutes / 300 * 7 / 5 + rng.uniform(0.05, 1.0) * total / load
        found.append(Work(w.commission_id, MONDAY.date() + timedelta(days=int(lead)), w.rooms))
    return found


def small_changes(works: list[Work], seed: int) -> list[list[Work]]:
    """The studio after a pass took 40 % longer, after a promise came a day nearer, and with a new piece promised last."""
    w = works[seed % len(works)]
    first = w.rooms[0][0]
    room = (replace(first, minutes=first.minutes * 1.4), *w.rooms[0][1:])
    longer = [replace(x, rooms=(room, *x.rooms[1:])) if x is w else x for x in works]
    sooner = [replace(x, promised=x.promised - timedelta(days=1)) if x is w else x for x in works]
    new = portrait(np.random.default_rng(seed), "new", 12, max(x.promised for x in works))
    return [longer, sooner, [*works, new]]
