"""The camera stand-in before a commission's canvas: marks, a drawing or paint on it, so that a room can be tried without a camera."""

import io
from collections.abc import Sequence

import numpy as np
from PIL import Image

from yarrow_lane.measure.colour.cielab import lab_from_linear, linear_from_lab
from yarrow_lane.measure.colour.srgb import linear_from_srgb8, srgb8_from_linear
from yarrow_lane.measure.colour.warm import WARM
from yarrow_lane.measure.plane import Polygon
from yarrow_lane.measure.raster import Picture
from yarrow_lane.palette.answers import fitted_darks
from yarrow_lane.standins.camera import Shot, Taking, drawn_on, photograph
from yarrow_lane.standins.lit_camera import drawn_faults, photograph_lit
from yarrow_lane.standins.strokes import stroked
from yarrow_lane.standins.surface import DARK_INK, LIGHT_INK, drawn_by_hand, marked, painted, scribbles
from yarrow_lane.transfer.carrying import takes_light_lines

_PX_PER_MM = 2.5  # on 50 cm
_SCRIBBLES, _MARKS_SEED = 45, 11
_COVERED = 0.5  # of the marks, once there is a painting
_TAKING = Taking(aside=18.0, bulge=0.02, longer_px=2000)
# Where the stand-in hand errs: shares of width and height, of the shorter side, L* lighter, Lab warmer. The last one it never mends.
_FAULTS = (
    (0.42, 0.36, 0.06, 14.0, 0.0), (0.58, 0.62, 0.08, -11.0, 0.0), (0.35, 0.72, 0.07, 0.0, 12.0), (0.62, 0.3, 0.05, 9.0, -9.0),
    (0.2, 0.18, 0.08, 8.0, 0.0),
)  # fmt: skip
_Size = tuple[float, float]
_Ground = tuple[int, int, int]


def photograph_of_marks(size_mm: _Size, ground: _Ground, painting: Picture | None, seed: int) -> bytes:
    """A JPEG of the canvas with scribble marks, always the same ones; a `painting` (H, W, 3) covers half of them."""
    canvas, px_per_mm = _bare(size_mm, ground)
    strokes = scribbles(*size_mm, _SCRIBBLES, _MARKS_SEED)
    canvas = marked(canvas, px_per_mm, strokes, _ink(ground), _MARKS_SEED)
    if painting is not None:
        canvas = painted(canvas, painting, px_per_mm, strokes, _COVERED, seed)
    return _taken(canvas, size_mm, seed)


def photograph_of_drawing(size_mm: _Size, ground: _Ground, lines: Sequence[Polygon], seed: int) -> bytes:
    """A JPEG of the canvas with the lines (mm) as a hand drew them."""
    canvas, px_per_mm = _bare(size_mm, ground)
    return _taken(drawn_by_hand(canvas, px_per_mm, lines, _ink(ground), seed), size_mm, seed)


def photograph_of_painting(size_mm: _Size, ground: _Ground, painting: Picture, share: float, seed: int) -> bytes:
    """A JPEG of the canvas with so large a share of the painting (H, W, 3) over its ground."""
    canvas, _ = _bare(size_mm, ground)
    height, width = canvas.shape[:2]
    coat = np.asarray(Image.fromarray(painting).resize((width, height), Image.Resampling.BOX), np.float32)
    part = min(1.0, max(0.0, share))
    return _taken(np.clip(canvas * (1 - part) + coat * part, 0, 255).astype(np.uint8), size_mm, seed)


def photograph_by_stand_in(size_mm: _Size, ground: _Ground, reference: Picture, number: int) -> bytes:
    """A JPEG of a painting by the stand-in hand, the grey frame round it."""
    return jpeg_of(shot_by_stand_in(size_mm, ground, reference, number).picture)


def shot_by_stand_in(size_mm: _Size, ground: _Ground, reference: Picture, number: int) -> Shot:
    """A painting by a hand that errs in five places at first, and each time has mended the worst; the grey frame round it."""
    px_per_mm = reference.shape[1] / size_mm[0]
    lab = fitted_darks(lab_from_linear(linear_from_srgb8(reference)))
    height, width = reference.shape[:2]
    y, x = np.mgrid[:height, :width].astype(np.float32) / px_per_mm
    for across, down, reach, value, warmth in _FAULTS[min(number, len(_FAULTS) - 1) :]:
        middle, wide = (across * size_mm[0], down * size_mm[1]), reach * min(size_mm)
        away = np.hypot(x - middle[0], y - middle[1]) / wide
        share = np.clip((1.35 - away) / 0.7, 0, 1)[..., None]
        lab = lab + share * np.array([value, warmth * WARM[0], warmth * WARM[1]])
    painted_picture = stroked(srgb8_from_linear(np.maximum(linear_from_lab(lab), 0).astype(np.float32)), px_per_mm, 7, ground)
    return photograph_lit(
        painted_picture, size_mm, 300 + number, drawn_faults(300 + number, shine=0.0), Taking(aside=7.0, longer_px=2400)
    )


def jpeg_of(picture: Picture) -> bytes:
    """As a telephone keeps it."""
    buffer = io.BytesIO()
    Image.fromarray(picture).save(buffer, "JPEG", quality=92)
    return buffer.getvalue()


def _bare(size_mm: _Size, ground: _Ground) -> tuple[Picture, float]:
    px_per_mm = _PX_PER_MM / max(1.0, max(size_mm) / 500)
    red, green, blue = map(float, ground)
    return drawn_on(*size_mm, px_per_mm, 5, (red, green, blue)), px_per_mm


def _ink(ground: _Ground) -> _Ground:
    return LIGHT_INK if takes_light_lines(ground) else DARK_INK


def _taken(canvas: Picture, size_mm: _Size, seed: int) -> bytes:
    return jpeg_of(photograph(canvas, *size_mm, 100 + seed, _TAKING).picture)
