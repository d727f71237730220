"""What a photograph carries on the canvas, in px per mm."""

from yarrow_lane.compose.composition import Compose, crop_scale, largest_crop_width
from yarrow_lane.measure.plane import Point

# Usable pixels per mm of canvas: our choice, a 0.5 mm stroke needs two pixels.
DETAIL_GOOD_PX_MM = 6.0
DETAIL_WORKABLE_PX_MM = 4.0
DETAIL_POOR_PX_MM = 2.5


def part_used(compose: Compose, photo_id: str, photo_size: Point) -> tuple[float, float]:
    """Width and height in px of the part of a photograph that would fill the canvas.

    The laid crop when it is on this photograph, else the widest possible; all of it while the canvas has no size.
    """
    if not compose.sized:
        return float(photo_size[0]), float(photo_size[1])
    laid = compose.background
    width = laid.crop.width if laid and laid.photo_id == photo_id else largest_crop_width(compose, photo_size)
    return width, width / compose.proportion


def stored_px_per_mm(compose: Compose) -> float:
    """Stored px of the background on each mm of canvas; raises `ComposeTrouble` without a crop."""
    return crop_scale(compose)


def detail_words(px_per_mm: float) -> str:
    """What so many photograph pixels per mm of canvas allow."""
    if px_per_mm >= DETAIL_GOOD_PX_MM:
        return "good"
    if px_per_mm >= DETAIL_WORKABLE_PX_MM:
        return "workable"
    if px_per_mm >= DETAIL_POOR_PX_MM:
        return "thin: big shapes hold, hairs do not"
    return "poor: values and big shapes only"
