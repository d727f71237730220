"""Honest dates: the plan lived through by five hundred painters who could be this one."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from datetime import date
from functools import cached_property
from math import ceil

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.calendar.jobs import Work
from yarrow_lane.calendar.own_time import DAY_MIN
from yarrow_lane.calendar.pace import Draws, Pace
from yarrow_lane.calendar.painted_days import PaintedDays
from yarrow_lane.calendar.sittings import Plan
from yarrow_lane.measure.moments import day_after

DRAWS = 500
LIKELY, SAFE = 0.5, 0.9
DABS = 10  # a finish is shown as ten dabs, a chance in ten each
_WORST = 0.95  # the very last of the draws says nothing
_MORE_DAYS = 120  # beyond the plan, so that slow painters come to an end: our choice
_LAST_DAY = 1500  # nothing is told beyond: our choice
Floats = NDArray[np.float64]


@dataclass(frozen=True)
class Dates:
    """Days from `first` on which the draws have a commission in the client's hands, one for each."""

    first: date
    days: NDArray[np.int64] = field(compare=False)
    guessed: bool = False

    @cached_property
    def likely(self) -> date:
        """In 5 of 10."""
        return self._day(LIKELY)

    @cached_property
    def safe(self) -> date:
        """In 9 of 10."""
        return self._day(SAFE)

    def _day(self, share: float) -> date:
        return day_after(self.first, int(reached_by(self.days, share)))

    def kept(self, promised: date) -> float:
        """The share of the draws that keep a promise."""
        return float((self.days <= (promised - self.first).days).mean())

    @cached_property
    def dabs(self) -> tuple[date, ...]:
        """Ten days, a chance in ten each: the fifth is the likely day, the ninth the safe one, the last the middle of the worst tenth."""
        return tuple(self._day(min(n / DABS, _WORST)) for n in range(1, DABS + 1))


def reached_by(days: NDArray[np.int64], share: float) -> NDArray[np.int64]:
    """The first day by which at least that share of the draws (first axis) is over."""
    at = ceil(share * len(days) - 1e-9) - 1
    return np.asarray(np.partition(days, at, axis=0)[at], np.int64)


def tenths(kept: float) -> int:
    """A chance in tenths, never better than it is."""
    return int(kept * 10 + 1e-9)


