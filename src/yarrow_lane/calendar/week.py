"""The painter's working week."""

from dataclasses import dataclass
from datetime import datetime

LATEST_HOUR = 22  # our choice: no sitting is planned to go on later


@dataclass(frozen=True)
class Week:
    """Days as 0 = Monday, minutes of painting on each, and the hour at which the day begins."""

    weekdays: tuple[int, ...] = (0, 1, 2, 3, 4)
    minutes_a_day: float = 240.0
    starts_at_hour: int = 10


def minutes_left_today(week: Week, now: datetime, painted: float) -> float:
    """Minutes that may still be planned for today, `painted` of them being over; 0 on a day off and late in the evening."""
    if now.weekday() not in week.weekdays:
        return 0.0
    until_late = (now.replace(hour=LATEST_HOUR, minute=0, second=0, microsecond=0) - now).total_seconds() / 60
    return max(0.0, min(week.minutes_a_day - painted, until_late))
