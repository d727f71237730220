"""Patches that are off, gathered into faults of colour: one for each place, with its outline; and whole regions in the middle."""

from collections.abc import Sequence
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.check.differences import LIMIT, SURE, Clump, Patches, clumps_of
from yarrow_lane.check.measured import AreaAsked, AreaOff, ColourFault
from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Polygon
from yarrow_lane.paint.seen import triple

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

_SAME_PLACE = 0.4  # of the smaller one: value and warmth that share so much are one fault (our choice)
_LEAST_PATCHES = 4  # of a region, to speak of it as a whole
_FINE, _INSIDE = 8, 110  # parts of a patch an outline is drawn to, and the level of 255 it runs along
_NEARLY_ALL = 90  # percentile of patches that what is not told is answered for


def colour_faults(flags: NDArray[np.int64], patches: Patches, areas: Sequence[AreaAsked]) -> tuple[ColourFault, ...]:
    """Clumps of value and of warmth, cut at the sitters' outline; where both lie on one place they are one fault."""
    behind = np.isin(patches.label, [0, *(n for n, a in enumerate(areas, 1) if a.behind)])
    clumps = sorted(clumps_of(flags, patches, (behind, ~behind)), key=lambda c: -abs(c.off) * c.mm2**0.5)
    found: list[list[Clump]] = []
    for clump in clumps:
        beside = next((group for group in found if len(group) == 1 and _same_place(group[0], clump)), None)
        if beside is not None:
            beside.append(clump)
        else:
            found.append([clump])
    return tuple(_fault(group, patches, areas) for group in found)


def _same_place(one: Clump, other: Clump) -> bool:
    """Two kinds of fault of one place."""
    smaller = min(one.mask.sum(), other.mask.sum())
    return one.kind != other.kind and bool((one.mask & other.mask).sum() > _SAME_PLACE * smaller)


def _fault(group: Sequence[Clump], patches: Patches, areas: Sequence[AreaAsked]) -> ColourFault:
    first = group[0]
    off = {c.kind: c.off for c in group}
    wanted, seen = (triple(np.median(of[first.mask], 0)) for of in (patches.wanted, patches.seen))
    area = areas[first.label - 1].id if first.label else 0
    return ColourFault(
        first.at,
        first.mm2,
        area,
        off.get("value", 0.0),
        off.get("warmth", 0.0),
        first.sd,
        wanted,
        seen,
        _outline(first, patches),
    )


def _outline(clump: Clump, patches: Patches) -> Polygon:
    """Round the patches, canvas mm, smoothed."""
    mask = cv2.resize(clump.mask.astype(np.uint8) * 255, None, fx=_FINE, fy=_FINE, interpolation=cv2.INTER_LINEAR)
    mask = cv2.GaussianBlur(np.pad(mask, _FINE), (0, 0), _FINE / 2)
    rings, _ = cv2.findContours((mask > _INSIDE).astype(np.uint8), cv2.RETR_EXTERNAL, cv2.CHAIN_APPROX_SIMPLE)
    if not rings:
        return ()
    ring = max(rings, key=cv2.contourArea)[:, 0].astype(float)
    step = float(patches.at[0, 1, 0] - patches.at[0, 0, 0])
    mm = patches.at[0, 0] + ((ring - _FINE + 0.5) / _FINE - 0.5) * step
    return tuple((round(float(x), 1), round(float(y), 1)) for x, y in mm)


def areas_off(patches: Patches, spoken: NDArray[np.bool_], areas: Sequence[AreaAsked]) -> tuple[AreaOff, ...]:
    """The whole first, then every painted region large enough to say something of."""
    every = [(0, "the whole picture", spoken)]
    every += [(a.id, a.name, spoken & (patches.label == n)) for n, a in enumerate(areas, 1) if a.painted]
    return tuple(
        AreaOff(number, name, *(float(np.median(patches.off[..., k][mask])) for k in (0, 1)))
        for number, name, mask in every
        if mask.sum() >= _LEAST_PATCHES
    )


def holds_within(patches: Patches, spoken: NDArray[np.bool_]) -> float:
    """L* within which nearly every place that is not told holds: where paint is dark or the light doubtful, less is seen."""
    if not spoken.any():
        return LIMIT["value"]
    return max(LIMIT["value"], SURE * float(np.percentile(patches.sd[..., 0][spoken], _NEARLY_ALL)))
