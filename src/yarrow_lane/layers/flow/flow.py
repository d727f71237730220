"""The whole lie of the fur on one canvas: direction root to tip with its doubt, length, where it points at the viewer, where to ask next."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.layers.flow.axis import Axis, Field, axis_of
from yarrow_lane.layers.flow.length import half_lengths, lengths_mm
from yarrow_lane.layers.flow.sign import UNSURE, cells_of, first_guess, signs_of, walked
from yarrow_lane.layers.lie_record import Lie, LieStroke
from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Point, Polygon
from yarrow_lane.measure.progress import SILENT, Progress
from yarrow_lane.measure.raster import Picture

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

PX_PER_MM = 2.5  # the scale of the trials; a picture with less has less to say
_STROKE_DEG, _STROKE_MM = 4.0, 8.0  # what a stroke tells of the axis beside it (our choice)
_FROM_EDGE_MM = 1.0
_DOTS, _SMOOTH = (
    0.28,
    1.0,
)  # coherence below which textured hair points at the viewer (trials); texture below which it is smooth
_JOIN_MM = 1.5


@dataclass(frozen=True)
class Read:
    """What the picture alone says, kept while the painter draws: axis, half-lengths, the fur itself and its usual length, on one grid."""

    axis: Axis
    half: Field
    fur: NDArray[np.bool_]
    usual: Field


@dataclass(frozen=True)
class Flow:
    """On a grid of `px_mm`, all (rows, columns): unit way root to tip `x`, `y`, `doubt` of the axis in degrees, `sure` of its sign, 0 to 1.

    `length` mm; `dots` where hair points at the viewer; `fur` where there is any. `ask` is where a stroke would help most, mm; None when
    nothing is unsure.
    """

    x: Field
    y: Field
    doubt: Field
    sure: Field
    length: Field
    dots: NDArray[np.bool_]
    fur: NDArray[np.bool_]
    px_mm: float
    ask: Point | None = None
    whorls: tuple[Point, ...] = ()

    def at(self, point: Point) -> tuple[int, int]:
        """The cell of a point, held inside the grid."""
        rows, columns = self.x.shape
        return min(rows - 1, max(0, int(point[1] / self.px_mm))), min(columns - 1, max(0, int(point[0] / self.px_mm)))


def read(picture: Picture, px_per_mm: float, usual: Field, progress: Progress = SILENT) -> Read:
    """Read the lie out of the reference, sRGB uint8 (height, width, 3) at `px_per_mm`.

    `usual` (height, width) is the usual length of hair, mm, at each px; 0 where no fur is.
    """
    fur = usual > 0
    lightness, scale, mask = _scaled(picture, px_per_mm, fur)
    margin = max(1, round(_FROM_EDGE_MM * scale))
    inner = cv2.erode(mask.astype(np.uint8), np.ones((2 * margin + 1,) * 2, np.uint8)) > 0
    axis = axis_of(lightness, scale, inner if inner.any() else mask, progress)
    half = half_lengths(lightness, scale, axis)
    grid = cv2.resize(mask.astype(np.float32), axis.angle.shape[::-1], interpolation=cv2.INTER_AREA) > 0.5
    size = axis.angle.shape[::-1]
    length = cv2.resize(usual.astype(np.float32), size, interpolation=cv2.INTER_NEAREST)
    return Read(
        axis,
        half,
        np.asarray(grid),
        np.asarray(np.where(length > 0, length, usual[fur].mean() if fur.any() else 1.0), np.float32),
    )


def _scaled(picture: Picture, px_per_mm: float, fur: NDArray[np.bool_]) -> tuple[Field, float, NDArray[np.bool_]]:
    shrink = min(1.0, PX_PER_MM / px_per_mm)
    size = max(1, round(picture.shape[1] * shrink)), max(1, round(picture.shape[0] * shrink))
    small = cv2.resize(picture, size, interpolation=cv2.INTER_AREA) if shrink < 1 else picture
    lab = cv2.cvtColor(np.ascontiguousarray(small).astype(np.float32) / 255, cv2.COLOR_RGB2LAB)
    mask = cv2.resize(fur.astype(np.uint8), size, interpolation=cv2.INTER_NEAREST) > 0
    return np.ascontiguousarray(lab[..., 0]), px_per_mm * size[0] / picture.shape[1], np.asarray(mask)


def flow_of(found: Read, lie: Lie, noses: Sequence[Point] = ()) -> Flow:
    """The lie with what the painter said of it; noses in mm make the first guess."""
    axis = _told(found.axis, lie.strokes, found.fur)
    cells = cells_of(axis, found.fur)
    strokes = [s.points for s in lie.strokes]
    signs = signs_of(cells, strokes, lie.partings, first_guess(cells, noses))
    # The nearest cell's sign, never one between two: across a parting it would be that of nothing.
    size = axis.angle.shape[::-1]
    sign = cv2.resize(_filled(signs, cells.inside), size, interpolation=cv2.INTER_NEAREST)
    x, y = np.cos(axis.angle), np.sin(axis.angle)
    way = np.dstack([np.cos(cells.angle), np.sin(cells.angle)]) * np.where(signs < 0, -1, 1)[..., None]
    way = np.dstack([_filled(way[..., k].astype(np.float32), cells.inside) for k in (0, 1)])
    near = cv2.resize(way, size, interpolation=cv2.INTER_NEAREST)
    turn = np.where(x * near[..., 0] + y * near[..., 1] < 0, -1, 1)
    x, y = x * turn, y * turn
    x, y = _joined(x, y, axis, lie.partings)
    dots = (axis.coherent < _DOTS) & (axis.texture > _SMOOTH) & found.fur
    dots = _without_small(dots, round(8 / axis.px_mm))
    for (cx, cy), radius in lie.dots:
        rows, columns = np.mgrid[: dots.shape[0], : dots.shape[1]]
        dots |= np.hypot((columns + 0.5) * axis.px_mm - cx, (rows + 0.5) * axis.px_mm - cy) < radius
    length = lengths_mm(found.half, axis.px_mm, found.fur, found.usual, lie.strokes)
    length = np.asarray(cv2.GaussianBlur(length, (0, 0), 4 / axis.px_mm), np.float32)
    sure = np.abs(np.asarray(sign, np.float32))
    return Flow(
        x.astype(np.float32), y.astype(np.float32), axis.doubt, sure, length, dots, found.fur, axis.px_mm,
        _ask(sure, found.fur, axis, lie), _whorls(x, y, found.fur, axis.px_mm),
    )  # fmt: skip


def _told(axis: Axis, strokes: Sequence[LieStroke], fur: NDArray[np.bool_]) -> Axis:
    """The axis with what strokes say of it: each is a measurement of its own, fading over 8 mm."""
    if not strokes:
        return axis
    known = 1 / np.deg2rad(2 * axis.doubt) ** 2
    real, imaginary = known * np.cos(2 * axis.angle), known * np.sin(2 * axis.angle)
    tells = 1 / np.deg2rad(2 * _STROKE_DEG) ** 2
    rows, columns = axis.angle.shape
    reach = int(3 * _STROKE_MM / axis.px_mm)
    for stroke in strokes:
        # One stroke is one measurement wherever its points lie: the nearest point speaks, so weights are taken at their highest.
        best = np.zeros((rows, columns), np.float32)
        angle = np.zeros((rows, columns), np.float32)
        for point, way in walked(stroke.points, 2.0):
            cx, cy = point / axis.px_mm
            top, left = max(0, int(cy) - reach), max(0, int(cx) - reach)
            bottom, right = min(rows, int(cy) + reach), min(columns, int(cx) + reach)
            if bottom <= top or right <= left:
                continue
            window = np.s_[top:bottom, left:right]
            ys, xs = np.mgrid[window]
            away = np.hypot(xs + 0.5 - cx, ys + 0.5 - cy) * axis.px_mm
            weight = np.exp(-((away / _STROKE_MM) ** 2) / 2).astype(np.float32)
            more = weight > best[window]
            best[window] = np.where(more, weight, best[window])
            angle[window] = np.where(more, np.arctan2(way[1], way[0]), angle[window])
        real += tells * best * np.cos(2 * angle)
        imaginary += tells * best * np.sin(2 * angle)
    doubt = np.sqrt(np.rad2deg(0.5 / np.sqrt(np.hypot(real, imaginary) + 1e-6)).clip(0, 52) ** 2)
    turned = (0.5 * np.arctan2(imaginary, real)) % np.pi
    return Axis(turned.astype(np.float32), doubt.astype(np.float32), axis.texture, axis.coherent, axis.px_mm)


def _filled(values: Field, inside: NDArray[np.bool_]) -> Field:
    """Values outside taken from the nearest cell inside."""
    if inside.all() or not inside.any():
        return values
    _, nearest = cv2.distanceTransformWithLabels((~inside).astype(np.uint8), cv2.DIST_L2, 3, labelType=cv2.DIST_LABEL_PIXEL)
    lookup = np.zeros(int(nearest.max()) + 1, np.float32)
    lookup[nearest[inside]] = values[inside]
    return np.asarray(lookup[nearest], np.float32)


def _joined(x: Field, y: Field, axis: Axis, partings: Sequence[Polygon]) -> tuple[Field, Field]:
    """Unsure places follow their surer neighbours; a parting keeps its two sides apart."""
    weight = (1 / (1 + (axis.doubt / 12) ** 2)).astype(np.float32)
    wall = np.ones(x.shape, np.uint8)
    for line in partings:
        points = np.rint(np.asarray(line) / axis.px_mm).astype(np.int32)
        cv2.polylines(wall, [points], False, (0,), max(1, round(_JOIN_MM / axis.px_mm)))
    weight = weight * wall
    sigma = _JOIN_MM / axis.px_mm
    far = 8 / axis.px_mm

    def soft(a: Field) -> Field:
        wide = cv2.GaussianBlur(a * weight, (0, 0), far) * (wall if partings else 1)
        return np.asarray(cv2.GaussianBlur(a * weight, (0, 0), sigma) + 1e-3 * wide, np.float32)

    sx, sy = soft(np.asarray(x, np.float32)), soft(np.asarray(y, np.float32))
    size = np.hypot(sx, sy)
    poor = size < 1e-6
    return np.where(poor, x, sx / np.maximum(size, 1e-9)), np.where(poor, y, sy / np.maximum(size, 1e-9))


def _without_small(mask: NDArray[np.bool_], px: int) -> NDArray[np.bool_]:
    kernel = cv2.getStructuringElement(cv2.MORPH_ELLIPSE, (max(1, px) | 1,) * 2)
    return np.asarray(cv2.morphologyEx(mask.astype(np.uint8), cv2.MORPH_OPEN, kernel) > 0)


def _ask(sure: Field, fur: NDArray[np.bool_], axis: Axis, lie: Lie) -> Point | None:
    """Where one stroke would settle most: the middle of the largest area of one unsettled direction."""
    if not fur.any():
        return None
    # Until a stroke is drawn all of it is a guess, and the best place is the middle of the largest piece of fur.
    unsure = fur if not lie.strokes else fur & (sure < UNSURE)
    drawn = np.ones(fur.shape, np.uint8)
    for s in lie.strokes:
        cv2.polylines(
            drawn, [np.rint(np.asarray(s.points) / axis.px_mm).astype(np.int32)], False, (0,), max(1, round(16 / axis.px_mm))
        )
    unsure = unsure & (drawn > 0)
    if unsure.sum() * axis.px_mm**2 < 400:  # our choice: under 4 cm² it is not worth a stroke
        return None
    depth = cv2.distanceTransform(np.pad(unsure.astype(np.uint8), 1), cv2.DIST_L2, 5)[1:-1, 1:-1]
    row, column = np.unravel_index(int(depth.argmax()), depth.shape)
    return (float(column) + 0.5) * axis.px_mm, (float(row) + 0.5) * axis.px_mm


def _whorls(x: Field, y: Field, fur: NDArray[np.bool_], px_mm: float) -> tuple[Point, ...]:
    """Places round which the lie turns once (index +1): where hair springs from or circles a point; by the turning along a ring of 6 mm."""
    r = max(2, round(6 / px_mm))
    rows, columns = x.shape
    turns = np.zeros((rows, columns), np.float32)
    previous = None
    for n in range(17):
        t = 2 * np.pi * n / 16
        dy, dx = round(r * np.sin(t)), round(r * np.cos(t))
        angle = np.arctan2(np.roll(y, (-dy, -dx), (0, 1)), np.roll(x, (-dy, -dx), (0, 1)))
        if previous is not None:
            turns += (angle - previous + np.pi) % (2 * np.pi) - np.pi
        previous = angle
    kernel = cv2.getStructuringElement(cv2.MORPH_ELLIPSE, (4 * r + 1,) * 2)
    inner = cv2.erode(fur.astype(np.uint8), kernel, borderType=cv2.BORDER_CONSTANT, borderValue=(0,)) > 0
    found = (np.rint(turns / (2 * np.pi)) == 1) & inner
    count, _, stats, centres = cv2.connectedComponentsWithStats(found.astype(np.uint8))
    large = [n for n in range(1, count) if stats[n, 4] >= r * r]
    return tuple((float(centres[n][0] + 0.5) * px_mm, float(centres[n][1] + 0.5) * px_mm) for n in large)
