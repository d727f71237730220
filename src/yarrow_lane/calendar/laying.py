"""Canvases laid onto the board stint by stint, each as early as it can, and taken off again in the reverse order.

Which stint of a canvas goes first among those that are ready is a rule: what can begin first ("soonest"), or, among those that can begin
at about the same time, what needs the same wells, or what has the longest chain behind it. No rule is the best for every studio.
"""

from bisect import bisect_left
from collections.abc import Mapping, Sequence
from typing import Literal

from yarrow_lane.calendar.board import Board
from yarrow_lane.calendar.jobs import LONG_WAIT_MIN, NEVER, Job
from yarrow_lane.calendar.own_time import DAY_MIN, OwnTime
from yarrow_lane.calendar.windows import Windows

Rule = Literal["soonest", "same wells", "longest chain"]
RULES: tuple[Rule, ...] = ("same wells", "longest chain", "soonest")
Pins = Mapping[tuple[int, int], int]  # (job, stint) to its start
_ALIKE_MIN = 30  # what can begin within so many minutes begins at about the same time: our choice
_EARLY = 1e-4  # what a minute earlier is worth where nothing is late: our choice
# A plan in which nothing is late should still be safe: what ends after so much of the time to its promise counts a little (our choice).
EASY_SHARE, _UNEASY = 0.5, 2e-3
_BROKEN = 10.0 * DAY_MIN  # what a pin costs that cannot hold: our choice


# Job, stint, window, start; then as they were before: the job's end and wells, its finish, from when others could begin; whether the
# window is new to the job; and how late it surely was.
_Step = tuple[int, int, int, int, tuple[int, int], int, list[tuple[int, int]], bool, int]


