"""The palette under the client's lamp."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from yarrow_lane.paint.bands import LIGHTS, Light
from yarrow_lane.paint.paints import Parts
from yarrow_lane.paint.seen import Lab, triple
from yarrow_lane.paint.under_lights import parted, seen_under
from yarrow_lane.palette.mixer import Mixer
from yarrow_lane.palette.recipe import Recipe, eighths_of

_BREAKS = 1.5  # CIEDE2000 by which two wells come nearer or part before it is said: our choice
_NEIGHBOURS = 12.0  # wells further apart by day are no match that could break: our choice


@dataclass(frozen=True)
class Broken:
    """Two wells, by place, and how far apart they are by day and there."""

    one: int
    other: int
    by_day: float
    there: float


def _rows(mixer: Mixer, recipes: Sequence[Recipe]) -> Parts:
    return np.array([eighths_of(mixer.paints, r) for r in recipes])


def looks_under(mixer: Mixer, recipes: Sequence[Recipe], light: Light) -> tuple[Lab, ...]:
    """Each mix under that light, for eyes used to it."""
    return tuple(triple(lab) for lab in seen_under(mixer.paints, _rows(mixer, recipes), light))


def broken_under(mixer: Mixer, recipes: Sequence[Recipe], light: Light) -> tuple[Broken, ...]:
    """Wells whose distance is another under that light, most first."""
    rows, found = _rows(mixer, recipes), []
    for one in range(len(rows)):
        for other in range(one + 1, len(rows)):
            by_day, there = parted(mixer.paints, rows[one], rows[other], light)
            if by_day <= _NEIGHBOURS and abs(there - by_day) >= _BREAKS:
                found.append(Broken(one, other, by_day, there))
    return tuple(sorted(found, key=lambda b: -abs(b.there - b.by_day)))


@dataclass(frozen=True)
class Look:
    """The mixes under one light, and the pairs that part or meet there."""

    light: Light
    labs: tuple[Lab, ...]
    broken: tuple[Broken, ...]


def looks_in_rooms(mixer: Mixer, recipes: Sequence[Recipe]) -> tuple[Look, ...]:
    """Daylight first, then every other light."""
    return tuple(Look(light, looks_under(mixer, recipes, light), broken_under(mixer, recipes, light)) for light in LIGHTS)
