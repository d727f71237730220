"""The painter's own time: hours by weekday, days off, other engagements, the place's daylight, and what changes at the easel cost."""

import re
from collections.abc import Iterable
from dataclasses import dataclass, replace
from datetime import date, datetime, timedelta
from itertools import pairwise

from yarrow_lane.measure.days import WEEKDAY_NAMES
from yarrow_lane.measure.trouble import Trouble

DAY_MIN = 1440


class TimeTrouble(Trouble):
    """Hours or a place that cannot be."""


@dataclass(frozen=True)
class Span:
    """From and to, minutes after midnight, 0 to 1440."""

    begin: int
    end: int

    @property
    def minutes(self) -> int:
        """Its length."""
        return self.end - self.begin


@dataclass(frozen=True)
class DaysOff:
    """Days without painting, both ends included."""

    first: date
    last: date
    words: str = ""


@dataclass(frozen=True)
class Engagement:
    """Time that is taken by something else, local wall clock; `source` names the file it was read from, "" when written by hand."""

    start: datetime
    end: datetime
    words: str = ""
    source: str = ""


@dataclass(frozen=True)
class Place:
    """Where the easel stands: degrees north and east."""

    latitude: float = 51.5
    longitude: float = 0.0


Hours = tuple[tuple[Span, ...], ...]
_USUAL: Hours = (*(((Span(600, 840)),),) * 5, (), ())


@dataclass(frozen=True)
class OwnTime:
    """Hours of the seven days from Monday on, each in ranges that do not overlap; all minutes.

    The hours, the place and the shortest sitting are first values of our choice until the painter sets them, the longest is the
    handbook's (common practice); `canvas` and `palette` are what another canvas on the easel and other wells cost (our choice). A finished
    piece rests unseen for `rest` hours (common practice: 24 to 48), needs `courier` days to the client, and a client `answer` days to a
    letter (our choice). Kinds of area in `daylight` are painted by daylight only (our choice). `extra` are hours on single days besides
    those of their weekday.
    """

    hours: Hours = _USUAL
    off: tuple[DaysOff, ...] = ()
    engagements: tuple[Engagement, ...] = ()
    place: Place = Place()
    shortest: int = 45
    longest: int = 420
    canvas: int = 20
    palette: int = 10
    courier: int = 2
    answer: int = 3
    rest: int = 48
    daylight: tuple[str, ...] = ("skin", "eye")
    extra: tuple[tuple[date, Span], ...] = ()

    @property
    def weekdays(self) -> tuple[int, ...]:
        """Days with any hours, 0 = Monday."""
        return tuple(n for n, spans in enumerate(self.hours) if spans)

    @property
    def minutes_a_week(self) -> int:
        """Hours of a week without days off."""
        return sum(s.minutes for spans in self.hours for s in spans)

    @property
    def minutes_a_day(self) -> float:
        """Of a usual painting day; 0 without any."""
        return self.minutes_a_week / len(self.weekdays) if self.weekdays else 0.0


def evenly(weekdays: tuple[int, ...], minutes_a_day: float, starts_at_hour: int) -> Hours:
    """The same hours on each of these days, as they were kept before ranges were known."""
    begin = max(0, min(starts_at_hour * 60, DAY_MIN - 30))
    span = Span(begin, min(DAY_MIN, begin + max(0, round(minutes_a_day))))
    return tuple((span,) if n in weekdays and span.minutes > 0 else () for n in range(7))


def set_hours(own: OwnTime, weekday: int, spans: tuple[Span, ...]) -> OwnTime:
    """Other hours on a weekday, sorted. Raises `TimeTrouble` for ranges that overlap or end before they begin."""
    ordered = tuple(sorted(spans, key=lambda s: s.begin))
    for span in ordered:
        if not 0 <= span.begin < span.end <= DAY_MIN:
            raise TimeTrouble(f"The hours of {WEEKDAY_NAMES[weekday]} were not taken", "a range ends before it begins")
    if any(b.begin < a.end for a, b in pairwise(ordered)):
        raise TimeTrouble(f"The hours of {WEEKDAY_NAMES[weekday]} were not taken", "two ranges overlap")
    return replace(own, hours=(*own.hours[:weekday], ordered, *own.hours[weekday + 1 :]))


def take_off(own: OwnTime, first: date, last: date, words: str = "") -> OwnTime:
    """Days without painting; raises `TimeTrouble` when the last comes before the first."""
    if last < first:
        raise TimeTrouble("The days off were not taken", "the last day comes before the first")
    return replace(own, off=tuple(sorted({*own.off, DaysOff(first, last, words)}, key=lambda o: (o.first, o.last))))


def add_days(own: OwnTime, days: Iterable[date]) -> OwnTime:
    """On single days that have no hours those of a usual day."""
    usual = next((spans for spans in own.hours if spans), ())
    return _with_extra(own, ((d, s) for d in days if d.weekday() not in own.weekdays for s in usual))


