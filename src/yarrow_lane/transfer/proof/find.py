"""Places of the drawing found without a click: windows of the lines to draw are looked for among the lines that are drawn."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Point, Polygon
from yarrow_lane.measure.progress import SILENT, Progress
from yarrow_lane.measure.raster import Picture
from yarrow_lane.transfer.proof.drawn_lines import drawn_lines, meant_lines, without_ruled

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

Plane = NDArray[Any]  # float32
PX_PER_MM = 2.0
# All our choice, tuned on drawings made up: half side of the window, how far it is looked for, softness, mm; from coarse to fine.
_ROUNDS = ((60.0, 14.0, 1.6), (38.0, 9.0, 1.1), (24.0, 5.0, 0.7))
_EVERY_MM = 30.0
_LEAST_BLOCKS = 6
_PEAK, _SECOND, _SHARP = 0.3, 0.85, 0.0005
_PLACE_PEAK = 0.2
SURE = 0.3
_RIM_MM = 80.0  # a place is looked for so far beyond the canvas's edge
_AGREE_MM = 1.5  # windows round one place that say so much else do not agree
# A place is looked for with its window in the middle and moved a little: what they agree on is less by chance.
_ROUND_IT = np.array([(0, 0), (9, 0), (-9, 0), (0, 9), (0, -9)], np.float64)
_NOT_IT = 0.25  # the median peak of all blocks below which this is no drawing of these lines


@dataclass(frozen=True)
class FoundPlace:
    """Where a place was drawn, canvas mm, and how sure that is, 0 to 1; `sure` from 0.3 on."""

    at: Point
    sureness: float

    @property
    def sure(self) -> bool:
        return self.sureness >= SURE


@dataclass(frozen=True)
class _Match:
    moved: NDArray[np.float64]
    peak: float
    second: float
    sharp: float


def found_places(
    canvas: Picture, px_per_mm: float, lines: Sequence[Polygon], places: Sequence[Point], ruled_mm: tuple[Sequence[float], Sequence[float]] = ((), ()),
    progress: Progress = SILENT,
) -> tuple[FoundPlace, ...] | None:  # fmt: skip
    """Each place (canvas mm) in a straightened photograph of the drawing, with the lines it should follow.

    `ruled_mm` are upright and level ruled lines. None when what is drawn is not these lines. Raises `Cancelled`.
    """
    observed = drawn_lines(canvas, px_per_mm)
    meant = meant_lines(lines, observed.shape, px_per_mm)
    observed, meant = (without_ruled(p, px_per_mm, *ruled_mm) for p in (observed, meant))
    aims = np.asarray(places, np.float64).reshape(-1, 2)
    moved, sureness = np.zeros_like(aims), np.zeros(len(aims))
    for number, (half, reach, soft) in enumerate(_ROUNDS):
        progress.at(number / len(_ROUNDS))
        wanted, seen = (cv2.GaussianBlur(p, (0, 0), soft * px_per_mm) for p in (meant, observed))
        seen = np.pad(seen, int(_RIM_MM * px_per_mm))  # beyond the canvas nothing is drawn
        if number == 0:
            whole = _whole(wanted, seen, half, reach, px_per_mm)
            if whole is None:
                return None
            moved = aims @ whole[:, :2].T + whole[:, 2] - aims
        last = number == len(_ROUNDS) - 1
        for n, aim in enumerate(aims):
            found = [
                match
                for shift in (_ROUND_IT if last else _ROUND_IT[:1])
                if (match := _match(wanted, seen, aim + shift, moved[n], half, reach, px_per_mm)) is not None
                and match.peak > _PLACE_PEAK
            ]
            if found:
                moved[n], sureness[n] = _agreed(found, (last and len(_ROUND_IT)) or 1)
            elif last:
                sureness[n] = 0.0
    progress.at(1.0)
    return tuple(
        FoundPlace((float(a[0] + m[0]), float(a[1] + m[1])), float(s)) for a, m, s in zip(aims, moved, sureness, strict=True)
    )


def _agreed(found: list[_Match], asked: int) -> tuple[NDArray[np.float64], float]:
    """What most windows round the place say, and how sure that is: their peaks, how alone, how many, how near each other."""
    moves = np.array([m.moved for m in found])
    weights = np.array([m.peak for m in found])
    middle = np.median(moves, 0)
    for _ in range(4):
        near = weights / (1 + (np.hypot(*(moves - middle).T) / _AGREE_MM) ** 2)
        middle = (near[:, None] * moves).sum(0) / near.sum()
    alone = np.median([m.peak * (1 - max(m.second, 0.0)) for m in found])
    spread = float(np.average(np.hypot(*(moves - middle).T), weights=weights))
    return middle, float(alone * (len(found) / asked) ** 0.5 / (1 + (spread / _AGREE_MM) ** 2) ** 0.5)


def _whole(wanted: Plane, seen: Plane, half: float, reach: float, px: float) -> NDArray[np.float64] | None:
    """The similarity (2, 3) that most blocks of the sheet agree on; None when too few are found."""
    height, width = wanted.shape[0] / px, wanted.shape[1] / px
    source, target, peaks = [], [], []
    for y in np.arange(_EVERY_MM, height - 10, _EVERY_MM):
        for x in np.arange(_EVERY_MM, width - 10, _EVERY_MM):
            match = _match(wanted, seen, np.array([x, y]), np.zeros(2), half, reach, px)
            if match is None:
                continue
            peaks.append(match.peak)
            if match.peak > _PEAK and match.second < _SECOND and match.sharp > _SHARP:
                source.append((x, y))
                target.append((x + match.moved[0], y + match.moved[1]))
    if len(source) < _LEAST_BLOCKS or float(np.median(peaks)) < _NOT_IT:
        return None
    found, _ = cv2.estimateAffinePartial2D(np.array(source), np.array(target), method=cv2.RANSAC, ransacReprojThreshold=5.0)
    return None if found is None else np.asarray(found, np.float64)


def _match(
    wanted: Plane, seen: Plane, aim: NDArray[np.float64], guess: NDArray[np.float64], half: float, reach: float, px: float
) -> _Match | None:  # fmt: skip
    """How far (mm) the window round the place was moved; None where no line runs or none is seen."""
    height, width = wanted.shape
    radius, search = int(half * px), int(reach * px)
    x, y = round(aim[0] * px), round(aim[1] * px)
    left, right, top, bottom = max(x - radius, 0), min(x + radius, width), max(y - radius, 0), min(y + radius, height)
    window = wanted[top:bottom, left:right]
    if window.size == 0 or window.max() < 1e-3 or (window > 0.3 * window.max()).sum() < 8 * px * px:
        return None
    across, down = round(guess[0] * px), round(guess[1] * px)
    rim = int(_RIM_MM * px)  # `seen` has it on every side
    field = seen[
        top + down - search + rim : bottom + down + search + rim, left + across - search + rim : right + across + search + rim
    ]
    if field.shape != (window.shape[0] + 2 * search, window.shape[1] + 2 * search) or field.std() < 1e-5:
        return None
    score = cv2.matchTemplate(field, window, cv2.TM_CCOEFF_NORMED)
    ys, xs = np.mgrid[-search : score.shape[0] - search, -search : score.shape[1] - search] / px
    nearer = score - 0.10 * (xs**2 + ys**2) / reach**2
    row, column = np.unravel_index(int(nearer.argmax()), score.shape)
    if not (1 <= column < score.shape[1] - 1 and 1 <= row < score.shape[0] - 1):
        return None
    part = score[row - 1 : row + 2, column - 1 : column + 2]
    curve_x, curve_y = part[1, 0] - 2 * part[1, 1] + part[1, 2], part[0, 1] - 2 * part[1, 1] + part[2, 1]
    curve_xy = (part[2, 2] - part[2, 0] - part[0, 2] + part[0, 0]) / 4
    hessian = np.array([[curve_x, curve_xy], [curve_xy, curve_y]], np.float64)
    slope = np.array([part[1, 2] - part[1, 0], part[2, 1] - part[0, 1]], np.float64) / 2
    try:
        between = np.clip(-np.linalg.solve(hessian, slope), -1, 1)
    except np.linalg.LinAlgError:
        between = np.zeros(2)
    rest = nearer.copy()
    apart = int(4 * px)
    rest[max(row - apart, 0) : row + apart + 1, max(column - apart, 0) : column + apart + 1] = -1
    moved = np.array([column - search + between[0] + across, row - search + between[1] + down]) / px
    peak = float(score[row, column])
    return _Match(moved, peak, float(rest.max() / max(peak, 1e-6)), float(np.linalg.eigvalsh(-hessian)[0] * px * px))
