"""What the bench says of one pass: what it does, with what, over what, and what usually goes wrong."""

from collections.abc import Mapping
from datetime import datetime

from yarrow_lane.calendar.pace import Pace
from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.studio import Studio
from yarrow_lane.commission.to_propose import focal_of
from yarrow_lane.easel.clock import minutes_logged
from yarrow_lane.easel.session import dry_at
from yarrow_lane.easel.wet import surely_dry_at
from yarrow_lane.layers.brushes import Advice, wasted_beyond
from yarrow_lane.layers.passes import Pass
from yarrow_lane.layers.rules import Warned
from yarrow_lane.layers.score import frees
from yarrow_lane.layers.telling import remedies, sayings
from yarrow_lane.layers.wells_for import AreaColours, advice_in, chosen_well
from yarrow_lane.measure.days import clock_text
from yarrow_lane.measure.lengths import hours_text
from yarrow_lane.measure.words import counted
from yarrow_lane.paint.caution import CAUTIONS, SPRAY
from yarrow_lane.paint.drying import FILM_UM
from yarrow_lane.ui.bench_sheet import Fact, Headline, Line, Note, Section, Swatch
from yarrow_lane.ui.words import area_text, drying_text

_FAR_OFF = 8.0  # dE00: told where even the nearest well is another colour (our choice)
_A_TOUCH_ML = 0.05  # less than a drop: our choice


def hazard_of(p: Pass) -> str:
    """The usual caution of a pass; "" where there is none beyond clean hands."""
    return SPRAY if p.nature == "fix" else CAUTIONS.get(p.paint, "")


def pass_sections(
    c: Commission, studio: Studio, passes: tuple[Pass, ...], p: Pass, number: int, now: datetime,
    colours: Mapping[int, AreaColours], warned: tuple[Warned, ...], remedy: int, pace: Pace, patches: tuple[int, ...] = (),
) -> list[Section]:  # fmt: skip
    """`remedy` counts the remedies asked for, 0 for none; `patches` are the numbers of its patches in the order to climb."""
    a = advice_in(p, colours.get(p.region_id), studio.jar)
    low, high = (hours_text(p.minutes * share) for share in pace.spread(p.family, c.id))
    lines: list[Line] = [Headline(f"{number}  {p.title}")]
    lines += [Note(said) for said in sayings(p)]
    lines.append(Fact("Area on the canvas", area_text(p.area_cm2)))
    lines.append(Fact("At your pace about", f"{hours_text(pace.likely(p.family, p.minutes, c.id))} ({low} to {high})"))
    wet = (
        f"{FILM_UM[p.film]:.0f}\u202fµm, wet {drying_text(p.dry_minutes)}"
        if p.dry_minutes
        else f"{FILM_UM[p.film]:.0f}\u202fµm"
    )
    lines.append(Fact("Film", wet))
    if patches:
        lines.append(Fact("Climb", f"{len(patches)} patches, {patches[0]} to {patches[-1]}"))
    sections = [Section("This pass", tuple(lines)), Section("With", tuple(_with(c, p, a, colours)))]
    mine = list({w.rule: w for w in warned if p.id in (w.pass_id, w.about)}.values())
    if mine:
        sections.insert(1, Section("Mind", tuple(Note(f"{w.rule[0].upper()}{w.rule[1:]}: {w.why}.", "wrong") for w in mine)))
    sections.append(Section("It lies over", tuple(_over(c, passes, p, now))))
    told = remedies(p)
    if remedy and told:
        found = told[(remedy - 1) % len(told)]
        words = (Note(f"{found.seen[0].upper()}{found.seen[1:]}: {found.cause}."), Note(f"Helps: {found.helps}."))
        sections.insert(1, Section("What usually goes wrong", words))
    return sections


def _with(c: Commission, p: Pass, a: Advice, colours: Mapping[int, AreaColours]) -> list[Line]:
    lines: list[Line] = []
    chosen = dict(c.layers.wells).get(p.id, 0)
    well = chosen_well(p, chosen, colours.get(p.region_id), [(w.id, w.lab) for w in c.palette.wells])
    found = next((w for w in c.palette.wells if well is not None and w.id == well.well_id), None)
    if well is not None and found is not None:
        off = f", {well.off:.0f} dE off" if well.off >= _FAR_OFF else ""
        lines.append(Swatch(c.palette.name_of(found), found.srgb, "yours" if chosen else f"nearest{off}"))
    brush = f"{a.own.words} (advised {a.brush.mm})" if a.own is not None and a.own.mm != a.brush.mm else a.brush.words
    lines.append(Fact("Brush", brush))
    low, high = round(a.long_mm[0]), max(1, round(a.long_mm[1]))
    long = f"{low} to {high}\u202fmm" if 0 < low < high else f"{high}\u202fmm or less"
    lines.append(Fact("Strokes", f"{long} long, a texture" if a.texture else f"{a.stroke_mm:.1f} × {long}"))
    if a.ml < _A_TOUCH_ML:
        lines.append(Fact("Paint", "a touch, one load"))
    else:
        lines.append(Fact("Paint", f"{a.ml:.1f}\u202fml, mix {a.mixed_ml:.1f}; {counted(a.dips, 'load')}"))
    diagonal = (c.compose.width_mm**2 + c.compose.height_mm**2) ** 0.5
    beyond = wasted_beyond(a.stroke_mm, diagonal)
    if beyond is not None and beyond < diagonal / 2 and p.role not in ("glint", "whisker", "reserve"):
        x, y = focal_of(c)
        where = "the eyes" if c.layers.focal is None else f"the focal point at {x / 10:.0f}, {y / 10:.0f}\u202fcm"
        words = f"So fine only within {max(1.0, beyond / 10):.0f}\u202fcm of {where}: farther off it is not seen from two diagonals away."
        lines.append(Note(words))
    if hazard_of(p):
        lines.append(Note(hazard_of(p), "wrong"))
    return lines


def _over(c: Commission, passes: tuple[Pass, ...], p: Pass, now: datetime) -> list[Line]:
    by_id = {q.id: (n, q) for n, q in enumerate(passes, 1)}
    done = c.easel.done(p.id)
    if done is not None:
        logged = minutes_logged(c.log, p.id)
        lines: list[Line] = [Fact("Painted", clock_text(done.at, now), "good")]
        if logged:
            lines.append(Fact("Hours logged", hours_text(logged)))
        return lines
    lines = []
    for need in p.needs[:5]:
        number, other = by_id[need.id]
        finished = c.easel.done(need.id)
        if finished is None:
            lines.append(Fact(f"{number}  {other.title}", "to be painted", "wrong"))
        elif need.dry:
            likely = dry_at(finished, now)
            wet = likely > now
            words = (
                f"dry about {clock_text(likely, now)}, surely {clock_text(surely_dry_at(finished, now), now)}" if wet else "dry"
            )
            lines.append(Fact(f"{number}  {other.title}", words, "wrong" if wet else "good"))
    if not p.needs:
        lines.append(Note("Goes on the ground: nothing must dry before it."))
    after = frees(passes, p.id)
    if after:
        names = "; ".join(by_id[i][1].title for i in after[:3])
        lines.append(Note(f"It frees {names}{f' and {len(after) - 3} more' if len(after) > 3 else ''}."))
    return lines
