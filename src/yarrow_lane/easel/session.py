"""What to paint now, and since when the layers beneath are dry."""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from datetime import datetime

from yarrow_lane.lane.part import Part, Plain, as_it_was
from yarrow_lane.layers.passes import Pass, pass_id, same_place
from yarrow_lane.measure.moments import after, ahead
from yarrow_lane.measure.trouble import Trouble


class EaselTrouble(Trouble):
    """A pass that cannot be started or finished."""


@dataclass(frozen=True)
class FinishedPass:
    """A pass done, when, and how long its film was expected to stay wet; one `touched` was felt to be dry and overrules that.

    `deficit` is the vapour pressure deficit it was laid in, hPa; 0 where the air does not matter or is not known.
    """

    pass_id: str
    at: datetime
    dry_minutes: float
    touched: bool = False
    deficit: float = 0.0


@dataclass(frozen=True)
class PassPlace:
    """How far a pass has got: patches by number from 0 in the order they were left, each wholly done or to 80 %."""

    pass_id: str
    steps: tuple[tuple[int, bool], ...] = ()


@dataclass(frozen=True)
class Easel:
    """Passes in the order they were finished, and the one chosen to be next, if any; `places` are passes begun patch by patch.

    `made_from` is the reference they were painted from.
    """

    finished: tuple[FinishedPass, ...] = ()
    chosen: str = ""
    made_from: str = ""
    places: tuple[PassPlace, ...] = ()

    def done(self, pass_id: str) -> FinishedPass | None:
        return next((f for f in self.finished if f.pass_id == pass_id), None)


def _named_whole(plain: Plain, others: Mapping[str, Plain]) -> Plain:
    """Before version 1 a pass was named by region and role alone; kind and order of values are those of that time."""
    layers, brief = others.get("layers", {}), others.get("brief", {})
    kinds = {r["id"]: r["kind"] for r in layers.get("regions", ())}
    dark = layers.get("school", {}).get("values", "dark to light") == "dark to light"
    values = "dark" if dark and brief.get("medium", "acrylic") != "watercolour" else "light"

    def whole(short: str) -> str:
        region, _, role = short.partition(":")
        return pass_id(int(region), kinds.get(int(region), "other"), values, role) if role else short

    finished = [{**f, "pass_id": whole(f["pass_id"])} for f in plain.get("finished", ())]
    return {**plain, "finished": finished, "chosen": whole(plain.get("chosen", ""))}


# Version 2 knows films felt to be dry, version 3 the air a film was laid in and patches.
EASEL = Part("easel", Easel, "Easel", (_named_whole, as_it_was, as_it_was))


def dry_at(finished: FinishedPass, now: datetime) -> datetime:
    """When the film of a finished pass is dry; one whose moment has not come yet is as wet as if it were painted now."""
    return after(finished.at, finished.dry_minutes, now)


def finished_ahead(easel: Easel, now: datetime) -> tuple[FinishedPass, ...]:
    """Those on record as finished at a moment that has not come yet: the machine's clock was wrong."""
    return tuple(f for f in easel.finished if ahead(f.at, now))


def brought_to(easel: Easel, now: datetime) -> Easel:
    """What lies ahead was finished now."""
    return replace(easel, finished=tuple(replace(f, at=now) if ahead(f.at, now) else f for f in easel.finished))


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
    missing = tuple(n.id for n in wanted.needs if n.id not in done)
    dries = [dry_at(done[n.id], now) for n in wanted.needs if n.dry and n.id in done]
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


def pass_meanwhile(easel: Easel, passes: tuple[Pass, ...], now: datetime) -> Pass | None:
    """The first pass that may be painted while the one chosen waits; None when it does not wait, or all others wait too."""
    paint = pass_now(easel, passes, now)
    if paint is None or readiness(easel, paint, now).ready:
        return None
    left = (p for p in passes if easel.done(p.id) is None)
    return next((p for p in left if readiness(easel, p, now).ready), None)


def pass_to_begin(easel: Easel, passes: tuple[Pass, ...], now: datetime) -> Pass | None:
    """The pass to take the brush for: the one to paint now, or while that waits the first that does not; None when all are done."""
    return pass_meanwhile(easel, passes, now) or pass_now(easel, passes, now)


def wet_until(easel: Easel, now: datetime) -> datetime | None:
    """When the last wet film is dry; None when everything is."""
    dries = [dry_at(f, now) for f in easel.finished]
    last = max(dries, default=None)
    return last if last is not None and last > now else None


def finish_pass(easel: Easel, done: Pass, at: datetime, deficit: float = 0.0) -> Easel:
    """Put a pass down as painted, its film laid at a vapour pressure deficit in hPa; raises `EaselTrouble` when it already is."""
    if easel.done(done.id) is not None:
        raise EaselTrouble(f"“{done.title}” was not finished again", "it is painted already")
    by_air = deficit if done.paint in ("acrylic", "water") else 0.0
    places = tuple(p for p in easel.places if p.pass_id != done.id)
    finished = FinishedPass(done.id, at, done.dry_minutes, deficit=by_air)
    return replace(easel, finished=(*easel.finished, finished), chosen="", places=places)


def felt_dry(easel: Easel, pass_id: str, now: datetime) -> Easel:
    """The film of a finished pass is dry by touch, whatever was reckoned; raises `EaselTrouble` for one not painted."""
    done = easel.done(pass_id)
    if done is None:
        raise EaselTrouble("It was not noted as dry", "that pass is not painted")
    minutes = max(0.0, (now - done.at).total_seconds() / 60)
    dry = replace(done, dry_minutes=min(done.dry_minutes, minutes), touched=True)
    return replace(easel, finished=tuple(dry if f is done else f for f in easel.finished))


def reopened_last(easel: Easel) -> Easel:
    """The pass finished last is to be painted again; raises `EaselTrouble` when none is."""
    if not easel.finished:
        raise EaselTrouble("Nothing was taken up again", "no pass is painted yet")
    return replace(easel, finished=easel.finished[:-1], chosen=easel.finished[-1].pass_id)


def choose_pass(easel: Easel, pass_id: str) -> Easel:
    """Paint this one next, whatever the order says."""
    return replace(easel, chosen=pass_id)


def carried_over(easel: Easel, passes: tuple[Pass, ...]) -> tuple[Easel, tuple[FinishedPass, ...]]:
    """The finished passes under another sequence: same region and role keep their moment under the new name.

    Returns the easel and the finished passes that the new sequence has no place for; the hours logged on them stay logged.
    """
    kept: list[FinishedPass] = []
    lost: list[FinishedPass] = []
    for finished in easel.finished:
        name = next((p.id for p in passes if p.id == finished.pass_id), "")
        name = name or next((p.id for p in passes if same_place(p.id, finished.pass_id)), "")
        if name and all(k.pass_id != name for k in kept):
            kept.append(replace(finished, pass_id=name))
        else:
            lost.append(finished)
    chosen = easel.chosen if any(p.id == easel.chosen for p in passes) else ""
    return replace(easel, finished=tuple(kept), chosen=chosen), tuple(lost)
