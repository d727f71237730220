"""What the layers room shows now, and what each line means."""

from dataclasses import dataclass, replace
from datetime import datetime
from typing import Literal, Protocol

from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.eyes import eyes_to_outline
from yarrow_lane.commission.recompose import Proposal, resequence
from yarrow_lane.commission.standing import passes_in
from yarrow_lane.commission.studio import Studio
from yarrow_lane.easel.clock import minutes_logged
from yarrow_lane.easel.session import readiness
from yarrow_lane.easel.standing import passes_left
from yarrow_lane.lane.part import Edit
from yarrow_lane.layers.passes import Pass
from yarrow_lane.layers.regions import (
    KINDS,
    LAYERS,
    Kind,
    Layers,
    Region,
    School,
    area_cm2,
    as_kind,
    change_region,
    choose_school,
    lie_of,
    wipe_region,
)
from yarrow_lane.measure.days import clock_text
from yarrow_lane.measure.lengths import hours_text
from yarrow_lane.measure.plane import polygon_bounds
from yarrow_lane.paint.drying import FILM_UM, Climate
from yarrow_lane.ui.bench_sheet import (
    BenchSheet,
    ChoiceSheet,
    Fact,
    Field,
    Headline,
    Line,
    Meaning,
    NextAct,
    Note,
    Pick,
    Press,
    Section,
    Switch,
    Table,
    plain_options,
)
from yarrow_lane.ui.kit.overlays import Outline, Overlay, Words
from yarrow_lane.ui.words import area_text, drying_text

Drawing = Literal["", "drawing", "asked"]


class Hands(Protocol):
    """What the page does for the bench."""

    def choose_kind(self, kind: Kind) -> None: ...
    def draw_or_give_up(self) -> None: ...
    def outline_eyes(self) -> Meaning: ...


@dataclass(frozen=True)
class Bar:
    """One pass in the order of painting: where it begins and how long it is, in minutes of painting."""

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
    bars: tuple[Bar, ...]
    chosen: Pass | None
    region: Region | None
    bench: BenchSheet
    choices: ChoiceSheet


def region_at_glance(region: Region, chosen: bool, scale: float) -> tuple[Overlay, ...]:
    """A region on the reference; its name where there is room at so many screen px per mm."""
    outline = Outline(region.outline, "here" if chosen else "light", 2.2 if chosen else 1.3, filled=chosen)
    bounds = polygon_bounds(region.outline)
    if not chosen and min(bounds.width, bounds.height) * scale <= 40:
        return (outline,)
    if region.kind == "background":  # its middle lies under the sitter
        return outline, Words((bounds.x, bounds.y), region.name, shift=(6, 14))
    return outline, Words(bounds.centre, region.name, "over")


def layers_view(
    c: Commission, studio: Studio, pass_id: str, region_id: int, kind: Kind, drawing: Drawing, now: datetime, hands: Hands,
    act: NextAct,
) -> LayersView:  # fmt: skip
    """Work the room out; a chosen pass outranks a chosen region."""
    passes = passes_in(c, studio.climate)
    chosen = next((p for p in passes if p.id == pass_id), None)
    region = next((r for r in c.layers.regions if r.id == (chosen.region_id if chosen else region_id)), None)
    begin, bars = 0.0, []
    for p in passes:
        bars.append(Bar(p.id, p.region_id, p.name, begin, p.minutes, p.dry_minutes, c.easel.done(p.id) is not None))
        begin += p.minutes
    sections: list[Section] = [_drawing_section(c, kind, drawing, hands)]
    bare = lie_of(c.layers.regions).bare_cm2
    if region is not None:
        sections.append(_region_section(region, bare[region.id], studio.climate))
    if chosen is not None:
        sections.append(_pass_section(c, passes, chosen, now))
    if passes:
        sections.append(_whole_section(c, passes))
        rows = tuple((r.name, r.kind, area_text(bare[r.id])) for r in c.layers.regions)
        sections.append(Section("Bare area of each", (Table(("region", "painted as", "on the canvas"), rows),)))
    choices = _choices(c, studio.climate)
    return LayersView(c.layers.regions, tuple(bars), chosen, region, BenchSheet(tuple(sections), act), choices)


def _relayered(label: str, step: "LayersStep", climate: Climate) -> Proposal:
    """A change of regions or school: what becomes of finished passes is shown before."""
    return Proposal(label, "Layers", lambda c: resequence(c, replace(c, layers=step(c.layers)), climate))


class LayersStep(Protocol):
    """A pure step on the part."""

    def __call__(self, layers: Layers) -> Layers: ...


def _choices(c: Commission, climate: Climate) -> ChoiceSheet:
    school = c.layers.school

    def schooled(label: str, wanted: School) -> Proposal:
        return _relayered(label, lambda layers: choose_school(layers, wanted), climate)

    first_last = plain_options(("first", "last"))
    orders = plain_options(("dark to light", "light to dark"))
    return ChoiceSheet(
        (
            Switch("Eyes", first_last, lambda v: schooled(f"Eyes {v}", replace(school, eyes=v)), school.eyes),
            Switch("Values", orders, lambda v: schooled(f"Values {v}", replace(school, values=v)), school.values),
            Switch(
                "Background",
                first_last,
                lambda v: schooled(f"Background {v}", replace(school, background=v)),
                school.background,
            ),
        )
    )


def _drawing_section(c: Commission, kind: Kind, drawing: Drawing, hands: Hands) -> Section:
    if drawing == "asked":
        asks = Note("Enter keeps it, Esc goes on drawing. Its name follows, and can be changed then.")
        return Section("What did you draw?", (Pick("It is", kind, plain_options(KINDS), hands.choose_kind), asks))
    marked: tuple[Line, ...] = ()
    if not drawing and eyes_to_outline(c):
        marked = (Press("Outline the eyes marked at Intake", hands.outline_eyes),)
    note = "Click its corners on the crop; Enter or a double click closes it, Esc gives it up, Backspace takes one corner back."
    press = Press("Draw a region" if not drawing else "Give this region up", hands.draw_or_give_up)
    return Section(
        "Regions", (Pick("Next region is", kind, plain_options(KINDS), hands.choose_kind), press, *marked, Note(note))
    )


def _region_section(r: Region, bare: float, climate: Climate) -> Section:
    def named(text: str) -> Meaning:
        changed = replace(r, name=text.strip() or r.name)
        return Edit(LAYERS, f"Changed {r.name}", lambda x: change_region(x, changed))

    def painted_as(kind: Kind) -> Meaning:
        return _relayered(f"Changed {r.name}", lambda layers: change_region(layers, as_kind(layers, r, kind)), climate)

    def wiped() -> Meaning:
        return _relayered(f"Wiped {r.name} out", lambda layers: wipe_region(layers, r.id), climate)

    return Section(
        "This region",
        (
            Headline(r.name),
            Field("Name", r.name, named, about=r.id),
            Pick("Painted as", r.kind, plain_options(KINDS), painted_as),
            Fact("Area on the canvas", area_text(area_cm2(r))),
            Fact("Of it not covered by others", area_text(bare)),
            Press("Wipe this region out", wiped),
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
    left = passes_left(c.easel, passes)
    return Section(
        "Whole painting",
        (
            Fact("Passes", f"{len(passes) - len(left)} of {len(passes)} done"),
            Fact("Painting", hours_text(sum(p.minutes for p in passes))),
            Fact("Still to paint", hours_text(sum(p.minutes for p in left))),
            Note("First guesses of pace, for the part of each region that no later one covers."),
        ),
    )
