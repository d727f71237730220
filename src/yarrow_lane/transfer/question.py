"""What is asked of a worker for Transfer."""

from collections.abc import Sequence
from pathlib import Path

import numpy as np

from yarrow_lane.canvas_photo.straight import canvas_of, straightened
from yarrow_lane.intake.opening import open_whole
from yarrow_lane.measure.plane import Point, Polygon
from yarrow_lane.measure.progress import SILENT, Progress
from yarrow_lane.measure.raster import Picture
from yarrow_lane.transfer.lines.base import Base
from yarrow_lane.transfer.lines.building import base_of
from yarrow_lane.transfer.lines.drawing import unit_of
from yarrow_lane.transfer.lines.weights import Circle, weights
from yarrow_lane.transfer.proof.find import PX_PER_MM, FoundPlace, found_places
from yarrow_lane.transfer.proof.measured import Flat


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
    return Flat(flat, straight.corners, straight.weak, found)
