"""Recipes and the grammar of the sequence, read from data. No school, kind or medium is named in code."""

import csv
import tomllib
from collections.abc import Mapping
from dataclasses import dataclass, replace
from functools import cache
from pathlib import Path
from typing import Any, cast

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.tables import rows_of
from yarrow_lane.paint.drying import Film

_DATA = Path(__file__).parent / "data"
Words = tuple[tuple[str, frozenset[str], bool], ...]


@dataclass(frozen=True)
class Step:
    """One coat of a recipe.

    `share` of the area's hours, `lightness` 0 to 100, `fat` 0 none to 3; `role` is what it does, `nature` how it covers, `paint` what
    it is made of.
    """

    key: str
    name: str
    share: float
    film: Film
    lightness: int
    nature: str
    role: str
    paint: str
    fat: int


@dataclass(frozen=True)
class Recipe:
    """The coats of one kind of area, in the order in which they lie on one another; `word` is the order of values, "*" for any."""

    medium: str
    word: str
    families: frozenset[str]
    when: str
    steps: tuple[Step, ...]


@cache
def grammar() -> dict[str, Any]:
    """`data/schools.toml`."""
    return tomllib.loads((_DATA / "schools.toml").read_text("utf-8"))


@cache
def recipes() -> tuple[Recipe, ...]:
    """`data/recipes.csv`; the first that fits is meant."""
    found: list[Recipe] = []
    last: tuple[str, ...] = ()
    for row in csv.DictReader(rows_of(_DATA / "recipes.csv")):
        head = (row["medium"], row["values"], row["kinds"], row["when"])
        step = Step(
            row["key"], row["name"], float(row["share"]), cast(Film, row["film"]), int(row["v"]), row["nature"], row["role"], row["paint"],
            int(row["fat"]),
        )  # fmt: skip
        if head != last:
            found.append(Recipe(row["medium"], row["values"], frozenset(row["kinds"].split()), row["when"], ()))
            last = head
        found[-1] = replace(found[-1], steps=(*found[-1].steps, step))
    return tuple(found)


@cache
def parsed(selector: str) -> Words:
    """The words of a selector: attribute, values, and whether they are excluded. Values may hold blanks; words part at `=`."""
    parts = selector.split("=")
    words: list[tuple[str, frozenset[str], bool]] = []
    for n in range(len(parts) - 1):
        name = parts[n].rsplit(" ", 1)[-1]
        values = parts[n + 1] if n == len(parts) - 2 else parts[n + 1].rsplit(" ", 1)[0]
        words.append((name.rstrip("!"), frozenset(values.split("|")), name.endswith("!")))
    return tuple(words)


def fitting(selector: str, columns: Mapping[str, NDArray[np.str_]], count: int) -> NDArray[np.bool_]:
    """`fits` for many things at once: `columns` hold an attribute of all of them, (count,)."""
    found = np.ones(count, bool)
    if not count:
        return found
    for name, values, excluded in parsed(selector):
        one = np.zeros(count, bool)
        for value in values:
            one |= columns[name] == value
        found &= one != excluded
    return found


def fits(selector: str, thing: Mapping[str, str]) -> bool:
    """Whether all words of the selector hold for the thing's attributes."""
    return all((thing.get(name, "") in values) != excluded for name, values, excluded in parsed(selector))
