"""The eyes marked at Intake as regions of the painting."""

from yarrow_lane.commission.commission import Commission
from yarrow_lane.compose.composition import to_canvas
from yarrow_lane.intake.photos import Eye, Photo
from yarrow_lane.intake.sides import sitters_own
from yarrow_lane.layers.regions import Layers, add_region
from yarrow_lane.layers.usual import eye_outline


def _framed(c: Commission) -> Photo | None:
    """The photograph that is framed and still there."""
    laid = c.compose.background if c.compose.framed else None
    return next((p for p in c.intake.photos if laid is not None and p.id == laid.photo_id), None)


def eyes_to_outline(c: Commission) -> tuple[Eye, ...]:
    """The eyes marked on the framed photograph whose middle lies on the canvas; none once any eye is outlined."""
    photo = _framed(c)
    if photo is None or any(r.kind == "eye" for r in c.layers.regions):
        return ()
    return tuple(e for e in photo.eyes if c.compose.canvas.holds(to_canvas(c.compose, (e.x, e.y))))


def with_eyes(c: Commission) -> Layers:
    """The layers with a region for each of them; the openings are a guess by the kind of sitter."""
    photo = _framed(c)
    shown = (c.brief.sitter(photo.sitter_id) if photo is not None else None) or next(iter(c.brief.sitters), None)
    kind = shown.kind if shown is not None else "other"
    layers = c.layers
    for eye in eyes_to_outline(c):
        outline = tuple(to_canvas(c.compose, corner) for corner in eye_outline(eye, kind))
        layers = add_region(layers, "eye", outline, c.compose.canvas, f"{sitters_own(eye.side)} eye")
    return layers
