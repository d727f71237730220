"""The 36 bands colour is worked out in, and what each gives to the eye under each light."""

import csv
from functools import cache
from pathlib import Path
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.tables import rows_of

Light = Literal["daylight", "north light", "warm lamp", "warm LED", "cool LED"]

WAVELENGTHS = np.arange(380.0, 731.0, 10.0)  # nm
BANDS = len(WAVELENGTHS)
# Which published distribution each light is (CIE 15:2018): D65, D75, A, LED-B1 and LED-B5. That they stand for the rooms they are named
# after is our choice.
LIGHTS: dict[Light, str] = {
    "daylight": "D65", "north light": "D75", "warm lamp": "A", "warm LED": "LED-B1", "cool LED": "LED-B5",
}  # fmt: skip
TABLE = Path(__file__).with_name("weights.csv")  # made by scripts/make_paint_tables.py from CIE 1931 2 degrees, 1 nm


@cache
def weights(light: Light = "daylight") -> NDArray[np.float64]:
    """(36, 3) so that XYZ = reflectance @ weights, with Y = 1 for the perfect white."""
    rows = [row for row in csv.DictReader(rows_of(TABLE)) if row["light"] == LIGHTS[light]]
    return np.array([[float(row[axis]) for axis in ("x", "y", "z")] for row in rows])


@cache
def white(light: Light = "daylight") -> NDArray[np.float64]:
    """XYZ of the perfect white: the sum of the weights, never a tabled white point, which differs by 2e-4."""
    return np.asarray(weights(light).sum(axis=0))
