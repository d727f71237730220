"""What is wet on the canvas now, and until when: likely, and surely."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime

from yarrow_lane.easel.session import Easel, FinishedPass, dry_at
from yarrow_lane.layers.passes import Pass
from yarrow_lane.measure.moments import after
from yarrow_lane.paint.drying import SURELY


@dataclass(frozen=True)
class Wet:
    """The newest film of a region: likely dry at, surely dry by, and the share of its time that is left, 0 to 1."""

    region_id: int
    pass_id: str
    title: str
    likely: datetime
    surely: datetime
    left: float


def surely_dry_at(finished: FinishedPass, now: datetime) -> datetime:
    """When its film is dry beyond doubt; one that was felt to be dry is not doubted."""
    return after(finished.at, finished.dry_minutes * (1.0 if finished.touched else SURELY), now)


def wet_now(easel: Easel, passes: Sequence[Pass], now: datetime) -> tuple[Wet, ...]:
    """Regions whose newest film is not surely dry yet, the wettest first."""
    newest: dict[int, Wet] = {}
    for p in passes:
        done = easel.done(p.id)
        if done is None:
            continue
        likely, minutes = dry_at(done, now), done.dry_minutes
        there = newest.get(p.region_id)
        if there is None or likely > there.likely:
            left = (likely - now).total_seconds() / 60 / minutes if minutes > 0 else 0.0
            surely = surely_dry_at(done, now)
            newest[p.region_id] = Wet(p.region_id, p.id, p.title, likely, surely, min(1.0, max(0.0, left)))
    return tuple(sorted((w for w in newest.values() if w.surely > now), key=lambda w: -w.left))
