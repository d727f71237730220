"""The bench of one sitter placed: its size in life, known lengths, colour, order."""

import math
from functools import partial
from typing import TYPE_CHECKING

from yarrow_lane.compose import agreement
from yarrow_lane.compose.detail import carried_px_per_mm, detail_word
from yarrow_lane.compose.known import DOUBT_SHARE, PUPILS_DOUBT_MM, PUPILS_MM, Known
from yarrow_lane.compose.pieces import Piece
from yarrow_lane.compose.placing import open_cuts
from yarrow_lane.compose.scale import share_words
from yarrow_lane.intake.photos import Photo
from yarrow_lane.measure.lengths import length_text
from yarrow_lane.measure.words import begun
from yarrow_lane.ui.bench_sheet import Amount, Fact, Line, Note, Press, Section
from yarrow_lane.ui.words import detail_mood

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.compose.place_mode import PlaceMode

_MOST_TURNED = 70  # degrees: our choice, less than a third of a length says too little


def of_one(mode: "PlaceMode", piece: Piece) -> list[Section]:
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
        turned = round(math.degrees(math.acos(min(1.0, known.seen))))
        to = partial(mode.turn_known, known)
        lines.append(Amount("turned out of the view by", turned, 0, _MOST_TURNED, to, 5, 0, "°"))
        lines.append(Press(f"Give the {known.what} up", partial(mode.forget_known, known)))
    sitter = c.brief.sitter(piece.sitter_id)
    names = {k.what for k in own}
    if photo is not None and "pupils" not in names and len(photo.eyes) == 2 and sitter is not None and sitter.kind == "person":
        one, two = ((e.x, e.y) for e in photo.eyes)
        if not sitter.child:
            words = f"Use the pupils: {PUPILS_MM:g} mm ± {PUPILS_DOUBT_MM:g}, an adult's mean"
            told = Known(piece.id, "pupils", one, two, PUPILS_MM, PUPILS_DOUBT_MM, "published mean for adults")
            lines.append(Press(words, partial(mode.know, told)))
    marks = {m.name: (m.x, m.y) for m in photo.landmarks} if photo is not None else {}
    if "head" not in names and sitter is not None and sitter.head_mm > 0 and "crown" in marks and "chin" in marks:
        words = f"Use the head: {sitter.head_mm:g} mm from crown to chin, as told"
        mm = sitter.head_mm
        head = Known(piece.id, "head", marks["crown"], marks["chin"], mm, DOUBT_SHARE * mm, "told by the client")
        lines.append(Press(words, partial(mode.know, head)))
    if not own and not lines:
        lines.append(Note("Choose “length” above and draw one that you know: a collar, a tag, nose to ear."))
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
    if abs(piece.far - 1) > 0.05 and move.contrast == 1:  # once: pressed again it would be cooler and cooler
        how = "cooler, flatter" if piece.far > 1 else "warmer, more contrast"
        lines.append(Press(f"Let its distance show: {how}", mode.show_distance))
    if not move.plain:
        lines.append(Press("As photographed", lambda: mode.set_move(steps=0.0, contrast=1.0, warm=0.0, pink=0.0)))
    return Section("Colour", tuple(lines), agreement.move_words(move))
