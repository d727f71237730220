"""The piece in the client's own photograph of the room: four corners of something known on the wall give the rest."""

from typing import TYPE_CHECKING, Any

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.compose.ground import Lab
from yarrow_lane.compose.wall import RoomPhoto
from yarrow_lane.measure.colour.cielab import lab_from_linear
from yarrow_lane.measure.colour.srgb import linear_from_srgb8, srgb8_from_linear
from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Point, Polygon
from yarrow_lane.measure.raster import Picture
from yarrow_lane.measure.trouble import Trouble

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

_SHADOW_MM, _SHADOW_SOFT_MM, _SHADOW = 22.0, 16.0, 0.35  # beside and below the piece, how soft, how dark: our choice
_PATCH_PX = 9


class RoomTrouble(Trouble):
    """Corners from which no wall can be told."""


def wall_to_photo(room: RoomPhoto) -> NDArray[np.float64]:
    """3 x 3: mm on the wall, from the known rectangle's top left, to photograph px. Raises `RoomTrouble`."""
    if len(room.corners) != 4 or room.width_mm <= 0 or room.height_mm <= 0:
        raise RoomTrouble("The wall was not measured", "four corners and two lengths are needed", "set them all")
    corners = np.asarray(room.corners, np.float32)
    sides = np.roll(corners, -1, axis=0) - corners
    after = np.roll(sides, -1, axis=0)
    turns = sides[:, 0] * after[:, 1] - sides[:, 1] * after[:, 0]
    if not (np.all(turns > 1) or np.all(turns < -1)):
        raise RoomTrouble(
            "The wall was not measured", "the four corners make no four-sided shape", "set them round the thing, clockwise"
        )
    w, h = room.width_mm, room.height_mm
    flat = np.array([(0, 0), (w, 0), (w, h), (0, h)], np.float32)
    return np.asarray(cv2.getPerspectiveTransform(flat, corners), np.float64)


def on_photo(room: RoomPhoto, point_mm: Point) -> Point:
    """Where a place on the wall lies in the photograph. Raises `RoomTrouble`."""
    x, y, z = wall_to_photo(room) @ (*point_mm, 1.0)
    return float(x / z), float(y / z)


def on_wall(room: RoomPhoto, point_px: Point) -> Point:
    """The other way round, mm from the known rectangle's top left. Raises `RoomTrouble`."""
    x, y, z = np.linalg.inv(wall_to_photo(room)) @ (*point_px, 1.0)
    return float(x / z), float(y / z)


def outline_on_photo(room: RoomPhoto, size_mm: Point) -> Polygon:
    """The corners of a piece of that size, its middle at the room's `at_mm`, in photograph px. Raises `RoomTrouble`."""
    (x, y), (w, h) = room.at_mm, size_mm
    return tuple(on_photo(room, (x + a * w / 2, y + b * h / 2)) for a, b in ((-1, -1), (1, -1), (1, 1), (-1, 1)))


def hung_in(photo: Picture, scale: float, room: RoomPhoto, art: Picture, size_mm: Point) -> Picture:
    """The photograph, (H, W, 3) at `scale` of its px, with `art` (h, w, 3) hung in it, in light, with a soft shadow.

    Raises `RoomTrouble`.
    """
    height, width = photo.shape[:2]
    to_px = np.diag([scale, scale, 1.0]) @ wall_to_photo(room)
    (x, y), (w, h) = room.at_mm, size_mm
    tall, wide = art.shape[:2]
    place = np.array([[w / wide, 0, x - w / 2], [0, h / tall, y - h / 2], [0, 0, 1.0]])
    light = linear_from_srgb8(np.ascontiguousarray(photo))
    across = float(np.hypot(*np.subtract(on_photo(room, (x + 10, y)), on_photo(room, (x, y))))) * scale / 10
    shift = np.array([[1, 0, _SHADOW_MM], [0, 1, _SHADOW_MM], [0, 0, 1.0]])
    cover = _warped(np.ones((tall, wide), np.float32), to_px @ shift @ place, width, height)
    dark = cv2.GaussianBlur(cover, (0, 0), max(0.5, _SHADOW_SOFT_MM * across))
    light *= 1 - _SHADOW * dark[..., None]
    # Shrunk first to about the size it takes, so that warping it does not skip px.
    shrink = min(1.0, max(0.05, 1.5 * across * w / wide))
    small = cv2.resize(linear_from_srgb8(np.ascontiguousarray(art)), None, fx=shrink, fy=shrink, interpolation=cv2.INTER_AREA)
    fitted = place @ np.diag([wide / small.shape[1], tall / small.shape[0], 1.0])
    picture = _warped(small, to_px @ fitted, width, height)
    share = _warped(np.ones(small.shape[:2], np.float32), to_px @ fitted, width, height)[..., None]
    return srgb8_from_linear(light * (1 - share) + picture)


def _warped(source: NDArray[Any], matrix: NDArray[np.float64], width: int, height: int) -> NDArray[Any]:
    # Px middles lie half a px from their corners on both sides.
    half = np.array([[1, 0, 0.5], [0, 1, 0.5], [0, 0, 1.0]])
    back = np.array([[1, 0, -0.5], [0, 1, -0.5], [0, 0, 1.0]])
    return np.asarray(cv2.warpPerspective(source, back @ matrix @ half, (width, height), flags=cv2.INTER_LINEAR))


def colour_at(photo: Picture, scale: float, point_px: Point) -> Lab:
    """The wall's colour there: the median of a small patch, CIELAB. Raises `RoomTrouble` beside the photograph."""
    column, row = int(point_px[0] * scale), int(point_px[1] * scale)
    height, width = photo.shape[:2]
    if not (0 <= column < width and 0 <= row < height):
        raise RoomTrouble("No colour was taken", "that place lies beside the photograph", "drag the piece onto the wall")
    patch = photo[max(0, row - _PATCH_PX) : row + _PATCH_PX + 1, max(0, column - _PATCH_PX) : column + _PATCH_PX + 1]
    found = lab_from_linear(np.median(linear_from_srgb8(np.ascontiguousarray(patch)).reshape(-1, 3), axis=0))
    return round(float(found[0]), 1), round(float(found[1]), 1), round(float(found[2]), 1)
