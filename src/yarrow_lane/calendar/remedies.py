"""Trouble early: what saves a promise under 9 in 10, each remedy in the size that just reaches it, and the days to ask for."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import date, timedelta
from types import MappingProxyType
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.calendar.dates import SAFE, Dates, Outcomes, minutes_drawn, reached_by
from yarrow_lane.calendar.own_time import OwnTime, add_days, lengthen, minutes_on
from yarrow_lane.calendar.promising import by_end
from yarrow_lane.lane.standing import Task

Kind = Literal["free days", "longer days", "earlier", "softer background", "painterly", "short rest", "express"]
SHOWN = 3
# What counts beside the gain, in shares of 1: an hour of the painter's, a promise of another that is broken, a day that another slips
# (our choice).
_HOUR, _BREACH, _SLIPPED_DAY = 0.01, 0.15, 0.02
_LEAST_GAIN = 0.02  # what gains less is not worth naming: our choice
_FREE_HOUR = 1.3  # an hour of a free day is worth more than one after work: our choice
# What a remedy asks besides hours at the easel, in hours: a word with the client, what the portrait loses (our choice).
_ASKS: Mapping[Kind, float] = MappingProxyType(
    {"earlier": 0.5, "softer background": 1.0, "painterly": 4.0, "short rest": 0.5, "express": 2.0}
)
SOFT_SHARE = 0.3  # of a scene's hours a soft background takes: 0.12 to 0.5 h per 100 cm², with its edges (our choice)
PAINTERLY_SHARE = 0.45  # handbook table of numbers (our choice there)
_MOST_WEEKS = 8  # of longer days: our choice
_DETAILED = ("background", "scene", "eye", "nose", "mouth")  # families that a painterly body leaves as they are


@dataclass(frozen=True)
class Remedy:
    """One way to save a promise.

    `kept` is the share of draws that keep it then; `size` days, places, weeks, or minutes saved; `hours` what it asks of the painter;
    `slips` whose safe day moves by how many days, `breaks` how many promises of others are no longer safe; `days` those that get hours;
    `ask_client` whether the client must say yes; `jumped` whom it is painted before.
    """

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
    weigh = _Weighing(outcomes, promised, outcomes.ids.index(commission_id))
    dates = outcomes.dates_from(weigh.base[:, weigh.who])
    kept = dates.kept(due)
    if kept >= SAFE:
        return None
    left = range((due - outcomes.plan.first).days)
    days = [outcomes.plan.first + timedelta(days=n) for n in left]
    tried = [
        *_free_days(weigh, own, days[1:]), *_longer_days(weigh, own, days), *_earlier(weigh), *_scope(weigh),
        *_waits(weigh, rest_hours, courier),
    ]  # fmt: skip
    best: dict[Kind, Remedy] = {}
    for remedy in tried:
        there = best.get(remedy.kind)
        if remedy.kept - kept >= _LEAST_GAIN and (there is None or weigh.worth(remedy) > weigh.worth(there)):
            best[remedy.kind] = remedy
    ranked = sorted(best.values(), key=lambda r: (not r.enough, -weigh.worth(r)))
    return Trouble(commission_id, kept, dates, tuple(ranked[:SHOWN]), max(1, (dates.safe - due).days))


class _Weighing:
    """What a change does to the one in trouble, number `who`, and to the others."""

    def __init__(self, outcomes: Outcomes, promised: Mapping[str, date | None], who: int) -> None:
        self.outcomes, self.who, self._promised = outcomes, who, promised
        self.base = outcomes.finish()
        self._base_kept = outcomes.kept(self.base, promised)
        self._base_safe = reached_by(self.base, SAFE)

    def weigh(
        self, kind: Kind, size: int, found: NDArray[np.int64], hours: float = 0.0, days: Sequence[date] = (),
        jumped: tuple[str, ...] = (), ask: bool = False,
    ) -> Remedy:  # fmt: skip
        """The remedy as it would come out."""
        o, who = self.outcomes, self.who
        kept = o.kept(found, self._promised)
        later = reached_by(found, SAFE) - self._base_safe
        slips = tuple((i, int(later[n])) for n, i in enumerate(o.ids) if n != who and later[n] > 0)
        breaks = sum(n != who and self._base_kept[n] >= SAFE > kept[n] for n in range(len(o.ids)))
        return Remedy(
            kind, size, float(kept[who]), o.dates_from(found[:, who]), hours + _ASKS.get(kind, 0.0), slips, breaks, tuple(days),
            ask, jumped,
        )  # fmt: skip

    def worth(self, remedy: Remedy) -> float:
        """Gain less what it asks and what others lose."""
        lost = _SLIPPED_DAY * sum(days for _, days in remedy.slips)
        return min(remedy.kept, SAFE) - _HOUR * remedy.hours - _BREACH * remedy.breaks - lost

    def with_hours(self, own: OwnTime, changed: OwnTime, days: Sequence[date]) -> tuple[NDArray[np.int64], float]:
        """The finishes, and the hours gained, if the painter's time changes on some days; as large a share of it is painted as of the rest."""
        o = self.outcomes
        extra = np.zeros(len(o.planned))
        for day in days:
            extra[min(len(extra) - 1, (day - o.plan.first).days)] += minutes_on(changed, day) - minutes_on(own, day)
        share = o.painted.sum(1, keepdims=True) / max(1.0, float(o.planned.sum()))
        return o.finish(painted=np.asarray(o.painted + extra[None] * share)), float(extra.sum()) / 60


