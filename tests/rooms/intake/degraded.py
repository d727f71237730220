"""Real photographs made worse in known steps: smaller, softer, darker, turned."""

from dataclasses import dataclass

import cv2
import numpy as np
import skimage.data

from yarrow_lane.intake.photos import Eye
from yarrow_lane.measure.raster import Picture, resample

# Irises marked by hand on the pictures that scikit-image ships (cat: S. van der Walt, CC0; astronaut: NASA, public domain).
CAT_EYES = (Eye("left", 171, 116, 32), Eye("right", 318, 137, 24.5))
_ASTRONAUT_TIMES = 3  # her irises are 7 px across: enlarged, as from a camera of our time
ASTRONAUT_EYES = (Eye("left", 204 * 3, 101.5 * 3, 10.2), Eye("right", 246.5 * 3, 103.6 * 3, 10.2))


def sources() -> tuple[tuple[Picture, tuple[Eye, ...]], ...]:
    large = cv2.resize(skimage.data.astronaut(), None, fx=_ASTRONAUT_TIMES, fy=_ASTRONAUT_TIMES, interpolation=cv2.INTER_CUBIC)
    return (skimage.data.cat(), CAT_EYES), (large, ASTRONAUT_EYES)


@dataclass(frozen=True)
class Harm:
    """`scale` and `gain` below 1 are worse, `blur` (in iris radii) above 0 is; `turns` of 90° harm nothing."""

    scale: float = 1.0
    blur: float = 0.0
    gain: float = 1.0
    turns: int = 0

    def plainly_better_than(self, other: "Harm") -> bool:
        """No worse in anything, and better in something: then there is no doubt about the order."""
        mine, theirs = (self.scale, -self.blur, self.gain), (other.scale, -other.blur, other.gain)
        return mine != theirs and all(a >= b for a, b in zip(mine, theirs, strict=True))


def harmed(picture: Picture, eyes: tuple[Eye, ...], harm: Harm) -> tuple[Picture, tuple[Eye, ...]]:
    """The picture after the harm, with its eyes where they now are."""
    sigma = harm.blur * max(e.radius_px for e in eyes)
    soft = cv2.GaussianBlur(picture, (0, 0), sigma) if sigma else picture
    dark = np.clip(soft.astype(np.float32) * harm.gain + 0.5, 0, 255).astype(np.uint8)
    height, width = dark.shape[:2]
    small = resample(dark, round(width * harm.scale), round(height * harm.scale)) if harm.scale < 1 else dark
    found = [(e.side, e.x * harm.scale, e.y * harm.scale, e.radius_px * harm.scale) for e in eyes]
    for _ in range(harm.turns):
        tall = small.shape[0]
        small = np.rot90(small, -1)
        found = [(side, tall - y, x, r) for side, x, y, r in found]
    return np.ascontiguousarray(small), tuple(Eye(*f) for f in found)
