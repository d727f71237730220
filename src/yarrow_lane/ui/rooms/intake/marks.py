"""Each measure's place on the photograph, as plain values to be drawn."""

import math
from dataclasses import dataclass

from yarrow_lane.intake.evidence import Evidence, near_eye
from yarrow_lane.intake.landmarks import Landmark, head_length_px
from yarrow_lane.intake.light import Glint
from yarrow_lane.intake.photos import Eye, Photo
from yarrow_lane.intake.sharpness import eye_rect
from yarrow_lane.measure.lengths import THIN_SPACE
from yarrow_lane.measure.plane import Point, Rect


@dataclass(frozen=True)
class LightShown:
    """The light as an arrow that points at `to` from `degrees` clockwise of twelve, `reach` px long."""

    to: Point
    degrees: float
    reach: float
    sure: bool
    words: str


@dataclass(frozen=True)
class MarksShown:
    """What is drawn over the photograph (upright px); `mark` is what the painter marks now."""

    mark: str
    eyes: tuple[Eye, ...] = ()
    points: tuple[Landmark, ...] = ()
    glints: tuple[Glint, ...] = ()
    lids: tuple[Rect, str] | None = None
    head: tuple[Point, Point, str] | None = None
    light: LightShown | None = None


def marks_shown(photo: Photo, evidence: Evidence | None, mark: str) -> MarksShown:
    """Where the iris, the lids, the glints, the light and the head were measured."""
    near = near_eye(photo.eyes)
    lids = light = head = None
    if near is not None and evidence is not None and evidence.sharpness is not None:
        lids = eye_rect(near), f"lids {evidence.sharpness:.0f} × the noise"
    if near is not None and evidence is not None and evidence.light.degrees is not None:
        degrees, sure = evidence.light.degrees, evidence.light.confidence == "sure"
        # The arrow ends outside both eyes, so that it points at the face and hides neither.
        xs, ys = [e.x for e in photo.eyes], [e.y for e in photo.eyes]
        middle = sum(xs) / len(xs), sum(ys) / len(ys)
        reach = math.hypot(max(xs) - min(xs), max(ys) - min(ys)) / 2 + 3 * near.radius_px
        light = LightShown(middle, degrees, reach, sure, f"light {degrees:.0f}°")
    length = head_length_px(photo.landmarks)
    if length is not None:
        at = {m.name: (m.x, m.y) for m in photo.landmarks}
        head = at["crown"], at["chin"], f"head {length:.0f}{THIN_SPACE}px"
    return MarksShown(mark, photo.eyes, photo.landmarks, evidence.glints if evidence else (), lids, head, light)
