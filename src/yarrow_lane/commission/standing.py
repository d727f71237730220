"""How a commission stands today: what to do next, what is left, what troubles it."""

from dataclasses import dataclass
from datetime import date, datetime, timedelta

from yarrow_lane.calendar.sittings import Sitting, Work, likely_finish, plan_sittings
from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.doors import (
    door_now,
    doors_of,
    kept_wants,
    last_painted,
    minutes_to_paint,
    passes_of,
    thickest_film,
)
from yarrow_lane.commission.studio import Studio
from yarrow_lane.deliver.handover import (
    ACRYLIC_WAIT_DAYS,
    COATS,
    OIL_WAIT_DAYS,
    PACK_WAIT_HOURS,
    REST_HOURS,
    needs_varnish,
    next_coat_from,
    pack_from,
    rest_ends,
    step_now,
    varnish_from,
)
from yarrow_lane.easel.session import pass_now, readiness, wet_until
from yarrow_lane.intake.photos import IRIS_WORKABLE_PX
from yarrow_lane.layers.passes import region_minutes
from yarrow_lane.measure.days import day_text, working_days_between
from yarrow_lane.transfer.squares import minutes_left

_SMALL_MIN = 15.0  # our choice: a short act such as writing, signing, one varnish coat


@dataclass(frozen=True)
class Act:
    """What to do next, at which door, about how long, and not before when."""

    door: str
    title: str
    detail: str
    minutes: float = _SMALL_MIN
    not_before: datetime | None = None


@dataclass(frozen=True)
class Standing:
    """One commission today, for the studio view. `worry` is empty while the promise holds."""

    commission: Commission
    door: str
    words: str
    act: Act | None
    work: Work
    sittings: tuple[Sitting, ...]
    finish: date
    days_in_hand: int | None
    wet_until: datetime | None
    worry: str


def clock_text(moment: datetime, now: datetime) -> str:
    """ "14:20" today, "Thu 26 Nov, 14:20" on another day."""
    hour = f"{moment:%H:%M}"
    return hour if moment.date() == now.date() else f"{day_text(moment.date())}, {hour}"


def next_act(c: Commission, studio: Studio, now: datetime) -> Act | None:
    """The one next act of a commission; None once it is delivered."""
    doors = doors_of(c, studio)
    if c.deliver.delivered is not None:
        return None
    door = door_now(doors)
    squares = c.squares
    match door.name:
        case "Intake":
            return Act(
                "Intake",
                _intake_words(c, door.wants),
                f"{len(c.intake.photos)} photograph{'s' * (len(c.intake.photos) != 1)} so far",
            )
        case "Compose":
            words = "Choose the size" if not c.compose.sized else "Lay the crop"
            return Act("Compose", words, "the canvas's own proportion, never stretched")
        case "Transfer":
            if squares is None:
                return Act("Transfer", "Choose the squares", "eight to twelve across the short side for a head")
            drawn, total = len(c.transfer.drawn), len(squares.all)
            minutes = minutes_left(squares, drawn)
            words = f"Draw {total - drawn} squares" if drawn else f"Rule the lines, then draw {total} squares"
            return Act("Transfer", words, f"{drawn} of {total} done", minutes)
        case "Tone":
            return Act("Tone", "Lay the ground", "on a middle value lighter and darker can both be judged", 30.0)
        case "Palette":
            if not c.palette.wells:
                return Act("Palette", "Take the colours from the crop", "the middle tone first, then darks and lights")
            return Act("Palette", "Mix the wells", door.wants, 40.0)
        case "Layers":
            return Act("Layers", "Draw the regions", "background, fur, skin, eyes: each its own outline")
        case "Easel":
            return _easel_act(c, studio, now)
        case "Check":
            return Act("Check", "Photograph the painting", "put it beside the crop, flip it, look at the greys")
    return _deliver_act(c, studio, now)


def _intake_words(c: Commission, wants: str) -> str:
    if not c.intake.photos:
        return "Take in the photographs"
    return "Choose the lead photograph" if not c.intake.leads else wants[:1].upper() + wants[1:]


def _easel_act(c: Commission, studio: Studio, now: datetime) -> Act:
    paint = pass_now(c.easel, passes_of(c, studio), now)
    assert paint is not None  # the Easel door is ahead only while passes are left
    state = readiness(c.easel, paint, now)
    if state.dry_at is not None:
        detail = f"beneath it is wet until {clock_text(state.dry_at, now)}"
    else:
        detail = "other passes come first" if state.waits_for else "everything beneath is dry"
    return Act("Easel", f"Paint {paint.title}", detail, paint.minutes, state.dry_at)


