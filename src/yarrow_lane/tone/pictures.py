"""Pictures that are shown of the values: the study, the squint, the canvas begun, warm and cool."""

from collections.abc import Sequence
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.colour.grey import grey_code
from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Circle
from yarrow_lane.measure.raster import Picture, resized
from yarrow_lane.paint.seen import Srgb
from yarrow_lane.tone.colours import WORKING_PX, Colours
from yarrow_lane.tone.record import Tone
from yarrow_lane.tone.study import Squinted, Study, study

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

_FINER = 3  # the study is shown at three times its px, so that its shapes have clean edges
_ACCENTS_OF = 5  # values of which the darkest and lightest are the accents a canvas is begun with: our choice
_TINT = 22.0  # Lab units of warmth that are shown in full colour: our choice
_WARM, _COOL = np.array([222, 120, 40], np.float32), np.array([40, 110, 222], np.float32)  # sRGB of the map: our choice


def study_picture(study: Study) -> Picture:
    """The study in its greys, (3H, 3W), each value painted over the darker ones with a clean edge."""
    greys = grey_code(np.array(study.shown))
    height, width = study.classes.shape
    size = (width * _FINER, height * _FINER)
    picture = np.full(size[::-1], greys[0], np.uint8)
    for value in range(1, len(greys)):
        mask = cv2.resize((study.classes >= value).astype(np.float32), size, interpolation=cv2.INTER_LINEAR)
        picture[cv2.GaussianBlur(mask, (0, 0), _FINER) > 0.5] = greys[value]
    return picture


def quick_study_picture(squint: Squinted, limits: tuple[float, ...]) -> Picture:
    """While a limit is dragged: the values without cleaning, (H, W)."""
    ends = np.array([0.0, *limits, 100.0])
    return np.asarray(grey_code((ends[:-1] + ends[1:]) / 2)[np.digitize(squint.soft, limits)], np.uint8)


def squint_picture(picture: Picture, px_per_mm: float, squint_mm: float) -> Picture:
    """What half-shut eyes see: all of it soft, in its colours."""
    small = resized(picture, 2 * WORKING_PX)
    scale = px_per_mm * small.shape[1] / picture.shape[1]
    return np.asarray(cv2.GaussianBlur(small, (0, 0), max(0.3, squint_mm * scale)), np.uint8)


def begun_on(colours: Colours, squint: Squinted, ground: Srgb, care: Sequence[Circle] = ()) -> Picture:
    """The canvas begun: the ground with the darkest and the lightest of five values as they will look, (H, W, 3)."""
    classes = study(squint, Tone(count=_ACCENTS_OF), care).classes
    accents = ((classes == 0) | (classes == _ACCENTS_OF - 1)).astype(np.float32)
    soft = cv2.GaussianBlur(accents, (0, 0), 0.8)[..., None]
    return np.asarray(np.round(colours.small * soft + np.array(ground, np.float32) * (1 - soft)), np.uint8)


def warmth_picture(colours: Colours, field: NDArray[np.float32]) -> Picture:
    """The picture in greys, washed orange where it is warmer and blue where it is cooler than its middle."""
    grey = np.repeat(grey_code(colours.lightness)[..., None], 3, axis=2).astype(np.float32)
    amount = np.clip(np.abs(field) / _TINT, 0, 0.85)[..., None]
    tint = np.where(field[..., None] > 0, _WARM, _COOL)
    return np.asarray(np.clip(grey * (1 - amount) + tint * amount, 0, 255), np.uint8)
