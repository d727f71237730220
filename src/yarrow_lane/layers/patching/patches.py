"""Patches of one painting: proposed from the flow, or as the painter took them, with what holds for each and the order to paint."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import TYPE_CHECKING

import numpy as np

from yarrow_lane.layers.coverage import Rings
from yarrow_lane.layers.flow.axis import Field
from yarrow_lane.layers.flow.flow import Flow
from yarrow_lane.layers.patching.cells import cells_of, features_of
from yarrow_lane.layers.patching.merging import merged, patches_wanted, rounded, settled
from yarrow_lane.layers.patching.order import Broken, broken_pairs, climbing, kept_share, overlaps_of
from yarrow_lane.layers.raster import Labels, mask_of, rings_of_labels
from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Point, Rect
from yarrow_lane.measure.progress import SILENT, Progress
from yarrow_lane.measure.raster import Picture

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

_CELLS_PER_PATCH, _FEWEST_CELLS = 6, 320
_TURNS_DEG, _SPLIT_DEG = (
    30.0,
    50.0,
)  # circular spread above which strokes turn with the form; above which a patch should be cut (trials)
_HAIRS_SHARE = 0.4  # of an edge's hairs that are pulled over it by hand, a hair every 4 mm (our choice)


@dataclass(frozen=True)
class PatchFacts:
    """One patch in the order to paint.

    `angle` degrees clockwise of 12 towards which hair grows, `spread` its circular standard deviation, `length` mm, `lightness` L*.
    `pull` says what to do by hand afterwards, "" for nothing.
    """

    id: int
    region_id: int
    rings: Rings
    cm2: float
    middle: Point
    angle: float
    spread: float
    length: float
    lightness: float
    dots: float
    doubt: float
    locked: bool = False
    pull: str = ""

    @property
    def clock(self) -> float:
        """Towards so many o'clock, to the half hour."""
        return round(self.angle / 30 * 2) / 2 % 12 or 12.0

    @property
    def turns(self) -> bool:
        """Whether strokes turn with the form instead of going one way."""
        return self.spread > _TURNS_DEG


@dataclass(frozen=True)
class Climb:
    """All patches in the order to paint; `kept` is the share of overlap that the order keeps."""

    patches: tuple[PatchFacts, ...]
    kept: float
    broken: tuple[Broken, ...]


def climb(
    picture: Picture, flow: Flow, regions: Mapping[int, Rings], levels: Mapping[int, int], taken: Sequence[tuple[int, int, Rings, bool]],
    canvas: Rect, progress: Progress = SILENT,
) -> Climb:  # fmt: skip
    """The patches of the hairy `regions` (id to rings) in the order to paint.

    `levels` puts regions one after the other (smaller first). `taken` are the painter's: (id, region id, rings, locked); all of them in
    their order, or, where only locked ones are given, they stay and the rest is proposed round them.
    """
    rows, columns = flow.x.shape
    lab = _lab(picture, (columns, rows))
    of_region = np.zeros((rows, columns), np.int32)
    for i, rings in regions.items():
        of_region[mask_of(rings, (columns, rows), 1 / flow.px_mm)] = i
    free = of_region.copy()
    kept_masks = []
    for _, region_id, rings, _ in taken:
        mask = mask_of(rings, (columns, rows), 1 / flow.px_mm) & (of_region == region_id)
        kept_masks.append(mask)
        free[mask] = 0
    soft = [cv2.GaussianBlur(np.ascontiguousarray(a), (0, 0), 2 / flow.px_mm) for a in (flow.x, flow.y)]
    size = np.maximum(np.hypot(*soft), 1e-6)
    features = features_of(soft[0] / size, soft[1] / size, lab, flow.length)
    whole = bool(taken) and not all(t[3] for t in taken)
    labels = np.zeros((rows, columns), np.int32)
    if not whole and (free > 0).any():
        wanted = patches_wanted(float((free > 0).sum()) * flow.px_mm**2 / 100)
        cells = cells_of(features, free, max(_FEWEST_CELLS, _CELLS_PER_PATCH * wanted))
        progress.at(0.4)
        labels = rounded(merged(cells, wanted, flow.px_mm), free, flow.px_mm)
        over, _ = overlaps_of(labels, flow.x, flow.y, flow.length, flow.px_mm)
        labels = _numbered(settled(labels, over, features, free))
    progress.at(0.7)
    ids = [t[0] for t in taken]
    next_id = max(ids, default=0) + 1
    made = [(next_id + n, int(of_region[labels == n + 1][0])) for n in range(int(labels.max()))]
    first = int(labels.max())
    for n, mask in enumerate(kept_masks):
        labels[mask] = first + n + 1
    there = [n for n in range(first + len(kept_masks)) if (labels == n + 1).any()]
    labels = _numbered(labels)
    known = [*((i, r, False) for i, r in made), *((t[0], t[1], t[3]) for t in taken)]
    known = [known[n] for n in there]
    over, border = overlaps_of(labels, flow.x, flow.y, flow.length, flow.px_mm)
    level = np.array([levels.get(r, 0) for _, r, _ in known], np.int64)
    over[level[:, None] != level] = 0  # between levels what is nearer lies over, whatever the lie
    outlines = {n + 1: rings_of_patch for n, rings_of_patch in enumerate(_rings(labels, canvas, len(known)))}
    for n, (i, _, _) in enumerate(known):
        told = next((t[2] for t in taken if t[0] == i), None)
        outlines[n + 1] = told if told is not None else outlines[n + 1]
    facts = [_facts(n + 1, labels, flow, lab, outlines[n + 1], *known[n]) for n in range(len(known))]
    if whole:
        place = {f.id: n for n, f in enumerate(facts)}
        order = [place[i] for i in ids if i in place]
    else:
        middles = np.array([f.middle for f in facts], np.float64).reshape(-1, 2)
        order = climbing(over, border, middles, np.array([f.lightness for f in facts]), level)
    broken = broken_pairs(over, order)
    number = {n: at + 1 for at, n in enumerate(order)}
    told_of = {
        b.over: f"after {number[b.under]}, pull {_hairs(border[b.over, b.under])} hairs of {number[b.over]} over its edge"
        for b in reversed(broken)
    }
    ordered = tuple(_with_pull(facts[n], told_of.get(n, "")) for n in order)
    pairs = tuple(Broken(facts[b.over].id, facts[b.under].id, b.share) for b in broken)
    return Climb(ordered, kept_share(over, order), pairs)


