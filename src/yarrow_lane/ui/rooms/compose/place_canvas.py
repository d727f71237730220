"""What lies over the canvas while sitters are placed: advice, focus, known lengths, shares of life."""

import math
from collections.abc import Sequence
from typing import TYPE_CHECKING

from yarrow_lane.compose import pieces
from yarrow_lane.compose.advice import Advice
from yarrow_lane.compose.composition import Compose
from yarrow_lane.compose.scale import share_words
from yarrow_lane.measure.lengths import length_text
from yarrow_lane.ui.kit.overlays import Box, Outline, Overlay, Ring, Wash, Words

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.compose.place_mode import PlaceMode

_RED = (138, 47, 18)


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
                    pieces.scaled(compose.piece(a.piece_id), a.factor, pieces.foot(compose.piece(a.piece_id))),
                    a.across_mm,
                    a.down_mm,
                )
                shown += [Outline(ring, "light", 1.2, "dashes") for ring in ghost.outline_mm]
    for part in compose.recoloured:
        if part.id == mode.part or part.move.plain:
            shown.append(Outline(part.outline, "faint", 1.2, "dashes"))
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
        box = piece.bounds_mm
        # Above its head, where no coat lies under the words.
        aside = 0.22 if piece.id == mode.chosen else 0.5  # the chosen one's ring for turning stands over its middle
        at = box.x + aside * box.width, max(box.y, 0.05 * compose.height_mm)
        at = min(max(at[0], 0.1 * compose.width_mm), 0.9 * compose.width_mm), at[1]
        text = words if words and piece.id == mode.chosen else share_words(*share) if share is not None else ""
        if text:
            shown.append(Words(at, text, "over", shift=(0.0, -12.0)))
    if mode.asking is not None:
        begin, end = mode.asking.a, mode.asking.b
        shown += [
            Outline((begin, end), "here", 2.4, closed=False),
            Words(end, f"{length_text(math.dist(begin, end), unit, 1)} on the canvas"),
        ]
    return tuple(shown)
