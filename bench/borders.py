"""Rendered sitters laid on a canvas, with the true borders between their regions: what lines to draw are measured against."""

from dataclasses import dataclass
from functools import cache

import cv2
import numpy as np

from bench import hands
from yarrow_lane.compose.cutting.cut import Cut
from yarrow_lane.compose.cutting.outline import curve, outlined
from yarrow_lane.demo.sitter_files import sitter_file

_EYELID, _EYE, _WHISKER, _SKIN, _PERSON = 10, 4, 11, 7, 8
PX_PER_MM = 4.0  # of the truth


@dataclass(frozen=True)
class OnCanvas:
    """`picture` (H, W, 3) covers `size_mm`; `regions` (H, W) at `PX_PER_MM`; circles, the outline cut out from one loop, and a rough one
    (2 mm rms beside the truth), mm.
    """

    picture: np.ndarray
    px_per_mm: float
    size_mm: tuple[float, float]
    regions: np.ndarray
    circles: tuple
    outline: tuple
    rough: tuple
    places: dict


@cache
def on_canvas(name: str, scale: float = 1.0, seed: int = 3) -> OnCanvas:
    """Cropped to 40 x 50 or 50 x 40 cm times `scale`, as a painter would frame it; drawn round in one loop and cut out."""
    file = sitter_file(name)
    picture = cv2.imdecode(np.frombuffer(file.jpeg, np.uint8), cv2.IMREAD_COLOR)[..., ::-1]
    height, width = picture.shape[:2]
    size = (400.0, 500.0) if height >= width else (500.0, 400.0)
    size = (size[0] * scale, size[1] * scale)
    ratio = size[0] / size[1]
    crop = (round(height * ratio), height) if width / height > ratio else (width, round(width / ratio))
    left, top = (width - crop[0]) // 2, (height - crop[1]) // 2
    part = np.ascontiguousarray(picture[top : top + crop[1], left : left + crop[0]])
    regions = file.regions[top : top + crop[1], left : left + crop[0]]
    per_px = size[0] / crop[0]
    target = round(size[0] * PX_PER_MM), round(size[1] * PX_PER_MM)
    shown = cv2.resize(part, (target[0] // 2, target[1] // 2), interpolation=cv2.INTER_AREA)

    def mm(x, y):
        return (x - left) * per_px, (y - top) * per_px

    places = {p.name: mm(p.x, p.y) for p in file.landmarks} | {f"{e.side} eye": mm(e.x, e.y) for e in file.eyes}
    small = cv2.resize(part, None, fx=0.5, fy=0.5, interpolation=cv2.INTER_AREA)
    body = cv2.resize((regions > 0).astype(np.uint8), small.shape[1::-1], interpolation=cv2.INTER_NEAREST)
    found = Cut(np.ascontiguousarray(small), hands.outline(body, "loop", seed, 40), "loop").found
    ring = max(outlined(found), key=len)
    outline = tuple((float(x) * 2 * per_px, float(y) * 2 * per_px) for x, y in curve(ring, 8))
    cleaned = _cleaned(cv2.resize(regions, target, interpolation=cv2.INTER_NEAREST))
    return OnCanvas(shown, PX_PER_MM / 2, size, cleaned, _circles(places), outline, _rough(cleaned, seed), places)


def _rough(regions: np.ndarray, seed: int) -> tuple:
    """Round the sitter, drawn 2 mm rms beside the truth."""
    rng = np.random.default_rng(seed)
    height, width = regions.shape
    coarse = [rng.standard_normal((height // int(30 * PX_PER_MM) + 2, width // int(30 * PX_PER_MM) + 2)) for _ in "xy"]
    away = [cv2.resize(c.astype(np.float32), (width, height), interpolation=cv2.INTER_CUBIC) for c in coarse]
    away = [a / a.std() * 2.0 * PX_PER_MM for a in away]
    y, x = np.mgrid[:height, :width].astype(np.float32)
    body = cv2.remap(
        (regions > 0).astype(np.uint8), x + away[0], y + away[1], cv2.INTER_NEAREST, borderMode=cv2.BORDER_REPLICATE
    )
    contour = max(cv2.findContours(body, cv2.RETR_EXTERNAL, cv2.CHAIN_APPROX_NONE)[0], key=cv2.contourArea)
    return tuple(map(tuple, ((contour[:, 0] + 0.5) / PX_PER_MM).tolist()))


def _circles(places: dict) -> tuple:
    eyes = [at for name, at in places.items() if name.endswith(" eye")]
    radius = min(25.0, max(8.0, 0.28 * float(np.hypot(*np.subtract(*eyes))))) if len(eyes) == 2 else 18.0
    mouth = [places[n] for n in ("left mouth corner", "right mouth corner") if n in places]
    found = [(eye, radius) for eye in eyes] + [(places[n], 1.3 * radius) for n in ("nose tip",) if n in places]
    return tuple(found + ([(tuple(np.mean(mouth, 0).tolist()), 1.3 * radius)] if len(mouth) == 2 else []))


def _cleaned(regions: np.ndarray) -> np.ndarray:
    """Whiskers and crumbs belong to what lies round them, lids to the eyes."""
    labels = np.where(regions == _EYELID, _EYE, regions).astype(np.uint8)
    kept = [v for v in np.unique(labels) if v != _WHISKER]
    if _PERSON not in kept:
        kept = [v for v in kept if v != _SKIN]  # specks of bare skin of an animal
    best, found = np.full(labels.shape, -1.0, np.float32), np.zeros_like(labels)
    for value in kept:
        share = cv2.GaussianBlur((labels == value).astype(np.float32), (0, 0), 0.8 * PX_PER_MM)
        found[share > best] = value
        best = np.maximum(best, share)
    for value in kept:
        count, parts, stats, _ = cv2.connectedComponentsWithStats((found == value).astype(np.uint8))
        for n in range(1, count):
            if stats[n, cv2.CC_STAT_AREA] < 12 * PX_PER_MM**2:
                part = (parts == n).astype(np.uint8)
                round_it = (cv2.dilate(part, np.ones((3, 3), np.uint8)) > 0) & (part == 0)
                found[part > 0] = np.bincount(found[round_it]).argmax()
    return found


def true_borders(canvas: OnCanvas) -> np.ndarray:
    """(H, W) px on a border of two regions; that of head and body, which nothing marks, is left out."""
    regions = canvas.regions
    found = np.zeros(regions.shape, bool)
    for down, across in ((0, 1), (1, 0)):
        one, other = regions[: regions.shape[0] - down, : regions.shape[1] - across], regions[down:, across:]
        low, high = np.minimum(one, other), np.maximum(one, other)
        found[: one.shape[0], : one.shape[1]] |= (one != other) & ~((low == 1) & (high == 2))
    return found


def share_covered(lines, borders: np.ndarray, size_mm: tuple[float, float], within_mm: float = 1.5) -> float:
    """The share of the borders with a line within so many mm."""
    bare = np.full(borders.shape, 255, np.uint8)
    for line in lines:
        path = np.rint(np.array(line.points) * PX_PER_MM).astype(np.int32)
        cv2.polylines(bare, [path], False, 0, 1)
    away = cv2.distanceTransform(bare, cv2.DIST_L2, 5) / PX_PER_MM
    return float((away[borders] <= within_mm).mean())
