"""What the easel says quietly, once each: step back, take a break, a film sets or is dry, wells close."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

from yarrow_lane.calendar.whatnow import BREAK_MIN
from yarrow_lane.easel.wet import Wet
from yarrow_lane.intake.brief import Medium
from yarrow_lane.lane.happening import ClockStarted, ClockStopped, Happening
from yarrow_lane.paint.drying import Climate
from yarrow_lane.palette.open_time import open_minutes

STEP_BACK_MIN = 10.0  # common practice: step back every ten minutes
_PAUSE_MIN = 5.0  # a clock that stood for so long was a break: our choice
_SKINNING: tuple[Medium, ...] = ("acrylic", "oil over acrylic")  # heaps that grow a skin within a sitting
_LATE_MIN = 4.0  # what was due longer ago is not said any more: our choice
WORKABLE = 1 / 3  # of its drying time a film may be moved (handbook: a third, our choice there)


@dataclass(frozen=True)
class Reminder:
    """Something that is due: when, what in a few words, and its name, by which it is said once."""

    at: datetime
    words: str
    name: str


def painting_since(log: Sequence[Happening], now: datetime) -> datetime | None:
    """Since when it was painted without a pause; None while no clock runs."""
    begin: datetime | None = None
    stopped: datetime | None = None
    for entry in log:
        if isinstance(entry, ClockStarted):
            # A clock that was set back begins anew as well.
            short = stopped is not None and timedelta(0) <= entry.at - stopped < timedelta(minutes=_PAUSE_MIN)
            if begin is None or not short:
                begin = entry.at
            stopped = None
        elif isinstance(entry, ClockStopped):
            stopped = entry.at
    return begin if begin is not None and stopped is None and begin <= now else None


def wells_until(log: Sequence[Happening], medium: Medium, climate: Climate, now: datetime) -> datetime | None:
    """Until when heaps of acrylic laid out when the painting began stay soft, as a guess; None for paint that does, and while no clock runs."""
    since = painting_since(log, now)
    if since is None or medium not in _SKINNING:
        return None
    return since + timedelta(minutes=open_minutes(climate, climate.retarder > 0))


def minutes_to_step_back(since: datetime, now: datetime) -> float:
    """Until the next ten minutes are over."""
    painted = (now - since).total_seconds() / 60
    return STEP_BACK_MIN - painted % STEP_BACK_MIN


def workable_minutes(dry_minutes: float) -> float:
    """How long a film laid now can be moved without dragging."""
    return dry_minutes * WORKABLE


def reminders(
    log: Sequence[Happening], wet: Sequence[Wet], wells: datetime | None, now: datetime
) -> tuple[Reminder, ...]:  # fmt: skip
    """Everything due in the last minutes, the newest last; `wells` is until when they stay soft."""
    found: list[Reminder] = []
    since = painting_since(log, now)
    if since is not None:
        painted = (now - since).total_seconds() / 60
        breaks, steps = int(painted // BREAK_MIN), int(painted // STEP_BACK_MIN)
        if breaks and painted % BREAK_MIN < _LATE_MIN:
            at = since + timedelta(minutes=breaks * BREAK_MIN)
            found.append(Reminder(at, f"{painted:.0f} minutes at it: a break of ten", f"break {since.isoformat()} {breaks}"))
        elif steps:
            at = since + timedelta(minutes=steps * STEP_BACK_MIN)
            found.append(Reminder(at, "Step back and look from two metres", f"step {since.isoformat()} {steps}"))
    for w in wet:
        if w.likely <= now:
            found.append(Reminder(w.likely, f"{w.title} is likely dry: touch it", f"dry {w.pass_id} {w.likely:%d%H%M}"))
    if wells is not None and wells <= now:
        found.append(Reminder(wells, "The wells have been open as long as they stay soft", f"wells {wells.isoformat()}"))
    recent = [r for r in found if now - r.at < timedelta(minutes=_LATE_MIN)]
    return tuple(sorted(recent, key=lambda r: r.at))
