"""How sharp the lids are, at one scale for all photographs: the iris is brought to the same size first.

So a large soft photograph and a small crisp one are compared by what they show on the canvas, not by their pixels.
"""

import math
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.intake.photos import Eye
from yarrow_lane.measure.colour.cielab import lightness_from_srgb8
from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Rect
from yarrow_lane.measure.raster import Picture, cut

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

# The iris is brought to so many px across: our choice. Small enough that a 2x smaller copy still holds it.
COMMON_IRIS_PX = 16.0
_REACH = 1.7  # the crop reaches so many iris radii from the centre: lids and lashes are in it
_FLOOR = 0.5  # L*: below this noise does not show
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


def lid_sharpness(picture: Picture, eye: Eye, noise: float) -> float:
    """Steepest edges round the eye over the noise, both at the common scale; about 1 is nothing, 10 and more is crisp.

    `noise` is the standard deviation in L* at the photograph's own scale. Noise times the size of a pixel on the canvas
    stays the same when a picture is averaged down, so the scale alone carries it over, up as well as down.
    """
    patch = lightness_from_srgb8(np.ascontiguousarray(cut(picture, eye_rect(eye))))
    scale = COMMON_IRIS_PX / (2 * eye.radius_px)
    size = (max(4, round(patch.shape[1] * scale)), max(4, round(patch.shape[0] * scale)))
    how = cv2.INTER_AREA if scale <= 1 else cv2.INTER_CUBIC
    common = cv2.GaussianBlur(cv2.resize(patch, size, interpolation=how), (0, 0), 0.6)
    gx = cv2.Scharr(common, cv2.CV_32F, 1, 0, scale=1 / 32)
    gy = cv2.Scharr(common, cv2.CV_32F, 0, 1, scale=1 / 32)
    steep = float(np.percentile(np.hypot(gx, gy), 90))
    left = noise * scale
    return steep / math.hypot(left, _FLOOR)


def blur_sigma_px(lightness: NDArray[np.float32], noise: float) -> float:
    """Width of the blur, px (standard deviation), by blurring again and seeing how much the edges lose.

    At edge maxima R = g(s1)/g(s2) gives sigma² = (s2² - R² s1²)/(R² - 1); the 35th percentile over strong edges, for
    the first pair of scales that can measure it. 0 when there is too little to measure. Does not catch enlarged copies.
    """
    last = 0.0
    for s1, s2 in ((1.0, 2.0), (2.0, 4.0), (4.0, 8.0)):
        g1, g2 = (_gradient(lightness, s) for s in (s1, s2))
        strong = (g1 >= cv2.dilate(g1, np.ones((3, 3), np.uint8)) * 0.9999) & (g1 > max(2.5 * noise / s1**2 / 3.5, 0.25))
        if strong.sum() < 50:
            continue
        strong &= g1 >= np.percentile(g1[strong], 85)
        ratio = g1[strong] / np.maximum(g2[strong], 1e-6)
        ratio = ratio[ratio > 1.005]
        if len(ratio) < 30:
            continue
        variance = (s2**2 - ratio**2 * s1**2) / (ratio**2 - 1)
        last = float(np.percentile(np.sqrt(np.maximum(variance, 0)), 35))
        if last <= 2.2 * s1:
            break
    return last


def _gradient(lightness: NDArray[np.float32], sigma: float) -> NDArray[np.float32]:
    smooth = cv2.GaussianBlur(lightness, (0, 0), sigma)
    gx = cv2.Scharr(smooth, cv2.CV_32F, 1, 0, scale=1 / 32)
    gy = cv2.Scharr(smooth, cv2.CV_32F, 0, 1, scale=1 / 32)
    return np.asarray(np.hypot(gx, gy), np.float32)
