"""A straightened canvas on cells of a few mm: what light and differences are worked out on."""

from collections.abc import Sequence
from typing import TYPE_CHECKING, Any

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Polygon

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

CELL_MM = 3.0  # our choice: a fine brush's width
_FINEST, _LONGEST_PX = 2.5, 1200  # px per mm, and px of the longer side a canvas is looked at with: our choices
Light = NDArray[np.float32]  # (H, W, 3), linear


def px_per_mm_for(size_mm: tuple[float, float]) -> float:
    """What a canvas is straightened at."""
    return min(_FINEST, _LONGEST_PX / max(size_mm))


def cells_of(picture: NDArray[Any], px_per_mm: float) -> NDArray[np.float32]:
    """Means over cells, (h, w, C) of (H, W, C); the grid is as near to `CELL_MM` as whole cells allow."""
    rows, columns = (max(4, round(side / px_per_mm / CELL_MM)) for side in picture.shape[:2])
    found = cv2.resize(picture.astype(np.float32), (columns, rows), interpolation=cv2.INTER_AREA)
    return np.asarray(found.reshape(rows, columns, -1), np.float32)


def labels_of(
    regions: Sequence[Sequence[Polygon]], shape: tuple[int, int], size_mm: tuple[float, float]
) -> NDArray[np.int64]:  # fmt: skip
    """The number of the region a cell's middle lies in, from 1 in their order, later ones over earlier; 0 for none. (h, w)."""
    found = np.zeros(shape, np.uint8 if len(regions) < 255 else np.int32)
    rows, columns = shape
    scale = np.array([columns / size_mm[0], rows / size_mm[1]])
    for number, rings in enumerate(regions, 1):
        mask = np.zeros(shape, np.uint8)
        # 16 parts of a cell: rings are finer than cells.
        points = [
            np.rint((np.asarray(ring, np.float64) * scale - 0.5) * 16).astype(np.int32) for ring in rings if len(ring) > 2
        ]
        if points:
            cv2.fillPoly(mask, points, 1, cv2.LINE_8, 4)
            found[mask > 0] = number
    return found.astype(np.int64)
