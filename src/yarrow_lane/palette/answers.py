"""Recipes for one colour with what each costs and gives: several ways to the same shade."""

from collections.abc import Mapping
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.measure.colour.cielab import WHITE_D65, XYZ_FROM_LINEAR, linear_from_lab
from yarrow_lane.measure.colour.difference import difference
from yarrow_lane.measure.words import counted
from yarrow_lane.paint.doubt import Word, doubt_of, word_of
from yarrow_lane.paint.films.layers import Covers, covers, spectrum_like
from yarrow_lane.paint.paints import Paints, Parts
from yarrow_lane.paint.recipes.ladder import EIGHTHS
from yarrow_lane.paint.recipes.solver import CLOSE, SIMPLE, Found, Wish, slips, solve
from yarrow_lane.paint.recipes.string import PALE_L
from yarrow_lane.paint.seen import Lab, lab_from_xyz, triple
from yarrow_lane.paint.under_lights import moved
from yarrow_lane.paint.wet import wet_lab
from yarrow_lane.palette.mixer import Mixer
from yarrow_lane.palette.recipe import Recipe, eighths_of, recipe_of

LET_DOWN_FROM = 40.0  # to one: finer ratios want a let-down; our choice
_SMALL_TOUCH = 0.25  # parts: less is hard to measure; our choice
_FITS_FROM, _FITS_TO = 15.0, 45.0  # L*: darks are lifted wholly below the first, not at all above the second; our choice
_BLACK_Y = 0.023  # the luminance of the darkest usual paint in satin: from the table, ivory black at half gloss
IN_REACH = 2.0  # CIEDE2000: beyond it the paints do not reach the colour; our choice


@dataclass(frozen=True)
class Mix:
    """What a recipe gives. `off` is the difference to what is wanted (0 without one), `doubt` how far paint may be off, `slip` its part
    from measuring by eye, `shifts` how far it moves at most under other lights; all CIEDE2000.
    """

    recipe: Recipe
    lab: Lab
    wet: Lab | None
    off: float
    doubt: float
    word: Word
    slip: float
    shifts: float
    covers: Covers
    care: tuple[str, ...]


@dataclass(frozen=True)
class Answer:
    """A mix under the names it earns: 'proposed', 'fewest tubes', 'closest'…"""

    names: tuple[str, ...]
    mix: Mix

    @property
    def price(self) -> str:
        """'3 tubes, 0.8 off'."""
        tubes = len({s.tube for s in self.mix.recipe})
        return f"{counted(tubes, 'tube')}, {self.mix.off:.1f} off"


def fitted_darks(lab: NDArray[np.floating]) -> NDArray[np.float64]:
    """A photograph's darks (..., 3) lifted to where paint's darks begin: black-point compensation in XYZ, fading out towards the middle.

    Over the whole range it would make every middle tone paler and duller by two to three for the sake of the darks.
    """
    share = np.clip((_FITS_TO - lab[..., :1]) / (_FITS_TO - _FITS_FROM), 0.0, 1.0)
    xyz = linear_from_lab(lab) @ XYZ_FROM_LINEAR.T / WHITE_D65
    lifted = lab_from_xyz((xyz * (1 - _BLACK_Y * share) + _BLACK_Y * share) * WHITE_D65, WHITE_D65)
    return np.where(share > 0, lifted, lab)


def fitted_dark(lab: Lab) -> Lab:
    """One dark of a photograph as paint can show it."""
    return triple(fitted_darks(np.array(lab, np.float64)))


def mix_of(mixer: Mixer, recipe: Recipe, target: Lab | None, ground: Lab, wets: bool = True) -> Mix:
    """Everything known of a recipe over a ground; raises `RecipeTrouble` when a tube of it is gone."""
    paints = _paints_for(mixer, recipe)
    parts = eighths_of(paints, recipe)
    lab = paints.lab(parts)
    doubt = doubt_of(paints, parts)
    curves = paints.mixed(parts)
    return Mix(
        recipe,
        triple(lab),
        triple(wet_lab(paints, parts, mixer.wetness)) if wets else None,
        float(difference(lab, target)) if target is not None else 0.0,
        doubt,
        word_of(doubt),
        float(slips(paints, parts[None], lab[None])[0]),
        moved(paints, parts),
        covers(*curves, spectrum_like(ground)),
        _care(paints, parts),
    )


def _paints_for(mixer: Mixer, recipe: Recipe) -> Paints:
    tinted = any(s.tint for s in recipe)
    return mixer.pale.paints if tinted and mixer.pale is not None and _all_in(mixer.pale.paints, recipe) else mixer.paints


def _all_in(paints: Paints, recipe: Recipe) -> bool:
    held = {(p.id, p.tint) for p in paints.all}
    return all((s.tube, s.tint) in held for s in recipe)


