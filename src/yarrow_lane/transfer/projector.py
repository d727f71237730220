"""A projector before the canvas: how large, how far away, how bright, how fine.

Illuminance is lumens over the area of the whole image (lx = lm/m2, SI); the throw ratio is distance over image width; contrast with
the light of the room is (E + A) / (E / C + A).
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from yarrow_lane.measure.plane import Point
from yarrow_lane.measure.similarity import similarity
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.measure.words import begun

LEAST_CONTRAST = 3.0  # our choice: an outline is read from about 3 : 1
EASY_CONTRAST = 10.0  # our choice
ARM_SHARE = 0.03  # of the canvas's shorter side: half a cross of the full screen; our choice
FINEST_PX = 3  # our choice: an outline takes three px
# From memory: rooms a painter works in, lux.
ROOMS: tuple[tuple[str, float], ...] = (("lamp turned down", 20.0), ("blind down at noon", 150.0), ("daylight", 600.0))
_TRIFLE_MM, _TRIFLE_DEG = 1.0, 0.1  # our choice: less is not set right by hand


class ProjectorTrouble(Trouble):
    """A projector that shows nothing."""


@dataclass(frozen=True)
class Projector:
    """`throw` is distance over image width, the picture in px, `contrast` its own in a dark room; `upright`: turned on its side."""

    throw: float = 1.5
    wide_px: int = 1920
    high_px: int = 1080
    lumens: float = 500.0
    contrast: float = 1000.0
    upright: bool = False


@dataclass(frozen=True)
class Projected:
    """What lands on the wall, mm and lux; `most_lux` of room light at which an outline is still read."""

    width_mm: float
    height_mm: float
    distance_mm: float
    mm_per_px: float
    lux: float
    contrast: float
    finest_mm: float
    most_lux: float


def project(projector: Projector, width_mm: float, height_mm: float, room_lux: float) -> Projected:
    """The smallest image that covers the canvas. Raises `ProjectorTrouble` for a projector or a room that cannot be."""
    p = projector
    for value, what in ((p.throw, "throw"), (p.lumens, "light in lumens"), (p.wide_px, "picture"), (p.high_px, "picture")):
        if not (math.isfinite(value) and value > 0):
            raise ProjectorTrouble("Nothing can be projected", f"the projector's {what} is {value:g}", "see its data sheet")
    if not (math.isfinite(p.contrast) and p.contrast > 1):
        raise ProjectorTrouble("Nothing can be projected", f"its contrast is {p.contrast:g} : 1", "see its data sheet")
    if room_lux < 0 or width_mm <= 0 or height_mm <= 0:
        raise ProjectorTrouble("Nothing can be projected", "the room or the canvas is less than nothing", "set them right")
    wide, high = (p.high_px, p.wide_px) if p.upright else (p.wide_px, p.high_px)
    width = max(width_mm, height_mm * wide / high)
    height = width * high / wide
    # The throw is told of the picture as it is built: turned on its side its width runs upwards.
    distance = p.throw * (height if p.upright else width)
    lux = p.lumens / (width * height / 1e6)
    contrast = (lux + room_lux) / (lux / p.contrast + room_lux)
    most = lux * (1 - LEAST_CONTRAST / p.contrast) / (LEAST_CONTRAST - 1)
    per_px = width / wide
    return Projected(width, height, distance, per_px, lux, contrast, FINEST_PX * per_px, max(0.0, most))


def read_words(contrast: float) -> str:
    """How an outline is read."""
    return "easy" if contrast >= EASY_CONTRAST else "it holds" if contrast >= LEAST_CONTRAST else "lost"


@dataclass(frozen=True)
class Squareness:
    """How far the image is from a rectangle: `lean_mm` sideways over its height, `taper_mm` the top wider than the foot."""

    lean_mm: float
    taper_mm: float
    width_off_mm: float

    @property
    def holds(self) -> bool:
        return max(abs(self.lean_mm), abs(self.taper_mm), abs(self.width_off_mm)) <= _TRIFLE_MM


def squared(width_mm: float, top: float, foot: float, falling: float, rising: float) -> Squareness:
    """From a tape, mm: the two level sides and both diagonals (falling: top left to lower right).

    Equal diagonals alone prove nothing: an image wider at the top has them too.
    """
    if min(top, foot, falling, rising) <= 0 or width_mm <= 0:
        raise ProjectorTrouble(
            "The image was not checked", "a length is missing", "measure both level sides and both diagonals"
        )
    # Of a parallelogram with level sides w leaning by s: d1^2 - d2^2 = 4 w s.
    mean = (top + foot) / 2
    return Squareness((falling**2 - rising**2) / (4 * mean), top - foot, mean - width_mm)


def squared_words(square: Squareness) -> tuple[str, ...]:
    """What to do, one thing at a time."""
    found = []
    if abs(square.taper_mm) > _TRIFLE_MM:
        wider, way = ("top", "down") if square.taper_mm > 0 else ("foot", "up")
        found.append(
            f"The {wider} is {abs(square.taper_mm):.0f} mm wider: tilt the lens {way}, or raise or lower the projector."
        )
    if abs(square.lean_mm) > _TRIFLE_MM:
        way = "right" if square.lean_mm > 0 else "left"
        found.append(f"It leans {abs(square.lean_mm):.0f} mm to the {way} at the foot: turn the projector level.")
    if abs(square.width_off_mm) > _TRIFLE_MM:
        large = square.width_off_mm > 0
        found.append(
            f"It is {abs(square.width_off_mm):.0f} mm too {'wide' if large else 'narrow'}: move it {'nearer' if large else 'back'}."
        )
    return tuple(found) or ("It is square, as far as a tape can tell.",)


def knocked(crosses: Sequence[Point], light: Sequence[Point]) -> tuple[Point, float, float]:
    """After a knock: what brings the projected crosses back onto the pencilled ones, mm: shift at their middle (x right, y down), turn
    in degrees (clockwise positive), and scale. At least two crosses; raises `ProjectorTrouble`.
    """
    if len(crosses) != len(light) or len(crosses) < 2:
        raise ProjectorTrouble("The knock was not measured", "two crosses at least are needed", "measure two opposite ones")
    to, frm = np.asarray(crosses, np.float64), np.asarray(light, np.float64)
    if np.ptp(frm, axis=0).max() == 0:
        raise ProjectorTrouble("The knock was not measured", "the crosses lie on one place", "take two opposite ones")
    scale, turn, _ = similarity(frm, to)
    x, y = (to.mean(0) - frm.mean(0)).tolist()
    return (x, y), math.degrees(math.atan2(turn[1, 0], turn[0, 0])), scale


def knocked_words(shift: Point, degrees: float, scale: float) -> str:
    """What to do with the light, in words."""
    parts = []
    for amount, (less, more) in zip(shift, (("left", "right"), ("up", "down")), strict=True):
        if abs(amount) >= _TRIFLE_MM:
            parts.append(f"slide the light {abs(amount):.0f} mm {more if amount > 0 else less}")
    if abs(degrees) >= _TRIFLE_DEG:
        parts.append(f"turn it {abs(degrees):.1f}° {'clockwise' if degrees > 0 else 'anticlockwise'}")
    if abs(scale - 1) >= 0.002:
        parts.append(f"move the projector {'back' if scale > 1 else 'nearer'} by {100 * abs(scale - 1):.1f} % of its distance")
    return f"{begun(', then '.join(parts))}." if parts else "The crosses meet."
