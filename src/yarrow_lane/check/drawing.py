"""Where the painting's marks lie against the reference, mm: the whole first, then what is left at each place.

Light, tone and the touch of the brush are taken out of both pictures first (fine blur, local mean and spread removed). A dense flow
(inverse search, Kroeger and others 2016) moves the painting back before colours are compared; places are read by correlating directions of
the steepest change, which strokes disturb least (measured: phase correlation fails).
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Point
from yarrow_lane.transfer.proof.split import Whole

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

Plain = NDArray[np.float32]  # (H, W)
Moves = NDArray[np.float32]  # (H, W, 2) px, at places of the reference
_FINE_MM, _WIDE_MM = 0.7, 7.0
_RADIUS_MM, _REACH_MM = 9.0, 13.0  # of a place, and how far it may lie (measured: larger is coarser)
_CLOSELY_MM = (6.0, 2.5)  # once more, where it was found
_FAR = 0.06  # a long way needs so much better a match (our choice)
_GRID_MM, _EDGE_MM = 32.0, 20.0
_STRUCTURED = 55  # percentile of structure a place of the grid has at least
_LEAST_PEAK, _MOST_SECOND = 0.28, 0.92
LEAST_MM, _NOISE = 1.0, 2.5  # what is told at least, and times the local noise
_FIRM = 60
UNMOVED = Whole((0.0, 0.0), 1.0, 0.0, (0.0, 0.0))


@dataclass(frozen=True)
class Moved:
    """One place that lies elsewhere than the whole would have it: mm right and down from where it belongs."""

    name: str
    at: Point
    right: float
    down: float

    @property
    def mm(self) -> float:
        return float(np.hypot(self.right, self.down))


def plain(lightness: NDArray[Any], px_per_mm: float) -> Plain:
    """Lightness L* (H, W) without light, tone and texture."""
    fine = cv2.GaussianBlur(lightness.astype(np.float32), (0, 0), _FINE_MM * px_per_mm)
    mean = cv2.GaussianBlur(fine, (0, 0), _WIDE_MM * px_per_mm)
    spread = cv2.GaussianBlur(fine * fine, (0, 0), _WIDE_MM * px_per_mm) - mean * mean
    return np.asarray((fine - mean) / np.sqrt(np.maximum(spread, 0) + 9.0), np.float32)


def alike(one: Plain, other: Plain, spoken: NDArray[np.bool_] | None = None) -> float:
    """Correlation of two plain pictures, -1 to 1; only where `spoken` (H, W)."""
    a, b = (one.ravel(), other.ravel()) if spoken is None else (one[spoken], other[spoken])
    return float(np.corrcoef(a, b)[0, 1]) if a.size > 100 and a.std() > 0 and b.std() > 0 else 0.0


def moves_of(wanted: Plain, painted: Plain, px_per_mm: float) -> tuple[Moves, Whole]:
    """The flow from reference to painting where there is structure, the whole's elsewhere; and the whole."""
    search = cv2.DISOpticalFlow.create(cv2.DISOPTICAL_FLOW_PRESET_MEDIUM)
    search.setPatchSize(12)
    search.setPatchStride(4)
    search.setFinestScale(1)
    search.setGradientDescentIterations(25)
    search.setVariationalRefinementIterations(5)
    flow: NDArray[Any] = search.calc(_bytes(wanted), _bytes(painted), np.zeros((*wanted.shape, 2), np.float32))
    wide = int(4 * px_per_mm) | 1
    flow = np.stack([cv2.blur(cv2.medianBlur(np.ascontiguousarray(flow[..., k]), 5), (wide, wide)) for k in (0, 1)], -1)
    height, width = wanted.shape
    step = max(4, int(6 * px_per_mm))
    down, across = np.mgrid[step : height - step : step, step : width - step : step]
    structure = cv2.cornerMinEigenVal(wanted, step | 1, ksize=3)
    firm = structure[down.ravel(), across.ravel()]
    middle = np.array([width / 2, height / 2])
    at = (np.stack([across.ravel(), down.ravel()], -1) + 0.5 - middle) / px_per_mm
    weight = np.minimum(firm / max(float(np.percentile(firm, 80)), 1e-9), 1)
    whole, _ = whole_of(at, flow[down.ravel(), across.ravel()] / px_per_mm, weight)
    usual = _carried(whole, (height, width), px_per_mm)
    sure = np.clip(cv2.GaussianBlur(structure, (0, 0), 3 * px_per_mm) / max(float(np.percentile(structure, _FIRM)), 1e-9), 0, 1)
    return np.asarray(usual + (flow - usual) * sure[..., None], np.float32), whole


