"""What an eye makes out from so far away."""

import math
from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np

from yarrow_lane.measure.colour.srgb import linear_from_srgb8, srgb8_from_linear
from yarrow_lane.measure.late import late
from yarrow_lane.measure.raster import Picture

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

# One minute of arc, what an eye of full acuity (6/6) makes out by definition (ISO 8596): pi / 180 / 60.
ARCMIN = math.pi / 10800
_FWHM = 2 * math.sqrt(2 * math.log(2))  # of a Gaussian, in standard deviations
EASEL_MM = 500.0  # an arm's length: our choice


def smallest_mm(distance_mm: float) -> float:
    """The smallest detail made out at that distance: 0.29 mm for each metre."""
    return distance_mm * ARCMIN


def carries_mm(detail_mm: float) -> float:
    """How far a detail of that size carries before it is lost."""
    return detail_mm / ARCMIN


def seen_from(picture: Picture, px_per_mm: float, distance_mm: float) -> Picture:
    """The picture as it is made out from there: blurred in light so that a point is one minute of arc wide (our choice)."""
    sigma = smallest_mm(distance_mm) / _FWHM * px_per_mm
    if sigma <= 0.3:
        return picture
    light = cv2.GaussianBlur(linear_from_srgb8(np.ascontiguousarray(picture)), (0, 0), sigma, borderType=cv2.BORDER_REPLICATE)
    return srgb8_from_linear(np.asarray(light))


@dataclass(frozen=True)
class Detail:
    """Something painted and how wide it is, mm, with where that comes from."""

    name: str
    mm: float
    source: str


def usual_details(iris_mm: float | None) -> tuple[Detail, ...]:
    """What a portrait is told by. With the iris known, mm across on the canvas, its rim and glint are reckoned from it."""
    strokes = (Detail("single hairs", 0.3, "our choice"), Detail("whiskers", 0.6, "our choice"))
    if iris_mm is None:
        return (*strokes, Detail("clumps of fur", 3.0, "our choice"))
    # A rim of a twentieth and a glint of an eighth of the iris: our choice, read off rendered eyes.
    return (
        *strokes,
        Detail("rim of the iris", iris_mm / 20, "from the iris"),
        Detail("glint in the eye", iris_mm / 8, "from the iris"),
    )


def paint_words(distance_mm: float) -> str:
    """What is worth painting for a client who looks from there."""
    smallest = smallest_mm(distance_mm)
    if smallest < 0.3:
        return "Single hairs are seen from there: they are worth painting where the eye is to rest."
    if smallest < 0.8:
        return "Clumps, not hairs: from there a single hair is lost. Keep single hairs for the eyes and the whiskers."
    return "Masses of light and dark: from there only clumps and the eyes' glints are seen. Whoever steps up sees more."
