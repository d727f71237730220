"""What a plan says: sittings with their acts, pins, and when each commission is finished. Minutes are counted from the first day's midnight."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import date, datetime
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.calendar.laying import Rule


@dataclass(frozen=True)
class Pin:
    """A sitting the painter has fixed: tasks by key, from when (local wall clock), for how long."""

    commission_id: str
    keys: tuple[str, ...]
    start: datetime
    minutes: int


@dataclass(frozen=True)
class Act:
    """Part of a sitting: a pass or a step, by key (its words without one), and minutes."""

    key: str
    words: str
    minutes: int


@dataclass(frozen=True)
class Sitting:
    """Time at one canvas without another between, local wall clock."""

    commission_id: str
    start: datetime
    end: datetime
    acts: tuple[Act, ...]
    pinned: bool = False

    @property
    def day(self) -> date:
        """Its day."""
        return self.start.date()

    @property
    def minutes(self) -> int:
        """At work, changes of wells left out."""
        return sum(a.minutes for a in self.acts)


@dataclass(frozen=True)
class Plan:
    """Sittings in order of time, and the day each commission could be in the client's hands if all goes as guessed.

    `finish` is None where the hours do not reach. `order` by `rule` lays the same plan again. `broken` are pins that cannot hold. `late`
    are minutes late in all. `laid` (3, stints) holds for every laid stint its start, minutes and commission's number in `ids`;
    `open_minutes` the free minutes of each day. `body` is the minute at which the painting of each ends; `small` are those with nothing
    but small acts and waits left.
    """

    first: date
    sittings: tuple[Sitting, ...] = ()
    finish: Mapping[str, date | None] = field(default_factory=dict)
    order: tuple[str, ...] = ()
    rule: Rule = "soonest"
    broken: tuple[Pin, ...] = ()
    late: float = 0.0
    ids: tuple[str, ...] = ()
    laid: NDArray[np.int64] = field(default_factory=lambda: np.zeros((3, 0), np.int64), compare=False)
    body: Mapping[str, int] = field(default_factory=dict)
    small: frozenset[str] = frozenset()
    open_minutes: NDArray[np.int64] = field(default_factory=lambda: np.zeros(0, np.int64), compare=False)

    def of(self, commission_id: str) -> tuple[Sitting, ...]:
        """One commission's sittings."""
        return self._by_commission.get(commission_id, ())

    @cached_property
    def _by_commission(self) -> Mapping[str, tuple[Sitting, ...]]:
        """Sorted once: a studio of years asks for two thousand."""
        found: dict[str, list[Sitting]] = {}
        for sitting in self.sittings:
            found.setdefault(sitting.commission_id, []).append(sitting)
        return {commission_id: tuple(some) for commission_id, some in found.items()}
