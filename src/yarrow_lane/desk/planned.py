"""The plan over all commissions and its honest dates, kept until what they rest on changes; and what was planned on earlier days."""

import json
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import date, datetime, timedelta
from typing import Any

from yarrow_lane.calendar.dates import Dates, Outcomes, dates_of
from yarrow_lane.calendar.jobs import Work
from yarrow_lane.calendar.pace import Pace, Paced
from yarrow_lane.calendar.painted_days import PaintedDays
from yarrow_lane.calendar.plan import QUICK, WORTH_SHOWING, Plan, plan
from yarrow_lane.calendar.remedies import Trouble, trouble
from yarrow_lane.commission.studio import Studio, live_pins
from yarrow_lane.store.database import Database

_MEMORY = "planned days"
_KEPT_DAYS = 60  # our choice: older days say little of today


@dataclass(frozen=True)
class KeptDay:
    """How a day began: minutes planned by commission and by act, and each commission's likely and safe day."""

    day: date
    minutes: Mapping[str, float]
    keys: Mapping[str, tuple[str, ...]]
    likely: Mapping[str, date]
    safe: Mapping[str, date]


class Planned:
    """Asked through the standings."""

    def __init__(self, database: Database) -> None:
        self._database = database
        self._days: dict[date, KeptDay] | None = None
        self._unsaved = False
        self._pace: tuple[Mapping[str, tuple[Paced, ...]], Pace] | None = None
        self._plan: tuple[tuple[object, ...], Plan] | None = None
        self._resting: tuple[Sequence[Work], Pace, tuple[float, ...]] = ((), Pace({}), ())
        self._outcomes: Outcomes | None = None
        self._dates: dict[str, Dates] | None = None
        self._troubles: dict[str, Trouble | None] = {}
        self._guessed: Mapping[str, Dates] | None = None

    def pace(self, logged: Mapping[str, tuple[Paced, ...]]) -> Pace:
        """What these finished passes teach; the same object while they are the same."""
        if self._pace is None or self._pace[0] != logged:
            self._pace = (logged, Pace(logged))
        return self._pace[1]

    def plan(self, works: Sequence[Work], now: datetime, studio: Studio, pace: Pace, shares: tuple[float, ...]) -> Plan:
        """The plan; begun from the one before, so that little moves."""
        key = self._key(works, now, studio, pace, shares)
        if self._plan is None or self._plan[0] != key:
            before = self._plan[1] if self._plan is not None else None
            self._took(
                key,
                plan(paced(works, studio, pace), now, studio.time, live_pins(studio, now), before, QUICK),
                works,
                pace,
                shares,
            )
        return self._plan[1]  # type: ignore[index]

    def _key(
        self, works: Sequence[Work], now: datetime, studio: Studio, pace: Pace, shares: tuple[float, ...]
    ) -> tuple[object, ...]:  # fmt: skip
        # Within a sitting the plan stands: it is asked at every look, and is made anew at each quarter of an hour.
        quarter = now.replace(minute=now.minute // 15 * 15, second=0, microsecond=0)
        return (
            quarter,
            studio.time,
            studio.pins,
            studio.pressed,
            id(pace),
            shares,
            tuple((w.commission_id, w.promised, w.rooms) for w in works),
        )

    def _took(self, key: tuple[object, ...], found: Plan, works: Sequence[Work], pace: Pace, shares: tuple[float, ...]) -> None:
        self._plan = (key, found)
        self._resting = (works, pace, shares)
        self._outcomes, self._dates = None, None
        self._troubles, self._guessed = {}, None
        self._keep_day(found)

    def outcomes(self) -> Outcomes:
        """The last plan as the draws live through it."""
        if self._outcomes is None:
            works, pace, shares = self._resting
            whole = self._plan[1] if self._plan is not None else Plan(date.min)
            self._outcomes = Outcomes(works, whole, pace, PaintedDays(shares))
        return self._outcomes

    def dates(self) -> dict[str, Dates]:
        """Likely and safe days of what is planned stint by stint."""
        if self._dates is None:
            self._dates = self.outcomes().dates() if self._plan is not None and self._plan[1].ids else {}
        return self._dates

    def trouble(
        self, commission_id: str, promised: Mapping[str, date | None], studio: Studio, rest_hours: float, on_the_way: int
    ) -> Trouble | None:  # fmt: skip
        """What saves its promise; None where it is safe."""
        if commission_id not in self._troubles:
            found = trouble(commission_id, self.outcomes(), promised, studio.time, rest_hours, on_the_way)
            self._troubles[commission_id] = found
        return self._troubles[commission_id]

    def safe_by_first_guess(self, commission_id: str, works: Sequence[Work], now: datetime, studio: Studio) -> date | None:
        """As if nothing were logged; kept until the plan changes."""
        if self._guessed is None:
            guesses = Pace({})
            whole = plan(
                paced(works, studio, guesses), now, studio.time, live_pins(studio, now), self._plan and self._plan[1], 0
            )
            self._guessed = dates_of(works, whole, guesses, PaintedDays(self._resting[2])) if whole.ids else {}
        found = self._guessed.get(commission_id)
        return found.safe if found is not None else None

    # --- a better plan, found behind

    def question(self, now: datetime, studio: Studio) -> tuple[Any, ...] | None:
        """What to ask a worker to search on from; None without a plan."""
        if self._plan is None or not self._plan[1].ids:
            return None
        works, pace, _ = self._resting
        return paced(works, studio, pace), now, studio.time, live_pins(studio, now), self._plan[1]

    def answer(self, asked: Plan, better: Plan) -> bool:
        """Take a plan found behind where it gains a day and the present one is still the one it was asked about."""
        if self._plan is None or self._plan[1] is not asked or asked.late - better.late < WORTH_SHOWING:
            return False
        works, pace, shares = self._resting
        self._took(self._plan[0], better, works, pace, shares)
        return True

    # --- what was planned on earlier days

    def days(self) -> Mapping[date, KeptDay]:
        """Days that were planned, as each began."""
        if self._days is None:
            self._days = {d.day: d for d in _read(self._database.recall(_MEMORY))}
        return self._days

    def yesterday(self, today: date) -> KeptDay | None:
        """The newest kept day before today."""
        earlier = [d for d in self.days() if d < today]
        return self.days()[max(earlier)] if earlier else None

    def shares(self, painted: Mapping[date, float], today: date) -> tuple[float, ...]:
        """Painted by planned minutes of the kept days before today."""
        found = []
        for day, kept in sorted(self.days().items()):
            planned = sum(kept.minutes.values())
            if day < today and planned > 0:
                found.append(painted.get(day, 0.0) / planned)
        return tuple(found)

    def _keep_day(self, found: Plan) -> None:
        """The first plan of a day is kept: against it the day is measured."""
        if found.first in self.days() or not found.ids:
            return
        today = [s for s in found.sittings if s.day == found.first]
        minutes: dict[str, float] = {}
        keys: dict[str, tuple[str, ...]] = {}
        for s in today:
            minutes[s.commission_id] = minutes.get(s.commission_id, 0.0) + s.minutes
            keys[s.commission_id] = (*keys.get(s.commission_id, ()), *(a.key for a in s.acts))
        dates = self.dates()
        kept = KeptDay(
            found.first, minutes, keys, {i: d.likely for i, d in dates.items()}, {i: d.safe for i, d in dates.items()}
        )
        oldest = found.first - timedelta(days=_KEPT_DAYS)
        self._days = {d: k for d, k in (*self.days().items(), (found.first, kept)) if d >= oldest}
        self._unsaved = True

    def save(self) -> bool:
        """Keep the days in the studio's memory; whether there was anything to keep. Raises `StoreTrouble`."""
        if self._unsaved and self._days is not None:
            self._database.remember(_MEMORY, json.dumps([_plain(k) for k in self._days.values()]))
            self._unsaved = False
            return True
        return False


def paced(works: Sequence[Work], studio: Studio, pace: Pace) -> list[Work]:
    """At the painter's own pace, and with the promise of a pressed one so much earlier."""
    pressed = dict(studio.pressed)
    found = []
    for work in works:
        own = work.at_pace(pace)
        days = pressed.get(work.commission_id, 0)
        found.append(replace(own, promised=own.promised - timedelta(days=days)) if days and own.promised else own)
    return found


def _plain(kept: KeptDay) -> dict[str, Any]:
    days = {name: {i: d.isoformat() for i, d in getattr(kept, name).items()} for name in ("likely", "safe")}
    return {"day": kept.day.isoformat(), "minutes": dict(kept.minutes), "keys": dict(kept.keys), **days}


def _read(text: str | None) -> list[KeptDay]:
    """A memory that is damaged is none."""
    try:
        return [
            KeptDay(
                date.fromisoformat(d["day"]), {str(i): float(m) for i, m in d["minutes"].items()},
                {str(i): tuple(map(str, k)) for i, k in d["keys"].items()},
                {str(i): date.fromisoformat(x) for i, x in d["likely"].items()},
                {str(i): date.fromisoformat(x) for i, x in d["safe"].items()},
            )
            for d in json.loads(text or "[]")
        ]  # fmt: skip
    except (ValueError, KeyError, TypeError, AttributeError):
        return []
