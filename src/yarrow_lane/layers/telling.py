"""What a painter would say of a pass, in at most three lines, and what usually goes wrong with it."""

import csv
from dataclasses import dataclass
from functools import cache
from pathlib import Path

from yarrow_lane.layers.grammar import fits
from yarrow_lane.layers.passes import Pass
from yarrow_lane.measure.tables import rows_of

_DATA = Path(__file__).parent / "data"


@dataclass(frozen=True)
class Remedy:
    """What is seen when it goes wrong, the usual cause, and what helps."""

    seen: str
    cause: str
    helps: str


@cache
def _sayings() -> tuple[dict[str, str], ...]:
    return tuple(csv.DictReader(rows_of(_DATA / "sayings.csv")))


@cache
def _remedies() -> tuple[dict[str, str], ...]:
    return tuple(csv.DictReader(rows_of(_DATA / "remedies.csv")))


def sayings(p: Pass) -> tuple[str, ...]:
    """At most three lines: what it does, how, and how it should look; the first row of the table that fits."""
    row = next((r for r in _sayings() if fits(r["when"], p.attributes)), None)
    return tuple(row[name] for name in ("does", "how", "looks") if row[name]) if row is not None else ()


def remedies(p: Pass) -> tuple[Remedy, ...]:
    """What usually goes wrong with such a pass, the most particular first; asked for one at a time."""
    return tuple(Remedy(r["seen"], r["cause"], r["helps"]) for r in _remedies() if fits(r["when"], p.attributes))
