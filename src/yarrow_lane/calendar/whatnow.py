"""What to do now, of everything that could be done: each act weighed in minutes, every part of the weight sayable."""

from collections.abc import Sequence
from dataclasses import dataclass

from yarrow_lane.measure.words import counted

# The weights, all our choice, in minutes of what doing it now is worth.
_PRESSING, _A_DAY_IN_HAND = 40.0, 8.0
_LATEST = -5  # what is later than so many days presses no more than that: it has to be talked about
_PLANNED, _OTHER_CANVAS, _OTHER_WELLS, _SAME_WELLS, _OPEN_WELLS = 15.0, -20.0, -10.0, 5.0, 12.0
_LIGHT_GOES, _NOT_TODAY, _LAST_HOUR, _LONG_FUR, _REWARD, _QUICK = 15.0, -10.0, -25.0, -15.0, 15.0, 10.0
_DRYING_MOST = 25.0
_SAYABLE = 5.0  # a reason that weighs less is not said
LONG_FUR_MIN = 90.0
BREAK_MIN = 50.0  # handbook table of numbers (our choice there)


@dataclass(frozen=True)
class Choice:
    """Something that could be done. `in_hand` are working days between safe day and promise, None without either; `ready_in` minutes
    until all beneath is dry, `frees` minutes of drying or rest that it starts, `wells_open` minutes its mixed wells stay open (0 none
    mixed)."""

    commission_id: str
    title: str
    minutes: float
    in_hand: int | None = None
    palette: str = ""
    painting: bool = True
    ready_in: float = 0.0
    frees: float = 0.0
    daylight: bool = False
    fur: bool = False
    small: bool = False
    planned: bool = False
    wells_open: float = 0.0
    key: str = ""


@dataclass(frozen=True)
class Moment:
    """Where the painter stands: canvas and wells in use, minutes left of today's hours and of daylight, minutes since a break, and of
    fur in a row."""

    commission_id: str = ""
    palette: str = ""
    left: float = 240.0
    light_left: float = 240.0
    since_break: float = 0.0
    fur: float = 0.0


@dataclass(frozen=True)
class Advised:
    """A choice with its two strongest reasons, what speaks for it first."""

    choice: Choice
    worth: float
    reasons: tuple[str, ...]


def weighed(c: Choice, at: Moment) -> Advised | None:
    """What it is worth now; None where it cannot be done: no daylight, or no time for an act that is not divided."""
    if c.daylight and at.light_left < min(c.minutes, 30):
        return None
    if c.minutes > at.left and (not c.painting or at.left < 20):
        return None
    parts: list[tuple[float, str]] = []
    if c.in_hand is not None:
        said = f"{counted(-c.in_hand, 'working day')} late" if c.in_hand < 0 else f"{counted(c.in_hand, 'working day')} in hand"
        parts.append((max(0.0, _PRESSING - _A_DAY_IN_HAND * max(c.in_hand, _LATEST)), said))
    parts.append((_PLANNED * c.planned, "planned for now"))
    parts.append((-c.ready_in, f"dry in {c.ready_in:.0f} min"))
    if c.painting:
        if at.commission_id and c.commission_id != at.commission_id:
            parts.append((_OTHER_CANVAS, "another canvas to set up"))
        elif at.palette and c.palette != at.palette:
            parts.append((_OTHER_WELLS, "other wells"))
        elif at.palette:
            parts.append((_SAME_WELLS, "the same wells are open"))
        if 0 < c.wells_open < 60:
            parts.append((_OPEN_WELLS, f"its wells stay open {c.wells_open:.0f} min"))
        if c.daylight and at.light_left < 2 * c.minutes:
            parts.append((_LIGHT_GOES, "needs daylight while it lasts"))
        if c.minutes > at.left:
            parts.append((_NOT_TODAY if at.left >= 60 else _LAST_HOUR, "will not be finished today"))
        if at.fur >= LONG_FUR_MIN:
            parts.append((_LONG_FUR * c.fur, "long at fur already"))
            parts.append((_REWARD * c.small, "a small thing as a reward"))
    else:
        parts.append((_QUICK, "quick"))
    parts.append((min(_DRYING_MOST, c.frees / 60), "drying or rest begins"))
    strongest = sorted((p for p in parts if abs(p[0]) >= _SAYABLE), key=lambda p: (p[0] < 0, -abs(p[0])))
    return Advised(c, sum(p[0] for p in parts), tuple(words for _, words in strongest[:2]))


def advised(choices: Sequence[Choice], at: Moment) -> tuple[Advised, ...]:
    """The best first, equals as they were given; a break before everything after fifty minutes at the easel."""
    found = [a for c in choices if (a := weighed(c, at)) is not None]
    found.sort(key=lambda a: -a.worth)
    if at.since_break >= BREAK_MIN and at.left > 15:
        pause = Choice("", "Break of ten minutes, look from two metres", 10, painting=False)
        found.insert(0, Advised(pause, 999.0, (f"{at.since_break:.0f} min at it",)))
    return tuple(found)
