"""Where a room stands: its decision in one line, what it wants, the next act, and the work still to be planned.

Nothing here depends on the moment it is shown: what changes by itself is told as a moment (`not_before`, `until`), so that a
standing can be kept until that moment comes.
"""

from dataclasses import dataclass
from datetime import datetime

from yarrow_lane.measure.days import clock_text

SMALL_MIN = 15.0  # our choice: a short act such as writing, signing, one varnish coat
BEFORE = -1  # in `Task.after`: the end of everything that comes before this room


@dataclass(frozen=True)
class Act:
    """What to do next and about how long.

    While `not_before` lies ahead it cannot be done, and `waiting` with that moment is said instead of `detail`.
    """

    title: str
    detail: str = ""
    minutes: float = SMALL_MIN
    not_before: datetime | None = None
    waiting: str = ""
    door: str = ""


def act_detail(act: Act, now: datetime) -> str:
    """The small print of an act at this moment: what it waits for and until when, else what it is done with."""
    if act.not_before is not None and act.not_before > now:
        return f"{act.waiting} {clock_text(act.not_before, now)}"
    return act.detail


def can_be_done(act: Act, now: datetime) -> bool:
    """Whether nothing has to be waited for."""
    return act.not_before is None or act.not_before <= now


@dataclass(frozen=True)
class Task:
    """Work to be planned, in minutes at the canvas.

    `after` are tasks of the same room by their place (or `BEFORE`), each with the minutes that must pass after its end:
    drying, rest. `whole` work is not divided over several days. `key` is the pass's id ("" for other work), `palette` its wells, `family` the kind of area by
    which pace is learned ("" where none is); `daylight` work is not done by lamp; `door` is its room.
    """

    words: str
    minutes: float
    after: tuple[tuple[int, float], ...] = ((BEFORE, 0.0),)
    earliest: datetime | None = None
    whole: bool = False
    key: str = ""
    palette: str = ""
    family: str = ""
    daylight: bool = False
    door: str = ""

    @property
    def name(self) -> str:
        """By what it is known among the tasks of its commission: the pass's id, else its words."""
        return self.key or self.words


@dataclass(frozen=True)
class Standing:
    """One room of one commission.

    `fact` is the decision in one line, `wants` what is still missing (empty when the door is shut), `worry` what endangers the
    commission here, `stale` says that its work was made from an earlier composition. `until` is when the answer changes by
    itself; None when only an edit changes it.
    """

    fact: str = ""
    wants: str = ""
    act: Act | None = None
    tasks: tuple[Task, ...] = ()
    worry: str = ""
    stale: str = ""
    until: datetime | None = None


STALE = "made from an earlier composition"


def stale_words(made_from: str, reference: str) -> str:
    """`STALE` when the part was made from another reference than the present one; unknown makings say nothing."""
    return STALE if made_from and made_from != reference else ""
