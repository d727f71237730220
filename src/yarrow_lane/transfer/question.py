"""What is asked of a worker for Transfer."""

from collections.abc import Sequence
from pathlib import Path

import numpy as np

from yarrow_lane.canvas_photo.register import PX_PER_MM as MARKS_PX_PER_MM
from yarrow_lane.canvas_photo.register import Registered, registered, warped
from yarrow_lane.canvas_photo.straight import StraightTrouble, canvas_of, straightened
from yarrow_lane.canvas_photo.suggest import suggested_corners
from yarrow_lane.intake.opening import open_whole
from yarrow_lane.measure.plane import Circle, Point, Polygon
from yarrow_lane.measure.progress import SILENT, Progress
from yarrow_lane.measure.raster import Picture
from yarrow_lane.transfer.crosses import Crosses, crosses_on
from yarrow_lane.transfer.lines.base import Base
from yarrow_lane.transfer.lines.building import base_of
from yarrow_lane.transfer.lines.drawing import unit_of
from yarrow_lane.transfer.lines.weights import weights
from yarrow_lane.transfer.marks.empty import wanting_marks
from yarrow_lane.transfer.marks.laid import LaidMarks
from yarrow_lane.transfer.marks.seen import marks_seen
from yarrow_lane.transfer.proof.find import PX_PER_MM, FoundPlace, found_places
from yarrow_lane.transfer.proof.measured import Flat
from yarrow_lane.transfer.sketch import cleaned

_GUESS_REACH, _GUESS_DOUBT = (
    24.0,
    12.0,
)  # px by which a suggested corner may be off: of 36 trials six in ten were then within 3 mm


def find_lines(
    picture: Picture, px_per_mm: float, circles: Sequence[Circle], outlines: Sequence[Polygon], progress: Progress = SILENT
) -> Base:  # fmt: skip
    """All lines of a canvas (H, W, 3); circles and outlines are what the painter cares for, mm. Raises `Cancelled`."""
    size = picture.shape[1] / px_per_mm, picture.shape[0] / px_per_mm
    weight = weights(*size, circles, outlines) if circles or outlines else None
    return base_of(picture, px_per_mm, weight, progress)


def measure_drawing(
    path: Path, name: str, corners: Polygon, size_mm: tuple[float, float], lines: Sequence[Polygon], places: Sequence[Point],
    ruled_mm: tuple[Sequence[float], Sequence[float]], progress: Progress = SILENT,
) -> Flat:  # fmt: skip
    """A photograph of the drawing straightened, and its places looked for; everything in canvas mm. Raises `Trouble`, `Cancelled`."""
    picture = open_whole(path, name, progress)
    unit = unit_of(*size_mm)
    px_per_mm = PX_PER_MM / unit
    straight = straightened(picture, np.asarray(corners, np.float64), size_mm)
    flat = canvas_of(picture, straight, px_per_mm)

    def scaled(points: Sequence[Point]) -> list[Point]:
        return [(x / unit, y / unit) for x, y in points]

    ruled = tuple(tuple(at / unit for at in side) for side in ruled_mm)
    found = found_places(
        flat, PX_PER_MM, [tuple(scaled(line)) for line in lines], scaled(places), (ruled[0], ruled[1]), progress
    )
    if found is not None:
        found = tuple(FoundPlace((p.at[0] * unit, p.at[1] * unit), p.sureness) for p in found)
    return Flat(flat, straight.corners, straight.weak, found, straight.lens.bulge)


def suggest_corners(path: Path, name: str, size_mm: tuple[float, float], progress: Progress = SILENT) -> Polygon | None:
    """Where a surface of that size seems to lie in a photograph, px; None where none is seen. Raises `Trouble`, `Cancelled`."""
    return corners_by_lines(open_whole(path, name, progress), size_mm, progress)


def corners_by_lines(picture: Picture, size_mm: tuple[float, float], progress: Progress = SILENT) -> Polygon | None:
    """The same of a photograph already opened, (H, W, 3)."""
    corners = suggested_corners(picture, size_mm[0] / size_mm[1])
    if corners is None:
        return None
    try:
        fitted = straightened(picture, corners, size_mm, progress, reach_px=_GUESS_REACH, doubt_px=_GUESS_DOUBT).corners
    except StraightTrouble:
        return None
    return tuple((round(x, 1), round(y, 1)) for x, y in fitted)


def lay_on_marks(
    photo: tuple[Path, str, Polygon], first: tuple[Path, str, Polygon] | None, size_mm: tuple[float, float], progress: Progress = SILENT
) -> LaidMarks:  # fmt: skip
    """A photograph (file, name, corners) of the marked surface straightened, laid on the first one by the marks both show, and the marks
    seen; without a `first` it is the first. Raises `Trouble`, `Cancelled`.
    """
    unit = unit_of(*size_mm)
    picture, bulge, weak = _flat(photo, size_mm, progress)
    if first is None:
        marks = marks_seen(picture, MARKS_PX_PER_MM)
        wanting = wanting_marks(marks, (size_mm[0] / unit, size_mm[1] / unit))
        there = tuple((round(float(x) * unit, 1), round(float(y) * unit, 1)) for x, y in marks)
        circles = tuple(((x * unit, y * unit), radius * unit) for (x, y), radius in wanting)
        return LaidMarks(picture, bulge, weak, there, circles)
    before, _, _ = _flat(first, size_mm, progress)
    found = registered(before, picture, MARKS_PX_PER_MM, progress)
    if not isinstance(found, Registered):
        return LaidMarks(picture, bulge, weak, (), (), why_not=found.why)
    laid = warped(picture, found, MARKS_PX_PER_MM)
    return LaidMarks(laid, bulge, weak, (), (), found.marks, found.rest_mm * unit, found.doubt_mm * unit)


def _flat(
    photo: tuple[Path, str, Polygon], size_mm: tuple[float, float], progress: Progress
) -> tuple[Picture, float, tuple[str, ...]]:  # fmt: skip
    path, name, corners = photo
    picture = open_whole(path, name, progress)
    straight = straightened(picture, np.asarray(corners, np.float64), size_mm)
    return canvas_of(picture, straight, MARKS_PX_PER_MM / unit_of(*size_mm)), straight.lens.bulge, straight.weak


def clean_sketch(
    photo: tuple[Path, str, Polygon], size_mm: tuple[float, float], px_per_mm: float, progress: Progress = SILENT
) -> Picture:
    """A sketch on paper straightened, scaled to the canvas and cleaned: (H, W, 3), lines dark on white. Raises `Trouble`, `Cancelled`."""
    path, name, corners = photo
    picture = open_whole(path, name, progress)
    straight = straightened(picture, np.asarray(corners, np.float64), size_mm)
    return cleaned(canvas_of(picture, straight, px_per_mm), px_per_mm / unit_of(*size_mm))


def find_crosses(photo: tuple[Path, str, Polygon], size_mm: tuple[float, float], progress: Progress = SILENT) -> Crosses:
    """The projector's crosses on a photograph (file, name, corners of the canvas). Raises `Trouble`, `Cancelled`."""
    path, name, corners = photo
    picture = open_whole(path, name, progress)
    return crosses_on(picture, straightened(picture, np.asarray(corners, np.float64), size_mm, progress))
