"""The swatch card: where grey steps and swatches lie on it, and what a photograph of it says of the tubes.

The camera's own curve and white balance are undone by grey steps whose lightness is known; what cannot be undone is refused, with the
reason. Colours a camera mixes up stay as they are: that is the doubt of each reading.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.colour.cielab import lab_from_linear, linear_from_lab
from yarrow_lane.measure.colour.srgb import linear_from_srgb8
from yarrow_lane.measure.plane import Rect
from yarrow_lane.measure.raster import Picture, cut
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.paint.calibration.swatches import Paper, Reading

WIDTH_MM, HEIGHT_MM = 200.0, 140.0
MOST_TUBES = 4
# L* of the steps of a usual grey card, light to dark: our choice; the painter writes those of the own card.
USUAL_STEPS = (95.0, 80.0, 65.0, 50.0, 35.0, 20.0)
PX_PER_MM = 4.0  # a photograph of the card is looked at so: our choice
CAMERA_DOUBT = 1.5  # Lab, of one swatch by a camera whose curve is undone: from simulation
FRAME_MM = 4.0  # printed black, so that the card's corners are seen
_ROUNDS = 4
_MIDDLE = 0.6  # of a patch's sides are looked at
# What is refused: our choices, each met in simulated photographs.
_BURNT, _LEAST_RANGE, _UNEVEN, _OFF_CURVE = 0.985, 45.0, 0.35, 4.0


class CardTrouble(Trouble):
    """A photograph of the card that cannot be read."""


def step_rects(count: int) -> tuple[Rect, ...]:
    """Where the grey steps lie, light to dark, mm."""
    wide = (WIDTH_MM - 24) / count
    return tuple(Rect(12 + n * wide, 12, wide - 4, 22) for n in range(count))


def swatch_rect(tube: int, tint: bool, over: Paper) -> Rect:
    """Where a tube's swatch lies: pure above, tint below, each half over white and half over printed black."""
    left = 12 + tube * 45.0
    top = 98.0 if tint else 48.0
    return Rect(left + (20.0 if over == "black" else 0.0), top, 20.0, 32.0)


def _paper_rects() -> tuple[Rect, ...]:
    """Bare card spread over it, to tell how even the light is."""
    return tuple(Rect(x, y, 8.0, 4.0) for y in (37.5, 84.5) for x in (14.0, 60.0, 96.0, 140.0, 178.0))


@dataclass(frozen=True, eq=False)
class CardRead:
    """What was read: readings by tube (its place on the card), the lightness error of the steps, and how uneven the light was (0..1)."""

    readings: tuple[tuple[Reading, ...], ...]
    step_error: float
    uneven: float


def read_card(flat: Picture, px_per_mm: float, tubes: int, steps: Sequence[float] = USUAL_STEPS) -> CardRead:
    """From a straightened photograph of the card (H, W, 3); raises `CardTrouble`."""
    light = linear_from_srgb8(flat).astype(np.float64)
    measured = np.array([_mean(light, r, px_per_mm) for r in step_rects(len(steps))])
    _check_steps(measured, _codes(flat, px_per_mm, len(steps)))
    paper = np.array([_mean(light, r, px_per_mm)[1] for r in _paper_rects()])
    plane, lights = np.array([0.0, 0.0, 1.0]), _true_light(steps)
    for _ in range(_ROUNDS):
        # The camera bends what falls on it, shade and all: curve and shade are found in turn.
        fallen = lights * [_shade(plane, r) for r in step_rects(len(steps))]
        curves = [_curve(measured[:, n], fallen) for n in range(3)]
        plane = _plane([curves[1](float(v)) for v in paper])
    uneven = _spread(plane)
    if uneven > _UNEVEN:
        raise CardTrouble(
            "The photograph of the card was not read", f"one side has {100 * uneven:.0f} % more light than the other",
            "turn the card to the window, or light it from both sides",
        )  # fmt: skip
    error = max(_left_out(measured[:, n], fallen) for n in range(3))
    if error > _OFF_CURVE:
        raise CardTrouble(
            "The photograph of the card was not read", f"its grey steps lie {error:.0f} of lightness off any even curve",
            "light it evenly from both sides, without shadows or gloss",
        )  # fmt: skip
    found = []
    for tube in range(tubes):
        rows = []
        for tint in (False, True):
            for over in ("white", "black"):
                rect = swatch_rect(tube, tint, over)
                seen = _mean(light, rect, px_per_mm)
                true = np.array([curve(float(v)) for curve, v in zip(curves, seen, strict=True)]) / _shade(plane, rect)
                lightness, a, b = (float(v) for v in lab_from_linear(np.maximum(true, 1e-5)))
                rows.append(Reading(tint, over, (lightness, a, b), CAMERA_DOUBT + 4 * uneven))
        found.append(tuple(rows))
    return CardRead(tuple(found), error, uneven)


