"""Wells: colours sampled from the crop, named, each with its mix."""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from datetime import date

import numpy as np

from yarrow_lane.lane.part import Part, Plain, as_it_was
from yarrow_lane.measure.colour.cielab import lab_from_linear
from yarrow_lane.measure.colour.srgb import linear_from_srgb8, srgb8_from_linear
from yarrow_lane.measure.plane import Point, Rect
from yarrow_lane.measure.raster import Picture, cut
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.palette.mixes import counts_as_mix
from yarrow_lane.palette.recipe import Recipe

USUAL_COATS = 2  # our choice
USUAL_PATCH_MM = 4.0  # our choice: about a small filbert's width on the canvas


class PaletteTrouble(Trouble):
    """A well that is not there or a point off the canvas."""


@dataclass(frozen=True)
class PlannedGlaze:
    """One or two tubes, half and half, `share` of them in the whole, the rest medium; so many coats, each dry first."""

    tubes: tuple[int, ...]
    share: float
    coats: int = 1


@dataclass(frozen=True)
class Well:
    """One colour: where it was taken (canvas mm), its mean sRGB, L* (0..100), a*, b*, and the mix.

    Without a name it is called after its value and its place in the row. `at_mm` is None where that place is no longer on the canvas: the
    colour and its mix are kept. `recipe` is the mix by tubes of the paintbox; `mix` words of one no tube is known for. `sitter_id` is whose
    palette it belongs to, 0 for all. A planned `glaze` goes over it, and then the recipe is what lies under it. `mixed_on` is when the heap
    was mixed.
    """

    id: int
    name: str
    at_mm: Point | None
    patch_mm: float
    srgb: tuple[int, int, int]
    lab: tuple[float, float, float]
    mix: str = ""
    recipe: Recipe = ()
    sitter_id: int = 0
    coats: int = USUAL_COATS
    glaze: PlannedGlaze | None = None
    mixed_on: date | None = None

    @property
    def answered(self) -> bool:
        """Whether it has a mix, by tubes or in words that count as one."""
        return bool(self.recipe) or counts_as_mix(self.mix)


@dataclass(frozen=True)
class Palette:
    """The wells in the order they were taken; `next_id` only grows, so that no well's id comes back.

    `made_from` is the reference the places lie on. A string has `values` wells on at most `most` tubes; with `fit_darks` the photograph's
    darks are lifted to where paint's darks begin.
    """

    wells: tuple[Well, ...] = ()
    next_id: int = 1
    made_from: str = ""
    values: int = 7
    most: int = 5
    fit_darks: bool = True
    retarder: bool = False

    def of(self, sitter_id: int) -> tuple[Well, ...]:
        """One sitter's palette from dark to light, with what belongs to all; of 0 every well."""
        return tuple(w for w in self.by_lightness if not sitter_id or w.sitter_id in (0, sitter_id))

    def well(self, well_id: int) -> Well:
        """Raises `PaletteTrouble` when it is not there."""
        for well in self.wells:
            if well.id == well_id:
                return well
        raise PaletteTrouble("That well is not on the palette", "it was emptied")

    @property
    def by_lightness(self) -> tuple[Well, ...]:
        """From dark to light, as a string of values is laid out."""
        return tuple(sorted(self.wells, key=lambda w: w.lab[0]))

    def unanswered(self, sitter_id: int = 0) -> tuple[Well, ...]:
        """Wells without a mix."""
        return tuple(w for w in self.of(sitter_id) if not w.answered)

    def to_mix(self, sitter_id: int = 0) -> tuple[Well, ...]:
        """Wells whose recipe is known and whose heap does not lie on the palette."""
        return tuple(w for w in self.of(sitter_id) if w.recipe and w.mixed_on is None)

    def name_of(self, well: Well) -> str:
        """The painter's name for it, else its value and its number from dark to light: 'dark 1', 'light 5'."""
        place = next(n for n, w in enumerate(self.by_lightness, 1) if w.id == well.id)
        return well.name or f"{value_word(well.lab[0])} {place}"


def _named_by_place(plain: Plain, _: Mapping[str, Plain]) -> Plain:
    """Before version 2 a well without a name was called after its value and the order of taking, which told nothing."""

    def named(well: Plain) -> Plain:
        given = f"{value_word(well['lab'][0])} {well['id']}"
        return {**well, "name": "" if well["name"] == given else well["name"]}

    return {**plain, "wells": [named(w) for w in plain["wells"]]}


def _count_wells(plain: Plain, _: Mapping[str, Plain]) -> Plain:
    return {**plain, "next_id": 1 + max((w["id"] for w in plain["wells"]), default=0)}


# Version 3 knows tubes.
PALETTE = Part("palette", Palette, "Palette", (_count_wells, _named_by_place, as_it_was))


def patch_colour(photo: Picture, patch: Rect) -> tuple[tuple[int, int, int], tuple[float, float, float]]:
    """Mean colour of a patch (picture px) as sRGB and Lab.

    The mean is taken in linear light, as an eye blends what it cannot resolve.
    """
    pixels = cut(photo, patch).reshape(-1, 3)
    mean = linear_from_srgb8(pixels).mean(axis=0, dtype=np.float64)
    red, green, blue = (int(v) for v in srgb8_from_linear(mean))
    lightness, a, b = (float(v) for v in lab_from_linear(mean))
    return (red, green, blue), (lightness, a, b)


def add_well(
    palette: Palette,
    at_mm: Point | None,
    patch_mm: float,
    srgb: tuple[int, int, int],
    lab: tuple[float, float, float],
    name: str = "",
    sitter_id: int = 0,
) -> Palette:
    """A new well; without a name it is called after its value."""
    number = palette.next_id
    well = Well(number, name.strip(), at_mm, patch_mm, srgb, lab, sitter_id=sitter_id)
    return replace(palette, wells=(*palette.wells, well), next_id=number + 1)


def change_well(palette: Palette, well: Well) -> Palette:
    """That well written anew; raises `PaletteTrouble` when it is not there."""
    palette.well(well.id)
    return replace(palette, wells=tuple(well if w.id == well.id else w for w in palette.wells))


def empty_well(palette: Palette, well_id: int) -> Palette:
    """Take the well away."""
    palette.well(well_id)
    return replace(palette, wells=tuple(w for w in palette.wells if w.id != well_id))


def value_word(lightness: float) -> str:
    """Dark, middle or light by the usual limits (35 and 65 L*: our choice)."""
    return "dark" if lightness < 35 else "light" if lightness > 65 else "middle"
