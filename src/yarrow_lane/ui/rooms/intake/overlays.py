"""What can be laid over a photograph: what is cut off, and where the colour cast is read."""

import numpy as np
from numpy.typing import NDArray
from PySide6.QtGui import QImage

from yarrow_lane.intake.exposure import cast_places, clipped
from yarrow_lane.measure.raster import Picture, resample
from yarrow_lane.ui.kit.levels import tinted

_LONGER_PX = 1600  # our choice: finer than the window shows


def overlay_of(picture: Picture, kind: str) -> QImage:
    """The see-through picture of that kind ("cut" or "cast") for a photograph, (H, W, 3) sRGB."""
    one, other = clipped(picture) if kind == "cut" else cast_places(picture)[:2]
    return tinted(_shrunk(one), _shrunk(other))


def _shrunk(mask: NDArray[np.bool_]) -> Picture:
    """A mask at overlay size: 255 where most of it holds."""
    scale = min(1.0, _LONGER_PX / max(mask.shape))
    return resample(mask.astype(np.uint8) * 255, round(mask.shape[1] * scale), round(mask.shape[0] * scale))
