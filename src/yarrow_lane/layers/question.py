"""What is asked of a worker for Layers. Pictures are the reference, sRGB (height, width, 3), the whole canvas; all lengths mm."""

from collections.abc import Collection, Mapping, Sequence
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.layers.area_colours import colours_of
from yarrow_lane.layers.coverage import Rings
from yarrow_lane.layers.flow.flow import Flow, Read, flow_of, read
from yarrow_lane.layers.lie_record import Lie
from yarrow_lane.layers.patching.patches import Climb, climb
from yarrow_lane.layers.play.area import PlayCoat, stack
from yarrow_lane.layers.play.composing import Stack, stacked
from yarrow_lane.layers.play.scene import PlayArea, Scene, begun, fitted_to_paint
from yarrow_lane.layers.proposing.marks import SitterOnCanvas
from yarrow_lane.layers.proposing.propose import propose
from yarrow_lane.layers.raster import labels_of, mask_of, px_per_mm, raster_size, rings_of_labels
from yarrow_lane.layers.regions import Region
from yarrow_lane.layers.strokes.pieces import Pieces, pieces_of
from yarrow_lane.layers.wells_for import AreaColours
from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Circle, Point, Rect
from yarrow_lane.measure.progress import SILENT, Progress
from yarrow_lane.measure.raster import Picture

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")


def _on_raster(picture: Picture, canvas: Rect) -> tuple[Picture, float]:
    """The reference on the working raster, and its px per mm."""
    scale = px_per_mm(canvas)
    size = raster_size(canvas, scale)
    smaller = size[0] < picture.shape[1]
    found = cv2.resize(picture, size, interpolation=cv2.INTER_AREA if smaller else cv2.INTER_LINEAR)
    return np.ascontiguousarray(found, np.uint8), scale


def propose_regions(
    picture: Picture, canvas: Rect, sitters: Sequence[SitterOnCanvas], first_id: int, progress: Progress = SILENT
) -> tuple[Region, ...]:  # fmt: skip
    """A first set of regions, ids from `first_id` on, sitters back to front. All of it guessed."""
    small, scale = _on_raster(picture, canvas)
    size = (small.shape[1], small.shape[0])
    found = propose(small, [s.in_px(size, scale) for s in sitters], scale, progress)
    rings = rings_of_labels(found.labels, canvas)
    parts = [p for p in found.parts if p.label in rings]
    return tuple(
        Region(first_id + n, p.name, p.kind, rings[p.label], p.sitter_id, p.part) for n, p in enumerate(parts)
    )  # fmt: skip


def picture_pieces(
    picture: Picture, canvas: Rect, regions: Mapping[int, Rings], care: Sequence[Circle], progress: Progress = SILENT
) -> Pieces:  # fmt: skip
    """The picture in small pieces that keep the regions' borders; smaller inside the circles of `care`."""
    small, scale = _on_raster(picture, canvas)
    labels = labels_of(regions, (small.shape[1], small.shape[0]), scale)
    near = [((x * scale, y * scale), r * scale) for (x, y), r in care]
    return pieces_of(small, labels, scale, near, progress)


def area_colours(
    picture: Picture, canvas: Rect, regions: Mapping[int, Rings], grounds: Collection[int], progress: Progress = SILENT
) -> dict[int, AreaColours]:  # fmt: skip
    """What colours each region has from its darks to its lights, and how wide it is; `grounds` are the background's ids."""
    small, scale = _on_raster(picture, canvas)
    masks = {i: mask_of(rings, (small.shape[1], small.shape[0]), scale) for i, rings in regions.items()}
    return colours_of(small, scale, masks, grounds, progress)


def read_lie(picture: Picture, canvas: Rect, hairs: Sequence[tuple[Rings, float]], progress: Progress = SILENT) -> Read:
    """What the picture says of the lie; `hairs` are the hairy regions with the usual length of their hair."""
    scale = picture.shape[1] / canvas.width
    usual = np.zeros(picture.shape[:2], np.float32)
    for rings, length in hairs:
        usual[mask_of(rings, (picture.shape[1], picture.shape[0]), scale)] = length
    return read(picture, scale, usual, progress)


def lie_of_fur(found: Read, lie: Lie, noses: Sequence[Point], progress: Progress = SILENT) -> Flow:
    """The lie with what the painter said."""
    return flow_of(found, lie, noses)


def climbing_order(
    picture: Picture, flow: Flow, regions: Mapping[int, Rings], levels: Mapping[int, int],
    taken: Sequence[tuple[int, int, Rings, bool]], canvas: Rect, progress: Progress = SILENT,
) -> Climb:  # fmt: skip
    """Patches in the order to paint."""
    return climb(picture, flow, regions, levels, taken, canvas, progress)


def play_scene(
    picture: Picture, canvas: Rect, regions: Mapping[int, Rings], areas: Sequence[PlayArea], flow: Flow | None,
    ground: tuple[int, int, int], paper: bool, progress: Progress = SILENT,
) -> tuple[Scene, NDArray[np.uint8]]:  # fmt: skip
    """What Play paints from, and the canvas begun."""
    small, scale = _on_raster(picture, canvas)
    size = (small.shape[1], small.shape[0])
    labels = labels_of(regions, size, scale)
    columns, rows = max(1, round(canvas.width)), max(1, round(canvas.height))
    if flow is not None:
        ways = np.asarray(cv2.resize(np.dstack([flow.x, flow.y]), (columns, rows), interpolation=cv2.INTER_LINEAR), np.float64)
        ways = ways / (np.linalg.norm(ways, axis=2, keepdims=True) + 1e-6)
        hair = np.asarray(cv2.resize(flow.length, size, interpolation=cv2.INTER_LINEAR), np.float32)
    else:
        ways = np.dstack([np.zeros((rows, columns)), np.ones((rows, columns))])
        hair = np.full(size[::-1], 10.0, np.float32)
    scene = Scene(fitted_to_paint(small), labels, tuple(areas), ways.astype(np.float32), hair, scale, paper, ground)
    return scene, begun(scene)


def play_area(
    scene: Scene, region_id: int, ground: NDArray[np.uint8], coats: Sequence[PlayCoat], overhang: bool, progress: Progress = SILENT
) -> Stack:  # fmt: skip
    """One area's states after each of its coats."""
    told = 0

    def tick() -> None:
        nonlocal told
        told += 1
        progress.at(min(0.99, told / (12 * max(1, len(coats)))))

    return stacked(stack(scene, scene.area(region_id), ground, coats, overhang, tick), ground)
