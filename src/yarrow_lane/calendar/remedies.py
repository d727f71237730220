"""Trouble early: what saves a promise under 9 in 10, each remedy in the size that just reaches it, and the days to ask for."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from datetime import date, timedelta
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.calendar.dates import SAFE, Dates, Outcomes, minutes_drawn
from yarrow_lane.calendar.own_time import OwnTime
from yarrow_lane.calendar.promising import by_end

Kind = Literal["free days", "longer days", "earlier", "softer background", "painterly", "short rest", "express"]
SHOWN = 3
# What counts beside the gain, in shares of 1: an hour of the painter's, a promise of another that is broken (our choice).
_HOUR, _BREACH = 0.01, 0.15
_LEAST_GAIN = 0.02
SOFT_SHARE = 0.3  # of a scene's hours a soft background takes: 0.12 to 0.5 h per 100 cm², with its edges (our choice)
PAINTERLY_SHARE = 0.45  # handbook table of numbers (our choice there)
_MOST_WEEKS = 8
_DETAILED = ("background", "scene", "eye", "nose", "mouth")  # families that a painterly body leaves as they are


@dataclass(frozen=True)
class Remedy:
    """One way to save a promise. `kept` is the share of draws that keep it then; `size` days, places or weeks; `days` the days it
    adds; `hours` what it asks of the painter; `jumped` whom it is painted before; `slips` whose safe day moves by how much; `ask_client` whether the client must say yes."""

    kind: Kind
    size: int
    kept: float
    dates: Dates
    hours: float
    slips: tuple[tuple[str, int], ...] = ()
    breaks: int = 0
    days: tuple[date, ...] = ()
    ask_client: bool = False
    jumped: tuple[str, ...] = ()

    @property
    def enough(self) -> bool:
        """Whether it reaches 9 in 10."""
        return self.kept >= SAFE


@dataclass(frozen=True)
class Trouble:
    """A promise that is not safe: how often it is kept, the best remedies, and how many days more would make it safe."""

    commission_id: str
    kept: float
    dates: Dates
    remedies: tuple[Remedy, ...]
    ask_days: int


def trouble(
    commission_id: str, outcomes: Outcomes, promised: Mapping[str, date | None], own: OwnTime, rest_hours: float = 0.0, courier: int = 0
) -> Trouble | None:  # fmt: skip
    """Everything tried on the same draws; None where the promise is safe or there is none.

    `rest_hours` are those of a rest still to come, `courier` the days it will be on its way.
    """
    due = promised.get(commission_id)
    if due is None or commission_id not in outcomes.ids:
        return None
    who = outcomes.ids.index(commission_id)
    base = outcomes.finish()
    first = outcomes.plan.first
    dates = Dates(first, base[:, who], outcomes.pace.first_guesses)
    kept = dates.kept(due)
    if kept >= SAFE:
        return None
    weigh = _Weighing(outcomes, promised, who, base, due)
    tried = [
        *_free_days(weigh, own, due), *_longer_days(weigh, due), *_earlier(weigh, outcomes, who), *_scope(weigh, outcomes, who),
        *_waits(weigh, outcomes, who, rest_hours, courier),
    ]  # fmt: skip
    best: dict[Kind, Remedy] = {}
    for remedy in tried:
        there = best.get(remedy.kind)
        if remedy.kept - kept >= _LEAST_GAIN and (there is None or weigh.worth(remedy) > weigh.worth(there)):
            best[remedy.kind] = remedy
    ranked = sorted(best.values(), key=lambda r: (not r.enough, -weigh.worth(r)))
    return Trouble(commission_id, kept, dates, tuple(ranked[:SHOWN]), max(1, (dates.safe - due).days))


class _Weighing:
    """What a change does to the one in trouble, and to the others."""

    def __init__(
        self, outcomes: Outcomes, promised: Mapping[str, date | None], who: int, base: NDArray[np.int64], due: date
    ) -> None:  # fmt: skip
        self._outcomes, self._who, self._due = outcomes, who, due
        first = outcomes.plan.first
        days = [promised.get(i) for i in outcomes.ids]
        self._due_days = np.array([10**6 if d is None else (d - first).days for d in days])
        self._base_kept = (base <= self._due_days).mean(0)
        self._base_safe = np.ceil(np.quantile(base, SAFE, axis=0))

    def weigh(
        self, kind: Kind, size: int, hours: float, found: NDArray[np.int64], days: tuple[date, ...] = (), ask: bool = False
    ) -> Remedy:  # fmt: skip
        """The remedy as it would come out."""
        o = self._outcomes
        kept = (found <= self._due_days).mean(0)
        later = np.ceil(np.quantile(found, SAFE, axis=0)) - self._base_safe
        slips = tuple((i, int(later[n])) for n, i in enumerate(o.ids) if n != self._who and later[n] > 0)
        others = np.arange(len(o.ids)) != self._who
        breaks = int(((self._base_kept >= SAFE) & (kept < SAFE) & others).sum())
        dates = Dates(o.plan.first, found[:, self._who], o.pace.first_guesses)
        return Remedy(kind, size, float(kept[self._who]), dates, hours, slips, breaks, days, ask)

    def worth(self, remedy: Remedy) -> float:
        """Gain less what it asks and what others lose."""
        lost = 0.02 * sum(days for _, days in remedy.slips)
        return min(remedy.kept, SAFE) - _HOUR * remedy.hours - _BREACH * remedy.breaks - lost

    def just_enough(self, make: Callable[[int], Remedy], most: int) -> list[Remedy]:
        """The smallest size that reaches 9 in 10, else the largest there is."""
        found = None
        for size in range(1, most + 1):
            found = make(size)
            if found.enough:
                break
        return [found] if found is not None else []


def _more(outcomes: Outcomes, extra: NDArray[np.float64]) -> NDArray[np.float64]:
    """The draws' minutes with more hours, of which as large a share is painted as of the others."""
    planned = max(1.0, float(outcomes.planned.sum()))
    share = outcomes.painted.sum(1, keepdims=True) / planned
    return np.asarray(outcomes.painted + extra[None] * share)


