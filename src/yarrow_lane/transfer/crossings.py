"""Where the lines to draw cross the lines of the squares: ticks to set before anything is drawn, each with its words."""

from collections.abc import Iterable, Sequence
from typing import NamedTuple

import numpy as np

from yarrow_lane.measure.lengths import Unit, length_text
from yarrow_lane.measure.plane import Circle, Point
from yarrow_lane.transfer.lines.line import Line
from yarrow_lane.transfer.squares import Square, Squares

# All our choice.
MOST_EACH = 6  # ticks round one square: more are not copied, they are stared at
APART_MM = 2.5  # nearer ticks on one edge cannot be told apart by eye
CORNER_MM = 1.0  # nearer to a corner than this it goes through the corner
_DENSE = 1.8  # times the usual length of lines in a square: it is quartered


class Crossing(NamedTuple):
    """A line crosses the ruled line `number` (1 is the first inside the canvas, 1.5 the middle of the square after it where that is
    quartered): an upright one `at_mm` down from the top, a level one `at_mm` from the left. `weight` is the length of the line, mm.
    """

    upright: bool
    number: float
    at_mm: float
    weight: float

    def place(self, squares: Squares) -> Point:
        """In canvas mm."""
        on = self.number * squares.side_mm
        return (on, self.at_mm) if self.upright else (self.at_mm, on)

    @property
    def in_middle(self) -> bool:
        """Whether it is on the middle line of a quartered square."""
        return self.number != int(self.number)

    def between(self, squares: Squares) -> tuple[Square, Square]:
        """The two squares whose edge it is on; on a middle line both are the same."""
        along = squares.height_mm if self.upright else squares.width_mm
        rank = int(min(max(self.at_mm, 0.0), along - 1e-9) // squares.side_mm)
        after = int(self.number)
        before = after if self.in_middle else after - 1
        return ((before, rank), (after, rank)) if self.upright else ((rank, before), (rank, after))


def crossings(lines: Sequence[Line], squares: Squares, quartered: Iterable[Square] = ()) -> tuple[Crossing, ...]:
    """Every crossing with a ruled line inside the canvas, and with the middle lines of quartered squares; one that falls on a point of
    the line counts once.
    """
    finer = set(quartered)
    found = _crossed(lines, squares.side_mm, (squares.columns, squares.rows))
    if not finer:
        return found
    halves = _crossed(lines, squares.side_mm / 2, (2 * squares.columns, 2 * squares.rows))
    middle = [half._replace(number=half.number / 2) for half in halves if half.number % 2]
    return (*found, *(half for half in middle if half.between(squares)[0] in finer))


def _crossed(lines: Sequence[Line], side_mm: float, counts: tuple[int, int]) -> tuple[Crossing, ...]:
    """Every crossing with lines so far apart, so many upright and level ones."""
    found = []
    for line in lines:
        points = np.asarray(line.points, np.float64)
        if len(points) < 2:
            continue
        weight = float(np.hypot(*np.diff(points, axis=0).T).sum())
        for axis, count in enumerate(counts):
            begins, ends = points[:-1, axis], points[1:, axis]
            # Half open: a step that begins on the ruled line has crossed it with the step before.
            low, high = (np.floor(f(begins, ends) / side_mm).astype(int) for f in (np.minimum, np.maximum))
            for step in np.nonzero(high > low)[0].tolist():
                for number in range(max(1, low[step] + 1), min(count - 1, high[step]) + 1):
                    share = (number * side_mm - begins[step]) / (ends[step] - begins[step])
                    at = points[step, 1 - axis] + share * (points[step + 1, 1 - axis] - points[step, 1 - axis])
                    found.append(Crossing(axis == 0, number, float(at), weight))
    return tuple(found)


def to_tick(found: Sequence[Crossing], squares: Squares, quartered: Iterable[Square] = ()) -> tuple[Crossing, ...]:
    """Those worth a tick: long lines first, none too near to another, at most six a square; twice as many where it is quartered."""
    more = set(quartered)
    load: dict[Square, int] = {}
    on_line: dict[tuple[bool, float], list[float]] = {}
    taken = []
    for crossing in sorted(found, key=lambda c: (-c.weight, c)):
        others = on_line.setdefault((crossing.upright, crossing.number), [])
        if any(abs(other - crossing.at_mm) < APART_MM for other in others):
            continue
        beside = crossing.between(squares)
        if any(load.get(s, 0) >= MOST_EACH * (2 if s in more else 1) for s in beside):
            continue
        others.append(crossing.at_mm)
        taken.append(crossing)
        for square in set(beside):
            load[square] = load.get(square, 0) + 1
    return tuple(taken)


def of_square(ticks: Iterable[Crossing], squares: Squares, square: Square) -> tuple[Crossing, ...]:
    """The ticks round one square: left, right, top, bottom edge, each from its beginning."""
    own = [c for c in ticks if square in c.between(squares)]
    return tuple(sorted(own, key=lambda c: (not c.upright, c.number, c.at_mm)))


def crossing_words(
    crossing: Crossing, squares: Squares, square: Square, unit: Unit, flips: tuple[bool, bool] = (False, False)
) -> tuple[str, str]:  # fmt: skip
    """The edge and the place on it, as seen from that square: ("left edge", "1.4 cm down").

    `flips` says whether left and right, top and bottom, change places as it is looked at: words follow what is seen.
    """
    column, row = square
    rect = squares.rect(column, row)
    full = rect.height if crossing.upright else rect.width
    along = crossing.at_mm - (row if crossing.upright else column) * squares.side_mm
    first = crossing.number == (column if crossing.upright else row)
    if flips[1 if crossing.upright else 0]:
        along = full - along
    if flips[0 if crossing.upright else 1]:
        first = not first
    if crossing.in_middle:
        place = f"{length_text(along, unit)} {'down' if crossing.upright else 'from the left'}"
        return f"middle, {'upright' if crossing.upright else 'level'}", place
    if min(along, full - along) < CORNER_MM:
        far = along > full / 2
        left, upper = (first, not far) if crossing.upright else (not far, first)
        return "through", f"the {'upper' if upper else 'lower'} {'left' if left else 'right'} corner"
    if crossing.upright:
        return f"{'left' if first else 'right'} edge", f"{length_text(along, unit)} down"
    return f"{'top' if first else 'bottom'} edge", f"{length_text(along, unit)} from the left"


def to_quarter(
    lines: Iterable[Line], squares: Squares, circles: Iterable[Circle] = ()
) -> tuple[Square, ...]:  # fmt: skip
    """Squares to quarter: those that eyes, nose and mouth lie on (circles: centre and radius, mm), and where many lines run."""
    length: dict[Square, float] = {}
    for line in lines:
        points = np.asarray(line.points, np.float64)
        steps = np.hypot(*np.diff(points, axis=0).T)
        middles = ((points[1:] + points[:-1]) / 2 // squares.side_mm).astype(int)
        for (column, row), step in zip(middles.tolist(), steps.tolist(), strict=True):
            length[column, row] = length.get((column, row), 0.0) + step
    drawn = [v for v in length.values() if v > 0.3 * squares.side_mm]
    usual = sum(drawn) / len(drawn) if drawn else float("inf")
    found = {square for square, long in length.items() if long > _DENSE * usual and _is_one(square, squares)}
    return tuple(sorted(found | under(circles, squares)))


def under(circles: Iterable[Circle], squares: Squares) -> set[Square]:
    """The squares that circles (centre and radius, mm) lie on, by the boxes round them."""
    found = set()
    for (x, y), radius in circles:
        for column in range(int((x - radius) // squares.side_mm), int((x + radius) // squares.side_mm) + 1):
            for row in range(int((y - radius) // squares.side_mm), int((y + radius) // squares.side_mm) + 1):
                found.add((column, row))
    return {s for s in found if _is_one(s, squares)}


def _is_one(square: Square, squares: Squares) -> bool:
    return 0 <= square[0] < squares.columns and 0 <= square[1] < squares.rows
