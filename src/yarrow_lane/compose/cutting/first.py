"""A first line round a sitter, from its marks: only a place to begin, before the painter has drawn anything."""

import math
from collections.abc import Sequence
from typing import TYPE_CHECKING

import numpy as np

from yarrow_lane.intake.landmarks import Landmark
from yarrow_lane.intake.photos import Eye, Photo
from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Polygon

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

# Round the head, and down from it as wide as shoulders: our choice, in lengths of the head.
_ROUND, _SHOULDERS = 0.75, 1.1
TOO_UNSURE = 0.5  # share of the border that is weak: a guess found so unsurely is not shown. Our choice
_HEAD_OF_EYES = 2.6  # head's length in distances of the eyes, where chin and crown are not marked: our choice


def first_loop(photo: Photo) -> Polygon:
    """A loop round where head and body should be; empty without two eyes or a chin and a crown."""
    at = {m.name: (m.x, m.y) for m in photo.landmarks}
    head = _head(photo.eyes, photo.landmarks)
    if head is None:
        return ()
    (x, y), length = head
    turns = np.linspace(0, 2 * np.pi, 24, endpoint=False)
    ring = np.stack([x + _ROUND * length * np.cos(turns), y + _ROUND * length * np.sin(turns)], axis=1)
    foot = photo.height_px - 1.0
    chin = y + length / 2
    body = [
        (x - _SHOULDERS * length, foot),
        (x + _SHOULDERS * length, foot),
        (x - 0.6 * length, chin),
        (x + 0.6 * length, chin),
    ]
    points = np.vstack([ring, body, list(at.values()) or ring[:1]]).astype(np.float32)
    hull = cv2.convexHull(points)[:, 0]
    return tuple((float(min(max(0.0, px), photo.width_px - 1)), float(min(max(0.0, py), foot))) for px, py in hull)


def _head(eyes: Sequence[Eye], marks: Sequence[Landmark]) -> tuple[tuple[float, float], float] | None:
    at = {m.name: (m.x, m.y) for m in marks}
    if "crown" in at and "chin" in at:
        (x0, y0), (x1, y1) = at["crown"], at["chin"]
        return ((x0 + x1) / 2, (y0 + y1) / 2), math.dist(at["crown"], at["chin"])
    if len(eyes) == 2:
        one, two = eyes
        return ((one.x + two.x) / 2, (one.y + two.y) / 2), _HEAD_OF_EYES * math.dist((one.x, one.y), (two.x, two.y))
    return None
