"""Hands that draw: going round a sitter, strokes, points of a line, a length between two places. No widget, no Qt."""

import math
from collections.abc import Callable, Sequence
from typing import Literal

from yarrow_lane.measure.plane import Point, Polygon
from yarrow_lane.ui.kit.overlays import Outline, Overlay, Ring, Words
from yarrow_lane.ui.kit.tools import Hint, PullTool, Still

Round = Literal["loop", "traced"]


class RoundTool(Still):
    """Round something: one loop drawn with the button held, or corners clicked and closed by a double click or `close`.

    `closed(points, how)` is told, and `changed` when a corner came.
    """

    def __init__(self, closed: Callable[[Polygon, Round], None], changed: Callable[[], None]) -> None:
        self._closed, self._changed = closed, changed
        self.corners: Polygon = ()
        self._path: list[Point] = []
        self._down: Point | None = None
        self._pointer: Point | None = None
        self._step = 1.0

    def give_up(self) -> bool:
        """Whether there was anything to give up."""
        had, self.corners, self._path, self._down = bool(self.corners), (), [], None
        return had

    def step_back(self) -> bool:
        had, self.corners = bool(self.corners), self.corners[:-1]
        return had

    def close(self) -> bool:
        """Close the clicked corners; whether there were enough."""
        if len(self.corners) < 3:
            return False
        corners, self.corners = self.corners, ()
        self._closed(corners, "traced")
        return True

    @property
    def overlays(self) -> tuple[Overlay, ...]:
        if self._path:
            return (Outline(tuple(self._path), "here", 2.0, closed=False),)
        if not self.corners:
            return ()
        path = (*self.corners, self._pointer) if self._pointer is not None else self.corners
        dots = tuple(Ring(c, radius_px=4, ink="here", weight=1.0) for c in self.corners)
        return Outline(path, "here", 2.0, closed=False), *dots

    def hint(self, point: Point, reach: float) -> Hint:
        return "cross"

    def press(self, point: Point, reach: float) -> None:
        self._down, self._step = point, reach / 4

    def move(self, point: Point) -> bool:
        self._pointer = point
        if self._down is None:
            return bool(self.corners)
        last = self._path[-1] if self._path else self._down
        if math.dist(last, point) >= self._step and not self.corners:
            self._path = [*(self._path or [self._down]), point]
        return True

    def release(self, point: Point) -> None:
        path, self._path, down, self._down = self._path, [], self._down, None
        if len(path) >= 8:
            self._closed(tuple(path), "loop")
        elif down is not None:
            self.corners = (*self.corners, down)
            self._changed()

    def double(self, point: Point) -> None:
        self._down = None
        self.close()


class StrokeTool(Still):
    """A stroke as wide as `width` of the picture's units; `stroked(points)` is told when it ends."""

    def __init__(self, stroked: Callable[[Polygon], None]) -> None:
        self._stroked = stroked
        self.width = 10.0
        self._path: list[Point] = []
        self._pointer: Point | None = None

    @property
    def overlays(self) -> tuple[Overlay, ...]:
        here = (Ring(self._pointer, self.width / 2, "light", 1.2),) if self._pointer is not None else ()
        return (Outline(tuple(self._path), "here", 3.0, closed=False), *here) if len(self._path) > 1 else here

    def hint(self, point: Point, reach: float) -> Hint:
        return "cross"

    def press(self, point: Point, reach: float) -> None:
        self._path = [point]

    def move(self, point: Point) -> bool:
        self._pointer = point
        if self._path and math.dist(self._path[-1], point) > self.width / 8:
            self._path.append(point)
        return True

    def release(self, point: Point) -> None:
        path, self._path = self._path, []
        if path:
            self._stroked((*path, point))


class GripsTool(Still):
    """Points that are taken and put elsewhere: `dragging(number, to)` while it goes, `dragged(number, to)` when it ends."""

    def __init__(self, dragging: Callable[[int, Point], None], dragged: Callable[[int, Point], None]) -> None:
        self._dragging, self._dragged = dragging, dragged
        self.points: Sequence[Point] = ()
        self._held: int | None = None
        self._moved = False

    @property
    def overlays(self) -> tuple[Overlay, ...]:
        return tuple(Ring(p, radius_px=3.5, ink="light", weight=1.4) for p in self.points)

    def hint(self, point: Point, reach: float) -> Hint:
        return "move" if self._near(point, reach) is not None else "arrow"

    def _near(self, point: Point, reach: float) -> int | None:
        found = min(range(len(self.points)), key=lambda n: math.dist(self.points[n], point), default=None)
        return found if found is not None and math.dist(self.points[found], point) < reach else None

    def press(self, point: Point, reach: float) -> None:
        self._held, self._moved = self._near(point, reach), False

    def move(self, point: Point) -> bool:
        if self._held is not None:
            self._moved = True
            self._dragging(self._held, point)
        return self._held is not None

    def release(self, point: Point) -> None:
        held, self._held = self._held, None
        if held is not None and self._moved:
            self._dragged(held, point)


class CornersTool(GripsTool):
    """Four corners: taken and put elsewhere, or set by one click, which the nearest follows."""

    def press(self, point: Point, reach: float) -> None:
        super().press(point, reach)
        if self._held is None and self.points:
            self._held = min(range(len(self.points)), key=lambda n: math.dist(self.points[n], point))
            self.move(point)


class LengthTool(PullTool):
    """A length drawn from one place to another; `drawn(a, b)` is told. `words(a, b)` stand beside it while it is drawn."""

    def __init__(self, drawn: Callable[[Point, Point], None], words: Callable[[Point, Point], str]) -> None:
        super().__init__(drawn)
        self._words = words

    @property
    def overlays(self) -> tuple[Overlay, ...]:
        if self.ends is None:
            return ()
        dots = tuple(Ring(p, radius_px=5, ink="here", weight=1.6) for p in self.ends)
        return Outline(self.ends, "here", 2.0, closed=False), *dots, Words(self.ends[1], self._words(*self.ends))
