"""Which ground to judge this picture from, and why."""

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.intake.brief import Medium
from yarrow_lane.measure.colour.munsell_value import value_of
from yarrow_lane.tone.grounds import GROUNDS, ground_lab

NEAR = 0.5  # of a value step: nearer than that a stroke can hardly be judged against the ground; our choice
# What counts for a ground besides the share that can be judged on both sides, in units of that share: our choices.
# A thin wash lets the drawing show.
_WARM_FOR_SKIN, _COOL_FOR_OTHERS, _BALANCE, _STEPS, _THIN = 0.12, 0.03, 0.5, 0.06, 0.2
_WIPED: tuple[str, ...] = ("raw umber wash", "burnt sienna wash")


@dataclass(frozen=True)
class Judged:
    """A ground against the picture: shares darker, as near as cannot be told, lighter; its value, score, and what is to be said of it."""

    name: str
    value: float
    darker: float
    near: float
    lighter: float
    score: float
    why: str


def judged_grounds(lightness: NDArray[np.floating], skin: bool, medium: Medium, wipe_out: bool) -> tuple[Judged, ...]:
    """Every ground, the proposed one first. `lightness` L* of the reference; `skin` where people are painted."""
    values = np.array([value_of(float(v)) for v in range(101)])[np.clip(np.round(lightness), 0, 100).astype(int)]
    dark, light = (float(v) for v in np.percentile(values, (15, 85)))  # our choice of where darks and lights are judged
    found = [_judged(name, values, dark, light, skin, medium, wipe_out) for name in GROUNDS]
    found.sort(key=lambda g: -g.score)
    if found[0].why.startswith("hides"):
        found[0] = replace(
            found[0], why=f"no ground lies well between darks and lights here; this one {found[0].why}, the others more"
        )
    return tuple(found)


def _judged(
    name: str, values: NDArray[np.float64], dark: float, light: float, skin: bool, medium: Medium, wipe_out: bool
) -> Judged:
    ground, value = GROUNDS[name], value_of(ground_lab(name)[0])
    darker, lighter = float((values < value - NEAR).mean()), float((values > value + NEAR).mean())
    near = 1 - darker - lighter
    # Both sides have to be there, and the ground has to lie between the darks and the lights.
    between = 1.0 if dark + NEAR < value < light - NEAR else 0.0
    score = 2 * min(darker, lighter) + _BALANCE * between - 0.3 * near - _STEPS * abs(value - (dark + light) / 2)
    score += _THIN * (ground.how == "wash")
    if ground.how != "bare":
        score += _WARM_FOR_SKIN * ground.warm if skin else _COOL_FOR_OTHERS * (not ground.warm)
    why = _why(name, value, dark, light, darker, lighter, skin)
    if medium == "watercolour":
        if ground.how == "bare":
            return Judged(name, value, darker, near, lighter, score + 9, "watercolour's light is the paper")
        why = "opaque under watercolour: the paper no longer shines"
        score -= 2
    if wipe_out and name in _WIPED:
        return Judged(name, value, darker, near, lighter, score + 3, f"can be wiped back to the gesso; {why}")
    if wipe_out:
        return Judged(name, value, darker, near, lighter, score - 1, "does not wipe back to white")
    return Judged(name, value, darker, near, lighter, score, why)


def _why(name: str, value: float, dark: float, light: float, darker: float, lighter: float, skin: bool) -> str:
    if darker > 0.9:
        return "nearly all of it looks too dark against it"
    if lighter > 0.9:
        return "nearly all of it looks too light against it"
    if not dark + NEAR < value < light - NEAR:
        return "hides the lights" if value >= light - NEAR else "hides the darks"
    warm = " It warms the skin where it shows through." if skin and GROUNDS[name].warm else ""
    cool = " It cools the skin where it shows through." if skin and not GROUNDS[name].warm else ""
    return f"between the darks at {dark:.1f} and the lights at {light:.1f}, so both can be judged against it.{warm or cool}"
