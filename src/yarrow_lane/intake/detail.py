"""What resolves of a photograph, in pixels and in words: the one place rooms, ranks and letters ask."""

import math
from dataclasses import dataclass

from yarrow_lane.intake.evidence import Evidence

FULL, SOFT = 0.65, 0.40  # shares of a pixel's side: our choice, from pictures degraded in known steps
_AT_EYES = 0.6  # the eyes count as out of focus when they resolve less than this share of what the rest does
_MOVED = 2.5  # ratio of the directions: finds half of the movements of 8 px and more, and is wrong once in eleven
# Irises across in pixels that resolve: our choice. The handbook's 60 and 30 count a camera's pixels, of which two thirds resolve.
IRIS_GOOD_PX, IRIS_WORKABLE_PX, IRIS_POOR_PX = 40.0, 20.0, 10.0


def iris_detail(iris_px: float, evidence: Evidence) -> float:
    """Pixels across the iris that resolve."""
    return iris_px * evidence.eye_share


def iris_words(detail_px: float) -> str:
    """What so many resolved pixels across the iris mean for the painting."""
    if detail_px >= IRIS_GOOD_PX:
        return "good"
    if detail_px >= IRIS_WORKABLE_PX:
        return "workable"
    return "poor" if detail_px >= IRIS_POOR_PX else "too small"


def usable_px_per_mm(px_per_mm: float, evidence: Evidence) -> float:
    """Photograph px per mm of canvas that resolve."""
    return px_per_mm * evidence.share


def largest_canvas_mm(crop_px: tuple[float, float], evidence: Evidence | None, needed_px_mm: float) -> tuple[float, float]:
    """Width and height of the largest canvas this crop can carry with `needed_px_mm` resolved px on each mm; stored ones while not measured."""
    share = evidence.share if evidence is not None else 1.0
    return crop_px[0] * share / needed_px_mm, crop_px[1] * share / needed_px_mm


def shows_more(one: tuple[int, Evidence], other: tuple[int, Evidence]) -> tuple[float, float]:
    """How many times the detail of `one` the `other` shows, (width in px, evidence) each, and beyond what that is no doubt of the measure."""
    ratio = other[0] * other[1].share / (one[0] * one[1].share)
    sigmas = [e.whole.sigma for _, e in (one, other) if e.whole is not None]
    return ratio, math.exp(math.hypot(*sigmas)) if sigmas else 1.0


def about(pixels: float) -> int:
    """Two figures: the measure knows no more."""
    if pixels < 10:
        return round(pixels)
    unit = 10 ** (math.floor(math.log10(pixels)) - 1)
    return int(round(pixels / unit) * unit)


@dataclass(frozen=True)
class Detail:
    """What is said of a photograph's detail, and whether it is a fault."""

    words: str
    fault: bool = False


def detail_of(width_px: int, height_px: int, evidence: Evidence) -> Detail:
    """The reason in words: enlarged, soft, out of focus at the eyes, moved; else what cannot be seen is left to the painter.

    Smoothing that keeps edges, and sharpening after enlarging, look full to any measure of edges: no bare praise is given.
    """
    stored = max(width_px, height_px)
    if evidence.whole is None:
        return Detail("too little in it to measure its detail by: look yourself")
    share, detail = evidence.share, f"{about(stored * evidence.share):,}"
    if share < FULL and evidence.enlarged:
        return Detail(f"enlarged: detail of about {detail} px, not {stored:,}", True)
    if _out_of_focus_at_the_eyes(evidence):
        return Detail("out of focus at the eyes, sharper elsewhere", True)
    if evidence.whole.moved > _MOVED and share < FULL:
        return Detail(f"perhaps moved, along {_hour(evidence.whole.degrees)} o’clock: detail of about {detail} px", True)
    if share < SOFT:
        return Detail(f"soft all over, or enlarged: detail of about {detail} px, not {stored:,}", True)
    if share < FULL:
        return Detail(f"a little soft: detail of about {detail} px of {stored:,}")
    return Detail("edges full; look whether the hair is there")


def _out_of_focus_at_the_eyes(evidence: Evidence) -> bool:
    if evidence.eye is None or evidence.whole is None or evidence.eye.share >= _AT_EYES * evidence.whole.share:
        return False
    doubt = 2 * math.hypot(evidence.eye.sigma, evidence.whole.sigma)
    return math.log(evidence.whole.share / evidence.eye.share) > doubt


def _hour(degrees: float) -> int:
    """The hour a direction points at, 1 to 6 on one side and its opposite the same line; 0° is three o'clock."""
    hour = round(3 - degrees / 30) % 12
    return 12 if hour == 0 else hour
