"""Strings put together: steps of the sitter's colours, the tubes they share, and wells that carry both."""

from collections.abc import Sequence
from dataclasses import replace
from datetime import date

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.progress import SILENT, Progress
from yarrow_lane.paint.recipes.string import strung
from yarrow_lane.paint.seen import Lab, srgb_of
from yarrow_lane.palette.answers import fitted_dark
from yarrow_lane.palette.mixer import Mixer
from yarrow_lane.palette.proposed_string import string_steps
from yarrow_lane.palette.recipe import Recipe, recipe_of
from yarrow_lane.palette.wells import USUAL_PATCH_MM, Palette, Well


def target_of(lab: Lab, fit_darks: bool) -> Lab:
    """What is mixed for a colour of the photograph."""
    return fitted_dark(lab) if fit_darks else lab


def recipes_for(
    mixer: Mixer, targets: Sequence[Lab], most: int, scarce: frozenset[int] = frozenset(), progress: Progress = SILENT
) -> tuple[Recipe, ...]:  # fmt: skip
    """A recipe for each colour on at most `most` shared tubes, in the order given, without those nearly empty (ids). Raises `Cancelled`."""
    without = frozenset(n for n, p in enumerate(mixer.paints.all) if p.id in scarce)
    if len(without) == len(mixer.paints):
        without = frozenset()
    order = sorted(range(len(targets)), key=lambda n: targets[n][0])
    found = strung(mixer.table, [targets[n] for n in order], most, without, progress)
    by_step = {n: recipe_of(found.paints, row) for n, row in zip(order, found.parts, strict=True)}
    return tuple(by_step[n] for n in range(len(targets)))


def proposed_wells(
    mixer: Mixer, lab: NDArray[np.floating], px_per_mm: float, of: NDArray[np.bool_] | None, palette: Palette, sitter_id: int,
    scarce: frozenset[int] = frozenset(), progress: Progress = SILENT,
) -> tuple[Well, ...]:  # fmt: skip
    """A string for a sitter (pixels `of`), with mixes: a proposal, whose ids count down from -1. Raises `Cancelled`."""
    steps = string_steps(lab, px_per_mm, of, palette.values)
    if not steps:
        return ()
    recipes = recipes_for(mixer, [target_of(s.lab, palette.fit_darks) for s in steps], palette.most, scarce, progress)
    return tuple(
        Well(-n, "", (round(s.at[0], 1), round(s.at[1], 1)), USUAL_PATCH_MM, srgb_of(s.lab), s.lab, "", recipe, sitter_id)
        for n, (s, recipe) in enumerate(zip(steps, recipes, strict=True), 1)
    )


def take_string(palette: Palette, proposed: Sequence[Well]) -> Palette:
    """The proposed wells as wells of their own."""
    number = palette.next_id
    new = tuple(replace(w, id=number + n) for n, w in enumerate(proposed))
    return replace(palette, wells=(*palette.wells, *new), next_id=number + len(new))


def take_mixes(palette: Palette, recipes: dict[int, Recipe]) -> Palette:
    """Mixes for wells that had none; a well that was emptied meanwhile is passed over."""
    return replace(
        palette, wells=tuple(replace(w, recipe=recipes[w.id], mix="") if w.id in recipes else w for w in palette.wells)
    )


def take_words(palette: Palette, words: dict[int, str]) -> Palette:
    """The same in words, for media in which no heap is mixed."""
    return replace(palette, wells=tuple(replace(w, recipe=(), mix=words[w.id]) if w.id in words else w for w in palette.wells))


def mark_mixed(palette: Palette, wells: Sequence[int], on: date | None) -> Palette:
    """Their heaps lie on the palette since that day."""
    return replace(palette, wells=tuple(replace(w, mixed_on=on) if w.id in wells else w for w in palette.wells))
