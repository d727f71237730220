"""The painting's way as a film: its photographs on the canvas's own millimetres, in one light, each fading into the next."""

import io
from collections.abc import Sequence
from typing import TYPE_CHECKING

import numpy as np
from PIL import Image

from yarrow_lane.check.grid import cells_of
from yarrow_lane.check.light import field_of
from yarrow_lane.measure.colour.srgb import linear_from_srgb8, srgb8_from_linear
from yarrow_lane.measure.late import late
from yarrow_lane.measure.raster import Picture, resample

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

WIDE_PX = 720  # our choice: a message's picture
_HOLD_MS, _FADE_MS, _FADES = 900, 60, 4
_QUALITY = 78


def in_one_light(
    frames: Sequence[Picture], reference: Picture, px_per_mm: float, size_mm: tuple[float, float]
) -> tuple[Picture, ...]:  # fmt: skip
    """Frames (H, W, 3) of one size: the last evened to the reference, all others to the last. What is painted meanwhile is taken
    robustly, as paint.
    """
    height, width = frames[-1].shape[:2]
    last = _evened(frames[-1], np.asarray(resample(reference, width, height)), px_per_mm, size_mm)
    return (*(_evened(frame, last, px_per_mm, size_mm) for frame in frames[:-1]), last)


def _evened(frame: Picture, to: Picture, px_per_mm: float, size_mm: tuple[float, float]) -> Picture:
    light = linear_from_srgb8(frame)
    cells, wanted = (np.asarray(cells_of(k, px_per_mm), np.float64) for k in (light, linear_from_srgb8(to)))
    none = np.zeros(cells.shape[:2], np.int64)
    field = field_of(cells, np.maximum(wanted, 1e-4), size_mm, np.ones(cells.shape[:2]), none)
    wide = cv2.resize(field.light.astype(np.float32), (frame.shape[1], frame.shape[0]), interpolation=cv2.INTER_CUBIC)
    return srgb8_from_linear(np.clip(light / wide, 0, 1))


def small(frames: Sequence[Picture], wide_px: int = WIDE_PX) -> tuple[Picture, ...]:
    """All of one width."""
    return tuple(
        np.asarray(cv2.resize(f, (wide_px, round(f.shape[0] * wide_px / f.shape[1])), interpolation=cv2.INTER_AREA))
        for f in frames
    )


def film_of(frames: Sequence[Picture]) -> bytes:
    """An animated WebP that runs for ever; the last frame stays twice as long."""
    pictures, times = [], []
    for number, frame in enumerate(frames):
        pictures.append(Image.fromarray(frame))
        last = number == len(frames) - 1
        times.append(_HOLD_MS * (2 if last else 1))
        if not last:
            for step in range(1, _FADES + 1):
                share = step / (_FADES + 1)
                pictures.append(Image.fromarray(cv2.addWeighted(frame, 1 - share, frames[number + 1], share, 0)))
                times.append(_FADE_MS)
    out = io.BytesIO()
    pictures[0].save(out, "WEBP", save_all=True, append_images=pictures[1:], duration=times, loop=0, quality=_QUALITY, method=2)
    return out.getvalue()


def png_of(frame: Picture) -> bytes:
    """One frame without loss."""
    out = io.BytesIO()
    Image.fromarray(frame).save(out, "PNG")
    return out.getvalue()


def before_and_after(before: Picture, after: Picture) -> bytes:
    """Two pictures of one height beside each other, a JPEG."""
    height = min(before.shape[0], after.shape[0])
    both = [
        cv2.resize(p, (round(p.shape[1] * height / p.shape[0]), height), interpolation=cv2.INTER_AREA) for p in (before, after)
    ]
    gap = np.full((height, max(4, height // 60), 3), 255, np.uint8)
    out = io.BytesIO()
    Image.fromarray(np.concatenate([both[0], gap, both[1]], 1)).save(out, "JPEG", quality=92)
    return out.getvalue()
