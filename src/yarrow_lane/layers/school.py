"""The painter's school: the choices that decide the order of work. The schools differ on purpose (common practice)."""

from dataclasses import dataclass
from typing import Any, Literal

from yarrow_lane.intake.brief import Medium
from yarrow_lane.layers.grammar import grammar

Eyes = Literal["first", "early", "last"]
Values = Literal["dark to light", "middle out", "light first"]
Round = Literal["all over", "area by area", "square by square"]
Background = Literal["first", "last", "alongside"]
Outline = Literal["before tone", "after tone"]
Finish = Literal["close", "painterly"]


@dataclass(frozen=True)
class School:
    """One choice of each; which there are, and what each does, stands in `data/schools.toml`."""

    eyes: Eyes = "first"
    values: Values = "dark to light"
    background: Background = "first"
    round: Round = "all over"
    outline: Outline = "before tone"
    finish: Finish = "close"


@dataclass(frozen=True)
class NamedSchool:
    """A school of the painter's own, kept by the studio."""

    name: str
    school: School


def older_school(plain: dict[str, Any]) -> dict[str, Any]:
    """A school as it was written when there were two orders of values: "light to dark" is called light first now."""
    values = "light first" if plain.get("values") == "light to dark" else plain.get("values", "dark to light")
    return {**plain, "values": values}


def values_used(school: School, medium: Medium) -> tuple[Values, str]:
    """The order of values the medium allows, and why when it is not the one wished for."""
    allowed = grammar()["medium"][medium]
    if school.values in allowed["values"]:
        return school.values, ""
    return allowed["values"][0], allowed.get("why", "")


def values_word(values: Values) -> str:
    """The short name of an order of values, as in the names of passes on record."""
    return str(grammar()["values"][values]["word"])


def why(choice: str, value: str) -> str:
    """Why one chooses it, in a few words."""
    return str(grammar()[choice][value]["why"])


def pace_share(school: School) -> float:
    """Hours of this finish over those of a close likeness."""
    return float(grammar()["finish"][school.finish]["pace"])
