"""Moving, scaling and turning one of several things on a picture, and choosing which. No widget, no Qt."""

import math
from collections.abc import Callable
from typing import Literal, Protocol

from yarrow_lane.measure.plane import Point, Polygon
from yarrow_lane.ui.kit.overlays import Grip, Outline, Overlay, Ring
from yarrow_lane.ui.kit.tools import Hint, Still

Way = Literal["move", "scale", "turn"]


class Follows(Protocol):
    """Who hears what the hand does; lengths in the picture's units, degrees clockwise."""

    def at(self, point: Point) -> int:
        """What lies there; 0 for nothing."""

    def picked(self, thing: int) -> None: ...
    def begun(self, way: Way) -> None: ...
    def moving(self, across: float, down: float) -> None: ...
    def scaling(self, factor: float) -> None: ...
    def turning(self, degrees: float) -> None: ...
    def ended(self) -> None: ...


class PieceTool(Still):
    """The chosen thing wears a frame: inside it is moved, its corners scale it, the ring above it turns it."""

    def __init__(self, follows: Follows, finished: Callable[[], None]) -> None:
        self._follows, self._finished = follows, finished
        self.frame: Polygon = ()  # four corners, from the top left as it stands, clockwise; empty while nothing is chosen
        self._way: Way | Literal["pressed", ""] = ""
        self._start: Point = (0.0, 0.0)
        self._reach = 0.0
        self._stem = 0.0

    @property
    def held(self) -> bool:
        return self._way not in ("", "pressed")

    @property
    def middle(self) -> Point:
        return sum(x for x, _ in self.frame) / 4, sum(y for _, y in self.frame) / 4

    def _turner(self, reach: float) -> Point:
        """Above the middle of the upper side."""
        (x0, y0), (x1, y1) = self.frame[0], self.frame[1]
        mx, my = self.middle
        x, y = (x0 + x1) / 2, (y0 + y1) / 2
        long = math.hypot(x - mx, y - my) or 1.0
        return x + (x - mx) / long * 2.2 * reach, y + (y - my) / long * 2.2 * reach

    @property
    def overlays(self) -> tuple[Overlay, ...]:
        if not self.frame:
            return ()
        frame: tuple[Overlay, ...] = (Outline(self.frame, "light", 1.2), *(Grip(c) for c in self.frame))
        if not self._stem:
            return frame
        turner = self._turner(self._stem)
        foot = (self.frame[0][0] + self.frame[1][0]) / 2, (self.frame[0][1] + self.frame[1][1]) / 2
        return (*frame, Outline((foot, turner), "light", 1.2, closed=False), Ring(turner, radius_px=6, ink="light", weight=2.0))

    def _what(self, point: Point, reach: float) -> Way | Literal[""]:
        if self.frame:
            self._stem = reach
            if math.dist(self._turner(reach), point) < reach:
                return "turn"
            if any(math.dist(c, point) < reach for c in self.frame):
                return "scale"
        return "move" if self._follows.at(point) else ""

    def hint(self, point: Point, reach: float) -> Hint:
        what = self._what(point, reach)
        if what == "scale":
            x, y = self.middle
            return "falling" if (point[0] - x) * (point[1] - y) > 0 else "rising"
        return "cross" if what == "turn" else "move" if what else "arrow"

    def press(self, point: Point, reach: float) -> None:
        what = self._what(point, reach)
        self._start, self._reach = point, reach
        if what == "move":
            self._follows.picked(self._follows.at(point))
            self._way = "pressed"
        elif what:
            self._way = what
            self._follows.begun(what)
        else:
            self._follows.picked(0)

    def move(self, point: Point) -> bool:
        if self._way == "pressed":
            if math.dist(self._start, point) < self._reach / 4:
                return False  # a click is no move
            self._way = "move"
            self._follows.begun("move")
        match self._way:
            case "move":
                self._follows.moving(point[0] - self._start[0], point[1] - self._start[1])
            case "scale":
                middle = self.middle
                far = max(1e-6, math.dist(middle, self._start))
                self._follows.scaling(max(0.05, math.dist(middle, point) / far))
            case "turn":
                x, y = self.middle
                before = math.atan2(self._start[1] - y, self._start[0] - x)
                self._follows.turning(math.degrees(math.atan2(point[1] - y, point[0] - x) - before))
            case _:
                return bool(self.frame)
        return True

    def release(self, point: Point) -> None:
        way, self._way = self._way, ""
        if way not in ("", "pressed"):
            self._follows.ended()
            self._finished()
