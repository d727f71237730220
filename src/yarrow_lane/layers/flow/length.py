"""How long hair is seen to be: how far along the lie the texture stays like itself. Good for ranking; true lengths come from the painter."""

from collections.abc import Sequence
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.layers.flow.axis import Axis, Field
from yarrow_lane.layers.lie_record import LieStroke
from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Polygon

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

_STEP_MM, _LAGS = 0.8, 32
_FINE_MM, _WINDOW_MM = 2.5, 6.0
_PX_PER_MM = 1.25  # finer than this only takes time
# ln(length) grows this much with ln(half-length): less than rendered fur showed (2.5), since blur and clumps stretch it (our choice).
_SLOPE = 1.2
_APART = 2.5  # times the usual length and its inverse: the picture alone is not believed further (our choice)
SHORTEST_MM, LONGEST_MM = 2.0, 80.0


def half_lengths(lightness: Field, px_per_mm: float, axis: Axis) -> Field:
    """Where along the lie the texture's likeness falls to half, mm, on the axis's grid; lightness L* (height, width)."""
    shrink = min(1.0, _PX_PER_MM / px_per_mm)
    small = cv2.resize(lightness, None, fx=shrink, fy=shrink, interpolation=cv2.INTER_AREA)
    scale = px_per_mm * small.shape[1] / lightness.shape[1]
    fine = small - cv2.GaussianBlur(small, (0, 0), _FINE_MM * scale)
    fine /= np.sqrt(cv2.GaussianBlur(fine * fine, (0, 0), 2 * _FINE_MM * scale)) + 0.3
    height, width = small.shape
    # The axis is interpolated by its doubled angle: 1 and 179 degrees are neighbours.
    doubled = np.dstack([np.cos(2 * axis.angle), np.sin(2 * axis.angle)])
    doubled = cv2.resize(doubled, (width, height), interpolation=cv2.INTER_LINEAR)
    angle = 0.5 * np.arctan2(doubled[..., 1], doubled[..., 0])
    ux, uy = np.cos(angle).astype(np.float32), np.sin(angle).astype(np.float32)
    columns, rows = np.meshgrid(np.arange(width, dtype=np.float32), np.arange(height, dtype=np.float32))
    x, y, dx, dy = columns.copy(), rows.copy(), ux.copy(), uy.copy()
    step = np.float32(_STEP_MM * scale)

    def averaged(a: NDArray[np.float32]) -> NDArray[np.float32]:
        reduced = cv2.resize(a, (max(1, width // 4), max(1, height // 4)), interpolation=cv2.INTER_AREA)
        return np.asarray(cv2.GaussianBlur(reduced, (0, 0), _WINDOW_MM * scale / 4), np.float32)

    def at(a: NDArray[np.float32]) -> NDArray[np.float32]:
        return np.asarray(cv2.remap(a, x, y, cv2.INTER_LINEAR, borderMode=cv2.BORDER_REFLECT), np.float32)

    whole = np.maximum(averaged(fine * fine), 0.05)
    likeness = []
    for _ in range(1, _LAGS):
        x, y = x + dx * step, y + dy * step
        likeness.append(averaged(fine * at(fine)) / whole)
        nx, ny = at(ux), at(uy)
        turn = np.where(nx * dx + ny * dy < 0, -1, 1).astype(np.float32)
        dx, dy = nx * turn, ny * turn
    found = _half(np.stack(likeness, -1))
    return np.asarray(cv2.resize(found, axis.angle.shape[::-1], interpolation=cv2.INTER_LINEAR), np.float32)


def _half(likeness: Field) -> Field:
    first = np.clip(likeness[..., :1], 0.05, 1)
    shares = likeness / first
    below = shares < 0.5
    n = np.where(below.any(-1), below.argmax(-1), shares.shape[-1] - 1)
    before = np.take_along_axis(shares, np.maximum(n - 1, 0)[..., None], -1)[..., 0]
    after = np.take_along_axis(shares, n[..., None], -1)[..., 0]
    part = np.clip((before - 0.5) / np.maximum(before - after, 1e-3), 0, 1)
    return np.asarray((n + part) * _STEP_MM, np.float32)


def lengths_mm(half: Field, px_mm: float, fur: NDArray[np.bool_], usual: Field, strokes: Sequence[LieStroke]) -> Field:
    """Hair length on the grid, mm: what is usual for the kind, more or less as the picture shows it, put right by hairs the painter drew.

    One hair shifts all lengths, three and more also say how much they differ (half to three times as the half-lengths do); least squares
    in ln.
    """
    log = np.log(np.maximum(half, 0.4))
    middle = float(np.median(log[fur])) if fur.any() else 0.0
    base = np.log(np.maximum(usual, SHORTEST_MM))
    guess = base + np.clip(_SLOPE * (log - middle), -np.log(_APART), np.log(_APART))
    hairs = [h for s in strokes if s.one_hair for h in _drawn(s.points, half.shape, px_mm)]
    if not hairs:
        return np.asarray(np.clip(np.exp(guess), SHORTEST_MM, LONGEST_MM), np.float32)
    seen = np.array([float(guess[at]) for at, _ in hairs])
    told = np.array([np.log(length) for _, length in hairs])
    slope = 1.0
    if len(hairs) >= 3 and np.ptp(seen) > 0.05:
        slope = float(np.clip(np.polyfit(seen, told, 1)[0], 0.5, 3.0))
    offset = float(np.mean(told - slope * seen))
    return np.asarray(np.clip(np.exp(slope * guess + offset), SHORTEST_MM, LONGEST_MM), np.float32)


def _drawn(points: Polygon, shape: tuple[int, ...], px_mm: float) -> list[tuple[tuple[int, int], float]]:
    p = np.asarray(points, np.float64)
    length = float(np.hypot(*np.diff(p, axis=0).T).sum())
    x, y = (p[len(p) // 2] / px_mm).astype(int)
    inside = 0 <= y < shape[0] and 0 <= x < shape[1] and length >= 1
    return [((int(y), int(x)), length)] if inside else []
