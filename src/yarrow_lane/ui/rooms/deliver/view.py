"""What the deliver room shows now."""

from dataclasses import dataclass
from datetime import datetime
from typing import Literal, Protocol

from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.standing import passes_in, thickest_film
from yarrow_lane.commission.studio import Studio
from yarrow_lane.deliver.handover import (
    COATS,
    DELIVER,
    STEPS,
    Step,
    brought_to,
    lies_ahead,
    mark_line,
    needs_varnish,
    pack_from,
    rest_ends,
    rested_since,
    step_now,
    with_notes,
)
from yarrow_lane.deliver.standing import earliest_coat
from yarrow_lane.easel.standing import last_painted, passes_left
from yarrow_lane.lane.part import Edit
from yarrow_lane.measure.days import clock_text, day_text
from yarrow_lane.measure.lengths import hours_text
from yarrow_lane.measure.words import counted
from yarrow_lane.ui.bench_sheet import BenchSheet, Day, Fact, Field, Line, Meaning, NextAct, Note, Press, Section, Tick

State = Literal["done", "now", "ahead"]
TO_MEND = "To mend in the last sitting"
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


class Hands(Protocol):
    """What the page does for the bench."""

    def write_draft(self, text: str) -> None: ...
    def add_to_list(self) -> Meaning: ...
    def save_sheet(self) -> None: ...


def earliest_varnish(c: Commission, studio: Studio) -> datetime | None:
    """The earliest moment for the next coat."""
    thickest = thickest_film(passes_in(c, studio.climate))
    return earliest_coat(c.deliver, c.brief.medium, last_painted(c.easel), thickest)


def deliver_view(c: Commission, studio: Studio, draft: str, now: datetime, hands: Hands, act: NextAct) -> DeliverView:
    """Work the room out from what is on record."""
    step = step_now(c.deliver, c.brief.medium)
    order = [s for s in STEPS if s != "varnish" or needs_varnish(c.brief.medium)]
    at = order.index(step) if step in order else len(order)
    shown = tuple(
        StepShown(WORDS[s], "done" if n < at else "now" if n == at else "ahead", _date(c, s, now), _detail(c, studio, s, now))
        for n, s in enumerate(order)
    )
    return DeliverView(shown, BenchSheet(_sections(c, studio, draft, now, hands), act))


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


def _sections(c: Commission, studio: Studio, draft: str, now: datetime, hands: Hands) -> tuple[Section, ...]:
    def marked(number: int) -> Tick:
        line = c.deliver.last_list[number]

        def done(value: bool) -> Meaning:
            return Edit(DELIVER, "Marked a line of the last list", lambda d: mark_line(d, number, value))

        return Tick(line.text, line.done, done)

    passes = passes_in(c, studio.climate)
    left = passes_left(c.easel, passes)
    words = (
        "finished"
        if passes and not left
        else f"{hours_text(sum(p.minutes for p in left))} to paint"
        if passes
        else "no passes yet"
    )
    lines: tuple[Line, ...] = tuple(marked(n) for n in range(len(c.deliver.last_list)))
    field = Field(TO_MEND, draft, hands.write_draft, "soften the collar")
    sections = [
        Section(
            "Before it goes",
            (
                Fact("Painting", words, "good" if passes and not left else "plain"),
                Press("Save the delivery sheet (PDF)…", hands.save_sheet),
            ),
        ),
        Section("Last list", (*lines, field, Press("Put it on the list", hands.add_to_list))),
    ]
    known = {line.text for line in c.deliver.last_list}
    notes = tuple(text for text in c.check.seen if text not in known)
    if notes:
        more = Edit(DELIVER, "Took Check's notes into the last list", lambda d: with_notes(d, notes))
        words = f"Take in {counted(len(notes), 'note')} from Check"
        sections[-1] = Section("Last list", (*lines, Press(words, lambda: more), *sections[-1].lines[len(lines) :]))
    if c.deliver.signed is not None and c.deliver.looked is None:
        rest = c.deliver.rest_from.date() if c.deliver.rest_from is not None else None
        day = Day(
            "Turned to the wall on", rest, now.date(),
            lambda d: Edit(DELIVER, "Wrote down since when it rests", lambda x: rested_since(x, d, now)), ahead=False,
        )  # fmt: skip
        sections.insert(1, Section("The rest", (day,)))
    early = lies_ahead(c.deliver, now)
    if early is not None:
        told = Note(f"On record as done {clock_text(early, now)}, which has not come yet.", "wrong")
        now_then = Edit(DELIVER, "Said that it was done just now", lambda d: brought_to(d, now))
        sections.insert(0, Section("A date in doubt", (told, Press("It was done just now", lambda: now_then))))
    if c.doors.waived:
        waived = tuple(Note(f"{w.door}, {day_text(w.on)}: {w.reason}") for w in c.doors.waived)
        sections.append(Section("Doors waived against the facts", waived))
    sections.append(
        Section(
            "Care",
            (
                Note("Spray varnish only outdoors or with extraction, with a suitable respirator and no flame near. Oily rags heat up by themselves: metal can with a lid."),
                Note("Follow the product's safety data sheet and local rules; ask a qualified person where unsure."),
            ),
        )
    )  # fmt: skip
    return tuple(sections)
