"""The size proposed for a canvas that has none: near the photograph's proportion, a usual size or one for the wall, not more than it carries."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from yarrow_lane.compose.composition import Compose, set_size
from yarrow_lane.compose.detail import DETAIL_WORKABLE_PX_MM, carried_px_per_mm
from yarrow_lane.compose.formats import Format
from yarrow_lane.compose.hanging import beyond, width_wanted
from yarrow_lane.compose.wall import Wall
from yarrow_lane.intake.evidence import Evidence
from yarrow_lane.intake.photos import Photo

USUAL_MM = (300.0, 400.0)  # a portrait's usual canvas: common practice
# What counts alike by its logarithm, our choice: a tenth of proportion as much as two fifths of the diagonal; too little detail twice.
_PROPORTION, _TOO_THIN = 4.0, 2.0
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


def proposed_size(photo: Photo, evidence: Evidence | None, wall: Wall, formats: Sequence[Format]) -> ProposedSize | None:
    """The best of these for that photograph, stored px counting while its detail is not measured; None of no formats.

    On a wall whose width is told it is sought by width, else about the usual size.
    """
    lies = photo.width_px > photo.height_px
    longness = max(photo.width_px, photo.height_px) / min(photo.width_px, photo.height_px)
    widths = width_wanted(wall)

    def judged(f: Format) -> tuple[float, ProposedSize]:
        width, height = (f.long_mm, f.short_mm) if lies else (f.short_mm, f.long_mm)
        askew = abs(math.log(f.long_mm / f.short_mm / longness))
        why = ["the photograph’s proportion" if askew < _SAME_PROPORTION else "near the photograph’s proportion"]
        if widths is not None:
            far = beyond(width, *widths)
            why.append("suits the wall" if far == 0 else f"{'smaller' if width < widths[0] else 'larger'} than the wall wants")
        else:
            far = abs(math.log(math.hypot(width, height) / math.hypot(*USUAL_MM)))
        carried = carried_px_per_mm(set_size(Compose(), width, height), photo, evidence)
        thin = max(0.0, math.log(DETAIL_WORKABLE_PX_MM / carried))
        why.append("it carries that" if thin == 0 else "though it carries less")
        return _PROPORTION * askew + far + _TOO_THIN * thin, ProposedSize(f, width, height, ", ".join(why))

    return min((judged(f) for f in formats), key=lambda found: found[0], default=(0.0, None))[1]
