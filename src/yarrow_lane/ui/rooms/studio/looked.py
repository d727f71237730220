"""What calendar and forms of the studio know besides how each commission stands."""

from dataclasses import dataclass

from yarrow_lane.calendar.pace import Pace
from yarrow_lane.calendar.painted_days import PaintedDays
from yarrow_lane.calendar.sittings import Plan, Sitting
from yarrow_lane.commission.at_easel import NOWHERE, AtEasel
from yarrow_lane.commission.newcomer import Offered
from yarrow_lane.desk.kept_days import KeptDay
from yarrow_lane.ui.rooms.studio.ask_bench import Ask
from yarrow_lane.ui.rooms.studio.own_time_bench import Off


@dataclass(frozen=True)
class Looked:
    """What calendar and forms know besides the outlooks; `chosen` is the commission looked at, `moved` what the last plan moved, in words."""

    plan: Plan
    chosen: str = ""
    yesterday: KeptDay | None = None
    pace: Pace = Pace({})
    days: PaintedDays = PaintedDays()
    offered: Offered | None = None
    moved: tuple[str, ...] = ()
    off: Off = Off()
    ask: Ask | None = None
    sitting: Sitting | None = None
    here: AtEasel = NOWHERE
