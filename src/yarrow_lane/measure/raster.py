"""Pictures as arrays: cutting out a piece and resampling it, as light is blended: in linear light."""

from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.colour.srgb import linear_from_srgb8, srgb8_from_linear
from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Rect
from yarrow_lane.measure.progress import SILENT, Progress

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

Picture = NDArray[np.uint8]
_STRIP = 24  # rows of the result at a time: bounds memory and lets the work be stopped


def resample(picture: NDArray, width_px: int, height_px: int) -> NDArray:
    """A mask or measure at another size; shrinking averages its values as they are.

    `picture` is (H, W) or (H, W, n), any dtype OpenCV takes; returns (height_px, width_px, ...). For pictures to be looked at
    use `resized`, which blends light.
    """
    width_px, height_px = max(1, width_px), max(1, height_px)
    shrinking = width_px <= picture.shape[1] and height_px <= picture.shape[0]
    how = cv2.INTER_AREA if shrinking else cv2.INTER_CUBIC
    return np.asarray(cv2.resize(picture, (width_px, height_px), interpolation=how), dtype=picture.dtype)


def cut(picture: Picture, rect: Rect) -> Picture:
    """The pixels of `rect` (picture px, clipped to the picture), at least one pixel."""
    height, width = picture.shape[:2]
    left = min(max(0, round(rect.x)), width - 1)
    top = min(max(0, round(rect.y)), height - 1)
    right = min(width, max(left + 1, round(rect.right)))
    bottom = min(height, max(top + 1, round(rect.bottom)))
    return picture[top:bottom, left:right]


def resized(picture: Picture, longer_px: int) -> Picture:
    """The whole picture with its longer side at most `longer_px`, averaged in linear light; never enlarged."""
    height, width = picture.shape[:2]
    scale = longer_px / max(height, width)
    if scale >= 1:
        return np.ascontiguousarray(picture)
    return piece(picture, Rect(0, 0, width, height), max(1, round(width * scale)), max(1, round(height * scale)))


def halvings(picture: Picture, smallest_px: int, progress: Progress = SILENT) -> tuple[Picture, ...]:
    """The picture, half of it, half of that, until the longer side is at most `smallest_px`; averaged in linear light."""
    found = [np.ascontiguousarray(picture)]
    while max(found[-1].shape[:2]) > smallest_px:
        found.append(_halved(found[-1], progress))
    return tuple(found)


def _halved(picture: Picture, progress: Progress) -> Picture:
    height, width = picture.shape[:2]
    half_w, half_h = max(1, width // 2), max(1, height // 2)
    out = np.empty((half_h, half_w, 3), np.uint8)
    for top in range(0, half_h, 4 * _STRIP):
        progress.at(top / half_h)
        bottom = min(half_h, top + 4 * _STRIP)
        last = height if bottom == half_h else 2 * bottom
        light = linear_from_srgb8(picture[2 * top : max(2 * top + 1, last)])
        out[top:bottom] = srgb8_from_linear(
            np.asarray(cv2.resize(light, (half_w, bottom - top), interpolation=cv2.INTER_AREA), np.float32)
        )
    return out


def piece(picture: Picture, rect: Rect, width_px: int, height_px: int, progress: Progress = SILENT) -> Picture:
    """The part `rect` of a picture (its px, fractions count) at `width_px` by `height_px`, (H, W, 3) sRGB to the same.

    Shrinking averages linear light over the exact area of each pixel; enlarging interpolates cubically. Parts of `rect` beyond
    the picture repeat its edge. Raises `Cancelled`.
    """
    width_px, height_px = max(1, width_px), max(1, height_px)
    if rect.width <= width_px or rect.height <= height_px:
        return _enlarged(picture, rect, width_px, height_px)
    across = _edges(rect.x, rect.right, width_px, picture.shape[1])
    down = _edges(rect.y, rect.bottom, height_px, picture.shape[0])
    out = np.empty((height_px, width_px, 3), np.uint8)
    left, right = int(across[0]), min(picture.shape[1], int(np.ceil(across[-1])) or 1)
    for top in range(0, height_px, _STRIP):
        progress.at(top / height_px)
        rows = down[top : min(top + _STRIP, height_px) + 1]
        first, last = int(rows[0]), max(int(rows[0]) + 1, int(np.ceil(rows[-1])))
        light = linear_from_srgb8(np.ascontiguousarray(picture[first:last, left:right]))
        flat = _shares(rows - first, len(light)) @ light.reshape(len(light), -1)
        out[top : top + len(rows) - 1] = srgb8_from_linear(_averaged(flat.reshape(len(rows) - 1, -1, 3), across - left))
    return out


def _edges(begin: float, end: float, parts: int, size: int) -> NDArray[np.float64]:
    """Where the pixels of the result begin and end on the picture; beyond its edge they have no width."""
    edges = np.clip(np.linspace(begin, end, parts + 1), 0.0, float(size))
    return np.minimum(edges, size - 1e-6)


def _shares(edges: NDArray[np.float64], rows: int) -> NDArray[np.float32]:
    """How much of each of `rows` source rows lies between each pair of edges; every line sums to 1."""
    begin = np.arange(rows, dtype=np.float64)
    overlap = np.minimum(edges[1:, None], begin + 1) - np.maximum(edges[:-1, None], begin)
    overlap = np.maximum(overlap, 1e-9 * ((begin <= edges[:-1, None]) & (begin + 1 > edges[:-1, None])))
    overlap = np.maximum(overlap, 0.0)
    return np.asarray(overlap / overlap.sum(axis=1, keepdims=True), np.float32)


def _averaged(light: NDArray[np.float32], edges: NDArray[np.float64]) -> NDArray[np.float64]:
    """Averages along each row between the edges, from running sums; without width the pixel that lies there."""
    sums = np.zeros((light.shape[0], light.shape[1] + 1, 3))
    np.cumsum(light, axis=1, out=sums[:, 1:], dtype=np.float64)
    whole = edges.astype(int)
    part = (edges - whole)[None, :, None]
    at = sums[:, whole] * (1 - part) + sums[:, np.minimum(whole + 1, light.shape[1])] * part
    widths = np.diff(edges)
    found = np.diff(at, axis=1) / np.maximum(widths, 1e-9)[None, :, None]
    flat = widths < 1e-9
    found[:, flat] = light[:, np.minimum(whole[:-1][flat], light.shape[1] - 1)]
    return np.asarray(found)


def _enlarged(picture: Picture, rect: Rect, width_px: int, height_px: int) -> Picture:
    height, width = picture.shape[:2]
    # Three pixels round the part are enough for a cubic.
    left, top = max(0, int(rect.x) - 3), max(0, int(rect.y) - 3)
    right, bottom = min(width, int(rect.right) + 4), min(height, int(rect.bottom) + 4)
    light = linear_from_srgb8(np.ascontiguousarray(picture[top : max(top + 1, bottom), left : max(left + 1, right)]))
    sx, sy = rect.width / width_px, rect.height / height_px
    # Pixel centres: u of the result looks at rect.x + (u + 1/2) sx - 1/2 of the picture.
    look = np.array([[sx, 0, rect.x - left + sx / 2 - 0.5], [0, sy, rect.y - top + sy / 2 - 0.5]])
    flags = cv2.INTER_CUBIC | cv2.WARP_INVERSE_MAP
    seen = cv2.warpAffine(light, look, (width_px, height_px), flags=flags, borderMode=cv2.BORDER_REPLICATE)
    return srgb8_from_linear(np.asarray(seen, np.float32))
