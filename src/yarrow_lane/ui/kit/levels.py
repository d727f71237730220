"""A picture as a stack of halved levels, so that drawing it small is quick."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import TYPE_CHECKING

import numpy as np
from PySide6.QtGui import QImage

from yarrow_lane.measure.colour.grey import grey
from yarrow_lane.measure.kept import kept
from yarrow_lane.measure.late import late
from yarrow_lane.measure.raster import Picture, halvings

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

SMALLEST_PX = 256  # our choice: below it drawing is quick anyway


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


def see_through(picture: Picture, alpha: Picture) -> QImage:
    """An sRGB array (H, W, 3), not multiplied, and how much of it covers (H, W) 0..255, as a QImage."""
    height, width = alpha.shape
    image = QImage(width, height, QImage.Format.Format_ARGB32)
    rows = np.frombuffer(image.bits(), np.uint8).reshape(height, image.bytesPerLine())
    pixels = rows[:, : width * 4].reshape(height, width, 4)
    pixels[..., :3] = picture[..., ::-1]
    pixels[..., 3] = alpha
    return image


def array_of(image: QImage) -> Picture:
    """The image's codes, (H, W, 3) sRGB."""
    plain = image.convertToFormat(QImage.Format.Format_RGB888)
    rows = np.frombuffer(plain.constBits(), np.uint8).reshape(plain.height(), plain.bytesPerLine())
    return rows[:, : plain.width() * 3].reshape(plain.height(), plain.width(), 3).copy()


@dataclass(frozen=True)
class Levels:
    """`images[0]` is the finest; each next one is half as large. `greys` are the same in their lightness, where made."""

    images: tuple[QImage, ...]
    greys: tuple[QImage, ...] = field(default=())

    @property
    def bytes(self) -> int:
        return sum(i.sizeInBytes() for i in (*self.images, *self.greys))

    def for_width(self, wanted_px: float, in_grey: bool = False) -> QImage:
        """The smallest level that is still at least so wide."""
        images = self.greys if in_grey and self.greys else self.images
        return next((i for i in reversed(images) if i.width() >= wanted_px), images[0])


def levels_of(pictures: Sequence[Picture], with_greys: bool = False) -> Levels:
    """Levels from halvings made before; `with_greys` for pictures that are looked at in greys too."""
    greys = tuple(qimage(grey(p)) for p in pictures) if with_greys else ()
    return Levels(tuple(qimage(p) for p in pictures), greys)


@kept(4)  # shown again at every refresh
def single_level(picture: Picture) -> Levels:
    """For a picture not much larger than it is shown."""
    return Levels((qimage(picture),))


def make_levels(picture: Picture, with_greys: bool = False) -> Levels:
    """Halve in linear light until the longer side is small. Greys (H, W) are taken as they are."""
    colour = picture if picture.ndim == 3 else np.repeat(picture[..., None], 3, axis=2)
    return levels_of(halvings(colour, SMALLEST_PX), with_greys)


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
