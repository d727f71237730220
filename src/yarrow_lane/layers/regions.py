"""Regions of the painting: one partition of the canvas, every mm² to one of them, and the painter's school."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise
from math import dist
from typing import TYPE_CHECKING

from yarrow_lane.lane.part import Part, Plain
from yarrow_lane.layers import coverage
from yarrow_lane.layers.coverage import Rings
from yarrow_lane.layers.kinds import KINDS, Kind, facts_of, is_ground
from yarrow_lane.layers.lie_record import Lie
from yarrow_lane.layers.own_order import OwnOrder
from yarrow_lane.layers.patch_record import Patches
from yarrow_lane.layers.school import School, older_school
from yarrow_lane.measure.kept import kept
from yarrow_lane.measure.late import late
from yarrow_lane.measure.outlines import inner_point, shape_of
from yarrow_lane.measure.plane import Point, Polygon, Rect, polygon_bounds
from yarrow_lane.measure.trouble import Trouble

if TYPE_CHECKING:
    import shapely
    from shapely.geometry.base import BaseGeometry
else:
    shapely = late("shapely")

WHISKER_MM = 0.5  # the width by which single strokes count as area (our choice)
LEAST_MM2 = 1.0  # our choice: less than this is nothing to paint


class LayersTrouble(Trouble):
    """A region that cannot be."""


@dataclass(frozen=True)
class Region:
    """One area of the painting, canvas mm; a hole is where another region lies.

    Rings that two regions share have the same corners; the first ring is the outline of the largest piece. Whiskers are `lines` over
    other regions and have no rings. `part` places it in its sitter ("head", "body", "left ear", the sitter's own left); a name that was
    `told` by the painter stays whatever the kind.
    """

    id: int
    name: str
    kind: Kind
    rings: Rings = ()
    sitter_id: int = 0
    part: str = ""
    told: bool = False
    lines: tuple[Polygon, ...] = ()

    @property
    def outline(self) -> Polygon:
        """The outer border of its largest piece; the first line of what has no area."""
        return self.rings[0] if self.rings else self.lines[0] if self.lines else ()

    @property
    def bounds(self) -> Rect:
        """What holds all of it."""
        return polygon_bounds([p for ring in (self.rings or self.lines) for p in ring])

    @property
    def outers(self) -> Rings:
        """The rings without those of holes."""
        return tuple(r for r in self.rings if coverage.ring_signed_mm2(r) > 0)


@dataclass(frozen=True)
class Layers:
    """Regions, the school, the lie of the fur as the painter drew it, patches taken, and the painter's own order.

    Regions with rings are one partition of the canvas once there is any. `next_id` only grows, so that no region's id comes back;
    `made_from` is the reference the regions lie on; `proposed` says that they are the program's and untouched. `focal` is where detail
    belongs, mm; `wells` are pass ids with the well the painter chose for them.
    """

    regions: tuple[Region, ...] = ()
    school: School = School()
    next_id: int = 1
    made_from: str = ""
    proposed: bool = False
    lie: Lie = Lie()
    patches: Patches = Patches()
    own: OwnOrder = OwnOrder()
    focal: Point | None = None
    wells: tuple[tuple[str, int], ...] = ()

    @property
    def sitter_drawn(self) -> bool:
        """Whether there is more than a background."""
        return any(not is_ground(r.kind) for r in self.regions)

    def region(self, region_id: int) -> Region:
        """Raises `LayersTrouble` when it is not there."""
        for region in self.regions:
            if region.id == region_id:
                return region
        raise LayersTrouble("That region is not on the painting", "it was wiped out")


# --- older states


def _count_regions(plain: Plain, others: Mapping[str, Plain]) -> Plain:
    """Regions that were wiped out may still be named by passes painted on them."""
    drawn = [r["id"] for r in plain["regions"]]
    painted = [int(f["pass_id"].split(":")[0]) for f in others.get("easel", {}).get("finished", ())]
    return {**plain, "next_id": 1 + max((*drawn, *painted), default=0)}


def _as_partition(plain: Plain, others: Mapping[str, Plain]) -> Plain:
    """Before version 2 regions were outlines that lay over one another, the later ones uppermost, and left ground bare."""
    written = plain.get("regions", ())
    compose = others.get("compose", {})
    school = older_school(plain.get("school", {}))
    if not written:
        return {**plain, "school": school}
    corners = [p for r in written for p in r["outline"]]
    wide = compose.get("width_mm") or max((p[0] for p in corners), default=0.0)
    high = compose.get("height_mm") or max((p[1] for p in corners), default=0.0)
    canvas = Rect(0.0, 0.0, float(wide), float(high))
    stack = [Region(r["id"], r["name"], r["kind"], (tuple((p[0], p[1]) for p in r["outline"]),)) for r in written]
    layers = relaid(Layers(next_id=plain["next_id"]), stack, canvas)
    regions = [{"id": r.id, "name": r.name, "kind": r.kind, "rings": r.rings, "told": r.name != r.kind} for r in layers.regions]
    return {**plain, "regions": regions, "next_id": layers.next_id, "school": school}


LAYERS = Part("layers", Layers, "Layers", (_count_regions, _as_partition))


# --- the partition


def _box(canvas: Rect) -> "BaseGeometry":
    return shapely.box(canvas.x, canvas.y, canvas.right, canvas.bottom)


def _parts(regions: Sequence[Region]) -> dict[int, Rings]:
    return {r.id: r.rings for r in regions if r.rings}


def _with_parts(layers: Layers, parts: Mapping[int, Rings]) -> Layers:
    """The same regions with these rings; what lost all its ground falls away, lines stay."""
    kept_ = tuple(replace(r, rings=parts[r.id]) if r.rings else r for r in layers.regions if not r.rings or r.id in parts)
    return replace(layers, regions=kept_, proposed=False)


def whole(layers: Layers, canvas: Rect) -> Layers:
    """Bare ground goes to the first background, or to a new one: every mm² belongs to a region."""
    parts = _parts(layers.regions)
    if not parts:
        return layers
    bare = coverage.bare(parts, _box(canvas))
    if bare.area < LEAST_MM2:
        return layers
    ground = next((r for r in layers.regions if is_ground(r.kind) and r.rings), None)
    if ground is None:
        ground = Region(layers.next_id, usual_name(layers, "background"), "background")
        layers = replace(layers, regions=(*layers.regions, ground), next_id=layers.next_id + 1)
    given = coverage.given(parts, ground.id, bare, _box(canvas))
    regions = tuple(replace(r, rings=given[r.id]) if r.id in given else r for r in layers.regions)
    return replace(layers, regions=tuple(r for r in regions if r.rings or r.lines))


def relaid(layers: Layers, stack: Sequence[Region], canvas: Rect) -> Layers:
    """A partition out of regions that lie over one another, the later ones uppermost; what nobody covers goes to the background."""
    shapes = [(r.id, coverage.ground_of(r.rings)) for r in stack if r.rings]
    parts = coverage.laid(shapes, _box(canvas))
    regions = tuple(replace(r, rings=parts.get(r.id, ())) for r in stack)
    return whole(replace(layers, regions=tuple(r for r in regions if r.rings or r.lines), proposed=False), canvas)


def give(layers: Layers, region_id: int, ground: "BaseGeometry", canvas: Rect) -> Layers:
    """A piece of ground goes to that region; raises `LayersTrouble` when it is not there."""
    layers.region(region_id)
    return _with_parts(layers, coverage.given(_parts(layers.regions), region_id, ground, _box(canvas)))


def add_region(layers: Layers, kind: Kind, outline: Polygon, canvas: Rect, name: str = "", sitter_id: int = 0) -> Layers:
    """A new region inside an outline; raises `LayersTrouble` when nothing is left of it on the canvas.

    It takes its ground from what lay there; a background takes it only from bare canvas and other backgrounds.
    """
    return add_ground(layers, kind, shape_of(outline), canvas, name, sitter_id)


def add_ground(
    layers: Layers, kind: Kind, ground: "BaseGeometry", canvas: Rect, name: str = "", sitter_id: int = 0, part: str = ""
) -> Layers:  # fmt: skip
    """`add_region` with a ground of any form."""
    inside = shapely.intersection(shapely.set_precision(ground, coverage.GRID_MM), _box(canvas))
    if is_ground(kind):
        sitters = [coverage.ground_of(r.rings) for r in layers.regions if r.rings and not is_ground(r.kind)]
        inside = shapely.difference(inside, shapely.unary_union(sitters)) if sitters else inside
    if inside.area < LEAST_MM2:
        raise LayersTrouble(
            "The region was not drawn",
            "it encloses no ground on the canvas",
            "draw once round it, or click at least three corners",
        )
    number = layers.next_id
    told = name.strip()
    made = Region(number, told or usual_name(layers, kind), kind, coverage.rings_of_ground(inside), sitter_id, part, bool(told))
    parts = coverage.given({**_parts(layers.regions)}, number, inside, _box(canvas))
    after = _with_parts(replace(layers, next_id=number + 1, regions=(*layers.regions, made)), parts)
    return whole(after, canvas)


def add_lines(layers: Layers, lines: Sequence[Polygon], sitter_id: int = 0, name: str = "") -> Layers:
    """Whiskers as single lines, root first, over what lies beneath; more lines join those of the same sitter."""
    kept_lines = tuple(tuple(line) for line in lines if len(line) >= 2)
    if not kept_lines:
        raise LayersTrouble("The whisker was not drawn", "it has no length", "draw it from root to tip")
    there = next((r for r in layers.regions if r.kind == "whiskers" and r.sitter_id == sitter_id), None)
    if there is not None:
        return change_region(layers, replace(there, lines=(*there.lines, *kept_lines)))
    made = Region(layers.next_id, name or usual_name(layers, "whiskers"), "whiskers", (), sitter_id, "", bool(name), kept_lines)
    return replace(layers, regions=(*layers.regions, made), next_id=layers.next_id + 1, proposed=False)


def usual_name(layers: Layers, kind: Kind) -> str:
    """What a region of that kind is called when nobody names it."""
    return free_name(layers, facts_of(kind).said)


def free_name(layers: Layers, said: str) -> str:
    """That name, with a number when it is taken."""
    names = {r.name for r in layers.regions}
    return next(name for n in range(1, len(names) + 2) if (name := said if n == 1 else f"{said} {n}") not in names)


def as_kind(layers: Layers, region: Region, kind: Kind) -> Region:
    """That region as another kind; a name that only said the old kind follows it."""
    told = region.told or region.name.rstrip("0123456789 ") != facts_of(region.kind).said
    return replace(region, kind=kind, name=region.name if told else usual_name(layers, kind))


def change_region(layers: Layers, region: Region) -> Layers:
    """That region written anew, its ground as it was; raises `LayersTrouble` when it is not there."""
    layers.region(region.id)
    return replace(layers, regions=tuple(region if r.id == region.id else r for r in layers.regions), proposed=False)


def join(layers: Layers, region_id: int, other_id: int, canvas: Rect) -> Layers:
    """Two regions become one, which keeps the first one's name and kind; raises `LayersTrouble` for one with itself or with lines."""
    one, other = layers.region(region_id), layers.region(other_id)
    if one is other or not one.rings or not other.rings:
        raise LayersTrouble("The regions were not joined", "it takes two that have ground")
    joined = coverage.given(_parts(layers.regions), one.id, coverage.ground_of(other.rings), _box(canvas))
    return _with_parts(layers, joined)


def wipe_region(layers: Layers, region_id: int, canvas: Rect | None = None) -> Layers:
    """Take the region off: its ground goes to the neighbour with the longest common border, a lone one's is bare again."""
    gone = layers.region(region_id)
    rest = replace(layers, regions=tuple(r for r in layers.regions if r.id != region_id), proposed=False)
    if not gone.rings or not _parts(rest.regions):
        return rest
    shape = coverage.ground_of(gone.rings)
    border = {i: shape.boundary.intersection(coverage.ground_of(r).boundary).length for i, r in _parts(rest.regions).items()}
    heir = max(border, key=lambda i: border[i])
    box = _box(canvas) if canvas is not None else shapely.box(*shapely.total_bounds([shape, *map(_shape, rest.regions)]))
    return _with_parts(rest, coverage.given(_parts(rest.regions), heir, shape, box))


def _shape(region: Region) -> "BaseGeometry":
    return coverage.ground_of(region.rings)


def move_corner(layers: Layers, old: Point, new: Point, canvas: Rect) -> Layers:
    """Drag one corner of the borders, in all regions that share it; raises `LayersTrouble` where borders would cross."""
    at = (round(min(max(new[0], canvas.x), canvas.right), 2), round(min(max(new[1], canvas.y), canvas.bottom), 2))
    parts = coverage.with_corner_moved(_parts(layers.regions), old, at)
    total = sum(coverage.rings_mm2(r) for r in parts.values())
    if coverage.crosses_at(parts, at) or abs(total - canvas.width * canvas.height) > 1.0:
        raise LayersTrouble("The border was not moved", "it would cross another border", "draw that stretch anew instead")
    return _with_parts(layers, parts)


def choose_school(layers: Layers, school: School) -> Layers:
    """Another order of work."""
    return replace(layers, school=school)


def change_order(layers: Layers, own: OwnOrder) -> Layers:
    """The painter's own order of work."""
    return replace(layers, own=own)


# --- asking


def region_at(layers: Layers, point_mm: Point) -> Region | None:
    """The region under a point of the canvas."""
    return next((r for r in layers.regions if r.rings and coverage.holds(r.rings, point_mm)), None)


def area_cm2(region: Region) -> float:
    """Its area on the canvas, cm²; of whiskers what single strokes cover."""
    if not region.rings:
        length = sum(dist(a, b) for line in region.lines for a, b in pairwise(line))
        return length * WHISKER_MM / 100.0
    return coverage.rings_mm2(region.rings) / 100.0


@dataclass(frozen=True)
class Spread:
    """How regions lie: the area of each (cm²), and which ones each of them meets."""

    cm2: Mapping[int, float]
    neighbours: Mapping[int, tuple[int, ...]]


@kept(32)
def spread_of(regions: tuple[Region, ...]) -> Spread:
    """Areas and neighbours by region id; lines meet what they run over. Kept for the last few sets, as many views ask."""
    parts = _parts(regions)
    meeting = {i: set(found) for i, found in coverage.meets(parts).items()}
    for line in (r for r in regions if not r.rings):
        under = {i for i, rings in parts.items() if any(coverage.holds(rings, p) for stroke in line.lines for p in stroke)}
        meeting[line.id] = under
        for i in under:
            meeting[i].add(line.id)
    return Spread({r.id: area_cm2(r) for r in regions}, {i: tuple(sorted(found)) for i, found in meeting.items()})


def middle_of(region: Region) -> Point:
    """A place well inside its largest piece."""
    if not region.rings:
        line = region.lines[0]
        return line[len(line) // 2]
    outline = region.outline
    inner = shapely.difference(shapely.Polygon(outline), shapely.unary_union([shapely.Polygon(r) for r in region.rings[1:]]))
    found = inner.representative_point() if not inner.is_empty else None
    return (float(found.x), float(found.y)) if found is not None else inner_point(outline)


__all__ = [
    "KINDS", "LAYERS", "Kind", "Layers", "LayersTrouble", "Region", "School", "Spread", "add_ground", "add_lines", "add_region",
    "area_cm2", "as_kind", "change_order", "change_region", "choose_school", "free_name", "give", "join", "middle_of", "move_corner",
    "region_at", "relaid", "spread_of", "usual_name", "whole", "wipe_region",
]  # fmt: skip
