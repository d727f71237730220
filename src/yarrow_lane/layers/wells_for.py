"""Which well a pass is painted with: the nearest in value and hue to what the pass shows of its area."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.layers.brushes import Advice, Brush, advice
from yarrow_lane.layers.passes import Pass
from yarrow_lane.measure.colour.difference import difference

SHARES = (5, 15, 30, 50, 70, 85, 95)  # percentiles of lightness at which an area's colour is told
_ALSO = 4.0  # dE00 within which a second well is nearly as near (our choice)
# Where in the area's own range of values each role works (our choice, after what the coats of Play show).
_AT = {
    "mass": 30, "wash": 50, "under": 30, "dark": 15, "base": 50, "streaks": 70, "middle": 50, "light": 85, "tips": 95, "reflect": 85,
    "glint": 95, "lid": 15, "glaze": 50, "shade": 70, "hairline": 30, "edge": 70, "soften": 50, "colour": 50, "whisker": 95, "line": 5,
}  # fmt: skip


@dataclass(frozen=True)
class AreaColours:
    """Colours of an area at the percentiles of `SHARES`, CIE Lab (7, 3), and the radius of its largest circle, mm."""

    lab: tuple[tuple[float, float, float], ...]
    inner_mm: float


@dataclass(frozen=True)
class WellFor:
    """A well and how far it is from what the pass wants, dE00."""

    well_id: int
    off: float


def wanted_lab(p: Pass, colours: AreaColours) -> tuple[float, float, float]:
    """What the pass shows, CIE Lab."""
    light = p.id.split(":")[2] == "light" and p.role == "mass"
    return colours.lab[SHARES.index(85 if light else _AT.get(p.role, 50))]


def wells_for(p: Pass, colours: AreaColours, wells: Sequence[tuple[int, tuple[float, float, float]]]) -> tuple[WellFor, ...]:
    """The nearest well, and those nearly as near; none where nothing was mixed."""
    if not wells:
        return ()
    wanted = np.array([wanted_lab(p, colours)])
    off: NDArray[np.float64] = np.asarray(
        difference(np.array([lab for _, lab in wells]), np.repeat(wanted, len(wells), 0)), float
    )
    order = np.argsort(off, kind="stable")
    best = float(off[order[0]])
    return tuple(WellFor(wells[n][0], float(off[n])) for n in order.tolist() if off[n] <= best + _ALSO)[:3]


def chosen_well(
    p: Pass, chosen: int, colours: AreaColours | None, wells: Sequence[tuple[int, tuple[float, float, float]]]
) -> WellFor | None:
    """The well the painter chose (0 for none), else the nearest; None where neither is. A chosen one far from the nearest is 0 off."""
    near = wells_for(p, colours, wells) if colours is not None else ()
    if chosen:
        return next((w for w in near if w.well_id == chosen), WellFor(chosen, 0.0))
    return near[0] if near else None


def advice_in(p: Pass, colours: AreaColours | None, jar: Sequence[Brush], hair_mm: float = 0.0) -> Advice:
    """Brush and paint of a pass, for the area as wide as the picture shows it, a round one where it was not looked at yet."""
    inner = colours.inner_mm if colours is not None else max(2.0, (p.area_cm2 * 100 / math.pi) ** 0.5 / 2)
    return advice(p, inner, hair_mm, jar)
