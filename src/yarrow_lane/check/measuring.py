"""A painting measured: photographs straightened, drawing first, then light evened, then colours patch by patch."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.canvas_photo.borders import fitted_borders
from yarrow_lane.canvas_photo.straight import Straight, canvas_of, straightened
from yarrow_lane.check.differences import Clump, Patches, agreed, clumps_of, flagged, patches_of
from yarrow_lane.check.drawing import Moves, Plain, alike, moved_back, moves_of, places_moved, plain
from yarrow_lane.check.edges import soft_edges
from yarrow_lane.check.greys import Greys, read_greys, tone_of
from yarrow_lane.check.grid import CELL_MM, cells_of, labels_of, px_per_mm_for
from yarrow_lane.check.light import Field, field_of
from yarrow_lane.check.measured import AreaAsked, AreaOff, ColourFault, HiddenShare, Measured
from yarrow_lane.check.shine import shine_apart
from yarrow_lane.measure.colour.cielab import lab_from_linear, lightness_from_srgb8, linear_from_lab
from yarrow_lane.measure.colour.srgb import linear_from_srgb8, srgb8_from_linear
from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Point, Polygon
from yarrow_lane.measure.progress import SILENT, Progress
from yarrow_lane.measure.raster import Picture, resample
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.palette.answers import fitted_darks

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

Floats = NDArray[np.float64]
_LEAST_ALIKE = (
    0.45  # correlation of structure: below it another picture is painted there (measured: others to 0.32, paintings from 0.87)
)
MOST_WEAK = 1  # sides not seen: with more there is no canvas
_BARE = 0.4  # how far bare ground may speak of the light against paint (its colour is known, its weave is not)
_LEAST_PATCHES = 4  # of a region, to speak of it as a whole
_SLACK, _MOST_OUTSIDE = 0.005, 0.02  # of the frame, and of the canvas
_DARK, _BURNT = 0.012, 0.97  # mean luminance, and what is burnt out
_MOST_BURNT = 0.25
_TOLD_HIDDEN = 0.3
_UNSEEN = "The painting was not measured"


class PaintingTrouble(Trouble):
    """A photograph that cannot be measured against the reference."""


@dataclass(frozen=True, eq=False)
class PhotoAsked:
    """A photograph (H, W, 3) with its corners, px; a `sheet` is one of a flat white sheet in the same place and light."""

    picture: Picture
    corners: Polygon
    sheet: Picture | None = None


@dataclass(frozen=True, eq=False)
class _Laid:
    """One photograph on the canvas's mm: sRGB (H, W, 3), its straightening and its greys."""

    flat: Picture
    straight: Straight
    greys: Greys | None
    sheet: Floats | None


@dataclass(frozen=True, eq=False)
class _Looked:
    """One photograph evened: moved-back linear cells (h, w, 3) with the camera's curve undone, its light; the moves (H, W, 2) px that
    brought it back, its plain picture (H, W) as it lies, and how like the reference it is then.
    """

    cells: Floats
    field: Field
    moves: Moves
    plain: Plain
    alike: float


