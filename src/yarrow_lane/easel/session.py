"""What to paint now, and since when the layers beneath are dry."""

from dataclasses import dataclass, replace
from datetime import datetime, timedelta

from yarrow_lane.layers.passes import Pass
from yarrow_lane.measure.trouble import Trouble


class EaselTrouble(Trouble):
    """A pass that cannot be started or finished."""


@dataclass(frozen=True)
class FinishedPass:
    """A pass done, when, and how long its film was expected to stay wet."""

    pass_id: str
    at: datetime
    dry_minutes: float


@dataclass(frozen=True)
class Easel:
    """Passes in the order they were finished, and the one chosen to be next, if any."""

    finished: tuple[FinishedPass, ...] = ()
    chosen: str = ""

    def done(self, pass_id: str) -> FinishedPass | None:
        return next((f for f in self.finished if f.pass_id == pass_id), None)


@dataclass(frozen=True)
class Readiness:
    """Whether a pass may be painted.

    `waits_for` names needed passes not painted yet; `dry_since` is when the last layer
    beneath became dry (None when nothing lies beneath); `dry_at` when it will be.
    """

    ready: bool
    waits_for: tuple[str, ...] = ()
    dry_since: datetime | None = None
    dry_at: datetime | None = None


def readiness(easel: Easel, wanted: Pass, now: datetime) -> Readiness:
    """Look at every layer the pass needs."""
    done = {f.pass_id: f for f in easel.finished}
    missing = tuple(n for n in wanted.needs if n not in done)
    dries = [done[n].at + timedelta(minutes=done[n].dry_minutes) for n in wanted.needs if n in done]
    last = max(dries, default=None)
    if missing:
        return Readiness(False, missing)
    if last is not None and last > now:
        return Readiness(False, (), None, last)
    return Readiness(True, (), last)


def pass_now(easel: Easel, passes: tuple[Pass, ...], now: datetime) -> Pass | None:
    """The pass to paint: the chosen one, else the first that is ready, else the first left; None when all are done."""
    left = [p for p in passes if easel.done(p.id) is None]
    for candidate in left:
        if candidate.id == easel.chosen:
            return candidate
    return next((p for p in left if readiness(easel, p, now).ready), left[0] if left else None)


def wet_until(easel: Easel, now: datetime) -> datetime | None:
    """When the last wet film is dry; None when everything is."""
    dries = [f.at + timedelta(minutes=f.dry_minutes) for f in easel.finished]
    last = max(dries, default=None)
    return last if last is not None and last > now else None


def finish_pass(easel: Easel, done: Pass, at: datetime) -> Easel:
    """Put a pass down as painted; raises `EaselTrouble` when it already is."""
    if easel.done(done.id) is not None:
        raise EaselTrouble(f"“{done.title}” was not finished again", "it is painted already")
    return replace(easel, finished=(*easel.finished, FinishedPass(done.id, at, done.dry_minutes)), chosen="")


def choose_pass(easel: Easel, pass_id: str) -> Easel:
    """Paint this one next, whatever the order says."""
    return replace(easel, chosen=pass_id)
