"""The canvas out of its areas' stacks: laid back to front over ground and drawing, as far as each is painted."""

from collections.abc import Mapping, Sequence
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
