"""Before promising: the earliest day a new commission can be promised for, and what slips for whom if it is taken."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date, datetime

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.calendar.dates import SAFE, Dates, Outcomes, minutes_drawn, reached_by
from yarrow_lane.calendar.jobs import Work
from yarrow_lane.calendar.own_time import DAY_MIN, OwnTime
from yarrow_lane.calendar.plan import plan

_LOSS = 0.02  # a promise that is unsafe already may lose so much and no more: our choice


@dataclass(frozen=True)
class Slip:
    """A commission whose safe day moves."""

    commission_id: str
    days: int
    broken: bool


@dataclass(frozen=True)
class Offer:
    """A day that can be promised: its dates, after which commission it is slipped in ("" before all), what slips."""

    dates: Dates
    after: str
    slips: tuple[Slip, ...]

    @property
    def breaks(self) -> tuple[str, ...]:
        """Whose promise would no longer be safe."""
        return tuple(s.commission_id for s in self.slips if s.broken)


@dataclass(frozen=True)
class Offers:
    """The earliest that breaks no promise (None when every place breaks one), at the front, and after all the others."""

    earliest: Offer | None
    front: Offer
    last: Offer


def offers(
    new: Work, outcomes: Outcomes, promised: Mapping[str, date | None], now: datetime, own: OwnTime
) -> Offers:  # fmt: skip
    """Every place in the queue tried on the same draws; `new` with first guesses, its `promised` left out."""
    alone = plan([new.at_pace(outcomes.pace)], now, own, effort=0)
    drawn = minutes_drawn(new, outcomes.draws)
    order = by_end(outcomes)
    day = alone.body.get(new.commission_id, 0) // DAY_MIN
    finish = alone.finish.get(new.commission_id)
    after = (finish - alone.first).days - day if finish is not None else 0
    now_there = outcomes.finish()
    tried = []
    for place in range(len(order) + 1):
        found = _with_new(outcomes, order, place, drawn, after)
        slips = _slips(now_there, found[:, :-1], outcomes, promised)
        before = outcomes.ids[order[place - 1]] if place else ""
        tried.append(Offer(outcomes.dates_from(found[:, -1]), before, slips))
    harmless = [o for o in tried if not o.breaks]
    earliest = min(harmless, key=lambda o: o.dates.safe) if harmless else None
    return Offers(earliest, tried[0], tried[-1])


def by_end(outcomes: Outcomes) -> list[int]:
    """Places of the commissions in the order in which their painting ends."""
    return sorted(range(len(outcomes.ids)), key=lambda n: outcomes.plan.body[outcomes.ids[n]])


def _with_new(
    outcomes: Outcomes, order: Sequence[int], place: int, drawn: NDArray[np.float64], after: int
) -> NDArray[np.int64]:  # fmt: skip
    count = len(outcomes.ids)
    before = np.zeros((count + 1, count + 1))
    before[:count, :count] = outcomes.before
    before[list(order[place:]), count] = 1
    if place:
        before[count, :count] = outcomes.before[order[place - 1]]
    before[count, count] = 1
    minutes = np.c_[outcomes.minutes, drawn]
    return outcomes.finish(minutes, before, after=np.r_[outcomes.after, after], idle=np.r_[outcomes.idle, 0])


def _slips(
    was: NDArray[np.int64], now: NDArray[np.int64], outcomes: Outcomes, promised: Mapping[str, date | None]
) -> tuple[Slip, ...]:  # fmt: skip
    later = reached_by(now, SAFE) - reached_by(was, SAFE)
    kept, after = outcomes.kept(was, promised), outcomes.kept(now, promised)
    broken = ((kept >= SAFE) & (after < SAFE)) | ((kept < SAFE) & (after < kept - _LOSS))
    return tuple(
        Slip(i, int(later[n]), bool(broken[n])) for n, i in enumerate(outcomes.ids) if later[n] > 0 or broken[n]
    )  # fmt: skip
