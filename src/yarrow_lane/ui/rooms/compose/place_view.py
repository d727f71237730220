"""What is shown and said while sitters are placed."""

import math
from dataclasses import replace
from typing import TYPE_CHECKING

from yarrow_lane.compose import agreement, pieces
from yarrow_lane.compose.advice import Advice
from yarrow_lane.compose.composition import Compose
from yarrow_lane.compose.detail import carried_px_per_mm, detail_word
from yarrow_lane.compose.ground import GROUND_KINDS, Ground, GroundKind, Lab
from yarrow_lane.compose.places import seen_twice
from yarrow_lane.compose.scale import Scales, far_words, share_words
from yarrow_lane.measure.colour.munsell_value import value_of
from yarrow_lane.measure.lengths import length_text, size_text
from yarrow_lane.measure.words import begun
from yarrow_lane.ui.bench_sheet import (
    Amount,
    Fact,
    Field,
    Length,
    Line,
    Meaning,
    NextAct,
    Note,
    Pick,
    Press,
    Section,
    Switch,
)
from yarrow_lane.ui.rooms.compose.colour_lines import value_line, warmth_line
from yarrow_lane.ui.rooms.compose.depth_strip import Standing
from yarrow_lane.ui.rooms.compose.mode import Sheets
from yarrow_lane.ui.rooms.compose.place_marks import Asking
from yarrow_lane.ui.rooms.compose.place_one import of_one
from yarrow_lane.ui.words import detail_mood

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.compose.place_mode import PlaceMode

LIFE_M = 2.0  # how far the eye is from something drawn at life size: our choice, it only sets the strip's metres
_HAND_WORDS = ("moves", "length", "neutral", "focus", "recolours")
_HANDS = ("moves", "marks a length", "picks a neutral", "sets the focus", "recolours a part")


def standings(compose: Compose, scales: Scales) -> tuple[Standing, ...]:
    """Every sitter at its distance: a share of life s is seen from `LIFE_M` / s; unknown ones stand by their `far`."""
    known = [scales.share(p.id, p.mm_per_px) for p in compose.pieces]
    usual = [LIFE_M / share[0] / p.far for p, share in zip(compose.pieces, known, strict=True) if share is not None]
    middle = math.exp(sum(map(math.log, usual)) / len(usual)) if usual else LIFE_M
    high = max((p.bounds_mm.height for p in compose.pieces), default=1.0)
    found = []
    for p, share in zip(compose.pieces, known, strict=True):
        metres = LIFE_M / share[0] if share is not None else middle * p.far
        tall = max(0.25, p.bounds_mm.height / high)
        words = f"{metres:.2f}\u202fm" if share is not None else "unknown"
        found.append(Standing(p.id, p.name, metres, tall, share is not None, words))
    return tuple(found)


def place_sheets(mode: "PlaceMode", found: tuple[Advice, ...], act: NextAct | None) -> Sheets:
    """One sitter when one is chosen, else the whole."""
    switches = (Switch("The hand", tuple(zip(_HANDS, _HAND_WORDS, strict=True)), mode.use, mode.hand),)
    sections: list[Section] = []
    if mode.asking is not None:
        sections.append(_asked(mode, mode.asking))
    piece = mode.piece
    sections += of_one(mode, piece) if piece is not None else _of_all(mode)
    if found:
        sections.insert(min(1, len(sections)), _advised(mode, found))
    return Sheets(tuple(sections), switches, act)


def _asked(mode: "PlaceMode", asking: Asking) -> Section:
    drawn = (asking.a, asking.b)
    lines = (
        Note(f"On {mode.compose.piece(asking.piece_id).name}. Its doubt is taken as 5 % until you know better."),
        Field("What it is", asking.what, mode.name_length, "collar, tag, ear", about=drawn),
        Length("Length in life", 0.0, mode.page.studio.unit, mode.add_known, 42.0, about=drawn),
    )
    return Section("A known length", lines)


def _advised(mode: "PlaceMode", found: tuple[Advice, ...]) -> Section:
    first = found[0]
    lines: list[Line] = [Note(f"{first.words}.", "wrong")]
    if first.why:
        lines.append(Note(begun(first.why) + "."))
    lines.append(Press("Meant so", lambda: mode.refuse(first)))
    lines += [Note(f"{a.words}.") for a in found[1:3]]
    if len(found) > 3:
        lines.append(Note(f"{len(found) - 3} more once these are settled."))
    return Section("What could be better", tuple(lines))


