"""The state and the one-line fact of each door: worked out from what is on record, never stored."""

from dataclasses import dataclass
from datetime import datetime
from functools import lru_cache
from typing import Literal

from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.studio import Studio
from yarrow_lane.deliver.handover import step_now
from yarrow_lane.easel.clock import minutes_logged
from yarrow_lane.intake.brief import Brief
from yarrow_lane.intake.consent import consent_wants
from yarrow_lane.intake.photos import Photo
from yarrow_lane.layers.drying import Climate, Film
from yarrow_lane.layers.passes import Pass, sequence
from yarrow_lane.layers.regions import Layers
from yarrow_lane.measure.days import day_text
from yarrow_lane.measure.lengths import Unit, hours_text, length_text, size_text

DOORS: tuple[str, ...] = ("Intake", "Compose", "Transfer", "Tone", "Palette", "Layers", "Easel", "Check", "Deliver")
State = Literal["shut", "passed", "ahead"]


@dataclass(frozen=True)
class Door:
    """`shut`: done by the facts; `passed`: the painter went on against them; `ahead`: still open.

    `fact` is the decision in one line, `wants` what is still missing (empty when shut).
    """

    name: str
    state: State
    fact: str
    wants: str = ""


@lru_cache(maxsize=64)
def _sequence(layers: Layers, medium: str, climate: Climate) -> tuple[Pass, ...]:
    return sequence(layers, medium, climate)  # type: ignore[arg-type]


def passes_of(commission: Commission, studio: Studio) -> tuple[Pass, ...]:
    """The sequence of passes in the studio's climate; kept for the last few states, as many views ask."""
    return _sequence(commission.layers, commission.brief.medium, studio.climate)


def minutes_to_paint(commission: Commission, studio: Studio) -> float:
    """Minutes of the passes not yet finished."""
    return sum(p.minutes for p in passes_of(commission, studio) if commission.easel.done(p.id) is None)


def thickest_film(commission: Commission, studio: Studio) -> Film:
    """The thickest film over a large area: glints are too small to hold the varnish back."""
    films: set[str] = {p.film for p in passes_of(commission, studio) if "glint" not in p.name}
    return "thick" if "thick" in films else "normal" if "normal" in films else "wash"


def last_painted(commission: Commission) -> datetime | None:
    """When the last pass was finished."""
    return max((f.at for f in commission.easel.finished), default=None)


def photo_wants(photo: Photo, brief: Brief) -> str:
    """What a lead or helper still lacks, in words; empty when nothing."""
    if photo.use == "lead" and not photo.eyes:
        return f"mark the eyes on {photo.name}"
    if not photo.rights.known:
        return f"ask who may use {photo.name}"
    return consent_wants(photo, brief)


def kept_wants(c: Commission) -> tuple[Photo, str] | None:
    """The first kept photograph that still lacks something, and what."""
    return next(((p, wants) for p in c.intake.kept if (wants := photo_wants(p, c.brief))), None)


def _intake(c: Commission) -> tuple[str, str]:
    photos = c.intake.photos
    fact = f"{len(photos)} photo{'s' * (len(photos) != 1)}, {len(c.intake.kept)} kept" if photos else ""
    if not photos:
        return fact, "no photographs yet"
    if not c.intake.leads:
        return fact, "no photograph is lead"
    wanting = kept_wants(c)
    return fact, wanting[1] if wanting else ""


def _compose(c: Commission, unit: Unit) -> tuple[str, str]:
    if not c.compose.sized:
        return "", "no size chosen"
    w, h = c.compose.width_mm, c.compose.height_mm
    lie = "square" if w == h else "upright" if h > w else "lying"
    return f"{size_text(w, h, unit)}, {lie}", "" if c.compose.framed and c.photo else "no crop laid"


def _transfer(c: Commission, unit: Unit) -> tuple[str, str]:
    squares = c.squares
    if squares is None:
        return "", "no squares chosen"
    total, drawn = len(squares.all), len(c.transfer.drawn)
    if 0 < drawn < total:
        return f"{drawn} of {total} squares drawn", f"{total - drawn} squares to draw"
    fact = f"{squares.columns} × {squares.rows} squares, {length_text(squares.side_mm, unit)}"
    return fact, "" if drawn == total else f"{total} squares to draw"


def _palette(c: Commission) -> tuple[str, str]:
    wells = c.palette.wells
    mixed = sum(bool(w.mix.strip()) for w in wells)
    if not wells:
        return "", "no colour taken"
    fact = f"{len(wells)} well{'s' * (len(wells) != 1)}, {mixed} mixed"
    return fact, "" if mixed == len(wells) else f"{len(wells) - mixed} to mix"


def _layers(c: Commission, passes: tuple[Pass, ...]) -> tuple[str, str]:
    if not passes:
        return "", "no regions drawn"
    return f"{len(passes)} passes, {hours_text(sum(p.minutes for p in passes))}", ""


def _easel(c: Commission, passes: tuple[Pass, ...]) -> tuple[str, str]:
    if not passes:
        return "", "no passes yet"
    left = sum(c.easel.done(p.id) is None for p in passes)
    fact = f"{hours_text(minutes_logged(c.log))} of {hours_text(sum(p.minutes for p in passes))}"
    return fact, f"{left} pass{'es' * (left != 1)} to paint" if left else ""


def _check(c: Commission, passes: tuple[Pass, ...]) -> tuple[str, str]:
    if c.check.at is None:
        return "", "no photograph of the painting"
    fact = f"compared {day_text(c.check.at.date())}"
    last = last_painted(c)
    finished = all(c.easel.done(p.id) for p in passes)
    if last is None or not finished or c.check.at < last:
        return fact, "compare again when the painting is done"
    return fact, ""


def _deliver(c: Commission) -> tuple[str, str]:
    if c.deliver.delivered is not None:
        return f"delivered {day_text(c.deliver.delivered.date())}", ""
    promise = f"promised {day_text(c.brief.promised)}" if c.brief.promised else ""
    return promise, f"next: {step_now(c.deliver, c.brief.medium)}"


def doors_of(commission: Commission, studio: Studio) -> tuple[Door, ...]:
    """All nine doors with their states."""
    c, unit = commission, studio.unit
    passes = passes_of(c, studio)
    found = (
        _intake(c),
        _compose(c, unit),
        _transfer(c, unit),
        (c.tone.ground, "" if c.tone.ground else "no ground noted"),
        _palette(c),
        _layers(c, passes),
        _easel(c, passes),
        _check(c, passes),
        _deliver(c),
    )
    doors: list[Door] = []
    for name, (fact, wants) in zip(DOORS, found, strict=True):
        reason = c.doors.reason(name)
        state: State = "shut" if not wants else "passed" if reason else "ahead"
        doors.append(Door(name, state, fact, wants))
    return tuple(doors)


def door_now(doors: tuple[Door, ...]) -> Door:
    """Where the commission stands: the first door still ahead, else the last."""
    return next((d for d in doors if d.state == "ahead"), doors[-1])
