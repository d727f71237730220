"""Strokes of one coat in mm: where, along what, how long, in which colour, in which order. Nothing here knows a scale of drawing."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.layers.flow.axis import Field
from yarrow_lane.measure.late import late

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

Tick = Callable[[], None]

_ROW = 8192  # remap takes at most 32767 columns
_WEIGHT = np.array([1, 1.3, 1.3], np.float32)  # hue and chroma count more than value when a well is chosen


@dataclass(frozen=True)
class Strokes:
    """`points` (n, k, 2) mm, root first; `colour` (n) an index into `wells` (c, 3) sRGB; `group` (n) painted in turn; `length` (n) mm.

    `taper`: whether they run out to a point.
    """

    points: NDArray[np.float32]
    width: float
    colour: NDArray[np.int32]
    wells: NDArray[np.uint8]
    group: NDArray[np.int32]
    length: NDArray[np.float32]
    taper: bool


def unit(i: NDArray[np.int64], j: NDArray[np.int64], salt: int) -> NDArray[np.float32]:
    """Repeatable numbers in [0, 1) from a cell of the canvas: the same stroke wherever one looks from."""
    mask = np.uint64(0xFFFFFFFF)
    h = (i.astype(np.uint64) * np.uint64(0x9E3779B1) ^ j.astype(np.uint64) * np.uint64(0x85EBCA77)) & mask
    h = (h ^ np.uint64(salt * 0xC2B2AE3D & 0xFFFFFFFF)) & mask
    for shift, factor in ((16, 0x7FEB352D), (15, 0x846CA68B)):
        h = ((h ^ (h >> np.uint64(shift))) * np.uint64(factor)) & mask
    return np.asarray((h ^ (h >> np.uint64(16))) / 2.0**32, np.float32)


def seeds(
    box: tuple[float, float, float, float], cell: float, salt: int
) -> tuple[NDArray[np.float32], NDArray[np.int64], NDArray[np.int64]]:
    """One place in each cell of a fixed lattice over a box of mm, with the cell's numbers."""
    left, top, right, bottom = box
    across, down = np.arange(int(left / cell), int(right / cell) + 1), np.arange(int(top / cell), int(bottom / cell) + 1)
    i, j = (g.ravel().astype(np.int64) for g in np.meshgrid(across, down))
    at = np.c_[(i + unit(i, j, salt)) * cell, (j + unit(i, j, salt + 1)) * cell]
    return at.astype(np.float32), i, j


def sample(field: Field, at: NDArray[np.float32], per_mm: float, origin: tuple[float, float] = (0.0, 0.0)) -> Field:
    """Values of a raster at places in mm (…, 2); held at its rim."""
    x = ((at[..., 0] - origin[0]) * per_mm - 0.5).astype(np.float32)
    y = ((at[..., 1] - origin[1]) * per_mm - 0.5).astype(np.float32)
    shape, count = x.shape, x.size
    rows = max(1, -(-count // _ROW))
    pad = rows * _ROW - count
    x, y = np.pad(x.ravel(), (0, pad)), np.pad(y.ravel(), (0, pad))
    found = cv2.remap(
        field, x.reshape(rows, -1), y.reshape(rows, -1), cv2.INTER_LINEAR, borderMode=cv2.BORDER_REPLICATE
    )  # fmt: skip
    beyond = field.shape[2:]
    return np.asarray(found.reshape(rows * _ROW, *beyond)[:count].reshape(*shape, *beyond), np.float32)


def trace(
    at: NDArray[np.float32], flow: Field, length: NDArray[np.float32], turn: NDArray[np.float32], tick: Tick,
    steps: int = 4, back: float = 0.35,
) -> NDArray[np.float32]:  # fmt: skip
    """Lines of `steps` + 1 points along a unit field at 1 px per mm, turned by `turn` rad; the root lies `back` of the length upstream."""
    cos, sin = np.cos(turn), np.sin(turn)

    def way(p: NDArray[np.float32]) -> NDArray[np.float32]:
        v = sample(flow, p, 1.0)
        return np.stack([v[:, 0] * cos - v[:, 1] * sin, v[:, 0] * sin + v[:, 1] * cos], 1)

    p = np.asarray(at - way(at) * (length * back)[:, None], np.float32)
    line = [p]
    for _ in range(steps):
        p = np.asarray(p + way(p) * (length / steps)[:, None], np.float32)
        line.append(p)
        tick()
    return np.stack(line, 1).astype(np.float32)


def wells_of(lab: NDArray[np.float32], count: int) -> NDArray[np.float32]:
    """So many mixed colours that stand for a sample of Lab (n, 3), from dark to light; always the same for the same sample."""
    if not len(lab):
        return np.array([[50, 0, 0]], np.float32)
    some = lab[:: max(1, len(lab) // 1500)].astype(np.float32)
    ordered = some[np.argsort(some[:, 0], kind="stable")]
    wells = ordered[((np.arange(count) + 0.5) / count * len(ordered)).astype(int)].copy()
    for _ in range(6):
        near = (((some[:, None] - wells) * _WEIGHT) ** 2).sum(-1).argmin(1)
        sums = np.zeros_like(wells)
        np.add.at(sums, near, some)
        many = np.bincount(near, minlength=count)[:, None]
        wells = np.where(many > 0, sums / np.maximum(many, 1), wells).astype(np.float32)
    return np.asarray(wells[np.argsort(wells[:, 0], kind="stable")], np.float32)


def with_halves(wells: NDArray[np.float32]) -> NDArray[np.float32]:
    """The wells and the mixes of each with its two nearest: what lies on the mixing board."""
    if len(wells) < 2:
        return wells
    apart = ((wells[:, None] - wells) ** 2).sum(-1) + np.eye(len(wells)) * 1e9
    near = np.argsort(apart, axis=1)[:, :2]
    halves = [(wells + wells[near[:, k]]) / 2 for k in range(min(2, len(wells) - 1))]
    return np.concatenate([wells, *halves]).astype(np.float32)


def nearest(lab: NDArray[np.float32], wells: NDArray[np.float32]) -> NDArray[np.int32]:
    """The well nearest to each colour."""
    found = np.empty(len(lab), np.int32)
    weighed = (wells * _WEIGHT).astype(np.float32)
    size = (weighed * weighed).sum(1)
    for begin in range(0, len(lab), _ROW):
        part = (lab[begin : begin + _ROW] * _WEIGHT).astype(np.float32)
        found[begin : begin + _ROW] = (size[:, None] - 2 * weighed @ part.T).argmin(0)
    return found


def lab_to_srgb(lab: NDArray[np.float32]) -> NDArray[np.uint8]:
    """CIE Lab (n, 3) as sRGB bytes."""
    rgb = cv2.cvtColor(np.ascontiguousarray(lab.reshape(1, -1, 3), np.float32), cv2.COLOR_LAB2RGB)
    return np.asarray(np.clip(rgb, 0, 1).reshape(-1, 3) * 255 + 0.5, np.uint8)
