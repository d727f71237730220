"""Made cases with exact alpha: a sitter's body with single hairs drawn over its border, before a known background, mixed in light."""

from dataclasses import dataclass

import cv2
import numpy as np
import skimage.data

from bench.hands import body
from yarrow_lane.compose.cutting.alpha import spread
from yarrow_lane.compose.cutting.evidence import blurred, distance
from yarrow_lane.measure.colour.srgb import linear_from_srgb8, srgb8_from_linear

_FINE = 4  # hairs are drawn four times as fine as the picture
_HAIR_PX = 14


@dataclass(frozen=True)
class Made:
    """`picture` as it would be sent; what is true of it: alpha 0..1, and the sitter's own colours."""

    picture: np.ndarray
    alpha: np.ndarray
    front: np.ndarray


def background(name: str, height: int, width: int, soft: float) -> np.ndarray:
    """A picture that ships with scikit-image, out of focus by `soft` px."""
    source = cv2.resize(getattr(skimage.data, name)(), (width, height), interpolation=cv2.INTER_CUBIC)
    return np.clip(blurred(source.astype(np.float32), soft), 0, 255) if soft else source.astype(np.float32)


def made(photo: np.ndarray, truth: np.ndarray, behind: str, soft: float = 6.0, seed: int = 0) -> Made:
    """`photo` (H, W, 3) with its true mask, its border covered with hairs of some 14 px."""
    rng = np.random.default_rng(seed)
    height, width = truth.shape
    kernel = cv2.getStructuringElement(cv2.MORPH_ELLIPSE, (13, 13))
    core = cv2.erode(cv2.copyMakeBorder(body(truth), 20, 20, 20, 20, cv2.BORDER_REPLICATE), kernel)
    inner = cv2.erode(core, kernel, iterations=2)[20:-20, 20:-20]
    core = np.ascontiguousarray(core[20:-20, 20:-20])
    fine = _with_hairs(core, rng)
    alpha = blurred(cv2.resize(fine, (width, height), interpolation=cv2.INTER_AREA).astype(np.float32) / 255, 0.6)
    own = spread(photo.astype(np.float32), inner.astype(np.float32), 2.0)
    grain = blurred(rng.normal(0, 1, (height, width)).astype(np.float32), 1.0) * 18
    own = np.where(inner[..., None] > 0, photo, np.clip(own + grain[..., None], 0, 255))
    front, back = np.round(own).astype(np.uint8), np.round(background(behind, height, width, soft)).astype(np.uint8)
    light = linear_from_srgb8(front) * alpha[..., None] + linear_from_srgb8(back) * (1 - alpha[..., None])
    noisy = srgb8_from_linear(light).astype(np.float32) + rng.normal(0, 1.5, front.shape)
    return Made(np.clip(np.round(noisy), 0, 255).astype(np.uint8), alpha, front)


def _with_hairs(core: np.ndarray, rng: np.random.Generator) -> np.ndarray:
    height, width = core.shape
    fine = cv2.resize(core, (width * _FINE, height * _FINE), interpolation=cv2.INTER_NEAREST) * 255
    fine = ((cv2.GaussianBlur(fine, (0, 0), _FINE * 1.2) > 127) * 255).astype(np.uint8)
    away = blurred(distance(core, 40), 4)
    gx, gy = cv2.Sobel(away, cv2.CV_32F, 1, 0), cv2.Sobel(away, cv2.CV_32F, 0, 1)
    border = np.vstack([c[:, 0] for c in cv2.findContours(core, cv2.RETR_EXTERNAL, cv2.CHAIN_APPROX_NONE)[0]])
    edge = 4
    border = border[
        (border[:, 0] >= edge) & (border[:, 0] < width - edge) & (border[:, 1] >= edge) & (border[:, 1] < height - edge)
    ]
    for x, y in border[rng.choice(len(border), len(border) // 2)]:
        out = -np.array([gx[y, x], gy[y, x]])
        out /= np.linalg.norm(out) + 1e-6
        angle = np.arctan2(out[1], out[0]) + rng.normal(0.35, 0.45)
        along = np.linspace(0, 1, 7)
        way = angle + rng.normal(0, 0.5) * along
        long = _HAIR_PX * rng.lognormal(0, 0.45)
        steps = np.cumsum(np.stack([np.cos(way), np.sin(way)], -1) * long / 6, 0)
        points = np.array([x, y]) + steps - 3 * np.array([np.cos(angle), np.sin(angle)])
        thick = rng.uniform(0.8, 1.8) * _FINE
        ends = np.round(points * _FINE * 16).astype(int)
        for n in range(6):
            width_px = max(1, round(thick * (1 - 0.8 * along[n])))
            cv2.line(fine, ends[n].tolist(), ends[n + 1].tolist(), 255, width_px, cv2.LINE_8, 4)
    return np.asarray(fine)
