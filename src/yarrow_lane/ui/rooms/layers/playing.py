"""Play for the whole room: the canvas after so many passes, out of areas' stacks that are kept whatever the order."""

from collections.abc import Callable
from typing import TYPE_CHECKING

from PySide6.QtCore import Qt
from PySide6.QtGui import QImage

from yarrow_lane.commission.commission import Commission
from yarrow_lane.layers.passes import Pass
from yarrow_lane.layers.play.area import PlayCoat, State
from yarrow_lane.layers.play.composing import Stack, canvas_after, coarse_by, smaller
from yarrow_lane.measure.raster import Picture
from yarrow_lane.ui.deriving import Deriving, Stage, coats_of
from yarrow_lane.ui.kit.levels import Levels, qimage

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.layers.page import LayersPage


class Playing:
    """Asks for what is missing and says by `page.play_changed()` when a picture may look otherwise.

    Whole pictures are put together off the interface thread; small ones cost next to nothing.
    """

    def __init__(self, page: "LayersPage", deriving: Deriving) -> None:
        self._page, self._deriving = page, deriving
        self.stage: Stage | None = None
        self._begun: Picture | None = None  # the stage's canvas, small
        self._passes: tuple[Pass, ...] = ()
        self._stacks: dict[int, Stack] = {}
        self._wanted: dict[int, tuple[PlayCoat, ...]] = {}
        self._thumbs: dict[tuple[int, int], QImage] = {}

    def forget(self) -> None:
        """Another commission came in."""
        self.stage, self._begun, self._passes = None, None, ()
        self._stacks, self._wanted, self._thumbs = {}, {}, {}

    @property
    def share(self) -> float:
        """How much of it is there, 0 to 1."""
        return len(self._stacks) / max(1, len(self._wanted)) if self._wanted else 0.0

    @property
    def ready(self) -> bool:
        """Whether every area is there."""
        return bool(self._wanted) and len(self._stacks) == len(self._wanted)

    def has(self, passes: tuple[Pass, ...]) -> bool:
        """Whether these passes were asked for already."""
        return self.stage is not None and passes == self._passes

    def want(self, c: Commission, passes: tuple[Pass, ...]) -> None:
        """Make sure that what these passes come to is there or on its way."""
        if passes != self._passes:
            self._passes = passes
            self._thumbs.clear()
        commission_id = c.id

        def staged(stage: Stage) -> None:
            if self._page.commission_id != commission_id:
                return
            if stage is not self.stage:
                self.stage, self._begun = stage, smaller(stage.begun, coarse_by(stage.begun))
                self._stacks, self._wanted = {}, {}
                self._thumbs.clear()
            self._ask(c, stage)

        self._deriving.stage(c, staged)

    def _ask(self, c: Commission, stage: Stage) -> None:
        coats = coats_of(self._passes)
        for area in stage.scene.areas:
            wanted = coats.get(area.id, ())
            if not wanted or self._wanted.get(area.id) == wanted:
                continue
            self._wanted[area.id] = wanted
            self._stacks.pop(area.id, None)
            self._deriving.stack(c, stage, area.id, wanted, _overhang(c), self._hear(stage, area.id, wanted))
        for gone in set(self._wanted) - set(coats):
            del self._wanted[gone]
            self._stacks.pop(gone, None)

    def _hear(self, stage: Stage, region_id: int, coats: tuple[PlayCoat, ...]) -> Callable[[Stack], None]:
        def hear(found: Stack) -> None:
            if self.stage is stage and self._wanted.get(region_id) == coats:
                self._stacks[region_id] = found
                self._thumbs.clear()
                self._page.play_changed()

        return hear

    def want_canvas(self, c: Commission, count: int, ready: Callable[[Levels], None]) -> None:
        """The canvas after the first `count` passes; what is not worked out yet is still bare. Nothing before the scene is there."""
        if self.stage is not None:
            self._deriving.canvas(c, self.stage, self._stacks, coats_of(self._passes[:count]), _overhang(c), ready)

    def small(self, count: int) -> Picture | None:
        """The same as a small picture, sRGB; None before the scene is there."""
        if self.stage is None or self._begun is None:
            return None
        done = {i: len(coats) for i, coats in coats_of(self._passes[:count]).items()}
        return canvas_after(self._begun, self.stage.scene.areas, {i: s.small for i, s in self._stacks.items()}, done)

    def thumb(self, count: int, high_px: int) -> QImage | None:
        """The same, so many px high; kept until a picture may look otherwise."""
        key = count, high_px
        if key not in self._thumbs:
            picture = self.small(count)
            if picture is None:
                return None
            self._thumbs[key] = qimage(picture).scaledToHeight(high_px, Qt.TransformationMode.SmoothTransformation)
        return self._thumbs[key]

    def state_of(self, p: Pass) -> State | None:
        """The state right after a pass of its area, with its strokes; None while it is not there."""
        own = [q.id for q in self._passes if q.region_id == p.region_id]
        stack = self._stacks.get(p.region_id)
        return stack.states[own.index(p.id)] if stack is not None and p.id in own else None


def _overhang(c: Commission) -> bool:
    """Whether tips run over a background that is there already."""
    return c.layers.school.background == "first"
