"""What a photograph shows by itself: measured once on the full picture, kept by content and marks."""

from dataclasses import dataclass
from pathlib import Path
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.intake.exposure import Cast, clipped_shares, colour_cast
from yarrow_lane.intake.light import Glint, Light, find_glint, light_from, shading_degrees
from yarrow_lane.intake.noise import eye_rect, noise_lstar
from yarrow_lane.intake.opening import open_whole
from yarrow_lane.intake.photos import Eye
from yarrow_lane.intake.resolution.enlarged import enlarged
from yarrow_lane.intake.resolution.usable import Usable, usable, usable_at
from yarrow_lane.measure.colour.cielab import lightness_from_srgb8
from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Rect
from yarrow_lane.measure.progress import SILENT, Progress
from yarrow_lane.measure.raster import Picture, cut

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

VERSION = 4  # raise it when a measure changes: kept results are then made anew
_PROBE_PX = 1200  # our choice: noise is read on a window of so many px, at full resolution


@dataclass(frozen=True)
class Evidence:
    """Measures of one photograph.

    `noise` in L*; what resolves of the whole and round the nearer eye, None where there is too little to measure by; `enlarged` when
    interpolation left its trace; shares 0..1, `eye_lightness` L* the light parts round that eye reach (None without an eye), glints
    and light as in `light`.
    """

    noise: float
    whole: Usable | None
    eye: Usable | None
    enlarged: bool
    high_share: float
    low_share: float
    cast: Cast
    eye_lightness: float | None
    glints: tuple[Glint, ...]
    light: Light

    @property
    def share(self) -> float:
        """How much of each pixel's side resolves, 0 to 1, over the whole picture; 1 where it could not be measured."""
        return self.whole.share if self.whole is not None else 1.0

    @property
    def eye_share(self) -> float:
        """The same at the nearer eye, the whole picture's where the eye alone says too little."""
        return self.eye.share if self.eye is not None else self.share


def measure_photo(picture: Picture, eyes: tuple[Eye, ...], progress: Progress = SILENT) -> Evidence:
    """Judge a photograph, (H, W, 3) sRGB upright at its full size, with its marked eyes.

    Raises `Cancelled` when the photograph is no longer wanted.
    """
    progress.at(0.0)
    noise = noise_lstar(_lightness(picture, _probe(picture, eyes)))
    progress.at(0.2)
    grey = np.asarray(cv2.cvtColor(np.ascontiguousarray(picture), cv2.COLOR_RGB2GRAY), np.uint8)
    near = near_eye(eyes)
    whole = usable(grey)
    progress.at(0.4)
    at_eye = usable_at(grey, near) if near is not None else None
    trace = enlarged(grey) or (whole is not None and whole.repeated > 1.0)
    progress.at(0.6)
    high, low = clipped_shares(picture)
    progress.at(0.8)
    cast = colour_cast(picture)
    progress.at(0.9)
    glints = tuple(g for eye in eyes if (g := _glint(picture, eye)) is not None)
    lightest = shading = None
    if near is not None:
        lightest = float(np.percentile(_lightness(picture, eye_rect(near)), 95))
        shading = shading_degrees(_lightness(picture, eye_rect(near, 5.0)))
    return Evidence(noise, whole, at_eye, trace, high, low, cast, lightest, glints, light_from(glints, shading))


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