def measured(
    photos: Sequence[PhotoAsked], reference: Picture, size_mm: tuple[float, float], areas: Sequence[AreaAsked],
    places: Sequence[tuple[str, Point]], ground_srgb: tuple[int, int, int] | None = None, progress: Progress = SILENT,
) -> Measured:  # fmt: skip
    """One photograph, or two of one state with lamp or camera moved. `reference` (H, W, 3) sRGB of the whole canvas.

    Areas that are not painted yet show the ground and are left out. Raises `Trouble`, `Cancelled`.
    """
    px_per_mm = px_per_mm_for(size_mm)
    laid = []
    for n, photo in enumerate(photos):
        laid.append(_laid(photo, size_mm, px_per_mm))
        progress.at((n + 1) / len(photos) * 0.4)
    height, width = laid[0].flat.shape[:2]
    wanted_px = resample(reference, width, height)
    wanted = _cells_wanted(wanted_px, px_per_mm)
    shape = wanted.shape[:2]
    labels = labels_of([a.rings for a in areas], (shape[0], shape[1]), size_mm)
    bare = np.isin(labels, [n for n, a in enumerate(areas, 1) if not a.painted])
    spoken_px = cv2.resize((~bare).astype(np.uint8), (width, height), interpolation=cv2.INTER_NEAREST) > 0
    if not spoken_px.any():
        raise PaintingTrouble(_UNSEEN, "nothing is painted yet", "finish a first pass at the easel")
    if ground_srgb is not None:
        wanted = np.where(bare[..., None], linear_from_srgb8(np.array([[ground_srgb]], np.uint8)), wanted)
    witness = np.where(bare, _BARE if ground_srgb is not None else 0.02, 1.0)
    plain_wanted = plain(lightness_from_srgb8(wanted_px), px_per_mm)
    looked = []
    for n, one in enumerate(laid):
        looked.append(_looked(one, plain_wanted, wanted, witness, labels, size_mm, px_per_mm, spoken_px))
        progress.at(0.4 + (n + 1) / len(laid) * 0.4)
    merged, doubt, shine = _merged(looked)
    shone = np.logical_and.reduce(shine)
    patches = patches_of(merged, wanted, doubt, labels, size_mm)
    spoken = _on_patches(~bare & ~shone, patches)
    flags = flagged(patches, spoken)
    if len(looked) > 1:
        own = [patches_of(k.cells, wanted, k.field.sd, labels, size_mm) for k in looked]
        flags = agreed(flags, own, [~_on_patches(~mask, patches) for mask in shine])
    faults = _colour_faults(flags, patches, areas)
    first = laid[0]
    evened = _evened_picture(first, looked[0], px_per_mm)
    whole, moved, noise = places_moved(plain_wanted, looked[0].plain, px_per_mm, places, spoken_px)
    best = max(looked, key=lambda k: -float(k.field.sd.mean()))
    even = lightness_from_srgb8(moved_back(evened, looked[0].moves))
    soft = soft_edges(lightness_from_srgb8(wanted_px), even, px_per_mm, spoken_px)
    hidden = tuple(
        HiddenShare(a.id, a.name, round(best.field.hidden(labels == n), 3)) for n, a in enumerate(areas, 1) if a.painted
    )
    if not areas:
        hidden = (HiddenShare(0, "the whole picture", round(best.field.hidden(np.ones(shape, bool)), 3)),)
    greys = tuple(one.greys.groups if one.greys is not None else 0 for one in laid)
    all_round = any(one.greys is not None and one.greys.all_round for one in laid)
    progress.at(1.0)
    return Measured(
        evened, px_per_mm, tuple(k.straight.corners for k in laid),
        tuple(k.straight.lens.bulge for k in laid), tuple(k.straight.weak for k in laid), greys, all_round,
        "a white sheet" if first.sheet is not None else "greys and picture" if any(greys) else "the picture alone",
        faults, whole, moved, noise, hidden, float((~bare).mean()), float(shone.mean()), _middles(shone, size_mm),
        float(np.median(np.abs(patches.off[..., 0][spoken]))) if spoken.any() else 0.0,
        float(np.median(patches.sd[..., 0][spoken])) if spoken.any() else 0.0, max(k.alike for k in looked), _areas_off(patches, spoken, areas), soft,
    )  # fmt: skip


def _laid(photo: PhotoAsked, size_mm: tuple[float, float], px_per_mm: float) -> _Laid:
    straight = fitted_borders(photo.picture, straightened(photo.picture, np.asarray(photo.corners, np.float64), size_mm))
    if len(straight.weak) > MOST_WEAK:
        raise PaintingTrouble(
            _UNSEEN, f"no canvas's edges are seen where its corners were set ({', '.join(straight.weak)})",
            "pull the corners right, or photograph the whole canvas with its four edges",
        )  # fmt: skip
    grid = np.stack(np.meshgrid(*(np.linspace(0, side, 21) for side in size_mm)), -1).reshape(-1, 2)
    at = straight.px(grid) / (photo.picture.shape[1], photo.picture.shape[0])
    if ((at < -_SLACK) | (at > 1 + _SLACK)).any(1).mean() > _MOST_OUTSIDE:
        raise PaintingTrouble(
            _UNSEEN, "part of the canvas lies outside the photograph", "photograph all of it, with its four edges"
        )
    flat = canvas_of(photo.picture, straight, px_per_mm)
    light = linear_from_srgb8(flat[::4, ::4])
    if light.mean() < _DARK:
        raise PaintingTrouble(_UNSEEN, "the photograph is nearly black", "photograph it in daylight")
    if (light.min(-1) > _BURNT).mean() > _MOST_BURNT:
        raise PaintingTrouble(_UNSEEN, "a large part of the photograph is burnt out to white", "photograph it darker")
    sheet = None
    if photo.sheet is not None:
        shown = linear_from_srgb8(canvas_of(photo.sheet, straight, px_per_mm))
        sheet = cells_of(cv2.GaussianBlur(shown, (0, 0), 8 * px_per_mm), px_per_mm).astype(np.float64)
        sheet = sheet / sheet.mean((0, 1))
    return _Laid(flat, straight, read_greys(photo.picture, straight), sheet)


