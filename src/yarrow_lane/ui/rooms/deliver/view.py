"""What the deliver room shows now."""

from datetime import date, datetime
from typing import Protocol

from yarrow_lane.books.account import Account
from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.standing import passes_in, thickest_film
from yarrow_lane.commission.studio import Studio
from yarrow_lane.deliver.handover import DELIVER, brought_to, lies_ahead, mark_line, needs_varnish, rested_since, with_notes
from yarrow_lane.deliver.standing import earliest_coat
from yarrow_lane.deliver.timing import by_the_clock
from yarrow_lane.easel.standing import last_painted, passes_left
from yarrow_lane.intake.brief import Medium
from yarrow_lane.lane.part import Edit
from yarrow_lane.lane.standing import Task
from yarrow_lane.measure.days import clock_text, day_text
from yarrow_lane.measure.lengths import hours_text
from yarrow_lane.measure.money import currency_of, money_text
from yarrow_lane.measure.words import counted
from yarrow_lane.paint.caution import CAUTIONS, SPRAY
from yarrow_lane.paint.drying import PAINT_OF
from yarrow_lane.ui.bench_sheet import Day, Fact, Field, Line, Meaning, Note, Press, Section, Tick

TO_MEND = "To mend in the last sitting"
_CALLED = {"on its way to the client": "with the client", "varnish": "varnish, a thin coat"}


class Hands(Protocol):
    """What the page does for the bench."""

    def write_draft(self, text: str) -> None: ...
    def add_to_list(self) -> Meaning: ...
    def save_sheet(self) -> None: ...


def earliest_varnish(c: Commission, studio: Studio) -> datetime | None:
    """The earliest moment for the next coat."""
    thickest = thickest_film(passes_in(c, studio.climate))
    return earliest_coat(c.deliver, c.brief.medium, last_painted(c.easel), thickest)


def way_out_sections(
    c: Commission, studio: Studio, account: Account, tasks: tuple[Task, ...], draft: str, now: datetime, hands: Hands
) -> tuple[Section, ...]:
    """What stands between the last pass and the client's hands; `tasks` are the steps still to come."""

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
                *_money_lines(account, studio),
                Press("Save the delivery sheet (PDF)…", hands.save_sheet),
            ),
        ),
        *(_clock_section(tasks, c.brief.promised, now) if passes and not left else ()),
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
                *(Note(words) for words in _care_words(c.brief.medium)),
                Note("Follow the product's safety data sheet and local rules; ask a qualified person where unsure."),
            ),
        )
    )  # fmt: skip
    return tuple(sections)


def _money_lines(account: Account, studio: Studio) -> tuple[Line, ...]:
    if account.agreed is None:
        return ()
    left = max(0, account.still_to_pay)
    words = money_text(left, currency_of(account.agreed.currency), studio.terms.form) if left else "nothing"
    return (Fact("Still to pay", words, "wrong" if left else "good"),)


def _clock_section(tasks: tuple[Task, ...], promised: date | None, now: datetime) -> tuple[Section, ...]:
    """When each step can follow at the earliest."""
    rows = [r for r in by_the_clock(tasks, now) if r.words != "turn it to the wall"]
    if not rows:
        return ()
    facts = [Fact(clock_text(r.at, now) if r.at > now else "now", _CALLED.get(r.words, r.words)) for r in rows]
    if promised is not None:
        late = rows[-1].at.date() > promised
        facts.append(Fact(day_text(promised), "promised", "wrong" if late else "good"))
    return (Section("By the clock, at the earliest", tuple(facts)),)


def _care_words(medium: Medium) -> list[str]:
    """What can hurt on the way out of the studio, as far as that medium meets it."""
    words = []
    if needs_varnish(medium):
        words.append("Spray varnish only outdoors or with extraction, with a suitable respirator and no flame near.")
    if medium == "soft pastel":
        words.append(f"Fixative: {SPRAY}")
    words += filter(None, [CAUTIONS.get(PAINT_OF[medium])])
    words.append("Cut board away from your body, carry glass upright and with gloves.")
    return words
