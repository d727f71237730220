"""The hours at the easel, read from what happened: started, stopped, corrected."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, datetime

from yarrow_lane.lane.happening import ClockStarted, ClockStopped, Happening, HoursCorrected, StretchSettled, of_kind
from yarrow_lane.measure.lengths import hours_text
from yarrow_lane.measure.words import counted

MOST_STRETCH_MIN = 16 * 60.0  # our choice: nobody paints longer in one go; the clock ran on


@dataclass(frozen=True)
class TimeEntry:
    """One stretch of painting, or a correction (then `end` equals `start`).

    `minutes` is what counts. A stretch that is in `doubt` counts nothing until the painter settles it; `measured` is what the clock
    said.
    """

    about: str
    title: str
    start: datetime
    end: datetime
    minutes: float
    why: str = ""
    doubt: str = ""
    measured: float = 0.0


def running(log: Sequence[Happening]) -> ClockStarted | None:
    """The start of the stretch that is still running, if any."""
    open_: ClockStarted | None = None
    for entry in log:
        if isinstance(entry, ClockStarted):
            open_ = entry
        elif isinstance(entry, ClockStopped):
            open_ = None
    return open_


def doubt_in(minutes: float) -> str:
    """Why a stretch of that length is not believed; empty when it is."""
    if minutes < 0:
        return "it ends before it begins: the machine's clock was set back"
    if minutes > MOST_STRETCH_MIN:
        return f"it is longer than {MOST_STRETCH_MIN / 60:.0f} hours: did the clock run on?"
    return ""


def stopped(log: Sequence[Happening], now: datetime) -> ClockStopped | None:
    """What stops the clock that runs; None when none does."""
    started = running(log)
    return None if started is None else ClockStopped(now, started.about, started.title)


def time_entries(log: Sequence[Happening]) -> tuple[TimeEntry, ...]:
    """Every finished stretch and correction, in order."""
    entries: list[TimeEntry] = []
    settled = {(s.about, s.began): s.minutes for s in of_kind(log, StretchSettled)}
    started: ClockStarted | None = None
    for entry in log:
        if isinstance(entry, ClockStarted):
            started = entry
        elif isinstance(entry, ClockStopped) and started is not None:
            entries.append(_stretch(started, entry.at, settled.get((started.about, started.at))))
            started = None
        elif isinstance(entry, HoursCorrected):
            entries.append(TimeEntry(entry.about, entry.title, entry.at, entry.at, entry.minutes, entry.why))
    return tuple(entries)


def _stretch(started: ClockStarted, end: datetime, settled: float | None) -> TimeEntry:
    measured = (end - started.at).total_seconds() / 60
    doubt = doubt_in(measured) if settled is None else ""
    counts = settled if settled is not None else 0.0 if doubt else measured
    why = "" if settled is None else "settled by hand"
    return TimeEntry(started.about, started.title, started.at, end, counts, why, doubt, measured)


def doubts(log: Sequence[Happening]) -> tuple[TimeEntry, ...]:
    """The stretches the painter has still to settle."""
    return tuple(e for e in time_entries(log) if e.doubt)


def logged_words(log: Sequence[Happening]) -> str:
    """The hours in all; what is in doubt is left out and said so."""
    count = len(doubts(log))
    return hours_text(minutes_logged(log)) + (f", {counted(count, 'stretch')} in doubt left out" if count else "")


def minutes_logged(log: Sequence[Happening], about: str | None = None) -> float:
    """Minutes painted so far, for one pass or in all; the running stretch and those in doubt are left out."""
    return sum(e.minutes for e in time_entries(log) if about is None or e.about == about)


def clock_face(minutes: float) -> str:
    """Hours, minutes and seconds as a clock shows them."""
    whole = int(max(0.0, minutes) * 60)
    return f"{whole // 3600}:{whole // 60 % 60:02d}:{whole % 60:02d}"


def minutes_by_pass(log: Sequence[Happening]) -> dict[str, float]:
    """Minutes painted by pass id; what is in doubt is left out."""
    found: dict[str, float] = {}
    for e in time_entries(log):
        found[e.about] = found.get(e.about, 0.0) + e.minutes
    return found


def minutes_by_day(log: Sequence[Happening]) -> tuple[tuple[date, float], ...]:
    """Days with a stretch at the easel, and its minutes; corrections belong to the day they were written on."""
    found: dict[date, float] = {}
    for e in time_entries(log):
        if not e.doubt:
            day = e.end.date()
            found[day] = found.get(day, 0.0) + e.minutes
    return tuple(sorted(found.items()))
