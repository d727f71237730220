"""Hands on the regions, the lie and the patches: strokes whose meaning stands beside the pointer before the button is released. No Qt."""

import math
from collections.abc import Callable
from itertools import pairwise

from yarrow_lane.layers.strokes.meaning import Meant
from yarrow_lane.measure.plane import Point, Polygon
from yarrow_lane.ui.kit.overlays import Outline, Overlay, Ring, Words
from yarrow_lane.ui.kit.tools import Hint, Still

_ASK_EVERY = 6  # points: asking what a stroke means at every one would only be slower
_LEAST = 4  # points: fewer are a click


class MeaningTool(Still):
    """A free line whose meaning is asked while it is drawn; a click chooses. A corner within reach is dragged instead.

    `meaning(points, reach)` says what the line would do, `stroked(points, reach)` hears it when it ends, `clicked(point)` a click,
    `dragged(corner, to)` a corner put elsewhere.
    """

    def __init__(
        self, meaning: Callable[[Polygon, float], Meant], stroked: Callable[[Polygon, float], None], clicked: Callable[[Point], None],
        dragged: Callable[[Point, Point], None],
    ) -> None:  # fmt: skip
        self._meaning, self._stroked, self._clicked, self._dragged = meaning, stroked, clicked, dragged
        self.corners: Polygon = ()
        self.words = ""
        self._path: list[Point] = []
        self._corner: Point | None = None
        self._to: Point | None = None
        self._pointer: Point | None = None
        self._reach = 1.0

    @property
    def drawing(self) -> bool:
        """Whether a line is under way."""
        return bool(self._path)

    def give_up(self) -> None:
        """Forget the line under way."""
        self._path, self._corner, self._to, self.words = [], None, None, ""

    @property
    def overlays(self) -> tuple[Overlay, ...]:
        dots = tuple(Ring(p, radius_px=2.4, ink="here", weight=1.0) for p in self.corners)
        if self._corner is not None and self._to is not None:
            return (*dots, Outline((self._corner, self._to), "here", 1.6, "dashes", closed=False), Ring(self._to, radius_px=5))
        if len(self._path) < 2:
            return dots
        line = Outline(tuple(self._path), "here", 3.0, closed=False)
        said = (Words(self._path[-1], self.words, shift=(14, -14)),) if self.words else ()
        return (*dots, line, *said)

    def _near(self, point: Point, reach: float) -> Point | None:
        found = min(self.corners, key=lambda p: math.dist(p, point), default=None)
        return found if found is not None and math.dist(found, point) < reach / 2 else None

    def hint(self, point: Point, reach: float) -> Hint:
        return "move" if self._near(point, reach) is not None else "cross"

    def press(self, point: Point, reach: float) -> None:
        self._reach = reach
        self._corner = self._near(point, reach)
        self._path, self.words, self._to = ([] if self._corner is not None else [point]), "", None

    def move(self, point: Point) -> bool:
        self._pointer = point
        if self._corner is not None:
            self._to = point
            return True
        if not self._path:
            return False
        if math.dist(self._path[-1], point) >= self._reach / 6:
            self._path.append(point)
            if len(self._path) >= _LEAST and len(self._path) % _ASK_EVERY == 0:
                self.words = self._meaning(tuple(self._path), self._reach / 3).words
        return True

    def release(self, point: Point) -> None:
        path, corner, to = self._path, self._corner, self._to
        reach = self._reach
        self.give_up()
        if corner is not None:
            if to is not None and math.dist(corner, to) > 0.05:
                self._dragged(corner, to)
            return
        if not path:
            return
        if len(path) < _LEAST:
            self._clicked(path[0])
        else:
            self._stroked((*path, point), reach / 3)


class WayTool(Still):
    """A stroke from root to tip with an arrow at its end while it is drawn; `drawn(points)` hears it, a click is told `clicked(point)`."""

    def __init__(self, drawn: Callable[[Polygon], None], clicked: Callable[[Point], None] = lambda point: None) -> None:
        self._drawn, self._clicked = drawn, clicked
        self.words = ""  # beside the pointer while a stroke is drawn; {} stands for its length
        self._path: list[Point] = []
        self._step = 1.0

    @property
    def overlays(self) -> tuple[Overlay, ...]:
        if len(self._path) < 2:
            return ()
        length = sum(math.dist(a, b) for a, b in pairwise(self._path))
        head = arrow_head(self._path, max(2.0, min(6.0, length / 4)))
        line = Outline(tuple(self._path), "here", 2.6, closed=False)
        return (
            line,
            Outline(head, "here", 2.6, closed=False),
            Words(self._path[-1], self.words.format(f"{length:.0f}\u202fmm"), shift=(12, -12)),
        )

    def hint(self, point: Point, reach: float) -> Hint:
        return "cross"

    def press(self, point: Point, reach: float) -> None:
        self._path, self._step = [point], reach / 8

    def move(self, point: Point) -> bool:
        if self._path and math.dist(self._path[-1], point) >= self._step:
            self._path.append(point)
        return bool(self._path)

    def release(self, point: Point) -> None:
        path, self._path = self._path, []
        if len(path) >= 3:
            self._drawn((*path, point))
        elif path:
            self._clicked(path[0])


def arrow_head(path: list[Point], size: float) -> Polygon:
    """Barbs at the end of a line."""
    tip, back = path[-1], path[max(0, len(path) - 4)]
    angle = math.atan2(tip[1] - back[1], tip[0] - back[0])
    sides = [(tip[0] - size * math.cos(angle + t), tip[1] - size * math.sin(angle + t)) for t in (0.5, -0.5)]
    return sides[0], tip, sides[1]
