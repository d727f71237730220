"""Where to take the first colours: an even dark, middle and light patch of the sitter."""

import numpy as np

from yarrow_lane.measure.colour.cielab import lightness_from_srgb8
from yarrow_lane.measure.plane import Point
from yarrow_lane.measure.raster import Picture, resample

_MIDDLE = 0.6  # the sitter is looked for in this share of the picture's sides: our choice
_WANTED = (8.0, 50.0, 92.0)  # per cent of the patches from the darkest: our choice, not the last glint or hole
_ACROSS = 6  # px across a patch are enough to tell how even it is: our choice
_UNEVEN = 0.7  # what unevenness of a patch counts against distance from the wanted value: our choice


def proposed_places(picture: Picture, px_per_mm: float, patch_mm: float) -> tuple[Point, ...]:
    """Centres of a dark, a middle and a light patch of `patch_mm`, canvas mm, of a reference (H, W, 3) sRGB.

    They are a guess: the evenest patches near those values in the middle of the picture. None where no patch fits.
    """
    coarser = patch_mm * px_per_mm / _ACROSS
    if coarser >= 2:  # means of patches need few pixels, and the window waits for them
        size = (max(1, round(picture.shape[n] / coarser)) for n in (1, 0))
        small = resample(picture, *size)
        return proposed_places(small, small.shape[1] / picture.shape[1] * px_per_mm, patch_mm)
    height, width = picture.shape[:2]
    side = max(1, round(patch_mm * px_per_mm))
    left, top = round(width * (1 - _MIDDLE) / 2), round(height * (1 - _MIDDLE) / 2)
    rows, columns = round(height * _MIDDLE) // side, round(width * _MIDDLE) // side
    if not rows or not columns:
        return ()
    part = lightness_from_srgb8(picture[top : top + rows * side, left : left + columns * side])
    cells = part.reshape(rows, side, columns, side).swapaxes(1, 2).reshape(rows * columns, side * side)
    means, spread = cells.mean(axis=1), cells.std(axis=1)
    found: list[Point] = []
    for wanted in np.percentile(means, _WANTED):
        best = int(np.argmin(np.abs(means - wanted) + _UNEVEN * spread))
        row, column = divmod(best, columns)
        place = (left + (column + 0.5) * side) / px_per_mm, (top + (row + 0.5) * side) / px_per_mm
        if place not in found:
            found.append(place)
    return tuple(found)
