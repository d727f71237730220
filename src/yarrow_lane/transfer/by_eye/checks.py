"""Checks by eye: equal lengths, plumb and level, clock hands, halves; the handiest first, each with what it leaves over.

In twelve points hundreds of coincidences are found (random points give as many): they prove nothing, they are handy measures. So a
check holds within what a hand sees, or says its rest.
"""

import itertools
import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from yarrow_lane.measure.plane import Point

Kind = Literal["plumb", "level", "equal", "half", "clock"]
# Of the head: places count as two from there on, lengths are worth comparing, longer is no better, longer is worse. All our choice.
_APART, _SHORTEST, _LONG, _LONGEST = 0.06, 0.18, 0.8, 1.6
_TOLD_MM, _TOLD = 0.7, 0.01  # a check holds within what a hand sees, 0.7 mm or a hundredth: else its rest is said
_LEVEL_DEG, _CLOCK_DEG, _EQUAL = 1.0, 1.5, 0.02
_WORTH: dict[Kind, float] = {"plumb": 1.2, "level": 1.2, "equal": 1.0, "clock": 0.6, "half": 0.55}
_MERE = 0.75  # for each end that is only the edge of a shape
_FROM_ONE_PLACE, _HALF_HOUR = 0.8, 0.7
_MOST_OF_A_PLACE = 3


@dataclass(frozen=True)
class Check:
    """What it says, its kind, the lengths it is about (two places each, canvas mm), and what it leaves over in words; empty if nothing.

    `share` is what length two is of length one: 1 for equal, 2 for "half", 0 for what is about one length.
    """

    kind: Kind
    words: str
    rest: str
    segments: tuple[tuple[Point, Point], ...]
    worth: float
    about: tuple[str, ...]


@dataclass(frozen=True)
class _Length:
    one: str
    other: str
    begin: Point
    end: Point

    @property
    def across(self) -> float:
        return self.end[0] - self.begin[0]

    @property
    def down(self) -> float:
        return self.end[1] - self.begin[1]

    @property
    def mm(self) -> float:
        return math.hypot(self.across, self.down)

    @property
    def name(self) -> str:
        return f"{self.one} to {self.other}"

    @property
    def ends(self) -> tuple[Point, Point]:
        return self.begin, self.end


def checks_of(places: Mapping[str, Point], head_mm: float, edges: Mapping[str, Point], most: int = 8) -> tuple[Check, ...]:
    """The handiest, the best first: at most half of one kind, no place in more than three.

    `places` are named places of the canvas, `edges` highest, lowest, leftmost and rightmost points of shapes, mm; `head_mm` the size of
    what is drawn.
    """
    known: dict[str, Point] = {}
    for name, at in (*places.items(), *edges.items()):
        if all(math.dist(at, other) > _APART * head_mm for other in known.values()):
            known[name] = at
    lengths = [
        _Length(a, b, known[a], known[b])
        for a, b in itertools.combinations(known, 2)
        if math.dist(known[a], known[b]) > _SHORTEST * head_mm
    ]
    found = [check for length in lengths for check in (_plumb(length, head_mm), _clock(length, head_mm)) if check is not None]
    for one, other in itertools.combinations(lengths, 2):
        compared = _compared(one, other, head_mm)
        if compared is not None:
            found.append(compared)
    return _spread(found, set(edges), most)


