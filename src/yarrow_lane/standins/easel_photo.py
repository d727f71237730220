"""The camera stand-in before a commission's canvas: marks, a drawing or paint on it, so that a room can be tried without a camera."""

import io
from collections.abc import Sequence

import numpy as np
from PIL import Image

from yarrow_lane.measure.plane import Polygon
from yarrow_lane.measure.raster import Picture
from yarrow_lane.standins.camera import Taking, drawn_on, photograph
from yarrow_lane.standins.surface import DARK_INK, LIGHT_INK, drawn_by_hand, marked, painted, scribbles
from yarrow_lane.transfer.carrying import takes_light_lines

_PX_PER_MM = 2.5  # on 50 cm
_SCRIBBLES, _MARKS_SEED = 45, 11
_COVERED = 0.5  # of the marks, once there is a painting
_TAKING = Taking(aside=18.0, bulge=0.02, longer_px=2000)
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


def _bare(size_mm: _Size, ground: _Ground) -> tuple[Picture, float]:
    px_per_mm = _PX_PER_MM / max(1.0, max(size_mm) / 500)
    red, green, blue = map(float, ground)
    return drawn_on(*size_mm, px_per_mm, 5, (red, green, blue)), px_per_mm


def _ink(ground: _Ground) -> _Ground:
    return LIGHT_INK if takes_light_lines(ground) else DARK_INK


def _taken(canvas: Picture, size_mm: _Size, seed: int) -> bytes:
    buffer = io.BytesIO()
    Image.fromarray(photograph(canvas, *size_mm, 100 + seed, _TAKING).picture).save(buffer, "JPEG", quality=92)
    return buffer.getvalue()
