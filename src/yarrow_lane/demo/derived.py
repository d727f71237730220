"""Pictures derived from the rendered sitters: a small message copy, a tilted snapshot, a photograph of the painting."""

import io
from typing import TYPE_CHECKING

import numpy as np
from PIL import Image

from yarrow_lane.intake.opening import open_picture
from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Rect
from yarrow_lane.measure.raster import Picture, cut, resample

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")


def _jpeg(picture: Picture, quality: int = 90, orientation: int = 1) -> bytes:
    out = io.BytesIO()
    exif = Image.Exif()
    exif[0x0112] = orientation
    Image.fromarray(picture).save(out, "JPEG", quality=quality, exif=exif)
    return out.getvalue()


def message_copy(jpeg: bytes, width_px: int) -> bytes:
    """What is left of a photograph after a messenger shrank it."""
    picture = open_picture(jpeg, "sitter").picture
    height = round(picture.shape[0] * width_px / picture.shape[1])
    return _jpeg(resample(picture, width_px, height), quality=60)


def sideways_copy(jpeg: bytes) -> bytes:
    """The same picture stored lying on its side, with the EXIF orientation that sets it up."""
    picture = open_picture(jpeg, "sitter").picture
    return _jpeg(np.ascontiguousarray(np.rot90(picture, 1)), orientation=6)


def part_of(jpeg: bytes, x: float, y: float, width: float, height: float) -> bytes:
    """A closer shot: a part of the picture, given in shares of its sides."""
    picture = open_picture(jpeg, "sitter").picture
    h, w = picture.shape[:2]
    return _jpeg(np.ascontiguousarray(cut(picture, Rect(x * w, y * h, width * w, height * h))))
