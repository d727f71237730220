"""A hand that paints a picture: strokes from wide to fine laid along its forms. Our own simple scheme."""

from typing import TYPE_CHECKING, Any

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.colour.srgb import linear_from_srgb8, srgb8_from_linear
from yarrow_lane.measure.late import late
from yarrow_lane.measure.raster import Picture

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

_WIDTHS_MM = (9.0, 4.5, 2.2, 1.0)
_WORTH = 6.0  # code values a finer stroke must mend
_HAND, _MIX = 3.5, 1.6  # code values a colour is off, in all channels and in each


def stroked(picture: Picture, px_per_mm: float, seed: int, ground: tuple[int, int, int] = (150, 118, 90)) -> Picture:
    """Lines along the forms, each as wide as its stage, (H, W, 3)."""
    rng = np.random.default_rng(seed)
    out = np.empty_like(picture)
    out[:] = ground
    way = along_forms(picture, px_per_mm)
    for stage, width_mm in enumerate(_WIDTHS_MM):
        wide = max(2.0, width_mm * px_per_mm)
        wanted = cv2.GaussianBlur(picture, (0, 0), max(0.6, wide * 0.35))
        x, y = worth_laying(picture, out, wanted, wide, stage, 1.5, rng)
        colour = wanted[y, x] + rng.normal(0, _HAND, (len(x), 1)) + rng.normal(0, _MIX, (len(x), 3))
        turn, half = way[y, x] + rng.normal(0, 0.15, len(x)), wide * rng.uniform(1.0, 2.2, len(x))
        ends = np.stack([x - np.cos(turn) * half, y - np.sin(turn) * half, x + np.cos(turn) * half, y + np.sin(turn) * half], 1)
        for end, c in zip(np.rint(ends * 8).astype(int).tolist(), np.clip(colour, 0, 255).tolist(), strict=True):
            cv2.line(out, (end[0], end[1]), (end[2], end[3]), c, max(1, round(wide)), cv2.LINE_AA, 3)
    return bristled(out, px_per_mm, rng)


def worth_laying(
    picture: Picture, out: Picture, wanted: Any, wide: float, stage: int, thick: float, rng: np.random.Generator
) -> tuple[NDArray[np.int64], NDArray[np.int64]]:
    """Where strokes of that width are worth laying."""
    height, width = picture.shape[:2]
    side = int(wide) | 1
    off = cv2.blur(np.abs(wanted.astype(np.float32) - out).mean(2), (side, side))
    count = int(height * width / wide**2 * thick)
    x, y = rng.integers(0, width, count), rng.integers(0, height, count)
    kept = np.ones(count, bool) if stage == 0 else off[y, x] > _WORTH
    return x[kept], y[kept]


def along_forms(picture: Picture, px_per_mm: float) -> NDArray[Any]:
    """Which way forms run, radians (structure tensor)."""
    grey = cv2.GaussianBlur(cv2.cvtColor(picture, cv2.COLOR_RGB2GRAY).astype(np.float32), (0, 0), 0.6 * px_per_mm)
    across, down = cv2.Sobel(grey, cv2.CV_32F, 1, 0), cv2.Sobel(grey, cv2.CV_32F, 0, 1)
    a, b, c = (cv2.GaussianBlur(k, (0, 0), px_per_mm) for k in (across * across, across * down, down * down))
    return np.asarray(0.5 * np.arctan2(2 * b, a - c) + np.pi / 2)


def bristled(out: Picture, px_per_mm: float, rng: np.random.Generator) -> Picture:
    """Marks of bristles and the weave beneath."""
    height, width = out.shape[:2]
    marks = cv2.GaussianBlur(rng.normal(0, 1, (height, width)).astype(np.float32), (0, 0), 0.25 * px_per_mm)
    y, x = np.mgrid[:height, :width].astype(np.float32) / px_per_mm
    weave = np.sin(2 * np.pi * x * 1.1) * np.sin(2 * np.pi * y * 1.1)
    return srgb8_from_linear(linear_from_srgb8(out) * (1 + 0.03 * marks / marks.std() + 0.025 * weave)[..., None])
