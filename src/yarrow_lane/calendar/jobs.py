"""What one commission still needs, cut into stints: stretches of at most an hour at one canvas, each with what must lie before it."""

from dataclasses import dataclass, replace
from datetime import date, datetime
from functools import cached_property
from math import ceil

from yarrow_lane.calendar.pace import Pace
from yarrow_lane.calendar.windows import GRID
from yarrow_lane.lane.standing import BEFORE, Task
from yarrow_lane.measure.kept import kept

STINT_MIN = 60  # our choice: a break comes after 50 minutes anyway
LONG_WAIT_MIN = 720  # what waits longer waits over a night: our choice
NEVER = 10**9
_KEPT_EACH = 2  # of one commission: at own pace and by first guess, or as it was before an edit


@dataclass(frozen=True)
class Work:
    """What one commission still needs: for each room in order its tasks. `promised` is the day in the client's hands."""

    commission_id: str
    promised: date | None
    rooms: tuple[tuple[Task, ...], ...]

    @cached_property
    def minutes(self) -> float:
        """All of it."""
        return sum(t.minutes for room in self.rooms for t in room)

    def at_pace(self, pace: Pace) -> "Work":
        """The same with passes as long as the painter's own pace makes them."""
        return _at_pace(self, pace)


@kept(_KEPT_EACH, of=lambda work: work.commission_id)
def _at_pace(work: Work, pace: Pace) -> Work:
    factors = {t.family: pace.factor(t.family, work.commission_id) for room in work.rooms for t in room if t.family}
    if all(abs(f - 1) < 1e-9 for f in factors.values()):
        return work
    rooms = tuple(tuple(replace(t, minutes=t.minutes * factors.get(t.family, 1.0)) for t in room) for room in work.rooms)
    return replace(work, rooms=rooms)


@dataclass(frozen=True)
class Stint:
    """Minutes in one go (steps of five; 0 for a mere moment), after (stint, minutes between) of the same job.

    `task` counts the job's tasks. A `small` act needs no room for a whole sitting; `palette` names the wells, -1 none.
    """

    minutes: int
    needs: tuple[tuple[int, int], ...]
    task: int
    palette: int = -1
    daylight: bool = False
    small: bool = False
    earliest: datetime | None = None


@dataclass(frozen=True)
class Job:
    """A commission's stints in a lawful order; the last ends when it is in the client's hands."""

    commission_id: str
    promised: date | None
    tasks: tuple[Task, ...]
    stints: tuple[Stint, ...]

    @cached_property
    def after(self) -> tuple[tuple[tuple[int, int], ...], ...]:
        """For each stint those that wait for it, with the minutes between."""
        found: list[list[tuple[int, int]]] = [[] for _ in self.stints]
        for k, stint in enumerate(self.stints):
            for before, lag in stint.needs:
                found[before].append((k, lag))
        return tuple(tuple(f) for f in found)

    @cached_property
    def chain(self) -> tuple[int, ...]:
        """Minutes from the start of each stint to the client's hands if nothing ever waited for the painter."""
        found = [0] * len(self.stints)
        for k in range(len(self.stints) - 1, -1, -1):
            rest = max((lag + found[c] for c, lag in self.after[k]), default=0)
            found[k] = self.stints[k].minutes + rest
        return tuple(found)

    @cached_property
    def minutes(self) -> int:
        """All stints together."""
        return sum(s.minutes for s in self.stints)


@kept(_KEPT_EACH, of=lambda work: work.commission_id)
def job_of(work: Work) -> Job:
    """The stints of a work; the same object for the same work."""
    stints: list[Stint] = []
    tasks: list[Task] = []
    palettes: dict[str, int] = {}
    ends: list[int] = []  # the stints that end the room before
    for room in work.rooms:
        if not room:
            continue
        last: list[int] = []  # the last stint of each task of this room
        followed: set[int] = set()
        for task in room:
            needs: dict[int, int] = {}
            for place, lag in task.after:
                for stint in ends if place == BEFORE else (last[place],):
                    needs[stint] = max(needs.get(stint, 0), ceil(lag))
                if place != BEFORE:
                    followed.add(place)
            palette = palettes.setdefault(task.palette, len(palettes)) if task.palette else -1
            number = len(tasks)
            tasks.append(task)
            for n, minutes in enumerate(_parts(task)):
                own = tuple(sorted(needs.items())) if n == 0 else ((len(stints) - 1, 0),)
                earliest = task.earliest if n == 0 else None
                stints.append(Stint(minutes, own, number, palette, task.daylight, task.whole, earliest))
            last.append(len(stints) - 1)
        ends = [stint for n, stint in enumerate(last) if n not in followed] or last[-1:]
    return Job(work.commission_id, work.promised, tuple(tasks), tuple(stints))


def _parts(task: Task) -> list[int]:
    """A task in parts of five minutes; a mere moment stays one, and so does what is done in one go."""
    if task.minutes <= 0:
        return [0]
    fives = max(1, round(task.minutes / GRID))
    count = 1 if task.whole else ceil(fives * GRID / STINT_MIN)
    return [GRID * (fives * (n + 1) // count - fives * n // count) for n in range(count)]
