"""What is shown and said while sitters are placed."""

import math
from collections.abc import Callable, Sequence
from dataclasses import replace
from typing import TYPE_CHECKING

from yarrow_lane.compose import agreement, pieces
from yarrow_lane.compose.advice import Advice
from yarrow_lane.compose.composition import Compose
from yarrow_lane.compose.detail import carried_px_per_mm, detail_word
from yarrow_lane.compose.drawing.colour_move import WARM_DEG, warm_and_pink
from yarrow_lane.compose.ground import GROUND_KINDS, Ground, GroundKind, Lab
from yarrow_lane.compose.known import PUPILS_DOUBT_MM, PUPILS_MM
from yarrow_lane.compose.pieces import Piece
from yarrow_lane.compose.placing import open_cuts
from yarrow_lane.compose.scale import Scales, far_words, share_words
from yarrow_lane.intake.photos import Photo
from yarrow_lane.measure.colour.munsell_value import lightness_of, value_of
from yarrow_lane.measure.lengths import length_text, size_text
from yarrow_lane.measure.plane import Point
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
from yarrow_lane.ui.kit.overlays import Box, Outline, Overlay, Ring, Wash, Words
from yarrow_lane.ui.rooms.compose.depth_strip import Standing
from yarrow_lane.ui.rooms.compose.mode import Sheets
from yarrow_lane.ui.words import detail_mood

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.compose.place_mode import PlaceMode

LIFE_M = 2.0  # how far the eye is from something drawn at life size: our choice, it only sets the strip's metres
_RED = (138, 47, 18)
_HANDS = ("moves", "marks a length", "picks a neutral", "sets the focus")


def standings(compose: Compose, scales: Scales) -> tuple[Standing, ...]:
    """Every sitter at its distance: a share of life s is seen from `LIFE_M` / s; unknown ones stand by their `far`."""
    known = [scales.share(p.id, p.mm_per_px) for p in compose.pieces]
    usual = [LIFE_M / share[0] / p.far for p, share in zip(compose.pieces, known, strict=True) if share is not None]
    middle = math.exp(sum(map(math.log, usual)) / len(usual)) if usual else LIFE_M
    high = max((pieces.bounds_mm(p).height for p in compose.pieces), default=1.0)
    found = []
    for p, share in zip(compose.pieces, known, strict=True):
        metres = LIFE_M / share[0] if share is not None else middle * p.far
        tall = max(0.25, pieces.bounds_mm(p).height / high)
        words = f"{metres:.2f}\u202fm" if share is not None else "size not known"
        found.append(Standing(p.id, p.name, metres, tall, share is not None, words))
    return tuple(found)


# --- on the canvas


