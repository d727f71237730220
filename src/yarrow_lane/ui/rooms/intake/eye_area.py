"""The part of a photograph that shows one eye close up."""

from yarrow_lane.intake.photos import Eye
from yarrow_lane.measure.plane import Rect

_EYE_MARGIN = 1.9  # close-up of so many iris radii each way: lid and lashes are in it


def eye_area(eye: Eye, size_px: tuple[int, int]) -> Rect:
    """The square round one eye, within the photograph."""
    half = eye.radius_px * _EYE_MARGIN
    x, y = max(0.0, eye.x - half), max(0.0, eye.y - half)
    return Rect(x, y, min(2 * half, size_px[0] - x), min(2 * half, size_px[1] - y))
