"""Photographs of the drawing, and the places set on them by hand."""

from dataclasses import dataclass, replace
from datetime import datetime

from yarrow_lane.measure.plane import Point, Polygon

MOST_KEPT = 12  # our choice


@dataclass(frozen=True)
class DrawingPhoto:
    """A photograph of the canvas (content hash, name, upright px) with its corners (px, from the canvas's top left, clockwise).

    `set_by_hand` are places of the drawing, canvas mm, that the painter put right, by name; `made_from` the reference it is held to,
    `off` what was measured when it was last looked at: name and mm, so that the next photograph can say what improved.
    """

    photo_id: str
    name: str
    size_px: tuple[int, int]
    at: datetime
    corners: Polygon
    set_by_hand: tuple[tuple[str, Point], ...] = ()
    made_from: str = ""
    off: tuple[tuple[str, float], ...] = ()


Photos = tuple[DrawingPhoto, ...]


def usual_corners(width_px: int, height_px: int, width_mm: float, height_mm: float) -> Polygon:
    """Where the corners are put first: the canvas's proportion in the middle, eight tenths of the photograph."""
    scale = 0.8 * min(width_px / width_mm, height_px / height_mm)
    wide, high = width_mm * scale, height_mm * scale
    left, top = (width_px - wide) / 2, (height_px - high) / 2
    return (left, top), (left + wide, top), (left + wide, top + high), (left, top + high)


def with_photo(photos: Photos, photo: DrawingPhoto) -> Photos:
    """The newest last; the oldest make room."""
    return (*photos, photo)[-MOST_KEPT:]


def with_corner(photos: Photos, number: int, to: Point) -> Photos:
    """One corner of the newest put elsewhere."""
    last = photos[-1]
    corners = tuple((round(to[0], 2), round(to[1], 2)) if n == number else c for n, c in enumerate(last.corners))
    return (*photos[:-1], replace(last, corners=corners, off=()))


def with_place(photos: Photos, name: str, at: Point) -> Photos:
    """A place of the newest set by hand, canvas mm."""
    last = photos[-1]
    others = tuple(p for p in last.set_by_hand if p[0] != name)
    return (*photos[:-1], replace(last, set_by_hand=(*others, (name, (round(at[0], 2), round(at[1], 2))))))
