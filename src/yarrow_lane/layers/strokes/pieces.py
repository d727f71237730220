"""The picture in small pieces of one colour each, and which of them meet: what a short stroke spreads over."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.layers.raster import Labels
from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Circle
from yarrow_lane.measure.progress import SILENT, Progress
from yarrow_lane.measure.raster import Picture

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

_STEP_MM, _FINE_MM = 6.0, 2.0  # our choice: one piece every 6 mm, every 2 mm near eyes and nose


@dataclass(frozen=True)
class Pieces:
    """`of` is the piece at each px (height, width) at `px_per_mm`.

    Per piece: `px` its size, `middle` (n, 2) px, `colour` (n, 3) OpenCV Lab with value told less. Per meeting pair: `pairs` (m, 2), how
    strongly the colours step there (`contrast`, 1 is usual).
    """

    of: Labels
    px_per_mm: float
    px: NDArray[np.float64]
    middle: NDArray[np.float64]
    colour: NDArray[np.float64]
    pairs: NDArray[np.int64]
    contrast: NDArray[np.float64]

    @property
    def count(self) -> int:
        return len(self.px)


def pieces_of(
    picture: Picture, labels: Labels, px_per_mm: float, care: Sequence[Circle] = (), progress: Progress = SILENT
) -> Pieces:  # fmt: skip
    """Pieces of a picture sRGB uint8 (height, width, 3) that never cross a border of `labels`; smaller inside the circles of `care`, px."""
    image = np.ascontiguousarray(picture[..., ::-1])
    fine = np.zeros(labels.shape, np.uint8)
    for (x, y), radius in care:
        cv2.circle(fine, (round(x), round(y)), max(1, round(radius)), (1,), -1)
    base = _watershed(image, max(2, round(_STEP_MM * px_per_mm)), fine > 0, max(2, round(_FINE_MM * px_per_mm)))
    progress.at(0.5)
    _, of = np.unique(base.astype(np.int64) * (int(labels.max()) + 1) + labels, return_inverse=True)
    of = of.reshape(labels.shape).astype(np.int32)
    count, flat = int(of.max()) + 1, of.ravel()
    size = np.bincount(flat, minlength=count).astype(np.float64)
    lab = cv2.cvtColor(image, cv2.COLOR_BGR2LAB).astype(np.float32)
    wide = np.asarray(cv2.GaussianBlur(lab, (0, 0), 6), np.float32)

    def mean(plane: NDArray[np.float32]) -> NDArray[np.float64]:
        return np.bincount(flat, plane.ravel(), count) / size

    colour = np.stack([mean(lab[..., k]) for k in range(3)], 1)
    around = np.stack([mean(wide[..., k]) for k in range(3)], 1)
    rows, columns = np.mgrid[: labels.shape[0], : labels.shape[1]].astype(np.float32)
    middle = np.stack([mean(columns), mean(rows)], 1)
    soft = cv2.GaussianBlur(lab, (0, 0), 1.0)
    keys, steps = [], []
    for a, b, step in (
        (of[:-1], of[1:], np.linalg.norm(np.diff(soft, axis=0), axis=2)),
        (of[:, :-1], of[:, 1:], np.linalg.norm(np.diff(soft, axis=1), axis=2)),
    ):
        differ = a != b
        keys.append(np.minimum(a, b)[differ].astype(np.int64) * count + np.maximum(a, b)[differ])
        steps.append(step[differ])
    unique, inverse = np.unique(np.concatenate(keys), return_inverse=True)
    along = np.bincount(inverse).astype(np.float64)
    pairs = np.stack([unique // count, unique % count], 1)
    i, j = pairs.T
    contrast = (
        2 * np.bincount(inverse, np.concatenate(steps)) / along
        + 0.5 * np.linalg.norm(colour[i] - colour[j], axis=1)
        + 0.5 * np.linalg.norm(around[i] - around[j], axis=1)
    )
    contrast /= float(np.median(contrast)) + 1e-6 if len(contrast) else 1.0
    return Pieces(of, px_per_mm, size, middle, colour * (0.7, 1.3, 1.3), pairs, contrast)


def _watershed(image: NDArray[np.uint8], step: int, fine: NDArray[np.bool_], fine_step: int) -> Labels:
    """Basins of a grid of markers, denser where `fine`; dams go to the nearest basin."""
    height, width = image.shape[:2]
    soft = cv2.GaussianBlur(image, (0, 0), 0.8)
    ys, xs = (g.ravel() for g in np.mgrid[step // 2 : height : step, step // 2 : width : step])
    coarse = ~fine[ys, xs]
    fys, fxs = (g.ravel() for g in np.mgrid[fine_step // 2 : height : fine_step, fine_step // 2 : width : fine_step])
    finer = fine[fys, fxs]
    ys, xs = np.r_[ys[coarse], fys[finer]], np.r_[xs[coarse], fxs[finer]]
    markers = np.zeros((height, width), np.int32)
    markers[ys, xs] = np.arange(1, len(ys) + 1)
    basins = cv2.watershed(soft, markers)
    _, nearest = cv2.distanceTransformWithLabels(
        (basins <= 0).astype(np.uint8), cv2.DIST_L2, 3, labelType=cv2.DIST_LABEL_PIXEL
    )  # fmt: skip
    lookup = np.zeros(int(nearest.max()) + 1, np.int32)
    lookup[nearest[basins > 0]] = basins[basins > 0]
    return np.asarray(lookup[nearest], np.int32)
