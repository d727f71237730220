"""What the painter chose of the lines to draw."""

import math
from dataclasses import dataclass, replace

from yarrow_lane.measure.plane import Point, Polygon

# Levels, colour-difference units: our choice, by looking.
OUTLINE, USUAL, ALL = 12.0, 5.5, 3.8


@dataclass(frozen=True)
class Choice:
    """What the painter chose: the slider's `level`, parts of the canvas with a level of their own, places (canvas mm) at which lines
    were dropped, and lines drawn by hand; `values` adds the borders of the value study, broken. `made_from` is the reference they belong to, empty while nothing was chosen.
    """

    level: float = USUAL
    there: tuple[tuple[Polygon, float], ...] = ()
    dropped: tuple[Point, ...] = ()
    by_hand: tuple[Polygon, ...] = ()
    made_from: str = ""
    values: bool = False

    @property
    def touched(self) -> bool:
        """Whether a hand changed single lines."""
        return bool(self.there or self.dropped or self.by_hand)


def share_of(level: float) -> float:
    """The slider, 0 (outline) to 100 (all): like steps are like ratios of the level."""
    return 100 * math.log(OUTLINE / level) / math.log(OUTLINE / ALL)


def with_share(choice: Choice, share: float) -> Choice:
    """The slider set to 0 to 100."""
    level = OUTLINE * (ALL / OUTLINE) ** (min(max(share, 0.0), 100.0) / 100)
    return replace(choice, level=round(level, 3))
