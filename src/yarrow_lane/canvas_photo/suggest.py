"""Where the canvas seems to lie in a photograph: a suggestion to pull right, never more.

Its score does not tell a good one from a bad one (measured in the design: 3 to 28 % are more than 3 mm wrong, by tilt).
"""

import itertools
from typing import TYPE_CHECKING, Any

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.canvas_photo.lens import Points
from yarrow_lane.canvas_photo.sides import colours_of
from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import ring_area
from yarrow_lane.measure.raster import Picture

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

# All our choice; px of the working picture, whose longer side is _WORKING.
_WORKING = 400
_SHORTEST = 0.04 * _WORKING
_ON_LINE, _SAME_LINE = 2.5, 4.0
_LEANS = 35.0  # degrees from plumb or level
_LINES = 10  # of each way
_LEAST_AREA, _PROPORTION = 0.12, 1.43
_STEP_SEEN = 2.0  # colour difference per px

_Line = tuple[NDArray[np.float64], float, float]


def suggested_corners(picture: Picture, aspect: float) -> Points | None:
    """Corners (4, 2) px from the top left, clockwise, of what looks most like a canvas `aspect` times as wide as high; None where
    nothing does. (H, W, 3).
    """
    scale = _WORKING / max(picture.shape[:2])
    size = max(1, round(picture.shape[1] * scale)), max(1, round(picture.shape[0] * scale))
    small = cv2.resize(picture, size, interpolation=cv2.INTER_AREA)
    lab = colours_of(small)
    across, down = ([cv2.Scharr(lab[..., n], cv2.CV_32F, *way) for n in range(3)] for way in ((1, 0), (0, 1)))
    steps = np.asarray(np.hypot(across, down).sum(0) / 32, np.float32)
    segments = _segments(small, steps)
    if not len(segments):
        return None
    way = segments[:, 2:] - segments[:, :2]
    degrees = np.degrees(np.arctan2(way[:, 1], way[:, 0])) % 180
    upright = _lines(segments[np.abs(degrees - 90) < _LEANS])
    level = _lines(segments[(degrees < _LEANS) | (degrees > 180 - _LEANS)])
    soft = cv2.GaussianBlur(steps, (0, 0), 0.7)
    best: Points | None = None
    most = -np.inf
    for one, two in itertools.combinations(upright, 2):
        for three, four in itertools.combinations(level, 2):
            corners = _quad(one, two, three, four, size)
            score = _score(corners, soft, aspect) if corners is not None else -np.inf
            if score > most:
                best, most = corners, score
    return best / scale if best is not None else None


def _segments(small: NDArray[Any], steps: NDArray[Any]) -> Points:
    """Straight pieces (n, 4) of edges in each channel and in the steps of colour."""
    finder = cv2.createLineSegmentDetector(cv2.LSD_REFINE_STD)
    found = []
    for layer in (*np.moveaxis(small, 2, 0), np.clip(steps * 4, 0, 255).astype(np.uint8)):
        pieces = finder.detect(np.ascontiguousarray(layer))[0]
        if pieces is not None:
            found.append(pieces.reshape(-1, 4))
    every = np.concatenate(found).astype(np.float64) if found else np.zeros((0, 4))
    return np.asarray(every[np.hypot(every[:, 2] - every[:, 0], every[:, 3] - every[:, 1]) > _SHORTEST])


def _lines(segments: Points) -> list[_Line]:
    """The lines most of their length lies on: normal, distance from the origin, length."""
    if not len(segments):
        return []
    way = segments[:, 2:] - segments[:, :2]
    long = np.hypot(*way.T)
    found: list[_Line] = []
    for n in np.argsort(-long)[:60]:
        across = np.array([-way[n, 1], way[n, 0]]) / long[n]
        away = float(across @ segments[n, :2])
        off = np.maximum(np.abs(segments[:, :2] @ across - away), np.abs(segments[:, 2:] @ across - away))
        new = all(
            abs(across @ other) < 0.995 or abs(away - there * np.sign(across @ other)) > _SAME_LINE for other, there, _ in found
        )
        if new:
            found.append((across, away, float(long[off < _ON_LINE].sum())))
    return sorted(found, key=lambda line: -line[2])[:_LINES]


def _quad(one: _Line, two: _Line, three: _Line, four: _Line, size: tuple[int, int]) -> Points | None:
    """Where two upright and two level lines meet; None for what is no canvas inside the frame."""
    corners = []
    for a, b in ((one, three), (two, three), (two, four), (one, four)):
        rows = np.array([a[0], b[0]])
        if abs(np.linalg.det(rows)) < 1e-6:
            return None
        corners.append(np.linalg.solve(rows, [a[1], b[1]]))
    quad = np.array(corners)
    if quad.min() < -3 or np.any(quad.max(0) > np.array(size) + 3):
        return None
    about = quad - quad.mean(0)
    quad = quad[np.argsort(np.arctan2(about[:, 1], about[:, 0]))]
    quad = np.roll(quad, -int(np.argmin(quad.sum(1))), 0)
    sides = np.roll(quad, -1, 0) - quad
    after = np.roll(sides, -1, 0)
    if np.any(sides[:, 0] * after[:, 1] - sides[:, 1] * after[:, 0] <= 0):
        return None
    return quad if ring_area(quad.tolist()) >= _LEAST_AREA * size[0] * size[1] else None


def _score(quad: Points, soft: NDArray[Any], aspect: float) -> float:
    """How much its sides look like a canvas's: the weakest side counts most."""
    sides = np.roll(quad, -1, 0) - quad
    long = np.hypot(*sides.T)
    ratio = (long[0] + long[2]) / (long[1] + long[3]) / aspect
    if not 1 / _PROPORTION < ratio < _PROPORTION:
        return -np.inf
    along = np.linspace(0.03, 0.97, 40)
    places = (quad[:, None] + along[None, :, None] * sides[:, None]).astype(np.float32)
    seen = cv2.remap(soft, places[..., 0], places[..., 1], cv2.INTER_LINEAR)
    share = (seen > _STEP_SEEN).mean(1)
    clear = 0.25 * np.log(np.maximum(np.median(seen, 1), 1)).mean()
    size = 0.3 * np.sqrt(ring_area(quad.tolist()) / soft.size)
    return float(2 * share.min() + share.mean() + clear + size - 0.7 * abs(np.log(ratio)))
