"""The guided school beside the free solver: skin from four colours, blacks, the shade at the hairline, and the whites of fur."""

from collections.abc import Sequence
from dataclasses import dataclass

from yarrow_lane.paint.recipes.solver import solve
from yarrow_lane.paint.seen import Lab, triple
from yarrow_lane.palette.four_colours import ROLES, Black, SkinStep, between, blacks, skin_steps, tubes_for
from yarrow_lane.palette.fur_whites import fur_whites
from yarrow_lane.palette.mixer import Mixer
from yarrow_lane.palette.paintbox import Medium, Paintbox
from yarrow_lane.palette.recipe import recipe_of


@dataclass(frozen=True)
class School:
    """`steps` of the skin, none where a part cannot be played: `missing` says which; `blacks`, a `transition`, `whites` of fur."""

    steps: tuple[SkinStep, ...]
    missing: tuple[str, ...]
    blacks: tuple[Black, ...]
    transition: SkinStep | None
    whites: tuple[SkinStep, ...]


def school_of(mixer: Mixer, box: Paintbox, medium: Medium, middle: Lab, beside: Lab | None, string: Sequence[Lab]) -> School:
    """For a middle tone, the shade beside it, and the whole string from dark to light."""
    tubes = tubes_for(box, medium)
    missing = tuple(role for role in ROLES if tubes[role] is None)
    held = {role: tube for role, tube in tubes.items() if tube is not None}
    steps = skin_steps(mixer.paints, held, middle) if not missing else ()
    transition = None
    if beside is not None:
        transition = _mixed(mixer, between(middle, beside), "Between the two: softens the hairline.")
    light = string[-1] if string else middle
    shadow = max((lab for lab in string if lab[0] < light[0] - 8), key=lambda lab: lab[0], default=middle)
    words = ("The shadow of the white.", "Greyed.", "Nearly there.", "The lightest before pure white, which comes last.")
    whites = tuple(_mixed(mixer, lab, w) for lab, w in zip(fur_whites(shadow, light), words, strict=True)) if string else ()
    return School(steps, missing, blacks(box, mixer.paints, medium), transition, whites)


def _mixed(mixer: Mixer, lab: Lab, words: str) -> SkinStep:
    table = mixer.pale if mixer.pale is not None and lab[0] > 80 else mixer.table
    found = solve(table, lab, wanted=1)
    return SkinStep(words, recipe_of(table.paints, found.parts[0]), triple(found.lab[0]))
