"""All that is said of one well: its mix, the other ways to it, the order of mixing, and what to add when it is off."""

from collections.abc import Mapping
from dataclasses import dataclass

from yarrow_lane.paint.recipes.additions import FAULTS, additions
from yarrow_lane.paint.recipes.ladder import EIGHTHS
from yarrow_lane.paint.seen import Lab
from yarrow_lane.palette.answers import Answer, Mix, answers, misses, mix_of
from yarrow_lane.palette.mixer import Mixer
from yarrow_lane.palette.order import order_words
from yarrow_lane.palette.recipe import Recipe, RecipeTrouble, eighths_of, parts_text

_PURE = 0.75  # of a correction that goes straight: one less pure is said with what it does besides; our choice


@dataclass(frozen=True)
class Advice:
    """`mix` is what the well has, None without one; `answers` other ways, the proposed one first; `gone` says that a tube of it is."""

    answers: tuple[Answer, ...]
    mix: Mix | None
    order: str
    cures: tuple[tuple[str, str], ...]
    out_of_reach: str
    gone: str = ""


def advise(
    mixer: Mixer, recipe: Recipe, target: Lab, ground: Lab, names: Mapping[int, str], scarce: frozenset[int], wets: bool
) -> Advice:  # fmt: skip
    """For a colour with the recipe it has, which may be none; one of which a tube is gone is taken for none, and that is said."""
    found = answers(mixer, target, ground, scarce, wets)
    mix, gone = None, ""
    if recipe:
        try:
            mix = mix_of(mixer, recipe, target, ground, wets)
        except RecipeTrouble as trouble:
            gone = str(trouble)
    shown = mix.recipe if mix is not None else found[0].mix.recipe
    closest = min((a.mix for a in found), key=lambda m: m.off)
    return Advice(
        found, mix, order_words(mixer.paints, shown, names), cures(mixer, shown, names), misses(target, closest.lab), gone
    )  # fmt: skip


def cures(mixer: Mixer, recipe: Recipe, names: Mapping[int, str]) -> tuple[tuple[str, str], ...]:
    """For each fault the one addition that helps best: ('too orange', '⅛ ultramarine blue')."""
    parts = eighths_of(mixer.paints, recipe)
    found = []
    for fault in FAULTS:
        best = additions(mixer.paints, parts, fault, 1)
        if best:
            paint = mixer.paints.all[best[0].column]
            besides = "" if best[0].purity >= _PURE else _besides(fault, best[0].move)
            found.append((fault, f"{parts_text(best[0].eighths / EIGHTHS)} {names[paint.id]}{besides}"))
    return tuple(found)


def _besides(fault: str, move: Lab) -> str:
    """What it does that was not asked for."""
    if fault not in ("too light", "too dark") and abs(move[0]) > 2:
        return f", and {'lighter' if move[0] > 0 else 'darker'}"
    if fault in ("too light", "too dark") and max(abs(move[1]), abs(move[2])) > 2:
        return ", and it turns: look again"
    return ", and a little off: look again"


def seen_word(off: float) -> str:
    """How a difference looks side by side (CIEDE2000; limits our choice)."""
    if off < 1:
        return "hard to see"
    return "just seen" if off < 2 else "seen" if off < 5 else "plainly seen"
