"""Another hand than the stand-in's: dabs of a few mixed colours. What Check was tuned on was not painted so."""

import cv2
import numpy as np

from yarrow_lane.measure.raster import Picture
from yarrow_lane.standins.strokes import along_forms, bristled, worth_laying

_MIXED = 48  # colours this hand mixes


def dabbed(picture: Picture, px_per_mm: float, seed: int) -> Picture:
    """Round-ended dabs in a limited number of mixed colours, across the forms as often as along them, (H, W, 3)."""
    rng = np.random.default_rng(seed)
    sample = picture.reshape(-1, 3)[rng.integers(0, picture.shape[0] * picture.shape[1], 6000)].astype(np.float32)
    stop = (cv2.TERM_CRITERIA_EPS + cv2.TERM_CRITERIA_MAX_ITER, 20, 0.5)
    cv2.setRNGSeed(seed + 1)
    _, _, mixed = cv2.kmeans(sample, _MIXED, None, stop, 1, cv2.KMEANS_PP_CENTERS)
    out = np.asarray(cv2.GaussianBlur(picture, (0, 0), 5 * px_per_mm), np.uint8)
    way = along_forms(picture, px_per_mm)
    for stage, width_mm in enumerate((8.0, 3.6, 1.6, 0.8)):
        wide = max(2.0, width_mm * px_per_mm)
        wanted = cv2.GaussianBlur(picture, (0, 0), max(0.6, wide * 0.3))
        x, y = worth_laying(picture, out, wanted, wide, stage, 1.1, rng)
        seen = wanted[y, x].astype(np.float32)
        if stage < 3:  # the last touches are mixed for their place
            near = np.concatenate([((s[:, None] - mixed) ** 2).sum(-1).argmin(1) for s in np.array_split(seen, 40)])
            seen = 0.5 * seen + 0.5 * mixed[near]
        colour = seen + rng.normal(0, 2.5, (len(x), 3))
        turn = np.degrees(way[y, x] + np.where(rng.random(len(x)) < 0.3, np.pi / 2, 0) + rng.normal(0, 0.3, len(x)))
        for px, py, angle, c in zip(x.tolist(), y.tolist(), turn.tolist(), np.clip(colour, 0, 255).tolist(), strict=True):
            axes = max(1, round(wide * 0.85)), max(1, round(wide * 0.5))
            cv2.ellipse(out, (px, py), axes, angle, 0, 360, c, -1, cv2.LINE_AA)
    return bristled(out, px_per_mm, rng)
