"""The three-value study: dark, middle, light after a squint."""

from dataclasses import dataclass, replace
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.lane.part import Part
from yarrow_lane.measure.colour.cielab import lightness_from_srgb8
from yarrow_lane.measure.colour.munsell_value import value_of
from yarrow_lane.measure.late import late
from yarrow_lane.measure.raster import Picture
from yarrow_lane.measure.trouble import Trouble

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

# L* limits as a start: our choice (handbook table of numbers).
DARK_BELOW = 35.0
LIGHT_ABOVE = 65.0
USUAL_SQUINT_MM = 3.0  # our choice: a blur of about one small brush


class ToneTrouble(Trouble):
    """Limits that leave no middle."""


@dataclass(frozen=True)
class Tone:
    """Limits in L*, squint as the blur's standard deviation in canvas mm, and the ground."""

    dark_below: float = DARK_BELOW
    light_above: float = LIGHT_ABOVE
    squint_mm: float = USUAL_SQUINT_MM
    ground: str = ""
    ground_coats: int = 0


TONE = Part("tone", Tone, "Tone")

GROUNDS: dict[str, tuple[int, int, int]] = {
    # Paint of the wash on screen, sRGB: our choice of a fair likeness, not measured.
    "white": (244, 243, 238),
    "burnt sienna wash": (196, 138, 104),
    "raw umber wash": (158, 140, 118),
    "ochre and gesso": (212, 184, 134),
    "middle grey": (140, 140, 140),
    "dark umber": (74, 66, 58),
}


def set_limits(tone: Tone, dark_below: float, light_above: float) -> Tone:
    """Move the limits; raises `ToneTrouble` unless 1 <= dark < light <= 99."""
    if not 1 <= dark_below < light_above <= 99:
        raise ToneTrouble(
            "The limits were not moved",
            f"dark below {value_of(dark_below):.1f} and light above {value_of(light_above):.1f} leave no middle",
        )
    return replace(tone, dark_below=float(dark_below), light_above=float(light_above))


def three_values(crop: Picture, px_per_mm: float, tone: Tone) -> tuple[NDArray[np.uint8], tuple[float, float, float]]:
    """Which pixels are dark (0), middle (1), light (2), and the share of each.

    `crop` is (H, W, 3) sRGB at `px_per_mm`; the classes are (H, W) uint8. The squint
    blurs lightness by a Gaussian of `tone.squint_mm`.
    """
    lightness = lightness_from_srgb8(crop)
    if tone.squint_mm > 0:
        lightness = np.asarray(cv2.GaussianBlur(lightness, (0, 0), max(0.1, tone.squint_mm * px_per_mm)))
    classes = np.digitize(lightness, [tone.dark_below, tone.light_above]).astype(np.uint8)
    shares = np.bincount(classes.ravel(), minlength=3) / classes.size
    return classes, (float(shares[0]), float(shares[1]), float(shares[2]))


def value_lightness(tone: Tone) -> tuple[float, float, float]:
    """The L* each value is shown with: the middle of its span."""
    return tone.dark_below / 2, (tone.dark_below + tone.light_above) / 2, (tone.light_above + 100) / 2
