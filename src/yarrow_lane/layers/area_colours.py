"""What colours an area has from its darks to its lights, read without its rim and without what is seen through its hairs."""

from collections.abc import Collection, Mapping
from itertools import pairwise
from typing import TYPE_CHECKING, Any

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.layers.raster import thickest
from yarrow_lane.layers.wells_for import SHARES, AreaColours
from yarrow_lane.measure.late import late
from yarrow_lane.measure.progress import SILENT, Progress
from yarrow_lane.measure.raster import Picture

if TYPE_CHECKING:
    import cv2
    import scipy.spatial as spatial
else:
    cv2 = late("cv2")
    spatial = late("scipy.spatial")

# An outline is drawn a little beside the edge: this far in it is read, mm, and no further than this share of its widest place; what lies
# deeper than `_CORE` of it is taken for the area's own; hairs let the ground through this near it, mm (all our choice).
_RIM_MM, _RIM, _CORE, _NEAR_MM = 4.0, 0.3, 0.6, 12.0
_SAMPLE = 1500
_NEARER = 0.6  # times as near to the area as to the ground is its own; between, the ground shines through (our choice)
_LEFT = 0.25  # where less than this share would be left, nothing is left out


def colours_of(
    picture: Picture, scale: float, masks: Mapping[int, NDArray[np.bool_]], grounds: Collection[int], progress: Progress = SILENT
) -> dict[int, AreaColours]:  # fmt: skip
    """The colours of each area that has a pixel; `scale` px per mm, `grounds` the ids that are background."""
    lab = cv2.cvtColor(picture.astype(np.float32) / 255, cv2.COLOR_RGB2LAB)
    ground = np.zeros(picture.shape[:2], bool)
    for i in grounds:
        ground |= masks.get(i, ground)
    found = {}
    for n, (i, mask) in enumerate(masks.items()):
        if mask.any():
            own = _own(lab, mask, ground if i not in grounds else np.zeros_like(ground), scale)
            found[i] = AreaColours(_told(own), thickest(mask)[1] / scale)
        progress.at(n / len(masks))
    return found


def _own(lab: NDArray[Any], mask: NDArray[np.bool_], ground: NDArray[np.bool_], scale: float) -> NDArray[Any]:
    """The area's own pixels (n, 3): away from its outline, and not the colours of the ground beside it."""
    depth = cv2.distanceTransform(np.pad(mask.astype(np.uint8), 1), cv2.DIST_L2, 3)[1:-1, 1:-1]
    deepest = float(depth.max())
    near = cv2.distanceTransform((~ground).astype(np.uint8), cv2.DIST_L2, 3) / scale if ground.any() else None
    read = mask & (depth >= min(_RIM_MM * scale, _RIM * deepest))
    inner = lab[read]
    if near is None or not (read & (near <= _NEAR_MM)).any():
        return inner
    # Sure is what lies further than a hair's length from the ground; an area all near it has only its deepest.
    sure = read & (near > _NEAR_MM)
    core = lab[sure] if sure.sum() >= _LEFT * len(inner) else lab[depth >= _CORE * deepest]
    out = cv2.distanceTransform((~mask).astype(np.uint8), cv2.DIST_L2, 3) / scale
    beside = lab[ground & (out <= _NEAR_MM)]
    asked = near[read] <= _NEAR_MM
    to_core, to_ground = (spatial.cKDTree(_some(x)).query(inner[asked], workers=1)[0] for x in (core, beside))
    keep = np.ones(len(inner), bool)
    keep[asked] = to_core <= _NEARER * to_ground
    return inner[keep] if keep.sum() >= _LEFT * len(inner) else inner


def _some(colours: NDArray[Any]) -> NDArray[Any]:
    return colours[:: max(1, len(colours) // _SAMPLE)]


def _told(own: NDArray[Any]) -> tuple[tuple[float, float, float], ...]:
    """The middle colour of each share of lightness."""
    limits = np.percentile(own[:, 0], [0, *((a + b) / 2 for a, b in pairwise(SHARES)), 100])
    told = []
    for low, high in pairwise(limits):
        between = own[(own[:, 0] >= low) & (own[:, 0] <= high)]
        told.append([float(v) for v in np.median(between if len(between) else own, axis=0)])
    return tuple((t[0], t[1], t[2]) for t in told)
