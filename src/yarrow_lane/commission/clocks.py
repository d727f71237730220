"""The clock and the sequence together: no clock runs on a pass that other passes must come before."""

from datetime import datetime

from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.standing import passes_in
from yarrow_lane.easel.clock import running, stopped
from yarrow_lane.easel.session import readiness
from yarrow_lane.lane.happening import ClockStopped
from yarrow_lane.paint.drying import Climate


def stop_of_a_waiting_pass(c: Commission, climate: Climate, now: datetime) -> ClockStopped | None:
    """The stop of a clock that runs on a pass whose passes beneath are not painted any more; None where none does."""
    started = running(c.log)
    if started is None:
        return None
    on = next((p for p in passes_in(c, climate) if p.id == started.about), None)
    if on is None or not readiness(c.easel, on, now).waits_for:
        return None
    return stopped(c.log, now)
