"""Borders that are firm in the reference and softer in the paint: a layer to look at, no line of the list.

Measured on paintings with planted faults: strokes change widths themselves, so only firm borders that came out much softer say something;
harder ones were never told from chance.
"""

from functools import cache
from math import erf
from typing import TYPE_CHECKING, Any

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Point

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

Floats = NDArray[np.float64]
_REACH_MM, _STEP_MM = 6.0, 0.2  # of a profile across a border
_ALONG_MM, _APART_MM = 8.0, 8.0  # of a border that is one place, and from place to place
_STEEP, _COHERENT = 0.8, 0.6  # L* a px, and how much of the structure runs one way
_FIRM_MM, _TIMES = 1.5, 1.8
_CONTRAST, _FITS, _FITS_PAINTED = 8.0, 0.9, 0.8
_SLIDE = 6  # steps a profile may be slid: hair and wobble are not softness
_MOST = 250


def soft_edges(
    wanted: NDArray[Any], painted: NDArray[Any], px_per_mm: float, spoken: NDArray[np.bool_]
) -> tuple[tuple[Point, float], ...]:  # fmt: skip
    """Places (mm) and how many times softer they are than in the reference. L* pictures (H, W), the painting moved back."""
    places = _places(np.asarray(wanted, np.float32), px_per_mm, spoken)
    if not len(places):
        return ()
    one, other = (_widths(np.asarray(k, np.float32), px_per_mm, places) for k in (wanted, painted))
    sure = (one[:, 2] > _FITS) & (other[:, 2] > _FITS_PAINTED) & (np.abs(one[:, 1]) > _CONTRAST) & (one[:, 0] < _FIRM_MM)
    if not sure.any():
        return ()
    times = other[:, 0] / one[:, 0]
    usual = float(np.median(times[sure]))  # the camera and the hand soften everything alike
    soft = sure & (times > _TIMES * max(1.0, usual))
    return tuple(
        ((float(x), float(y)), float(t / max(1.0, usual))) for (x, y, _), t in zip(places[soft], times[soft], strict=True)
    )


def _places(picture: NDArray[np.float32], px: float, spoken: NDArray[np.bool_]) -> Floats:
    """On strong borders that run one way, the strongest first: x, y (mm) and the way across (n, 3)."""
    soft = cv2.GaussianBlur(picture, (0, 0), 1.2 * px)
    across, down = (cv2.Sobel(soft, cv2.CV_32F, *way, scale=0.125) for way in ((1, 0), (0, 1)))
    steep = np.hypot(across, down) * px
    side = int(2 * px) | 1
    peak = (steep >= cv2.dilate(steep, np.ones((side, side), np.uint8)) - 1e-6) & (steep > _STEEP) & spoken
    edge = int(9 * px)
    peak[:edge], peak[-edge:], peak[:, :edge], peak[:, -edge:] = False, False, False, False
    rows, columns = np.nonzero(peak)
    taken = np.zeros(picture.shape, np.uint8)
    found: list[tuple[float, float, float]] = []
    near = int(3 * px)
    for n in np.argsort(-steep[rows, columns]):
        y, x = int(rows[n]), int(columns[n])
        if taken[y, x] or len(found) >= _MOST:
            continue
        cv2.circle(taken, (x, y), int(_APART_MM * px), 1, -1)
        part = slice(y - near, y + near), slice(x - near, x + near)
        xx, xy, yy = (float((a[part] * b[part]).mean()) for a, b in ((across, across), (across, down), (down, down)))
        if np.hypot(xx - yy, 2 * xy) < _COHERENT * (xx + yy + 1e-9):
            continue
        way = 0.5 * np.arctan2(2 * xy, xx - yy)
        if np.cos(way) * across[y, x] + np.sin(way) * down[y, x] < 0:
            way += np.pi
        found.append(((x + 0.5) / px, (y + 0.5) / px, float(way)))
    return np.array(found).reshape(-1, 3)


@cache
def _steps() -> tuple[Floats, Floats, Floats]:
    """Profiles of borders of every width and place, each of length one; their widths, and how long they were."""
    at = np.arange(-_REACH_MM, _REACH_MM + _STEP_MM / 2, _STEP_MM)
    widths, shifts = np.geomspace(0.2, 4.5, 22), np.arange(-2, 2.01, 0.25)
    rows = np.array([[erf((t - s) / (w * 2**0.5)) for t in at] for w in widths for s in shifts])
    rows -= rows.mean(1, keepdims=True)
    long = np.linalg.norm(rows, axis=1)
    return rows / long[:, None], np.repeat(widths, len(shifts)), long


def _widths(picture: NDArray[np.float32], px: float, places: Floats) -> Floats:
    """Standard deviation (mm), contrast (L*) and fit (0 to 1) of each border (n, 3)."""
    at = np.arange(-_REACH_MM, _REACH_MM + _STEP_MM / 2, _STEP_MM)
    along = np.arange(-_ALONG_MM / 2, _ALONG_MM / 2 + 0.01, 0.5)
    normed, widths, long = _steps()
    across = np.stack([np.cos(places[:, 2]), np.sin(places[:, 2])], 1)
    beside = np.stack([-across[:, 1], across[:, 0]], 1)
    where = (
        places[:, None, None, :2]
        + at[None, None, :, None] * across[:, None, None]
        + along[None, :, None, None] * beside[:, None, None]
    )
    flat = (where * px - 0.5).astype(np.float32).reshape(len(places) * len(along), len(at), 2)
    seen = cv2.remap(picture, flat[..., 0], flat[..., 1], cv2.INTER_LINEAR, borderMode=cv2.BORDER_REPLICATE)
    profiles = np.asarray(seen, np.float64).reshape(len(places), len(along), len(at))
    mean = profiles.mean(1)
    inner = len(at) - 2 * _SLIDE
    for _ in range(2):
        goal = mean[:, _SLIDE:-_SLIDE] - mean[:, _SLIDE:-_SLIDE].mean(1, keepdims=True)
        slid = np.stack([profiles[..., _SLIDE + k : _SLIDE + k + inner] for k in range(-_SLIDE, _SLIDE + 1)], 2)
        like = ((slid - slid.mean(-1, keepdims=True)) * goal[:, None, None]).sum(-1)
        like -= 0.002 * np.arange(-_SLIDE, _SLIDE + 1) ** 2 * (goal**2).sum(1)[:, None, None]
        best = np.take_along_axis(slid, like.argmax(2)[:, :, None, None], 2)[:, :, 0].mean(1)
        mean = np.pad(best, ((0, 0), (_SLIDE, _SLIDE)), "edge")
    rest = mean - mean.mean(1, keepdims=True)
    match = rest @ normed.T
    n = match.argmax(1)
    top = match[np.arange(len(n)), n]
    return np.stack([widths[n], 2 * top / long[n], top**2 / ((rest**2).sum(1) + 1e-9)], 1)
