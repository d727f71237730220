"""The bench beside the regions, and how a region is drawn on the picture."""

from dataclasses import replace
from typing import TYPE_CHECKING

from yarrow_lane.commission.eyes import eyes_to_outline
from yarrow_lane.lane.part import Edit
from yarrow_lane.layers.kinds import KINDS, Kind, is_ground
from yarrow_lane.layers.regions import (
    LAYERS,
    Layers,
    Region,
    as_kind,
    change_region,
    join,
    middle_of,
    spread_of,
    wipe_region,
)  # fmt: skip
from yarrow_lane.layers.strokes.drawing import (
    smooth_region,
)
from yarrow_lane.ui.bench_sheet import (
    Fact,
    Field,
    Headline,
    Line,
    Meaning,
    Note,
    Pick,
    Press,
    Section,
    Table,
    plain_options,
)
from yarrow_lane.ui.kit.overlays import Ink, Outline, Overlay, Words
from yarrow_lane.ui.kit.overlays import Line as Dashed
from yarrow_lane.ui.words import area_text

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.layers.regions_mode import RegionsMode

_SMOOTH_MM = 4.0  # the brush a border is smoothed for: our choice
_NAMED_FROM_PX = 34  # smaller regions show their name only when chosen: our choice


def overlays_of(region: Region, chosen: bool, guessed: bool, scale: float) -> list[Overlay]:
    """A region on the picture, shown at `scale` px per mm: dashed while it is a guess."""
    line: Dashed = "dashes" if guessed else "solid"
    ink: Ink = "here" if chosen else "light"
    weight, filled = (2.4, len(region.rings) == 1) if chosen else (1.3, False)
    marks: list[Overlay] = [Outline(r, ink, weight, line, filled=filled) for r in region.rings]
    marks += [Outline(w, ink, 1.4, closed=False) for w in region.lines]
    b = region.bounds
    if chosen or min(b.width, b.height) * scale > _NAMED_FROM_PX:
        if is_ground(region.kind):  # its middle may lie under the sitter
            marks.append(Words((b.x, b.y), region.name, shift=(6, 14)))
        else:
            marks.append(Words(middle_of(region), region.name, "over"))
    return marks


def sections(mode: "RegionsMode") -> tuple[Section, ...]:
    """What the bench shows beside the regions."""
    c, layers = mode.page.commission, mode.layers
    if mode.outline.shut:
        asks = Note("Enter keeps it, Esc goes on drawing. Its name follows, and can be changed then.")
        return (Section("What did you draw?", (Pick("It is", mode.kind, plain_options(KINDS), mode.choose_kind), asks)),)
    sections = []
    chosen = next((r for r in layers.regions if r.id == mode.region_id), None)
    if layers.regions and not c.layers.regions:
        note = "Guessed from cut-outs, eyes, landmarks and colour. Take it, or correct it on the picture: the first stroke takes it too."
        sections.append(Section("A proposal", (Note(note),)))
    if chosen is not None:
        sections.append(_chosen_section(mode, layers, chosen))
    sections.append(_drawing_section(mode))
    if layers.regions:
        spread = spread_of(layers.regions)
        rows = tuple((r.name, r.kind, area_text(spread.cm2[r.id])) for r in layers.regions)
        folded = f"{len(rows)}, {area_text(sum(spread.cm2[r.id] for r in layers.regions if r.rings))} in all"
        sections.append(Section("All regions", (Table(("region", "painted as", "area"), rows),), folded))
    return tuple(sections)