def _cells_wanted(picture: Picture, px_per_mm: float) -> Floats:
    """The reference as paint can show it, linear light on cells."""
    cells = cells_of(linear_from_srgb8(picture), px_per_mm)
    return np.maximum(linear_from_lab(fitted_darks(lab_from_linear(cells))), 1e-4)


def _looked(
    one: _Laid, plain_wanted: Plain, wanted: Floats, witness: Floats, labels: NDArray[np.int64], size_mm: tuple[float, float],
    px_per_mm: float, spoken: NDArray[np.bool_],
) -> _Looked:  # fmt: skip
    tone = tone_of(one.greys)
    painted = plain(lightness_from_srgb8(one.flat), px_per_mm)
    moves = _where(moves_of(plain_wanted, painted, px_per_mm)[0], spoken)
    back = moved_back(one.flat, moves)
    like = alike(plain_wanted, plain(lightness_from_srgb8(back), px_per_mm), spoken)
    if like < _LEAST_ALIKE:
        raise PaintingTrouble(
            _UNSEEN, "what the photograph shows does not look like the reference: another painting, or only part of it",
            "choose the photograph of this painting, all four corners in it",
        )  # fmt: skip
    cells = np.asarray(cells_of(tone.undone(linear_from_srgb8(back)), px_per_mm), np.float64)
    greys = one.greys
    if greys is not None:
        greys = Greys(greys.at, tone.undone(greys.light).astype(np.float64), greys.true, greys.group, greys.sides)
    field = field_of(cells, wanted, size_mm, witness, labels, greys, one.sheet)
    return _Looked(cells / field.seen, field, moves, painted, like)


def _where(moves: Moves, spoken: NDArray[np.bool_]) -> Moves:
    """Only paint is moved back: over bare ground there is nothing to follow."""
    if spoken.all():
        return moves
    share = cv2.GaussianBlur(spoken.astype(np.float32), (0, 0), 3.0)
    return np.asarray(moves * share[..., None], np.float32)


def _merged(looked: Sequence[_Looked]) -> tuple[Floats, Floats, tuple[NDArray[np.bool_], ...]]:
    """Evened cells of all photographs as one, the light's doubt, and where each of them shines."""
    first = looked[0]
    if len(looked) == 1:
        return first.cells, first.field.sd, (np.zeros(first.cells.shape[:2], bool),)
    other = looked[1]
    lightness = [lab_from_linear(k.cells)[..., 0] for k in (first, other)]
    here, there = shine_apart(lightness[0], lightness[1])
    weight = np.stack([np.where(here, 0.0, 1 / first.field.sd**2), np.where(there, 0.0, 1 / other.field.sd**2)])
    weight = np.where(weight.sum(0) > 0, weight, 1.0)
    share = weight / weight.sum(0)
    merged = share[0][..., None] * first.cells + share[1][..., None] * other.cells
    doubt = np.sqrt(share[0] * first.field.sd**2 + share[1] * other.field.sd**2)
    return merged, doubt, (here, there)


def _areas_off(patches: Patches, spoken: NDArray[np.bool_], areas: Sequence[AreaAsked]) -> tuple[AreaOff, ...]:
    """The whole first, then every painted region large enough to say something of."""
    every = [(0, "the whole picture", spoken)]
    every += [(a.id, a.name, spoken & (patches.label == n)) for n, a in enumerate(areas, 1) if a.painted]
    return tuple(
        AreaOff(number, name, float(np.median(patches.off[..., 0][mask])), float(np.median(patches.off[..., 1][mask])))
        for number, name, mask in every
        if mask.sum() >= _LEAST_PATCHES
    )