def _of_all(mode: "PlaceMode") -> list[Section]:
    compose, c = mode.compose, mode.page.commission
    unit = mode.page.studio.unit
    evidence = mode.page.workroom.desk.evidence.of_all(c.intake.photos)
    lines: list[Line] = [Fact("Canvas", size_text(compose.width_mm, compose.height_mm, unit))]
    for piece in compose.pieces:
        photo = mode.photo_of(piece)
        if photo is not None:
            detail = carried_px_per_mm(compose, photo, evidence.get(photo.id))
            lines.append(Fact(piece.name, f"{detail:.1f}\u202fpx per mm, {detail_word(detail)}", detail_mood(detail)))
    sections = [Section("Sitters", tuple(lines))]
    if compose.pieces:
        sections.append(_scale_section(mode))
        light = _light_lines(mode)
        if light:
            sections.append(Section("Light and what paint cannot mend", tuple(light)))
    sections.append(_ground_section(mode))
    if compose.recoloured:
        sections.append(_part_section(mode))
    focus: tuple[Line, ...] = (Note("Not set. Choose “focus” above and click: later rooms paint most detail there."),)
    if compose.focus is not None:
        focus = (
            Length("Radius", compose.focus.radius_mm, unit, mode.set_focus_radius),
            Note("Full detail within the ring, a third of it beyond the dotted one."),
            Press("Take the focus away", mode.no_focus),
        )
    decision = length_text(compose.focus.radius_mm, unit, 0) + " round the focus" if compose.focus is not None else "none set"
    sections.append(Section("Focus", focus, decision))
    words = (
        "Drag moves, a corner scales, the ring turns. Arrows nudge by 1 mm, Shift by 10; + − scale, < > turn, M mirrors, "
        "Page up and down bring forward and back, O one scale, L life size, ⌦ takes off, N the next sitter."
    )
    sections.append(Section("Hands", (Note(words),), "drag, arrows, + −, < >, M, O, L"))
    return sections


def _scale_section(mode: "PlaceMode") -> Section:
    compose = mode.compose
    lines: list[Line] = []
    for piece in compose.pieces:
        share = mode.scales.share(piece.id, piece.mm_per_px)
        lines.append(Fact(piece.name, share_words(*share) if share is not None else "no length known"))
        if piece.far != 1.0:
            lines.append(Note(f"{piece.name} {far_words(piece.far)}."))
    lines += [Note(words, "wrong") for words in mode.scales.accused]
    known = [p for p in compose.pieces if p.id in mode.scales.sigma]
    if len(known) > 1:
        shares = [s[0] for p in known if (s := mode.scales.share(p.id, p.mm_per_px * p.far)) is not None]
        if max(shares) / min(shares) > 1.02:
            lines.append(Press("Bring all to one scale", mode.one_scale))
    return Section("One scale, share of life", tuple(lines))


def _light_lines(mode: "PlaceMode") -> list[Line]:
    c, compose = mode.page.commission, mode.compose
    evidence = mode.page.workroom.desk.evidence.of_all(c.intake.photos)
    lead = pieces.largest(compose.pieces)
    lead_seen = evidence.get(lead.photo_id) if lead is not None else None
    lines: list[Line] = []
    for piece in compose.pieces:
        seen = evidence.get(piece.photo_id)
        if seen is None:
            continue
        degrees = agreement.light_on(piece, seen.light)
        words = f"{_hour(degrees)} o'clock" if degrees is not None else "not readable"
        lines.append(Fact(f"{piece.name}'s light", words))
        if lead is not None and lead_seen is not None and piece is not lead:
            words = agreement.light_words(piece, seen.light, lead, lead_seen.light)
            if words:
                lines.append(Note(words + ".", "wrong"))
    for piece in compose.pieces:
        own_seen = mode.seen(piece)
        lost = agreement.lost_words(piece.name, own_seen) if own_seen is not None else ""
        if lost:
            lines.append(Note(begun(lost) + ".", "wrong"))
        if piece.mirrored:
            lines.append(Note(f"{piece.name} is mirrored: the markings change sides. Ask the client."))
    return lines


