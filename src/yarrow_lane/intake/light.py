"""Where the light comes from: from the glint in each eye, backed by the shading round the eyes.

Angles are degrees clockwise from twelve o'clock, the way a painter reads a clock.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING, Literal

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.intake.photos import Eye
from yarrow_lane.measure.late import late

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

Confidence = Literal["sure", "likely", "unknown"]
# A reflection must stand out by so much L* to be a glint: our choice, after lower lid reflections of about 21 L*
# were mistaken for one in a trial while true glints stood 50 above.
GLINT_CONTRAST = 30.0
_SEARCH = 0.75  # of the iris radius round its centre: beyond lie the rim and the white of the lids (our choice)
_AGREE_DEG = 45.0  # two eyes looking at one light differ by less: our choice
_SHADING_AGREE_DEG = 60.0  # our choice


@dataclass(frozen=True)
class Glint:
    """A readable reflection: its place (upright px), contrast in L*, and the clock angle from the iris centre."""

    x: float
    y: float
    contrast: float
    degrees: float


@dataclass(frozen=True)
class Light:
    """Where it comes from in the picture plane; `degrees` is None while unknown."""

    degrees: float | None
    confidence: Confidence
    why: str


def clock_degrees(dx: float, dy: float) -> float:
    """Angle of a vector (y down), degrees clockwise from twelve o'clock."""
    return math.degrees(math.atan2(dx, -dy)) % 360


def apart(one: float, other: float) -> float:
    """The smaller angle between two directions, 0 to 180 degrees."""
    return abs((one - other + 180) % 360 - 180)


def mean_direction(degrees: Sequence[float]) -> float:
    """The direction in the middle of several."""
    radians = np.radians(degrees)
    return math.degrees(math.atan2(float(np.sin(radians).sum()), float(np.cos(radians).sum()))) % 360


def find_glint(lightness: NDArray[np.float32], eye: Eye, origin: tuple[float, float] = (0.0, 0.0)) -> Glint | None:
    """The brightest small reflection on the iris, or None when none stands out.

    `lightness` is L* (H, W); `origin` is the px of its top left corner in the photograph.
    """
    cx, cy, r = eye.x - origin[0], eye.y - origin[1], eye.radius_px
    height, width = lightness.shape
    if r < 3 or not (0 <= cx < width and 0 <= cy < height):
        return None
    yy, xx = np.ogrid[:height, :width]
    disc = (xx - cx) ** 2 + (yy - cy) ** 2 <= (_SEARCH * r) ** 2
    if disc.sum() < 12:
        return None
    # Smoothed a little, so that one noisy pixel is no glint.
    smooth = cv2.GaussianBlur(lightness, (0, 0), max(0.6, r / 25))
    ground = float(np.median(smooth[disc]))
    peak = float(smooth[disc].max())
    if peak - ground < GLINT_CONTRAST:
        return None
    bright = (disc & (smooth > ground + 0.6 * (peak - ground))).astype(np.uint8)
    count, labels, stats, centres = cv2.connectedComponentsWithStats(bright)
    brightest = int(labels[np.unravel_index(np.where(disc, smooth, -1).argmax(), smooth.shape)])
    area = stats[brightest, cv2.CC_STAT_AREA]
    # A light patch as large as a third of the iris is the white of the eye or a lid, not a glint.
    if count < 2 or area > 0.33 * math.pi * r * r:
        return None
    x, y = (float(v) for v in centres[brightest])
    return Glint(x + origin[0], y + origin[1], peak - ground, clock_degrees(x - cx, y - cy))


def shading_degrees(lightness: NDArray[np.float32]) -> float | None:
    """The side a patch is lit from, by a plane laid through its lightness; None when it is even (under 4 L* across)."""
    small = cv2.resize(lightness, (32, 32), interpolation=cv2.INTER_AREA).astype(np.float64)
    y, x = np.mgrid[:32, :32] / 31.0 - 0.5
    design = np.c_[x.ravel(), y.ravel(), np.ones(x.size)]
    slope_x, slope_y, _ = np.linalg.lstsq(design, small.ravel(), rcond=None)[0]
    if math.hypot(slope_x, slope_y) < 4.0:  # our choice
        return None
    return clock_degrees(slope_x, slope_y)


def light_from(glints: Sequence[Glint], shading: float | None) -> Light:
    """Put the evidence together; it is said plainly when it does not hold."""
    if len(glints) >= 2:
        found = [g.degrees for g in glints[:2]]
        if apart(*found) <= _AGREE_DEG:
            return Light(mean_direction(found), "sure", "the glints of both eyes agree")
        return Light(None, "unknown", "the glints of the two eyes contradict each other")
    if len(glints) == 1:
        degrees = glints[0].degrees
        if shading is None or apart(degrees, shading) <= _SHADING_AGREE_DEG:
            return Light(degrees, "likely", "one glint" + ("" if shading is None else ", and the shading agrees"))
        return Light(None, "unknown", "the glint and the shading contradict each other")
    return Light(None, "unknown", "no readable glint")


_SIDES = (
    "above",
    "your upper right",
    "your right",
    "your lower right",
    "below",
    "your lower left",
    "your left",
    "your upper left",
)


def side_words(degrees: float) -> str:
    """ "your upper left", "your right" … for a clock angle: as one looks at the picture, where all other sides are the sitter's."""
    return _SIDES[round(degrees / 45) % 8]
