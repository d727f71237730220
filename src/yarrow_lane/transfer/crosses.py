"""The projector's crosses on a photograph of the canvas: where the light stands against the canvas's corners."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import TYPE_CHECKING, Any

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.canvas_photo.straight import Straight, canvas_of
from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Point
from yarrow_lane.measure.raster import Picture
from yarrow_lane.transfer.projector import ARM_SHARE, Squareness, knocked, knocked_words, squared, squared_words

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

_RIM_SHARE = 0.12  # of the shorter side: so far about a corner the light is looked for; our choice
_LONGER_PX = 1000
_LEAST = 0.4  # correlation from which a cross is taken to be seen: our choice
_LIGHTER = 4.0  # grey levels, of an arm against its sides: our choice
_LINE_SHARE = 0.12  # a cross's line against its arm


@dataclass(frozen=True)
class Crosses:
    """The canvas with what lies about it, straightened (H, W, 3) from `rim_mm` left of and above its corner on, and where the four
    crosses are seen, canvas mm, from the top left, clockwise; None for one that is not seen. `bulge` is the lens's.
    """

    picture: Picture
    bulge: float
    rim_mm: float
    seen: tuple[Point | None, ...]


def crosses_on(photo: Picture, straight: Straight) -> Crosses:
    """Look for the light about each corner of a straightened photograph, (H, W, 3)."""
    size = straight.width_mm, straight.height_mm
    rim = _RIM_SHARE * min(size)
    shift = np.array([(1, 0, rim), (0, 1, rim), (0, 0, 1)], np.float64)
    wider = replace(straight, to_mm=shift @ straight.to_mm, width_mm=size[0] + 2 * rim, height_mm=size[1] + 2 * rim)
    px_per_mm = _LONGER_PX / (max(size) + 2 * rim)
    flat = canvas_of(photo, wider, px_per_mm)
    grey = cv2.cvtColor(flat, cv2.COLOR_RGB2GRAY)
    light = grey.astype(np.float32) - cv2.medianBlur(grey, 2 * round(rim * px_per_mm / 4) + 1)
    arm = ARM_SHARE * min(size) * px_per_mm
    seen = tuple(
        _cross_near(light, (x + rim) * px_per_mm, (y + rim) * px_per_mm, rim * px_per_mm, arm) for x, y in corners_of(size)
    )
    return Crosses(
        flat,
        straight.lens.bulge,
        rim,
        tuple((p[0] / px_per_mm - rim, p[1] / px_per_mm - rim) if p is not None else None for p in seen),
    )


def corners_of(size_mm: tuple[float, float]) -> tuple[Point, ...]:
    """Where the crosses belong: the canvas's corners, from the top left, clockwise."""
    width, height = size_mm
    return (0.0, 0.0), (width, 0.0), (width, height), (0.0, height)


def _cross_near(light: NDArray[np.float32], x: float, y: float, reach: float, arm: float) -> Point | None:
    """The best place of a cross within reach, px; between px by a parabola each way."""
    side = 2 * round(arm) + 1
    template = np.zeros((side, side), np.float32)
    thick = max(1, round(_LINE_SHARE * arm))
    middle = side // 2
    template[middle - thick : middle + thick + 1] = 1
    template[:, middle - thick : middle + thick + 1] = 1
    left, top = max(0, round(x - reach - arm)), max(0, round(y - reach - arm))
    window = light[top : round(y + reach + arm), left : round(x + reach + arm)]
    if min(window.shape) <= side:
        return None
    found = cv2.matchTemplate(np.ascontiguousarray(window), template, cv2.TM_CCOEFF_NORMED)
    row, column = (int(n) for n in np.unravel_index(int(found.argmax()), found.shape))
    if found[row, column] < _LEAST or not _four_arms(window[row : row + side, column : column + side], thick):
        return None
    across, down = _between(found[row], column), _between(found[:, column], row)
    return left + across + middle + 0.5, top + down + middle + 0.5


def _four_arms(piece: NDArray[Any], thick: int) -> bool:
    """Whether each arm is lighter than both its sides: the canvas's own corner has sides of two kinds."""
    middle, gap = piece.shape[0] // 2, 3 * thick
    begin = middle - gap - 1  # an arm's outer part, clear of the other line
    for turned in (np.rot90(piece, turns) for turns in range(4)):
        arm = turned[:begin, middle - thick : middle + thick + 1].mean()
        sides = turned[:begin, middle - gap - thick : middle - gap + 1], turned[:begin, middle + gap : middle + gap + thick + 1]
        if arm < max(float(side.mean()) for side in sides) + _LIGHTER:
            return False
    return True


def _between(values: NDArray[Any], at: int) -> float:
    if not 0 < at < len(values) - 1:
        return float(at)
    before, here, after = (float(v) for v in values[at - 1 : at + 2])
    bend = before - 2 * here + after
    return at + (0.5 * (before - after) / bend if bend < -1e-9 else 0.0)


def crosses_square(size_mm: tuple[float, float], places: Sequence[Point]) -> Squareness:
    """How far the light is from a rectangle, from the four crosses (canvas mm, from the top left, clockwise)."""
    one, two, three, four = places
    return squared(size_mm[0], math.dist(one, two), math.dist(four, three), math.dist(one, three), math.dist(two, four))


def crosses_words(size_mm: tuple[float, float], places: Sequence[Point]) -> tuple[str, ...]:
    """What to do with the projector: first to make it square, only then to bring it onto the canvas."""
    square = crosses_square(size_mm, places)
    return (knocked_words(*knocked(corners_of(size_mm), places)),) if square.holds else squared_words(square)
