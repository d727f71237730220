"""A painting measured: drawing first, then its light evened, then colours patch by patch."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.check.differences import agreed, flagged, patches_of, whole_patches
from yarrow_lane.check.drawing import Moves, Plain, alike, moved_back, moves_of, places_moved, plain
from yarrow_lane.check.edges import soft_edges
from yarrow_lane.check.faults import areas_off, colour_faults, holds_within
from yarrow_lane.check.greys import Curve, curve_of
from yarrow_lane.check.grid import cells_of, labels_of, px_per_mm_for
from yarrow_lane.check.laid import Laid, PaintingTrouble, PhotoAsked, laid
from yarrow_lane.check.light import Field, field_of
from yarrow_lane.check.measured import AreaAsked, HiddenShare, Measured
from yarrow_lane.check.shine import shine_apart
from yarrow_lane.measure.colour.cielab import lab_from_linear, lightness_from_srgb8, linear_from_lab
from yarrow_lane.measure.colour.srgb import linear_from_srgb8, srgb8_from_linear
from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Point
from yarrow_lane.measure.progress import SILENT, Progress
from yarrow_lane.measure.raster import Picture, resample
from yarrow_lane.palette.answers import fitted_darks

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

Floats = NDArray[np.float64]
Mask = NDArray[np.bool_]
# Correlation of structure: below it another picture is painted there (measured: others to 0.32, paintings from 0.87).
_LEAST_ALIKE = 0.45
# How far bare ground speaks of the light against paint: its colour is known, its weave is not; where the colour is not, hardly.
_BARE, _BARE_UNKNOWN = 0.4, 0.02


@dataclass(frozen=True, eq=False)
class _Wanted:
    """The reference as paint can show it: linear `light` on cells (h, w, 3), `lightness` and `plain` (H, W). What is judged of it:
    `labels` (h, w) of regions, `bare` (h, w) what is not painted, `painted` (H, W) what is, `witness` (h, w) how far it speaks of the light.
    """

    size_mm: tuple[float, float]
    px_per_mm: float
    light: Floats
    lightness: NDArray[np.float32]
    plain: Plain
    labels: NDArray[np.int64]
    bare: Mask
    painted: Mask
    witness: Floats


@dataclass(frozen=True, eq=False)
class _Looked:
    """One photograph evened: moved-back linear `cells` (h, w, 3), its light and curve; the `moves` (H, W, 2) px that brought it back, and its
    plain picture (H, W) as it lies.
    """

    cells: Floats
    field: Field
    curve: Curve
    moves: Moves
    plain: Plain


def measured(
    photos: Sequence[PhotoAsked], reference: Picture, size_mm: tuple[float, float], areas: Sequence[AreaAsked],
    places: Sequence[tuple[str, Point]], ground_srgb: tuple[int, int, int] | None = None, progress: Progress = SILENT,
) -> Measured:  # fmt: skip
    """One photograph, or two of one state with lamp or camera moved. `reference` (H, W, 3) sRGB of the whole canvas.

    Areas that are not painted yet show the ground and are left out. Raises `Trouble`, `Cancelled`.
    """
    every, looked = [], []
    for n, photo in enumerate(photos):
        every.append(laid(photo, size_mm, px_per_mm_for(size_mm)))
        progress.at((n + 1) / len(photos) * 0.4)
    wanted = _wanted(reference, every[0].flat, size_mm, areas, ground_srgb)
    for n, one in enumerate(every):
        looked.append(_looked(one, wanted))
        progress.at(0.4 + (n + 1) / len(every) * 0.4)
    cells, doubt, shine = _merged(looked)
    shone = np.logical_and.reduce(shine)
    patches = patches_of(cells, wanted.light, doubt, wanted.labels, size_mm)
    spoken = whole_patches(~wanted.bare & ~shone, patches)
    flags = flagged(patches, spoken)
    if len(looked) > 1:
        own = [patches_of(k.cells, wanted.light, k.field.sd, wanted.labels, size_mm) for k in looked]
        flags = agreed(flags, own, [~whole_patches(~mask, patches) for mask in shine])
    evened = _evened(every[0], looked[0])
    whole, moved, noise = places_moved(wanted.plain, looked[0].plain, wanted.px_per_mm, places, wanted.painted)
    back = lightness_from_srgb8(moved_back(evened, looked[0].moves))
    field = min((k.field for k in looked), key=lambda f: float(f.sd.mean()))
    progress.at(1.0)
    return Measured(
        flat=evened,
        weak=tuple(k.straight.weak for k in every),
        greys=tuple(k.greys.groups if k.greys is not None else 0 for k in every),
        all_round=any(k.greys is not None and k.greys.all_round for k in every),
        by_sheet=every[0].sheet is not None,
        colour=colour_faults(flags, patches, areas),
        whole=whole,
        moved=moved,
        noise_mm=noise,
        hidden=_hidden(field, wanted.labels, areas),
        painted=float((~wanted.bare).mean()),
        shone_at=_middles(shone, size_mm),
        holds=holds_within(patches, spoken),
        areas=areas_off(patches, spoken, areas),
        soft_edges=soft_edges(wanted.lightness, back, wanted.px_per_mm, wanted.painted),
    )


def _wanted(
    reference: Picture, flat: Picture, size_mm: tuple[float, float], areas: Sequence[AreaAsked],
    ground_srgb: tuple[int, int, int] | None,
) -> _Wanted:  # fmt: skip
    """Everything the photographs are held against, at their size."""
    px_per_mm = px_per_mm_for(size_mm)
    height, width = flat.shape[:2]
    picture = resample(reference, width, height)
    cells = cells_of(linear_from_srgb8(picture), px_per_mm)
    light = np.maximum(linear_from_lab(fitted_darks(lab_from_linear(cells))), 1e-4)
    labels = labels_of([a.rings for a in areas], (light.shape[0], light.shape[1]), size_mm)
    bare = np.isin(labels, [n for n, a in enumerate(areas, 1) if not a.painted])
    painted = cv2.resize((~bare).astype(np.uint8), (width, height), interpolation=cv2.INTER_NEAREST) > 0
    if not painted.any():
        raise PaintingTrouble("nothing is painted yet", "finish a first pass at the easel")
    if ground_srgb is not None:
        light = np.where(bare[..., None], linear_from_srgb8(np.array([[ground_srgb]], np.uint8)), light)
    witness = np.where(bare, _BARE if ground_srgb is not None else _BARE_UNKNOWN, 1.0)
    lightness = lightness_from_srgb8(picture)
    return _Wanted(size_mm, px_per_mm, light, lightness, plain(lightness, px_per_mm), labels, bare, painted, witness)


def _looked(one: Laid, wanted: _Wanted) -> _Looked:
    """Moved back by its own drawing, then evened. Raises `PaintingTrouble` for another painting."""
    as_it_lies = plain(lightness_from_srgb8(one.flat), wanted.px_per_mm)
    moves = _over_paint(moves_of(wanted.plain, as_it_lies, wanted.px_per_mm)[0], wanted.painted)
    back = moved_back(one.flat, moves)
    if alike(wanted.plain, plain(lightness_from_srgb8(back), wanted.px_per_mm), wanted.painted) < _LEAST_ALIKE:
        raise PaintingTrouble(
            "what the photograph shows does not look like the reference: another painting, or only part of it",
            "choose the photograph of this painting, all four corners in it",
        )
    curve = curve_of(one.greys)
    cells = np.asarray(cells_of(curve.undone(linear_from_srgb8(back)), wanted.px_per_mm), np.float64)
    greys = one.greys.undone(curve) if one.greys is not None else None
    field = field_of(cells, wanted.light, wanted.size_mm, wanted.witness, wanted.labels, greys, one.sheet)
    return _Looked(cells / field.seen, field, curve, moves, as_it_lies)


def _over_paint(moves: Moves, painted: Mask) -> Moves:
    """Only paint is moved back: over bare ground there is nothing to follow."""
    if painted.all():
        return moves
    share = cv2.GaussianBlur(painted.astype(np.float32), (0, 0), 3.0)
    return np.asarray(moves * share[..., None], np.float32)


def _merged(looked: Sequence[_Looked]) -> tuple[Floats, Floats, tuple[Mask, ...]]:
    """Evened cells of all photographs as one, the light's doubt, and where each of them shines."""
    cells, sd = np.stack([k.cells for k in looked]), np.stack([k.field.sd for k in looked])
    if len(looked) == 1:
        return cells[0], sd[0], (np.zeros(sd.shape[1:], bool),)
    shine = shine_apart(*lab_from_linear(cells)[..., 0])
    weight = np.where(np.stack(shine), 1e-9, 1.0) / sd**2
    share = weight / weight.sum(0)
    return (share[..., None] * cells).sum(0), np.sqrt((share * sd**2).sum(0)), shine


