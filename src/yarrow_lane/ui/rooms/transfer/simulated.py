"""The camera stand-in before this commission's canvas: marks, a drawing or paint on it, so that a room can be tried without a camera."""

import io
from typing import TYPE_CHECKING, Literal

import numpy as np
from PIL import Image

from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Polygon
from yarrow_lane.measure.raster import Picture

if TYPE_CHECKING:
    from yarrow_lane.standins import camera, surface
else:
    camera, surface = late("yarrow_lane.standins.camera"), late("yarrow_lane.standins.surface")

_PX_PER_MM, _LONGER_PX = 2.5, 2000
_SCRIBBLES, _MARKS_SEED = 45, 11
_DARK_GROUND = 110  # grey of the ground below which marks are light


def photographed(
    size_mm: tuple[float, float], ground: tuple[int, int, int], what: Literal["marks", "drawing"], lines: tuple[Polygon, ...],
    painting: Picture | None, covered: float, seed: int,
) -> bytes:  # fmt: skip
    """A JPEG of the canvas as it stands in a room; `covered` is the share of the marks under paint."""
    unit = max(1.0, max(size_mm) / 500)
    px_per_mm = _PX_PER_MM / unit
    rgb = (float(ground[0]), float(ground[1]), float(ground[2]))
    canvas = camera.drawn_on(*size_mm, px_per_mm, 5, rgb)
    ink = surface.LIGHT_INK if np.mean(ground) < _DARK_GROUND else surface.DARK_INK
    if what == "marks":
        strokes = surface.scribbles(*size_mm, _SCRIBBLES, _MARKS_SEED)
        canvas = surface.marked(canvas, px_per_mm, strokes, ink, _MARKS_SEED)
        if painting is not None:
            canvas = surface.painted(canvas, painting, px_per_mm, strokes, covered, seed)
    else:
        canvas = surface.drawn_by_hand(canvas, px_per_mm, lines, ink, seed)
    taking = camera.Taking(aside=18.0, bulge=0.02, longer_px=_LONGER_PX)
    shot = camera.photograph(canvas, *size_mm, 100 + seed, taking)
    buffer = io.BytesIO()
    Image.fromarray(shot.picture).save(buffer, "JPEG", quality=92)
    return buffer.getvalue()
