"""What is on record of the values and the ground."""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from datetime import datetime
from itertools import pairwise

from yarrow_lane.lane.part import Part, Plain
from yarrow_lane.measure.colour.munsell_value import value_of
from yarrow_lane.measure.trouble import Trouble

FEWEST, MOST = 2, 9  # values: our choice
USUAL_SQUINT_MM = 3.0  # our choice: a blur of about one small brush
NEAREST = 1.0  # L* between two limits: our choice


class ToneTrouble(Trouble):
    """Limits that leave no value between them."""


@dataclass(frozen=True)
class Tone:
    """The study: how many values, limits in L* from dark to light (none: the picture's own), squint as the blur's standard deviation in
    canvas mm, and the smallest shape worth painting (0: the usual one for the canvas). The ground as laid: its name, coats of gesso
    beneath, when, and whether its lights are wiped out.
    """

    count: int = 3
    limits: tuple[float, ...] = ()
    squint_mm: float = USUAL_SQUINT_MM
    smallest_mm2: float = 0.0
    ground: str = ""
    ground_coats: int = 0
    laid_at: datetime | None = None
    wipe_out: bool = False
    retarder: bool = True


def _from_three_values(plain: Plain, _: Mapping[str, Plain]) -> Plain:
    """Before version 1 there were always three values, and their limits stood at 35 and 65 until they were moved."""
    dark, light = plain.get("dark_below", 35.0), plain.get("light_above", 65.0)
    rest = {k: v for k, v in plain.items() if k not in ("dark_below", "light_above")}
    return {**rest, "limits": [] if (dark, light) == (35.0, 65.0) else [dark, light]}


TONE = Part("tone", Tone, "Tone", (_from_three_values,))


def set_count(tone: Tone, count: int) -> Tone:
    """Another number of values; its limits begin as the picture's own."""
    if not FEWEST <= count <= MOST:
        raise ToneTrouble("The study was not changed", f"{count} values are not between {FEWEST} and {MOST}")
    return tone if count == tone.count else replace(tone, count=count, limits=())


def set_limits(tone: Tone, limits: tuple[float, ...]) -> Tone:
    """Move the limits, L* from dark to light; raises `ToneTrouble` unless each leaves a value between it and the next."""
    ends = (0.0, *limits, 100.0)
    if len(limits) != tone.count - 1 or any(b - a < NEAREST for a, b in pairwise(ends)):
        said = ", ".join(f"{value_of(limit):.1f}" for limit in limits)
        raise ToneTrouble("The limits were not moved", f"limits at {said} leave no value between them")
    return replace(tone, limits=tuple(round(float(v), 2) for v in limits))


def lay_ground(tone: Tone, ground: str, at: datetime | None) -> Tone:
    """The ground is on the canvas."""
    return replace(tone, ground=ground, laid_at=at if ground else None)