def _care(paints: Paints, parts: Parts) -> tuple[str, ...]:
    used = [int(n) for n in np.nonzero(parts)[0]]
    found = []
    amounts = parts[used] / EIGHTHS
    if amounts.max() / amounts.min() > LET_DOWN_FROM:
        found.append(f"One part to {amounts.max() / amounts.min():.0f}: make a let-down first.")
    elif amounts.min() < _SMALL_TOUCH:
        found.append("A very small touch: add it on the tip of the knife, look, then more.")
    strong = [n for n in used if n in paints.strong and parts[n] < EIGHTHS]
    if strong:
        found.append("A strong tinter: a touch too much and the mix is lost; take it up bit by bit.")
    return tuple(found)


def answers(
    mixer: Mixer, target: Lab, ground: Lab, scarce: frozenset[int] = frozenset(), wets: bool = True
) -> tuple[Answer, ...]:  # fmt: skip
    """Ways to that colour, the proposed one first; what comes out alike stands once under all its names.

    `scarce` are the ids of tubes nearly empty.
    """
    found: dict[Recipe, list[str]] = {}
    for name, recipe in _ways(mixer, target, scarce).items():
        found.setdefault(recipe, []).append(name)
    return tuple(Answer(tuple(names), mix_of(mixer, recipe, target, ground, wets)) for recipe, names in found.items())


def _ways(mixer: Mixer, target: Lab, scarce: frozenset[int]) -> Mapping[str, Recipe]:
    table, paints = mixer.table, mixer.paints
    simple = _with_let_downs(mixer, target, SIMPLE)
    ways = {"proposed": simple[0]}
    fewest = _fewest(solve(table, target, SIMPLE, 12))
    ways["fewest tubes"] = recipe_of(paints, fewest)
    ways["closest"] = _with_let_downs(mixer, target, CLOSE)[0]
    strong = frozenset(paints.strong)
    if strong and len(strong) < len(paints):
        ways["no strong tinter"] = recipe_of(paints, solve(table, target, replace(SIMPLE, without=strong), 1).parts[0])
    empty = frozenset(n for n, p in enumerate(paints.all) if p.id in scarce)
    if empty and len(empty) < len(paints):
        ways["from what is left"] = recipe_of(paints, solve(table, target, replace(SIMPLE, without=empty), 1).parts[0])
    ways["holds in every light"] = min(
        simple, key=lambda r: _steady(mixer, r, target)
    )  # fmt: skip
    return ways


def _steady(mixer: Mixer, recipe: Recipe, target: Lab) -> float:
    paints = _paints_for(mixer, recipe)
    parts = eighths_of(paints, recipe)
    return moved(paints, parts) + float(difference(paints.lab(parts), target))


def _with_let_downs(mixer: Mixer, target: Lab, wish: Wish) -> list[Recipe]:
    """The best recipes; with let-downs where the colour is pale, or where plain tubes miss it or need more than forty to one."""
    plain = solve(mixer.table, target, wish, 8)
    recipes = [(c, recipe_of(mixer.paints, p)) for c, p in zip(plain.cost, plain.parts, strict=True)]
    best = plain.parts[0][plain.parts[0] > 0]
    hard = plain.difference[0] > 1 or best.max() / best.min() > LET_DOWN_FROM
    if mixer.pale is not None and (target[0] > PALE_L or (hard and target[0] > 50)):
        pale = solve(mixer.pale, target, replace(wish, most=min(3, wish.most)), 8)
        recipes += [(c, recipe_of(mixer.pale.paints, p)) for c, p in zip(pale.cost, pale.parts, strict=True)]
    return [recipe for _, recipe in sorted(recipes, key=lambda r: r[0])]


def _fewest(found: Found) -> Parts:
    """The fewest tubes that still come within three of the best: our choice of what simplicity may cost."""
    near = found.difference <= found.difference.min() + 3.0
    counts = np.where(near, (found.parts > 0).sum(axis=1), 99)
    first: Parts = found.parts[int(np.lexsort((found.difference, counts))[0])]
    return first


def misses(target: Lab, lab: Lab) -> str:
    """How a colour out of reach is missed, in words; empty within reach."""
    if float(difference(target, lab)) <= IN_REACH:
        return ""
    lighter = lab[0] - target[0]
    chroma = float(np.hypot(*target[1:]) - np.hypot(*lab[1:]))
    said = []
    if abs(lighter) >= 2:
        said.append(f"{abs(lighter):.0f} {'lighter' if lighter > 0 else 'darker'}")
    if abs(chroma) >= 3:
        said.append("duller" if chroma > 0 else "cleaner")
    return f"these tubes come out {' and '.join(said) or 'of another hue'}"
