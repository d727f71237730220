"""Daylight at the easel, worked out offline from place and day."""

from datetime import date, datetime, tzinfo
from functools import lru_cache
from typing import TYPE_CHECKING

from yarrow_lane.calendar.own_time import DAY_MIN, Place, Span
from yarrow_lane.measure.late import late

if TYPE_CHECKING:
    import astral
    import astral.sun
else:
    astral = late("astral")
    astral.sun = late("astral.sun")

LOW_LIGHT = 45  # minutes after sunrise and before sunset that are too dim to judge colour by: our choice


def sun(place: Place, day: date, zone: tzinfo | None) -> Span | None:
    """Sunrise and sunset in minutes of the local day; None where the sun does not rise, the whole day where it does not set."""
    observer = astral.Observer(place.latitude, place.longitude)
    try:
        begin, end = astral.sun.sunrise(observer, day), astral.sun.sunset(observer, day)
    except ValueError:
        noon = astral.sun.noon(observer, day)
        return Span(0, DAY_MIN) if astral.sun.elevation(observer, noon) > 0 else None
    found = [_minute(moment.astimezone(zone), day) for moment in (begin, end)]
    return Span(found[0], found[1]) if found[0] < found[1] else Span(0, DAY_MIN)


def zone_of(now: datetime) -> tzinfo | None:
    """The zone to tell the hours of other days in: the machine's own, with its summer time, where `now` was read from it."""
    return None if now.astimezone().utcoffset() == now.utcoffset() else now.tzinfo


def _minute(moment: datetime, day: date) -> int:
    """Minutes of the local day; a sun that rose before its midnight or sets after it is held at its edge."""
    if moment.date() < day:
        return 0
    return DAY_MIN if moment.date() > day else moment.hour * 60 + moment.minute


@lru_cache(4096)
def daylight(place: Place, day: date, zone: tzinfo | None) -> Span | None:
    """When it is light enough to judge colour; None on days without."""
    found = sun(place, day, zone)
    if found is None:
        return None
    trimmed = Span(found.begin + LOW_LIGHT, found.end - LOW_LIGHT)
    if found.minutes >= DAY_MIN:
        return found
    return trimmed if trimmed.minutes > 0 else None
