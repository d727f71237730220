"""What a bench and a choice row show, as plain values: no Qt, so that a room's words are tested without a window."""

from dataclasses import dataclass
from datetime import date
from typing import Literal

Tone = Literal["plain", "good", "wrong"]


@dataclass(frozen=True)
class Fact:
    """A label and its number."""

    label: str
    value: str
    tone: Tone = "plain"


@dataclass(frozen=True)
class Note:
    """A sentence in small type."""

    text: str
    tone: Tone = "plain"


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
class Field:
    """Words the painter writes; `long` gives several lines."""

    key: str
    label: str
    value: str
    hint: str = ""
    long: bool = False


@dataclass(frozen=True)
class Amount:
    """A number the painter sets, between `low` and `high`."""

    key: str
    label: str
    value: float
    low: float
    high: float
    step: float = 1.0
    decimals: int = 0
    unit: str = ""


@dataclass(frozen=True)
class Day:
    """A date, or none yet."""

    key: str
    label: str
    value: date | None


@dataclass(frozen=True)
class Pick:
    """One of several: (value, words) each."""

    key: str
    label: str
    value: str
    options: tuple[tuple[str, str], ...]


@dataclass(frozen=True)
class Tick:
    """Yes or no."""

    key: str
    label: str
    value: bool


@dataclass(frozen=True)
class Press:
    """A button with a verb on it."""

    key: str
    words: str
    enabled: bool = True


Line = Fact | Note | Deed | Headline | Field | Amount | Day | Pick | Tick | Press


@dataclass(frozen=True)
class Section:
    """Lines under a small heading."""

    title: str
    lines: tuple[Line, ...]


@dataclass(frozen=True)
class NextAct:
    """The one yellow field: what to do now, with what and for how long."""

    title: str
    detail: str = ""
    enabled: bool = True


@dataclass(frozen=True)
class BenchSheet:
    """The whole bench of a room."""

    sections: tuple[Section, ...] = ()
    act: NextAct | None = None


@dataclass(frozen=True)
class Switch:
    """One choice in the sentence above the table; an empty `chosen` with one option is a plain button."""

    key: str
    label: str
    options: tuple[tuple[str, str], ...]
    chosen: str = ""


@dataclass(frozen=True)
class ChoiceSheet:
    """The sentence of switches, and a remark at its end."""

    switches: tuple[Switch, ...] = ()
    remark: str = ""


def plain_options(words: tuple[str, ...]) -> tuple[tuple[str, str], ...]:
    """Options whose value is what is read."""
    return tuple((w, w) for w in words)
