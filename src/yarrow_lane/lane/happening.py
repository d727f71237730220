"""What happened outside the program: appended, corrected by another entry, never undone."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any, Literal, TypeVar

from yarrow_lane.lane import money
from yarrow_lane.lane.part import as_it_was
from yarrow_lane.measure.plane import Polygon


@dataclass(frozen=True)
class ClockStarted:
    """The painter began; `about` is the pass id, `title` its words at the time."""

    at: datetime
    about: str
    title: str
    kind: Literal["clock started"] = "clock started"


@dataclass(frozen=True)
class ClockStopped:
    """The painter stopped."""

    at: datetime
    about: str
    title: str
    kind: Literal["clock stopped"] = "clock stopped"


@dataclass(frozen=True)
class HoursCorrected:
    """Minutes more or fewer than the clock said, and why."""

    at: datetime
    about: str
    title: str
    minutes: float
    why: str = ""
    kind: Literal["hours corrected"] = "hours corrected"


@dataclass(frozen=True)
class LetterSent:
    """A letter asking for photographs as it went out; `number` counts the commission's letters from 1."""

    at: datetime
    number: int
    text: str
    asked_for: tuple[str, ...] = ()
    kind: Literal["letter sent"] = "letter sent"


@dataclass(frozen=True)
class Photographed:
    """The canvas was photographed; `photo_id` is the picture's content hash, `corners` (px, from its top left, clockwise) and `bulge`
    of the lens as they were found when it was measured, `purpose` what for; `about` is the pass it was painted to, "" for none.
    """

    at: datetime
    photo_id: str
    name: str
    purpose: Literal["painting", "drawing", "marks", "crosses"] = "painting"
    corners: Polygon = ()
    bulge: float = 0.0
    about: str = ""
    kind: Literal["photographed"] = "photographed"


@dataclass(frozen=True)
class Printed:
    """Sheets were saved to be printed; `made_from` is the reference they show."""

    at: datetime
    what: str
    made_from: str
    kind: Literal["printed"] = "printed"


@dataclass(frozen=True)
class StretchSettled:
    """A stretch of the clock that was in doubt: the one that `began` then counts so many minutes."""

    at: datetime
    about: str
    title: str
    began: datetime
    minutes: float
    kind: Literal["stretch settled"] = "stretch settled"


@dataclass(frozen=True)
class ProofSent:
    """A proof of the composition went to the client; `number` counts from 1, `made_from` is the reference it shows."""

    at: datetime
    number: int
    made_from: str
    text: str = ""
    kind: Literal["proof sent"] = "proof sent"


@dataclass(frozen=True)
class ProofAnswered:
    """What the client said to that proof."""

    at: datetime
    number: int
    approved: bool
    words: str = ""
    kind: Literal["proof answered"] = "proof answered"


Happening = (
    ClockStarted
    | ClockStopped
    | HoursCorrected
    | LetterSent
    | Photographed
    | Printed
    | ProofAnswered
    | ProofSent
    | StretchSettled
    | money.Money
)
Log = tuple[Happening, ...]
_H = TypeVar("_H", bound=Happening)


def of_kind(log: Sequence[Happening], kind: type[_H]) -> tuple[_H, ...]:
    """Only the entries of one kind, in order."""
    return tuple(h for h in log if isinstance(h, kind))


def _first(plain: dict[str, Any]) -> dict[str, Any]:
    """Before version 1 all three kinds had the fields of a correction."""
    unused = () if plain["kind"] == "hours corrected" else ("minutes", "why")
    return {name: value for name, value in plain.items() if name not in unused}


# From one version of an entry on record to the next: 2 knows settled stretches, 3 knows proofs, 4 what photographs are for, 5 the pass they show,
# 6 money and papers.
UPGRADES: tuple[Callable[[dict[str, Any]], dict[str, Any]], ...] = (_first, *(as_it_was,) * 5)
