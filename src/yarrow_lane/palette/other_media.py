"""Ways to a colour in watercolour and soft pastel, where no heap is mixed: in words, with what they come to."""

from collections.abc import Mapping
from dataclasses import dataclass

from yarrow_lane.paint.films.watercolour import washes
from yarrow_lane.paint.paints import Paints
from yarrow_lane.paint.recipes.ladder import EIGHTHS
from yarrow_lane.paint.seen import Lab
from yarrow_lane.palette.paintbox import Medium
from yarrow_lane.palette.recipe import parts_text
from yarrow_lane.palette.sticks import layered

# What each medium's reckoning leaves out, said where it is used.
LEFT_OUT: dict[Medium, str] = {
    "watercolour": "Water stands for white. Lifting, granulating and how much lighter it dries are not reckoned: test on a strip of the paper.",
    "soft pastel": "Sticks are laid, not mixed: grain, pressure and the tooth of the paper are not reckoned. Dust: no blowing, wear a mask.",
    "oil": "Dries much as it looks. Lean first, fatter over it; sunken darks come back with varnish, and are not reckoned.",
    "acrylic": "",
}
_COVERED = {0.3: "a third", 0.5: "half", 0.7: "two thirds"}


@dataclass(frozen=True)
class OtherWay:
    """In words that are kept as the well's mix, the colour it comes to, and its difference."""

    words: str
    lab: Lab
    off: float


def other_ways(paints: Paints, medium: Medium, target: Lab, names: Mapping[int, str]) -> tuple[OtherWay, ...]:
    """Best first; for watercolour washes, for pastel sticks in one layer or two."""
    if medium == "watercolour":
        found = []
        for wash in washes(paints, target):
            parts = " : ".join(
                f"{parts_text(eighths / EIGHTHS)} {names[paints.all[n].id]}"
                for n, eighths in zip(wash.columns, wash.eighths, strict=True)
            )
            found.append(OtherWay(f"{parts}, in {wash.water:g} parts of water", wash.lab, wash.difference))
        return tuple(found)
    ways = []
    for laid in layered(paints, target):
        sticks = [f"1 stick {names[i]} {words}" for i, words in laid.sticks]
        over = f" over {_COVERED[laid.covered]} of it" if len(sticks) > 1 else ""
        ways.append(OtherWay(" : ".join(sticks) + over, laid.lab, laid.difference))
    return tuple(ways)
