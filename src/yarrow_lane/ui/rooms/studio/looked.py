"""What calendar and forms of the studio know besides how each commission stands."""

from collections.abc import Callable
from dataclasses import dataclass
from datetime import date

from yarrow_lane.calendar.pace import Pace
from yarrow_lane.calendar.painted_days import PaintedDays
from yarrow_lane.calendar.plan import Plan, Sitting
from yarrow_lane.desk.planned import KeptDay
from yarrow_lane.ui.rooms.studio.calendar_bench import Offered
from yarrow_lane.ui.rooms.studio.own_time_bench import Off


@dataclass(frozen=True)
class Ask:
    """A letter for more days, being written."""

    commission_id: str
    client: str
    until: date
    subject: str
    text: str
    remarks: tuple[str, ...] = ()


def _nothing(commission_id: str, day: date) -> float:
    return 0.0


@dataclass(frozen=True)
class Looked:
    """What calendar and forms know besides the outlooks; `painted` tells minutes of a commission on a day."""

    plan: Plan | None = None
    yesterday: KeptDay | None = None
    pace: Pace | None = None
    days: PaintedDays = PaintedDays()
    offered: Offered | None = None
    moved: tuple[str, ...] = ()
    off: Off = Off()
    ask: Ask | None = None
    painted: Callable[[str, date], float] = _nothing
    sitting: Sitting | None = None
    since_break: float = 0.0
    canvas: str = ""