def _inner(rect: Rect, px_per_mm: float) -> Rect:
    w, h = rect.width * _MIDDLE, rect.height * _MIDDLE
    x, y = rect.centre
    return Rect((x - w / 2) * px_per_mm, (y - h / 2) * px_per_mm, w * px_per_mm, h * px_per_mm)


def _mean(light: NDArray[np.float64], rect: Rect, px_per_mm: float) -> NDArray[np.float64]:
    """The middle of a patch: its median in each channel, which glare does not move."""
    patch = cut(light, _inner(rect, px_per_mm)).reshape(-1, 3)  # type: ignore[arg-type]
    return np.asarray(np.median(patch, axis=0), np.float64)


def _codes(flat: Picture, px_per_mm: float, count: int) -> NDArray[np.float64]:
    return np.array([cut(flat, _inner(r, px_per_mm)).reshape(-1, 3).mean(axis=0) for r in step_rects(count)])


def _check_steps(measured: NDArray[np.float64], codes: NDArray[np.float64]) -> None:
    words = "The photograph of the card was not read"
    green = codes[:, 1]
    if green.max() - green.min() < _LEAST_RANGE:
        raise CardTrouble(
            words, "no grey steps are seen in it", "lay a grey card with steps on its place and photograph it again"
        )
    if (measured[0] > _BURNT).any():
        raise CardTrouble(words, "the lightest grey step is burnt out", "photograph it darker")
    if (np.diff(green) > -2).any():
        raise CardTrouble(
            words, "its grey steps do not fall from light to dark", "turn the card, or keep shadow and gloss off it"
        )


def _across(rect: Rect) -> tuple[float, float, float]:
    """Where its middle lies, from -0.5 to 0.5 each way, and one."""
    return rect.centre[0] / WIDTH_MM - 0.5, rect.centre[1] / HEIGHT_MM - 0.5, 1.0


def _plane(level: Sequence[float]) -> NDArray[np.float64]:
    """How light falls off over the card, through bare places: 1 in the mean of them."""
    at = np.array([_across(r) for r in _paper_rects()])
    return np.asarray(np.linalg.lstsq(at, np.array(level) / np.mean(level), rcond=None)[0])


def _shade(plane: NDArray[np.float64], rect: Rect) -> float:
    return float(np.dot(_across(rect), plane))


def _spread(plane: NDArray[np.float64]) -> float:
    """How much more light the brightest bare place has than the darkest."""
    found = [_shade(plane, r) for r in _paper_rects()]
    return max(found) - min(found)


def _true_light(steps: Sequence[float]) -> NDArray[np.float64]:
    return linear_from_lab(np.array([[s, 0.0, 0.0] for s in steps]))[:, 1]


def _curve(measured: NDArray[np.float64], lights: NDArray[np.float64]) -> Callable[[float], float]:
    """From measured light of one channel to the light that fell on it: through the steps in logarithms, straight on beyond them."""
    x, y = np.log(np.maximum(measured[::-1], 1e-5)), np.log(lights[::-1])

    def true(value: float) -> float:
        v = np.log(max(value, 1e-5))
        if v <= x[0]:
            return float(np.exp(y[0] + (v - x[0]) * (y[1] - y[0]) / (x[1] - x[0])))
        if v >= x[-1]:
            return float(np.exp(y[-1] + (v - x[-1]) * (y[-1] - y[-2]) / (x[-1] - x[-2])))
        return float(np.exp(np.interp(v, x, y)))

    return true


def _left_out(measured: NDArray[np.float64], lights: NDArray[np.float64]) -> float:
    """L* by which an inner step lies off the curve through the others: the median of them."""
    errors = []
    for n in range(1, len(lights) - 1):
        rest = [m for m in range(len(lights)) if m != n]
        found = np.array([_curve(measured[rest], lights[rest])(float(measured[n])), lights[n]])
        curve_says, step_says = lab_from_linear(np.repeat(found[:, None], 3, axis=1))[:, 0]
        errors.append(abs(float(curve_says - step_says)))
    return float(np.median(errors))