def _drawing_section(mode: "RegionsMode") -> Section:
    lines: list[Line] = [Pick("A new part is", mode.kind, plain_options(KINDS), mode.choose_kind)]
    if mode.lines_for:
        said = {
            "whiskers": "Draw each whisker from root to tip.",
            "mouth": "Draw the mouth as one line, corner to corner.",
            "focal": "Click where the viewer should look: strokes may be finest there.",
        }
        lines += [
            Note(said[mode.lines_for]),
            Press("Done with lines" if mode.lines_for != "focal" else "Leave it where it is", lambda: mode.draw_lines("")),
        ]
        return Section("By line", tuple(lines))
    lines.append(
        Note(
            "Round a part: it becomes a region. Border to border: cuts. Along a border: draws it anew. "
            "Over a border: takes what lies there. With a region chosen, a short stroke in a wrong piece names it."
        )
    )
    lines.append(Press("Give this outline up" if mode.outline.drawing else "Draw by corners", mode.by_corners))
    lines.append(Press("Draw whiskers as lines", lambda: mode.draw_lines("whiskers")))
    lines.append(Press("Draw a mouth as a line", lambda: mode.draw_lines("mouth")))
    lines.append(Press("Set where the viewer should look", lambda: mode.draw_lines("focal")))
    if eyes_to_outline(mode.page.commission) and mode.page.commission.layers.regions:
        lines.append(Press("Outline the eyes marked at Intake", mode.outline_eyes))
    return Section("By hand", tuple(lines))


def _chosen_section(mode: "RegionsMode", layers: Layers, r: Region) -> Section:
    page, spread = mode.page, spread_of(layers.regions)
    canvas = page.commission.compose.canvas

    def named(text: str) -> Meaning:
        changed = replace(r, name=text.strip() or r.name, told=True)
        return Edit(LAYERS, f"Changed {r.name}", lambda x: change_region(mode.taken(x), changed))

    def painted_as(kind: Kind) -> Meaning:
        return mode.relayered(f"Changed {r.name}", lambda x: change_region(x, as_kind(x, x.region(r.id), kind)))

    lines: list[Line] = [Headline(r.name), Field("Name", r.name, named, about=r.id)]
    lines.append(Pick("Painted as", r.kind, plain_options(KINDS), painted_as))
    lines.append(Fact("Area on the canvas", area_text(spread.cm2[r.id])))
    where = " > ".join(part for part in (_sitter(mode, r), _within(r)) if part)
    if where:
        lines.append(Fact("Part of", where))
    others = [(i, layers.region(i).name) for i in spread.neighbours[r.id] if layers.region(i).rings]
    if others and r.rings:
        lines.append(
            Pick(
                "Join with", 0, ((0, "no other"), *others),
                lambda other: mode.relayered(f"Joined {r.name}", lambda x: join(x, r.id, other, canvas)) if other else None,
            )
        )  # fmt: skip
        lines.append(Press(f"Smooth it for a brush of {_SMOOTH_MM:.0f}\u202fmm", lambda: _smoothed(mode, r)))
    lines.append(Press("Wipe this region out", lambda: _wiped(mode, r)))
    return Section("This region", tuple(lines))


def _smoothed(mode: "RegionsMode", r: Region) -> Meaning:
    canvas = mode.page.commission.compose.canvas
    return Edit(LAYERS, f"Smoothed {r.name}", lambda x: smooth_region(mode.taken(x), r.id, canvas, _SMOOTH_MM))


def _wiped(mode: "RegionsMode", r: Region) -> Meaning:
    canvas = mode.page.commission.compose.canvas
    return mode.relayered(f"Wiped {r.name} out", lambda x: wipe_region(x, r.id, canvas))


def _sitter(mode: "RegionsMode", region: Region) -> str:
    sitter = mode.page.commission.brief.sitter(region.sitter_id)
    return sitter.name if sitter is not None else ""


def _within(region: Region) -> str:
    """Where a part lies in its sitter: ears, eyes, nose and mouth in the head."""
    of_head = region.part.endswith(("ear", "eye")) or region.kind in ("eye", "nose", "mouth", "ear inside", "beard")
    if not region.part and not of_head:
        return ""
    return f"head > {region.part or region.kind}" if of_head and region.part != "head" else region.part
