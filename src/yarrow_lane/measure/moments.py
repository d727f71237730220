"""Moments on record, when the machine's clock was wrong: none runs past the calendar, and one that has not come yet is seen.

All moments carry their zone, so that neither travelling nor daylight saving changes a length of time.
"""

import math
from datetime import date, datetime, timedelta

# Our choice: two machines, or one before and after it set its clock, differ by less.
_APART = timedelta(minutes=5)
LIFETIME_MIN = 100 * 365.25 * 1440.0  # our choice: no film, coat or rest takes longer


def ahead(moment: datetime | None, now: datetime) -> bool:
    """Whether something on record as done lies in the future."""
    return moment is not None and moment - now > _APART


def after(moment: datetime, minutes: float, now: datetime | None = None) -> datetime:
    """So many minutes after a moment, at least none and at most a lifetime, never past the calendar's end.

    With `now` a moment that has not come yet counts as now: what was just done is then as wet as it can be.
    """
    start = min(moment, now) if now is not None and ahead(moment, now) else moment
    wait = min(max(0.0, minutes), LIFETIME_MIN) if math.isfinite(minutes) else LIFETIME_MIN
    try:
        return start + timedelta(minutes=wait)
    except OverflowError:
        return datetime.max.replace(tzinfo=start.tzinfo)


def day_after(day: date, days: int = 1) -> date:
    """So many days later, never past the calendar's end."""
    return day + timedelta(days=min(days, (date.max - day).days))