class Outcomes:
    """What the draws make of a plan; the same random numbers for each question, so that only the change asked about shows."""

    def __init__(self, works: Sequence[Work], plan: Plan, pace: Pace, painted: PaintedDays, count: int = DRAWS) -> None:
        self.plan, self.pace = plan, pace
        self.draws = pace.draws(count)
        by_id = {w.commission_id: w for w in works}
        self.works = [by_id[i] for i in plan.ids if i in plan.body]  # what the windows do not hold has no day
        self.ids = tuple(w.commission_id for w in self.works)
        self.minutes = np.stack([minutes_drawn(w, self.draws) for w in self.works], 1) if self.works else np.zeros((count, 0))
        self._shares()
        horizon = min(_LAST_DAY, max(len(plan.open_minutes), 1) + _MORE_DAYS)
        self.planned = self._planned(horizon)
        self.painted = painted.painted(count, self.planned)
        # Where the plan waits for paint to dry, the draws wait as long.
        reached = np.searchsorted(np.cumsum(self.planned), np.maximum(0, self.before @ self.guessed - 1e-6))
        self.idle = np.maximum(0, self.body_day - reached)

    def _shares(self) -> None:
        """How much of each commission lies before the painting of each other ends, and what follows after it, in days."""
        plan, count = self.plan, len(self.works)
        place = {i: n for n, i in enumerate(plan.ids)}
        of_plan = np.array([place[i] for i in self.ids], int)
        start, minutes, job = plan.laid
        ends = np.array([plan.body[i] for i in self.ids], np.int64)
        whole = np.maximum(1, np.bincount(job, minutes, len(plan.ids))) if len(job) else np.ones(len(plan.ids))
        self.before = np.zeros((count, count))
        for n, end in enumerate(ends):
            # Small acts find their minutes on any day: they wait for paint and for the client, not for other canvases.
            early = (job == of_plan[n]) if self.ids[n] in plan.small else start < end
            self.before[n] = (np.bincount(job[early], minutes[early], len(plan.ids)) / whole)[of_plan]
        self.body_day = ends // DAY_MIN
        finish = np.array([((plan.finish[i] or plan.first) - plan.first).days for i in self.ids], np.int64)
        self.after = finish - self.body_day
        self._by_day = np.bincount(start // DAY_MIN, minutes) if len(start) else np.zeros(0)
        self.guessed = np.array([whole[place[i]] for i in self.ids], float)

    def _planned(self, days: int) -> Floats:
        """Minutes the painter has for the canvases on each day: what is planned, and on emptier days as much as on full ones."""
        plan = self.plan
        known = plan.open_minutes.astype(float)
        open_ = np.zeros(days)
        open_[: min(days, len(known))] = known[:days]
        if 0 < len(known) < days:
            week = known[-7:] if len(known) >= 7 else known
            open_[len(known) :] = np.resize(week, days - len(known))
        laid = np.zeros(days)
        laid[: min(days, len(self._by_day))] = self._by_day[:days]
        full = laid > open_ / 2
        usage = float(laid[full].sum() / open_[full].sum()) if full.any() else 1.0
        return np.asarray(np.maximum(laid, open_ * min(1.0, usage)))

    def finish(
        self, minutes: Floats | None = None, before: Floats | None = None, painted: Floats | None = None,
        after: NDArray[np.int64] | None = None, idle: NDArray[np.int64] | None = None,
    ) -> NDArray[np.int64]:  # fmt: skip
        """(draws, commissions) days from the first; each argument takes the place of what holds now."""
        minutes = self.minutes if minutes is None else minutes
        before = self.before if before is None else before
        painted = self.painted if painted is None else painted
        after = self.after if after is None else after
        idle = self.idle if idle is None else idle
        return _days(np.cumsum(painted, 1), minutes @ before.T) + idle + after

    def dates_from(self, days: NDArray[np.int64]) -> Dates:
        """What the draws of one commission say."""
        return Dates(self.plan.first, days, self.pace.first_guesses)

    def dates(self) -> dict[str, Dates]:
        """By commission."""
        found = self.finish()
        return {i: self.dates_from(found[:, n]) for n, i in enumerate(self.ids)}

    def kept(self, finish: NDArray[np.int64], promised: Mapping[str, date | None]) -> Floats:
        """The share of the draws in which each promise is kept; 1 without one."""
        due = [promised.get(i) for i in self.ids]
        kept = [1.0 if d is None else (finish[:, n] <= (d - self.plan.first).days).mean() for n, d in enumerate(due)]
        return np.asarray(kept, float)


def minutes_drawn(work: Work, draws: Draws) -> Floats:
    """Minutes of all that is left, one for each draw: passes by what pace teaches, the rest as it is."""
    tasks = [t for room in work.rooms for t in room]
    passes = [t for t in tasks if t.family]
    other = sum(t.minutes for t in tasks if not t.family)
    return draws.minutes(work.commission_id, [t.family for t in passes], [t.minutes for t in passes]) + other


def _days(total: Floats, need: Floats) -> NDArray[np.int64]:
    """The first day on which a row's running total reaches each need of the row: all rows in one search, by an offset."""
    rows, days = total.shape
    step = float(total[:, -1].max() + need.max(initial=0) + 1)
    offset = step * np.arange(rows)[:, None]
    at = np.searchsorted((total + offset).ravel(), (need + offset).ravel() - 1e-6).reshape(need.shape)
    return np.asarray(np.minimum(days - 1, at - days * np.arange(rows)[:, None]), np.int64)


def dates_of(works: Sequence[Work], plan: Plan, pace: Pace, painted: PaintedDays) -> Mapping[str, Dates]:
    """Likely and safe days of all commissions that are planned stint by stint; `works` with first guesses, `plan` at own pace."""
    if not plan.ids:
        return {}
    return Outcomes(works, plan, pace, painted).dates()
