"""The reference as small as values and colours are looked at: once for every question about them."""

from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.colour.cielab import lab_from_linear
from yarrow_lane.measure.colour.srgb import linear_from_srgb8, srgb8_from_linear
from yarrow_lane.measure.late import late
from yarrow_lane.measure.raster import Picture

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

WORKING_PX = 480  # the longer side: our choice, finer shapes are not painted


@dataclass(frozen=True, eq=False)
class Colours:
    """One picture of the whole canvas as sRGB and as Lab, (H, W, 3) each."""

    small: Picture
    lab: NDArray[np.float32]
    px_per_mm: float

    @property
    def lightness(self) -> NDArray[np.float32]:
        """L*, (H, W)."""
        return np.ascontiguousarray(self.lab[..., 0])

    @property
    def shape(self) -> tuple[int, int]:
        """(H, W)."""
        height, width = self.lab.shape[:2]
        return height, width

    @property
    def bytes(self) -> int:
        return int(self.lab.nbytes + self.small.nbytes)


def colours_of(picture: Picture, px_per_mm: float) -> Colours:
    """Of a reference (H, W, 3) sRGB of the whole canvas: its light is averaged as light; never enlarged."""
    height, width = picture.shape[:2]
    scale = min(1.0, WORKING_PX / max(width, height))
    size = max(1, round(width * scale)), max(1, round(height * scale))
    light = np.asarray(cv2.resize(linear_from_srgb8(picture), size, interpolation=cv2.INTER_AREA), np.float32)
    return Colours(srgb8_from_linear(light), lab_from_linear(light).astype(np.float32), px_per_mm * size[0] / width)
