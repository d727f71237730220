"""The error of a drawing parted into what is wrong with the whole and what is wrong with each place."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.plane import Point
from yarrow_lane.measure.similarity import similarity

Points = NDArray[np.float64]
# All our choice.
_CUT_MM = 4.0  # places farther off than this hardly count for the whole
_ROUNDS = 6
_LEAST_ROBUST = 5  # places: fewer cannot tell which of them is wrong
_LESSER = 0.35  # of the greater part: a lesser one is left unsaid
_SAID_MM = 0.5
_WHOLE_MM, _WHOLE_SHARE, _WHOLE_DEG = 2.0, 0.01, 0.7  # nobody sees less


@dataclass(frozen=True)
class Whole:
    """Shift at the `middle` of the places (mm, right and down), scale (1 is right), turn in degrees clockwise, about that middle."""

    shift: Point
    scale: float
    degrees: float
    middle: Point

    @property
    def seen(self) -> bool:
        """Whether it is worth doing something about."""
        return math.hypot(*self.shift) > _WHOLE_MM or abs(self.scale - 1) > _WHOLE_SHARE or abs(self.degrees) > _WHOLE_DEG

    def carried(self, meant: Point) -> Point:
        """Where a place would be drawn if only the whole were wrong."""
        turn = math.radians(self.degrees)
        x, y = meant[0] - self.middle[0], meant[1] - self.middle[1]
        cos, sin = self.scale * math.cos(turn), self.scale * math.sin(turn)
        return self.middle[0] + self.shift[0] + cos * x - sin * y, self.middle[1] + self.shift[1] + sin * x + cos * y


@dataclass(frozen=True)
class Split:
    """`rest` (n) of each place once the whole is taken out, mm right and down; `belongs` where it would lie then."""

    whole: Whole
    rest: tuple[Point, ...]
    belongs: tuple[Point, ...]


def parted(meant: Sequence[Point], drawn: Sequence[Point]) -> Split:
    """The whole by robust weights (Geman and McClure, 1985), so that one wrong ear does not turn the head; plain below five places.

    Two places at least; raises ValueError for fewer.
    """
    if len(meant) < 2 or len(meant) != len(drawn):
        raise ValueError("two places at least, each meant and drawn")
    source, target = np.asarray(meant, np.float64), np.asarray(drawn, np.float64)
    weight = np.ones(len(source))
    scale, turn, shift = similarity(source, target)
    if len(source) >= _LEAST_ROBUST:
        for _ in range(_ROUNDS):
            scale, turn, shift = similarity(source, target, weight)
            off = np.hypot(*(target - (scale * source @ turn.T + shift)).T)
            weight = 1 / (1 + (off / _CUT_MM) ** 2) ** 2
    middle = source.mean(0)
    moved = scale * source @ turn.T + shift
    at_middle = scale * turn @ middle + shift - middle
    whole = Whole(_point(at_middle), scale, math.degrees(math.atan2(turn[1, 0], turn[0, 0])), _point(middle))
    return Split(whole, _points(target - moved), _points(moved))


def _point(values: Points) -> Point:
    return float(values[0]), float(values[1])


def _points(values: Points) -> tuple[Point, ...]:
    return tuple((float(x), float(y)) for x, y in values)


def whole_words(whole: Whole) -> tuple[tuple[str, str], ...]:
    """What is wrong with the whole, a label and a figure each; empty for what nobody sees."""
    x, y = whole.shift
    found = []
    if abs(x) >= _SAID_MM:
        found.append((f"to the {'right' if x > 0 else 'left'}", f"{abs(x):.1f}\u202fmm"))
    if abs(y) >= _SAID_MM:
        found.append(("low" if y > 0 else "high", f"{abs(y):.1f}\u202fmm"))
    if abs(whole.scale - 1) >= 0.002:
        found.append((f"too {'large' if whole.scale > 1 else 'small'}", f"{100 * abs(whole.scale - 1):.1f}\u202f%"))
    if abs(whole.degrees) >= 0.1:
        found.append((f"turned {'right' if whole.degrees > 0 else 'left'}", f"{abs(whole.degrees):.1f}°"))
    return tuple(found)


def off_words(rest: Point) -> str:
    """Where a place was drawn: "6 mm too low, 2 mm too far left"; the lesser part is left unsaid under a third of the greater."""
    x, y = rest
    greater = max(abs(x), abs(y))
    parts = []
    if abs(y) >= max(_LESSER * greater, _SAID_MM):
        parts.append((abs(y), f"{_half(abs(y))} mm too {'low' if y > 0 else 'high'}"))
    if abs(x) >= max(_LESSER * greater, _SAID_MM):
        parts.append((abs(x), f"{_half(abs(x))} mm too far {'right' if x > 0 else 'left'}"))
    return ", ".join(words for _, words in sorted(parts, reverse=True)) or "in its place"


def _half(mm: float) -> str:
    """To half a mm, which is what a pencil keeps."""
    halves = max(1, round(2 * mm))
    whole, half = divmod(halves, 2)
    return f"{whole or ''}{'½' if half else ''}"


def tolerance_mm(head_mm: float | None, width_mm: float, height_mm: float) -> float:
    """How far off a place may be: 1 % of the head, at least 1 mm and at most 3 mm; without a head 0.4 % of the diagonal [our choice]."""
    wanted = 0.01 * head_mm if head_mm else 0.004 * math.hypot(width_mm, height_mm)
    return min(3.0, max(1.0, wanted))
