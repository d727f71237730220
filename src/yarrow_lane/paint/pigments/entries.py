"""The generic entries: what is remembered of each pigment. Nothing here was measured.

Masstone and tint are Lab (D65, 2 degrees, gloss taken in) of an opaque film of typical artists' acrylic, from memory, 3 to 6 of difference
off each. The tint is remembered as 1 part to 10 of titanium white; how strong it really was is solved when the curves are built.
Lightfastness, staining and metals are from memory: the tube's label and safety data sheet decide.
"""

import csv
from dataclasses import dataclass
from functools import cache
from pathlib import Path
from typing import Literal

from yarrow_lane.measure.tables import rows_of
from yarrow_lane.paint.seen import Lab

Opacity = Literal["opaque", "half opaque", "transparent"]
WHITES = ("PW6", "PW6:1")
_HERE = Path(__file__).parent


@dataclass(frozen=True)
class Entry:
    """One pigment; `key` is its identity, since one index name covers several earths.

    `scattering` is relative to titanium white, by opacity class; `absorption` a sum of remembered shapes over the bands: `bump` middle,
    width and height, `edge` place, width and height falling to the red, `level` height; nm.
    """

    key: str
    index: str
    name: str
    opacity: Opacity
    lightfast: str
    staining: bool
    hazard: str
    masstone: Lab
    tint: Lab | None
    scattering: float
    scattering_power: float
    absorption: tuple[tuple[str, tuple[float, ...]], ...]


def _entry(row: dict[str, str]) -> Entry:
    shapes = tuple((s.split()[0], tuple(float(v) for v in s.split()[1:])) for s in row["absorption"].split(";"))
    opacity: Opacity = row["opacity"]  # type: ignore[assignment]
    masstone = float(row["L"]), float(row["a"]), float(row["b"])
    tint = (float(row["tint_L"]), float(row["tint_a"]), float(row["tint_b"])) if row["tint_L"] else None
    return Entry(
        row["key"], row["index"], row["name"], opacity, row["lightfast"], bool(row["staining"]), row["hazard"], masstone, tint,
        float(row["scattering"]), float(row["scattering_power"]), shapes,
    )  # fmt: skip


@cache
def entries() -> dict[str, Entry]:
    """By key."""
    return {row["key"]: _entry(row) for row in csv.DictReader(rows_of(_HERE / "entries.csv"))}
