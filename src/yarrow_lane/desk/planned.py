"""The plan over all commissions and its honest dates, kept until what they rest on changes."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from datetime import date, datetime, timedelta
from functools import cached_property
from typing import Any

from yarrow_lane.calendar.dates import Dates, Outcomes, dates_of
from yarrow_lane.calendar.jobs import Work
from yarrow_lane.calendar.pace import Pace, Paced
from yarrow_lane.calendar.painted_days import PaintedDays
from yarrow_lane.calendar.plan import QUICK, WORTH_SHOWING, plan
from yarrow_lane.calendar.remedies import Trouble, trouble
from yarrow_lane.calendar.sittings import Plan
from yarrow_lane.commission.studio import Studio, live_pins
from yarrow_lane.desk.kept_days import KeptDays
from yarrow_lane.store.database import Database


@dataclass(frozen=True, eq=False)
class Made:
    """One plan, what it was made of (works with first guesses), and what was asked of it since."""

    key: tuple[object, ...]
    plan: Plan
    works: Sequence[Work]
    pace: Pace
    days: PaintedDays
    troubles: dict[str, Trouble | None] = field(default_factory=dict)

    @cached_property
    def outcomes(self) -> Outcomes:
        return Outcomes(self.works, self.plan, self.pace, self.days)

    @cached_property
    def dates(self) -> Mapping[str, Dates]:
        return self.outcomes.dates() if self.plan.ids else {}


class Planned:
    """Asked through the standings."""

    def __init__(self, database: Database) -> None:
        self.days = KeptDays(database)
        self._pace: tuple[Mapping[str, tuple[Paced, ...]], Pace] | None = None
        self._made: Made | None = None
        self._guessed: tuple[Made, Mapping[str, Dates]] | None = None

    def pace(self, logged: Mapping[str, tuple[Paced, ...]]) -> Pace:
        """What these finished passes teach; the same object while they are the same."""
        if self._pace is None or self._pace[0] != logged:
            self._pace = (logged, Pace(logged))
        return self._pace[1]

    def made(self, works: Sequence[Work], now: datetime, studio: Studio, pace: Pace, shares: tuple[float, ...]) -> Made:
        """The plan; begun from the one before, so that little moves."""
        key = _key(works, now, studio, pace, shares)
        last = self._made
        if last is not None and last.key == key:
            return last
        before = last.plan if last is not None else None
        found = plan(at_own_pace(works, studio, pace), now, studio.time, live_pins(studio, now), before, QUICK)
        return self._keep(Made(key, found, works, pace, PaintedDays(shares)))

    def _keep(self, made: Made) -> Made:
        self._made = made
        if made.plan.ids:
            self.days.begin(made.plan, made.dates)
        return made

    def trouble(
        self, made: Made, commission_id: str, promised: Mapping[str, date | None], studio: Studio, rest_hours: float, on_the_way: int
    ) -> Trouble | None:  # fmt: skip
        """What saves its promise; None where it is safe."""
        if commission_id not in made.troubles:
            found = trouble(commission_id, made.outcomes, promised, studio.time, rest_hours, on_the_way)
            made.troubles[commission_id] = found
        return made.troubles[commission_id]

    def safe_by_first_guess(self, made: Made, commission_id: str, now: datetime, studio: Studio) -> date | None:
        """As if nothing were logged; kept until the plan changes."""
        if self._guessed is None or self._guessed[0] is not made:
            guesses = Pace({})
            works = at_own_pace(made.works, studio, guesses)
            whole = plan(works, now, studio.time, live_pins(studio, now), made.plan, 0)
            self._guessed = (made, dates_of(made.works, whole, guesses, made.days))
        found = self._guessed[1].get(commission_id)
        return found.safe if found is not None else None

    # --- a better plan, found behind

    def question(self, now: datetime, studio: Studio) -> tuple[Any, ...] | None:
        """What to ask a worker to search on from; None without a plan."""
        made = self._made
        if made is None or not made.plan.ids:
            return None
        return at_own_pace(made.works, studio, made.pace), now, studio.time, live_pins(studio, now), made.plan

    def answer(self, asked: Plan, better: Plan) -> bool:
        """Take a plan found behind where it gains a day and the present one is still the one it was asked about."""
        made = self._made
        if made is None or made.plan is not asked or asked.late - better.late < WORTH_SHOWING:
            return False
        self._keep(replace(made, plan=better, troubles={}))
        return True


def _key(
    works: Sequence[Work], now: datetime, studio: Studio, pace: Pace, shares: tuple[float, ...]
) -> tuple[object, ...]:  # fmt: skip
    """What a plan rests on. Within a sitting the plan stands: it is asked at every look, and made anew at each quarter of an hour."""
    quarter = now.replace(minute=now.minute // 15 * 15, second=0, microsecond=0)
    return quarter, studio.time, studio.pins, studio.pressed, id(pace), shares, tuple(works)


def at_own_pace(works: Sequence[Work], studio: Studio, pace: Pace) -> list[Work]:
    """With passes as long as the painter's pace makes them, and the promise of a pressed one so much earlier."""
    pressed = dict(studio.pressed)
    found = []
    for work in works:
        own = work.at_pace(pace)
        days = pressed.get(work.commission_id, 0)
        found.append(replace(own, promised=own.promised - timedelta(days=days)) if days and own.promised else own)
    return found
