"""The stretches in which the painter can paint, from now on: minutes after today's midnight, each with its daylight."""

from bisect import bisect_right
from dataclasses import dataclass
from datetime import date, datetime, timedelta

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.calendar.own_time import DAY_MIN, OwnTime, spans_on
from yarrow_lane.calendar.sun import daylight, zone_of

GRID = 5  # our choice: nothing is planned finer than five minutes
LONGEST_DAYS = 1100  # three years; what lies beyond is not told: our choice


@dataclass(frozen=True)
class Windows:
    """Stretches in order: begin, end, and the daylight of their day (begin after end where there is none); `first` is day 0."""

    first: date
    begin: tuple[int, ...]
    end: tuple[int, ...]
    light_from: tuple[int, ...]
    light_to: tuple[int, ...]

    @property
    def minutes(self) -> int:
        """All of them together."""
        return sum(self.end) - sum(self.begin)

    def holds(self, start: int, end: int) -> bool:
        """Whether one stretch has room from one minute to another."""
        n = bisect_right(self.end, start)
        return n < len(self.begin) and self.begin[n] <= start and end <= self.end[n]


def windows(own: OwnTime, now: datetime, days: int) -> Windows:
    """The free hours of so many days; what is over of today is left out, and edges are rounded inwards to five minutes."""
    zone, first = zone_of(now), now.date()
    minute_now = now.hour * 60 + now.minute + (1 if now.second or now.microsecond else 0)
    begins, ends, light_from, light_to = [], [], [], []
    for n in range(min(days, LONGEST_DAYS, (date.max - first).days + 1)):
        day = first + timedelta(days=n)
        spans = spans_on(own, day)
        if not spans:
            continue
        light = daylight(own.place, day, zone)
        for span in spans:
            begin = _up(max(span.begin, minute_now if n == 0 else 0))
            end = span.end // GRID * GRID
            if end - begin < GRID:
                continue
            begins.append(n * DAY_MIN + begin)
            ends.append(n * DAY_MIN + end)
            light_from.append(n * DAY_MIN + (_up(light.begin) if light else DAY_MIN))
            light_to.append(n * DAY_MIN + (light.end // GRID * GRID if light else 0))
    return Windows(first, tuple(begins), tuple(ends), tuple(light_from), tuple(light_to))


def _up(minutes: float) -> int:
    return -int(-minutes // GRID) * GRID


def minutes_by_day(free: Windows) -> NDArray[np.int64]:
    """Free minutes of each day from the first to the last that has any; a day each, 0 on days off."""
    found = np.zeros((free.end[-1] // DAY_MIN + 1) if free.end else 0, np.int64)
    for begin, end in zip(free.begin, free.end, strict=True):
        found[begin // DAY_MIN] += end - begin
    return found
