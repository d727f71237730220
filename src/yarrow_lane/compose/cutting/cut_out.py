"""A sitter cut out of the photograph, and with how much care."""

from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.plane import Rect

Care = Literal["quick", "careful"]


@dataclass(frozen=True)
class CutOut:
    """`rgba` (H, W, 4) sRGB codes, not multiplied, and alpha 0..255; it shows `box` of the photograph (its px) at `scale`."""

    rgba: NDArray[np.uint8]
    box: Rect
    scale: float
