"""What a bench and a choice row show, as plain values: no Qt, so that a room's words are tested without a window.

Lines that can be changed carry what a change means: a function from the new value to an `Edit`, a `Proposal`, or None when it only
concerned what is looked at. Two lines are equal when they show the same.
"""

from collections.abc import Callable
from dataclasses import dataclass, field
from datetime import date
from typing import Any, Literal

from yarrow_lane.commission.recompose import Proposal
from yarrow_lane.lane.part import Edit
from yarrow_lane.measure.lengths import Unit

Mood = Literal["plain", "good", "wrong"]
Meaning = Edit[Any] | Proposal | None


def _unchanged(*_: object) -> Meaning:
    return None


@dataclass(frozen=True)
class Fact:
    """A label and its number."""

    label: str
    value: str
    mood: Mood = "plain"


@dataclass(frozen=True)
class Note:
    """A sentence in small type."""

    text: str
    mood: Mood = "plain"


@dataclass(frozen=True)
class Deed:
    """Something to do by the clock: when, what (bold, then plain) and the small print."""

    when: str
    who: str
    what: str
    detail: str


@dataclass(frozen=True)
class Headline:
    """A name in large type."""

    text: str


@dataclass(frozen=True)
class Swatch:
    """A colour as it is seen on the screen (sRGB), with its words."""

    label: str
    srgb: tuple[int, int, int]
    value: str


@dataclass(frozen=True)
class Table:
    """Figures under each other, each column set to its right edge but the first."""

    head: tuple[str, ...]
    rows: tuple[tuple[str, ...], ...]


@dataclass(frozen=True)
class Field:
    """Words the painter writes; `long` gives several lines. `about` is what they belong to, when that may change."""

    label: str
    value: str
    edit: Callable[[str], Meaning] = field(default=_unchanged, compare=False)
    hint: str = ""
    long: bool = False
    about: object = None


@dataclass(frozen=True)
class Length:
    """A length in the painter's unit; 0 shows as empty with a usual one in grey, and with `may_be_none` an empty field means 0."""

    label: str
    value_mm: float
    unit: Unit
    edit: Callable[[float], Meaning] = field(default=_unchanged, compare=False)
    usual_mm: float = 0.0
    may_be_none: bool = False
    about: object = None


@dataclass(frozen=True)
class Amount:
    """A number the painter sets, between `low` and `high`."""

    label: str
    value: float
    low: float
    high: float
    edit: Callable[[float], Meaning] = field(default=_unchanged, compare=False)
    step: float = 1.0
    decimals: int = 0
    unit: str = ""


@dataclass(frozen=True)
class Span:
    """Two ends of a stretch, the first below the second, within `low` and `high`."""

    label: str
    ends: tuple[float, float]
    low: float
    high: float
    edit: Callable[[float, float], Meaning] = field(default=_unchanged, compare=False)
    unit: str = ""
    step: float = 1.0
    decimals: int = 0


@dataclass(frozen=True)
class Day:
    """A date, or none yet. `ahead` dates lie after `today` as a rule, and a past one is asked about; others the other way round."""

    label: str
    value: date | None
    today: date
    edit: Callable[[date | None], Meaning] = field(default=_unchanged, compare=False)
    ahead: bool = True


@dataclass(frozen=True)
class Pick:
    """One of several: (value, words) each."""

    label: str
    value: Any
    options: tuple[tuple[Any, str], ...]
    edit: Callable[[Any], Meaning] = field(default=_unchanged, compare=False)


@dataclass(frozen=True)
class Tick:
    """Yes or no."""

    label: str
    value: bool
    edit: Callable[[bool], Meaning] = field(default=_unchanged, compare=False)


@dataclass(frozen=True)
class Press:
    """A button with a verb on it."""

    words: str
    do: Callable[[], Meaning] = field(default=_unchanged, compare=False)
    enabled: bool = True

    @property
    def label(self) -> str:
        return self.words


@dataclass(frozen=True)
class Row:
    """One of a numbered list: its title and the small print, at the right a colour and a word; `aside` ones count no more."""

    number: str
    title: str
    detail: str
    side: str = ""
    srgb: tuple[int, int, int] | None = None
    chosen: bool = False
    aside: bool = False
    do: Callable[[], Meaning] = field(default=_unchanged, compare=False)

    @property
    def label(self) -> str:
        return self.title


Line = Fact | Note | Deed | Headline | Swatch | Table | Field | Length | Amount | Span | Day | Pick | Tick | Press | Row


@dataclass(frozen=True)
class Section:
    """Lines under a small heading; with a `decision` they fold to it until the painter opens them."""

    title: str
    lines: tuple[Line, ...]
    decision: str = ""


@dataclass(frozen=True)
class NextAct:
    """The one yellow field: what to do now, with what and for how long. Without `do` it is done by hand elsewhere."""

    title: str
    detail: str = ""
    do: Callable[[], Meaning] | None = field(default=None, compare=False)
    enabled: bool = True


@dataclass(frozen=True)
class BenchSheet:
    """The whole bench of a room."""

    sections: tuple[Section, ...] = ()
    act: NextAct | None = None


@dataclass(frozen=True)
class Switch:
    """One choice in the sentence above the table; without a `chosen` option its buttons are plain ones."""

    label: str
    options: tuple[tuple[Any, str], ...]
    edit: Callable[[Any], Meaning] = field(default=_unchanged, compare=False)
    chosen: Any = None


@dataclass(frozen=True)
class ChoiceSheet:
    """The sentence of switches, and a remark at its end."""

    switches: tuple[Switch, ...] = ()
    remark: str = ""


def plain_options(words: tuple[str, ...]) -> tuple[tuple[str, str], ...]:
    """Options whose value is what is read."""
    return tuple((w, w) for w in words)
