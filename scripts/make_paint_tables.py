"""Make the tables of the colour engine anew: weights of light and eye (from CIE data in colour-science), and the pigments' curves.

Run with the test environment: .venv/bin/python scripts/make_paint_tables.py
"""

import csv

import numpy as np

import colour
from yarrow_lane.paint import bands
from yarrow_lane.paint.bands import BANDS, LIGHTS, WAVELENGTHS
from yarrow_lane.paint.pigments import curves
from yarrow_lane.paint.pigments.building import curves_of, white_curves
from yarrow_lane.paint.pigments.entries import entries


def weights_of(name: str) -> np.ndarray:
    """CIE 1931 2 degrees times illuminant at 1 nm, spread over the bands by 4-point Lagrange, held constant outside them."""
    fine = colour.SpectralShape(360, 780, 1)
    eye = colour.MSDS_CMFS["CIE 1931 2 Degree Standard Observer"].copy().align(fine).values
    seen = eye * colour.SDS_ILLUMINANTS[name].copy().align(fine).values[:, None]
    spread = np.zeros((len(seen), BANDS))
    for row, wavelength in enumerate(range(360, 781)):
        x = np.clip((wavelength - 380) / 10.0, 0, BANDS - 1)
        first = int(np.clip(np.floor(x) - 1, 0, BANDS - 4))
        u = x - first
        for m in range(4):
            spread[row, first + m] += np.prod([(u - q) / (m - q) for q in range(4) if q != m])
    return (spread.T @ seen) / seen[:, 1].sum()


def main() -> None:
    with bands.TABLE.open("w", newline="") as file:
        file.write(
            "# X, Y, Z of a perfect white by band: CIE 1931 2 degrees times CIE 15:2018 illuminants, from colour-science's CIE data.\n"
        )
        out = csv.writer(file, lineterminator="\n")
        out.writerow(["light", "nm", "x", "y", "z"])
        for name in LIGHTS.values():
            for nm, row in zip(WAVELENGTHS, weights_of(name), strict=True):
                out.writerow([name, f"{nm:.0f}", *(f"{v:.9e}" for v in row)])
    known = entries()
    white = white_curves(known["PW6"])
    with curves.TABLE.open("w", newline="") as file:
        file.write(
            "# K then S in 36 bands, titanium white's S 1: built by pigments/building.py from entries.csv, not measured.\n"
        )
        out = csv.writer(file, lineterminator="\n")
        for key, entry in known.items():
            k, s = white if key == "PW6" else curves_of(entry, white)[:2]
            out.writerow([key, *(f"{v:.6g}" for v in (*k, *s))])


main()