def _hairs(border_mm: float) -> int:
    return max(2, round(border_mm / 4 * _HAIRS_SHARE))


def _lab(picture: Picture, size: tuple[int, int]) -> Field:
    """CIE L*, a*, b* on the grid, squinted at: bilateral, so that masses keep their borders."""
    small = cv2.resize(picture, size, interpolation=cv2.INTER_AREA)
    lab = cv2.cvtColor(np.ascontiguousarray(small).astype(np.float32) / 255, cv2.COLOR_RGB2LAB)
    for _ in range(2):
        lab = cv2.bilateralFilter(lab, -1, 14.0, 4.0)
    return np.asarray(lab, np.float32)


def _numbered(labels: Labels) -> Labels:
    there = np.unique(labels[labels > 0])
    lookup = np.zeros(int(labels.max()) + 1, np.int32)
    lookup[there] = np.arange(1, len(there) + 1)
    return np.asarray(lookup[labels], np.int32)


def _rings(labels: Labels, canvas: Rect, count: int) -> list[Rings]:
    """Borders of the patches, shared where they meet; the grid's rim is the ground around."""
    found = rings_of_labels(labels + 1, canvas, 1.0)
    return [found.get(n + 2, ()) for n in range(count)]


def _facts(
    label: int, labels: Labels, flow: Flow, lab: Field, rings: Rings, patch_id: int, region_id: int, locked: bool
) -> PatchFacts:  # fmt: skip
    mask = labels == label
    x, y = float(flow.x[mask].mean()), float(flow.y[mask].mean())
    size = float(np.hypot(x, y))
    depth = cv2.distanceTransform(np.pad(mask.astype(np.uint8), 1), cv2.DIST_L2, 5)[1:-1, 1:-1]
    row, column = np.unravel_index(int(depth.argmax()), depth.shape)
    spread = float(np.degrees(np.sqrt(max(0.0, -2 * np.log(max(size, 1e-6))))))
    return PatchFacts(
        patch_id, region_id, rings, float(mask.sum()) * flow.px_mm**2 / 100,
        ((float(column) + 0.5) * flow.px_mm, (float(row) + 0.5) * flow.px_mm),
        float(np.degrees(np.arctan2(x, -y))) % 360, spread, float(np.exp(np.median(np.log(np.maximum(flow.length[mask], 0.5))))),
        float(np.median(lab[..., 0][mask])), float(flow.dots[mask].mean()), float(np.median(flow.doubt[mask])), locked,
    )  # fmt: skip


def _with_pull(facts: PatchFacts, words: str) -> PatchFacts:
    return replace(facts, pull=words) if words else facts


def wants_cutting(facts: PatchFacts) -> bool:
    """Whether hair runs so many ways in it that it should be two patches."""
    return facts.spread > _SPLIT_DEG
