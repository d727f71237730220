"""A picture as a stack of halved levels, so that drawing it small is quick."""

from dataclasses import dataclass

import cv2
import numpy as np
from PySide6.QtGui import QImage

from yarrow_lane.measure.raster import Picture

_SMALLEST_PX = 256


def qimage(picture: Picture) -> QImage:
    """An sRGB array (H, W, 3) or grey (H, W) as a QImage in the raster engine's own format."""
    if picture.ndim == 2:
        picture = np.repeat(picture[..., None], 3, axis=2)
    height, width = picture.shape[:2]
    image = QImage(width, height, QImage.Format.Format_RGB32)
    rows = np.frombuffer(image.bits(), np.uint8).reshape(height, image.bytesPerLine())
    target = rows[:, : width * 4].reshape(height, width, 4)
    cv2.cvtColor(np.ascontiguousarray(picture), cv2.COLOR_RGB2BGRA, dst=target)
    return image


@dataclass(frozen=True)
class Levels:
    """`images[0]` is the finest; each next one is half as large. `scale` is its px per content unit."""

    images: tuple[QImage, ...]

    @property
    def bytes(self) -> int:
        return sum(i.sizeInBytes() for i in self.images)

    def for_width(self, wanted_px: float) -> QImage:
        """The smallest level that is still at least so wide."""
        return next((i for i in reversed(self.images) if i.width() >= wanted_px), self.images[0])


def make_levels(picture: Picture) -> Levels:
    """Halve by area averaging until the longer side is small."""
    images = [qimage(picture)]
    while max(picture.shape[:2]) > _SMALLEST_PX:
        size = (max(1, picture.shape[1] // 2), max(1, picture.shape[0] // 2))
        picture = np.asarray(cv2.resize(picture, size, interpolation=cv2.INTER_AREA))
        images.append(qimage(picture))
    return Levels(tuple(images))


def tinted(lights: Picture, shadows: Picture) -> QImage:
    """Two masks (H, W) 0..255 as a see-through picture, the first striped red, the second striped blue."""
    height, width = lights.shape
    image = QImage(width, height, QImage.Format.Format_ARGB32)
    pixels = np.frombuffer(image.bits(), np.uint8).reshape(height, width, 4)
    stripes = (np.add.outer(np.arange(height), np.arange(width)) // 4) % 2 == 0
    pixels[:] = 0
    pixels[(lights > 127) & stripes] = (40, 40, 230, 230)  # blue, green, red, opacity
    pixels[(shadows > 127) & stripes] = (240, 150, 40, 230)
    return image
