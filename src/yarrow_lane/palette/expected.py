"""How far mixes may be off, before and after the tubes were read."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from yarrow_lane.paint.doubt import TINTED, UNKNOWN, doubt_of
from yarrow_lane.paint.paints import Paints
from yarrow_lane.palette.mixer import paints_of
from yarrow_lane.palette.paintbox import Medium, Paintbox
from yarrow_lane.palette.recipe import Recipe, RecipeTrouble, eighths_of


@dataclass(frozen=True)
class Expected:
    """The middle doubt of the mixes (CIEDE2000): with tubes unread, as they are, and once three tints are compared."""

    unread: float
    now: float
    with_tints: float


def expected_error(box: Paintbox, medium: Medium, recipes: Sequence[Recipe]) -> Expected:
    """Over the wells' mixes; without any over each tube's tint."""
    paints, _ = paints_of(box, medium)
    rows = []
    for recipe in recipes:
        try:
            rows.append(eighths_of(paints, recipe))
        except RecipeTrouble:
            continue  # a mix whose tube is gone says nothing of the others
    if not rows and paints.whites:
        white = paints.whites[0]
        rows = [
            np.eye(len(paints))[n] * 8 + np.eye(len(paints))[white] * 80 for n in range(len(paints)) if n not in paints.whites
        ]
    if not rows:
        rows = [np.eye(len(paints))[0] * 8]

    def middle(doubt: float | None) -> float:
        some = (
            paints
            if doubt is None
            else Paints.of([replace(p, doubt=min(p.doubt, doubt) if doubt == TINTED else doubt) for p in paints.all])
        )
        return float(np.median([doubt_of(some, row) for row in rows]))

    return Expected(middle(UNKNOWN), middle(None), middle(TINTED))
