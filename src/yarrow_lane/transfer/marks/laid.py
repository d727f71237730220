"""The reference laid over a photograph of the marks, and what is told of it."""

from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np

from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Circle, Point
from yarrow_lane.measure.raster import Picture

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

USUAL_SHARE = 0.25  # of the reference, over the marks (common practice)

# What becomes of marks under paint: common practice; shares from the bench of registration.
COATS = (
    "Thin coats let the marks show; one opaque coat ends them. Photograph once more before it goes on.",
    "With up to two thirds of the marks under paint a photograph is still laid on by what is left; with nine tenths rarely.",
)


@dataclass(frozen=True)
class LaidMarks:
    """The surface straightened (H, W, 3), the bulge of the lens, sides not well seen, the marks seen on it (canvas mm), where more are wanted, and how it was
    laid on the first photograph: by how many marks, with what rest and doubt (mm), or why not; `why_not` is empty for the first too.
    """

    picture: Picture
    bulge: float
    weak: tuple[str, ...]
    marks: tuple[Point, ...]
    wanting: tuple[Circle, ...]
    agreeing: int = 0
    rest_mm: float = 0.0
    doubt_mm: float = 0.0
    why_not: str = ""


def laid_over(surface: Picture, reference: Picture, share: float = USUAL_SHARE) -> Picture:
    """The reference over the surface, (H, W, 3) as the surface is, with so large a share of its own, 0 to 1."""
    height, width = surface.shape[:2]
    over = (
        cv2.resize(reference, (width, height), interpolation=cv2.INTER_AREA) if reference.shape != surface.shape else reference
    )
    return np.asarray(cv2.addWeighted(surface, 1.0 - share, over, share, 0.0), np.uint8)