def lengthen(own: OwnTime, days: Iterable[date]) -> OwnTime:
    """An hour more at the end of single days, as far as they have hours and midnight allows."""
    ends = ((d, _hours_on(own, d)[-1].end) for d in days if spans_on(own, d))
    return _with_extra(own, ((d, Span(end, min(DAY_MIN, end + 60))) for d, end in ends if end < DAY_MIN))


def no_extra(own: OwnTime) -> OwnTime:
    """No hours on single days any more."""
    return replace(own, extra=())


def _with_extra(own: OwnTime, more: Iterable[tuple[date, Span]]) -> OwnTime:
    return replace(own, extra=tuple(sorted({*own.extra, *more}, key=lambda e: (e[0], e[1].begin))))


def put_back(own: OwnTime, off: DaysOff) -> OwnTime:
    """These days are for painting again."""
    return replace(own, off=tuple(o for o in own.off if o != off))


def set_place(own: OwnTime, place: Place) -> OwnTime:
    """Another place; raises `TimeTrouble` off the globe."""
    if not -90 <= place.latitude <= 90 or not -180 <= place.longitude <= 180:
        raise TimeTrouble("The place was not taken", "degrees north run from -90 to 90, degrees east from -180 to 180")
    return replace(own, place=place)


def with_engagements(own: OwnTime, source: str, found: tuple[Engagement, ...]) -> OwnTime:
    """Engagements read from a file take the place of those read from it before."""
    rest = tuple(e for e in own.engagements if e.source != source)
    return replace(own, engagements=tuple(sorted((*rest, *found), key=lambda e: (e.start, e.end))))


def without_engagements(own: OwnTime, source: str) -> OwnTime:
    """What was read from that file no longer counts."""
    return replace(own, engagements=tuple(e for e in own.engagements if e.source != source))


def spans_on(own: OwnTime, day: date) -> tuple[Span, ...]:
    """The hours that are free on a day: weekday's and extra ones, no days off, engagements cut out, none longer than the longest sitting."""
    if any(o.first <= day <= o.last for o in own.off):
        return ()
    midnight = datetime(day.year, day.month, day.day)
    free = _hours_on(own, day)
    for e in own.engagements:
        if e.end <= midnight or e.start >= midnight + timedelta(days=1):
            continue
        begin = max(0, int((e.start - midnight).total_seconds() // 60))
        end = min(DAY_MIN, -int(-(e.end - midnight).total_seconds() // 60))
        free = [s for f in free for s in (Span(f.begin, min(f.end, begin)), Span(max(f.begin, end), f.end)) if s.minutes > 0]
    return tuple(part for f in free for part in _in_sittings(f, own.longest))


def minutes_on(own: OwnTime, day: date) -> int:
    """Free minutes of a day."""
    return sum(s.minutes for s in spans_on(own, day))


def _hours_on(own: OwnTime, day: date) -> list[Span]:
    """Weekday's and extra hours in order, those that touch or overlap as one."""
    found: list[Span] = []
    every = (*own.hours[day.weekday()], *(s for d, s in own.extra if d == day))
    for span in sorted(every, key=lambda s: s.begin):
        if found and span.begin <= found[-1].end:
            found[-1] = Span(found[-1].begin, max(found[-1].end, span.end))
        else:
            found.append(span)
    return found


_PAUSE = 30  # between two sittings of the longest kind: our choice


def _in_sittings(span: Span, longest: int) -> list[Span]:
    parts, begin = [], span.begin
    while span.end - begin > longest:
        parts.append(Span(begin, begin + longest))
        begin += longest + _PAUSE
    return [*parts, Span(begin, span.end)] if span.end > begin else parts


def spans_words(spans: tuple[Span, ...]) -> str:
    """ "10:00–14:00, 15:30–17:00"; "" for none."""
    return ", ".join(f"{_clock(s.begin)}–{_clock(s.end)}" for s in spans)


def spans_from(words: str) -> tuple[Span, ...]:
    """Ranges as a painter writes them: "10-14", "9:30 to 12, 13–17.30", "none". Raises `TimeTrouble` for what is no range."""
    if words.strip().lower() in ("", "none", "-", "–", "off"):
        return ()
    found = []
    for part in re.split(r"[,;]| and ", words):
        match = _RANGE.fullmatch(part.strip().lower())
        if match is None:
            raise TimeTrouble(
                "The hours were not taken", f"“{part.strip()}” is no range of hours", "write them as 10-14, 15:30-17"
            )
        a, b, c, d = (int(x or 0) for x in match.groups())
        found.append(Span(60 * a + b, 60 * c + d))
    return tuple(found)


_RANGE = re.compile(r"(\d{1,2})(?:[:.](\d{2}))?\s*(?:-|–|to)\s*(\d{1,2})(?:[:.](\d{2}))?")


def _clock(minute: int) -> str:
    return f"{minute // 60}:{minute % 60:02d}"
