"""The rule of a coat: what it does to the reference, from `data/coats.csv`."""

import csv
from dataclasses import dataclass
from functools import cache
from pathlib import Path

from yarrow_lane.measure.tables import rows_of
from yarrow_lane.measure.trouble import Trouble

_TABLE = Path(__file__).parents[1] / "data" / "coats.csv"


class PlayTrouble(Trouble):
    """A coat that cannot be foreseen."""


@dataclass(frozen=True)
class Rule:
    """See the table's head; `width` is the brush in mm for one area."""

    film: bool
    role: str
    anchor: str
    tone: float
    chroma: float
    width: float
    length: float
    colours: int
    cover: float
    opacity: float
    sign: str
    mop: float


@cache
def _rows() -> tuple[dict[str, str], ...]:
    return tuple(csv.DictReader(rows_of(_TABLE)))


@cache
def rule_of(family: str, word: str, role: str, nature: str, inner_mm: float) -> Rule:
    """The first row that fits; a transparent coat without a row of films is drawn in strokes.

    `word` is the order of values, `inner_mm` the radius of the largest circle in the area. Raises `PlayTrouble` when no row fits.
    """
    for film in (True, False) if nature == "transparent" else (False,):
        for row in _rows():
            families = row["families"].split()
            of_area = (row["film"] == "yes") is film and (family in families or "*" in families)
            if of_area and row["values"] in ("*", word) and row["role"] == role:
                width = min(max(float(row["w_share"]) * inner_mm, float(row["w_min"])), float(row["w_max"]))
                return Rule(
                    film, role, row["anchor"], float(row["tone"]), float(row["chroma"]), width, float(row["len"]),
                    int(row["colours"]), float(row["cover"]), float(row["op"]), row["sign"], float(row["mop"]),
                )  # fmt: skip
    raise PlayTrouble("This pass is not shown", f"nothing is known of {role} on {family}")
