"""Where a moment stands on the line of days: near days wide, far days small. No Qt."""

from bisect import bisect_right
from collections.abc import Sequence
from datetime import date, datetime, timedelta

_SHRINKS, _LEAST = 0.9, 0.03  # how fast days get smaller, and the share of the first below which none falls: our choice
_HEIGHT_SHRINKS, _LEAST_HEIGHT = 0.14, 0.26
_GAP = 0.06  # of a day, between it and the next


class DayScale:
    """Days from `first` on over a width in px, from `left`; each day runs from one hour to another."""

    def __init__(self, first: date, days: int, left: float, width: float, hours: tuple[int, int]) -> None:
        self.first, self.days, self._left, self._hours = first, days, left, hours
        raw = [1 / (1 + _SHRINKS * n) + _LEAST for n in range(days)]
        whole = sum(raw)
        self._edges = [left]
        for r in raw:
            self._edges.append(self._edges[-1] + width * r / whole)

    def day_left(self, day: date) -> float:
        """The left edge of a day; beyond the last the right end."""
        n = min(max(0, (day - self.first).days), self.days)
        return self._edges[n]

    def day_width(self, day: date) -> float:
        """Its width, 0 beyond the ends."""
        n = (day - self.first).days
        return self._edges[n + 1] - self._edges[n] if 0 <= n < self.days else 0.0

    def middle(self, day: date) -> float:
        """The middle of a day."""
        return self.day_left(day) + self.day_width(day) / 2

    def x(self, moment: datetime) -> float:
        """A moment; before and after the day's hours it stands at their ends."""
        day = moment.date()
        begin, end = self._hours
        share = (moment.hour * 60 + moment.minute - begin) / max(1, end - begin)
        return self.day_left(day) + self.day_width(day) * (1 - _GAP) * min(1.0, max(0.0, share))

    def day_at(self, x: float) -> date:
        """The day under an x."""
        n = min(max(0, bisect_right(self._edges, x) - 1), self.days - 1)
        return self.first + timedelta(days=n)

    def height(self, day: date) -> float:
        """How tall the line is there, 1 today."""
        n = max(0, (day - self.first).days)
        return _LEAST_HEIGHT + (1 - _LEAST_HEIGHT) / (1 + _HEIGHT_SHRINKS * n)


def stacked(xs: Sequence[float], width: float, most: int) -> list[tuple[float, int]]:
    """Dabs of one width side by side, those that would overlap one above the other, at most so many levels: (x, level) each, in order.

    Where the levels are full a dab moves aside.
    """
    levels: list[float] = []
    found = []
    for x in xs:
        level = next((n for n, last in enumerate(levels) if x - last >= width), None)
        if level is None and len(levels) < most:
            level = len(levels)
            levels.append(x)
        if level is None:
            level = min(range(most), key=lambda n: levels[n])
            x = levels[level] + width
        levels[level] = x
        found.append((x, level))
    return found
