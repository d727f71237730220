"""The canvas out of its areas' stacks: laid back to front over ground and drawing, as far as each is painted."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import TYPE_CHECKING

import numpy as np

from yarrow_lane.layers.play.area import State
from yarrow_lane.layers.play.drawing import Image
from yarrow_lane.layers.play.scene import PlayArea
from yarrow_lane.measure.late import late

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

_SMALL_PX = 320  # the longer side of a canvas in a strip: our choice


@dataclass(frozen=True)
class Stack:
    """An area's states after each of its coats, and the same on a coarse raster for small pictures of the canvas."""

    states: tuple[State, ...]
    small: tuple[State, ...]


def coarse_by(canvas: Image) -> int:
    """How many times coarser than the canvas a small picture of it is."""
    return max(1, max(canvas.shape[:2]) // _SMALL_PX)


def smaller(image: Image, by: int) -> Image:
    """The whole canvas `by` times coarser."""
    return _coarser(image, (0, 0, image.shape[1], image.shape[0]), by)


def stacked(states: Sequence[State], canvas: Image) -> Stack:
    """The states with their small ones, for a canvas like this one."""
    by = coarse_by(canvas)
    return Stack(tuple(states), tuple(_small(s, by) for s in states))


def _small(state: State, by: int) -> State:
    x0, y0, x1, y1 = state.box
    box = x0 // by, y0 // by, -(-x1 // by), -(-y1 // by)
    return replace(state, box=box, image=_coarser(state.image, state.box, by), alpha=_coarser(state.alpha, state.box, by))


def _coarser(image: Image, box: tuple[int, int, int, int], by: int) -> Image:
    """What lies in a box of px, its box grown to whole coarse px."""
    x0, y0, x1, y1 = box
    around = cv2.copyMakeBorder(image, y0 % by, -y1 % by, x0 % by, -x1 % by, cv2.BORDER_REPLICATE)
    size = around.shape[1] // by, around.shape[0] // by
    return np.asarray(cv2.resize(around, size, interpolation=cv2.INTER_AREA), np.uint8)


def back_to_front(areas: Sequence[PlayArea]) -> list[PlayArea]:
    """What lies over what: by kind, ears over heads."""
    return sorted(areas, key=lambda a: (a.depth, a.part.endswith("ear"), a.id))


def canvas_after(
    ground: Image, areas: Sequence[PlayArea], stacks: Mapping[int, Sequence[State]], done: Mapping[int, int]
) -> Image:  # fmt: skip
    """The whole canvas with the first `done` coats of each area."""
    canvas = ground.copy()
    for area in back_to_front(areas):
        count = done.get(area.id, 0)
        states = stacks.get(area.id, ())
        if count <= 0 or not states:
            continue
        state = states[min(count, len(states)) - 1]
        x0, y0, x1, y1 = state.box
        beneath = np.ascontiguousarray(canvas[y0:y1, x0:x1])
        weight = state.alpha.astype(np.float32) * (1 / 255)
        canvas[y0:y1, x0:x1] = cv2.blendLinear(np.ascontiguousarray(state.image), beneath, weight, 1 - weight)
    return canvas
