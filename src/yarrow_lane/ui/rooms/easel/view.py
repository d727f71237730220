"""What the easel shows now."""

from dataclasses import dataclass
from datetime import datetime

from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.doors import passes_of
from yarrow_lane.commission.standing import clock_text
from yarrow_lane.commission.studio import Studio
from yarrow_lane.easel.clock import minutes_logged, running
from yarrow_lane.easel.session import pass_now, readiness
from yarrow_lane.layers.passes import Pass
from yarrow_lane.layers.regions import Region
from yarrow_lane.measure.lengths import hours_text
from yarrow_lane.ui.bench_sheet import (
    Amount,
    BenchSheet,
    ChoiceSheet,
    Fact,
    Field,
    Line,
    NextAct,
    Note,
    Pick,
    Press,
    Section,
    Tone,
)
from yarrow_lane.ui.rooms.layers.view import area_text, drying_text

BREAK_MIN = 50.0  # our choice: a break after 50 minutes (handbook table of numbers)
STEP_BACK_MIN = 10.0  # common practice: step back every ten minutes


@dataclass(frozen=True)
class EaselView:
    """One card: what to paint, where, over what, and the clock in seconds."""

    title: str
    where: str
    dry: str
    dry_tone: Tone
    clock: str
    running: bool
    paint: Pass | None
    region: Region | None
    bench: BenchSheet
    choices: ChoiceSheet


def clock_face(seconds: float) -> str:
    """Hours, minutes and seconds as a clock shows them."""
    whole = int(seconds)
    return f"{whole // 3600}:{whole // 60 % 60:02d}:{whole % 60:02d}"


def easel_view(c: Commission, studio: Studio, now: datetime, correction: float, why: str) -> EaselView:
    """Work the card out from what is on record."""
    passes = passes_of(c, studio)
    paint = pass_now(c.easel, passes, now)
    started = running(c.log)
    if started is not None and paint is not None and started.about != paint.id:
        # The clock runs for the pass it was started on, whatever has become first since.
        paint = next((p for p in passes if p.id == started.about), paint)
    if paint is None:
        words = "Every pass is painted." if passes else "No passes yet."
        hint = "Look at it with fresh eyes at Check." if passes else "Draw the regions at Layers first."
        act = (
            NextAct("Go on to Check", "put a photograph of it beside the crop")
            if passes
            else NextAct("Go to Layers", "draw the regions")
        )
        return EaselView(
            words,
            hint,
            "",
            "plain",
            "",
            False,
            None,
            None,
            BenchSheet(_log_sections(c, None, correction, why), act),
            ChoiceSheet(),
        )
    state = readiness(c.easel, paint, now)
    if state.waits_for:
        names = {p.id: p.title for p in passes}
        dry, tone = "first: " + "; ".join(names.get(n, n) for n in state.waits_for), "wrong"
    elif state.dry_at is not None:
        dry, tone = f"wet beneath until {clock_text(state.dry_at, now)}", "wrong"
    elif state.dry_since is not None:
        dry, tone = f"dry beneath since {clock_text(state.dry_since, now)}", "good"
    else:
        dry, tone = "on the bare ground: nothing to dry", "good"
    seconds = (now - started.at).total_seconds() if started else 0.0
    minutes = minutes_logged(c.log, paint.id) + seconds / 60
    region = next((r for r in c.layers.regions if r.id == paint.region_id), None)
    detail = f"Enter finishes it · then wet for {drying_text(paint.dry_minutes)}"
    act = NextAct(f"Finish {paint.name}", detail) if started else NextAct("Start the clock", dry)
    return EaselView(
        paint.name[:1].upper() + paint.name[1:], paint.region_name, dry, tone,  # type: ignore[arg-type]
        clock_face(minutes * 60), started is not None, paint, region,
        BenchSheet((_choice_section(c, passes, paint), _pass_section(c, paint, minutes), *_log_sections(c, paint, correction, why)), act),
        ChoiceSheet(),
    )  # fmt: skip


def _choice_section(c: Commission, passes: tuple[Pass, ...], paint: Pass) -> Section:
    left = tuple((p.id, p.title) for p in passes if c.easel.done(p.id) is None)
    return Section("Paint", (Pick("pass", "Now", paint.id, left),))


def _pass_section(c: Commission, paint: Pass, minutes: float) -> Section:
    lines: list[Line] = [
        Fact("Area on the canvas", area_text(paint.area_cm2)),
        Fact("At your pace about", hours_text(paint.minutes)),
        Fact("Painted so far", hours_text(minutes)),
        Fact("Then wet for", drying_text(paint.dry_minutes)),
    ]
    if minutes >= BREAK_MIN:
        lines.append(Note("Take a break: stretch, look far away.", "wrong"))
    else:
        lines.append(Note(f"Step back every {STEP_BACK_MIN:.0f} minutes. A hair dryer stays 30 cm away and clear of water."))
    return Section("This pass", tuple(lines))


def _log_sections(c: Commission, paint: Pass | None, correction: float, why: str) -> tuple[Section, ...]:
    total = Fact("Logged in all", hours_text(minutes_logged(c.log)))
    if paint is None and not c.log:
        return (Section("Hours", (total,)),)
    lines: tuple[Line, ...] = (
        total,
        Amount("correction", "Correct this pass by", correction, -600, 600, 5, 0, "min"),
        Field("why", "because", why, "forgot to stop the clock"),
        Press("correct", "Write the correction", correction != 0),
    )
    return (Section("Hours", lines),)
