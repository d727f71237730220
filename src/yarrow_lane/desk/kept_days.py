"""How each day began: what was planned for it, kept so that the day can be measured against it."""

import json
from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date, timedelta
from typing import Any

from yarrow_lane.calendar.dates import Dates
from yarrow_lane.calendar.sittings import Plan
from yarrow_lane.store.database import Database

_MEMORY = "planned days"
_KEPT_DAYS = 60  # our choice: older days say little of today


@dataclass(frozen=True)
class KeptDay:
    """Minutes planned for the day by commission, and each commission's safe day as it was then."""

    day: date
    minutes: Mapping[str, float]
    safe: Mapping[str, date]


class KeptDays:
    """Read from the studio's memory when first asked for."""

    def __init__(self, database: Database) -> None:
        self._database = database
        self._days: dict[date, KeptDay] | None = None
        self._unsaved = False

    @property
    def days(self) -> dict[date, KeptDay]:
        """By day."""
        if self._days is None:
            self._days = {d.day: d for d in _read(self._database.recall(_MEMORY))}
        return self._days

    def before(self, today: date) -> KeptDay | None:
        """The newest one before today."""
        earlier = [d for d in self.days if d < today]
        return self.days[max(earlier)] if earlier else None

    def shares(self, painted: Mapping[date, float], today: date) -> tuple[float, ...]:
        """Painted by planned minutes of the days before today that had any planned."""
        planned = {d: sum(kept.minutes.values()) for d, kept in sorted(self.days.items()) if d < today}
        return tuple(painted.get(d, 0.0) / minutes for d, minutes in planned.items() if minutes > 0)

    def begin(self, plan: Plan, dates: Mapping[str, Dates]) -> None:
        """The first plan of a day is kept, a later one of the same day is not."""
        if plan.first in self.days:
            return
        minutes: dict[str, float] = {}
        for s in plan.sittings:
            if s.day == plan.first:
                minutes[s.commission_id] = minutes.get(s.commission_id, 0.0) + s.minutes
        oldest = plan.first - timedelta(days=_KEPT_DAYS)
        kept = KeptDay(plan.first, minutes, {i: d.safe for i, d in dates.items()})
        self._days = {d: k for d, k in (*self.days.items(), (plan.first, kept)) if d >= oldest}
        self._unsaved = True

    def save(self) -> bool:
        """Write them down; whether there was anything new. Raises `StoreTrouble`."""
        if not self._unsaved:
            return False
        self._database.remember(_MEMORY, json.dumps([_plain(k) for k in self.days.values()]))
        self._unsaved = False
        return True


def _plain(kept: KeptDay) -> dict[str, Any]:
    safe = {i: d.isoformat() for i, d in kept.safe.items()}
    return {"day": kept.day.isoformat(), "minutes": dict(kept.minutes), "safe": safe}


def _read(text: str | None) -> list[KeptDay]:
    """A memory that is damaged is none."""
    try:
        return [
            KeptDay(
                date.fromisoformat(d["day"]), {str(i): float(m) for i, m in d["minutes"].items()},
                {str(i): date.fromisoformat(x) for i, x in d["safe"].items()},
            )
            for d in json.loads(text or "[]")
        ]  # fmt: skip
    except (ValueError, KeyError, TypeError, AttributeError):
        return []
