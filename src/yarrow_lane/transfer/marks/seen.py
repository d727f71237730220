"""The marks on a straightened photograph: strokes that differ from the ground about them."""

from typing import TYPE_CHECKING, Any

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.late import late
from yarrow_lane.measure.raster import Picture

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

# All our choice, mm of a canvas of 50 cm.
_FINE_MM, _ABOUT_MM = 0.4, 8.0  # what is called a stroke lies between: finer is weave, wider is a patch of the ground
_TIMES_USUAL, _LEAST_L = 4.0, 5.0  # a mark differs by so many times what half the places do, and by so many L*
_SHORTEST_MM = 6.0  # smaller is a speck
_RIM_MM = 3.0  # at the edge the room shows through
_CELL_MM = 3.0  # one point for each such square that holds ink


def marks_seen(picture: Picture, px_per_mm: float) -> NDArray[np.float64]:
    """Points (n, 2) in px / `px_per_mm`, one for each 3 mm of stroke. (H, W, 3), straightened."""
    lab = cv2.cvtColor(picture.astype(np.float32) / 255, cv2.COLOR_RGB2Lab)
    fine = cv2.GaussianBlur(lab, (0, 0), _FINE_MM * px_per_mm)
    # The median about a place is its ground, whatever strokes cross it; a mean would lean to them.
    side = 2 * round(_ABOUT_MM * px_per_mm) + 1
    soft = cv2.GaussianBlur(picture, (0, 0), _FINE_MM * px_per_mm)
    ground = cv2.cvtColor(cv2.medianBlur(soft, side).astype(np.float32) / 255, cv2.COLOR_RGB2Lab)
    away = np.sqrt(((fine - ground) ** 2).sum(-1))
    ink = (away > max(_LEAST_L, _TIMES_USUAL * float(np.median(away)))).astype(np.uint8)  # more than half is bare ground
    rim = round(_RIM_MM * px_per_mm)
    ink[:rim], ink[-rim:], ink[:, :rim], ink[:, -rim:] = 0, 0, 0, 0
    _, labels, stats, _ = cv2.connectedComponentsWithStats(ink, connectivity=8)
    long = np.hypot(stats[:, cv2.CC_STAT_WIDTH], stats[:, cv2.CC_STAT_HEIGHT]) >= _SHORTEST_MM * px_per_mm
    long[0] = False
    rows, columns = np.nonzero(long[labels])
    if not len(rows):
        return np.zeros((0, 2))
    points = np.stack([columns + 0.5, rows + 0.5], 1) / px_per_mm
    cells, which = np.unique((points / _CELL_MM).astype(np.int64), axis=0, return_inverse=True)
    return _means(points, which.ravel(), len(cells))


def _means(points: NDArray[Any], which: NDArray[np.int64], count: int) -> NDArray[np.float64]:
    each = np.bincount(which, minlength=count)
    return np.stack([np.bincount(which, points[:, n], count) / each for n in (0, 1)], 1)
