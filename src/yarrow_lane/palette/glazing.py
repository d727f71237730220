"""Glazes planned for a well: which gets a wanted change, and what to paint beneath one that is planned."""

from dataclasses import dataclass
from typing import Literal

import numpy as np

from yarrow_lane.measure.colour.warm import WARM
from yarrow_lane.paint.films.backwards import under_for
from yarrow_lane.paint.films.glaze import Glaze, three_looks
from yarrow_lane.paint.kubelka_munk import thick
from yarrow_lane.paint.seen import Lab, triple
from yarrow_lane.palette.mixer import Mixer
from yarrow_lane.palette.paintbox import Paintbox
from yarrow_lane.palette.recipe import Recipe, RecipeTrouble, eighths_of, recipe_of
from yarrow_lane.palette.wells import PlannedGlaze

Change = Literal["warmer", "cooler", "darker", "lighter", "duller", "cleaner"]
CHANGES: tuple[Change, ...] = ("warmer", "cooler", "darker", "lighter", "duller", "cleaner")
_BRIGHT, _DARK_GROUND = 28.0, 45.0  # chroma of a bright colour, and L* of a ground that swallows it: our choices


@dataclass(frozen=True)
class Way:
    """A glaze with its look laid thin, as usual and thick, and how far the usual one is from what is wanted."""

    glaze: PlannedGlaze
    looks: tuple[Lab, ...]
    off: float


@dataclass(frozen=True)
class Back:
    """Worked backwards: what to paint now, its colour, and the three looks once glazed."""

    recipe: Recipe
    lab: Lab
    looks: tuple[Lab, ...]
    off: float


def changed(lab: Lab, change: Change, by: float) -> Lab:
    """The colour after that change of `by` Lab units. A glaze always darkens a little; lighter is what a scumble does."""
    lightness, a, b = lab
    warm = np.array(WARM)
    chroma = max(float(np.hypot(a, b)), 1e-6)
    out = np.array([a, b]) / chroma
    moves = {
        "warmer": (-0.2, *(warm)), "cooler": (-0.2, *(-warm)), "darker": (-1.0, 0.0, 0.0), "lighter": (1.0, 0.0, 0.0),
        "duller": (-0.1, *(-out)), "cleaner": (-0.2, *out),
    }  # fmt: skip
    step = np.array(moves[change]) * by
    return float(lightness + step[0]), float(a + step[1]), float(b + step[2])


def _under(mixer: Mixer, recipe: Recipe) -> np.ndarray:
    return thick(*mixer.paints.mixed(eighths_of(mixer.paints, recipe)))


def glazes_for(mixer: Mixer, recipe: Recipe, target: Lab) -> tuple[Way, ...]:
    """The best few glazes over that mix, best first; raises `RecipeTrouble`."""
    under = _under(mixer, recipe)
    found = []
    for outcome in mixer.glazes.towards(under, target, 4):
        looks = tuple(triple(lab) for lab in three_looks(mixer.paints, outcome.glaze, under))
        found.append(Way(planned(mixer, outcome.glaze), looks, outcome.difference))
    return tuple(found)


def planned(mixer: Mixer, glaze: Glaze) -> PlannedGlaze:
    """By tubes, as it is kept on record."""
    return PlannedGlaze(tuple(mixer.paints.all[n].id for n in glaze.paints), glaze.share, glaze.coats)


def as_glaze(mixer: Mixer, plan: PlannedGlaze) -> Glaze:
    """By columns; raises `RecipeTrouble` when a tube is gone."""
    try:
        return Glaze(tuple(mixer.paints.column(t) for t in plan.tubes), plan.share, plan.coats)
    except KeyError:
        raise RecipeTrouble(
            "The glaze was not worked out", "its tube is no longer in the paintbox", "glaze with another"
        ) from None


def worked_back(mixer: Mixer, plan: PlannedGlaze, target: Lab) -> Back:
    """What to paint now so that the planned glaze ends on the target."""
    glaze = as_glaze(mixer, plan)
    found = under_for(mixer.table, target, glaze)
    recipe = recipe_of(mixer.paints, found.parts)
    looks = tuple(triple(lab) for lab in three_looks(mixer.paints, glaze, _under(mixer, recipe)))
    return Back(recipe, triple(np.array(found.lab)), looks, found.difference)


def wants_light_layer(target: Lab, ground: Lab) -> bool:
    """Whether a bright colour goes on dark: transparent paint dies there without an opaque light layer."""
    return float(np.hypot(*target[1:])) > _BRIGHT and target[0] > ground[0] and ground[0] < _DARK_GROUND


def glaze_words(plan: PlannedGlaze, box: Paintbox) -> str:
    """'burnt sienna, 1 part in 13 of medium, 2 coats'; with a white or an opaque paint in it a scumble."""
    medium = round((1 - plan.share) / plan.share)
    coats = f", {plan.coats} coats" if plan.coats > 1 else ""
    names, tubes = box.names, [t for t in box.tubes if t.id in plan.tubes]
    scumble = any(t.white or (t.opacity or t.entry.opacity) == "opaque" for t in tubes)
    said = " and ".join(names.get(t, "a tube that is gone") for t in plan.tubes)
    return f"{'scumble: ' if scumble else ''}{said}, 1 part in {medium} of medium{coats}"
