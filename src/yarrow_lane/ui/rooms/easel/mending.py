"""What Check sent to the easel: once every pass is painted, the card shows the place to mend."""

from collections.abc import Callable, Sequence
from datetime import datetime

from yarrow_lane.check.record import ToMend
from yarrow_lane.commission.commission import Commission
from yarrow_lane.easel.clock import clock_face, running
from yarrow_lane.easel.session import wet_until
from yarrow_lane.measure.days import clock_text
from yarrow_lane.measure.lengths import hours_text
from yarrow_lane.ui.bench_sheet import BenchSheet, Fact, Meaning, Mood, NextAct, Note, Pick, Press, Section
from yarrow_lane.ui.rooms.easel.view import EaselView, Hands, doubt_sections, log_sections, minutes_at


def line_now(c: Commission, lines: Sequence[ToMend], chosen: str) -> ToMend:
    """The place the clock runs for, else the one chosen, else the first."""
    started = running(c.log)
    about = started.about if started is not None else ""
    return next((t for t in lines if t.about == about), None) or next((t for t in lines if t.words == chosen), lines[0])


def mending_view(
    c: Commission, line: ToMend, lines: tuple[ToMend, ...], now: datetime, correction: float, why: str, hands: Hands,
    choose: Callable[[str], Meaning],
) -> EaselView:  # fmt: skip
    """The card of one place of `lines`; all of them are on the last list and not done."""
    started = running(c.log)
    wet = wet_until(c.easel, now)
    dry = f"wet until {clock_text(wet, now)}" if wet is not None else "dry beneath"
    act = NextAct(f"Mend it: about {hours_text(line.minutes)}", "Enter starts the clock", hands.start)
    if started is not None:
        act = NextAct("It is mended", "done on the last list; the next photograph tells", hands.finish)
    place = Section(
        "To mend",
        (
            Pick("Now", line.words, tuple((t.words, t.words) for t in lines), choose),
            Fact("By first guess", hours_text(line.minutes)),
            *([Press("It is mended: done without the clock", hands.finish)] if started is None else []),
            Note("What with and how is told at Check, place by place."),
        ),
    )
    # What is mended has no pass to which a correction could belong.
    sections = (place, *doubt_sections(c, now, hands), *log_sections(c, None, correction, why, hands))
    clock = clock_face(minutes_at(c.log, line.about, now))
    mood: Mood = "wrong" if wet is not None else "good"
    where = f"To mend, {len(lines)} in all" if len(lines) > 1 else "To mend"
    return EaselView(line.words, where, dry, mood, clock, started is not None, None, None, BenchSheet(sections, act), line)
