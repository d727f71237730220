"""Where on the picture a colour belongs: the area nearest to each well, and every place within a chosen difference of one."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.colour.difference import difference
from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Point
from yarrow_lane.paint.seen import Lab

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

USUAL_REACH = 5.0  # CIEDE2000 within which a colour may be used again: our choice
_LEAST_SHARE = 3e-4  # of the picture: smaller ones are no places to name; our choice


@dataclass(frozen=True, eq=False)
class Elsewhere:
    """`mask` (H, W) of places within reach, their share of the picture, and the middles of the largest, canvas mm."""

    mask: NDArray[np.bool_]
    share: float
    places: tuple[Point, ...]


def areas_cm2(
    lab: NDArray[np.floating], px_per_mm: float, wells: Sequence[Lab], of: NDArray[np.bool_] | None = None
) -> tuple[float, ...]:  # fmt: skip
    """cm2 of canvas for each well: every pixel of `of` counts for the well it is nearest to, so that together they cover it."""
    if not wells:
        return ()
    inside = lab.reshape(-1, 3) if of is None else lab[of]
    centres = np.array(wells)
    # Plain distance decides as CIEDE2000 would nearly everywhere, at a fiftieth of its cost.
    scaled, goals = inside * (1.0, 0.7, 0.7), centres * (1.0, 0.7, 0.7)
    away = (goals**2).sum(axis=1) - 2 * (scaled @ goals.T)
    counts = np.bincount(away.argmin(axis=1), minlength=len(wells))
    return tuple(float(n) / px_per_mm**2 / 100 for n in counts)


def elsewhere(lab: NDArray[np.floating], px_per_mm: float, well: Lab, reach: float) -> Elsewhere:
    """Where a reference (Lab (H, W, 3)) is within `reach` of the well; all of it counts, also where fur breaks it up, places largest first."""
    mask = difference(lab, np.array(well)) <= reach
    count, _, facts, middles = cv2.connectedComponentsWithStats(mask.astype(np.uint8), connectivity=8)
    order = sorted(range(1, count), key=lambda n: -facts[n, cv2.CC_STAT_AREA])
    large = [n for n in order if facts[n, cv2.CC_STAT_AREA] >= _LEAST_SHARE * mask.size]
    places = tuple((float(middles[n][0]) / px_per_mm, float(middles[n][1]) / px_per_mm) for n in large)
    return Elsewhere(mask, float(mask.mean()), places)