def place_overlays(
    mode: "PlaceMode", compose: Compose, found: Sequence[Advice], words: str = ""
) -> tuple[Overlay, ...]:  # fmt: skip
    """Rooms that are too tight, the focus, the known lengths, and the share of life of each sitter beside it."""
    shown: list[Overlay] = []
    unit = mode.page.studio.unit
    if not words:
        for a in found[:1]:
            if a.room is not None:
                shown += [Wash(a.room, _RED, 70), Box(a.room, "light", 1.0, "dashes")]
            if a.can_be_done and a.piece_id:
                ghost = pieces.moved(
                    pieces.scaled(compose.piece(a.piece_id), a.factor, _foot(compose.piece(a.piece_id))), a.across_mm, a.down_mm
                )
                shown += [Outline(ring, "light", 1.2, "dashes") for ring in pieces.outline_mm(ghost)]
    if compose.focus is not None:
        f = compose.focus
        shown.append(Ring(f.at_mm, f.radius_mm, "here", 1.2))
        if mode.hand == "sets the focus":
            shown.append(Ring(f.at_mm, 4 * f.radius_mm, "faint", 1.0, line="dots"))
    for known in compose.known:
        piece = next((p for p in compose.pieces if p.id == known.piece_id), None)
        if piece is not None and piece.id == mode.chosen:
            begin, end = pieces.to_canvas(piece, known.a), pieces.to_canvas(piece, known.b)
            ends = [Ring(p, radius_px=4, ink="light", weight=1.6) for p in (begin, end)]
            shown += [
                Outline((begin, end), "light", 1.6, closed=False),
                *ends,
                Words(end, f"{known.what} {known.mm:g}\u202fmm"),
            ]
    for piece in compose.pieces:
        share = mode.scales.share(piece.id, piece.mm_per_px)
        if share is None and piece.id != mode.chosen:
            continue
        box = pieces.bounds_mm(piece)
        # Above its head, where no coat lies under the words.
        aside = 0.22 if piece.id == mode.chosen else 0.5  # the chosen one's ring for turning stands over its middle
        at = box.x + aside * box.width, max(box.y, 0.05 * compose.height_mm)
        at = min(max(at[0], 0.1 * compose.width_mm), 0.9 * compose.width_mm), at[1]
        text = words if words and piece.id == mode.chosen else share_words(*share) if share is not None else ""
        if text:
            shown.append(Words(at, text, "over", shift=(0.0, -12.0)))
    if mode.asking is not None:
        begin, end, _ = mode.asking
        shown += [
            Outline((begin, end), "here", 2.4, closed=False),
            Words(end, f"{length_text(math.dist(begin, end), unit, 1)} on the canvas"),
        ]
    return tuple(shown)


def _foot(piece: Piece) -> Point:
    box = pieces.bounds_mm(piece)
    return box.centre[0], box.bottom


# --- on the bench


def place_sheets(mode: "PlaceMode", found: tuple[Advice, ...], act: NextAct | None) -> Sheets:
    """One sitter when one is chosen, else the whole."""
    switches = (Switch("The hand", tuple((h, h) for h in _HANDS), mode.use, mode.hand),)
    sections: list[Section] = []
    if mode.asking is not None:
        sections.append(_asked(mode))
    piece = mode.piece
    sections += _of_one(mode, piece) if piece is not None else _of_all(mode)
    if found:
        sections.insert(min(1, len(sections)), _advised(mode, found))
    return Sheets(tuple(sections), switches, act)