def _hour(degrees: float) -> str:
    """On a clock, to half an hour."""
    halves = round(degrees / 15) % 24
    return f"{halves // 2 or 12}{'½' if halves % 2 else ''}"


def _part_section(mode: "PlaceMode") -> Section:
    """The part last drawn or chosen, tried in another colour."""
    parts = mode.compose.recoloured
    part = next((p for p in parts if p.id == mode.part), parts[-1])
    move = part.move

    def to(**values: float) -> Meaning:
        return mode.set_part(replace(part, move=replace(part.move, **values)))

    lines: list[Line] = []
    if len(parts) > 1:
        lines.append(Pick("Part", part.id, tuple((p.id, p.name) for p in parts), mode.choose_part))
    lines += [
        Field("Called", part.name, lambda v: mode.set_part(replace(part, name=v.strip() or part.name)), about=part.id),
        Amount("Lighter or darker", move.steps, -3, 3, lambda v: to(steps=v), 0.1, 1, "steps"),
        Amount("Warmer or cooler", move.warm, -60, 60, lambda v: to(warm=v), 2, 0),
        Amount("Pinker or greener", move.pink, -60, 60, lambda v: to(pink=v), 2, 0),
        Length("Soft edge", part.soft_mm, mode.page.studio.unit, lambda v: mode.set_part(replace(part, soft_mm=v)), 3.0, True),
        Press(f"Give {part.name} up", lambda: mode.no_part(part.id)),
        Note("Keep it as a variant to compare it with what is now."),
    ]
    return Section("Tried in another colour", tuple(lines))


def _ground_section(mode: "PlaceMode") -> Section:
    ground, compose = mode.compose.ground, mode.compose
    unit = mode.page.studio.unit

    def kind(value: GroundKind) -> Meaning:
        return mode.set_ground(replace(ground, kind=value))

    kinds = tuple((k, k) for k in GROUND_KINDS if k != "photograph" or compose.background is not None)
    lines: list[Line] = [Pick("Background", ground.kind, kinds, kind)]
    if ground.kind == "photograph":
        lines += [
            Length(
                "Out of focus by", ground.blur_mm, unit, lambda v: mode.set_ground(replace(ground, blur_mm=v)), may_be_none=True
            ),
            Amount(
                "Lighter or darker",
                ground.move.steps,
                -3,
                3,
                lambda v: mode.set_ground(_moved(ground, steps=v)),
                0.1,
                1,
                "steps",
            ),
            Amount("Warmer or cooler", ground.move.warm, -30, 30, lambda v: mode.set_ground(_moved(ground, warm=v)), 1, 1),
        ]
        for piece in seen_twice(compose):
            lines.append(Note(f"{piece.name} is seen twice: as placed, and in the photograph behind.", "wrong"))
        said = f"photograph, {agreement.move_words(ground.move)}"
    else:
        for n, end in enumerate(("", " at the far end") if ground.kind == "gradient" else ("",)):

            def to(colour: Lab, n: int = n) -> Meaning:
                return mode.set_ground(_coloured(ground, n, colour))

            lines += [value_line(f"Value{end}", ground.colours[n], to), warmth_line(f"Warmth{end}", ground.colours[n], to)]
        if ground.kind == "gradient":
            lines.append(
                Amount(
                    "Towards, on a clock",
                    round(ground.degrees / 30, 1),
                    0,
                    12,
                    lambda v: mode.set_ground(replace(ground, degrees=(v * 30) % 360)),
                    0.5,
                    1,
                    "h",
                )
            )
        wall = compose.wall.colour
        lines.append(Press("The colour of the client's wall", lambda: mode.set_ground(_coloured(ground, 0, wall))))
        said = f"{ground.kind}, value {value_of(ground.colours[0][0]):.1f}"
    return Section("Background", tuple(lines), said)


def _moved(ground: Ground, **values: float) -> Ground:
    return replace(ground, move=replace(ground.move, **values))


def _coloured(ground: Ground, place: int, colour: Lab) -> Ground:
    colours = list(ground.colours)
    colours[place] = colour
    return replace(ground, colours=(colours[0], colours[1]))
