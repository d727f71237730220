"""What the deliver room shows now."""

from dataclasses import dataclass
from datetime import datetime
from typing import Literal

from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.doors import last_painted, minutes_to_paint, thickest_film
from yarrow_lane.commission.standing import clock_text
from yarrow_lane.commission.studio import Studio
from yarrow_lane.deliver.handover import (
    COATS,
    STEPS,
    Step,
    needs_varnish,
    next_coat_from,
    pack_from,
    rest_ends,
    step_now,
    varnish_from,
)
from yarrow_lane.measure.days import day_text
from yarrow_lane.measure.lengths import hours_text
from yarrow_lane.ui.bench_sheet import BenchSheet, Fact, Field, Line, NextAct, Note, Press, Section, Tick

State = Literal["done", "now", "ahead"]
WORDS: dict[Step, str] = {
    "sign": "Sign",
    "rest": "Rest unseen",
    "last list": "Last list",
    "varnish": "Varnish",
    "pack": "Pack",
    "deliver": "Deliver",
}


@dataclass(frozen=True)
class StepShown:
    """One step of the way out: what, its state and its date in words."""

    name: str
    state: State
    date: str
    detail: str


@dataclass(frozen=True)
class DeliverView:
    """The whole room."""

    steps: tuple[StepShown, ...]
    bench: BenchSheet


def earliest_varnish(c: Commission, studio: Studio) -> datetime | None:
    """The earliest moment for the next coat."""
    return next_coat_from(c.deliver) or varnish_from(c.brief.medium, last_painted(c), thickest_film(c, studio))


def deliver_view(c: Commission, studio: Studio, draft: str, now: datetime) -> DeliverView:
    """Work the room out from what is on record."""
    step = step_now(c.deliver, c.brief.medium)
    order = [s for s in STEPS if s != "varnish" or needs_varnish(c.brief.medium)]
    at = order.index(step) if step in order else len(order)
    shown = tuple(
        StepShown(WORDS[s], "done" if n < at else "now" if n == at else "ahead", _date(c, s, now), _detail(c, studio, s, now))
        for n, s in enumerate(order)
    )
    return DeliverView(shown, _bench(c, studio, step, draft, now))


def _date(c: Commission, step: Step, now: datetime) -> str:
    d = c.deliver
    moments = {
        "sign": d.signed,
        "rest": d.rest_from,
        "last list": d.looked,
        "varnish": d.coats[-1] if d.coats else None,
        "pack": d.packed,
        "deliver": d.delivered,
    }
    moment = moments[step]
    return clock_text(moment, now) if moment else ""


def _detail(c: Commission, studio: Studio, step: Step, now: datetime) -> str:
    d = c.deliver
    match step:
        case "sign":
            return "when that corner is finished"
        case "rest":
            ends = rest_ends(d)
            if d.looked is not None:
                return f"looked again {clock_text(d.looked, now)}"
            return f"unseen until {clock_text(ends, now)}" if ends else "24 to 48 h with its face to the wall"
        case "last list":
            done = sum(line.done for line in d.last_list)
            return (
                f"{done} of {len(d.last_list)} mended" if d.last_list else "an hour of looking, a short list, one last sitting"
            )
        case "varnish":
            earliest = earliest_varnish(c, studio)
            when = f" · next from {clock_text(earliest, now)}" if earliest and earliest > now and len(d.coats) < COATS else ""
            return f"{len(d.coats)} of {COATS} thin coats{when}"
        case "pack":
            earliest = pack_from(d, c.brief.medium)
            return (
                f"from {clock_text(earliest, now)}" if earliest and earliest > now else "glassine on the paint, corners, board"
            )
    return f"promised {day_text(c.brief.promised)}" if c.brief.promised else "no date promised"


def _bench(c: Commission, studio: Studio, step: Step | None, draft: str, now: datetime) -> BenchSheet:
    d = c.deliver
    lines: tuple[Line, ...] = tuple(Tick(f"line {n}", line.text, line.done) for n, line in enumerate(d.last_list))
    listed = (
        *lines,
        Field("line", "To mend in the last sitting", draft, "soften the collar"),
        Press("add", "Put it on the list"),
    )
    painted = minutes_to_paint(c, studio) == 0 and bool(c.layers.regions)
    left = f"{hours_text(minutes_to_paint(c, studio))} to paint" if c.layers.regions else "no passes yet"
    sections = [
        Section(
            "Before it goes",
            (
                Fact("Painting", "finished" if painted else left, "good" if painted else "plain"),
                Press("sheet", "Save the delivery sheet (PDF)…"),
            ),
        ),
        Section("Last list", listed),
    ]
    if c.doors.passed:
        passed = tuple(Note(f"{p.door}, {day_text(p.on)}: {p.reason}") for p in c.doors.passed)
        sections.append(Section("Doors passed against the facts", passed))
    sections.append(
        Section(
            "Care",
            (
                Note("Spray varnish only outdoors or with extraction, with a suitable respirator and no flame near. Oily rags heat up by themselves: metal can with a lid."),
                Note("Follow the product's safety data sheet and local rules; ask a qualified person where unsure."),
            ),
        )
    )  # fmt: skip
    return BenchSheet(tuple(sections), _act(c, studio, step, now))


def _act(c: Commission, studio: Studio, step: Step | None, now: datetime) -> NextAct:
    d = c.deliver
    match step:
        case None:
            return NextAct("Delivered", f"{d.delivered:%A %d %B %Y}" if d.delivered else "", enabled=False)
        case "sign":
            return NextAct("It is signed", "when that corner is finished")
        case "rest":
            ends = rest_ends(d)
            if ends is None:
                return NextAct("Turn it to the wall", "24 to 48 h unseen")
            over = ends <= now
            return NextAct(
                "Look with fresh eyes", "the rest is over" if over else f"unseen until {clock_text(ends, now)}", over
            )
        case "last list":
            return NextAct("Mend the list", "mark each line once it is done", enabled=False)
        case "varnish":
            earliest = earliest_varnish(c, studio)
            ready = earliest is None or earliest <= now
            coat = f"coat {len(d.coats) + 1} of {COATS}"
            return NextAct("A thin coat is on", coat if ready else f"{coat}, from {clock_text(earliest, now)}", ready)  # type: ignore[arg-type]
        case "pack":
            earliest = pack_from(d, c.brief.medium)
            ready = earliest is None or earliest <= now
            return NextAct("It is packed", "corners and board" if ready else f"from {clock_text(earliest, now)}", ready)  # type: ignore[arg-type]
    return NextAct("It is delivered", "in the client's hands")
