"""What a hand does on a picture, one state machine each: no widget, no Qt; points are in the picture's own units.

A tool is pressed, moved and released; `reach` is how near counts as at a mark, in the same units. `overlays` is what it shows while
it is used.
"""

import math
from collections.abc import Callable
from typing import Literal, Protocol

from yarrow_lane.measure.plane import Point, Polygon, Rect
from yarrow_lane.ui.kit.overlays import Box, Grip, Outline, Overlay, Ring, Words

Hint = Literal["arrow", "cross", "move", "rising", "falling"]


class Tool(Protocol):
    """What every tool answers."""

    @property
    def overlays(self) -> tuple[Overlay, ...]: ...

    def hint(self, point: Point, reach: float) -> Hint:
        """What the pointer should look like there."""

    def press(self, point: Point, reach: float) -> None: ...

    def move(self, point: Point) -> bool:
        """Whether something shown has changed."""

    def release(self, point: Point) -> None: ...

    def double(self, point: Point) -> None: ...


class Still:
    """What most tools do not do."""

    @property
    def overlays(self) -> tuple[Overlay, ...]:
        return ()

    def hint(self, point: Point, reach: float) -> Hint:
        return "arrow"

    def press(self, point: Point, reach: float) -> None:
        return

    def move(self, point: Point) -> bool:
        return False

    def release(self, point: Point) -> None:
        return

    def double(self, point: Point) -> None:
        return


class Handles(Still):
    """A rectangle of fixed proportion, moved and pulled by its corners.

    `wanted(width, centre)` is asked what it would become; `done(width, centre)` is told when a drag ends.
    """

    def __init__(
        self, wanted: Callable[[float, Point], Rect | None], done: Callable[[float, Point], None]
    ) -> None:  # fmt: skip
        self._ask, self._done = wanted, done
        self.rect: Rect | None = None
        self._drag: tuple[str, Point, Rect] | None = None
        self._last: tuple[float, Point] | None = None

    def show(self, rect: Rect | None) -> None:
        """The rectangle on record; a drag under way is not disturbed."""
        if self._drag is None:
            self.rect = rect

    @property
    def dragging(self) -> bool:
        return self._drag is not None

    @property
    def overlays(self) -> tuple[Overlay, ...]:
        if self.rect is None:
            return ()
        return Box(self.rect, "light", 2.0), *(Grip(corner) for corner in self.rect.corners)

    def _corner(self, point: Point, reach: float) -> str:
        if self.rect is None:
            return ""
        named = zip(("tl", "tr", "br", "bl"), self.rect.corners, strict=True)
        return next((n for n, c in named if abs(c[0] - point[0]) + abs(c[1] - point[1]) < reach), "")

    def hint(self, point: Point, reach: float) -> Hint:
        corner = self._corner(point, reach)
        if corner:
            return "falling" if corner in ("tl", "br") else "rising"
        return "move" if self.rect is not None and self.rect.holds(point) else "arrow"

    def press(self, point: Point, reach: float) -> None:
        corner = self._corner(point, reach)
        if self.rect is not None and (corner or self.rect.holds(point)):
            self._drag = (corner or "move", point, self.rect)

    def move(self, point: Point) -> bool:
        if self._drag is None:
            return False
        self._last = _dragged(*self._drag, point)
        self.rect = self._ask(*self._last) or self.rect
        return True

    def release(self, point: Point) -> None:
        drag, self._drag = self._drag, None
        last, self._last = self._last, None
        if drag is not None and last is not None:
            self._done(*last)


def _dragged(what: str, start: Point, rect: Rect, point: Point) -> tuple[float, Point]:
    """The width and centre wanted after dragging the rectangle or one of its corners to `point`."""
    if what == "move":
        x, y = rect.centre
        return rect.width, (x + point[0] - start[0], y + point[1] - start[1])
    # The opposite corner stays; the larger of the two pulls decides, so that the shape keeps its proportion.
    fixed = (rect.x if "r" in what else rect.right, rect.y if "b" in what else rect.bottom)
    proportion = rect.width / rect.height
    width = max(abs(point[0] - fixed[0]), abs(point[1] - fixed[1]) * proportion)
    height = width / proportion
    return width, (
        fixed[0] + (width if "r" in what else -width) / 2,
        fixed[1] + (height if "b" in what else -height) / 2,
    )


