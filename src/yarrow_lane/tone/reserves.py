"""What the lightest lights and the darkest darks are kept for, and the whites that are greys."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.colour.munsell_value import lightness_of, value_of
from yarrow_lane.measure.late import late
from yarrow_lane.measure.place_words import place_words
from yarrow_lane.measure.plane import Circle, Point

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

STEPS = 0.5  # values from the lightest and the darkest that are held in reserve: our choice
_TOP = 0.1  # per cent of the picture left out as noise: our choice
_LEAST_CM2_SHARE = 2e-5  # of the canvas: smaller specks are no reserve; our choice, 4 mm2 of 40 x 50 cm
_MOST = 5
_GREY_CHROMA, _GREY_FROM = 11.0, 6.0  # chroma below and value above which something is called white: our choice


@dataclass(frozen=True)
class Reserve:
    """A place held in reserve: its middle on the canvas, mm, its area, its value 0..10 and its mean Lab; `outline` mm."""

    at: Point
    cm2: float
    value: float
    lab: tuple[float, float, float]
    near: str
    outline: tuple[Point, ...]


def reserves_of(
    lab: NDArray[np.floating], px_per_mm: float, named: Sequence[tuple[str, Circle]] = ()
) -> tuple[tuple[Reserve, ...], tuple[Reserve, ...]]:
    """Lightest and darkest places of a reference as Lab (H, W, 3), largest first; `named` circles, canvas mm, say what they are near."""
    lightness = lab[..., 0]
    low, high = (float(v) for v in np.percentile(lightness, (_TOP, 100 - _TOP)))
    light_from = lightness_of(max(0.0, value_of(high) - STEPS))
    dark_to = lightness_of(min(10.0, value_of(low) + STEPS))
    return (
        _places(lightness >= light_from, lab, px_per_mm, named),
        _places(lightness <= dark_to, lab, px_per_mm, named),
    )


def _places(
    mask: NDArray[np.bool_], lab: NDArray[np.floating], px_per_mm: float, named: Sequence[tuple[str, Circle]]
) -> tuple[Reserve, ...]:
    count, which, facts, middles = cv2.connectedComponentsWithStats(mask.astype(np.uint8), connectivity=8)
    least = _LEAST_CM2_SHARE * mask.size
    order = sorted(range(1, count), key=lambda n: -facts[n, cv2.CC_STAT_AREA])
    # What lies in an eye is small and matters most: it comes before larger places elsewhere.
    inside = {}
    for n in order:
        if facts[n, cv2.CC_STAT_AREA] >= min(least, 3):
            inside[n] = _name_at(middles[n] / px_per_mm, facts[n, cv2.CC_STAT_AREA] / px_per_mm**2, named)
    ranked = sorted(inside, key=lambda n: (not inside[n], -facts[n, cv2.CC_STAT_AREA]))
    found = []
    for n in [n for n in ranked if inside[n] or facts[n, cv2.CC_STAT_AREA] >= least][:_MOST]:
        here = which == n
        mean = lab[here].mean(axis=0)
        rims, _ = cv2.findContours(here.astype(np.uint8), cv2.RETR_EXTERNAL, cv2.CHAIN_APPROX_SIMPLE)
        rim = max(rims, key=len)[:, 0]
        outline = tuple((round((float(x) + 0.5) / px_per_mm, 1), round((float(y) + 0.5) / px_per_mm, 1)) for x, y in rim)
        x, y = middles[n] / px_per_mm
        height, width = mask.shape
        near = inside[n] or place_words((float(x), float(y)), width / px_per_mm, height / px_per_mm)
        lightness, a, b = (float(v) for v in mean)
        cm2 = float(facts[n, cv2.CC_STAT_AREA]) / px_per_mm**2 / 100
        found.append(Reserve((float(x), float(y)), cm2, value_of(lightness), (lightness, a, b), near, outline))
    return tuple(found)


def _name_at(at: NDArray[np.float64], mm2: float, named: Sequence[tuple[str, Circle]]) -> str:
    """The circle it lies in; a place as large as the circle is not of it."""
    for name, ((x, y), radius) in named:
        if np.hypot(at[0] - x, at[1] - y) <= radius and mm2 < radius**2:
            return name
    return ""


def so_called_whites(
    lab: NDArray[np.floating], px_per_mm: float, named: Sequence[tuple[str, Circle]] = ()
) -> tuple[Reserve, ...]:
    """Light, nearly colourless places that would be painted white by name: eye whites, teeth, white fur; the lightest one is left out.

    They are the greys they are: value and Lab say which.
    """
    chroma = np.hypot(lab[..., 1], lab[..., 2])
    light = (lab[..., 0] >= lightness_of(_GREY_FROM)) & (chroma < _GREY_CHROMA)
    return _places(light, lab, px_per_mm, named)
