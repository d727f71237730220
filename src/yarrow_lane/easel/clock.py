"""The hours at the easel, read from what happened: started, stopped, corrected."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime

from yarrow_lane.lane.happening import ClockStarted, ClockStopped, Happening, HoursCorrected


@dataclass(frozen=True)
class TimeEntry:
    """One stretch of painting, or a correction (then `end` equals `start`)."""

    about: str
    title: str
    start: datetime
    end: datetime
    minutes: float
    why: str = ""


def running(log: Sequence[Happening]) -> ClockStarted | None:
    """The start of the stretch that is still running, if any."""
    open_: ClockStarted | None = None
    for entry in log:
        if isinstance(entry, ClockStarted):
            open_ = entry
        elif isinstance(entry, ClockStopped):
            open_ = None
    return open_


def time_entries(log: Sequence[Happening]) -> tuple[TimeEntry, ...]:
    """Every finished stretch and correction, in order."""
    entries: list[TimeEntry] = []
    started: ClockStarted | None = None
    for entry in log:
        if isinstance(entry, ClockStarted):
            started = entry
        elif isinstance(entry, ClockStopped) and started is not None:
            minutes = (entry.at - started.at).total_seconds() / 60
            entries.append(TimeEntry(started.about, started.title, started.at, entry.at, minutes))
            started = None
        elif isinstance(entry, HoursCorrected):
            entries.append(TimeEntry(entry.about, entry.title, entry.at, entry.at, entry.minutes, entry.why))
    return tuple(entries)


def minutes_logged(log: Sequence[Happening], about: str | None = None) -> float:
    """Minutes painted so far, for one pass or in all; the running stretch is left out."""
    return sum(e.minutes for e in time_entries(log) if about is None or e.about == about)
