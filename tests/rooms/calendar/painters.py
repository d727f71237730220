"""Simulated painters whose truth is not the model: sickness in spells, heavy-tailed passes, half-painted canvases."""

from dataclasses import dataclass
from datetime import UTC, datetime, timedelta

import numpy as np

from yarrow_lane.calendar.dates import dates_of
from yarrow_lane.calendar.jobs import Work
from yarrow_lane.calendar.own_time import OwnTime, Span
from yarrow_lane.calendar.pace import Pace, Paced
from yarrow_lane.calendar.painted_days import PaintedDays
from yarrow_lane.calendar.plan import plan
from yarrow_lane.lane.standing import BEFORE, Task

FAMILIES = ("background", "fur", "skin", "hair", "eye", "cloth", "other")
MONDAY = datetime(2026, 3, 2, 8, 0, tzinfo=UTC)
OWN = OwnTime(hours=(*(((Span(600, 840),)),) * 5, (), ()), shortest=0, canvas=0, palette=0, courier=0)
MINUTES, DAY = 240, 1440
NEVER = 10**6


@dataclass(frozen=True)
class World:
    """Shift and spread of the studio, of kinds, works and passes (with degrees of freedom), share painted, days lost."""

    shift: float
    studio: float
    kind: float
    work: float
    single: float
    freedom: float
    share: float
    lost: float


# The first is the model's own, the second is slower, wider, heavier-tailed and more often ill: our choice.
WORLDS = {
    "as the model": World(0.0, 0.30, 0.25, 0.18, 0.25, 50, 0.85, 1.2),
    "harsher": World(0.12, 0.40, 0.30, 0.25, 0.30, 4, 0.80, 1.5),
}


class Painter:
    """One painter's truth."""

    def __init__(self, rng, world: World):
        self.rng, self.world = rng, world
        self.studio = rng.normal(world.shift, world.studio)
        self.kinds = dict(zip(FAMILIES, rng.normal(0, world.kind, len(FAMILIES)), strict=True))
        self.share = float(np.clip(rng.normal(world.share, 0.10), 0.5, 1.05))
        self.lost = rng.beta(world.lost, 14)

    def portrait(self):
        """Families, first guesses and real minutes of its passes; days of rest; days to the client."""
        rng = self.rng
        count, most = int(rng.integers(8, 30)), FAMILIES[rng.integers(1, 4)]
        families = [most if rng.random() < 0.5 else FAMILIES[rng.integers(0, len(FAMILIES))] for _ in range(count)]
        guessed = np.maximum(5, 5 * np.round(rng.lognormal(np.log(32), 0.5, count) / 5))
        free = self.world.freedom
        noise = rng.standard_t(free, count) * np.sqrt((free - 2) / free) * self.world.single
        log = self.studio + np.array([self.kinds[f] for f in families]) + rng.normal(0, self.world.work) + noise
        return families, guessed, guessed * np.exp(log), int(rng.choice([1, 2])), int(rng.choice([3, 4, 5, 6]))

    def days(self, count: int):
        """Share of the planned minutes painted on each day."""
        found = np.clip(self.rng.normal(self.share, 0.2, count), 0.05, 1.15)
        n = 0
        while n < count:
            if self.rng.random() < self.lost / 2:
                spell = self.rng.geometric(0.5)
                found[n : n + spell] = 0
                n += spell
            n += 1
        return found


def lived(painter: Painter, works, order):
    """Day by day: a last sitting whose rest is over first, else the first canvas of the order that is left. Days from the first."""
    days = painter.days(900)
    left = [w[0].sum() for w in works]
    last = [60.0 * np.exp(painter.rng.normal(0, 0.3)) for _ in works]
    stage, ready, done = [0] * len(works), [0] * len(works), [None] * len(works)
    for d in range(900):
        if d % 7 > 4:
            continue
        minutes = MINUTES * days[d]
        while minutes > 1e-9:
            n = next((i for i in range(len(works)) if stage[i] == 1 and ready[i] <= d), None)
            if n is not None:
                used = min(minutes, last[n])
                last[n] -= used
                minutes -= used
                if last[n] <= 1e-9:
                    stage[n], done[n] = 2, d + works[n][2]
                continue
            n = next((i for i in order if stage[i] == 0), None)
            if n is None:
                break
            used = min(minutes, left[n])
            left[n] -= used
            minutes -= used
            if left[n] <= 1e-9:
                stage[n], ready[n] = 1, d + works[n][1]
        if all(x is not None for x in done):
            break
    return [d if d is not None else NEVER for d in done]


def trial(seed: int, logged: int, world: str):
    """Likely and safe day of each open portrait of one painter with so many logged, and the day it was really there."""
    rng = np.random.default_rng(seed)
    painter = Painter(rng, WORLDS[world])
    log: dict[str, list[Paced]] = {}
    for c in range(logged):
        families, guessed, real, _, _ = painter.portrait()
        log[f"old{c}"] = [Paced(f, g, r) for f, g, r in zip(families, guessed, real, strict=True)]
    shares = painter.days(logged * 5) if logged else ()
    portraits = [painter.portrait() for _ in range(int(rng.integers(2, 8)))]
    half = int(rng.integers(0, len(portraits[0][0]) - 1))
    works, real = [], []
    for n, (families, guessed, taken, rest, tail) in enumerate(portraits):
        begun = half if n == 0 else 0
        if begun:
            log[f"{seed}/0"] = [
                Paced(f, g, t) for f, g, t in zip(families[:begun], guessed[:begun], taken[:begun], strict=True)
            ]
        tasks = tuple(
            Task(f"pass {k}", float(g), ((k - 1, 0.0),) if k else ((BEFORE, 0.0),), family=f, key=str(k))
            for k, (f, g) in enumerate(zip(families[begun:], guessed[begun:], strict=True))
        )
        # The rest is counted in days: it is over at the next morning's hours.
        way_out = (
            Task("look", 60.0, ((BEFORE, (rest - 1) * DAY + 600.0),), whole=True),
            Task("there", 0.0, ((0, tail * DAY),), whole=True),
        )
        promised = MONDAY.date() + timedelta(days=20 * n + 30)  # in a row: the order is the painter's
        works.append(Work(f"{seed}/{n}", promised, (tasks, way_out)))
        real.append((taken[begun:], rest, tail))
    pace = Pace(log)
    whole = plan([w.at_pace(pace) for w in works], MONDAY, OWN, effort=0)
    found = dates_of(works, whole, pace, PaintedDays(shares))
    order = sorted(range(len(works)), key=lambda n: whole.body[works[n].commission_id])
    done = lived(painter, real, order)
    days = {i: ((d.likely - d.first).days, (d.safe - d.first).days) for i, d in found.items()}
    return [(*days[w.commission_id], d) for w, d in zip(works, done, strict=True)]
