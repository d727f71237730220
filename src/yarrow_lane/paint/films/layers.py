"""Coats over what is there; internal reflectances are carried from layer to layer, the surface comes in once at the top."""

from typing import Literal

import numpy as np

from yarrow_lane.measure.colour.cielab import XYZ_FROM_LINEAR, linear_from_lab
from yarrow_lane.measure.colour.difference import difference
from yarrow_lane.paint.bands import BANDS, WAVELENGTHS, weights, white
from yarrow_lane.paint.kubelka_munk import COAT, SEEN, Spectra, effective, film, from_inside, from_outside, thick
from yarrow_lane.paint.seen import Lab, lab_of

Covers = Literal["in one coat", "in two coats", "in three coats", "not in three coats"]
_SEEN_THROUGH = 1.5  # CIEDE2000 at which a ground still shows: our choice


def coated(absorbing: Spectra, scattering: Spectra, under: Spectra, coats: float = 1.0) -> Spectra:
    """Internal reflectance after `coats` normal brush coats."""
    return film(absorbing, scattering, effective(COAT * coats, WAVELENGTHS), under)


def covers(absorbing: Spectra, scattering: Spectra, under: Spectra) -> Covers:
    """How many coats hide that ground: until the eye no longer tells the film from the paint itself."""
    own = lab_of(from_outside(thick(absorbing, scattering)))
    for coats, words in ((1, "in one coat"), (2, "in two coats"), (3, "in three coats")):
        seen = lab_of(from_outside(coated(absorbing, scattering, under, coats)))
        if float(difference(seen, own)) < _SEEN_THROUGH:
            return words  # type: ignore[return-value]
    return "not in three coats"


def spectrum_like(lab: Lab, gloss: float = SEEN) -> Spectra:
    """A smooth internal reflectance seen as that Lab: for a ground or a place known only by its colour. One of many: a guess.

    The smoothest logarithm of a reflectance whose XYZ is right, by Gauss and Newton from a flat one.
    """
    wanted = (linear_from_lab(np.array(lab)) @ XYZ_FROM_LINEAR.T) * white() / XYZ_FROM_LINEAR.sum(axis=1)
    bend = np.diff(np.eye(BANDS), 2, axis=0)
    smooth = bend.T @ bend + 1e-6 * np.eye(BANDS)
    logs = np.full(BANDS, np.log(max(float(wanted[1]), 1e-3)))
    w = weights()
    for _ in range(20):
        seen = np.exp(logs)
        slope = (seen[:, None] * w).T
        rest = wanted - seen @ w
        system = np.block([[smooth, slope.T], [slope, np.zeros((3, 3))]])
        step = np.linalg.solve(system, np.concatenate([-smooth @ logs, rest]))[:BANDS]
        logs = logs + np.clip(step, -1.5, 1.5)
        if np.abs(rest).max() < 1e-9:
            break
    return from_inside(np.clip(np.exp(logs), 1e-4, 0.999), gloss)
