"""Stock sizes of canvases and panels; sources in data/formats.csv."""

import csv
from dataclasses import dataclass
from functools import cache
from importlib import resources
from typing import Literal

Series = Literal["metric", "inch", "iso", "classic"]
SERIES: tuple[Series, ...] = ("metric", "inch", "iso", "classic")
SERIES_WORDS: dict[Series, str] = {"metric": "cm", "inch": "inches", "iso": "A sizes", "classic": "classic"}


@dataclass(frozen=True)
class Format:
    """A stock size; `short_mm` by `long_mm`, upright or lying as the painter turns it."""

    series: Series
    name: str
    short_mm: float
    long_mm: float


@cache
def stock_formats() -> tuple[Format, ...]:
    """Every stock size, in the order of the table."""
    text = resources.files("yarrow_lane.compose").joinpath("data/formats.csv").read_text("utf-8")
    rows = csv.DictReader(line for line in text.splitlines() if not line.startswith("#"))
    return tuple(
        Format(row["series"], row["name"], float(row["short_mm"]), float(row["long_mm"]))  # type: ignore[arg-type]
        for row in rows
    )


def formats_of(series: Series) -> tuple[Format, ...]:
    """The stock sizes of one series."""
    return tuple(f for f in stock_formats() if f.series == series)
