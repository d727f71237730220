"""The clock at the easel: what happened there is appended and corrected, never undone."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Literal

Kind = Literal["clock started", "clock stopped", "hours corrected"]


@dataclass(frozen=True)
class Happening:
    """Something that happened outside the program.

    `about` is the pass id, `title` its words at the time, `minutes` the correction of
    an "hours corrected" entry (may be negative) and 0 otherwise.
    """

    kind: Kind
    at: datetime
    about: str
    title: str
    minutes: float = 0.0
    why: str = ""


@dataclass(frozen=True)
class TimeEntry:
    """One stretch of painting, or a correction (then `end` equals `start`)."""

    about: str
    title: str
    start: datetime
    end: datetime
    minutes: float
    why: str = ""


def running(log: Sequence[Happening]) -> Happening | None:
    """The start of the stretch that is still running, if any."""
    open_: Happening | None = None
    for entry in log:
        if entry.kind == "clock started":
            open_ = entry
        elif entry.kind == "clock stopped":
            open_ = None
    return open_


def time_entries(log: Sequence[Happening]) -> tuple[TimeEntry, ...]:
    """Every finished stretch and correction, in order."""
    entries: list[TimeEntry] = []
    started: Happening | None = None
    for entry in log:
        if entry.kind == "clock started":
            started = entry
        elif entry.kind == "clock stopped" and started is not None:
            minutes = (entry.at - started.at).total_seconds() / 60
            entries.append(TimeEntry(started.about, started.title, started.at, entry.at, minutes))
            started = None
        elif entry.kind == "hours corrected":
            entries.append(TimeEntry(entry.about, entry.title, entry.at, entry.at, entry.minutes, entry.why))
    return tuple(entries)


def minutes_logged(log: Sequence[Happening], about: str | None = None) -> float:
    """Minutes painted so far, for one pass or in all; the running stretch is left out."""
    return sum(e.minutes for e in time_entries(log) if about is None or e.about == about)
