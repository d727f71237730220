"""The one reference picture by name: what it is made of, what counts as another one, and at what scales it is asked for."""

import hashlib
from collections.abc import Sequence
from dataclasses import replace

from yarrow_lane.compose.composition import Compose
from yarrow_lane.compose.ground import Ground
from yarrow_lane.compose.pieces import Move, Piece
from yarrow_lane.compose.places import BEHIND, photo_px_per_mm
from yarrow_lane.measure.kept import kept
from yarrow_lane.measure.plane import Rect

VERSION = 1  # raise it when the same composition renders to other pixels
FINEST_PX_PER_MM = 6.0  # of canvas: our choice, a 0.5 mm stroke needs two pixels; an edge worked out finer is not painted
_SMALL_PX, _SCREEN_PX = 400, 1200  # our choice: a cut-out's longer side for thumbnails, and for all that is only looked at


def screen_scale(piece: Piece) -> float:
    """The scale of the photograph's px at which a piece is cut out to be looked at."""
    return _scale_of(piece, _SCREEN_PX)


def _scale_of(piece: Piece, longer_px: int) -> float:
    bounds = piece.bounds
    return min(1.0, longer_px / max(1.0, bounds.width, bounds.height))


def _fine_scale(piece: Piece) -> float:
    """In steps of a quarter of an octave, so that a nudge of its size does not ask for it anew."""
    fine = 1.0
    while fine / piece.mm_per_px > FINEST_PX_PER_MM:
        fine *= 2**-0.25
    return fine


def cut_scale(piece: Piece, px_per_mm: float) -> float:
    """At which of three scales a picture of so many px per mm needs it: as a thumbnail, as looked at, or for print."""
    needed = piece.mm_per_px * px_per_mm
    looked_at = screen_scale(piece)
    for scale in (_scale_of(piece, _SMALL_PX), looked_at):
        if needed <= scale * 1.05:
            return scale
    return max(looked_at, _fine_scale(piece))


def cut_key(piece: Piece, scale: float) -> tuple[object, ...]:
    """What a cut-out is made from."""
    return piece.photo_id, piece.outline, scale


def outline_key(outline: Sequence[object]) -> str:
    """A short name of an outline with its coats."""
    return hashlib.sha256(repr(tuple(outline)).encode()).hexdigest()[:16]


@kept(64)
def reference_key(compose: Compose) -> str:
    """A short name of the reference: equal compositions have equal names; empty while there is none.

    What is not seen does not count: names, known lengths, sides, the wall. A photograph alone is named as it was before there were
    pieces, so that what older studios were painted from is still known.
    """
    if not compose.framed:
        return ""
    laid = compose.behind
    crop = None if laid is None else Rect(*(float(x) for x in (laid.crop.x, laid.crop.y, laid.crop.width, laid.crop.height)))
    framed = f"Framed(photo_id={laid.photo_id!r}, crop={crop!r})" if laid is not None else "None"
    # Stock sizes and whole photographs are whole numbers until they are read again: 200 and 200.0 must not have two names.
    made_of = f"({VERSION}, {float(compose.width_mm)!r}, {float(compose.height_mm)!r}, {framed})"
    if compose.pieces or compose.ground != Ground() or compose.recoloured:
        seen = tuple(replace(p, name="", far=1.0, sitter_id=0) for p in compose.pieces)
        made_of += repr((_ground_seen(compose.ground), seen))
        made_of += repr(tuple(replace(r, name="", id=0) for r in compose.recoloured if not r.move.plain) or "")
    return hashlib.sha256(made_of.encode()).hexdigest()[:16]


def _ground_seen(ground: Ground) -> Ground:
    """Without what its kind does not show."""
    match ground.kind:
        case "photograph":
            return replace(ground, colours=((0.0, 0.0, 0.0),) * 2, degrees=0.0)
        case "colour":
            return replace(ground, colours=(ground.colours[0],) * 2, degrees=0.0, blur_mm=0.0, move=Move())
        case "gradient":
            return replace(ground, blur_mm=0.0, move=Move())


def working_px_per_mm(compose: Compose, longer_px: int) -> float:
    """The scale at which the whole canvas is at most `longer_px` long and not every photograph is enlarged."""
    whole = longer_px / max(compose.width_mm, compose.height_mm)
    own = [photo_px_per_mm(compose, p.id) for p in compose.pieces]
    if compose.behind is not None:
        own.append(photo_px_per_mm(compose, BEHIND))
    return min(whole, max(own))


def photographs_of(compose: Compose) -> tuple[str, ...]:
    """The ids of all photographs the reference is made of, each once."""
    behind = (compose.behind.photo_id,) if compose.behind is not None else ()
    return tuple(dict.fromkeys((*behind, *(p.photo_id for p in compose.pieces))))
