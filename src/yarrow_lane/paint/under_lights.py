"""The same paint in other rooms: how far a mix moves away from its neighbours under the client's lamp."""

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.colour.adaptation import adapted
from yarrow_lane.measure.colour.difference import difference
from yarrow_lane.paint.bands import LIGHTS, Light, weights, white
from yarrow_lane.paint.kubelka_munk import from_outside, thick
from yarrow_lane.paint.paints import Paints, Parts
from yarrow_lane.paint.seen import lab_from_xyz

ROOMS: tuple[Light, ...] = tuple(light for light in LIGHTS if light != "daylight")


def seen_under(paints: Paints, parts: Parts, light: Light) -> NDArray[np.float64]:
    """Lab of mixes (m, n) under a light the eye has grown used to: adapted to daylight by Bradford."""
    xyz = from_outside(thick(*paints.mixed(parts))) @ weights(light)
    return lab_from_xyz(adapted(xyz, white(light), white()), white())


def moved(paints: Paints, parts: Parts) -> float:
    """How far one mix moves at most between daylight and the rooms, CIEDE2000."""
    by_day = paints.lab(parts)
    return max(float(difference(seen_under(paints, parts, light), by_day)) for light in ROOMS)


def parted(paints: Paints, one: Parts, other: Parts, light: Light) -> tuple[float, float]:
    """How different two mixes are by day and under that light."""
    by_day = float(difference(paints.lab(one), paints.lab(other)))
    return by_day, float(difference(seen_under(paints, one, light), seen_under(paints, other, light)))
