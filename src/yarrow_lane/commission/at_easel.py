"""Where the painter stands, as the clock says."""

from dataclasses import dataclass
from datetime import datetime

from yarrow_lane.commission.commission import Commission
from yarrow_lane.easel.clock import running
from yarrow_lane.easel.reminders import painting_since, wells_until
from yarrow_lane.paint.drying import Climate


@dataclass(frozen=True)
class AtEasel:
    """At which canvas, with which pass, how long without a break, and how long its wells stay soft, minutes."""

    commission_id: str = ""
    pass_id: str = ""
    since_break: float = 0.0
    wells_open: float = 0.0


NOWHERE = AtEasel()


def at_easel(c: Commission, climate: Climate, now: datetime) -> AtEasel:
    """As the commission's clock says; nowhere while it stands."""
    started, since = running(c.log), painting_since(c.log, now)
    if started is None or since is None:
        return NOWHERE
    until = wells_until(c.log, c.brief.medium, climate, now)
    left = (until - now).total_seconds() / 60 if until is not None else 0.0
    return AtEasel(c.id, started.about, (now - since).total_seconds() / 60, max(0.0, left))
