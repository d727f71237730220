"""A day as the painter writes it: in the local order, by its weekday, or so long from today."""

import re
from datetime import date, timedelta
from typing import Literal

from yarrow_lane.measure.days import MONTHS, WEEKDAYS
from yarrow_lane.measure.trouble import Trouble

Order = Literal["dmy", "mdy", "ymd"]
_FROM_TODAY = {"today": 0, "tomorrow": 1, "yesterday": -1}
_LATER = re.compile(r"(?:in |\+ ?)(\d{1,4}) ?(d|w|m|y|days?|weeks?|months?|years?)?")
_NUMBERS = re.compile(r"(\d{1,4})[./ -](\d{1,2})(?:[./ -](\d{2,4}))?\.?")
_WRITE = "write it as 18 Dec, fri, +3w or 2026-12-18"


class DayTrouble(Trouble):
    """Words that are no day."""


def parse_day(text: str, today: date, order: Order = "dmy", ahead: bool = True) -> date | None:
    """The day meant by `text`; None for empty words. Raises `DayTrouble`.

    `order` is the local order of day, month and year in numbers. A day without its year is the next one, or with `ahead` False the
    last one; a weekday is the next one after today, or the last one before.
    """
    words = " ".join(text.lower().replace(",", " ").split())
    if not words:
        return None
    found = _near(words, today, ahead) or _dated(words, today, order, ahead)
    if found is None:
        raise DayTrouble("The date was not taken", f"“{text.strip()[:40]}” is no day", _WRITE)
    return found


def later(day: date, count: int, unit: str) -> date | None:
    """So many days, weeks, months or years later, the last of the month where it has no such day; None beyond year 9999."""
    from dateutil.relativedelta import relativedelta  # loaded when it is first wanted: a quick start

    names = {"d": "days", "w": "weeks", "m": "months", "y": "years"}
    try:
        return day + relativedelta(**{names[unit[:1]]: count})
    except (ValueError, OverflowError):
        return None


def _near(words: str, today: date, ahead: bool) -> date | None:
    if words in _FROM_TODAY:
        return today + timedelta(days=_FROM_TODAY[words])
    match = _LATER.fullmatch(words)
    if match is not None:
        return later(today, int(match[1]) * (1 if ahead else -1), match[2] or "d")
    next_week, words = words.startswith("next "), words.removeprefix("next ").removeprefix("last ")
    weekday = _named(words, WEEKDAYS)
    if weekday is None:
        return None
    if next_week:
        return today + timedelta(days=7 - today.weekday() + weekday)
    if not ahead:
        return today - timedelta(days=(today.weekday() - weekday - 1) % 7 + 1)
    return today + timedelta(days=(weekday - today.weekday() - 1) % 7 + 1)


def _named(word: str, names: tuple[str, ...]) -> int | None:
    """Which of the names is meant by their first three letters or more; None when none is."""
    if len(word) < 3 or not word.isalpha():
        return None
    return next((n for n, name in enumerate(names) if word[:3] == name.lower()), None)


def _dated(words: str, today: date, order: Order, ahead: bool) -> date | None:
    first, _, rest = words.partition(" ")
    if rest and _named(first, WEEKDAYS) is not None and not rest.isalpha():
        words = rest
    match = _NUMBERS.fullmatch(words)
    if match is not None:
        numbers = [int(n) for n in match.groups() if n is not None]
        if len(match[1]) == 4:
            return _day(numbers[2], numbers[1], numbers[0]) if len(numbers) == 3 else None
        if order == "ymd" and len(numbers) == 3:
            return _day(numbers[2], numbers[1], numbers[0])
        day, month = (numbers[0], numbers[1]) if order == "dmy" else (numbers[1], numbers[0])
        return _day(day, month, numbers[2]) if len(numbers) == 3 else _without_year(day, month, today, ahead)
    parts = words.replace(".", " ").split()
    named = next((n for part in parts if (n := _named(part, MONTHS)) is not None), None)
    numbers = [int(part) for part in parts if part.isdecimal()]
    if named is None or not 1 <= len(numbers) <= 2 or len(parts) != len(numbers) + 1:
        return None
    return _day(numbers[0], named + 1, numbers[1]) if len(numbers) == 2 else _without_year(numbers[0], named + 1, today, ahead)


def _day(day: int, month: int, year: int) -> date | None:
    try:
        return date(year + 2000 if year < 100 else year, month, day)
    except ValueError:
        return None


def _without_year(day: int, month: int, today: date, ahead: bool) -> date | None:
    years = range(today.year, today.year + 9) if ahead else range(today.year, today.year - 9, -1)  # a leap day has to wait
    days = (found for year in years if (found := _day(day, month, year)) is not None)
    return next((found for found in days if (found >= today if ahead else found <= today)), None)
