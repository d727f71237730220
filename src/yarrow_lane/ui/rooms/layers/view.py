"""What the layers room shows now."""

from dataclasses import dataclass
from datetime import datetime

from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.doors import passes_of
from yarrow_lane.commission.standing import clock_text
from yarrow_lane.commission.studio import Studio
from yarrow_lane.easel.clock import minutes_logged
from yarrow_lane.easel.session import readiness
from yarrow_lane.layers.drying import FILM_UM
from yarrow_lane.layers.passes import Pass
from yarrow_lane.layers.regions import KINDS, Region, area_cm2, bare_areas_cm2
from yarrow_lane.measure.lengths import hours_text
from yarrow_lane.ui.bench_sheet import (
    BenchSheet,
    ChoiceSheet,
    Fact,
    Field,
    Headline,
    Line,
    NextAct,
    Note,
    Pick,
    Press,
    Section,
    Switch,
    plain_options,
)


@dataclass(frozen=True)
class ScoreBar:
    """One pass in the score: where it begins and how long it is, in minutes of painting."""

    pass_id: str
    region_id: int
    name: str
    begin: float
    minutes: float
    dry_minutes: float
    done: bool


@dataclass(frozen=True)
class LayersView:
    """The whole room."""

    regions: tuple[Region, ...]
    score: tuple[ScoreBar, ...]
    chosen: Pass | None
    region: Region | None
    bench: BenchSheet
    choices: ChoiceSheet


def drying_text(minutes: float) -> str:
    """How long a film stays wet, from minutes to days."""
    return f"{minutes / 1440:.1f}\u202fdays" if minutes >= 2880 else hours_text(minutes)


def layers_view(
    c: Commission, studio: Studio, pass_id: str, region_id: int, kind: str, drawing: bool, now: datetime
) -> LayersView:
    """Work the room out; a chosen pass outranks a chosen region."""
    passes = passes_of(c, studio)
    chosen = next((p for p in passes if p.id == pass_id), None)
    region = next((r for r in c.layers.regions if r.id == (chosen.region_id if chosen else region_id)), None)
    begin, score = 0.0, []
    for p in passes:
        done = c.easel.done(p.id) is not None
        score.append(ScoreBar(p.id, p.region_id, p.name, begin, p.minutes, p.dry_minutes, done))
        begin += p.minutes
    sections: list[Section] = [_drawing_section(kind, drawing)]
    bare = bare_areas_cm2(c.layers)
    if region is not None:
        sections.append(_region_section(region, bare[region.id]))
    if chosen is not None:
        sections.append(_pass_section(c, passes, chosen, now))
    if passes:
        sections.append(_whole_section(c, passes))
        areas = tuple(Fact(r.name, f"{area_text(bare[r.id])}, {r.kind}") for r in c.layers.regions)
        sections.append(Section("Bare area of each, on the canvas", areas))
    return LayersView(
        c.layers.regions, tuple(score), chosen, region, BenchSheet(tuple(sections), _act(c, passes, drawing, kind)), _choices(c)
    )  # fmt: skip


def _choices(c: Commission) -> ChoiceSheet:
    school = c.layers.school
    return ChoiceSheet(
        (
            Switch("eyes", "Eyes", (("first", "first"), ("last", "last")), school.eyes),
            Switch("values", "Values", plain_options(("dark to light", "light to dark")), school.values),
            Switch("background", "Background", (("first", "first"), ("last", "last")), school.background),
        )
    )


def _drawing_section(kind: str, drawing: bool) -> Section:
    note = "Click its corners on the crop; Enter or a double click closes it, Esc gives it up, Backspace takes one corner back."
    press = Press("draw", "Draw a region" if not drawing else "Give this region up")
    return Section("Regions", (Pick("kind", "Next region is", kind, plain_options(KINDS)), press, Note(note)))


def area_text(area: float) -> str:
    """An area on the canvas; small ones to a tenth."""
    return f"{area:.0f}\u202fcm²" if area >= 10 else f"{area:.1f}\u202fcm²"


def _region_section(r: Region, bare: float) -> Section:
    return Section(
        "This region",
        (
            Headline(r.name),
            Field("name", "Name", r.name),
            Pick("region kind", "Painted as", r.kind, plain_options(KINDS)),
            Fact("Area on the canvas", area_text(area_cm2(r))),
            Fact("Of it not covered by others", area_text(bare)),
            Press("wipe", "Wipe this region out"),
        ),
    )


def _pass_section(c: Commission, passes: tuple[Pass, ...], p: Pass, now: datetime) -> Section:
    title = {q.id: q.title for q in passes}
    lines: list[Line] = [
        Headline(p.name),
        Fact("About", hours_text(p.minutes)),
        Fact("Film", f"{p.film}, {FILM_UM[p.film]:.0f}\u202fµm"),
        Fact("Wet for", drying_text(p.dry_minutes)),
    ]
    done = c.easel.done(p.id)
    if done is not None:
        lines.append(Fact("Painted", clock_text(done.at, now), "good"))
        lines.append(Fact("Hours logged", hours_text(minutes_logged(c.log, p.id))))
    else:
        state = readiness(c.easel, p, now)
        if state.ready:
            lines.append(Fact("May be painted", "now", "good"))
        elif state.dry_at is not None:
            lines.append(Fact("Dry beneath at", clock_text(state.dry_at, now), "wrong"))
    if p.needs:
        lines.append(Note("Must be dry before it: " + "; ".join(title[n] for n in p.needs)))
    else:
        lines.append(Note("Goes on the ground: nothing must dry before it."))
    return Section("This pass", tuple(lines))


def _whole_section(c: Commission, passes: tuple[Pass, ...]) -> Section:
    left = [p for p in passes if c.easel.done(p.id) is None]
    return Section(
        "Whole painting",
        (
            Fact("Passes", f"{len(passes) - len(left)} of {len(passes)} done"),
            Fact("Painting", hours_text(sum(p.minutes for p in passes))),
            Fact("Still to paint", hours_text(sum(p.minutes for p in left))),
            Note("First guesses of pace, for the part of each region that no later one covers."),
        ),
    )


def _act(c: Commission, passes: tuple[Pass, ...], drawing: bool, kind: str) -> NextAct:
    if not c.compose.framed:
        return NextAct("Go to Compose", "regions are drawn on the crop")
    if drawing:
        return NextAct(f"Close the {kind} region", "after at least three corners")
    if not passes:
        return NextAct("Draw the background", "then fur, skin, eyes: each its own outline")
    return NextAct("Go to the easel", f"{len(passes)} passes in order")
