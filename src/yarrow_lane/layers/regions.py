"""Regions of the painting, drawn as polygons on the crop in canvas mm."""

from dataclasses import dataclass, replace
from typing import Literal

import cv2
import numpy as np

from yarrow_lane.measure.plane import Polygon, Rect, clip_to_rect, polygon_area, polygon_holds
from yarrow_lane.measure.trouble import Trouble

Kind = Literal["background", "fur", "skin", "hair", "eye", "nose", "mouth", "cloth", "other"]
KINDS: tuple[Kind, ...] = ("background", "fur", "skin", "hair", "eye", "nose", "mouth", "cloth", "other")
_PX_PER_MM = 2.0  # our choice: half a millimetre of canvas is finer than any outline is drawn
_SHIFT = 4
_SUBPIXEL = 1 << _SHIFT
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
    """Regions in the order they were drawn, later ones lying over earlier ones, and the school."""

    regions: tuple[Region, ...] = ()
    school: School = School()

    def region(self, region_id: int) -> Region:
        """Raises `LayersTrouble` when it is not there."""
        for region in self.regions:
            if region.id == region_id:
                return region
        raise LayersTrouble("That region is not on the painting", "it was wiped out")


def add_region(layers: Layers, kind: Kind, outline: Polygon, canvas: Rect, name: str = "") -> Layers:
    """A new region, cut at the canvas edge; raises `LayersTrouble` when nothing is left of it."""
    inside = clip_to_rect(outline, canvas)
    if len(inside) < 3 or polygon_area(inside) < 1.0:
        raise LayersTrouble(
            "The region was not drawn", "it encloses no ground on the canvas", "click at least three corners round it"
        )
    number = 1 + max((r.id for r in layers.regions), default=0)
    same = sum(r.kind == kind for r in layers.regions)
    called = name.strip() or (f"{kind} {same + 1}" if same else kind)
    return replace(layers, regions=(*layers.regions, Region(number, called, kind, inside)))


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


def bare_areas_cm2(layers: Layers) -> dict[int, float]:
    """Area of each region that no later region lies over, cm², by its id.

    Counted on a raster of `_PX_PER_MM`; a region that is wholly covered keeps 0.
    """
    if not layers.regions:
        return {}
    corners = [np.asarray(r.outline) for r in layers.regions]
    width, height = np.ceil(np.max([c.max(axis=0) for c in corners], axis=0) * _PX_PER_MM).astype(int) + 1
    top = np.zeros((height, width), np.int32)
    for number, outline in enumerate(corners, 1):
        fixed = np.round(outline * _PX_PER_MM * _SUBPIXEL - _SUBPIXEL / 2).astype(np.int32)
        cv2.fillPoly(top, [fixed], number, shift=_SHIFT)
    counts = np.bincount(top.ravel(), minlength=len(corners) + 1)[1:]
    return {
        # The raster says which share is bare; the outline says how large the whole is.
        r.id: area_cm2(r) * min(1.0, count / max(1.0, area_cm2(r) * 100 * _PX_PER_MM**2))
        for r, count in zip(layers.regions, counts, strict=True)
    }
