"""The size proposed for a canvas that has none: near the photograph's proportion, a usual size or one for the wall, not more than it carries."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from yarrow_lane.compose.fitting_sizes import Misfit, laid, misfit
from yarrow_lane.compose.formats import Format
from yarrow_lane.compose.hanging import width_wanted
from yarrow_lane.compose.wall import Wall
from yarrow_lane.measure.plane import Point

USUAL_MM = (300.0, 400.0)  # a portrait's usual canvas: common practice
_USUAL_DIAGONALS = (math.hypot(*USUAL_MM),) * 2
_SAME_PROPORTION = 0.02  # of its logarithm: our choice, less than a mat hides


@dataclass(frozen=True)
class ProposedSize:
    """A stock size as the photograph lies; `why` in words, what speaks against it last."""

    format: Format
    width_mm: float
    height_mm: float
    why: str

    @property
    def name(self) -> str:
        """As the composition names it."""
        return f"{self.format.series} {self.format.name}"


def proposed_size(proportion: float, carries_mm: Point, wall: Wall, formats: Sequence[Format]) -> ProposedSize | None:
    """The best of these for a photograph of that proportion (width over height) that carries so much workably; None of no formats.

    On a wall whose width is told it is sought by width, else about the usual size.
    """
    widths = width_wanted(wall)
    diagonals = _USUAL_DIAGONALS if widths is None else None
    judged = [(f, misfit(laid(f, proportion), proportion, widths, diagonals, carries_mm)) for f in formats]
    if not judged:
        return None
    best, suits = min(judged, key=lambda found: found[1].off)
    return ProposedSize(best, *laid(best, proportion), _why(suits, widths is not None))


def _why(suits: Misfit, walled: bool) -> str:
    near = "" if suits.askew < _SAME_PROPORTION else "near "
    words = [f"{near}the photograph’s proportion", *([suits.wall_words] if walled else [])]
    return ", ".join((*words, "it carries that" if suits.thin == 0 else "though it carries less"))