def _hidden(field: Field, labels: NDArray[np.int64], areas: Sequence[AreaAsked]) -> tuple[HiddenShare, ...]:
    """For every painted region; for the whole where there are none."""
    if not areas:
        return (HiddenShare(0, "whole picture", round(field.hidden(np.ones(labels.shape, bool)), 3)),)
    return tuple(HiddenShare(a.id, a.name, round(field.hidden(labels == n), 3)) for n, a in enumerate(areas, 1) if a.painted)


def _middles(shone: Mask, size_mm: tuple[float, float]) -> tuple[Point, ...]:
    """Where spots of shine lie, canvas mm."""
    count, _, _, middles = cv2.connectedComponentsWithStats(shone.astype(np.uint8))
    scale = size_mm[0] / shone.shape[1], size_mm[1] / shone.shape[0]
    return tuple((round(float(x) * scale[0], 1), round(float(y) * scale[1], 1)) for x, y in middles[1:count])


def _evened(one: Laid, looked: _Looked) -> Picture:
    """The canvas as it lies, its light evened, sRGB."""
    height, width = one.flat.shape[:2]
    light = cv2.resize(looked.field.light.astype(np.float32), (width, height), interpolation=cv2.INTER_CUBIC)
    return srgb8_from_linear(np.clip(looked.curve.undone(linear_from_srgb8(one.flat)) / light, 0, 1))
