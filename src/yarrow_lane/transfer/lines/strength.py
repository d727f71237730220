"""How much the colours on both sides of a place differ, for every direction, beyond their own unrest.

Half windows on both sides of a place are compared (half-disc comparison: Arbelaez and others, Contour detection and hierarchical
image segmentation, 2011), with the variance of both sides in the denominator: hair has a large variance on both sides, a border has
a difference of means that exceeds it. All lengths in canvas mm, so that the lines do not depend on the photograph's size.
"""

from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.late import late
from yarrow_lane.measure.progress import SILENT, Progress
from yarrow_lane.measure.raster import Picture

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

Plane = NDArray[Any]  # float32
BASE = 1.5  # px per canvas mm: finer found nothing more on rendered sitters
WAYS = 8  # directions of a border; each has two sides
# Our choice, tuned on rendered sitters: sigma along the border, offset and sigma across it (mm), px per mm, share of the sum.
_SCALES = ((1.2, 0.8, 0.45, BASE, 0.40), (3.0, 1.7, 0.9, 1.0, 0.35), (6.0, 3.4, 1.8, 0.5, 0.25))
_TOLD = (0.4, 0.5, 0.6)  # share of the whole work done after each scale
_UNREST, _FLOOR = 1.5, 9.0  # weight of both variances; variance of a plain surface, squared colour difference


@dataclass(frozen=True)
class Strength:
    """`by_way` (8, H, W) colour-difference units for borders running at 0, 22.5 .. 157.5 degrees; `fine` (H, W) the strongest at the
    finest scale; `rough` (H, W) the unrest of both sides; `lab` (H, W, 3) CIELAB; all at `BASE` px per mm.
    """

    by_way: Plane
    fine: Plane
    rough: Plane
    lab: Plane


def strength_of(picture: Picture, px_per_mm: float, progress: Progress = SILENT) -> Strength:
    """Of a whole canvas, (H, W, 3) sRGB at `px_per_mm`. Raises `Cancelled`."""
    height, width = (max(8, round(side / px_per_mm * BASE)) for side in picture.shape[:2])
    way = cv2.INTER_AREA if px_per_mm >= BASE else cv2.INTER_LINEAR
    small = picture if px_per_mm == BASE else cv2.resize(picture, (width, height), interpolation=way)
    lab = cv2.cvtColor(small.astype(np.float32) / 255, cv2.COLOR_RGB2Lab)
    whole = np.dstack([lab, (lab**2).sum(2)])
    total: Plane | None = None
    fine = rough = np.zeros((height, width), np.float32)
    for number, (along, offset, across, px, share) in enumerate(_SCALES):
        size = max(4, round(width * px / BASE)), max(4, round(height * px / BASE))
        planes = whole if px == BASE else cv2.resize(whole, size, interpolation=cv2.INTER_AREA)
        sides = _sides(planes, along, offset, across, px)
        progress.at(_TOLD[number])
        found, unrest = _compared(sides)
        if px != BASE:
            found = np.stack([cv2.resize(f, (width, height), interpolation=cv2.INTER_LINEAR) for f in found])
        if number == 0:
            fine = found.max(0)
        elif number == 1:
            rough = np.sqrt(cv2.resize(unrest, (width, height)))
        found *= np.float32(share)
        total = found if total is None else total + found
    assert total is not None
    return Strength(total, fine, rough, lab)


def _sides(planes: Plane, along: float, offset: float, across: float, px: float) -> list[Plane]:
    """Means over a half window on one side, for every direction all the way round: one blur a direction, looked up to both sides."""
    found: list[Plane] = []
    others: list[Plane] = []
    height, width = planes.shape[:2]
    for way in range(WAYS):
        turn = np.pi * way / WAYS
        blurred = cv2.filter2D(planes, -1, _window(turn, along, across, px), borderType=cv2.BORDER_REFLECT)
        for sides, sign in ((found, 1.0), (others, -1.0)):
            shift = np.array([[1, 0, -sign * offset * px * np.sin(turn)], [0, 1, sign * offset * px * np.cos(turn)]])
            flags = cv2.INTER_LINEAR | cv2.WARP_INVERSE_MAP
            sides.append(cv2.warpAffine(blurred, shift, (width, height), flags=flags, borderMode=cv2.BORDER_REFLECT))
    return found + others


def _window(turn: float, along: float, across: float, px: float) -> Plane:
    reach = int(np.ceil(2.2 * along * px))
    y, x = np.mgrid[-reach : reach + 1, -reach : reach + 1] / px
    on, off = x * np.cos(turn) + y * np.sin(turn), y * np.cos(turn) - x * np.sin(turn)
    kernel = np.exp(-0.5 * (on / along) ** 2 - 0.5 * (off / across) ** 2)
    return (kernel / kernel.sum()).astype(np.float32)


def _compared(sides: list[Plane]) -> tuple[Plane, Plane]:
    """Both sides of every direction compared, and the mean variance over all directions."""
    # Plane by plane: sums over the last axis of small pixels are four times slower.
    planes = [cv2.split(side) for side in sides]
    variances = [np.maximum(square - (a * a + b * b + c * c), 0) for a, b, c, square in planes]
    found = np.empty((WAYS, *sides[0].shape[:2]), np.float32)
    for way in range(WAYS):
        apart = np.zeros(sides[0].shape[:2], np.float32)
        for one, other in zip(planes[way][:3], planes[way + WAYS][:3], strict=True):
            away = one - other
            apart += away * away
        unrest = variances[way] + variances[way + WAYS]
        unrest *= _UNREST
        unrest += apart
        unrest += _FLOOR
        found[way] = apart / np.sqrt(unrest)
    return found, np.asarray(sum(variances) / (2 * WAYS), np.float32)
