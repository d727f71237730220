"""Which photographs can carry the painting, with the reason in one sentence."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from yarrow_lane.intake.evidence import Evidence
from yarrow_lane.intake.exposure import REJECT_SHARE, WARN_SHARE
from yarrow_lane.intake.photos import IRIS_GOOD_PX, IRIS_WORKABLE_PX, Photo

# Lid sharpness over noise: our choice, read off the test pictures.
CRISP, SOFT = 12.0, 6.0
DARK_EYE = 25.0  # our choice: L* that the light parts round the nearer eye should reach
_HALF_SHARP = 10.0
_HALF_LIGHT = 40.0


@dataclass(frozen=True)
class Ranked:
    """A photograph's place: `worth` 0..1, and why."""

    photo_id: str
    worth: float
    reason: str


def worth(iris_px: float, evidence: Evidence) -> float:
    """0 to 1: iris, lids, light and clipping multiplied, each rising without end so that no difference is lost.

    The eyes decide (common practice): without them the worth is 0. How the four are weighed is our choice.
    """
    if evidence.sharpness is None or evidence.eye_lightness is None:
        return 0.0
    size = 1 - math.exp(-iris_px / IRIS_GOOD_PX)
    sharp = evidence.sharpness / (evidence.sharpness + _HALF_SHARP)
    light = evidence.eye_lightness / (evidence.eye_lightness + _HALF_LIGHT)
    whole = 1 - min(0.9, evidence.high_share + 0.5 * evidence.low_share)
    return (size * sharp * light) ** (2 / 3) * whole


def reason_of(photo: Photo, evidence: Evidence | None) -> str:
    """The one thing that most helps or hinders this photograph, in words."""
    iris = photo.iris_px
    if iris is None:
        return "no eye marked yet"
    if evidence is None or evidence.sharpness is None or evidence.eye_lightness is None:
        return "being measured"
    if iris < IRIS_WORKABLE_PX:
        return f"the eyes are too small: {iris:.0f} px across the iris"
    if evidence.sharpness < SOFT:
        return "the lids are soft"
    if evidence.eye_lightness < DARK_EYE:
        return "the eyes lie in the dark"
    if evidence.high_share > REJECT_SHARE:
        return f"highlights are burnt out over {evidence.high_share:.0%}"
    if iris < IRIS_GOOD_PX:
        return f"workable: {iris:.0f} px across the iris"
    if evidence.sharpness < CRISP:
        return "large eyes, a little soft"
    if evidence.high_share > WARN_SHARE:
        return f"sharp eyes, but highlights cut over {evidence.high_share:.0%}"
    return "large, sharp eyes" + (" with readable glints" if len(evidence.glints) >= 2 else "")


def rank(photos: Sequence[Photo], evidence: Mapping[str, Evidence]) -> tuple[Ranked, ...]:
    """The best first; of equal ones the order of arrival stays."""
    found = []
    for photo in photos:
        shown = evidence.get(photo.id)
        value = worth(photo.iris_px, shown) if photo.iris_px is not None and shown is not None else 0.0
        found.append(Ranked(photo.id, value, reason_of(photo, shown)))
    return tuple(sorted(found, key=lambda r: -r.worth))
