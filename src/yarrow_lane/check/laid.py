"""A photograph of the painting laid on the canvas's own millimetres, with its greys; what cannot be measured is refused in a sentence."""

from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.canvas_photo.borders import fitted_borders
from yarrow_lane.canvas_photo.straight import Straight, canvas_of, straightened
from yarrow_lane.check.greys import Greys, read_greys
from yarrow_lane.check.grid import cells_of
from yarrow_lane.measure.colour.srgb import linear_from_srgb8
from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Polygon
from yarrow_lane.measure.raster import Picture
from yarrow_lane.measure.trouble import Trouble

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

MOST_WEAK = 1  # sides not seen: with more there is no canvas
_SLACK, _MOST_OUTSIDE = 0.005, 0.02  # of the frame, and of the canvas
_DARK, _BURNT, _MOST_BURNT = 0.012, 0.97, 0.25  # mean luminance; what is burnt out, and how much of it may be
_SHEET_MM = 8.0  # a sheet's own grain is no light
_UNSEEN = "The painting was not measured"


class PaintingTrouble(Trouble):
    """A photograph that cannot be measured against the reference."""

    def __init__(self, why: str, do: str) -> None:
        super().__init__(_UNSEEN, why, do)


@dataclass(frozen=True, eq=False)
class PhotoAsked:
    """A photograph (H, W, 3) with its corners, px; a `sheet` is one of a flat white sheet in the same place and light."""

    picture: Picture
    corners: Polygon
    sheet: Picture | None = None


@dataclass(frozen=True, eq=False)
class Laid:
    """The canvas (H, W, 3) sRGB, its straightening, its greys, and the light a white sheet showed on cells (h, w, 3), 1 in the mean."""

    flat: Picture
    straight: Straight
    greys: Greys | None
    sheet: NDArray[np.float64] | None


def laid(photo: PhotoAsked, size_mm: tuple[float, float], px_per_mm: float) -> Laid:
    """Borders fitted from its corners. Raises `StraightTrouble`, `PaintingTrouble`."""
    straight = fitted_borders(photo.picture, straightened(photo.picture, np.asarray(photo.corners, np.float64), size_mm))
    if len(straight.weak) > MOST_WEAK:
        raise PaintingTrouble(
            f"no canvas's edges are seen where its corners were set ({', '.join(straight.weak)})",
            "pull the corners right, or photograph the whole canvas with its four edges",
        )
    if _outside(photo.picture, straight) > _MOST_OUTSIDE:
        raise PaintingTrouble("part of the canvas lies outside the photograph", "photograph all of it, with its four edges")
    flat = canvas_of(photo.picture, straight, px_per_mm)
    light = linear_from_srgb8(flat[::4, ::4])
    if light.mean() < _DARK:
        raise PaintingTrouble("the photograph is nearly black", "photograph it in daylight")
    if (light.min(-1) > _BURNT).mean() > _MOST_BURNT:
        raise PaintingTrouble("a large part of the photograph is burnt out to white", "photograph it darker")
    sheet = None
    if photo.sheet is not None:
        shown = cv2.GaussianBlur(linear_from_srgb8(canvas_of(photo.sheet, straight, px_per_mm)), (0, 0), _SHEET_MM * px_per_mm)
        cells = cells_of(shown, px_per_mm).astype(np.float64)
        sheet = cells / cells.mean((0, 1))
    return Laid(flat, straight, read_greys(photo.picture, straight), sheet)


def _outside(picture: Picture, straight: Straight) -> float:
    """The share of the canvas that lies outside the photograph."""
    sides = (np.linspace(0, side, 21) for side in (straight.width_mm, straight.height_mm))
    at = straight.px(np.stack(np.meshgrid(*sides), -1).reshape(-1, 2)) / (picture.shape[1], picture.shape[0])
    return float(((at < -_SLACK) | (at > 1 + _SLACK)).any(1).mean())
