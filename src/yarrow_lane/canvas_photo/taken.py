"""A photograph of the canvas, or of paper, as it is on record."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import datetime
from typing import TypeVar

from yarrow_lane.measure.plane import Point, Polygon

MOST_KEPT = 12  # our choice


@dataclass(frozen=True)
class Taken:
    """Content hash, name, upright px, when it came, and its corners (px, from the top left of what it shows, clockwise)."""

    photo_id: str
    name: str
    size_px: tuple[int, int]
    at: datetime
    corners: Polygon


T = TypeVar("T", bound=Taken)


def usual_corners(width_px: int, height_px: int, width_mm: float, height_mm: float) -> Polygon:
    """Where the corners are put when nothing is seen: the canvas's proportion in the middle, eight tenths of the photograph."""
    scale = 0.8 * min(width_px / width_mm, height_px / height_mm)
    wide, high = width_mm * scale, height_mm * scale
    left, top = (width_px - wide) / 2, (height_px - high) / 2
    return (left, top), (left + wide, top), (left + wide, top + high), (left, top + high)


def with_newest(photos: Sequence[T], photo: T) -> tuple[T, ...]:
    """The newest last; the oldest make room, but for the first, which later ones may be laid on."""
    every = (*photos, photo)
    return (every[0], *every[1:][-(MOST_KEPT - 1) :])


def with_corner(photo: T, number: int, to: Point) -> T:
    """One corner put elsewhere."""
    corners = tuple((round(to[0], 2), round(to[1], 2)) if n == number else c for n, c in enumerate(photo.corners))
    return replace(photo, corners=corners)
