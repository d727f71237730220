"""What a photograph carries on the canvas, in px per mm."""

from collections.abc import Mapping, Sequence

from yarrow_lane.compose.composition import Compose, largest_crop_width
from yarrow_lane.intake.detail import largest_canvas_mm, usable_px_per_mm
from yarrow_lane.intake.evidence import Evidence
from yarrow_lane.intake.photos import Photo
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


def carried_px_per_mm(compose: Compose, photo: Photo, evidence: Evidence | None) -> float:
    """Px of a photograph that resolve on each mm of a canvas that has a size; stored ones while it is not measured.

    Sitters cut out of it count, the largest first, else the part of it that would fill the canvas (`part_used`).
    """
    placed = [1 / p.mm_per_px for p in compose.pieces if p.photo_id == photo.id]
    stored = min(placed) if placed else part_used(compose, photo.id, (photo.width_px, photo.height_px))[0] / compose.width_mm
    return stored if evidence is None else usable_px_per_mm(stored, evidence)


def largest_canvas(compose: Compose, photo: Photo, evidence: Evidence | None) -> tuple[float, float]:
    """Width and height in mm of the largest canvas that the part used of a photograph carries workably."""
    return largest_canvas_mm(part_used(compose, photo.id, (photo.width_px, photo.height_px)), evidence, DETAIL_WORKABLE_PX_MM)


def thinnest(
    compose: Compose, photos: Sequence[Photo], evidence: Mapping[str, Evidence]
) -> tuple[Photo, float] | None:  # fmt: skip
    """Of the photographs the sitters are painted from, the one that carries least; None while there is none.

    With sitters placed, the photograph behind them does not count: it is meant to be soft.
    """
    used = {p.photo_id for p in compose.pieces} or ({compose.behind.photo_id} if compose.behind is not None else set())
    carried = [(p, carried_px_per_mm(compose, p, evidence.get(p.id))) for p in photos if p.id in used] if compose.sized else []
    return min(carried, key=lambda c: c[1], default=None)


def detail_word(px_per_mm: float) -> str:
    """The same in one word."""
    return detail_words(px_per_mm).partition(":")[0]


def detail_words(px_per_mm: float) -> str:
    """What so many photograph pixels per mm of canvas allow."""
    if px_per_mm >= DETAIL_GOOD_PX_MM:
        return "good"
    if px_per_mm >= DETAIL_WORKABLE_PX_MM:
        return "workable"
    if px_per_mm >= DETAIL_POOR_PX_MM:
        return "thin: big shapes hold, hairs do not"
    return "poor: values and big shapes only"