def _spread(found: list[Check], mere: set[str], most: int) -> tuple[Check, ...]:
    used: dict[str, int] = {}
    kinds: dict[Kind, int] = {}
    picked: list[Check] = []
    for check in sorted(found, key=lambda c: -c.worth * _MERE ** len(set(c.about) & mere)):
        if kinds.get(check.kind, 0) >= max(2, most // 2) or any(used.get(name, 0) >= _MOST_OF_A_PLACE for name in check.about):
            continue
        picked.append(check)
        kinds[check.kind] = kinds.get(check.kind, 0) + 1
        for name in set(check.about):
            used[name] = used.get(name, 0) + 1
        if len(picked) == most:
            break
    return tuple(picked)


def _far(mm: float, head_mm: float) -> float:
    """How handy a length is: too short it shows nothing, longer than a brush and its handle it is not held up."""
    return min(1.0, mm / (_LONG * head_mm)) * min(1.0, _LONGEST * head_mm / mm)


def rest_words(off_mm: float, of_mm: float, more: str, less: str) -> str:
    """What is left over: "2 mm shorter"; nothing within what a hand sees."""
    if abs(off_mm) <= max(_TOLD_MM, _TOLD * of_mm):
        return ""
    halves = round(2 * abs(off_mm)) / 2
    return f"{halves:g}\u202fmm {more if off_mm > 0 else less}"


def _plumb(a: _Length, head_mm: float) -> Check | None:
    """One straight under the other, or both on one level."""
    for kind, off, along in (("plumb", a.across, a.down), ("level", a.down, a.across)):
        degrees = math.degrees(math.atan2(abs(off), abs(along)))
        if degrees > _LEVEL_DEG:
            continue
        worth = _far(a.mm, head_mm) * (1 - 0.4 * degrees / _LEVEL_DEG)
        if kind == "plumb":
            low, high = (a.other, a.one) if a.down > 0 else (a.one, a.other)
            aside = off if a.down > 0 else -off
            rest = rest_words(aside, a.mm, "to the right", "to the left")
            return Check(
                "plumb", f"{low} lies straight under {high}", rest, (a.ends,), _WORTH["plumb"] * worth, (a.one, a.other)
            )
        rest = rest_words(off, a.mm, f"lower at {a.other}", f"higher at {a.other}")
        return Check(
            "level", f"{a.one} and {a.other} lie on one level", rest, (a.ends,), _WORTH["level"] * worth, (a.one, a.other)
        )
    return None


def _clock(a: _Length, head_mm: float) -> Check | None:
    """As the hand of a clock; quarters are plumb or level."""
    hours = (math.degrees(math.atan2(a.across, -a.down)) % 360) / 30
    near = round(2 * hours) / 2
    off = 30 * (hours - near)
    if abs(off) > _CLOCK_DEG or near % 3 == 0:
        return None
    worth = _WORTH["clock"] * _far(a.mm, head_mm) * (1 - 0.4 * abs(off) / _CLOCK_DEG) * (1 if near == int(near) else _HALF_HOUR)
    rest = rest_words(math.sin(math.radians(off)) * a.mm, a.mm, "clockwise at its end", "anticlockwise at its end")
    return Check(
        "clock",
        f"from {a.one} to {a.other}: the hand of a clock at {hour_words(near)}",
        rest,
        (a.ends,),
        worth,
        (a.one, a.other),
    )


def hour_words(hour: float) -> str:
    """ "half past 4", "2 o'clock"."""
    whole = int(hour % 12) or 12
    return f"half past {whole}" if hour != int(hour) else f"{whole} o'clock"


def _compared(one: _Length, other: _Length, head_mm: float) -> Check | None:
    """Equal lengths, or one twice the other; those that cross say more than those side by side."""
    names = {one.one, one.other, other.one, other.other}
    if len(names) < 3:
        return None
    short, long = sorted((one, other), key=lambda length: length.mm)
    for times, kind in ((1.0, "equal"), (2.0, "half")):
        off = long.mm - times * short.mm
        unlike = abs(off) / (times * short.mm)
        if unlike > _EQUAL:
            continue
        tilt = math.acos(min(1.0, abs(one.across * other.across + one.down * other.down) / (one.mm * other.mm)))
        crossing = 0.45 + 0.55 * math.sin(tilt)
        worth = _far(short.mm, head_mm) * crossing * (1 - 0.4 * unlike / _EQUAL) * (_FROM_ONE_PLACE if len(names) == 3 else 1)
        about = (one.one, one.other, other.one, other.other)
        if kind == "equal":
            off, words = other.mm - one.mm, f"{other.name} is as long as {one.name}"
            rest = rest_words(off, one.mm, "longer", "shorter")
            return Check("equal", words, rest, (one.ends, other.ends), _WORTH["equal"] * worth, about)
        rest = rest_words(off, long.mm, "over", "short")
        return Check(
            "half", f"{short.name} goes twice into {long.name}", rest, (short.ends, long.ends), _WORTH["half"] * worth, about
        )
    return None
