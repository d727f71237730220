"""The strongest edges of a picture, each as a profile across it."""

import math
from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.late import late

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

Grey8 = NDArray[np.uint8]
Floats = NDArray[np.float32]
REACH_PX, STEP_PX = 14.0, 0.5  # a profile reaches so far to both sides, in such steps
TILE, _MARGIN = 160, 15
_TILES, _IN_A_ROW = 20, 5
_CELL, _IN_A_CELL, _EDGES = 40, 60, 1200  # our choice: the strongest of each cell, then the strongest of all
_SIDE_LINES = (-1.5, -0.75, 0.0, 0.75, 1.5)  # px beside the edge: their mean is one profile, so that bent edges show as wide
_ALONG = np.arange(-REACH_PX, REACH_PX + STEP_PX / 2, STEP_PX, dtype=np.float32)
_MOST_CANDIDATES, _AT_ONCE = 60_000, 30_000


@dataclass(frozen=True)
class Edges:
    """Profiles (n, 57) across n edges from dark to light, grey codes; their directions (n,) in radians; the noise in codes."""

    profiles: Floats
    angles: Floats
    noise: float


def noise_codes(grey: Floats) -> float:
    """Standard deviation of the noise, from the calmest tenth of blocks (Immerkaer 1996, CVIU 64(2)), away from black and white."""
    kernel = np.array([[1, -2, 1], [-2, 4, -2], [1, -2, 1]], np.float32)
    rough = np.abs(cv2.filter2D(grey, cv2.CV_32F, kernel))
    rows, columns = (n // 16 for n in rough.shape)
    to_sigma = math.sqrt(math.pi / 2) / 6
    if rows * columns == 0:
        return float(rough.mean() * to_sigma)

    def means(plane: Floats) -> Floats:
        return np.asarray(plane[: rows * 16, : columns * 16].reshape(rows, 16, columns, 16).mean(axis=(1, 3)), np.float32)

    blocks, level = means(rough), means(grey)
    whole = (level > 12) & (level < 243)
    counted = blocks[whole] if whole.mean() > 0.05 else blocks.ravel()
    return float(np.percentile(counted, 10) * to_sigma)


def busiest(grey: Grey8) -> tuple[Grey8, bool]:
    """The tiles with the steepest steps from pixel to pixel, side by side, and whether it is tiles; a small picture whole.

    So 24 megapixels cost what half a megapixel costs. The tile that is sharpest decides, wherever it lies.
    """
    height, width = grey.shape
    if height * width <= _TILES * TILE * TILE * 1.2:
        return grey, False
    lines = grey[:: 2 if height * width > 3e6 else 1]
    across = cv2.absdiff(lines[:, 1:], lines[:, :-1])
    across = cv2.multiply(across, across, scale=1 / 64)
    below = cv2.absdiff(grey[1::4, ::2], grey[0 : height - height % 2 : 4, ::2][: len(grey[1::4])])
    below = cv2.multiply(below, below, scale=1 / 64)
    rows, columns = height // TILE, width // TILE
    busy = cv2.resize(across[:, : columns * TILE], (columns, rows), interpolation=cv2.INTER_AREA).astype(np.float32)
    busy += cv2.resize(below, (columns, rows), interpolation=cv2.INTER_AREA)
    chosen = np.argsort(-busy.ravel())[:_TILES]
    mosaic = np.zeros((math.ceil(len(chosen) / _IN_A_ROW) * TILE, _IN_A_ROW * TILE), np.uint8)
    for n, tile in enumerate(chosen):
        (i, j), y, x = divmod(int(tile), columns), n // _IN_A_ROW * TILE, n % _IN_A_ROW * TILE
        mosaic[y : y + TILE, x : x + TILE] = grey[i * TILE : (i + 1) * TILE, j * TILE : (j + 1) * TILE]
    return mosaic, True


def strongest_edges(grey: Floats, tiled: bool) -> Edges | None:
    """Places where the slope is largest across the edge, the strongest of each neighbourhood; None when there is none."""
    smooth = cv2.GaussianBlur(grey, (0, 0), 1.0)
    gx = cv2.Scharr(smooth, cv2.CV_32F, 1, 0, scale=1 / 32)
    gy = cv2.Scharr(smooth, cv2.CV_32F, 0, 1, scale=1 / 32)
    slope = cv2.magnitude(gx, gy)
    noise = noise_codes(grey)
    y, x = np.nonzero((slope > max(1.2, noise * 0.5 + 0.5)) & _inside(grey.shape, tiled))
    if len(x) > _MOST_CANDIDATES:
        values = slope[y, x]
        strong = values >= np.partition(values, -_MOST_CANDIDATES)[-_MOST_CANDIDATES]
        y, x = y[strong], x[strong]
    if len(x) == 0:
        return None
    v = np.asarray(slope[y, x], np.float32)
    ux, uy = (np.asarray(g[y, x] / v, np.float32) for g in (gx, gy))
    yf, xf = y.astype(np.float32), x.astype(np.float32)
    slopes = np.asarray(slope, np.float32)
    ridge = (v >= _sampled(slopes, xf + ux, yf + uy)) & (v > _sampled(slopes, xf - ux, yf - uy))
    y, x, v, ux, uy = y[ridge], x[ridge], v[ridge], ux[ridge], uy[ridge]
    if len(x) == 0:
        return None
    kept = _spread_out(y, x, v)
    yf, xf, ux, uy = y[kept].astype(np.float32), x[kept].astype(np.float32), ux[kept], uy[kept]
    profiles = np.zeros((len(xf), len(_ALONG)), np.float32)
    for aside in _SIDE_LINES:
        at_x = (xf - aside * uy)[:, None] + ux[:, None] * _ALONG
        at_y = (yf + aside * ux)[:, None] + uy[:, None] * _ALONG
        profiles += cv2.remap(grey, at_x, at_y, cv2.INTER_CUBIC, borderMode=cv2.BORDER_REFLECT)
    return Edges(np.asarray(profiles / len(_SIDE_LINES), np.float32), np.arctan2(uy, ux), noise)


def _inside(shape: tuple[int, ...], tiled: bool) -> NDArray[np.bool_]:
    """Where a profile stays within its tile, or within the picture but for a little."""
    height, width = shape[:2]
    if tiled:
        place = np.arange(TILE)
        inner = (place >= _MARGIN) & (place < TILE - _MARGIN)
        rows, columns = np.tile(inner, height // TILE), np.tile(inner, width // TILE)
        return np.asarray(rows[:, None] & columns[None])
    border = int(REACH_PX / 2)
    found = np.zeros((height, width), np.bool_)
    found[border:-border, border:-border] = True
    return found


def _sampled(plane: Floats, x: Floats, y: Floats) -> Floats:
    """Values between pixels; in pieces, since the library takes no longer lines."""
    pieces = [
        cv2.remap(plane, x[None, n : n + _AT_ONCE], y[None, n : n + _AT_ONCE], cv2.INTER_LINEAR)[0]
        for n in range(0, len(x), _AT_ONCE)
    ]
    return np.concatenate(pieces)


def _spread_out(y: NDArray[np.int64], x: NDArray[np.int64], strength: Floats) -> NDArray[np.int64]:
    """The strongest edges, none of whose cells holds more than its share."""
    order = np.argsort(-strength)
    cell = (y[order] // _CELL) * 100_000 + x[order] // _CELL
    by_cell = np.argsort(cell, kind="stable")
    cells = cell[by_cell]
    starts = np.r_[0, np.nonzero(np.diff(cells))[0] + 1]
    rank = np.arange(len(cells)) - np.repeat(starts, np.diff(np.r_[starts, len(cells)]))
    kept = order[by_cell[rank < _IN_A_CELL]]
    return np.asarray(kept[np.argsort(-strength[kept])][:_EDGES])
