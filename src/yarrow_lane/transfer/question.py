"""What is asked of a worker for Transfer."""

from collections.abc import Sequence

from yarrow_lane.measure.plane import Polygon
from yarrow_lane.measure.progress import SILENT, Progress
from yarrow_lane.measure.raster import Picture
from yarrow_lane.transfer.lines.base import Base, base_of
from yarrow_lane.transfer.lines.weights import Circle, weights


def find_lines(
    picture: Picture, px_per_mm: float, circles: Sequence[Circle], outlines: Sequence[Polygon], progress: Progress = SILENT
) -> Base:  # fmt: skip
    """All lines of a canvas (H, W, 3); circles and outlines are what the painter cares for, mm. Raises `Cancelled`."""
    size = picture.shape[1] / px_per_mm, picture.shape[0] / px_per_mm
    weight = weights(*size, circles, outlines) if circles or outlines else None
    return base_of(picture, px_per_mm, weight, progress)
