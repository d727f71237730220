"""What a photograph shows by itself: measured once on the full picture, kept by content and marks."""

from dataclasses import dataclass
from pathlib import Path

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.intake.exposure import Cast, clipped_shares, colour_cast
from yarrow_lane.intake.light import Glint, Light, find_glint, light_from, shading_degrees
from yarrow_lane.intake.opening import open_whole
from yarrow_lane.intake.photos import Eye
from yarrow_lane.intake.sharpness import blur_sigma_px, eye_rect, lid_sharpness, noise_lstar
from yarrow_lane.measure.colour.cielab import lightness_from_srgb8
from yarrow_lane.measure.plane import Rect
from yarrow_lane.measure.progress import SILENT, Progress
from yarrow_lane.measure.raster import Picture, cut

VERSION = 3  # raise it when a measure changes: kept results are then made anew
_PROBE_PX = 1200  # our choice: noise and blur are read on a window of so many px, at full resolution


@dataclass(frozen=True)
class Evidence:
    """Measures of one photograph.

    `noise` in L*, `sharpness` at the lids of the nearer eye over the noise (None without an eye), `blur_px` standard deviation,
    shares 0..1, `eye_lightness` L* the light parts round that eye reach, glints and light as in `light`.
    """

    noise: float
    blur_px: float
    high_share: float
    low_share: float
    cast: Cast
    sharpness: float | None
    eye_lightness: float | None
    glints: tuple[Glint, ...]
    light: Light


def measure_photo(picture: Picture, eyes: tuple[Eye, ...], progress: Progress = SILENT) -> Evidence:
    """Judge a photograph, (H, W, 3) sRGB upright at its full size, with its marked eyes.

    Raises `Cancelled` when the photograph is no longer wanted.
    """
    progress.at(0.0)
    lightness = _lightness(picture, _probe(picture, eyes))
    noise = noise_lstar(lightness)
    progress.at(0.3)
    blur = blur_sigma_px(lightness, noise)
    progress.at(0.6)
    high, low = clipped_shares(picture)
    progress.at(0.8)
    cast = colour_cast(picture)
    progress.at(0.9)
    glints = tuple(g for eye in eyes if (g := _glint(picture, eye)) is not None)
    near = near_eye(eyes)
    sharpness = lightest = shading = None
    if near is not None:
        sharpness = lid_sharpness(picture, near, noise)
        lightest = float(np.percentile(_lightness(picture, eye_rect(near)), 95))
        shading = shading_degrees(_lightness(picture, eye_rect(near, 5.0)))
    return Evidence(noise, blur, high, low, cast, sharpness, lightest, glints, light_from(glints, shading))


def measure_file(path: Path, name: str, eyes: tuple[Eye, ...], progress: Progress = SILENT) -> Evidence:
    """Open and judge one photograph; raises `Trouble` when it cannot be opened, `Cancelled` when it is no longer wanted."""
    return measure_photo(open_whole(path, name, progress), eyes, progress)


def near_eye(eyes: tuple[Eye, ...]) -> Eye | None:
    """The nearer eye is the larger one and carries the painting: the far one is often half hidden by the nose."""
    return max(eyes, key=lambda e: e.radius_px, default=None)


def _lightness(picture: Picture, rect: Rect) -> NDArray[np.float32]:
    return lightness_from_srgb8(np.ascontiguousarray(cut(picture, rect)))


def _glint(picture: Picture, eye: Eye) -> Glint | None:
    rect = eye_rect(eye)
    origin = (float(max(0, round(rect.x))), float(max(0, round(rect.y))))
    return find_glint(_lightness(picture, rect), eye, origin)


def _probe(picture: Picture, eyes: tuple[Eye, ...]) -> Rect:
    """A window at full resolution: round the eyes where they are marked, else the middle."""
    height, width = picture.shape[:2]
    x, y = (eyes[0].x, eyes[0].y) if eyes else (width / 2, height / 2)
    side = min(_PROBE_PX, width, height)
    return Rect(min(max(0, x - side / 2), width - side), min(max(0, y - side / 2), height - side), side, side)


def usable_px_per_mm(px_per_mm: float, blur_px: float) -> float:
    """Photograph px per mm of canvas that carry detail: a blur of s px leaves about 1/(2.2 s) of them (our choice)."""
    return px_per_mm / max(1.0, 2.2 * blur_px)


def largest_canvas_mm(crop_px: tuple[float, float], blur_px: float, needed_px_mm: float) -> tuple[float, float]:
    """The largest canvas this crop can carry with `needed_px_mm` usable px on each mm, width and height."""
    usable = usable_px_per_mm(1.0, blur_px)
    return crop_px[0] * usable / needed_px_mm, crop_px[1] * usable / needed_px_mm
