"""What of the canvas is wet now, and until when: likely and surely."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

from yarrow_lane.layers.passes import Pass
from yarrow_lane.paint.drying import SURELY


@dataclass(frozen=True)
class Wet:
    """The newest film of a region: likely dry at, surely dry by, and the share of its time that is left, 0 to 1."""

    region_id: int
    title: str
    likely: datetime
    surely: datetime
    left: float


def wet_now(
    passes: Sequence[Pass], finished: Mapping[str, tuple[datetime, float]], now: datetime
) -> tuple[Wet, ...]:  # fmt: skip
    """Regions whose newest film is not surely dry yet, the wettest first; `finished` gives when and how long it stays wet, minutes."""
    newest: dict[int, Wet] = {}
    for p in passes:
        if p.id not in finished:
            continue
        at, minutes = finished[p.id]
        likely = at + timedelta(minutes=minutes)
        surely = at + timedelta(minutes=minutes * SURELY)
        left = (likely - now).total_seconds() / 60 / minutes if minutes > 0 else 0.0
        there = newest.get(p.region_id)
        if there is None or likely > there.likely:
            newest[p.region_id] = Wet(p.region_id, p.title, likely, surely, min(1.0, max(0.0, left)))
    return tuple(sorted((w for w in newest.values() if w.surely > now), key=lambda w: -w.left))