class OutlineTool(Still):
    """Corners clicked one after the other; a double click or `close` tells `closed` the corners.

    They stay until `give_up`: whoever is told decides whether the outline holds, and may ask first (`shut`).
    """

    def __init__(self, closed: Callable[[Polygon], None], changed: Callable[[], None]) -> None:
        self._closed, self._changed = closed, changed
        self.corners: Polygon | None = None
        self.shut = False
        self._pointer: Point | None = None

    @property
    def drawing(self) -> bool:
        return self.corners is not None

    def begin(self) -> None:
        self.corners, self._pointer, self.shut = (), None, False
        self._changed()

    def give_up(self) -> None:
        if self.corners is not None:
            self.corners, self.shut = None, False
            self._changed()

    def step_back(self) -> None:
        """Take the last corner back."""
        if self.corners:
            self.corners = self.corners[:-1]
            self._changed()

    def close(self) -> None:
        """Finish the outline."""
        self._closed(self.corners or ())

    @property
    def overlays(self) -> tuple[Overlay, ...]:
        if self.corners is None:
            return ()
        if self.shut:
            return (Outline(self.corners, "here", 2.2, filled=True),)
        path = (*self.corners, self._pointer) if self._pointer is not None else self.corners
        dots = tuple(Ring(c, radius_px=4, ink="here", weight=1.0) for c in self.corners)
        return Outline(path, "here", 2.0, closed=False), *dots

    def hint(self, point: Point, reach: float) -> Hint:
        return "cross" if self.drawing and not self.shut else "arrow"

    def press(self, point: Point, reach: float) -> None:
        if self.corners is not None and not self.shut:
            self.corners = (*self.corners, point)

    def move(self, point: Point) -> bool:
        self._pointer = point
        return self.drawing and not self.shut

    def double(self, point: Point) -> None:
        if self.corners is not None and not self.shut and len(self.corners) >= 3:
            self.close()


class PointsTool(Still):
    """Marks chosen by a click on them (`chosen`), and places taken by a click elsewhere (`placed`), within `area`.

    With `patch` a square of that side is shown round the pointer.
    """

    def __init__(self, chosen: Callable[[int], None], placed: Callable[[Point], None]) -> None:
        self._chosen, self._placed = chosen, placed
        self.marks: tuple[tuple[int, Point], ...] = ()
        self.area = Rect(0, 0, 0, 0)
        self.patch = 0.0
        self._pointer: Point | None = None

    @property
    def overlays(self) -> tuple[Overlay, ...]:
        if self._pointer is None or not self.patch:
            return ()
        x, y = self._pointer
        return (Box(Rect(x - self.patch / 2, y - self.patch / 2, self.patch, self.patch), "light", 1.0),)

    def hint(self, point: Point, reach: float) -> Hint:
        return "cross"

    def press(self, point: Point, reach: float) -> None:
        near = next((i for i, at in self.marks if abs(at[0] - point[0]) + abs(at[1] - point[1]) < reach), None)
        if near is not None:
            self._chosen(near)
        elif self.area.holds(point):
            self._placed(point)

    def move(self, point: Point) -> bool:
        self._pointer = point if self.area.holds(point) else None
        return bool(self.patch)


class PullTool(Still):
    """From a press to a release: `pulled(from, to)` is told at the end, of a click without a drag nothing."""

    def __init__(self, pulled: Callable[[Point, Point], None]) -> None:
        self._pulled = pulled
        self.ends: tuple[Point, Point] | None = None  # while the button is held
        self._least = 0.0

    def hint(self, point: Point, reach: float) -> Hint:
        return "cross"

    def press(self, point: Point, reach: float) -> None:
        self.ends = (point, point)
        self._least = reach / 2

    def move(self, point: Point) -> bool:
        if self.ends is None:
            return False
        self.ends = (self.ends[0], point)
        return True

    def release(self, point: Point) -> None:
        ends, self.ends = self.ends, None
        if ends is not None and math.dist(ends[0], point) >= self._least:
            self._pulled(ends[0], point)


def circle_of(a: Point, b: Point) -> tuple[Point, float]:
    """Middle and radius of the circle with its rim through both, opposite each other."""
    return ((a[0] + b[0]) / 2, (a[1] + b[1]) / 2), math.dist(a, b) / 2


class RingTool(PullTool):
    """A circle drawn by a drag from rim to rim; `marked(centre, radius)` is told."""

    def __init__(self, marked: Callable[[Point, float], None]) -> None:
        super().__init__(lambda a, b: marked(*circle_of(a, b)))

    @property
    def overlays(self) -> tuple[Overlay, ...]:
        if self.ends is None:
            return ()
        centre, radius = circle_of(*self.ends)
        return Ring(centre, radius), Words(centre, f"{2 * radius:.0f}\u202fpx", clear_of=radius)
