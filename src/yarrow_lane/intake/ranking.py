"""Which photographs can carry the painting, with the reason in one sentence."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import combinations

from yarrow_lane.intake.copies import shot_groups
from yarrow_lane.intake.detail import FULL, IRIS_GOOD_PX, IRIS_WORKABLE_PX, about, detail_of, iris_detail, shows_more
from yarrow_lane.intake.evidence import Evidence
from yarrow_lane.intake.exposure import REJECT_SHARE, WARN_SHARE
from yarrow_lane.intake.photos import Photo

DARK_EYE = 25.0  # our choice: L* that the light parts round the nearer eye should reach
_HALF_LIGHT = 40.0
_JUST_BELOW = 0.999
# Fitted on the eyes of four photographs and their degradations: of a picture and its enlarged copy the original is worth more.
_RESOLVED_WEIGHT = 0.2


@dataclass(frozen=True)
class Ranked:
    """A photograph's place: `worth` 0..1, and why."""

    photo_id: str
    worth: float
    reason: str


def worth(iris_px: float, evidence: Evidence) -> float:
    """0 to 1: iris as it resolves, light and clipping multiplied, each rising without end so that no difference is lost.

    The eyes decide (common practice): without them the worth is 0. How they are weighed is our choice.
    """
    if evidence.eye_lightness is None:
        return 0.0
    size = 1 - math.exp(-iris_detail(iris_px, evidence) / IRIS_GOOD_PX)
    light = evidence.eye_lightness / (evidence.eye_lightness + _HALF_LIGHT)
    whole = 1 - min(0.9, evidence.high_share + 0.5 * evidence.low_share)
    return size ** (4 / 3) * light ** (2 / 3) * whole * evidence.eye_share**_RESOLVED_WEIGHT


def reason_of(photo: Photo, evidence: Evidence | None) -> str:
    """The one thing that most helps or hinders this photograph, in words."""
    iris = photo.iris_px
    if iris is None:
        return "no eye is seen" if photo.no_eyes else "no eye marked yet"
    if evidence is None or evidence.eye_lightness is None:
        return "being measured"
    detail = iris_detail(iris, evidence)
    seen = detail_of(photo.width_px, photo.height_px, evidence)
    across = f"{iris:.0f} px across the iris" + (f", detail of {about(detail)}" if evidence.eye_share < FULL else "")
    if iris < IRIS_WORKABLE_PX:
        return f"the eyes are too small: {across}"
    if evidence.eye_lightness < DARK_EYE:
        return "the eyes lie in the dark"
    if detail < IRIS_WORKABLE_PX:
        return f"{seen.words if seen.fault else 'the eyes show too little'}: {across}"
    if evidence.high_share > REJECT_SHARE:
        return f"highlights are burnt out over {evidence.high_share:.0%}"
    if seen.fault:
        return f"{seen.words}; {across}"
    if detail < IRIS_GOOD_PX:
        return f"workable: {across}"
    if evidence.high_share > WARN_SHARE:
        return f"large eyes, but highlights cut over {evidence.high_share:.0%}"
    return f"large eyes, {about(detail)} px of detail" + (" and readable glints" if len(evidence.glints) >= 2 else "")


def rank(photos: Sequence[Photo], evidence: Mapping[str, Evidence]) -> tuple[Ranked, ...]:
    """The best first; of equal ones the order of arrival stays."""
    found = []
    for photo in photos:
        shown = evidence.get(photo.id)
        value = worth(photo.iris_px, shown) if photo.iris_px is not None and shown is not None else 0.0
        found.append(Ranked(photo.id, value, reason_of(photo, shown)))
    found = _originals_first(photos, evidence, found)
    return tuple(sorted(found, key=lambda r: -r.worth))


def _originals_first(photos: Sequence[Photo], evidence: Mapping[str, Evidence], ranked: list[Ranked]) -> list[Ranked]:
    """Of copies of one shot a larger file that does not fill its pixels comes after the smaller, unless it shows plainly more.

    Enlarging can sharpen edges a little; that a smaller file of the same shot is there tells more than any measure of edges.
    """
    groups = shot_groups([p.shot for p in photos])
    places: dict[int, list[int]] = {}
    for place, first in enumerate(groups):
        places.setdefault(first, []).append(place)
    found = list(ranked)
    for same in places.values():
        for small, large in combinations(sorted(same, key=lambda n: photos[n].width_px * photos[n].height_px), 2):
            one, other = evidence.get(photos[small].id), evidence.get(photos[large].id)
            if one is None or other is None or other.share >= FULL or found[small].worth == 0:
                continue
            more, plainly = shows_more((photos[small].width_px, one), (photos[large].width_px, other))
            if photos[large].width_px > photos[small].width_px and more <= plainly**2:
                worth = min(found[large].worth, _JUST_BELOW * found[small].worth)
                found[large] = replace(found[large], worth=worth)
    return found
