"""The eyes marked at Intake as regions of the painting."""

from dataclasses import dataclass

from yarrow_lane.commission.commission import Commission
from yarrow_lane.compose.places import BEHIND, Seen, place_of, places_of_px
from yarrow_lane.compose.reference import photographs_of
from yarrow_lane.intake.brief import SitterKind
from yarrow_lane.intake.photos import Eye, Photo
from yarrow_lane.intake.sides import sitters_own
from yarrow_lane.layers.regions import Layers, add_region
from yarrow_lane.layers.usual import eye_outline
from yarrow_lane.measure.plane import Point, Polygon


@dataclass(frozen=True)
class PlacedEye:
    """An eye marked at Intake as it lies on the canvas: `piece_id` of what shows it, the outline of its opening in canvas mm."""

    eye: Eye
    photo: Photo
    piece_id: int
    at_mm: Point
    outline: Polygon


def eyes_on_canvas(c: Commission) -> tuple[PlacedEye, ...]:
    """All marked eyes that are seen on the canvas; the openings are a guess by the kind of sitter."""
    compose = c.compose
    found: list[PlacedEye] = []
    shown = set(photographs_of(compose)) if compose.framed else set()
    for photo in (p for p in c.intake.photos if p.id in shown):
        for eye in photo.eyes:
            for piece_id, at in places_of_px(compose, photo.id, (eye.x, eye.y)):
                corners = eye_outline(eye, _kind(c, photo, piece_id))
                placed = (place_of(compose, Seen(piece_id, photo.id, corner)) for corner in corners)
                found.append(PlacedEye(eye, photo, piece_id, at, tuple(p for p in placed if p is not None)))
    return tuple(found)


def _kind(c: Commission, photo: Photo, piece_id: int) -> SitterKind:
    sitter_id = photo.sitter_id if piece_id == BEHIND else c.compose.piece(piece_id).sitter_id or photo.sitter_id
    shown = c.brief.sitter(sitter_id) or next(iter(c.brief.sitters), None)
    return shown.kind if shown is not None else "other"


def eyes_to_outline(c: Commission) -> tuple[PlacedEye, ...]:
    """The eyes that can be outlined from their marks; none once any eye is outlined."""
    return () if any(r.kind == "eye" for r in c.layers.regions) else eyes_on_canvas(c)


def with_eyes(c: Commission) -> Layers:
    """The layers with a region for each of them; sides are the sitter's own, and of several sitters the name is told."""
    layers = c.layers
    for placed in eyes_to_outline(c):
        own = sitters_own(placed.eye.side)
        mirrored = placed.piece_id != BEHIND and c.compose.piece(placed.piece_id).mirrored
        side = ("left" if own == "right" else "right") if mirrored else own
        whose = c.compose.piece(placed.piece_id).name if placed.piece_id != BEHIND and len(c.compose.pieces) > 1 else ""
        name = f"{whose}'s {side} eye" if whose else f"{side} eye"
        layers = add_region(layers, "eye", placed.outline, c.compose.canvas, name)
    return layers
