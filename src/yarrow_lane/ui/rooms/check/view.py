"""What the check room shows now."""

from dataclasses import dataclass
from datetime import datetime

from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.doors import last_painted
from yarrow_lane.commission.standing import clock_text
from yarrow_lane.ui.bench_sheet import BenchSheet, ChoiceSheet, Fact, Field, Line, NextAct, Note, Press, Section, Switch


@dataclass(frozen=True)
class CheckLook:
    """How the two pictures are looked at."""

    flip: str = "upright"
    grey: bool = False
    blink: bool = False


@dataclass(frozen=True)
class CheckView:
    """The whole room."""

    bench: BenchSheet
    choices: ChoiceSheet


def check_view(c: Commission, look: CheckLook, draft: str, now: datetime) -> CheckView:
    """Work the room out from what is on record."""
    painting: tuple[Line, ...]
    if c.check.at is None:
        painting = (Note("Photograph the painting straight on, the whole canvas filling the frame, in even daylight."),)
    else:
        last = last_painted(c)
        older = last is not None and c.check.at < last
        painting = (
            Fact("Photograph", c.check.photo_name),
            Fact("Put beside it", clock_text(c.check.at, now)),
            Fact("Since the last pass", "yes" if not older else "no: painted on since", "good" if not older else "wrong"),
        )
    seen: tuple[Line, ...] = tuple(Note(f"{n}. {text}") for n, text in enumerate(c.check.seen, 1))
    sections = (
        Section("The painting", (*painting, Press("choose", "Choose a photograph of it…"))),
        Section("What you see", (*seen, Field("seen", "To mend", draft, "left ear too light"), Press("note", "Note it"))),
        Section("Ways to look", (Note("F mirrors both, then turns them upside down. G shows greys. B blinks between them. + and − zoom."),)),
    )  # fmt: skip
    flips = (("upright", "upright"), ("mirror", "mirrored"), ("down", "upside down"))
    choices = ChoiceSheet(
        (
            Switch("flip", "Both pictures", flips, look.flip),
            Switch("grey", "in", (("colour", "colour"), ("grey", "grey")), "grey" if look.grey else "colour"),
            Switch("blink", "", (("side", "side by side"), ("blink", "blinking")), "blink" if look.blink else "side"),
        )
    )
    if not c.compose.framed:
        act = NextAct("Go to Compose", "there is no crop to compare with")
    elif c.check.at is None:
        act = NextAct("Choose a photograph of the painting", "or drop it on the window")
    else:
        act = NextAct("Go on to Deliver", "sign, rest, last list")
    return CheckView(BenchSheet(sections, act), choices)
