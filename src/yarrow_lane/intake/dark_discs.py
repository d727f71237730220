"""Dark round places in a picture: radial votes of edges, darker in the middle than all round, with or without a glint.

A method without a model (after fast radial symmetry: Loy and Zelinsky, IEEE PAMI 25(8), 2003). The weights are our choice, fitted
on nine pictures and held against nine others (`docs/measures.md`).
"""

import math
from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.late import late

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

Light = NDArray[np.float32]

_LEAST_EDGE, _EDGE_PERCENTILE, _MOST_EDGE = 0.8, 55, 4.0  # L* per px: weaker edges say nothing, stronger ones no more
_DARKER, _GLINT = 12.0, 30.0  # L*: a middle so much darker than its ring, a glint so much lighter than the middle, count fully
_MOST_EACH = 40


@dataclass(frozen=True)
class Disc:
    """A dark round place: centre and radius in px of the picture searched, and how good it is (no unit)."""

    x: float
    y: float
    radius: float
    score: float


def dark_discs(light: Light, radii: tuple[int, ...], most: int) -> list[Disc]:
    """The best places first, at most `most`, in a picture of L* (H, W), for discs of those radii in px."""
    smooth = np.asarray(cv2.GaussianBlur(light, (0, 0), 1.0), np.float32)
    edges = _Edges(smooth)
    found = [disc for radius in radii for disc in _of_radius(smooth, edges, radius)]
    found.sort(key=lambda d: -d.score)
    kept: list[Disc] = []
    for disc in found:
        if all(math.hypot(disc.x - k.x, disc.y - k.y) > 0.8 * max(disc.radius, k.radius) for k in kept):
            kept.append(disc)
        if len(kept) == most:
            break
    return kept


class _Edges:
    """Where the picture changes, how much (with a limit) and in which direction it becomes lighter."""

    def __init__(self, smooth: Light) -> None:
        across = cv2.Scharr(smooth, cv2.CV_32F, 1, 0, scale=1 / 32)
        down = cv2.Scharr(smooth, cv2.CV_32F, 0, 1, scale=1 / 32)
        strength = cv2.magnitude(across, down)
        self.shape = smooth.shape
        self.y, self.x = np.nonzero(strength > max(_LEAST_EDGE, float(np.percentile(strength, _EDGE_PERCENTILE))))
        found = strength[self.y, self.x]
        self.ux, self.uy = across[self.y, self.x] / found, down[self.y, self.x] / found
        self.weight = np.minimum(found, _MOST_EDGE)

    def votes(self, radius: float) -> NDArray[np.float64]:
        """For each pixel the edges that would be the rim of a dark disc of that radius round it."""
        height, width = self.shape
        total = np.zeros(height * width)
        for r in (0.85 * radius, radius, 1.15 * radius):
            x, y = np.rint(self.x - r * self.ux).astype(int), np.rint(self.y - r * self.uy).astype(int)
            inside = (x >= 0) & (y >= 0) & (x < width) & (y < height)
            total += np.bincount(y[inside] * width + x[inside], self.weight[inside], height * width)
        return total.reshape(height, width)


def _of_radius(smooth: Light, edges: _Edges, radius: int) -> list[Disc]:
    height, width = smooth.shape
    if min(height, width) <= 4 * radius:
        return []
    votes = cv2.GaussianBlur(edges.votes(radius).astype(np.float32), (0, 0), max(1.0, 0.22 * radius)) * math.sqrt(0.22 * radius)
    middle = _mean(smooth, 0.6 * radius)
    darker = _darker_all_round(smooth, middle, radius)
    reach = 2 * max(1, int(0.55 * radius)) + 1
    brightest = cv2.dilate(smooth, cv2.getStructuringElement(cv2.MORPH_ELLIPSE, (reach, reach)))
    glint = np.clip((brightest - middle) / _GLINT, 0, 1.3)
    score = votes / math.sqrt(2 * math.pi * radius) * (0.35 + darker) * (0.6 + glint)
    score[:radius] = score[-radius:] = 0
    score[:, :radius] = score[:, -radius:] = 0
    side = 2 * int(0.8 * radius) + 1
    y, x = np.nonzero((score == cv2.dilate(score, np.ones((side, side), np.uint8))) & (score > 0))
    values = score[y, x]
    best = np.argsort(-values)[:_MOST_EACH]
    return [Disc(float(x[i]), float(y[i]), float(radius), float(values[i])) for i in best]


def _mean(smooth: Light, half: float) -> Light:
    side = 2 * round(half) + 1
    return np.asarray(cv2.blur(smooth, (side, side)), np.float32)


def _darker_all_round(smooth: Light, middle: Light, radius: int) -> Light:
    """How much darker the middle is than eight places round it, by the third and the fifth least of them."""
    ring, step = _mean(smooth, 0.45 * radius), round(1.7 * radius)
    slant = int(0.7 * step)
    places = [(step, 0), (-step, 0), (0, step), (0, -step), (slant, slant), (-slant, slant), (slant, -slant), (-slant, -slant)]
    around = np.sort(np.stack([np.roll(ring, (-dy, -dx), (0, 1)) - middle for dx, dy in places]), axis=0)
    return np.asarray(np.clip(around[2] / _DARKER, 0, 1.5) + 0.4 * np.clip(around[4] / 15, 0, 1.5), np.float32)