class Laying:
    """One plan while it grows. Minutes after midnight of the first window's day; `start` by job and stint, -1 not laid yet."""

    def __init__(
        self, jobs: Sequence[Job], windows: Windows, own: OwnTime, releases: Sequence[Sequence[int]], pins: Pins
    ) -> None:
        self.jobs = jobs
        self.board = Board(windows, own)
        self.due = [due_minute(j, windows) for j in jobs]
        self.easy = [EASY_SHARE * d for d in self.due]
        self.start = [[-1] * len(j.stints) for j in jobs]
        self.steps: list[_Step] = []
        self.finish = [0] * len(jobs)
        self.late = [0] * len(jobs)
        self.bound = 0  # minutes late in all even if nothing waited any more
        self.pins = pins
        self.rule: Rule = "soonest"
        self._last = [(0, -1)] * len(jobs)
        for (pinned, stint), start in pins.items():
            found = jobs[pinned].stints[stint]
            self.board.put(self.board.window_of(start), (start, start + found.minutes, pinned, found.palette))
            self.start[pinned][stint] = start
        self._mine = [sorted({self.board.window_of(s) for s in row if s >= 0}) for row in self.start]
        self.left = [sum(s < 0 for s in row) for row in self.start]
        self._waits: list[list[int]] = []
        self._from: list[list[int]] = []
        self._ready: list[list[int]] = []
        for n, job in enumerate(jobs):
            row = self.start[n]
            waits = [sum(row[b] < 0 for b, _ in s.needs) for s in job.stints]
            begin = [
                max([releases[n][k], *(row[b] + job.stints[b].minutes + lag for b, lag in s.needs if row[b] >= 0)])
                for k, s in enumerate(job.stints)
            ]
            self._waits.append(waits)
            self._from.append(begin)
            self._ready.append([k for k, w in enumerate(waits) if w == 0 and row[k] < 0])

    def lay(self, job: int) -> None:
        """The job's next stint; raises `Full`."""
        whole, ready, begin = self.jobs[job], self._ready[job], self._from[job]
        cursor, palette = self._last[job]
        stint = ready[0]
        if len(ready) > 1:
            chain, stints, rule = whole.chain, whole.stints, self.rule
            best: tuple[int, int, int, int] | None = None
            for k in ready:
                early = begin[k]
                early = early if early > cursor else cursor
                other = stints[k].palette != palette
                if rule == "soonest":
                    key = (early, -(chain[k] // LONG_WAIT_MIN), int(other), k)
                elif rule == "same wells":
                    key = (early // _ALIKE_MIN, int(other), -chain[k], k)
                else:
                    key = (early // (2 * _ALIKE_MIN), -chain[k], int(other), k)
                if best is None or key < best:
                    best, stint = key, k
        self.lay_stint(job, stint)

    def is_ready(self, job: int, stint: int) -> bool:
        """Whether everything before it is laid, and it is not."""
        return self._waits[job][stint] == 0 and self.start[job][stint] < 0

    def lay_stint(self, job: int, stint: int) -> None:
        """That stint, which is ready; raises `Full`."""
        whole, begin, mine = self.jobs[job], self._from[job], self._mine[job]
        found = whole.stints[stint]
        new = False
        if found.minutes:
            window, start = self.board.place(job, found, begin[stint], mine)
            at = bisect_left(mine, window)
            new = at == len(mine) or mine[at] != window
            if new:
                mine.insert(at, window)
        else:
            window, start = -1, begin[stint]
        self._ready[job].remove(stint)
        self.start[job][stint] = start
        end = start + found.minutes
        befores, waits, row = [], self._waits[job], self.start[job]
        for after, lag in whole.after[stint]:
            before = begin[after]
            befores.append((after, before))
            if end + lag > before:
                begin[after] = end + lag
            waits[after] -= 1
            if waits[after] == 0 and row[after] < 0:
                self._ready[job].append(after)
        self.steps.append((job, stint, window, start, self._last[job], self.finish[job], befores, new, self.late[job]))
        late = start + whole.chain[stint] - self.due[job]
        if late > self.late[job]:
            self.bound += late - self.late[job]
            self.late[job] = late
        if found.minutes:
            self._last[job] = (end, found.palette)
        if end > self.finish[job]:
            self.finish[job] = end
        self.left[job] -= 1

    def take_off(self) -> None:
        """Undo the last step."""
        job, stint, window, start, last, finish, befores, new, late = self.steps.pop()
        found = self.jobs[job].stints[stint]
        if window >= 0:
            self.board.take(window, (start, start + found.minutes, job, found.palette))
            if new:
                self._mine[job].remove(window)
        ready, waits, begin, row = self._ready[job], self._waits[job], self._from[job], self.start[job]
        for after, before in reversed(befores):
            if waits[after] == 0 and row[after] < 0:
                ready.remove(after)
            waits[after] += 1
            begin[after] = before
        ready.append(stint)
        row[stint] = -1
        self._last[job], self.finish[job] = last, finish
        self.bound -= self.late[job] - late
        self.late[job] = late
        self.left[job] += 1

    def cost(self) -> float:
        """Minutes late in all, what broken pins cost, and a little for every minute near a promise and before the end."""
        late = sum(max(0, f - d) for f, d in zip(self.finish, self.due, strict=True))
        uneasy = sum(max(0.0, f - e) for f, e in zip(self.finish, self.easy, strict=True))
        return late + _UNEASY * uneasy + _EARLY * sum(self.finish) + _BROKEN * len(broken(self))


def due_minute(job: Job, windows: Windows) -> int:
    """The end of the promised day; `NEVER` without one."""
    return NEVER if job.promised is None else ((job.promised - windows.first).days + 1) * DAY_MIN


def broken(laying: Laying) -> list[tuple[int, int]]:
    """Pinned stints that would begin before what they need is over and dry."""
    found = []
    for job, stint in laying.pins:
        row, stints = laying.start[job], laying.jobs[job].stints
        if any(row[b] + stints[b].minutes + lag > row[stint] for b, lag in stints[stint].needs):
            found.append((job, stint))
    return found
