"""Colours on the bench in the painter's terms: value and warmth, and as the screen names them."""

from collections.abc import Callable

from yarrow_lane.compose.ground import Lab
from yarrow_lane.measure.colour.munsell_value import lightness_of, value_of
from yarrow_lane.measure.colour.warm import WARM, warm_and_pink
from yarrow_lane.ui.bench_sheet import Amount, Meaning


def value_line(label: str, colour: Lab, to: Callable[[Lab], Meaning]) -> Amount:
    """Its value, 0 to 10; hue and chroma stay."""
    shown = round(value_of(colour[0]), 1)
    return Amount(label, shown, 0, 10, lambda v: to((round(lightness_of(v), 2), colour[1], colour[2])), 0.1, 1)


def warmth_line(label: str, colour: Lab, to: Callable[[Lab], Meaning]) -> Amount:
    """How warm it is, cool below 0; what it is across that, pink or green, is given up."""

    def warmed(warm: float) -> Meaning:
        return to((colour[0], round(warm * WARM[0], 2), round(warm * WARM[1], 2)))

    return Amount(label, round(warm_and_pink(colour[1], colour[2])[0], 1), -40, 40, warmed, 1, 1)
