"""From a picture to all lines there could be: strength, cells, their borders, the level of each."""

from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.late import late
from yarrow_lane.measure.progress import SILENT, Progress
from yarrow_lane.measure.raster import Picture
from yarrow_lane.transfer.lines.arcs import Arcs, arcs_of
from yarrow_lane.transfer.lines.base import STEP_MM, Base
from yarrow_lane.transfer.lines.cells import cells_of
from yarrow_lane.transfer.lines.chains import evenly, lengths, means, normals, smoothed
from yarrow_lane.transfer.lines.crest import at_places, on_their_crest
from yarrow_lane.transfer.lines.merging import levels_of
from yarrow_lane.transfer.lines.strength import BASE, WAYS, Plane, strength_of

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

# All our choice, tuned on rendered sitters.
_SEED_MM = 0.6  # the strength is smoothed so far before its hollows become cells
_CRACK_MM = 1.2  # the stairs of pixel borders are smoothed so far
_END_MM = 3.0  # ends are brought together over so much of the line
_HAIR = 0.3  # what a thin light line counts: whiskers and single hairs are painted, not drawn


def base_of(picture: Picture, px_per_mm: float, weight: Plane | None = None, progress: Progress = SILENT) -> Base:
    """The lines of a whole canvas, (H, W, 3) sRGB; `weight` at `BASE` px per mm is what the painter cares for. Raises `Cancelled`."""
    strength = strength_of(picture, px_per_mm, progress)
    by_way = strength.by_way if weight is None else strength.by_way * weight
    top = cv2.GaussianBlur(by_way.max(0), (0, 0), _SEED_MM * BASE)
    cells = cells_of(top)
    progress.at(0.7)
    arcs = arcs_of(cells)
    progress.at(0.85)
    if arcs.count == 0:
        none = np.zeros(0, np.float32)
        return Base(np.zeros((0, 2), np.float32), np.zeros(1, np.int64), arcs.nodes, none, none, np.zeros(0, np.bool_), none)
    points, starts = evenly(smoothed(arcs.points, arcs.starts, _CRACK_MM * BASE) / BASE, arcs.starts, STEP_MM)
    local = _along(by_way, points, starts)
    points, dark, light = on_their_crest(strength, points, starts)
    local *= np.where(np.repeat(light, np.diff(starts)), _HAIR, 1.0)
    points = _ends_met(points, starts, arcs, local)
    area = np.bincount(cells.ravel()).astype(np.float64) / BASE**2
    level = levels_of(arcs.cells, means(local, starts), np.maximum(lengths(points, starts), STEP_MM), area)
    rough = means(at_places(strength.rough, points), starts)
    progress.at(1.0)
    return Base(
        points.astype(np.float32), starts, arcs.nodes, level.astype(np.float32), rough.astype(np.float32), dark,
        local.astype(np.float32),
    )  # fmt: skip


def _along(by_way: NDArray[np.float32], points: NDArray[np.float64], starts: NDArray[np.int64]) -> NDArray[np.float64]:
    """The strength (N) for the direction in which the line runs there, or a little less for the next ones."""
    across = normals(points, starts)
    turn = np.arctan2(-across[:, 0], across[:, 1]) % np.pi
    way = np.rint(turn / np.pi * WAYS).astype(int) % WAYS
    x = np.clip((points[:, 0] * BASE).astype(int), 0, by_way.shape[2] - 1)
    y = np.clip((points[:, 1] * BASE).astype(int), 0, by_way.shape[1] - 1)
    beside = np.maximum(by_way[(way + 1) % WAYS, y, x], by_way[(way - 1) % WAYS, y, x]) * 0.9
    return np.maximum(by_way[way, y, x], beside).astype(np.float64)


def _ends_met(
    points: NDArray[np.float64], starts: NDArray[np.int64], arcs: Arcs, local: NDArray[np.float64]
) -> NDArray[np.float64]:  # fmt: skip
    """Arcs that meet at a junction end at one place: the middle of their ends, the stronger counting more."""
    first, last = starts[:-1], starts[1:] - 1
    ends, nodes = np.concatenate([first, last]), np.concatenate([arcs.nodes[:, 0], arcs.nodes[:, 1]])
    names, place = np.unique(nodes, return_inverse=True)
    weight = local[ends] ** 2 + 1e-6
    total = np.bincount(place, weight, len(names))
    middle = np.stack([np.bincount(place, weight * points[ends, side], len(names)) / total for side in (0, 1)], 1)
    shift = middle[place] - points[ends]
    number = np.repeat(np.arange(len(first)), np.diff(starts))
    here = np.arange(len(points))
    reach = np.minimum(_END_MM / STEP_MM, np.maximum(1, np.diff(starts) / 2))[number]
    from_first = np.clip(1 - (here - first[number]) / reach, 0, 1)
    from_last = np.clip(1 - (last[number] - here) / reach, 0, 1)
    count = len(first)
    return points + from_first[:, None] * shift[:count][number] + from_last[:, None] * shift[count:][number]
