"""What stands on a simulated canvas: scribble marks, and paint that covers part of them."""

from collections.abc import Sequence
from typing import TYPE_CHECKING, Any

import cv2
import numpy as np
from numpy.typing import NDArray
from scipy import interpolate

from yarrow_lane.measure.plane import Polygon
from yarrow_lane.measure.raster import Picture

if TYPE_CHECKING:
    Rng = np.random.Generator

LIGHT_INK, DARK_INK = (245, 240, 240), (40, 40, 60)
_HIDES = 0.92  # of a mark, by one coat: our choice


def scribbles(width_mm: float, height_mm: float, count: int, seed: int) -> tuple[Polygon, ...]:
    """So many loose strokes anywhere on the canvas, mm."""
    rng = np.random.default_rng(seed)
    unit = max(1.0, max(width_mm, height_mm) / 500)
    found = []
    for _ in range(count):
        at = rng.uniform(0, 1, 2) * (width_mm, height_mm)
        way, points = rng.uniform(0, 2 * np.pi), [at]
        for _ in range(int(rng.integers(4, 9))):
            way += rng.normal(0, 1.1)
            points.append(points[-1] + unit * rng.uniform(5, 14) * np.array([np.cos(way), np.sin(way)]))
        along = np.linspace(0, 1, len(points))
        path = interpolate.CubicSpline(along, np.array(points))(np.linspace(0, 1, 60))
        found.append(tuple((float(x), float(y)) for x, y in path))
    return tuple(found)


def marked(canvas: Picture, px_per_mm: float, strokes: tuple[Polygon, ...], ink: tuple[int, int, int], seed: int) -> Picture:
    """The canvas (H, W, 3) with the strokes drawn in chalk or paint, each 1 to 2.5 mm wide on 50 cm."""
    rng = np.random.default_rng(seed)
    unit = max(1.0, max(canvas.shape[:2]) / px_per_mm / 500)
    cover: NDArray[np.float32] = np.zeros(canvas.shape[:2], np.float32)
    for stroke in strokes:
        path = np.rint(np.array(stroke) * px_per_mm * 16).astype(np.int32)
        wide = max(1, round(float(rng.uniform(1, 2.5)) * unit * px_per_mm))
        cv2.polylines(cover, [path], False, float(rng.uniform(0.5, 0.9)), wide, cv2.LINE_AA, 4)
    soft = cv2.GaussianBlur(cover, (0, 0), max(0.3 * unit * px_per_mm, 0.3))
    return _laid(canvas, np.broadcast_to(np.array(ink, np.float32), canvas.shape), soft)


def painted(
    canvas: Picture, painting: Picture, px_per_mm: float, strokes: tuple[Polygon, ...], share: float, seed: int
) -> Picture:  # fmt: skip
    """One coat of the painting over so large a share of the strokes' length; what is under it shows faintly. All (H, W, 3)."""
    if share <= 0:
        return canvas
    rng = np.random.default_rng(seed)
    height, width = canvas.shape[:2]
    small = cv2.GaussianBlur(
        rng.standard_normal((height // 8 + 1, width // 8 + 1)).astype(np.float32), (0, 0), 60 / 2.5 / 8 * px_per_mm
    )
    hills = cv2.resize(small, (width, height))
    points = np.clip((np.concatenate([np.array(s) for s in strokes]) * px_per_mm).astype(int), 0, [width - 1, height - 1])
    sea = np.quantile(hills[points[:, 1], points[:, 0]], 1 - share)
    cover = cv2.GaussianBlur((hills > sea).astype(np.float32), (0, 0), 1.2 * px_per_mm) * _HIDES
    coat = cv2.resize(painting, (width, height), interpolation=cv2.INTER_AREA).astype(np.float32)
    return _laid(canvas, coat, cover)


def _laid(under: Picture, over: NDArray[Any], cover: NDArray[Any]) -> Picture:
    share = cover[..., None]
    return np.clip(under * (1 - share) + over * share, 0, 255).astype(np.uint8)


def drawn_by_hand(canvas: Picture, px_per_mm: float, lines: Sequence[Polygon], ink: tuple[int, int, int], seed: int) -> Picture:
    """The lines (mm) as a hand draws them: the whole a little off, one place pushed, wobbly, with gaps. (H, W, 3)."""
    rng = np.random.default_rng(seed)
    height, width = canvas.shape[:2]
    size = np.array([width, height]) / px_per_mm
    unit = max(1.0, size.max() / 500)
    turn, grow, shift = np.radians(rng.normal(0, 0.4)), 1 + rng.normal(0, 0.005), unit * rng.normal(0, 1.5, 2)
    spin = grow * np.array([[np.cos(turn), -np.sin(turn)], [np.sin(turn), np.cos(turn)]])
    pushed, by = size * rng.uniform(0.35, 0.65, 2), unit * rng.uniform(3, 6) * np.array([1.0, -1.0])
    cover: NDArray[np.float32] = np.zeros((height, width), np.float32)
    for line in lines:
        points = (np.array(line) - size / 2) @ spin.T + size / 2 + shift
        points = points + np.exp(-0.5 * ((points - pushed) ** 2).sum(1, keepdims=True) / (30 * unit) ** 2) * by
        for begin in range(0, len(points) - 3, 40):
            if rng.random() < 0.1:
                continue
            part = points[begin : begin + 44]
            wobble = cv2.GaussianBlur(rng.standard_normal((len(part), 2)), (1, 31), 0) * 0.8 * unit
            path = np.rint((part + wobble) * px_per_mm * 16).astype(np.int32)
            cv2.polylines(
                cover, [path], False, float(rng.uniform(0.5, 0.95)), max(1, round(0.8 * unit * px_per_mm)), cv2.LINE_AA, 4
            )
    soft = cv2.GaussianBlur(cover, (0, 0), max(0.25 * px_per_mm, 0.3))
    return _laid(canvas, np.broadcast_to(np.array(ink, np.float32), canvas.shape), soft)
