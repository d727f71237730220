"""Asking a client for more days, on the bench: the letter, and the promise moved when they have said yes."""

from dataclasses import dataclass
from datetime import date
from typing import Protocol

from yarrow_lane.measure.days import day_text
from yarrow_lane.measure.words import begun
from yarrow_lane.ui.bench_sheet import BenchSheet, Field, NextAct, Note, Press, Section


class Hands(Protocol):
    """What the page does for the letter."""

    def write_ask(self, text: str) -> None: ...
    def send_ask(self) -> None: ...
    def move_promise(self) -> None: ...


@dataclass(frozen=True)
class Ask:
    """A letter for more days, being written."""

    commission_id: str
    client: str
    until: date
    subject: str
    text: str
    remarks: tuple[str, ...] = ()


def ask_bench(ask: Ask, hands: Hands) -> BenchSheet:
    careful = tuple(Note(f"{begun(r)}.", "wrong") for r in ask.remarks)
    note = Note("Edit it freely. It goes to the outbox as a mail file; nothing leaves this machine.")
    sections = (
        Section(
            f"Ask {ask.client} for {day_text(ask.until)}",
            (*careful, Field("The letter", ask.text, hands.write_ask, "", True), note),
        ),
        Section("When they have said yes", (Press(f"Promise {day_text(ask.until)} from now on", hands.move_promise),)),
    )
    return BenchSheet(sections, NextAct("Put it in the outbox", "as .eml, for any mail program", hands.send_ask))
