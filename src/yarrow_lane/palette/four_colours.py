"""Skin the four-colour way: a red, an ochre, a blue and white; the middle tone first, then where it may go."""

from dataclasses import dataclass

import numpy as np

from yarrow_lane.paint.paints import Paints, Parts
from yarrow_lane.paint.recipes.ladder import EIGHTHS, FINE
from yarrow_lane.paint.recipes.solver import Wish, solve
from yarrow_lane.paint.recipes.table import make_table
from yarrow_lane.paint.seen import Lab, triple
from yarrow_lane.palette.paintbox import Medium, Paintbox, Tube
from yarrow_lane.palette.recipe import Recipe, recipe_of

# Which tube plays which part, the usual one first (common practice).
ROLES: dict[str, tuple[str, ...]] = {
    "red": ("PR122", "PV19", "PR177", "PR108", "PR101"),
    "ochre": ("PY43", "PY42", "PBr7rs"),
    "blue": ("PB29", "PB28", "PB15:3"),
    "white": ("PW6", "PW6:1"),
}
# Blacks that are mixed, by pigment (common practice), beside the tube's.
BLACKS: tuple[tuple[str, ...], ...] = (
    ("PB29", "PBr7bu"), ("PB29", "PBr7bs"), ("PBr7bu", "PG7", "PY74", "PR122"), ("PBr7bu", "PG18", "PY43", "PR122"), ("PBk9",), ("PBk11",),
)  # fmt: skip
# The ways skin is steered, and by what.
_STEERED: tuple[tuple[str, str], ...] = (("pinker", "red"), ("yellower", "ochre"), ("greyer", "blue"), ("lighter", "white"))


@dataclass(frozen=True)
class SkinStep:
    """One step: its words, the mix, and its colour dry."""

    words: str
    recipe: Recipe
    lab: Lab


def tubes_for(box: Paintbox, medium: Medium) -> dict[str, Tube | None]:
    """Who plays red, ochre, blue and white; None where nobody can."""
    held = {t.pigment: t for t in reversed(box.of(medium))}
    return {role: next((held[p] for p in wanted if p in held), None) for role, wanted in ROLES.items()}


def skin_steps(paints: Paints, tubes: dict[str, Tube], middle: Lab) -> tuple[SkinStep, ...]:
    """From the orange to the middle tone of that skin, then pinker, yellower, greyer, lighter, and two darks without white."""
    four = paints.only([paints.column(tubes[role].id) for role in ROLES])
    red, ochre, blue, white = range(4)
    table = make_table(four)
    found = solve(table, middle, Wish(most=4, simple=0.4), 12)
    full = next((p for p in found.parts if p[red] and p[ochre]), found.parts[0])
    heap = full.copy()
    heap[[blue, white]] = 0
    if not heap.any():
        heap[[red, ochre]] = EIGHTHS
    steps = [_step(four, heap, "Red and ochre: an orange.")]
    if full[blue] and full[white]:
        dulled = heap.copy()
        dulled[blue] = full[blue]
        steps.append(_step(four, dulled, "A very little blue dulls it."))
    to_middle = "White" if full[white] else "A very little blue" if full[blue] else "As it is"
    steps.append(_step(four, full, f"{to_middle} to the middle tone: this one first."))
    for words, role in _STEERED:
        steps.append(_step(four, _steered(four, full, list(ROLES).index(role)), f"{words.capitalize()}: more {role}."))
    for words, more in (("Dark: no white, more blue.", 1.0), ("Deepest: more blue again.", 2.5)):
        dark = heap.copy()
        dark[blue] = max(full[blue], FINE[0]) + more * EIGHTHS * heap.sum() / (6 * EIGHTHS)
        steps.append(_step(four, np.maximum(1, np.round(dark)) * (dark > 0), words))
    return tuple(steps)


def _steered(paints: Paints, parts: Parts, column: int) -> Parts:
    """Enough more of one paint to be seen: a move of four in Lab."""
    before, rows = paints.lab(parts), np.repeat(parts[None], len(FINE), axis=0)
    rows[:, column] += FINE
    far = np.linalg.norm(paints.lab(rows) - before, axis=1)
    moved: Parts = rows[int(np.argmin(np.abs(far - 4.0)))]
    return moved


def _step(paints: Paints, parts: Parts, words: str) -> SkinStep:
    return SkinStep(words, recipe_of(paints, parts), triple(paints.lab(parts)))


@dataclass(frozen=True)
class Black:
    """A black of the box: its mix, colour, and how far from neutral."""

    recipe: Recipe
    lab: Lab
    chroma: float


def blacks(box: Paintbox, paints: Paints, medium: Medium) -> tuple[Black, ...]:
    """Every black the box gives, each in its most neutral proportion, darkest first."""
    held = {t.pigment: t.id for t in box.of(medium)}
    found = []
    for pigments in BLACKS:
        if all(p in held for p in pigments):
            some = paints.only([paints.column(held[p]) for p in pigments])
            rows = _ratios(len(pigments))
            labs = some.lab(rows)
            # Dark counts too: a neutral that is not dark is no black.
            best = int(np.argmin(np.hypot(labs[:, 1], labs[:, 2]) + 0.5 * labs[:, 0] + 0.05 * rows.sum(axis=1) / EIGHTHS))
            lab = triple(labs[best])
            found.append(Black(recipe_of(some, rows[best]), lab, float(np.hypot(lab[1], lab[2]))))
    return tuple(sorted(found, key=lambda k: k.lab[0]))


def _ratios(count: int) -> Parts:
    steps = np.array([4, 8, 16, 24, 32]) if count <= 2 else np.array([4, 8, 16])
    grid = np.meshgrid(*([steps] * count), indexing="ij")
    return np.stack([g.ravel() for g in grid], axis=1).astype(np.float64) if count > 1 else np.full((1, 1), 8.0)


def between(one: Lab, other: Lab) -> Lab:
    """The shade between two, as hair meets skin: half way in Lab."""
    return (one[0] + other[0]) / 2, (one[1] + other[1]) / 2, (one[2] + other[2]) / 2
