"""How a painter draws round a sitter: twelve points along the true border, moved; a loose loop; a stroke through what is wrong."""

import cv2
import numpy as np

from yarrow_lane.compose.cutting.cut import Stroke

_HAIR_PX = 15  # finer than this nobody outlines


def body(truth: np.ndarray, hair_px: int = _HAIR_PX) -> np.ndarray:
    """The sitter without its single hairs."""
    kernel = cv2.getStructuringElement(cv2.MORPH_ELLIPSE, (2 * hair_px + 1,) * 2)
    pad = 4 * hair_px
    wide = cv2.copyMakeBorder(truth.astype(np.uint8), pad, pad, pad, pad, cv2.BORDER_REPLICATE)
    return cv2.morphologyEx(wide, cv2.MORPH_OPEN, kernel)[pad:-pad, pad:-pad]


def _fewer(contour: np.ndarray, count: int) -> np.ndarray:
    """Visvalingam: the corner with the smallest triangle goes until `count` are left."""
    points = [tuple(p) for p in cv2.approxPolyDP(contour, 2, True)[:, 0].astype(float)]
    while len(points) > count:
        here = np.array(points)
        before, after = np.roll(here, 1, 0), np.roll(here, -1, 0)
        one, two = here - before, after - before
        points.pop(int(np.argmin(np.abs(one[:, 0] * two[:, 1] - one[:, 1] * two[:, 0]))))
    return np.array(points)


def outline(truth: np.ndarray, drawn: str, seed: int, count: int = 12) -> tuple[tuple[float, float], ...]:
    """Traced: points moved by 3 % of the sitter's size; a loop: 5 % outside."""
    rng = np.random.default_rng(seed)
    mask = body(truth)
    height, width = mask.shape
    ys, xs = np.where(mask)
    size = np.sqrt(float(np.ptp(xs)) * float(np.ptp(ys)))
    if drawn == "loop":
        reach = int(0.05 * size)
        wide = cv2.copyMakeBorder(mask, 2 * reach, 2 * reach, 2 * reach, 2 * reach, cv2.BORDER_REPLICATE)
        kernel = cv2.getStructuringElement(cv2.MORPH_ELLIPSE, (2 * reach + 1,) * 2)
        mask = cv2.dilate(wide, kernel)[2 * reach : -2 * reach, 2 * reach : -2 * reach]
    contour = max(cv2.findContours(mask, cv2.RETR_EXTERNAL, cv2.CHAIN_APPROX_NONE)[0], key=len)
    corners = _fewer(contour, count)
    if drawn == "loop":
        away = corners - corners.mean(0)
        corners = corners + away / np.linalg.norm(away, axis=1, keepdims=True) * 0.015 * size
        corners = corners + rng.normal(0, 0.01 * size, corners.shape)
    else:
        corners = corners + rng.normal(0, 0.03 * size, corners.shape)
    kept = np.clip(corners, 0, [width - 1, height - 1])
    return tuple((float(x), float(y)) for x, y in kept)


def mending_stroke(mask: np.ndarray, truth: np.ndarray) -> Stroke | None:
    """Through the middle of the largest wrong piece, along its longest way; None when nothing large is wrong."""
    wrong = cv2.morphologyEx((mask != truth).astype(np.uint8), cv2.MORPH_OPEN, np.ones((5, 5), np.uint8))
    count, labels, stats, _ = cv2.connectedComponentsWithStats(wrong)
    if count < 2:
        return None
    piece = labels == 1 + int(np.argmax(stats[1:, cv2.CC_STAT_AREA]))
    deep = cv2.distanceTransform(piece.astype(np.uint8), cv2.DIST_L2, 5)
    ys, xs = np.where(deep > 0.55 * deep.max())
    points = np.stack([xs, ys], 1).astype(float)
    centred = points - points.mean(0)
    axis = np.linalg.svd(centred, full_matrices=False)[2][0] if len(points) > 1 else np.array([1.0, 0.0])
    order = np.argsort(centred @ axis)
    line = points[order[np.linspace(0, len(order) - 1, 6).astype(int)]]
    inside = bool(truth[ys[0], xs[0]])
    return Stroke(tuple((float(x), float(y)) for x, y in line), max(2.0, 0.6 * float(deep.max())), inside)


def iou(one: np.ndarray, other: np.ndarray) -> float:
    """Area of both over area of either, 0 to 1."""
    one, other = one > 0, other > 0
    return float((one & other).sum() / max(1, (one | other).sum()))


def border_error(mask: np.ndarray, truth: np.ndarray) -> np.ndarray:
    """Distance of each border pixel of the mask from the true border, px; the picture's edge is no border."""
    pad = 4

    def border(m: np.ndarray) -> np.ndarray:
        wide = cv2.copyMakeBorder(m.astype(np.uint8), pad, pad, pad, pad, cv2.BORDER_REPLICATE)
        return cv2.morphologyEx(wide, cv2.MORPH_GRADIENT, np.ones((3, 3), np.uint8))[pad:-pad, pad:-pad]

    away = cv2.distanceTransform((1 - np.minimum(border(truth), 1)).astype(np.uint8), cv2.DIST_L2, 5)
    return away[border(mask) > 0]
