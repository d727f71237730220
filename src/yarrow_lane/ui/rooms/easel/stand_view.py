"""What the stand shows: one thing at a time, in words and shapes to be read from two metres. No widget."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime

from yarrow_lane.calendar.pace import Pace
from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.studio import Studio
from yarrow_lane.easel.air import Air, aired
from yarrow_lane.easel.arrows import arrows_in
from yarrow_lane.easel.clock import clock_face, minutes_logged, running
from yarrow_lane.easel.places import Now, patch_now
from yarrow_lane.easel.reminders import (
    STEP_BACK_MIN,
    Reminder,
    minutes_to_step_back,
    painting_since,
    reminders,
    wells_until,
    workable_minutes,
)
from yarrow_lane.easel.session import pass_to_begin, readiness
from yarrow_lane.easel.standing import passes_left
from yarrow_lane.easel.wet import wet_now
from yarrow_lane.layers.coverage import Rings
from yarrow_lane.layers.flow.flow import Flow
from yarrow_lane.layers.passes import Pass
from yarrow_lane.layers.patching.patches import PatchFacts
from yarrow_lane.layers.telling import Remedy, remedies, sayings
from yarrow_lane.layers.wells_for import AreaColours, advice_in, chosen_well
from yarrow_lane.measure.days import clock_text
from yarrow_lane.measure.lengths import hours_text
from yarrow_lane.measure.plane import Point, Rect, polygon_bounds
from yarrow_lane.measure.words import begun, counted
from yarrow_lane.paint.remembered import remembered_colour
from yarrow_lane.palette.recipe import parts_text, share_name
from yarrow_lane.palette.wells import Well
from yarrow_lane.ui.words import drying_text

Srgb = tuple[int, int, int]
_SHORT = 60  # letters of a line that is read from two metres: our choice
_MOST_PARTS = 4  # lines of a recipe there is room for
_AIR = 0.22  # of a patch's size left round it: our choice


@dataclass(frozen=True)
class PatchShape:
    """A patch on the picture: its number from 1 and whether it is done, to 80 %, present, or still to come."""

    rings: Rings
    number: int
    state: str


@dataclass(frozen=True)
class PartShown:
    """So many parts of a tube in its own colour."""

    parts: str
    name: str
    srgb: Srgb


@dataclass(frozen=True)
class StandView:
    """Everything on the stand at this moment. `ring` is the share of ten minutes that is over, None while no clock runs."""

    title: str
    under: str
    area: Rect | None
    shapes: tuple[PatchShape, ...]
    arrows: tuple[tuple[Point, Point], ...]
    lines: tuple[str, ...]
    well: str
    swatch: Srgb | None
    parts: tuple[PartShown, ...]
    brush: str
    strokes: str
    stroke_mm: tuple[float, float]
    paint: str
    clock: str
    pace: str
    ring: float | None
    ring_words: str
    dry: tuple[str, ...]
    wet: bool
    then: str
    waits: bool
    due: tuple[Reminder, ...]
    pass_id: str = ""
    patches: int = 0
    over: bool = False


@dataclass(frozen=True)
class AtHand:
    """What was worked out for the stand: colours by region, patches in their order, the lie; and own pace."""

    colours: Mapping[int, AreaColours]
    patches: Sequence[PatchFacts]
    flow: Flow | None
    pace: Pace


def patches_of(p: Pass, patches: Sequence[PatchFacts]) -> tuple[PatchFacts, ...]:
    """The patches of a pass in the order to climb; none where its area is painted as one."""
    hairy = p.role in ("mass", "under", "middle", "tips", "dark", "light", "colour")
    return tuple(x for x in patches if x.region_id == p.region_id) if hairy else ()


def stand_view(c: Commission, studio: Studio, passes: tuple[Pass, ...], now: datetime, air: Air, at: AtHand) -> StandView:
    """Work it out from what is on record."""
    easel = aired(c.easel, air)
    wet = wet_now(easel, passes, now)
    started = running(c.log)
    due = reminders(c.log, wet, wells_until(c.log, c.brief.medium, studio.climate, now), now)
    paint = pass_to_begin(easel, passes, now)
    if paint is None:
        words = "Every pass is painted." if c.layers.sitter_drawn else "No passes yet."
        return _empty(
            words, "Look with fresh eyes at Check." if c.layers.sitter_drawn else "Draw the regions at Layers first.", due
        )
    state = readiness(easel, paint, now)
    patches = patches_of(paint, at.patches)
    here = patch_now(c.easel, paint.id, len(patches))
    patch = patches[here.patch] if patches else None
    region = next((r for r in c.layers.regions if r.id == paint.region_id), None)
    advised = advice_in(paint, at.colours.get(paint.region_id), studio.jar, patch.length if patch is not None else 0.0)
    well, parts = _well(c, studio, paint, at)
    seconds = (now - started.at).total_seconds() if started is not None and started.about == paint.id else 0.0
    minutes = minutes_logged(c.log, paint.id) + max(0.0, seconds) / 60
    since = painting_since(c.log, now)
    left = minutes_to_step_back(since, now) if since is not None else None
    low, high = round(advised.long_mm[0]), max(1, round(advised.long_mm[1]))
    shapes = tuple(PatchShape(x.rings, n + 1, _state(here, n)) for n, x in enumerate(patches))
    if not shapes and region is not None and region.rings:
        shapes = (PatchShape(region.rings, 0, "here"),)
    ring = patch.rings[0] if patch is not None else region.rings[0] if region is not None and region.rings else None
    bounds = polygon_bounds(ring) if ring is not None else None
    length = patch.length * 0.5 if patch is not None else 0.0
    return StandView(
        title=f"{begun(paint.region_name)}, {paint.name}",
        under=_under(here, patches),
        area=bounds.with_air(_AIR, c.compose.canvas) if bounds is not None else None,
        shapes=shapes,
        arrows=arrows_in(patch.rings, patch.cm2, max(length, high), patch.angle, at.flow) if patch is not None else (),
        lines=_lines(paint, patch),
        well=c.palette.name_of(well) if well is not None else "",
        swatch=well.srgb if well is not None else None,
        parts=parts,
        brush=(advised.own or advised.brush).words,
        strokes=f"{low} to {high}\u202fmm" if 0 < low < high else f"{high}\u202fmm",
        stroke_mm=(advised.stroke_mm, (advised.long_mm[0] + advised.long_mm[1]) / 2),
        paint="a touch, one load" if advised.ml < 0.05 else f"{advised.ml:.1f}\u202fml, {counted(advised.dips, 'load')}",
        clock=clock_face(minutes),
        pace=f"about {hours_text(at.pace.likely(paint.family, paint.minutes, c.id))} for this pass",
        ring=1 - left / STEP_BACK_MIN if left is not None else None,
        ring_words="" if left is None else f"{max(1, round(left))}",
        dry=_dry(state.dry_at, state.dry_since, state.waits_for, paint, studio, now),
        wet=not state.ready,
        then=_then(c, passes, paint, here, patches),
        waits=not state.ready,
        due=due,
        pass_id=paint.id,
        patches=len(patches),
        over=here.over,
    )  # fmt: skip


def _empty(title: str, under: str, due: tuple[Reminder, ...]) -> StandView:
    return StandView(
        title, under, area=None, shapes=(), arrows=(), lines=(), well="", swatch=None, parts=(), brush="", strokes="",
        stroke_mm=(0.0, 0.0), paint="", clock="", pace="", ring=None, ring_words="", dry=(), wet=False, then="", waits=True, due=due,
    )  # fmt: skip


def _state(here: Now, n: int) -> str:
    if n == here.patch and not here.over:
        return "here"
    return "done" if n in here.done else "nearly" if n in here.nearly else "coming"


def _under(here: Now, patches: Sequence[PatchFacts]) -> str:
    if not patches:
        return "all of it in one go"
    if here.over:
        return f"all {here.count} patches painted"
    again = ", its last fifth" if here.again else ""
    return f"patch {here.patch + 1} of {here.count}{again}"


def _well(c: Commission, studio: Studio, p: Pass, at: AtHand) -> tuple[Well | None, tuple[PartShown, ...]]:
    mixed = [(w.id, w.lab) for w in c.palette.wells]
    found = chosen_well(p, dict(c.layers.wells).get(p.id, 0), at.colours.get(p.region_id), mixed)
    well = next((w for w in c.palette.wells if found is not None and w.id == found.well_id), None)
    if well is None:
        return None, ()
    names, pigments = studio.paintbox.names, {t.id: t.pigment for t in studio.paintbox.tubes}
    parts = tuple(
        PartShown(parts_text(s.parts), share_name(s, names), remembered_colour(pigments[s.tube], s.tint))
        for s in well.recipe[:_MOST_PARTS]
        if s.tube in names
    )
    return well, parts


def _lines(p: Pass, patch: PatchFacts | None) -> tuple[str, ...]:
    told = [_short(t) for t in sayings(p)]
    if patch is None:
        return tuple(told[:3])
    way = "Root to tip, turning with the form." if patch.turns else f"Root to tip, towards {patch.clock:g} o’clock."
    if patch.dots > 0.5:
        way = "Dab dots: this hair points at you."
    pull = f"{begun(patch.pull)}." if patch.pull else "Start low, climb against the lie."
    return tuple(x for x in (way, pull, told[-1] if told else "") if x)


def _short(words: str) -> str:
    """A saying, or its first sentence where it is long."""
    for stop in (". ", "; ", ": "):
        if stop in words and len(words) > _SHORT:
            words = words.split(stop)[0] + "."
    return words


def _dry(
    dry_at: datetime | None, since: datetime | None, waits_for: tuple[str, ...], p: Pass, studio: Studio, now: datetime
) -> tuple[str, ...]:  # fmt: skip
    if waits_for:
        return ("other passes come first",)
    if dry_at is not None:
        return (f"wet beneath until about {clock_text(dry_at, now)}",)
    window = workable_minutes(p.dry_minutes)
    works = f"workable for {window:.0f} min, then wet {drying_text(p.dry_minutes)}" if 1 <= window < 120 else ""
    beneath = f"dry beneath since {clock_text(since, now)}" if since is not None else "on the bare ground"
    return (beneath, works) if works else (beneath,)


def _then(c: Commission, passes: tuple[Pass, ...], p: Pass, here: Now, patches: Sequence[PatchFacts]) -> str:
    if patches and not here.over:
        following = next((n for n in range(here.patch + 1, here.count) if n not in here.done and n not in here.nearly), None)
        if following is not None:
            return f"{following + 1}, the same well"
        if here.nearly and not here.again:
            return f"{min(here.nearly) + 1} again, its last fifth"
    left = [x for x in passes_left(c.easel, passes) if x.id != p.id]
    return f"{left[0].region_name}, {left[0].name}, {hours_text(left[0].minutes)}" if left else "nothing: it is painted"


def remedy_for(p: Pass, asked: int) -> Remedy | None:
    """What usually goes wrong, one at a time; None while nothing was asked."""
    told = remedies(p)
    return told[(asked - 1) % len(told)] if asked and told else None
