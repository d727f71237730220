"""Lines moved to where they are seen: a border to the crest of its strength, a thin dark line to its middle."""

from typing import TYPE_CHECKING, Any

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.late import late
from yarrow_lane.transfer.lines.chains import means, normals, smoothed
from yarrow_lane.transfer.lines.strength import BASE, Plane, Strength

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

# All our choice, tuned on rendered sitters.
_REACH_MM, _OFFSET_MM = 1.0, 0.25  # a line moves so far to the crest, tried in such steps
_NEAR_MM, _FAR_MM = 0.7, 2.4  # beside a thin light or dark line, and beyond it
_THIN = 0.45  # of the near difference left beyond: it is a line on one surface, not a border of two
_THIN_LEAST = 4.0  # L* of a thin line against its surroundings


def on_their_crest(
    strength: Strength, points: NDArray[np.float64], starts: NDArray[np.int64]
) -> tuple[NDArray[np.float64], NDArray[np.bool_], NDArray[np.bool_]]:
    """Points moved along their normals to the strongest place near by; a thin dark line's flanks to its middle.

    Returns the points, and which arcs run along thin dark and thin light lines.
    """
    across = normals(points, starts)
    lab = cv2.GaussianBlur(strength.lab, (0, 0), 0.35 * BASE)
    offsets = np.arange(-_REACH_MM, _REACH_MM + 1e-9, _OFFSET_MM)
    near_one, near_other = (at_places(lab, points + side * _NEAR_MM * across) for side in (1, -1))
    far_one, far_other = (at_places(lab, points + side * _FAR_MM * across) for side in (1, -1))
    near = means(np.sqrt(((near_one - near_other) ** 2).sum(1)), starts)
    far = means(np.sqrt(((far_one - far_other) ** 2).sum(1)), starts)
    # Along a flank one side is the line itself: it differs from what lies beyond on both sides.
    beyond = (far_one[:, 0] + far_other[:, 0]) / 2
    darker = means(beyond - np.minimum(near_one[:, 0], near_other[:, 0]), starts)
    lighter = means(np.maximum(near_one[:, 0], near_other[:, 0]) - beyond, starts)
    thin = far < _THIN * np.maximum(near, _THIN_LEAST)
    dark = thin & (darker > lighter) & (darker > _THIN_LEAST)
    light = thin & (lighter >= darker) & (lighter > _THIN_LEAST)
    crest = np.stack([at_places(strength.fine, points + o * across) for o in offsets], 1)
    depth = np.stack([-at_places(lab[..., 0], points + o * across) for o in offsets], 1)
    depth -= depth.min(1, keepdims=True)
    wanted = np.where(np.repeat(dark, np.diff(starts))[:, None], depth, crest)
    wanted = wanted - 0.15 * wanted.max(1, keepdims=True) * (offsets / _REACH_MM) ** 2
    highest = wanted.max(1, keepdims=True)
    weights = np.exp((wanted - highest) / (0.1 * highest + 1e-6))
    move = (weights * offsets).sum(1) / weights.sum(1)
    both = smoothed(np.stack([move, move], 1), starts, 3.0)[:, :1]
    return points + both * across, dark, light


def at_places(plane: Plane, points_mm: NDArray[np.float64]) -> NDArray[Any]:
    """The plane's values (N) or (N, C) at places in mm; px middles lie half a px from their corners."""
    places = (points_mm * BASE - 0.5).astype(np.float32)
    rows = 16_384  # OpenCV takes no longer columns than 32767
    parts = [
        cv2.remap(
            plane, part[:, 0].reshape(-1, 1), part[:, 1].reshape(-1, 1), cv2.INTER_LINEAR, borderMode=cv2.BORDER_REPLICATE
        )
        for part in np.array_split(places, max(1, -(-len(places) // rows)))
    ]
    return np.concatenate(parts).reshape(len(places), *plane.shape[2:])
