"""Landmarks on a lead photograph, a template for each kind of sitter."""

import math
from dataclasses import dataclass

from yarrow_lane.intake.brief import SitterKind

_FACE = ("nose tip", "left mouth corner", "right mouth corner", "chin", "crown")
_EARED = (*_FACE, "left ear tip", "right ear tip")
TEMPLATES: dict[SitterKind, tuple[str, ...]] = {
    "person": _FACE,
    "dog": _EARED,
    "cat": _EARED,
    "horse": _EARED,
    "rabbit": _EARED,
    "bird": ("beak tip", "chin", "crown"),
    "other": _EARED,
}


@dataclass(frozen=True)
class Landmark:
    """One named point, upright px; left and right as the viewer sees them."""

    name: str
    x: float
    y: float


def head_length_px(marks: tuple[Landmark, ...]) -> float | None:
    """Crown to chin, px; None until both are marked."""
    at = {m.name: (m.x, m.y) for m in marks}
    if "crown" not in at or "chin" not in at:
        return None
    return math.dist(at["crown"], at["chin"])
