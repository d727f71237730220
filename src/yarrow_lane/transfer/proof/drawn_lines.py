"""The lines that are drawn on a straightened canvas, whatever they are drawn with."""

from collections.abc import Sequence
from typing import TYPE_CHECKING, Any

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Polygon
from yarrow_lane.measure.raster import Picture

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

Plane = NDArray[Any]  # float32
# All our choice.
_STROKE_MM = 0.9
_RIM_MM = 3.0  # the canvas's edge is no line
_RULED_MM = 1.4  # so far from a ruled line nothing is looked at


def drawn_lines(canvas: Picture, px_per_mm: float) -> Plane:
    """How much each px (H, W) is on a drawn line, 0 to 1, uneven light taken out.

    Dark or light strokes, whichever stand out more: a dark stroke has light flanks, and taking both would put every line 2 mm aside.
    """
    grey = np.log1p(cv2.cvtColor(canvas, cv2.COLOR_RGB2GRAY).astype(np.float32))
    soft = cv2.GaussianBlur(grey, (0, 0), _STROKE_MM * px_per_mm / 2)
    across = cv2.Sobel(soft, cv2.CV_32F, 2, 0, ksize=5)
    down = cv2.Sobel(soft, cv2.CV_32F, 0, 2, ksize=5)
    both = cv2.Sobel(soft, cv2.CV_32F, 1, 1, ksize=5)
    middle, apart = (across + down) / 2, np.sqrt(((across - down) / 2) ** 2 + both**2)
    rim = max(1, int(_RIM_MM * px_per_mm))
    found = []
    for ridge in (np.maximum(middle + apart, 0), np.maximum(apart - middle, 0)):
        inner = ridge[rim:-rim, rim:-rim]
        if inner.size == 0:
            found.append((0.0, np.zeros_like(grey)))
            continue
        usual = float(np.median(inner))
        strongest = (
            float(np.partition(inner[::3, ::3].ravel(), -200)[-200:].mean())
            if inner[::3, ::3].size > 200
            else float(inner.max())
        )
        plane = np.clip((ridge - 3 * usual) / (8 * usual + 1e-9), 0, 1)
        plane[:rim], plane[-rim:], plane[:, :rim], plane[:, -rim:] = 0, 0, 0, 0
        found.append((strongest, plane))
    return np.asarray(max(found, key=lambda f: f[0])[1], np.float32)


def meant_lines(lines: Sequence[Polygon], shape: tuple[int, int], px_per_mm: float) -> Plane:
    """The lines to draw as such a picture (H, W), one px wide."""
    picture = np.zeros(shape, np.float32)
    paths = [np.rint((np.asarray(line) * px_per_mm - 0.5) * 16).astype(np.int32) for line in lines if len(line) > 1]
    for path in paths:
        cv2.polylines(picture, [path], False, 1.0, 1, cv2.LINE_8, 4)
    return picture


def without_ruled(plane: Plane, px_per_mm: float, upright_mm: Sequence[float], level_mm: Sequence[float]) -> Plane:
    """The same without what lies on ruled squares."""
    found = plane.copy()
    reach = _RULED_MM * px_per_mm
    for at in upright_mm:
        found[:, max(0, round(at * px_per_mm - reach)) : max(0, round(at * px_per_mm + reach))] = 0
    for at in level_mm:
        found[max(0, round(at * px_per_mm - reach)) : max(0, round(at * px_per_mm + reach))] = 0
    return found