def _just_enough(make: Callable[[int], Remedy], most: int) -> list[Remedy]:
    """The smallest size that reaches 9 in 10, else the largest there is."""
    found = None
    for size in range(1, most + 1):
        found = make(size)
        if found.enough:
            break
    return [found] if found is not None else []


def _free_days(weigh: _Weighing, own: OwnTime, days: Sequence[date]) -> list[Remedy]:
    free = [d for d in days if minutes_on(add_days(own, [d]), d) > minutes_on(own, d)]
    # Saturdays before Sundays: a week keeps its day of rest where it can.
    free.sort(key=lambda d: (d.weekday() == 6, d))

    def make(size: int) -> Remedy:
        some = sorted(free[:size])
        found, hours = weigh.with_hours(own, add_days(own, some), some)
        return weigh.weigh("free days", size, found, _FREE_HOUR * hours, some)

    return _just_enough(make, len(free))


def _longer_days(weigh: _Weighing, own: OwnTime, days: Sequence[date]) -> list[Remedy]:
    planned, first = weigh.outcomes.planned, weigh.outcomes.plan.first
    painting = [d for d in days if (d - first).days < len(planned) and planned[(d - first).days] > 0]

    def make(size: int) -> Remedy:
        some = [d for d in painting if (d - first).days < 7 * size]
        found, hours = weigh.with_hours(own, lengthen(own, some), some)
        return weigh.weigh("longer days", size, found, hours, some)

    return _just_enough(make, min(_MOST_WEEKS, -(-len(days) // 7)))


def _earlier(weigh: _Weighing) -> list[Remedy]:
    o, who = weigh.outcomes, weigh.who
    order = by_end(o)
    place = order.index(who)

    def make(size: int) -> Remedy:
        jumped = order[place - size : place]
        before = o.before.copy()
        before[who, jumped] = 0
        before[jumped, who] = 1
        return weigh.weigh("earlier", size, o.finish(before=before), jumped=tuple(o.ids[n] for n in jumped))

    return _just_enough(make, place)


def _scope(weigh: _Weighing) -> list[Remedy]:
    o, who = weigh.outcomes, weigh.who

    def cheaper(kind: Kind, share: float, means: Callable[[str], bool]) -> list[Remedy]:
        fewer = tuple(
            tuple(_at_share(t, share) if t.family and means(t.family) else t for t in room) for room in o.works[who].rooms
        )
        work = replace(o.works[who], rooms=fewer)
        saved = o.works[who].minutes - work.minutes
        if not saved:
            return []
        minutes = o.minutes.copy()
        minutes[:, who] = minutes_drawn(work, o.draws)
        return [weigh.weigh(kind, round(saved), o.finish(minutes), ask=True)]

    return [
        *cheaper("softer background", SOFT_SHARE, lambda f: f == "scene"),
        *cheaper("painterly", PAINTERLY_SHARE, lambda f: f not in _DETAILED),
    ]


def _at_share(task: Task, share: float) -> Task:
    return replace(task, minutes=task.minutes * share)


def _waits(weigh: _Weighing, rest_hours: float, courier: int) -> list[Remedy]:
    o, who = weigh.outcomes, weigh.who
    waits: tuple[tuple[Kind, int], ...] = (("short rest", int(rest_hours - 24) // 24), ("express", courier - 1))

    def make(kind: Kind, days: int) -> Remedy:
        after = o.after.copy()
        after[who] = max(0, after[who] - days)
        return weigh.weigh(kind, days, o.finish(after=after))

    return [make(kind, days) for kind, days in waits if days > 0]
