"""Absorption and scattering of the generic entries, as they were built (scripts/make_paint_tables.py)."""

import csv
from functools import cache
from pathlib import Path

import numpy as np

from yarrow_lane.measure.tables import rows_of
from yarrow_lane.paint.bands import BANDS
from yarrow_lane.paint.kubelka_munk import Spectra

TABLE = Path(__file__).with_name("curves.csv")


@cache
def curves() -> dict[str, tuple[Spectra, Spectra]]:
    """K and S by key, 36 values each."""
    found = {row[0]: np.array([float(v) for v in row[1:]]) for row in csv.reader(rows_of(TABLE))}
    return {key: (values[:BANDS], values[BANDS:]) for key, values in found.items()}
