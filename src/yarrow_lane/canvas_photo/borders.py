"""The four borders of a straightened canvas fitted once more, all together and with the lens, to parts of a pixel of the photograph itself.

Along each border the steepest change of colour is followed as one smooth line (dynamic programming) close to where it lies already; then the
corners and the bulge that suit all four lines best are found, robustly.
"""

from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.canvas_photo.lens import Lens
from yarrow_lane.canvas_photo.plane_map import carried, plane_map
from yarrow_lane.canvas_photo.straight import Straight
from yarrow_lane.measure.late import late

if TYPE_CHECKING:
    import cv2
    from scipy import optimize
else:
    cv2, optimize = late("cv2"), late("scipy.optimize")

Floats = NDArray[np.float64]
_ROUNDS = (2.4, 1.2)  # mm a border is looked for within, on a canvas of 50 cm or less
_PLACES = 80  # along a border
_SOFT_MM = 0.25
_STEP_PX = 0.5
_BEND = 0.12  # what a step aside costs the line, shares of a strong edge
_STRONG = 97
_LEAST = 0.25  # of a strong edge: weaker places say nothing
_BULGE_SD = 0.03
# Places so near their border hold it; fewer deserve a look (measured: 0.75 and more on canvases).
_HELD_MM, GOOD_SHARE = 0.25, 0.55
_ORDER = ("top", "bottom", "left", "right")


@dataclass(frozen=True)
class _Seen:
    """Places on the borders: `points` (n, 2) px of the photograph, `axis` the coordinate each fixes (0 or 1) and its mm `wanted`, `weight`
    how far it is believed, `side` its border.
    """

    points: Floats
    axis: NDArray[np.int64]
    wanted: Floats
    weight: Floats
    side: NDArray[np.int64]


@dataclass(frozen=True)
class _Fit:
    """What is fitted: the four corners without the lens and the bulge, nine numbers in steps of `scale` from `begin`."""

    begin: Floats
    scale: Floats
    seen: _Seen
    corners: Floats
    lens: Lens

    def off(self, at: Floats) -> Floats:
        """How far the places lie from their borders, mm."""
        way, seen = Lens(float(at[8]), self.lens.width, self.lens.height), self.seen
        mm = carried(plane_map(at[:8].reshape(4, 2), self.corners), way.straight(seen.points))
        return np.asarray(mm[np.arange(len(mm)), seen.axis] - seen.wanted)

    def rest(self, by: Floats) -> Floats:
        """The same as it counts, and how unusual the bulge is."""
        at = self.begin + by * self.scale
        return np.append(self.off(at) * self.seen.weight, 0.3 * at[8] / _BULGE_SD)


def fitted_borders(picture: NDArray[Any], straight: Straight) -> Straight:
    """The same canvas with its borders fitted in the photograph (H, W, 3) at full size; as it was where they are not seen well."""
    size = np.array([straight.width_mm, straight.height_mm])
    unit = max(1.0, float(size.max()) / 500)
    corners = np.array([(0, 0), (size[0], 0), size, (0, size[1])], np.float64)
    ideal = straight.lens.straight(np.asarray(straight.corners, np.float64))
    bulge = straight.lens.bulge
    for reach in _ROUNDS:
        lens = Lens(bulge, straight.lens.width, straight.lens.height)
        seen = _borders(picture, plane_map(corners, ideal), lens, size, reach * unit)
        if seen is None:
            return straight
        scale = np.append(np.full(8, lens.reach / 500), 0.01)
        begin = np.append(ideal.ravel(), bulge)
        fit = _Fit(begin, scale, seen, corners, lens)
        found = optimize.least_squares(fit.rest, np.zeros(9), loss="soft_l1", f_scale=0.12 * unit, max_nfev=40)
        best = begin + found.x * scale
        ideal, bulge = best[:8].reshape(4, 2), float(best[8])
        off, side = fit.off(best), seen.side
    lens = Lens(bulge, straight.lens.width, straight.lens.height)
    met = tuple((float(x), float(y)) for x, y in lens.bowed(ideal))
    held = np.bincount(side[np.abs(off) < _HELD_MM * unit], minlength=4) / _PLACES
    weak = tuple(name for name, share in zip(_ORDER, held, strict=True) if share < GOOD_SHARE)
    return Straight(met, lens, plane_map(ideal, corners), straight.width_mm, straight.height_mm, weak)


