"""Regions of the painting, drawn as polygons on the crop in canvas mm."""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Literal

from yarrow_lane.lane.part import Part, Plain
from yarrow_lane.measure.kept import kept
from yarrow_lane.measure.outlines import bare_areas, clip_to_rect, neighbours, polygon_area, polygon_holds
from yarrow_lane.measure.plane import Polygon, Rect
from yarrow_lane.measure.trouble import Trouble

Kind = Literal["background", "fur", "skin", "hair", "eye", "nose", "mouth", "cloth", "other"]
KINDS: tuple[Kind, ...] = ("background", "fur", "skin", "hair", "eye", "nose", "mouth", "cloth", "other")
Eyes = Literal["first", "last"]
Values = Literal["dark to light", "light to dark"]
Background = Literal["first", "last"]


class LayersTrouble(Trouble):
    """A region that cannot be."""


@dataclass(frozen=True)
class Region:
    """One area of the painting; `outline` in canvas mm."""

    id: int
    name: str
    kind: Kind
    outline: Polygon


@dataclass(frozen=True)
class School:
    """The painter's order of work; the schools differ on purpose (common practice)."""

    eyes: Eyes = "first"
    values: Values = "dark to light"
    background: Background = "first"


@dataclass(frozen=True)
class Layers:
    """Regions in the order they were drawn, later ones lying over earlier ones, and the school.

    `next_id` only grows, so that no region's id comes back; `made_from` is the reference the outlines lie on.
    """

    regions: tuple[Region, ...] = ()
    school: School = School()
    next_id: int = 1
    made_from: str = ""

    @property
    def sitter_drawn(self) -> bool:
        """Whether there is more than a background."""
        return any(r.kind != "background" for r in self.regions)

    def region(self, region_id: int) -> Region:
        """Raises `LayersTrouble` when it is not there."""
        for region in self.regions:
            if region.id == region_id:
                return region
        raise LayersTrouble("That region is not on the painting", "it was wiped out")


def _count_regions(plain: Plain, others: Mapping[str, Plain]) -> Plain:
    """Regions that were wiped out may still be named by passes painted on them."""
    drawn = [r["id"] for r in plain["regions"]]
    painted = [int(f["pass_id"].split(":")[0]) for f in others.get("easel", {}).get("finished", ())]
    return {**plain, "next_id": 1 + max((*drawn, *painted), default=0)}


LAYERS = Part("layers", Layers, "Layers", (_count_regions,))


def add_region(layers: Layers, kind: Kind, outline: Polygon, canvas: Rect, name: str = "") -> Layers:
    """A new region, cut at the canvas edge; raises `LayersTrouble` when nothing is left of it."""
    inside = clip_to_rect(outline, canvas)
    if len(inside) < 3 or polygon_area(inside) < 1.0:
        raise LayersTrouble(
            "The region was not drawn", "it encloses no ground on the canvas", "click at least three corners round it"
        )
    number = layers.next_id
    drawn = Region(number, name.strip() or _usual_name(layers, kind), kind, inside)
    return replace(layers, regions=(*layers.regions, drawn), next_id=number + 1)


def _usual_name(layers: Layers, kind: Kind) -> str:
    """What a region of that kind is called when nobody names it."""
    names = {r.name for r in layers.regions}
    return next(name for n in range(1, len(names) + 2) if (name := kind if n == 1 else f"{kind} {n}") not in names)


def as_kind(layers: Layers, region: Region, kind: Kind) -> Region:
    """That region as another kind; a name that only said the old kind follows it."""
    told = region.name.rstrip("0123456789 ") == region.kind
    return replace(region, kind=kind, name=_usual_name(layers, kind) if told else region.name)


def change_region(layers: Layers, region: Region) -> Layers:
    """That region written anew; raises `LayersTrouble` when it is not there."""
    layers.region(region.id)
    return replace(layers, regions=tuple(region if r.id == region.id else r for r in layers.regions))


def wipe_region(layers: Layers, region_id: int) -> Layers:
    """Take the region off."""
    layers.region(region_id)
    return replace(layers, regions=tuple(r for r in layers.regions if r.id != region_id))


def choose_school(layers: Layers, school: School) -> Layers:
    """Another order of work."""
    return replace(layers, school=school)


def region_at(layers: Layers, point_mm: tuple[float, float]) -> Region | None:
    """The topmost region under a point of the canvas."""
    return next((r for r in reversed(layers.regions) if polygon_holds(r.outline, point_mm)), None)


def area_cm2(region: Region) -> float:
    """Area of the outline on the canvas, cm²; what lies over it is not taken off."""
    return polygon_area(region.outline) / 100.0


@dataclass(frozen=True)
class Lie:
    """How the regions lie: the area of each that no later one covers (cm²), and which ones each of them meets."""

    bare_cm2: Mapping[int, float]
    neighbours: Mapping[int, tuple[int, ...]]


@kept(32)
def lie_of(regions: tuple[Region, ...]) -> Lie:
    """Bare areas and neighbours by region id; kept for the last few sets of regions, as many views ask."""
    ids = [r.id for r in regions]
    outlines = [r.outline for r in regions]
    meets = neighbours(outlines)
    areas = bare_areas(outlines)
    return Lie(
        {i: mm2 / 100.0 for i, mm2 in zip(ids, areas, strict=True)},
        {i: tuple(ids[n] for n in found) for i, found in zip(ids, meets, strict=True)},
    )
