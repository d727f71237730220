"""The free time of one painter, filled stint by stint: no two at once, and time for another canvas or other wells between them."""

from bisect import bisect_left, bisect_right

import numpy as np

from yarrow_lane.calendar.jobs import Stint
from yarrow_lane.calendar.own_time import OwnTime
from yarrow_lane.calendar.windows import Windows

Laid = tuple[int, int, int, int]  # start, end, job, palette


class Full(Exception):
    """The windows end before the stint finds room."""


class Board:
    """Stints per window, in order. `room[w]` is the longest stint of another canvas that window w still takes: a bound by which
    windows are passed over without a look into them."""

    def __init__(self, windows: Windows, own: OwnTime) -> None:
        self._begin, self._end = windows.begin, windows.end
        self._light_from, self._light_to = windows.light_from, windows.light_to
        self._canvas, self._palette, self._shortest = own.canvas, own.palette, own.shortest
        self.laid: list[list[Laid]] = [[] for _ in windows.begin]
        self._room = np.array([e - b for b, e in zip(windows.begin, windows.end, strict=True)], np.int32)

    def window_of(self, minute: int) -> int:
        """The window that holds a minute, or the next one."""
        return bisect_right(self._end, minute)

    def _measure(self, w: int) -> None:
        laid = self.laid[w]
        canvas, before, change, best = self._canvas, self._begin[w], 0, 0
        for start, end, _, _ in laid:
            gap = start - before - change - canvas
            if gap > best:
                best = gap
            before, change = end, canvas
        gap = self._end[w] - before - change
        self._room[w] = gap if gap > best else best

    def put(self, w: int, laid: Laid) -> None:
        """Lay something at a fixed time."""
        row = self.laid[w]
        row.insert(bisect_left(row, laid), laid)
        self._measure(w)

    def take(self, w: int, laid: Laid) -> None:
        """Take it off again."""
        self.laid[w].remove(laid)
        self._measure(w)

    def place(self, job: int, stint: Stint, earliest: int, mine: list[int]) -> tuple[int, int]:
        """Lay a stint at its first lawful start; returns window and start. `mine` are the windows the job already sits in, sorted.

        Raises `Full`.
        """
        first = bisect_right(self._end, earliest)
        own = bisect_left(mine, first)
        many, count = len(self._end), len(mine)
        asked = stint.minutes if stint.small or stint.minutes >= self._shortest else self._shortest
        following, fresh = first, True
        while True:
            if fresh:
                if following < many and self._room[following] < asked:
                    # Another canvas finds its next window at one look; only the own ones are entered with less room.
                    step = int((self._room[following:] >= asked).argmax())
                    following = following + step if step else many
                fresh = False
            if own < count and mine[own] <= following:
                w, wanted = mine[own], stint.minutes
                own += 1
                if w == following:
                    following, fresh = following + 1, True
            elif following >= many:
                raise Full
            else:
                w, wanted = following, asked
                following, fresh = following + 1, True
            start = self._fit(w, job, stint, earliest, wanted)
            if start >= 0:
                return w, start

    def _fit(self, w: int, job: int, stint: Stint, earliest: int, wanted: int) -> int:
        """The first start in a window that has room for `wanted` minutes, or -1; the stint is laid there.

        The innermost loop of the plan: no call is made in it that can be spared.
        """
        free, high = self._begin[w], self._end[w]
        low = earliest if earliest > free else free
        if stint.daylight:
            low, high = max(low, self._light_from[w]), min(high, self._light_to[w])
        if high - low < wanted:
            return -1
        palette = stint.palette
        laid = self.laid[w]
        canvas, other_wells = self._canvas, self._palette
        change, latest = 0, high - wanted
        for n, (start, end, other, wells) in enumerate(laid):
            same = other == job
            between = canvas if not same else 0 if wells == palette or wells < 0 or palette < 0 else other_wells
            if start >= low + wanted:
                begin = free + change
                if begin < low:
                    begin = low
                if begin + wanted + between <= start and begin <= latest:
                    laid.insert(n, (begin, begin + stint.minutes, job, palette))
                    self._measure(w)
                    return begin
            free, change = end, between
        begin = free + change
        if begin < low:
            begin = low
        if begin > latest:
            return -1
        laid.append((begin, begin + stint.minutes, job, palette))
        self._measure(w)
        return begin
