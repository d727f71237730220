"""The kinds of area a portrait is made of, and what holds for each (`data/kinds.csv`)."""

import csv
from dataclasses import dataclass
from functools import cache
from pathlib import Path
from typing import Literal, get_args

from yarrow_lane.measure.tables import rows_of

Kind = Literal[
    "background", "scene", "fur", "long fur", "curly fur", "skin", "hair", "beard", "eye", "nose", "mouth", "ear inside",
    "whiskers", "cloth", "metal and glass", "scales", "feathers", "woven and built", "lettering", "other",
]  # fmt: skip
KINDS: tuple[Kind, ...] = get_args(Kind)

MOUTH_MM = 2.5  # the width by which a mouth counts as area (our choice)
# Half axes of the eye opening in iris radii, across and down: by eye on the made-up sitters and from memory (our choice).
_OPENING = {
    "person": (1.75, 0.72),
    "cat": (1.12, 0.92),
    "dog": (1.12, 0.88),
    "rabbit": (1.1, 1.0),
    "horse": (1.6, 1.0),
    "bird": (1.15, 1.1),
}
_OPENING_OTHER = (1.15, 0.9)

_DATA = Path(__file__).parent / "data"


@dataclass(frozen=True)
class KindFacts:
    """`family` names the recipes, `depth` grows towards the viewer, `order` puts features first, hours as in the table; `hair_mm`
    the usual length of what grows there, 0 of nothing."""

    family: str
    said: str
    depth: int
    order: int
    fixed_h: float
    per_100cm2_h: float
    hairy: bool
    hair_mm: float


@cache
def _facts() -> dict[str, KindFacts]:
    return {
        row["kind"]: KindFacts(
            row["family"], row["said"], int(row["depth"]), int(row["order"]), float(row["fixed_h"]), float(row["per_100cm2_h"]),
            row["hairy"] == "yes", float(row["hair_mm"]),
        )
        for row in csv.DictReader(rows_of(_DATA / "kinds.csv"))
    }  # fmt: skip


def facts_of(kind: Kind) -> KindFacts:
    """What holds for a kind."""
    return _facts()[kind]


def is_ground(kind: Kind) -> bool:
    """Whether it lies behind the sitter: a background, soft or a scene."""
    return facts_of(kind).family in ("background", "scene")


def is_hairy(kind: Kind) -> bool:
    """Whether its strokes follow a lie, root to tip."""
    return facts_of(kind).hairy


def eye_opening(sitter: str) -> tuple[float, float]:
    """Half axes of a sitter's eye opening, across and down, in radii of its iris: what is likely before the picture is asked."""
    return _OPENING.get(sitter, _OPENING_OTHER)


@cache
def family_facts(family: str) -> KindFacts:
    """What holds for the usual kind of a family: the one of its name, else its first."""
    kinds = [k for k in KINDS if facts_of(k).family == family]
    return facts_of(next((k for k in kinds if k == family), kinds[0]))