def _bytes(picture: Plain) -> NDArray[np.uint8]:
    return np.clip(picture * 45 + 128, 0, 255).astype(np.uint8)


def _carried(whole: Whole, shape: tuple[int, int], px_per_mm: float) -> Moves:
    """The whole as moves, px."""
    down, across = np.mgrid[: shape[0], : shape[1]].astype(np.float32)
    x, y = across - shape[1] / 2 + 0.5, down - shape[0] / 2 + 0.5
    turn = np.deg2rad(whole.degrees)
    c, s = whole.scale * np.cos(turn), whole.scale * np.sin(turn)
    return np.stack(
        [c * x - s * y + whole.shift[0] * px_per_mm - x, s * x + c * y + whole.shift[1] * px_per_mm - y], -1
    ).astype(np.float32)


def moved_back(picture: NDArray[Any], moves: Moves) -> NDArray[Any]:
    """The painting (H, W, ...) as it would lie had its drawing been right."""
    down, across = np.mgrid[: moves.shape[0], : moves.shape[1]].astype(np.float32)
    return np.asarray(
        cv2.remap(picture, across + moves[..., 0], down + moves[..., 1], cv2.INTER_LINEAR, borderMode=cv2.BORDER_REPLICATE)
    )


def whole_of(at: NDArray[Any], moves: NDArray[Any], weight: NDArray[Any] | None = None) -> tuple[Whole, NDArray[np.float64]]:
    """Shift, scale and turn that most places agree on, robustly; and what is left of each (n, 2). Places mm about the middle."""
    n = len(at)
    own = np.ones(n) if weight is None else np.asarray(weight, np.float64)
    if n < 3:
        return UNMOVED, np.asarray(moves, np.float64)
    terms = np.zeros((2 * n, 4))
    terms[::2, 0] = terms[1::2, 1] = 1
    terms[::2, 2], terms[1::2, 2] = at[:, 0], at[:, 1]
    terms[::2, 3], terms[1::2, 3] = -at[:, 1], at[:, 0]
    wanted = np.asarray(moves, np.float64).reshape(-1)
    weights: NDArray[Any] = np.repeat(own, 2)
    found: NDArray[Any] = np.zeros(4)
    for turn in range(10):
        pull = terms * weights[:, None]
        found = np.linalg.lstsq(pull.T @ terms + 1e-9 * np.eye(4), pull.T @ wanted, rcond=None)[0]
        rest = np.hypot(*(wanted - terms @ found).reshape(-1, 2).T)
        scale = max(0.25, 1.5 * float(np.median(rest))) * (2 if turn < 3 else 1)
        weights = np.repeat(own * np.clip(1 - (rest / (3 * scale)) ** 2, 0, 1) ** 2, 2)
    left = (wanted - terms @ found).reshape(-1, 2)
    return Whole((float(found[0]), float(found[1])), float(1 + found[2]), float(np.rad2deg(found[3])), (0.0, 0.0)), left


def places_moved(
    wanted: Plain, painted: Plain, px_per_mm: float, places: Sequence[tuple[str, Point]], spoken: NDArray[np.bool_]
) -> tuple[Whole, tuple[Moved, ...], float]:
    """The whole, the places that lie elsewhere than it would have them, the worst first, and the noise, mm.

    A grid of places with structure tells the whole; `spoken` (H, W) says where there is paint to look at.
    """
    height, width = wanted.shape
    size = np.array([width, height]) / px_per_mm
    near = [(name, at) for name, at in places if _within(at, size, _RADIUS_MM + 3) and _spoken(spoken, at, px_per_mm)]
    structure = cv2.cornerMinEigenVal(wanted, int(6 * px_per_mm) | 1, ksize=3)
    least = float(np.percentile(structure, _STRUCTURED))
    step = min(_GRID_MM, float(size.min()) / 6)
    grid = [
        ("", (float(x), float(y)))
        for y in np.arange(_EDGE_MM, size[1] - _EDGE_MM + 1, step)
        for x in np.arange(_EDGE_MM, size[0] - _EDGE_MM + 1, step)
        if structure[int(y * px_per_mm), int(x * px_per_mm)] > least and _spoken(spoken, (x, y), px_per_mm)
    ]
    every = [*near, *grid]
    if not every:
        return UNMOVED, (), 0.0
    found = np.array([_nearer(wanted, painted, at, px_per_mm) for _, at in every])
    sure = (found[:, 2] > _LEAST_PEAK) & (found[:, 3] < _MOST_SECOND)
    at = np.array([at for _, at in every]) - size / 2
    whole, left = whole_of(at, found[:, :2], np.where(sure, 1.0, 0.05))
    away = np.hypot(*left.T)
    noise = max(0.3, 1.5 * float(np.median(away[sure]))) if sure.any() else 0.3
    told = [
        Moved(name, place, float(left[n, 0]), float(left[n, 1]))
        for n, (name, place) in enumerate(every)
        if name and sure[n] and away[n] > max(LEAST_MM, _NOISE * noise)
    ]
    return whole, tuple(sorted(told, key=lambda m: -m.mm)), noise


