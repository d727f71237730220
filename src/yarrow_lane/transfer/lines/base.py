"""All lines there could be, each with the level at which it drops out: worked out once, picked from as often as wished."""

import io
import zipfile
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.late import late
from yarrow_lane.measure.progress import SILENT, Progress
from yarrow_lane.measure.raster import Picture
from yarrow_lane.transfer.lines.arcs import Arcs, arcs_of
from yarrow_lane.transfer.lines.cells import cells_of
from yarrow_lane.transfer.lines.chains import evenly, lengths, means, normals, smoothed
from yarrow_lane.transfer.lines.merging import levels_of
from yarrow_lane.transfer.lines.strength import BASE, WAYS, Plane, Strength, strength_of

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

STEP_MM = 0.5  # between the points of a line
# All our choice, tuned on rendered sitters.
_SEED_MM = 0.6  # the strength is smoothed so far before its hollows become cells
_CRACK_MM = 1.2  # the stairs of pixel borders are smoothed so far
_REACH_MM, _OFFSET_MM = 1.0, 0.25  # a line moves so far to the crest, tried in such steps
_END_MM = 3.0  # ends are brought together over so much of the line
_NEAR_MM, _FAR_MM = 0.7, 2.4  # beside a thin light or dark line, and beyond it
_THIN = 0.45  # of the near difference left beyond: it is a line on one surface, not a border of two
_THIN_LEAST = 4.0  # L* of a thin line against its surroundings
_HAIR = 0.3  # what a thin light line counts: whiskers and single hairs are painted, not drawn
_VERSION = 1


@dataclass(frozen=True)
class Base:
    """Arcs from junction to junction, canvas mm: `points` (N, 2), `starts` (A + 1), `nodes` (A, 2) junction numbers.

    `level` (A) colour-difference units, `rough` (A) the unrest of both sides, `dark` (A) thin dark lines (a mouth's slit, a lash line),
    `strength` (N) at each point.
    """

    points: NDArray[np.float32]
    starts: NDArray[np.int64]
    nodes: NDArray[np.int64]
    level: NDArray[np.float32]
    rough: NDArray[np.float32]
    dark: NDArray[np.bool_]
    strength: NDArray[np.float32]

    @property
    def count(self) -> int:
        return len(self.level)


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
    points, dark, light = _on_their_crest(strength, points, starts)
    local *= np.where(np.repeat(light, np.diff(starts)), _HAIR, 1.0)
    points = _ends_met(points, starts, arcs, local)
    area = np.bincount(cells.ravel()).astype(np.float64) / BASE**2
    level = levels_of(arcs.cells, means(local, starts), np.maximum(lengths(points, starts), STEP_MM), area)
    rough = means(_at(strength.rough, points), starts)
    progress.at(1.0)
    return Base(
        points.astype(np.float32), starts, arcs.nodes, level.astype(np.float32), rough.astype(np.float32), dark,
        local.astype(np.float32),
    )  # fmt: skip


def _at(plane: Plane, points_mm: NDArray[np.float64]) -> NDArray[Any]:
    """The plane's values (N) or (N, C) at places in mm; px middles lie half a px from their corners."""
    places = (points_mm * BASE - 0.5).astype(np.float32)
    rows = 16_384  # OpenCV takes no longer columns than 32767
    parts = [
        cv2.remap(
            plane, part[:, 0].reshape(-1, 1), part[:, 1].reshape(-1, 1), cv2.INTER_LINEAR, borderMode=cv2.BORDER_REPLICATE
        )
        for part in np.array_split(places, max(1, -(-len(places) // rows)))
    ]
    return np.concatenate(parts).reshape(len(places), *plane.shape[2:])


def _along(by_way: NDArray[np.float32], points: NDArray[np.float64], starts: NDArray[np.int64]) -> NDArray[np.float64]:
    """The strength (N) for the direction in which the line runs there, or a little less for the next ones."""
    across = normals(points, starts)
    turn = np.arctan2(-across[:, 0], across[:, 1]) % np.pi
    way = np.rint(turn / np.pi * WAYS).astype(int) % WAYS
    x = np.clip((points[:, 0] * BASE).astype(int), 0, by_way.shape[2] - 1)
    y = np.clip((points[:, 1] * BASE).astype(int), 0, by_way.shape[1] - 1)
    beside = np.maximum(by_way[(way + 1) % WAYS, y, x], by_way[(way - 1) % WAYS, y, x]) * 0.9
    return np.maximum(by_way[way, y, x], beside).astype(np.float64)


def _on_their_crest(
    strength: Strength, points: NDArray[np.float64], starts: NDArray[np.int64]
) -> tuple[NDArray[np.float64], NDArray[np.bool_], NDArray[np.bool_]]:
    """Points moved along their normals to the strongest place near by; a thin dark line's flanks to its middle.

    Returns the points, and which arcs run along thin dark and thin light lines.
    """
    across = normals(points, starts)
    lab = cv2.GaussianBlur(strength.lab, (0, 0), 0.35 * BASE)
    offsets = np.arange(-_REACH_MM, _REACH_MM + 1e-9, _OFFSET_MM)
    near_one, near_other = (_at(lab, points + side * _NEAR_MM * across) for side in (1, -1))
    far_one, far_other = (_at(lab, points + side * _FAR_MM * across) for side in (1, -1))
    near = means(np.sqrt(((near_one - near_other) ** 2).sum(1)), starts)
    far = means(np.sqrt(((far_one - far_other) ** 2).sum(1)), starts)
    # Along a flank one side is the line itself: it differs from what lies beyond on both sides.
    beyond = (far_one[:, 0] + far_other[:, 0]) / 2
    darker = means(beyond - np.minimum(near_one[:, 0], near_other[:, 0]), starts)
    lighter = means(np.maximum(near_one[:, 0], near_other[:, 0]) - beyond, starts)
    thin = far < _THIN * np.maximum(near, _THIN_LEAST)
    dark = thin & (darker > lighter) & (darker > _THIN_LEAST)
    light = thin & (lighter >= darker) & (lighter > _THIN_LEAST)
    crest = np.stack([_at(strength.fine, points + o * across) for o in offsets], 1)
    depth = np.stack([-_at(lab[..., 0], points + o * across) for o in offsets], 1)
    depth -= depth.min(1, keepdims=True)
    wanted = np.where(np.repeat(dark, np.diff(starts))[:, None], depth, crest)
    wanted = wanted - 0.15 * wanted.max(1, keepdims=True) * (offsets / _REACH_MM) ** 2
    highest = wanted.max(1, keepdims=True)
    weights = np.exp((wanted - highest) / (0.1 * highest + 1e-6))
    move = (weights * offsets).sum(1) / weights.sum(1)
    both = smoothed(np.stack([move, move], 1), starts, 3.0)[:, :1]
    return points + both * across, dark, light


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


def as_bytes(base: Base) -> bytes:
    """As a file of its own."""
    out = io.BytesIO()
    np.savez_compressed(out, version=_VERSION, **{name: getattr(base, name) for name in Base.__dataclass_fields__})
    return out.getvalue()


def from_bytes(data: bytes) -> Base:
    """Read again; raises ValueError when it is none of ours."""
    try:
        with np.load(io.BytesIO(data), allow_pickle=False) as found:
            if int(found["version"]) != _VERSION:
                raise ValueError("lines of another version")
            return Base(**{name: found[name] for name in Base.__dataclass_fields__})
    except (KeyError, OSError, ValueError, EOFError, zipfile.BadZipFile) as error:
        raise ValueError("these are no lines") from error
