"""The bench beside the letter: what is missing, what to be careful about, and what was sent."""

from collections.abc import Mapping
from typing import Protocol

from yarrow_lane.commission.commission import Commission
from yarrow_lane.intake.evidence import Evidence
from yarrow_lane.intake.request import what_is_missing
from yarrow_lane.lane.happening import LetterSent, of_kind
from yarrow_lane.measure.days import MONTHS
from yarrow_lane.measure.words import begun
from yarrow_lane.standins.outbox import recipient
from yarrow_lane.ui.bench_sheet import BenchSheet, Fact, Line, NextAct, Note, Press, Section


class Hands(Protocol):
    """What the page does for the letter."""

    def draft_letter(self) -> None: ...
    def send_letter(self) -> None: ...
    def back_to_photos(self) -> None: ...
    def letter_text(self) -> str: ...


def letter_bench(c: Commission, evidence: Mapping[str, Evidence], hands: Hands) -> BenchSheet:
    """Work it out from what is missing now and what was sent."""
    missing = what_is_missing(c.intake, c.brief, evidence)
    lines: list[Line] = [Fact(s.name, why, "wrong") for s, why in missing]
    sections = [Section("What is missing", tuple(lines) or (Note("Every sitter has a lead photograph that holds."),))]
    if c.brief.contact_warning:
        sections.append(Section("Careful", (Note(c.brief.contact_warning + ".", "wrong"),)))
    sent = [
        Fact(
            f"Letter {r.number}, {r.at.day}\u202f{MONTHS[r.at.month - 1]}",
            f"{n} came back" if n else "no answer yet" if r.asked_for else "it asked for nothing",
        )
        for r in of_kind(c.log, LetterSent)
        for n in [sum(p.answers == r.number for p in c.intake.photos)]
    ]
    if sent:
        sections.append(Section("Sent", tuple(sent)))
    unaddressed = (
        recipient(c.brief.client_mail).unused if c.brief.client_mail.strip() else "no mail address is written in the brief"
    )
    if unaddressed:
        sections.append(
            Section(
                "Without an addressee",
                (Note(f"{begun(unaddressed)}: the mail file names nobody.", "wrong"),),
            )
        )
    note = Note("Edit it freely. It goes to the outbox as a mail file; nothing leaves this machine.")
    sections.append(Section("The letter", (note, Press("Write it anew", hands.draft_letter))))
    act = NextAct("Put it in the outbox", "as .eml, for any mail program", hands.send_letter)
    letters = of_kind(c.log, LetterSent)
    if letters and letters[-1].text == hands.letter_text():
        act = NextAct("Back to the photographs", "this letter lies in the outbox", hands.back_to_photos)
    return BenchSheet(tuple(sections), act)