def _borders(picture: NDArray[Any], matrix: Floats, lens: Lens, size: Floats, reach: float) -> _Seen | None:
    """Where the borders are seen; None unless all four are."""
    along = np.linspace(0.02, 0.98, _PLACES)
    points, axes, wanted, weights, sides = [], [], [], [], []
    for number, (fixed, value, inward) in enumerate(
        ((1, 0.0, 1.0), (1, float(size[1]), -1.0), (0, 0.0, 1.0), (0, float(size[0]), -1.0))
    ):
        base = np.zeros((_PLACES, 2))
        base[:, 1 - fixed], base[:, fixed] = along * size[1 - fixed], value
        away = np.zeros(2)
        away[fixed] = inward
        px_per_mm = float(np.hypot(*(_px(matrix, lens, base[40:41] + away) - _px(matrix, lens, base[40:41]))[0]))
        step = max(0.04, _STEP_PX / px_per_mm)
        offsets = np.arange(-reach, reach + step / 2, step)
        places = _px(matrix, lens, (base[:, None] + offsets[None, :, None] * away).reshape(-1, 2))
        at = (places - 0.5).astype(np.float32).reshape(_PLACES, len(offsets), 2)
        seen = cv2.remap(picture, at[..., 0], at[..., 1], cv2.INTER_LINEAR, borderMode=cv2.BORDER_REPLICATE).astype(np.float32)
        soft = cv2.GaussianBlur(seen, (0, 0), sigmaX=max(0.8, _SOFT_MM / step), sigmaY=0.6)
        steep = np.abs(np.gradient(soft, axis=1)).sum(2).astype(np.float64)
        strong = float(np.percentile(steep, _STRONG)) + 1e-6
        line = _line(steep / strong - 0.25 * (offsets / reach) ** 2)
        inner = np.clip(line, 1, len(offsets) - 2)
        rows = np.arange(_PLACES)
        before, here, after = (steep[rows, inner + k] for k in (-1, 0, 1))
        bent = before - 2 * here + after
        between = np.where(bent < -1e-9, 0.5 * (before - after) / np.minimum(bent, -1e-9), 0.0).clip(-0.5, 0.5)
        kept = here > _LEAST * strong
        if kept.sum() < _PLACES // 4:
            continue
        found = base + ((offsets[inner] + between * step)[:, None]) * away
        points.append(_px(matrix, lens, found)[kept])
        axes.append(np.full(int(kept.sum()), fixed))
        wanted.append(np.full(int(kept.sum()), value))
        weights.append(np.minimum(here[kept] / strong, 1.0))
        sides.append(np.full(int(kept.sum()), number))
    if len(points) < 4:
        return None
    return _Seen(*(np.concatenate(parts) for parts in (points, axes, wanted, weights, sides)))


def _px(matrix: Floats, lens: Lens, mm: Floats) -> Floats:
    return lens.bowed(carried(matrix, mm))


def _line(gain: Floats) -> NDArray[np.int64]:
    """The smooth line with the most gain: one column for each row (n,)."""
    rows, columns = gain.shape
    best, came = gain[0].copy(), np.zeros((rows, columns), np.int64)
    every = np.arange(columns)
    for row in range(1, rows):
        total, origin = best.copy(), every.copy()
        for step in (-2, -1, 1, 2):
            other = np.full(columns, -np.inf)
            if step > 0:
                other[step:] = best[:-step]
            else:
                other[:step] = best[-step:]
            other = other - _BEND * abs(step)
            better = other > total
            total[better], origin[better] = other[better], every[better] - step
        best, came[row] = total + gain[row], origin
    column = int(best.argmax())
    line = [column]
    for row in range(rows - 1, 0, -1):
        column = int(came[row, column])
        line.append(column)
    return np.array(line[::-1])
