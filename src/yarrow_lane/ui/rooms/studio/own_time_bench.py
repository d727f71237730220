"""The painter's own time on the bench: hours by weekday, days off, other engagements, daylight, and what changes cost."""

from collections.abc import Callable
from dataclasses import dataclass, replace
from datetime import date, datetime
from typing import Any, Protocol

from yarrow_lane.calendar.own_time import (
    OwnTime,
    Place,
    no_extra,
    put_back,
    set_hours,
    set_place,
    spans_from,
    spans_words,
    take_off,
    without_engagements,
)
from yarrow_lane.calendar.sun import sun, zone_of
from yarrow_lane.commission.studio import Studio
from yarrow_lane.measure.days import WEEKDAY_NAMES, day_text
from yarrow_lane.measure.lengths import hours_text
from yarrow_lane.measure.words import counted
from yarrow_lane.ui.bench_sheet import Amount, Day, Fact, Field, Line, Note, Press, Section, Tick

_BY_DAYLIGHT = (("skin", "skin"), ("eye", "eyes"), ("fur", "fur"), ("hair", "hair"), ("background", "backgrounds"))

_SHOWN = 3  # of many, what fits: our choice


class Hands(Protocol):
    """What the page does for own time."""

    def set_studio(self, label: str, step: Callable[[Studio], Studio]) -> None: ...
    def read_engagements(self) -> None: ...
    def want_off(self, off: "Off") -> None: ...


@dataclass(frozen=True)
class Off:
    """Days off being written."""

    first: date | None = None
    last: date | None = None
    words: str = ""


def own_time_sections(studio: Studio, now: datetime, off: Off, hands: Hands) -> tuple[Section, ...]:
    """Hours, days off, engagements, light, and the small times."""
    own = studio.time

    def do(label: str, step: Callable[[OwnTime], OwnTime]) -> None:
        hands.set_studio(label, lambda s: replace(s, time=step(s.time)))

    return (
        Section("Your hours", (*(_hours(own, n, do) for n in range(7)), Fact("In a week", hours_text(own.minutes_a_week)))),
        _off_section(own, now.date(), off, do, hands),
        _engagements_section(own, now, do, hands),
        _light_section(own, now, do),
        _small_times(own, do),
    )


_Do = Callable[[str, Callable[[OwnTime], OwnTime]], None]


def _hours(own: OwnTime, weekday: int, do: _Do) -> Line:
    name = WEEKDAY_NAMES[weekday]

    def write(words: str) -> None:
        spans = spans_from(words)
        do(f"Chose the hours of {name}", lambda o: set_hours(o, weekday, spans))

    return Field(name, spans_words(own.hours[weekday]), write, "none")


def _off_section(own: OwnTime, today: date, off: Off, do: _Do, hands: Hands) -> Section:
    lines: list[Line] = []
    for o in own.off:
        if o.last < today:
            continue
        span = day_text(o.first) if o.first == o.last else f"{day_text(o.first)} to {day_text(o.last)}"
        lines.append(Fact(o.words or "Off", span))
        lines.append(Press(f"Paint on {span} after all", lambda o=o: do("Put days back", lambda t: put_back(t, o))))  # type: ignore[misc]
    lines.append(
        Day(
            "From", off.first, today, lambda d: hands.want_off(replace(off, first=d, last=max(d, off.last or d) if d else None))
        )
    )
    lines.append(Day("Until", off.last, today, lambda d: hands.want_off(replace(off, last=d))))

    def take() -> None:
        first, last = off.first, off.last or off.first
        if first is not None and last is not None:
            hands.want_off(Off())
            do("Took days off", lambda t: take_off(t, first, last, off.words))

    lines.append(Press("Take these days off", take, off.first is not None))
    extra = [(d, span) for d, span in own.extra if d >= today]
    lines += [Fact(f"Also {day_text(d)}", spans_words((span,))) for d, span in extra[:_SHOWN]]
    if len(extra) > _SHOWN:
        lines.append(Note(f"and {len(extra) - _SHOWN} more with extra hours."))
    if extra:
        lines.append(Press("No extra hours after all", lambda: do("Forgot the extra hours", no_extra)))
    ahead = sum(o.last >= today for o in own.off)
    words = f"{ahead} ahead" if ahead else "none ahead"
    return Section("Days off", tuple(lines), words + (f", {counted(len(extra), 'day')} with more hours" if extra else ""))