def _free_days(weigh: _Weighing, own: OwnTime, due: date) -> list[Remedy]:
    o = weigh._outcomes
    first, minutes = o.plan.first, own.minutes_a_day
    off = [first + timedelta(days=n) for n in range(1, max(1, (due - first).days))]
    free = [d for d in off if d.weekday() not in own.weekdays and not any(x.first <= d <= x.last for x in own.off)]
    # Saturdays before Sundays: a week keeps its day of rest where it can.
    free.sort(key=lambda d: (d.weekday() == 6, d))

    def make(size: int) -> Remedy:
        days = tuple(sorted(free[:size]))
        extra = np.zeros(len(o.planned))
        for d in days:
            extra[min(len(extra) - 1, (d - first).days)] = minutes
        return weigh.weigh("free days", size, size * minutes / 60 * 1.3, o.finish(painted=_more(o, extra)), days)

    return weigh.just_enough(make, len(free)) if minutes else []


def _longer_days(weigh: _Weighing, due: date) -> list[Remedy]:
    o = weigh._outcomes
    days = np.arange(len(o.planned))
    left = (due - o.plan.first).days

    def make(size: int) -> Remedy:
        extra = np.where((days < 7 * size) & (days < left) & (o.planned > 0), 60.0, 0.0)
        return weigh.weigh("longer days", size, float(extra.sum()) / 60, o.finish(painted=_more(o, extra)))

    return weigh.just_enough(make, max(0, min(_MOST_WEEKS, -(-left // 7))))


def _earlier(weigh: _Weighing, outcomes: Outcomes, who: int) -> list[Remedy]:
    order = by_end(outcomes)
    place = order.index(who)

    def make(size: int) -> Remedy:
        before = outcomes.before.copy()
        for jumped in order[place - size : place]:
            before[who, jumped] = 0
            before[jumped, who] = 1
        ahead = tuple(outcomes.ids[n] for n in order[place - size : place])
        return replace(weigh.weigh("earlier", size, 0.5, outcomes.finish(before=before)), jumped=ahead)

    return weigh.just_enough(make, place)


def _scope(weigh: _Weighing, outcomes: Outcomes, who: int) -> list[Remedy]:
    work = outcomes.works[who]

    def cheaper(kind: Kind, share: float, families: Callable[[str], bool]) -> list[Remedy]:
        tasks = [t for room in work.rooms for t in room if t.family and families(t.family)]
        saved = sum(t.minutes for t in tasks) * (1 - share)
        if not tasks:
            return []
        rooms = tuple(
            tuple(replace(t, minutes=t.minutes * share) if t.family and families(t.family) else t for t in room)
            for room in work.rooms
        )
        minutes = outcomes.minutes.copy()
        minutes[:, who] = minutes_drawn(replace(work, rooms=rooms), outcomes.draws)
        return [
            weigh.weigh(kind, round(saved), 1.0 if kind == "softer background" else 4.0, outcomes.finish(minutes), ask=True)
        ]

    return [
        *cheaper("softer background", SOFT_SHARE, lambda f: f == "scene"),
        *cheaper("painterly", PAINTERLY_SHARE, lambda f: f not in _DETAILED),
    ]


def _waits(weigh: _Weighing, outcomes: Outcomes, who: int, rest_hours: float, courier: int) -> list[Remedy]:
    found = []
    for kind, days in (("short rest", int(rest_hours - 24) // 24), ("express", courier - 1)):
        if days > 0:
            after = outcomes.after.copy()
            after[who] = max(0, after[who] - days)
            cost = 0.5 if kind == "short rest" else 2.0
            found.append(weigh.weigh(kind, days, cost, outcomes.finish(after=after)))  # type: ignore[arg-type]
    return found
