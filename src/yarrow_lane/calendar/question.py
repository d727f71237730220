"""What is asked of a worker for the calendar."""

from collections.abc import Sequence
from datetime import datetime

from yarrow_lane.calendar.jobs import Work
from yarrow_lane.calendar.own_time import OwnTime
from yarrow_lane.calendar.plan import THOROUGH, plan
from yarrow_lane.calendar.sittings import Pin, Plan
from yarrow_lane.measure.progress import SILENT, Progress


def thorough(
    works: Sequence[Work], now: datetime, own: OwnTime, pins: Sequence[Pin], before: Plan, progress: Progress = SILENT
) -> Plan:  # fmt: skip
    """Search on from a plan for about two seconds."""
    return plan(works, now, own, pins, before, THOROUGH, progress)
