"""What the check room shows now, and what each line means."""

from dataclasses import dataclass, replace
from datetime import datetime
from typing import Literal, Protocol

from yarrow_lane.commission.commission import Commission
from yarrow_lane.easel.standing import last_painted
from yarrow_lane.measure.days import clock_text
from yarrow_lane.ui.bench_sheet import (
    BenchSheet,
    ChoiceSheet,
    Fact,
    Field,
    Line,
    Meaning,
    NextAct,
    Note,
    Press,
    Section,
    Switch,
)

Flip = Literal["upright", "mirror", "down"]
FLIPS: tuple[Flip, ...] = ("upright", "mirror", "down")


@dataclass(frozen=True)
class CheckLook:
    """How the two pictures are looked at."""

    flip: Flip = "upright"
    grey: bool = False
    blink: bool = False


class Hands(Protocol):
    """What the page does for the bench."""

    def set_look(self, look: CheckLook) -> None: ...
    def choose_painting(self) -> None: ...
    def write_draft(self, text: str) -> None: ...
    def note_it(self) -> Meaning: ...


@dataclass(frozen=True)
class CheckView:
    """The whole room."""

    bench: BenchSheet
    choices: ChoiceSheet


def check_view(c: Commission, look: CheckLook, draft: str, now: datetime, hands: Hands, act: NextAct) -> CheckView:
    """Work the room out from what is on record."""
    painting: tuple[Line, ...]
    if c.check.at is None:
        painting = (Note("Photograph the painting straight on, the whole canvas filling the frame, in even daylight."),)
    else:
        last = last_painted(c.easel)
        older = last is not None and c.check.at < last
        painting = (
            Fact("Photograph", c.check.photo_name),
            Fact("Put beside it", clock_text(c.check.at, now)),
            Fact("Since the last pass", "yes" if not older else "no: painted on since", "good" if not older else "wrong"),
        )
    mended = {line.text for line in c.deliver.last_list if line.done}
    seen: tuple[Line, ...] = tuple(
        Note(f"{n}. {text}{', mended' if text in mended else ''}") for n, text in enumerate(c.check.seen, 1)
    )
    ways = "F mirrors both, then turns them upside down. G shows greys. B blinks between them. + and − zoom."
    sections = (
        Section("The painting", (*painting, Press("Choose a photograph of it…", hands.choose_painting))),
        Section(
            "What you see",
            (*seen, Field("To mend", draft, hands.write_draft, "left ear too light"), Press("Note it", hands.note_it)),
        ),
        Section("Ways to look", (Note(ways),), "F G B + −"),
    )
    flips = (("upright", "upright"), ("mirror", "mirrored"), ("down", "upside down"))
    choices = ChoiceSheet(
        (
            Switch("Both pictures", flips, lambda v: hands.set_look(replace(look, flip=v)), look.flip),
            Switch("in", ((False, "colour"), (True, "grey")), lambda v: hands.set_look(replace(look, grey=v)), look.grey),
            Switch(
                "", ((False, "side by side"), (True, "blinking")), lambda v: hands.set_look(replace(look, blink=v)), look.blink
            ),
        )
    )
    return CheckView(BenchSheet(sections, act), choices)
