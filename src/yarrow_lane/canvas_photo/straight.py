"""A straightened photograph: its places in canvas mm, and the canvas cut out of it at so many px per mm."""

from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.canvas_photo.lens import Lens, Points
from yarrow_lane.canvas_photo.plane_map import carried
from yarrow_lane.canvas_photo.sides import GOOD_SHARE, Side, colours_of, found_sides
from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import ring_area
from yarrow_lane.measure.progress import SILENT, Progress
from yarrow_lane.measure.raster import Picture
from yarrow_lane.measure.trouble import Trouble

if TYPE_CHECKING:
    import cv2
    from scipy import optimize
else:
    cv2, optimize = late("cv2"), late("scipy.optimize")

WORKING_PX = 2000  # longer side on which the sides are found: our choice
_CLICK_DOUBT = 2.0  # px of the working picture by which a corner set by hand may be off: our choice
_REACH = 8.0
_MOST_BULGE = 0.05
_MAP_STEP = 8  # px: exact there, linear between
_MUCH_FINER = 1.3  # our choice
_LEAST_AREA = 0.02  # of the frame: a smaller canvas cannot be measured
SIDE_NAMES = ("top", "right", "bottom", "left")


class StraightTrouble(Trouble):
    """Corners from which no canvas can be straightened."""


@dataclass(frozen=True)
class Straight:
    """`corners` (4, 2) px as the sides meet, from the canvas's top left, clockwise; `to_mm` 3 x 3 from straight-lined px; `weak` the
    sides that were not well seen.
    """

    corners: tuple[tuple[float, float], ...]
    lens: Lens
    to_mm: NDArray[np.float64]
    width_mm: float
    height_mm: float
    weak: tuple[str, ...] = ()

    def mm(self, points: Points) -> Points:
        """Places (n, 2) of the photograph, canvas mm."""
        return carried(self.to_mm, self.lens.straight(np.asarray(points, np.float64)))

    def px(self, points_mm: Points) -> Points:
        """Canvas mm (n, 2) as places of the photograph."""
        return self.lens.bowed(carried(np.linalg.inv(self.to_mm), np.asarray(points_mm, np.float64)))


def straightened(
    picture: Picture, corners: Points, size_mm: tuple[float, float], progress: Progress = SILENT, *,
    reach_px: float = _REACH, doubt_px: float = _CLICK_DOUBT,
) -> Straight:  # fmt: skip
    """From four corners set by hand (px, from the canvas's top left, clockwise): sides fitted, bulge found.

    Sides are looked for within `reach_px` of them; corners are taken to be off by `doubt_px` (both px of a picture of 2000). Raises
    `StraightTrouble`, `Cancelled`.
    """
    height, width = picture.shape[:2]
    placed = checked_corners(corners, width, height)
    scale = min(1.0, WORKING_PX / max(width, height))
    small: NDArray[Any] = picture
    if scale < 1:
        small = cv2.resize(picture, (round(width * scale), round(height * scale)), interpolation=cv2.INTER_AREA)
    progress.at(0.3)
    _, seen = found_sides(colours_of(small), placed * scale, reach_px, doubt_px)
    sides = tuple(Side(s.points / scale, s.share) for s in seen)
    progress.at(0.8)
    lens = Lens(_bulge(sides, Lens(0.0, width, height)), width, height)
    ideal = _straight_corners(lens.straight(placed), sides, lens)
    canvas = np.array([(0, 0), (size_mm[0], 0), size_mm, (0, size_mm[1])], np.float32)
    matrix = cv2.getPerspectiveTransform(ideal.astype(np.float32), canvas).astype(np.float64)
    weak = tuple(name for name, side in zip(SIDE_NAMES, sides, strict=True) if not side.found or side.share < GOOD_SHARE)
    met = tuple((float(x), float(y)) for x, y in lens.bowed(ideal))
    progress.at(1.0)
    return Straight(met, lens, matrix, *size_mm, weak)


