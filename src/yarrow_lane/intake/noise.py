"""The noise of a photograph, and the place round an eye where it is judged."""

import math
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.intake.photos import Eye
from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Rect

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

_REACH = 1.7  # the crop reaches so many iris radii from the centre: lids and lashes are in it
_BLOCK = 16
_DARKEST, _LIGHTEST = 12.0, 95.0  # L*, our choice: beyond, an 8-bit picture cuts its noise off


def noise_lstar(lightness: NDArray[np.float32]) -> float:
    """Standard deviation of the noise in L*, from the calmest blocks of the picture.

    Immerkaer's Laplacian (1996, Computer Vision and Image Understanding 64(2)) in blocks of 16 px; the lower
    tenth of the blocks counts, so that fur is not taken for noise.
    """
    kernel = np.array([[1, -2, 1], [-2, 4, -2], [1, -2, 1]], np.float32)
    rough = np.abs(cv2.filter2D(lightness, cv2.CV_32F, kernel))
    rows, columns = (n // _BLOCK for n in rough.shape)
    if rows * columns == 0:
        return float(rough.mean() * math.sqrt(math.pi / 2) / 6)
    blocks, level = (_block_means(plane, rows, columns) for plane in (rough, lightness))
    # Near black and white the noise is cut off and would read too low.
    whole = (level > _DARKEST) & (level < _LIGHTEST)
    counted = blocks[whole] if whole.mean() > 0.05 else blocks
    return float(np.percentile(counted, 10) * math.sqrt(math.pi / 2) / 6)


def _block_means(plane: NDArray[np.float32], rows: int, columns: int) -> NDArray[np.float32]:
    cut_to = plane[: rows * _BLOCK, : columns * _BLOCK]
    return np.asarray(cut_to.reshape(rows, _BLOCK, columns, _BLOCK).mean(axis=(1, 3)), np.float32)


def eye_rect(eye: Eye, reach: float = _REACH) -> Rect:
    """The square round an eye, photograph px."""
    half = reach * eye.radius_px
    return Rect(eye.x - half, eye.y - half, 2 * half, 2 * half)