def _on_patches(spoken: NDArray[np.bool_], patches: Patches) -> NDArray[np.bool_]:
    """Patches that lie wholly where something may be said, (h, w)."""
    rows, columns = patches.off.shape[:2]
    inner = cv2.erode(spoken.astype(np.uint8), np.ones((3, 3), np.uint8))
    return inner[2::2, 2::2][:rows, :columns] > 0


def _colour_faults(flags: NDArray[np.int64], patches: Patches, areas: Sequence[AreaAsked]) -> tuple[ColourFault, ...]:
    """Clumps of value and of warmth; where both lie on one place they are one fault."""
    behind = np.isin(patches.label, [0, *(n for n, a in enumerate(areas, 1) if a.behind)])
    parts = [behind, ~behind] if not behind.all() else [behind]
    clumps = list(clumps_of(flags, patches, parts))
    clumps.sort(key=lambda c: -abs(c.off) * c.mm2**0.5)
    found: list[list[Clump]] = []
    for clump in clumps:
        for group in found:
            same = group[0].mask & clump.mask
            if (
                len(group) == 1
                and group[0].kind != clump.kind
                and same.sum() > 0.4 * min(group[0].mask.sum(), clump.mask.sum())
            ):
                group.append(clump)
                break
        else:
            found.append([clump])
    return tuple(_colour_fault(group, patches, areas) for group in found)


def _colour_fault(group: list[Clump], patches: Patches, areas: Sequence[AreaAsked]) -> ColourFault:
    first = group[0]
    off = {c.kind: c.off for c in group}
    wanted, seen = (
        tuple(float(v) for v in np.median(of[first.mask], 0)) for of in (patches.wanted, patches.seen)
    )  # fmt: skip
    area = areas[first.label - 1].id if first.label else 0
    return ColourFault(
        first.at, first.mm2, area, off.get("value", 0.0), off.get("warmth", 0.0), first.sd, wanted, seen,  # type: ignore[arg-type]
        _outline(first, patches),
    )  # fmt: skip


def _outline(clump: Clump, patches: Patches) -> Polygon:
    """Round the patches, canvas mm, smoothed."""
    fine = 8
    mask = cv2.resize(clump.mask.astype(np.uint8) * 255, None, fx=fine, fy=fine, interpolation=cv2.INTER_LINEAR)
    mask = cv2.GaussianBlur(np.pad(mask, fine), (0, 0), fine / 2)
    rings, _ = cv2.findContours((mask > 110).astype(np.uint8), cv2.RETR_EXTERNAL, cv2.CHAIN_APPROX_SIMPLE)
    if not rings:
        return ()
    ring = max(rings, key=cv2.contourArea)[:, 0].astype(float)
    step = patches.at[0, 1] - patches.at[0, 0] if patches.at.shape[1] > 1 else np.array([2 * CELL_MM, 0])
    origin = patches.at[0, 0]
    mm = origin + ((ring - fine + 0.5) / fine - 0.5) * float(step[0])
    return tuple((round(float(x), 1), round(float(y), 1)) for x, y in mm)


def _middles(shone: NDArray[np.bool_], size_mm: tuple[float, float]) -> tuple[Point, ...]:
    """Where spots of shine lie, canvas mm."""
    count, _, _, middles = cv2.connectedComponentsWithStats(shone.astype(np.uint8))
    scale = size_mm[0] / shone.shape[1], size_mm[1] / shone.shape[0]
    return tuple((round(float(x) * scale[0], 1), round(float(y) * scale[1], 1)) for x, y in middles[1:count])


def _evened_picture(laid: _Laid, looked: _Looked, px_per_mm: float) -> Picture:
    """The canvas as it lies, its light evened, sRGB."""
    height, width = laid.flat.shape[:2]
    light = cv2.resize(looked.field.light.astype(np.float32), (width, height), interpolation=cv2.INTER_CUBIC)
    return srgb8_from_linear(np.clip(tone_of(laid.greys).undone(linear_from_srgb8(laid.flat)) / light, 0, 1))