def _asked(mode: "PlaceMode") -> Section:
    assert mode.asking is not None
    piece_id = mode.asking[2]
    name = mode.compose.piece(piece_id).name
    state = {"what": "a length"}

    def what(text: str) -> Meaning:
        state["what"] = text.strip() or "a length"
        return None

    def mm(value: float) -> Meaning:
        return mode.add_known(state["what"], value, source="measured")

    lines = (
        Note(f"On {name}. Its doubt is taken as 5 % until you know better."),
        Field("What it is", "", what, "collar, tag, ear", about=mode.asking),
        Length("Length in life", 0.0, mode.page.studio.unit, mm, "4.2 cm", about=mode.asking),
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
    focus: tuple[Line, ...] = (Note("Not set. Choose “sets the focus” and click: later rooms paint most detail there."),)
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
        "Page up and down bring forward and back, O one scale, L life size, ⌦ takes off, Tab the next sitter."
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
    lead = max(compose.pieces, key=lambda p: pieces.bounds_mm(p).width * pieces.bounds_mm(p).height)
    lead_light = evidence[lead.photo_id].light if lead.photo_id in evidence else None
    lines: list[Line] = []
    for piece in compose.pieces:
        seen = evidence.get(piece.photo_id)
        if seen is None:
            continue
        degrees = seen.light.degrees
        if degrees is not None:
            own = (-degrees) % 360 if piece.mirrored else degrees
            hour = round(((own + piece.turn_deg) % 360) / 30 * 2) / 2 or 12
            lines.append(Fact(f"{piece.name}'s light", f"{_hour(hour)} o'clock"))
        else:
            lines.append(Fact(f"{piece.name}'s light", "not readable"))
        if piece is not lead and lead_light is not None and lead.photo_id != piece.photo_id:
            words = agreement.light_words(piece.name, seen.light, lead.name, lead_light, piece.mirrored)
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


def _hour(hour: float) -> str:
    whole = int(hour)
    return f"{whole or 12}{'½' if hour - whole else ''}"


def _of_one(mode: "PlaceMode", piece: Piece) -> list[Section]:
    compose = mode.compose
    share = mode.scales.share(piece.id, piece.mm_per_px)
    photo = mode.photo_of(piece)
    evidence = mode.page.workroom.desk.evidence.of_all((photo,)) if photo is not None else {}
    lines: list[Line] = [Fact("Share of life", share_words(*share) if share is not None else "no length known")]
    if photo is not None:
        detail = carried_px_per_mm(compose, photo, evidence.get(photo.id))
        lines.append(Fact("It carries", f"{detail:.1f}\u202fpx per mm, {detail_word(detail)}", detail_mood(detail)))
    lines.append(Amount("Turned", round(piece.turn_deg, 1), -180, 180, mode.set_turn, 1.0, 1, "°"))
    for side, away in open_cuts(compose, piece.id, (photo.width_px, photo.height_px)) if photo is not None else ():
        words = (
            f"Its own photograph cuts {piece.name} off {length_text(away, mode.page.studio.unit, 0)} inside the {side} edge."
        )
        lines.append(Note(words, "wrong"))
    if photo is not None and open_cuts(compose, piece.id, (photo.width_px, photo.height_px)):
        lines.append(Press("Lay the cut to the canvas's edge", mode.snap))
    sections = [Section(piece.name, tuple(lines)), _known_section(mode, piece, photo), _colour_section(mode, piece)]
    place = [p.id for p in compose.pieces].index(piece.id)
    rows: list[Line] = [Press("Mirror", mode.mirror)]
    if place < len(compose.pieces) - 1:
        rows.append(Press("Bring forward", lambda: mode.nearer(1)))
    if place > 0:
        rows.append(Press("Bring back", lambda: mode.nearer(-1)))
    rows.append(Press("Take off the canvas", mode.take_off))
    sections.append(Section("Order and side", tuple(rows), f"{place + 1} of {len(compose.pieces)} from the back"))
    return sections


def _known_section(mode: "PlaceMode", piece: Piece, photo: Photo | None) -> Section:
    c = mode.page.commission
    lines: list[Line] = []
    own = [k for k in mode.compose.known if k.piece_id == piece.id]
    for known in own:
        doubt = f"± {100 * known.doubt_mm / known.mm:.0f} %"
        lines.append(Fact(begun(known.what), f"{known.mm:g}\u202fmm {doubt}"))
        lines.append(Press(f"Give the {known.what} up", lambda k=known: mode.forget_known(k)))  # type: ignore[misc]
    sitter = c.brief.sitter(piece.sitter_id)
    names = {k.what for k in own}
    if photo is not None and "pupils" not in names and len(photo.eyes) == 2 and sitter is not None and sitter.kind == "person":
        one, two = ((e.x, e.y) for e in photo.eyes)
        if not sitter.child:
            words = f"Use the pupils: {PUPILS_MM:g} mm ± {PUPILS_DOUBT_MM:g}, an adult's mean"
            lines.append(Press(words, lambda: mode.use_pupils(one, two, PUPILS_MM, PUPILS_DOUBT_MM)))
    marks = {m.name: (m.x, m.y) for m in photo.landmarks} if photo is not None else {}
    if "head" not in names and sitter is not None and sitter.head_mm > 0 and "crown" in marks and "chin" in marks:
        words = f"Use the head: {sitter.head_mm:g} mm from crown to chin, as told"
        lines.append(Press(words, lambda: mode.use_head(marks["crown"], marks["chin"], sitter.head_mm, "told by the client")))
    if not own and not lines:
        lines.append(Note("Choose “marks a length” and draw one that you know: a collar, a tag, nose to ear."))
    lines += [Note(words, "wrong") for words in mode.scales.accused if words.startswith(piece.name)]
    share = mode.scales.share(piece.id, piece.mm_per_px)
    if share is not None and abs(share[0] - 1) > 0.005:
        lines.append(Press("Life size", mode.life_size))
    return Section("Known lengths", tuple(lines))


def _colour_section(mode: "PlaceMode", piece: Piece) -> Section:
    move = piece.move
    lines: list[Line] = []
    seen, lead = mode.seen(piece), mode.lead
    there = mode.seen(lead) if lead is not None else None
    if seen is not None and there is not None and lead is not None:
        by = agreement.value_between(seen, there)
        word = "lighter" if by > 0 else "darker"
        lines.append(Fact(f"Beside {lead.name}", f"{abs(by):.1f} steps {word}" if abs(by) >= 0.05 else "as light"))
    lines += [
        Amount("Lighter or darker", move.steps, -3, 3, lambda v: mode.set_move(steps=v), 0.1, 1, "steps"),
        Amount("Contrast", move.contrast, 0.5, 2, lambda v: mode.set_move(contrast=v), 0.05, 2, "×"),
        Amount("Warmer or cooler", move.warm, -30, 30, lambda v: mode.set_move(warm=v), 1, 1),
        Amount("Pinker or greener", move.pink, -30, 30, lambda v: mode.set_move(pink=v), 1, 1),
    ]
    if lead is not None:
        lines.append(Press(f"Agree with {lead.name}, a guess", mode.agree))
        lines.append(
            Note(
                "A coat can pass for a cast: only white balance is guessed, at half strength. One neutral clicked in both is surer."
            )
        )
    if not move.plain:
        lines.append(Press("As photographed", lambda: mode.set_move(steps=0.0, contrast=1.0, warm=0.0, pink=0.0)))
    return Section("Colour", tuple(lines), agreement.move_words(move))


def _ground_section(mode: "PlaceMode") -> Section:
    ground, compose = mode.compose.ground, mode.compose
    unit = mode.page.studio.unit

    def kind(value: GroundKind) -> Meaning:
        return mode.set_ground(replace(ground, kind=value))

    kinds = tuple((k, k) for k in GROUND_KINDS if k != "photograph" or compose.background is not None)
    lines: list[Line] = [Pick("Background", ground.kind, kinds, kind)]
    if ground.kind == "photograph":
        lines += [
            Length("Out of focus by", ground.blur_mm, unit, lambda v: mode.set_ground(replace(ground, blur_mm=v)), "0", True),
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
        said = f"photograph, {agreement.move_words(ground.move)}"
    else:
        ends = ("Value", "Value at the far end") if ground.kind == "gradient" else ("Value",)
        for n, label in enumerate(ends):
            lines += _colour_lines(label, ground.colours[n], lambda lab, n=n: mode.set_ground(_coloured(ground, n, lab)))  # type: ignore[misc]
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


def _colour_lines(label: str, colour: Lab, to: Callable[[Lab], Meaning]) -> list[Line]:
    warm, _ = warm_and_pink(colour[1], colour[2])
    return [
        Amount(label, round(value_of(colour[0]), 1), 0, 10, lambda v: to((lightness_of(v), colour[1], colour[2])), 0.1, 1),
        Amount(f"Warmth{label[5:]}", round(warm, 1), -40, 40, lambda v: to(_warmed(colour, v)), 1, 1),
    ]


def _warmed(colour: Lab, warm: float) -> Lab:
    cos, sin = math.cos(math.radians(WARM_DEG)), math.sin(math.radians(WARM_DEG))
    return colour[0], round(warm * cos, 2), round(warm * sin, 2)


def _moved(ground: Ground, **values: float) -> Ground:
    return replace(ground, move=replace(ground.move, **values))


def _coloured(ground: Ground, place: int, colour: Lab) -> Ground:
    colours = list(ground.colours)
    colours[place] = colour
    return replace(ground, colours=(colours[0], colours[1]))