def _engagements_section(own: OwnTime, now: datetime, do: _Do, hands: Hands) -> Section:
    wall = now.replace(tzinfo=None)
    ahead = [e for e in own.engagements if e.end >= wall]
    lines: list[Line] = [
        Fact(e.words or "taken", f"{day_text(e.start.date())}, {e.start:%H:%M} to {e.end:%H:%M}") for e in ahead[:_SHOWN]
    ]
    if len(ahead) > _SHOWN:
        lines.append(Note(f"and {len(ahead) - _SHOWN} more ahead."))
    lines.append(Press("Read a calendar file…", hands.read_engagements))
    for source in dict.fromkeys(e.source for e in own.engagements):
        lines.append(Press(f"Forget “{source}”", lambda s=source: do("Forgot a calendar", lambda t: without_engagements(t, s))))  # type: ignore[misc]
    lines.append(Note("Holidays and other engagements block the time they take. Read the file again when it has changed."))
    return Section("Other engagements", tuple(lines), f"{len(ahead)} ahead" if ahead else "none read")


def _light_section(own: OwnTime, now: datetime, do: _Do) -> Section:
    place = own.place
    today = sun(place, now.date(), zone_of(now))
    shines = spans_words((today,)) if today is not None else "the sun does not rise"

    def by_daylight(family: str, words: str) -> Line:
        def needs(value: bool) -> None:
            rest = tuple(f for f in own.daylight if f != family)
            do("Chose what needs daylight", lambda t: replace(t, daylight=(*rest, family) if value else rest))

        return Tick(f"Paint {words} by daylight", family in own.daylight, needs)

    lines = (
        Amount("Degrees north", place.latitude, -90, 90, lambda v: do("Wrote the place", lambda t: set_place(t, Place(v, place.longitude))), 0.5, 2, "°"),
        Amount("Degrees east", place.longitude, -180, 180, lambda v: do("Wrote the place", lambda t: set_place(t, Place(place.latitude, v))), 0.5, 2, "°"),
        Fact("Sun today", shines),
        *(by_daylight(f, w) for f, w in _BY_DAYLIGHT),
    )  # fmt: skip
    return Section("Daylight", lines, f"sun {shines}")


def _small_times(own: OwnTime, do: _Do) -> Section:
    def amount(label: str, name: str, low: float, high: float, step: float, unit: str) -> Line:
        said = f"Changed “{label.lower()}”"

        def changed(own: OwnTime, value: float) -> OwnTime:
            field: dict[str, Any] = {name: round(value)}
            return replace(own, **field)

        return Amount(
            label, float(getattr(own, name)), low, high,
            lambda v: do(said, lambda t: changed(t, v)), step, 0, unit,
        )  # fmt: skip

    lines = (
        amount("Shortest sitting", "shortest", 10, 240, 5, "min"),
        amount("Longest sitting", "longest", 60, 720, 30, "min"),
        amount("Another canvas costs", "canvas", 0, 90, 5, "min"),
        amount("Other wells cost", "palette", 0, 60, 5, "min"),
        amount("Rests unseen", "rest", 24, 72, 12, "h"),
        amount("Courier", "courier", 0, 20, 1, "days"),
        amount("A client answers in", "answer", 0, 30, 1, "days"),
    )
    return Section("Small times", lines, f"sittings {own.shortest} min to {hours_text(own.longest)}")
