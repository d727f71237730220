"""Where paint and reference differ, patch by patch: value, warmth and strength of colour, each with its own noise."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING, Literal

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.check.grid import CELL_MM
from yarrow_lane.measure.colour.cielab import LUMINANCE, lab_from_linear
from yarrow_lane.measure.colour.warm import WARM
from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Point

if TYPE_CHECKING:
    from scipy import ndimage
else:
    ndimage = late("scipy.ndimage")

Floats = NDArray[np.float64]
Kind = Literal["value", "warmth"]
KINDS: tuple[Kind, ...] = ("value", "warmth")
PATCH_CELLS = 4  # 12 mm: an eye's or a cheek's plane (our choice)
LIMIT = {"value": 4.0, "warmth": 4.0}  # Lab units a painter would mend: our choice, above the noise measured
SURE = 2.5  # times its own noise
_EACH = 0.6  # of the limit that each of two photographs must show by itself: our choice
_LEAST_SD = 0.5
_OFF_MM = 0.42  # what is left of the drawing's error once the painting is moved back (measured)
_LEAST_PATCHES = 2
_UPPER = 75  # percentile of a clump told: soft borders would understate it


@dataclass(frozen=True, eq=False)
class Patches:
    """`off` (h, w, 3) value, warmth, chroma; `sd` the same for value and warmth; `at` (h, w, 2) middles, mm; `label` (h, w) region."""

    off: Floats
    sd: Floats
    at: Floats
    label: NDArray[np.int64]
    wanted: Floats  # (h, w, 3) Lab of the reference there
    seen: Floats  # (h, w, 3) Lab of the paint


@dataclass(frozen=True, eq=False)
class Clump:
    """Patches that are off alike: by how much (signed), where, mm², and of which region; `mask` (h, w) of the patches."""

    kind: Kind
    off: float
    sd: float
    at: Point
    mm2: float
    label: int
    mask: NDArray[np.bool_]


def patches_of(
    painting: Floats, reference: Floats, doubt: Floats, labels: NDArray[np.int64], size_mm: tuple[float, float]
) -> Patches:
    """From evened linear light on cells, (h, w, 3) each; `doubt` (h, w) is the light's, ln."""
    paint, wanted = lab_from_linear(painting), lab_from_linear(reference)
    off = paint - wanted
    chroma = np.hypot(wanted[..., 1], wanted[..., 2])
    along = wanted[..., 1:] / np.maximum(chroma, 4)[..., None]
    warm = np.array(WARM)
    felt = np.stack([off[..., 0], off[..., 1:] @ warm, (off[..., 1:] * along).sum(-1)], -1)
    steep = _steepness(np.stack([wanted[..., 0], wanted[..., 1:] @ warm, chroma], -1), size_mm)
    windows = _windows(felt)
    middle = np.median(windows, -1)
    spread = 1.48 * np.median(np.abs(windows - middle[..., None]), -1)
    many = windows.shape[-1]
    ordered = np.sort(windows, -1)
    told = ordered[..., many // 4 : many - many // 4].mean(-1)
    sd = np.sqrt(spread**2 / (many / 3) + (_windows(steep).mean(-1) * _OFF_MM) ** 2 + _LEAST_SD**2)
    bright = _windows((reference @ LUMINANCE)[..., None]).mean(-1)
    # L* of a relative error: 116/3 times the cube root of the luminance.
    sd[..., 0] = np.hypot(sd[..., 0], (116 / 3 * np.cbrt(bright) * _windows(doubt[..., None]).mean(-1))[..., 0])
    rows, columns = reference.shape[:2]
    step = PATCH_CELLS // 2
    x = (np.arange(told.shape[1]) * step + PATCH_CELLS / 2) * size_mm[0] / columns
    y = (np.arange(told.shape[0]) * step + PATCH_CELLS / 2) * size_mm[1] / rows
    inner = labels[PATCH_CELLS // 2 :: step, PATCH_CELLS // 2 :: step][: told.shape[0], : told.shape[1]]
    return Patches(
        told, sd, np.stack(np.meshgrid(x, y), -1), inner, np.median(_windows(wanted), -1), np.median(_windows(paint), -1)
    )


def _windows(field: Floats) -> Floats:
    """(h, w, C, cells of a patch), every half patch."""
    step = PATCH_CELLS // 2
    found = np.lib.stride_tricks.sliding_window_view(field, (PATCH_CELLS, PATCH_CELLS), axis=(0, 1))[::step, ::step]
    return np.asarray(found.reshape(*found.shape[:3], -1))


def _steepness(field: Floats, size_mm: tuple[float, float]) -> Floats:
    """Change per mm."""
    soft = ndimage.gaussian_filter(field, (0.7, 0.7, 0))
    mm = size_mm[0] / field.shape[1]
    return np.asarray(np.hypot(ndimage.sobel(soft, 1), ndimage.sobel(soft, 0)) / 8 / mm)


def flagged(patches: Patches, spoken: NDArray[np.bool_]) -> NDArray[np.int64]:
    """-1, 0 or 1 for value and warmth, (h, w, 2): off by more than the limit and than its noise; only where `spoken`."""
    limits = np.array([LIMIT[k] for k in KINDS])
    off, sd = patches.off[..., :2], patches.sd[..., :2]
    beyond = (np.abs(off) > limits) & (np.abs(off) > SURE * sd) & spoken[..., None]
    return np.where(beyond, np.sign(off), 0).astype(np.int64)


def whole_patches(cells: NDArray[np.bool_], patches: Patches) -> NDArray[np.bool_]:
    """Patches (h, w) that lie wholly on those cells."""
    rows, columns = patches.off.shape[:2]
    inner = ndimage.binary_erosion(cells, np.ones((3, 3)), border_value=1)
    step = PATCH_CELLS // 2
    return np.asarray(inner[step::step, step::step][:rows, :columns])


def agreed(
    flags: NDArray[np.int64], own: Sequence[Patches], shine: Sequence[NDArray[np.bool_]]
) -> NDArray[np.int64]:  # fmt: skip
    """Only what every photograph shows by itself, at most of the limit; one that shines there (h, w) is not asked."""
    limits = np.array([LIMIT[k] for k in KINDS]) * _EACH
    for patches, mask in zip(own, shine, strict=True):
        off = patches.off[..., :2]
        shown = (np.sign(off) == flags) & (np.abs(off) > limits)
        flags = np.where(shown | mask[..., None], flags, 0)
    return flags


def clumps_of(flags: NDArray[np.int64], patches: Patches, parts: Sequence[NDArray[np.bool_]]) -> tuple[Clump, ...]:
    """Touching patches that are off alike, cut at the borders of `parts` (h, w); two at least."""
    found = []
    for number, kind in enumerate(KINDS):
        for sign in (-1, 1):
            for part in parts:
                named, count = ndimage.label((flags[..., number] == sign) & part, np.ones((3, 3)))
                for n in range(1, count + 1):
                    mask = named == n
                    if mask.sum() >= _LEAST_PATCHES:
                        found.append(_clump(kind, number, sign, mask, patches))
    return tuple(found)


def _clump(kind: Kind, number: int, sign: int, mask: NDArray[np.bool_], patches: Patches) -> Clump:
    off = patches.off[..., number][mask]
    weight = np.abs(off)
    x, y = (float((patches.at[..., k][mask] * weight).sum() / weight.sum()) for k in (0, 1))
    names, counts = np.unique(patches.label[mask], return_counts=True)
    return Clump(
        kind, sign * float(np.percentile(weight, _UPPER)), float(np.median(patches.sd[..., number][mask])), (x, y),
        float(mask.sum() * (PATCH_CELLS * CELL_MM / 2) ** 2), int(names[int(np.argmax(counts))]), mask,
    )  # fmt: skip
