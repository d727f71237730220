"""The changing room: readings of temperature and humidity, and how wet films dry as they change.

A film dries at a rate in proportion to the vapour pressure deficit (`paint/drying.py`): the share dried is the deficit summed over time,
by what it would take in the air it was laid in.
"""

from dataclasses import dataclass, replace
from datetime import datetime, timedelta

from yarrow_lane.easel.session import Easel, FinishedPass
from yarrow_lane.paint.drying import Climate, deficit_hpa

KEPT_HOURS = 72.0  # our choice: no acrylic film is wet for longer
FARTHEST_C, FARTHEST_RH = (5.0, 40.0), (5.0, 95.0)  # what the studio's climate takes


@dataclass(frozen=True)
class Reading:
    """°C and % relative humidity at a moment."""

    at: datetime
    celsius: float
    humidity: float

    @property
    def deficit(self) -> float:
        """Vapour pressure deficit, hPa."""
        return deficit_hpa(Climate(self.celsius, self.humidity))


@dataclass(frozen=True)
class Air:
    """Readings in order of time; each holds until the next, the last for good."""

    readings: tuple[Reading, ...] = ()

    def with_reading(self, reading: Reading) -> "Air":
        """One more; what is older than three days is forgotten."""
        kept = [r for r in self.readings if reading.at - r.at < timedelta(hours=KEPT_HOURS) and r.at != reading.at]
        return Air(tuple(sorted((*kept, reading), key=lambda r: r.at)))

    def minutes_wet(self, finished: FinishedPass) -> float:
        """How long its film stays wet as the room went, minutes; as reckoned where the air it was laid in is not known."""
        if not finished.deficit or finished.touched or not self.readings or not finished.dry_minutes:
            return finished.dry_minutes
        left, clock, rate = finished.dry_minutes, finished.at, 1.0
        for reading in self.readings:
            if reading.at <= finished.at:
                rate = reading.deficit / finished.deficit
                continue
            dried = (reading.at - clock).total_seconds() / 60 * rate
            if dried >= left:
                break
            left, clock, rate = left - dried, reading.at, reading.deficit / finished.deficit
        return (clock - finished.at).total_seconds() / 60 + left / max(rate, 0.01)


def aired(easel: Easel, air: Air) -> Easel:
    """The easel with films that dry as the room went; to look at, not to keep."""
    if not air.readings:
        return easel
    finished = tuple(replace(f, dry_minutes=air.minutes_wet(f)) if f.deficit else f for f in easel.finished)
    return easel if finished == easel.finished else replace(easel, finished=finished)


_LEARNS = 0.3  # of what a touch says is believed at once: our choice
_LEAST, _MOST = 0.4, 2.5


def learned(factor: float, reckoned: float, minutes: float, dry: bool) -> float:
    """The room's factor after a touch: a film reckoned to take `reckoned` minutes was dry, or still wet, after `minutes`.

    Dry before its time says that the room dries faster, wet after it that it dries slower; otherwise a touch says nothing new.
    """
    if reckoned <= 0 or minutes <= 0 or (dry and minutes >= reckoned) or (not dry and minutes <= reckoned):
        return factor
    return min(_MOST, max(_LEAST, factor * (minutes / reckoned) ** _LEARNS))


def plausible(celsius: float, humidity: float) -> bool:
    """Whether a room can be like that."""
    return FARTHEST_C[0] <= celsius <= FARTHEST_C[1] and FARTHEST_RH[0] <= humidity <= FARTHEST_RH[1]


def jumps(air: Air, reading: Reading) -> bool:
    """Whether a reading is so far from the last one, minutes before, that the sensor is to be doubted."""
    last = air.readings[-1] if air.readings else None
    if last is None or reading.at - last.at > timedelta(minutes=30):
        return False
    return abs(reading.celsius - last.celsius) > 6 or abs(reading.humidity - last.humidity) > 25
