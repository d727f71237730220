"""What the painter cares for, as a factor of the strength: eyes, nose and mouth, and the cut-out's outline."""

from collections.abc import Sequence
from typing import TYPE_CHECKING

import numpy as np

from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Circle, Polygon
from yarrow_lane.transfer.lines.strength import BASE, Plane

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

# All our choice, tuned on rendered sitters.
_FEATURE, _OUTLINE, _BEHIND = 2.5, 2.0, 0.25
_BAND_MM, _SOFT_MM = 4.0, 1.0


def weights(width_mm: float, height_mm: float, circles: Sequence[Circle], outlines: Sequence[Polygon]) -> Plane:
    """(H, W) at `BASE` px per mm: 1 is as seen. Within circles more, along the outlines more, outside all of them less."""
    width, height = max(8, round(width_mm * BASE)), max(8, round(height_mm * BASE))
    found: Plane = np.ones((height, width), np.float32)
    if outlines:
        inside = np.zeros((height, width), np.uint8)
        for outline in outlines:  # one by one: where two overlap they would take each other out
            cv2.fillPoly(inside, [np.rint((np.asarray(outline) * BASE - 0.5) * 16).astype(np.int32)], 1, cv2.LINE_8, 4)
        away = cv2.distanceTransform(inside, cv2.DIST_L2, 5) + cv2.distanceTransform(1 - inside, cv2.DIST_L2, 5)
        found = np.where(away <= _BAND_MM * BASE, _OUTLINE, np.where(inside > 0, 1.0, _BEHIND)).astype(np.float32)
        found = cv2.GaussianBlur(found, (0, 0), _SOFT_MM * BASE)
    if circles:
        y, x = (np.mgrid[:height, :width] + 0.5) / BASE
        for (at_x, at_y), radius in circles:
            beyond = np.maximum(np.hypot(x - at_x, y - at_y) / max(radius, 1e-6) - 1, 0)
            raised = 1 + (_FEATURE - 1) * np.exp(-4 * beyond**2)
            found = np.maximum(found, (raised * np.minimum(found, 1)).astype(np.float32))
    return found