def _deliver_act(c: Commission, studio: Studio, now: datetime) -> Act:
    step = step_now(c.deliver, c.brief.medium)
    if step == "sign":
        return Act("Deliver", "Sign it", "when that corner is finished")
    if step == "rest":
        ends = rest_ends(c.deliver)
        if ends is None:
            return Act("Deliver", "Turn it to the wall", "24 to 48 h unseen")
        return Act("Deliver", "Look with fresh eyes", f"rests until {clock_text(ends, now)}", 60.0, ends)
    if step == "last list":
        left = sum(not line.done for line in c.deliver.last_list)
        return Act("Deliver", "Last sitting", f"{left} things to mend", 60.0)
    if step == "varnish":
        earliest = next_coat_from(c.deliver) or varnish_from(c.brief.medium, last_painted(c), thickest_film(c, studio))
        coat = len(c.deliver.coats) + 1
        detail = f"coat {coat} of {COATS}" + (f", from {clock_text(earliest, now)}" if earliest and earliest > now else "")
        return Act("Deliver", "Varnish, a thin coat", detail, _SMALL_MIN, earliest)
    if step == "pack":
        return Act("Deliver", "Pack it", "glassine on the paint, corners, board", 30.0, pack_from(c.deliver, c.brief.medium))
    return Act("Deliver", "Hand it over", "balance paid, care sheet with it")


def work_left(c: Commission, studio: Studio, now: datetime) -> Work:
    """Minutes still to be spent and days still to be waited.

    Before regions are drawn the painting is guessed as fur over the whole canvas,
    the handbook's usual case.
    """
    if c.deliver.delivered is not None:
        return Work(c.id, 0.0, c.brief.promised, 0.0)
    passes = passes_of(c, studio)
    if passes:
        minutes = minutes_to_paint(c, studio)
    else:
        minutes = region_minutes("fur", c.compose.width_mm * c.compose.height_mm / 100) if c.compose.sized else 0.0
    squares = c.squares
    if squares is not None and not c.doors.reason("Transfer"):
        minutes += minutes_left(squares, len(c.transfer.drawn)) if len(c.transfer.drawn) < len(squares.all) else 0.0
    return Work(c.id, minutes, c.brief.promised, _wait_days(c, studio, now))


def _wait_days(c: Commission, studio: Studio, now: datetime) -> float:
    """Days of rest, varnish and packing that cannot be painted away."""
    d = c.deliver
    if d.packed is not None:
        return 0.0
    days = 0.0
    if d.looked is None:
        ends = rest_ends(d)
        days += max(0.0, (ends - now) / timedelta(days=1)) if ends else REST_HOURS / 24
    if needs_varnish(c.brief.medium):
        if not d.coats:
            dry = OIL_WAIT_DAYS if c.brief.medium == "oil over acrylic" else ACRYLIC_WAIT_DAYS[thickest_film(c, studio)]
            last = last_painted(c)
            if last is not None and not minutes_to_paint(c, studio):
                dry = max(0.0, dry - (now - last) / timedelta(days=1))
            days = max(days, dry)
        days += PACK_WAIT_HOURS / 24
    return days


def worry_of(c: Commission, studio: Studio, finish: date, now: datetime) -> str:
    """The one thing that most endangers the commission, in words; empty when none."""
    if c.deliver.delivered is not None:
        return ""
    if c.brief.promised is not None and finish > c.brief.promised:
        late = (finish - c.brief.promised).days
        return f"late by {late} day{'s' * (late != 1)}"
    for photo in c.intake.leads:
        if photo.iris_px is not None and photo.iris_px < IRIS_WORKABLE_PX and not c.doors.reason("Intake"):
            return f"needs an eye photograph: {photo.iris_px:.0f} px across the iris"
    if c.intake.photos and not c.intake.leads and not c.doors.reason("Intake"):
        return "no lead photograph"
    wanting = kept_wants(c)
    return wanting[1] if wanting and not c.doors.reason("Intake") else ""


def standings(commissions: tuple[Commission, ...], studio: Studio, now: datetime) -> tuple[Standing, ...]:
    """Every commission on the shelf, with its planned sittings among the others'."""
    works = {c.id: work_left(c, studio, now) for c in commissions}
    plan = plan_sittings(list(works.values()), now.date(), studio.week)
    found: list[Standing] = []
    for c in commissions:
        finish = likely_finish(works[c.id], plan, now.date())
        promised = c.brief.promised
        hand = working_days_between(finish, promised, studio.week.weekdays) if promised else None
        door = door_now(doors_of(c, studio)).name
        mine = tuple(s for s in plan if s.commission_id == c.id)
        wet = wet_until(c.easel, now) if c.deliver.delivered is None else None
        found.append(
            Standing(
                c, door, _state_words(c, door, wet, now), next_act(c, studio, now), works[c.id], mine, finish, hand, wet,
                worry_of(c, studio, finish, now),
            )
        )  # fmt: skip
    return tuple(found)


def _state_words(c: Commission, door: str, wet: datetime | None, now: datetime) -> str:
    if c.deliver.delivered is not None:
        return "delivered"
    if wet is not None:
        return f"wet until {clock_text(wet, now)}"
    ends = rest_ends(c.deliver)
    if ends is not None and c.deliver.looked is None:
        return f"rests unseen until {clock_text(ends, now)}"
    if door == "Easel":
        return f"painting, {len(c.easel.finished)} passes done"
    return {"Intake": "waiting for photographs", "Deliver": "finishing"}.get(door, f"at {door}")
