"""Days as the painter speaks of them. The core never reads a clock: `today` is an argument."""

from datetime import date, datetime, timedelta

from yarrow_lane.measure.lengths import THIN_SPACE
from yarrow_lane.measure.words import counted

WEEKDAY_NAMES = ("Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday")
WEEKDAYS = tuple(name[:3] for name in WEEKDAY_NAMES)
_NEAR_DAYS = 300  # our choice: beyond it a day without its year could be another one
MONTHS = ("Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec")


def day_text(day: date) -> str:
    """ "Fri 18 Dec"; the year is left out: commissions run for weeks."""
    return f"{WEEKDAYS[day.weekday()]} {day.day}{THIN_SPACE}{MONTHS[day.month - 1]}"


def moved_text(days: int) -> str:
    """ "2 days later", "1 day earlier"; days other than 0."""
    return f"{counted(abs(days), 'day')} {'later' if days > 0 else 'earlier'}"


def monday_of(day: date) -> date:
    """The Monday of that day's week (ISO 8601 weeks start on Monday)."""
    return day - timedelta(days=day.weekday())


def working_days_between(start: date, end: date, weekdays: tuple[int, ...]) -> int:
    """Working days from `start` up to and without `end`; negative when `end` has passed."""
    if end < start:
        return -working_days_between(end, start, weekdays)
    return sum((start + timedelta(days=n)).weekday() in weekdays for n in range((end - start).days))


def clock_text(moment: datetime, now: datetime) -> str:
    """ "14:20" today, "Thu 26 Nov, 14:20" on another day, with the year where it is not near."""
    hour = f"{moment:%H:%M}"
    if moment.date() == now.date():
        return hour
    year = f" {moment.year}" if abs((moment.date() - now.date()).days) > _NEAR_DAYS else ""
    return f"{day_text(moment.date())}{year}, {hour}"


def dated(day: date) -> str:
    """A day with its year: for what is kept for long."""
    return f"{day_text(day)} {day.year}"
