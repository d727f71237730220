"""A part of the picture tried in another colour: a collar, a reflection, a lawn's green under a chin."""

from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.compose.cutting.evidence import blurred
from yarrow_lane.compose.drawing.colour_move import moved_light
from yarrow_lane.compose.pieces import Move, PieceTrouble
from yarrow_lane.measure.late import late
from yarrow_lane.measure.outlines import polygon_area
from yarrow_lane.measure.plane import Polygon, polygon_bounds

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

SOFT_MM = 3.0  # how softly it goes over into what is round it: our choice
MOST = 12  # our choice: more is painting on the screen


@dataclass(frozen=True)
class Recoloured:
    """`outline` in canvas mm; `soft_mm` is the standard deviation of its edge."""

    id: int
    name: str
    outline: Polygon
    move: Move = Move()
    soft_mm: float = SOFT_MM


def checked(parts: tuple[Recoloured, ...], outline: Polygon) -> None:
    """Raises `PieceTrouble` for a part of nothing, or one too many."""
    if len(parts) >= MOST:
        raise PieceTrouble("The part was not taken", f"{MOST} parts are recoloured already", "give one up first")
    if len(outline) < 3 or polygon_area(outline) < 4:
        raise PieceTrouble("The part was not taken", "the line encloses nothing", "go round the part")


def recolour(
    ground: NDArray[Any], parts: tuple[Recoloured, ...], left_px: float, top_px: float, px_per_mm: float, one: float
) -> None:
    """Change light (H, W, 3), white at `one`, in place; its px lie from `left_px`, `top_px` of the whole on."""
    height, width = ground.shape[:2]
    for part in parts:
        if part.move.plain:
            continue
        # Pixels of the whole are counted, so that tiles agree.
        soft = part.soft_mm * px_per_mm
        room = int(np.ceil(4 * soft)) + 2
        box = polygon_bounds(part.outline)
        x0, y0 = int(np.floor(box.x * px_per_mm)) - room, int(np.floor(box.y * px_per_mm)) - room
        x1, y1 = int(np.ceil(box.right * px_per_mm)) + room, int(np.ceil(box.bottom * px_per_mm)) + room
        left, top = round(left_px), round(top_px)
        a, b, c, d = max(x0, left), max(y0, top), min(x1, left + width), min(y1, top + height)
        if c <= a or d <= b:
            continue
        share = _share(part.outline, x0, y0, x1 - x0, y1 - y0, px_per_mm, soft)[b - y0 : d - y0, a - x0 : c - x0, None]
        there = ground[b - top : d - top, a - left : c - left]
        there += share * (moved_light(there / np.float32(one), part.move) * np.float32(one) - there)


def _share(outline: Polygon, x: int, y: int, width: int, height: int, scale: float, soft: float) -> NDArray[Any]:
    corners = (np.asarray(outline) * scale - (x, y)) * 16 - 8
    mask = np.zeros((height, width), np.float32)
    cv2.fillPoly(mask, [np.round(corners).astype(np.int32)], 1.0, cv2.LINE_8, 4)
    return blurred(mask, soft) if soft > 0.3 else mask