def checked_corners(corners: Points, width: int, height: int) -> Points:
    """Four corners that can be a canvas seen from before it; raises `StraightTrouble` in words."""
    placed = np.asarray(corners, np.float64)
    if placed.shape != (4, 2) or not np.all(np.isfinite(placed)):
        raise StraightTrouble("The canvas was not measured", "it has four corners", "set all four")
    sides = np.roll(placed, -1, 0) - placed
    after = np.roll(sides, -1, 0)
    turns = sides[:, 0] * after[:, 1] - sides[:, 1] * after[:, 0]
    if np.all(turns < 0):
        raise StraightTrouble(
            "The canvas was not measured", "its corners run the wrong way round", "set them from its top left, clockwise"
        )
    if not np.all(turns > 0):
        raise StraightTrouble("The canvas was not measured", "its sides cross each other", "set each corner where it belongs")
    if ring_area(placed.tolist()) < _LEAST_AREA * width * height:
        raise StraightTrouble(
            "The canvas was not measured", "it is too small in the photograph", "go nearer and fill the frame"
        )
    return placed


def _photo_px_per_mm(straight: Straight) -> float:
    """Px of the photograph on each mm about the canvas's middle."""
    x, y = straight.width_mm / 2, straight.height_mm / 2
    one, right, below = straight.px(np.array([(x, y), (x + 1, y), (x, y + 1)]))
    return float(np.sqrt(np.hypot(*(right - one)) * np.hypot(*(below - one))))


def _bulge(sides: tuple[Side, ...], lens: Lens) -> float:
    """The one bulge that makes all sides straightest (plumb lines: Brown, 1971)."""
    seen = [side.points for side in sides if side.found]
    if len(seen) < 2:
        return 0.0

    def crooked(bulge: float) -> float:
        rest = []
        for points in seen:
            straight = Lens(bulge, lens.width, lens.height).straight(points)
            away = straight - straight.mean(0)
            rest.append(away @ np.linalg.svd(away, full_matrices=False)[2][1])
        return float(np.mean(np.minimum(np.concatenate(rest) ** 2, 2.0)))

    found = optimize.minimize_scalar(crooked, bounds=(-_MOST_BULGE, _MOST_BULGE), method="bounded", options={"xatol": 1e-4})
    return float(found.x)


def _straight_corners(corners: Points, sides: tuple[Side, ...], lens: Lens) -> Points:
    """Where the straight lines through the sides meet; a corner whose sides were not found stays as it was set."""
    lines: list[tuple[Points, Points] | None] = []
    for side in sides:
        if not side.found:
            lines.append(None)
            continue
        points = lens.straight(side.points)
        centre = points.mean(0)
        lines.append((centre, np.linalg.svd(points - centre, full_matrices=False)[2][1]))
    found = corners.copy()
    most = 15 * max(1.0, lens.reach / (WORKING_PX / 1.6))
    for n in range(4):
        one, other = lines[n - 1], lines[n]
        if one is None or other is None:
            continue
        try:
            place = np.linalg.solve(np.array([one[1], other[1]]), [one[1] @ one[0], other[1] @ other[0]])
        except np.linalg.LinAlgError:
            continue
        if np.hypot(*(place - corners[n])) < most:
            found[n] = place
    return found


def canvas_of(picture: Picture, straight: Straight, px_per_mm: float) -> Picture:
    """The canvas alone, upright and flat, (H, W, 3) at `px_per_mm`."""
    width, height = (max(1, round(side * px_per_mm)) for side in (straight.width_mm, straight.height_mm))
    # A finer photograph is reduced first, or single px would be picked out of it.
    finer = _photo_px_per_mm(straight) / px_per_mm
    share = 1 / finer if finer > _MUCH_FINER else 1.0
    source: NDArray[Any] = picture
    if share < 1:
        size = max(1, round(picture.shape[1] * share)), max(1, round(picture.shape[0] * share))
        source = cv2.resize(picture, size, interpolation=cv2.INTER_AREA)
    across, down = width // _MAP_STEP + 2, height // _MAP_STEP + 2
    y, x = np.mgrid[:down, :across] * float(_MAP_STEP)
    coarse = straight.px(np.stack([(x.ravel() + 0.5) / px_per_mm, (y.ravel() + 0.5) / px_per_mm], 1))
    spread = np.array([[_MAP_STEP, 0, 0], [0, _MAP_STEP, 0]], np.float32)
    places = cv2.warpAffine(
        (coarse.reshape(down, across, 2) * share - 0.5).astype(np.float32), spread, (width, height), flags=cv2.INTER_LINEAR
    )
    return np.asarray(cv2.remap(source, places[..., 0], places[..., 1], cv2.INTER_LINEAR, borderMode=cv2.BORDER_REPLICATE))
