"""What is asked of a worker for Check."""

from collections.abc import Sequence
from dataclasses import dataclass
from pathlib import Path

import numpy as np

from yarrow_lane.canvas_photo.borders import fitted_borders
from yarrow_lane.canvas_photo.straight import canvas_of, straightened
from yarrow_lane.check.band import corners_by_band
from yarrow_lane.check.film import in_one_light, small
from yarrow_lane.check.grid import px_per_mm_for
from yarrow_lane.check.laid import MOST_WEAK, PhotoAsked
from yarrow_lane.check.measured import AreaAsked, Measured
from yarrow_lane.check.measuring import measured
from yarrow_lane.intake.opening import open_picture, open_whole
from yarrow_lane.measure.plane import Point, Polygon
from yarrow_lane.measure.progress import SILENT, Progress
from yarrow_lane.measure.raster import Picture
from yarrow_lane.transfer.question import corners_by_lines

LOOKED_PX = 2000  # longer side at least at which a photograph is measured: finer tells no more (measured)


@dataclass(frozen=True)
class PhotoFile:
    """A photograph on disk, its upright size and its corners in px of that; `sheet` is one of a white sheet in its light."""

    path: Path
    name: str
    size_px: tuple[int, int]
    corners: Polygon
    sheet: tuple[Path, str] | None = None


def _opened(photo: PhotoFile, progress: Progress) -> PhotoAsked:
    """As it is measured, corners with it."""
    progress.at(0.0)
    picture = open_picture(photo.path, photo.name, LOOKED_PX).picture
    scale = picture.shape[1] / photo.size_px[0]
    corners = tuple((x * scale, y * scale) for x, y in photo.corners)
    sheet = None
    if photo.sheet is not None:
        sheet = open_picture(*photo.sheet, LOOKED_PX).picture
        if sheet.shape != picture.shape:
            sheet = None  # from elsewhere: it says nothing of this light
    return PhotoAsked(picture, corners, sheet)


def suggest_corners(
    path: Path, name: str, size_mm: tuple[float, float], progress: Progress = SILENT
) -> Polygon | None:  # fmt: skip
    """Where the canvas seems to lie in a photograph, px: by the coloured band of the grey frame, else by long lines; None where neither
    is seen. Raises `Trouble`, `Cancelled`.
    """
    picture = open_whole(path, name, progress)
    return corners_by_band(picture, size_mm) or corners_by_lines(picture, size_mm, progress)


def canvas_picture(photo: PhotoFile, size_mm: tuple[float, float], progress: Progress = SILENT) -> Picture:
    """The canvas alone, flat, (H, W, 3). Raises `Trouble`, `Cancelled`."""
    opened = _opened(photo, progress)
    straight = straightened(opened.picture, np.asarray(opened.corners, np.float64), size_mm)
    fitted = fitted_borders(opened.picture, straight)
    # Without borders the painting fills the photograph: it is cut where its corners were set.
    return canvas_of(opened.picture, fitted if len(fitted.weak) <= MOST_WEAK else straight, px_per_mm_for(size_mm))


def measure_painting(
    photos: Sequence[PhotoFile], reference: Picture, size_mm: tuple[float, float], areas: Sequence[AreaAsked],
    places: Sequence[tuple[str, Point]], ground_srgb: tuple[int, int, int] | None, progress: Progress = SILENT,
) -> Measured:  # fmt: skip
    """Photographs of one state held against the reference. Raises `Trouble`, `Cancelled`."""
    opened = [_opened(photo, progress) for photo in photos]
    return measured(opened, reference, size_mm, areas, places, ground_srgb, progress)


def film_frames(
    photos: Sequence[PhotoFile], reference: Picture, size_mm: tuple[float, float], progress: Progress = SILENT
) -> tuple[Picture, ...]:  # fmt: skip
    """Every photograph straightened, in one light, small. Raises `Trouble`, `Cancelled`."""
    frames = []
    for n, photo in enumerate(photos):
        frames.append(canvas_picture(photo, size_mm))
        progress.at((n + 1) / len(photos) * 0.8)
    return small(in_one_light(frames, reference, px_per_mm_for(size_mm), size_mm))
