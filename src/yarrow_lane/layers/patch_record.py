"""Patches taken by the painter: areas of fur painted in one go, in the order to paint."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import TYPE_CHECKING

from yarrow_lane.layers import coverage
from yarrow_lane.layers.coverage import Rings
from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Polygon
from yarrow_lane.measure.trouble import Trouble

if TYPE_CHECKING:
    import shapely
else:
    shapely = late("shapely")

_LEAST_MM2 = 25.0  # our choice: less is not painted in one go


class PatchTrouble(Trouble):
    """A patch that cannot be."""


@dataclass(frozen=True)
class Patch:
    """One patch, canvas mm; its place among `Patches` is its place in the order. A `locked` one stays when patches are proposed anew."""

    id: int
    region_id: int
    rings: Rings
    locked: bool = False


@dataclass(frozen=True)
class Patches:
    """Those the painter took or corrected, in the order to paint; none while the proposal stands."""

    taken: tuple[Patch, ...] = ()
    next_id: int = 1

    def patch(self, patch_id: int) -> Patch:
        """Raises `PatchTrouble` when it is not there."""
        for patch in self.taken:
            if patch.id == patch_id:
                return patch
        raise PatchTrouble("That patch is not there any more", "the patches were proposed anew")


def taken(shown: Sequence[tuple[int, int, Rings, bool]]) -> Patches:
    """Those shown (id, region id, rings, locked), in their order, as the painter's."""
    return Patches(tuple(Patch(*s) for s in shown), 1 + max((s[0] for s in shown), default=0))


def merge(patches: Patches, patch_id: int, other_id: int) -> Patches:
    """Two patches of one region painted as one, in the place of the first; raises `PatchTrouble` where they do not meet."""
    one, other = patches.patch(patch_id), patches.patch(other_id)
    if one is other or one.region_id != other.region_id:
        raise PatchTrouble("The patches were not merged", "they lie in two regions, or are one")
    both = shapely.union(coverage.ground_of(one.rings), coverage.ground_of(other.rings), grid_size=coverage.GRID_MM)
    if both.geom_type != "Polygon":
        raise PatchTrouble("The patches were not merged", "they do not meet")
    made = replace(one, rings=coverage.rings_of_ground(both))
    return replace(patches, taken=tuple(made if p is one else p for p in patches.taken if p is not other))


def cut(patches: Patches, patch_id: int, line: Polygon) -> Patches:
    """A patch cut in two along a line; the new piece is painted right after. Raises `PatchTrouble` when the line does not divide it."""
    patch = patches.patch(patch_id)
    shape = coverage.ground_of(patch.rings)
    faces = shapely.polygonize([shapely.unary_union([shape.boundary, shapely.LineString(line)])]).geoms
    pieces = sorted((f for f in faces if shape.contains(f.representative_point())), key=lambda f: -f.area)
    pieces = [f for f in pieces if f.area >= _LEAST_MM2]
    if len(pieces) < 2:
        raise PatchTrouble("The patch was not cut", "the line does not go through it from border to border")
    first = replace(patch, rings=coverage.rings_of_ground(shape.difference(pieces[1])))
    second = Patch(patches.next_id, patch.region_id, coverage.rings_of_ground(pieces[1]), patch.locked)
    order = [q for p in patches.taken for q in ((first, second) if p is patch else (p,))]
    return Patches(tuple(order), patches.next_id + 1)


def lock(patches: Patches, patch_id: int, locked: bool) -> Patches:
    """Keep a patch as it is when patches are proposed anew."""
    patch = patches.patch(patch_id)
    return replace(patches, taken=tuple(replace(p, locked=locked) if p is patch else p for p in patches.taken))


def move(patches: Patches, patch_id: int, to: int) -> Patches:
    """Paint a patch as number `to` (0 the first)."""
    patch = patches.patch(patch_id)
    rest = [p for p in patches.taken if p is not patch]
    to = min(max(0, to), len(rest))
    return replace(patches, taken=(*rest[:to], patch, *rest[to:]))


def only_locked(patches: Patches) -> Patches:
    """Propose anew: what is not locked is given up."""
    return replace(patches, taken=tuple(p for p in patches.taken if p.locked))
