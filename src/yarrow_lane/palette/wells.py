"""Wells: colours sampled from the crop, named, each with its mix."""

from collections.abc import Mapping
from dataclasses import dataclass, replace

import numpy as np

from yarrow_lane.lane.part import Part, Plain
from yarrow_lane.measure.colour.cielab import lab_from_linear
from yarrow_lane.measure.colour.srgb import linear_from_srgb8, srgb8_from_linear
from yarrow_lane.measure.plane import Point, Rect
from yarrow_lane.measure.raster import Picture, cut
from yarrow_lane.measure.trouble import Trouble

USUAL_PATCH_MM = 4.0  # our choice: about a small filbert's width on the canvas


class PaletteTrouble(Trouble):
    """A well that is not there or a point off the canvas."""


@dataclass(frozen=True)
class Well:
    """One colour: where it was taken (canvas mm), its mean sRGB, L* (0..100), a*, b*, and the mix.

    Without a name it is called after its value and its place in the row. `at_mm` is None where that place is no longer on the canvas: the colour and its mix are kept.
    """

    id: int
    name: str
    at_mm: Point | None
    patch_mm: float
    srgb: tuple[int, int, int]
    lab: tuple[float, float, float]
    mix: str = ""


@dataclass(frozen=True)
class Palette:
    """The wells in the order they were taken; `next_id` only grows, so that no well's id comes back.

    `made_from` is the reference the places lie on.
    """

    wells: tuple[Well, ...] = ()
    next_id: int = 1
    made_from: str = ""

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


PALETTE = Part("palette", Palette, "Palette", (_count_wells, _named_by_place))


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
) -> Palette:
    """A new well; without a name it is called after its value."""
    number = palette.next_id
    well = Well(number, name.strip(), at_mm, patch_mm, srgb, lab)
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
