"""Play for the whole room: the canvas after so many passes, out of areas' stacks that are kept whatever the order."""

from collections.abc import Callable
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.commission.commission import Commission
from yarrow_lane.layers.passes import Pass
from yarrow_lane.layers.play.area import PlayCoat, State
from yarrow_lane.layers.play.composing import canvas_after
from yarrow_lane.ui.rooms.layers.deriving import Deriving, Stage, coats_of

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.layers.page import LayersPage

_KEPT_PICTURES = 8  # composed canvases at hand: our choice


class Playing:
    """Asks for what is missing and says by `page.play_changed()` when a picture may look otherwise."""

    def __init__(self, page: "LayersPage", deriving: Deriving) -> None:
        self._page, self._deriving = page, deriving
        self.stage: Stage | None = None
        self._passes: tuple[Pass, ...] = ()
        self._coats: dict[int, tuple[PlayCoat, ...]] = {}
        self._stacks: dict[int, tuple[State, ...]] = {}
        self._wanted: dict[int, tuple[PlayCoat, ...]] = {}
        self._pictures: dict[int, NDArray[np.uint8]] = {}
        self._of: tuple[object, ...] = ()

    def forget(self) -> None:
        """Another commission came in."""
        self.stage, self._stacks, self._wanted, self._pictures, self._of, self._passes = None, {}, {}, {}, (), ()

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
            self._pictures.clear()
        commission_id = c.id

        def staged(stage: Stage) -> None:
            if self._page.commission_id != commission_id:
                return
            if stage is not self.stage:
                self.stage = stage
                self._stacks, self._wanted = {}, {}
                self._pictures.clear()
            self._ask(c, stage)

        self._deriving.stage(c, staged)

    def _ask(self, c: Commission, stage: Stage) -> None:
        coats = coats_of(self._passes)
        overhang = c.layers.school.background == "first"
        for area in stage.scene.areas:
            wanted = coats.get(area.id, ())
            if not wanted or self._wanted.get(area.id) == wanted:
                continue
            self._wanted[area.id] = wanted
            self._stacks.pop(area.id, None)
            self._deriving.stack(c, stage, area.id, wanted, overhang, self._hear(stage, area.id, wanted))
        for gone in set(self._wanted) - set(coats):
            del self._wanted[gone]
            self._stacks.pop(gone, None)

    def _hear(self, stage: Stage, region_id: int, coats: tuple[PlayCoat, ...]) -> Callable[[tuple[State, ...]], None]:
        def hear(states: tuple[State, ...]) -> None:
            if self.stage is stage and self._wanted.get(region_id) == coats:
                self._stacks[region_id] = states
                self._pictures.clear()
                self._page.play_changed()

        return hear

    def picture(self, count: int) -> NDArray[np.uint8] | None:
        """The canvas after the first `count` passes, sRGB; what is not worked out yet is still bare. None before the scene is there."""
        if self.stage is None:
            return None
        if count not in self._pictures:
            done: dict[int, int] = {}
            for p in self._passes[:count]:
                done[p.region_id] = done.get(p.region_id, 0) + 1
            while len(self._pictures) >= _KEPT_PICTURES:
                self._pictures.pop(next(iter(self._pictures)))
            self._pictures[count] = canvas_after(self.stage.begun, self.stage.scene.areas, self._stacks, done)
        return self._pictures[count]

    def state_of(self, p: Pass) -> State | None:
        """The state right after a pass of its area, with its strokes; None while it is not there."""
        own = [q.id for q in self._passes if q.region_id == p.region_id]
        states = self._stacks.get(p.region_id, ())
        n = own.index(p.id) if p.id in own else -1
        return states[n] if 0 <= n < len(states) else None