def _within(at: Point, size: NDArray[np.float64], edge: float) -> bool:
    return bool(edge < at[0] < size[0] - edge and edge < at[1] < size[1] - edge)


def _spoken(spoken: NDArray[np.bool_], at: Point, px_per_mm: float) -> bool:
    y, x = (min(side - 1, max(0, int(v * px_per_mm))) for side, v in zip(spoken.shape, (at[1], at[0]), strict=True))
    return bool(spoken[y, x])


def _nearer(wanted: Plain, painted: Plain, at: Point, px_per_mm: float) -> tuple[float, float, float, float]:
    """A place looked for widely, then once more closely about where it was found: what lies round it moved less than it did."""
    right, down, peak, second = _place_moved(wanted, painted, at, px_per_mm, (_RADIUS_MM, _REACH_MM), (0.0, 0.0))
    if peak > _LEAST_PEAK:
        right, down, *_ = _place_moved(wanted, painted, at, px_per_mm, _CLOSELY_MM, (right, down))
    return right, down, peak, second


def _place_moved(
    wanted: Plain, painted: Plain, at: Point, px_per_mm: float, look_mm: tuple[float, float], about: tuple[float, float]
) -> tuple[float, float, float, float]:
    """Mm right and down of one place, its peak, and how high the next best peak stands against it; looked for `about` a move."""
    radius, reach = (int(mm * px_per_mm) for mm in look_mm)
    one = _ways(_window(wanted, at, px_per_mm, radius))
    other = _ways(_window(painted, (at[0] + about[0], at[1] + about[1]), px_per_mm, radius + reach))
    y, x = np.mgrid[-1 : 1 : 2 * radius * 1j, -1 : 1 : 2 * radius * 1j]
    one = one * np.exp(-1.2 * (x * x + y * y))
    match = np.asarray(
        [
            cv2.matchTemplate(b.astype(np.float32), a.astype(np.float32), cv2.TM_CCORR)
            for a, b in ((one.real, other.real), (one.imag, other.imag))
        ]
    ).sum(0)
    strength = cv2.boxFilter((np.abs(other) ** 2).astype(np.float32), -1, (2 * radius, 2 * radius), normalize=False)
    n = match.shape[0]
    norm = np.sqrt((np.abs(one) ** 2).sum() * strength[radius : radius + n, radius : radius + n] + 1e-9)
    score = cv2.GaussianBlur(np.asarray(match / norm, np.float32), (0, 0), 1.0)
    y, x = np.mgrid[:n, :n] - n // 2
    score = score - _FAR * np.hypot(x, y) / reach
    row, column = (int(k) for k in np.unravel_index(score.argmax(), score.shape))
    peak = float(score[row, column])
    dx = _between(score[row], column)
    dy = _between(score[:, column], row)
    rest = score.copy()
    q = max(2, reach // 4)
    rest[max(0, row - q) : row + q + 1, max(0, column - q) : column + q + 1] = -1
    return (
        (column + dx - n // 2) / px_per_mm + about[0], (row + dy - n // 2) / px_per_mm + about[1], peak, float(rest.max() / max(peak, 1e-6)),
    )  # fmt: skip


def _window(picture: Plain, at: Point, px_per_mm: float, radius: int) -> Plain:
    centre = float(at[0] * px_per_mm - 0.5), float(at[1] * px_per_mm - 0.5)
    return np.asarray(cv2.getRectSubPix(picture, (2 * radius, 2 * radius), centre), np.float32)


def _ways(window: Plain) -> NDArray[np.complex64]:
    """Which way it rises most, as complex numbers; flat places count little."""
    across, down = (cv2.Sobel(window, cv2.CV_32F, *k, scale=0.125) for k in ((1, 0), (0, 1)))
    steep = np.hypot(across, down)
    return np.asarray((across + 1j * down) / (steep + np.median(steep) * 1.5 + 1e-6), np.complex64)


def _between(line: NDArray[Any], at: int) -> float:
    """Where the peak lies between two places, by a parabola."""
    if not 0 < at < len(line) - 1:
        return 0.0
    before, here, after = (float(v) for v in line[at - 1 : at + 2])
    return 0.5 * (before - after) / (before - 2 * here + after - 1e-9)
