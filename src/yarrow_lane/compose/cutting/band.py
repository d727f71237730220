"""The band along an outline in which fur, skin or cloth goes over into what was behind: how wide it is, stretch by stretch."""

from collections.abc import Sequence
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.compose.cutting.outline import curve, filled
from yarrow_lane.compose.pieces import COATS, Coat, Ring
from yarrow_lane.measure.late import late

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

Trimap = NDArray[np.uint8]
OUTSIDE, INSIDE, UNKNOWN = 0, 1, 2
# How far inside and outside the line a coat's edge may lie, as shares of the sitter's size. Fur's length belongs to the sitter and
# not to the canvas, so that it does not change when the piece is scaled. Our choice, from made fringes with exact alpha: wider took
# in light spots of the old background, narrower cut hairs off.
EDGE: dict[Coat, tuple[float, float]] = {"fur": (0.006, 0.011), "skin": (0.0025, 0.0025), "cloth": (0.003, 0.003)}
_SAMPLES = 6
_LEAST_PX = 1.5  # a border is never sharper than a photograph's own


def trimap(rings: Sequence[Ring], width: int, height: int, size_px: float, scale: float = 1.0) -> Trimap:
    """(height, width): `OUTSIDE`, `INSIDE` or `UNKNOWN`; the rings' px times `scale`, `size_px` the sitter's size at that scale.

    Along the picture's edge there is no band: there the photograph ends, not the sitter.
    """
    found = filled([r.points for r in rings], width, height, scale)
    lines = {coat: np.ones((height, width), np.uint8) for coat in COATS}
    for ring in rings:
        at = curve(ring.points, _SAMPLES) * scale - 0.5
        for place in range(len(ring.points)):
            span = at[np.arange(place * _SAMPLES, (place + 1) * _SAMPLES + 1) % len(at)]
            if not _along_edge(span, width, height):
                corners = np.round(span * 16).astype(np.int32).reshape(-1, 1, 2)
                cv2.polylines(lines[ring.coat(place)], [corners], False, 0, 1, cv2.LINE_8, 4)
    inside = found > 0
    unknown = np.zeros(inside.shape, bool)
    for coat, line in lines.items():
        if line.all():
            continue
        away = cv2.distanceTransform(line, cv2.DIST_L2, 3)
        within, beyond = (max(_LEAST_PX, share * size_px) for share in EDGE[coat])
        unknown |= np.where(inside, away <= within, away <= beyond)
    found[unknown] = UNKNOWN
    return found


def _along_edge(span: NDArray[np.float64], width: int, height: int, near: float = 2.0) -> bool:
    x, y = span[:, 0], span[:, 1]
    return bool((x <= near).all() or (y <= near).all() or (x >= width - 1 - near).all() or (y >= height - 1 - near).all())
