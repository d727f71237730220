"""Strokes to px, and films over what lies beneath: the only place of Play that knows a scale."""

from typing import TYPE_CHECKING, Any

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.layers.flow.axis import Field
from yarrow_lane.layers.play.strokes import Strokes, Tick
from yarrow_lane.measure.late import late

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

Image = NDArray[np.uint8]
PX_PER_MM = 2.0
# Saunderson's surface of a paint film, as in the paint engine: reflected outside, inside, and the share seen of the first.
_OUTSIDE, _INSIDE, _SEEN = 0.04, 0.60, 0.5
_TICK_EVERY = 24
_CODES = np.arange(256) / 255.0
_TO_LIGHT = np.where(_CODES <= 0.04045, _CODES / 12.92, ((_CODES + 0.055) / 1.055) ** 2.4).astype(np.float32)
_STEPS = (np.arange(4097) / 4096.0) ** 2
_TO_CODE = (np.where(_STEPS <= 0.0031308, _STEPS * 12.92, 1.055 * _STEPS ** (1 / 2.4) - 0.055) * 255 + 0.5).astype(np.uint8)
# The streaks of bristles across a broad stroke: where, and how much lighter or darker.
_STREAKS = ((-0.33, 0.955), (-0.1, 1.035), (0.16, 0.965), (0.36, 1.05))


def light_of(image: Image) -> Field:
    """sRGB bytes as light, 0 to 1 (IEC 61966-2-1)."""
    return _TO_LIGHT[image]


def image_of(light: Field) -> Image:
    """Light as sRGB bytes."""
    return np.asarray(_TO_CODE[(np.sqrt(np.clip(light, 0, 1)) * 4096).astype(np.uint16)], np.uint8)


def inside(light: Field) -> Field:
    """What a film sees of a reflectance, its surface taken off."""
    q = np.maximum(light - _SEEN * _OUTSIDE, 1e-3)
    return np.asarray(q / ((1 - _OUTSIDE) * (1 - _INSIDE) + _INSIDE * q), np.float32)


def outside(light: Field) -> Field:
    """What the eye sees of it, the surface put on again."""
    return np.asarray(_SEEN * _OUTSIDE + (1 - _OUTSIDE) * (1 - _INSIDE) * light / (1 - _INSIDE * light), np.float32)


def with_film(image: Image, depth: Field) -> Image:
    """A film without scatter over an image: `depth` is ln of what passes twice, per channel, 0 or less."""
    return image_of(outside(inside(light_of(image)) * np.exp(depth)))


def draw(
    image: Image, strokes: Strokes, scale: float, origin: tuple[float, float], tick: Tick, bristles: float = 1.0, fine: bool = True
) -> None:  # fmt: skip
    """Opaque strokes into an image, in their order; a call for each group and colour. `origin` mm is the image's corner."""
    if not len(strokes.points):
        return
    points = np.round((strokes.points - np.array(origin, np.float32)) * (scale * 16) - 8).astype(np.int32)
    width, count = strokes.width * scale, len(strokes.wells)
    key = strokes.group.astype(np.int64) * count + strokes.colour
    order = np.argsort(key, kind="stable")
    key, points = key[order], points[order]
    runs = np.r_[0, np.nonzero(np.diff(key))[0] + 1, len(key)]
    line = cv2.LINE_AA if width < 9 and fine else cv2.LINE_8
    levels = _levels(points.shape[1], width, strokes.width, strokes.taper)
    side = _sideways(points) if bristles > 0 and width > 5 else None
    for n, (begin, end) in enumerate(zip(runs[:-1].tolist(), runs[1:].tolist(), strict=True)):
        colour = strokes.wells[key[begin] % count].astype(float)
        for upto, thick in levels:
            cv2.polylines(image, list(np.ascontiguousarray(points[begin:end, :upto])), False, colour.tolist(), thick, line, 4)
        if side is not None:
            upto = points.shape[1] - (1 if strokes.taper else 0)
            for off, gain in _STREAKS:
                moved = np.round(points[begin:end, :upto] + side[begin:end, :upto] * (off * width * 16)).astype(np.int32)
                tone = np.clip(colour * (1 + (gain - 1) * bristles), 0, 255).tolist()
                cv2.polylines(image, list(np.ascontiguousarray(moved)), False, tone, max(1, round(width * 0.1)), cv2.LINE_AA, 4)
        if n % _TICK_EVERY == 0:
            tick()


def _levels(steps: int, width: float, width_mm: float, taper: bool) -> list[tuple[int, int]]:
    """How a stroke ends: flats and filberts blunt, edges and liners in a point."""
    if not taper:
        return [(steps, max(1, round(width)))]
    if width < 1.5:
        return [(steps, 1)]
    if width < 2.2:
        return [(steps, 1), (steps - 1, 2)]
    if width_mm > 2.5:
        return [(steps, max(1, round(width * 0.75))), (steps - 1, max(1, round(width)))]
    return [
        (steps, max(1, round(width * 0.35))), (steps - 1, max(1, round(width * 0.75))), (max(2, steps - 2), max(1, round(width)))
    ]  # fmt: skip


def _sideways(points: NDArray[np.int32]) -> NDArray[np.float32]:
    way = np.diff(points, axis=1, append=2 * points[:, -1:] - points[:, -2:-1]).astype(np.float32)
    side = np.stack([-way[..., 1], way[..., 0]], -1)
    return np.asarray(side / (np.linalg.norm(side, axis=-1, keepdims=True) + 1e-3), np.float32)


def blurred(field: Field, sigma: float) -> Field:
    """Gaussian of sigma px; wide ones on a reduced grid."""
    if sigma < 0.3:
        return field
    reduce = int(max(1, sigma // 2))
    if reduce == 1:
        return np.asarray(cv2.GaussianBlur(field, (0, 0), sigma), field.dtype)
    height, width = field.shape[:2]
    size = ((width + reduce - 1) // reduce, (height + reduce - 1) // reduce)
    small = cv2.GaussianBlur(cv2.resize(field, size, interpolation=cv2.INTER_AREA), (0, 0), sigma / reduce)
    return np.asarray(cv2.resize(small, (width, height), interpolation=cv2.INTER_LINEAR), field.dtype)


def averaged_inside(field: Field | Image, mask: NDArray[np.uint8], sigma: float, tick: Tick) -> tuple[Field, int]:
    """Masked blur of sigma px on a reduced grid, (rows, columns, 3), and by how much it is reduced."""
    reduce = int(max(1, sigma // 1.5))
    height, width = mask.shape
    size = ((width + reduce - 1) // reduce, (height + reduce - 1) // reduce)
    weight = cv2.resize(mask.astype(np.float32), size, interpolation=cv2.INTER_AREA)
    s = max(sigma / reduce, 0.3)
    whole = cv2.resize(cv2.copyTo(field, mask), size, interpolation=cv2.INTER_AREA).astype(np.float32)
    tick()
    near, near_weight = cv2.GaussianBlur(whole, (0, 0), s), cv2.GaussianBlur(weight, (0, 0), s)
    tick()
    wide = max(4 * s, 3.0)
    far, far_weight = blurred(near, wide), blurred(near_weight, wide)
    return np.asarray((near + 1e-3 * far) / (near_weight + 1e-3 * far_weight + 1e-7)[..., None], np.float32), reduce


def lab_of(image: Image) -> NDArray[Any]:
    """An sRGB picture in CIE Lab."""
    return np.asarray(cv2.cvtColor(np.ascontiguousarray(image).astype(np.float32) / 255, cv2.COLOR_RGB2LAB), np.float32)
