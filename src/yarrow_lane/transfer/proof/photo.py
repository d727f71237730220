"""Photographs of the drawing, and the places set on them by hand."""

from dataclasses import dataclass, replace

from yarrow_lane.canvas_photo import taken
from yarrow_lane.canvas_photo.taken import Taken
from yarrow_lane.measure.plane import Point


@dataclass(frozen=True)
class DrawingPhoto(Taken):
    """A photograph of the drawing.

    `set_by_hand` are places of the drawing, canvas mm, that the painter put right, by name; `made_from` the reference it is held to,
    `off` what was measured when it was last looked at: name and mm, so that the next photograph can say what improved.
    """

    set_by_hand: tuple[tuple[str, Point], ...] = ()
    made_from: str = ""
    off: tuple[tuple[str, float], ...] = ()


Photos = tuple[DrawingPhoto, ...]


def with_corner(photos: Photos, number: int, to: Point) -> Photos:
    """One corner of the newest put elsewhere: what was measured from there counts no more."""
    return (*photos[:-1], replace(taken.with_corner(photos[-1], number, to), off=()))


def with_place(photos: Photos, name: str, at: Point) -> Photos:
    """A place of the newest set by hand, canvas mm."""
    last = photos[-1]
    others = tuple(p for p in last.set_by_hand if p[0] != name)
    return (*photos[:-1], replace(last, set_by_hand=(*others, (name, (round(at[0], 2), round(at[1], 2))))))
