"""The ways to carry the drawing over: what the painter chose, what is done, and how long it took."""

import statistics
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from yarrow_lane.measure.words import begun

Way = Literal["squares", "scribble marks", "projector", "tracing", "same-size print", "by eye"]
WAYS: tuple[Way, ...] = ("squares", "scribble marks", "projector", "tracing", "same-size print", "by eye")
What = Literal["outline", "details"]
WHAT: tuple[What, ...] = ("outline", "details")
WHAT_WORDS: dict[What, str] = {"outline": "the outline", "details": "eyes, nose and mouth"}
_ENOUGH = 2  # own times, before they count


@dataclass(frozen=True)
class Ways:
    """What the painter chose for the outline and for eyes, nose and mouth; None while nothing is chosen."""

    outline: Way | None = None
    details: Way | None = None

    @property
    def chosen(self) -> bool:
        return self.outline is not None and self.details is not None

    @property
    def one(self) -> Way | None:
        """The way that carries all of it, if it is one."""
        return self.outline if self.outline == self.details else None

    def of(self, what: What) -> Way | None:
        """The way of a part."""
        return self.outline if what == "outline" else self.details

    @property
    def words(self) -> str:
        """Both, in the order they are used."""
        return f"{self.outline}" if self.one else f"{self.outline}, then {self.details}"


@dataclass(frozen=True)
class Carried:
    """A part that is on the canvas, by which way, and the minutes it took; 0 when nobody said."""

    what: What
    way: Way
    minutes: float = 0.0


@dataclass(frozen=True)
class Stint:
    """What a way was thought to take and what it took, minutes: from these the next is promised."""

    way: Way
    thought: float
    took: float


def pace_of(way: Way, stints: Sequence[Stint]) -> float | None:
    """How the painter's own times stand to the first guesses, the middle one; None before there are two."""
    own = [s.took / s.thought for s in stints if s.way == way and s.thought > 0 and s.took > 0]
    return statistics.median(own) if len(own) >= _ENOUGH else None


def deed_words(way: Way, about: str) -> str:
    """What is done with it: "Trace the outline"."""
    words = {
        "squares": "draw {} by squares", "scribble marks": "draw {} by the marks", "projector": "trace {} from the projector",
        "tracing": "trace {}", "same-size print": "measure {} from the print", "by eye": "draw {} by eye",
    }  # fmt: skip
    return begun(words[way].format(about))
