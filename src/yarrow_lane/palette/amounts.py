"""How much of a mix is needed, what that takes from each tube, and what has to be bought."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from yarrow_lane.paint.amounts import LOSS, coat_ml
from yarrow_lane.paint.paints import TINT_PARTS
from yarrow_lane.palette.paintbox import Paintbox
from yarrow_lane.palette.recipe import Recipe

LEAST_ML = 1.0  # less cannot be mixed or kept: our choice


def needed_ml(cm2: float, coats: int) -> float:
    """For so many coats of normal film, with loss; never less than a heap that can be mixed."""
    return max(LEAST_ML, coat_ml(cm2, "normal", coats) * LOSS)


def from_tubes(recipe: Recipe, ml: float, white: int | None) -> dict[int, float]:
    """ml of each tube for so much of the mix; a let-down is one part in ten of `white`."""
    total = sum(s.parts for s in recipe)
    taken: dict[int, float] = {}
    for share in recipe:
        amount = ml * share.parts / total
        if share.tint and white is not None:
            taken[white] = taken.get(white, 0.0) + amount * TINT_PARTS / (1 + TINT_PARTS)
            amount /= 1 + TINT_PARTS
        taken[share.tube] = taken.get(share.tube, 0.0) + amount
    return taken


def added(amounts: Iterable[Mapping[int, float]]) -> dict[int, float]:
    """Several mixes together."""
    total: dict[int, float] = {}
    for taken in amounts:
        for tube, ml in taken.items():
            total[tube] = total.get(tube, 0.0) + ml
    return total


@dataclass(frozen=True)
class Short:
    """A tube that does not suffice: what is needed and left, ml, and how many new tubes of its size."""

    tube: int
    needed_ml: float
    left_ml: float
    tubes: int


def to_order(box: Paintbox, needed: Mapping[int, float]) -> tuple[Short, ...]:
    """Tubes to buy before the painting runs dry."""
    found = []
    for tube in box.tubes:
        wanted = needed.get(tube.id, 0.0)
        if wanted > tube.left_ml:
            count = -int(-(wanted - tube.left_ml) // tube.size_ml)
            found.append(Short(tube.id, wanted, tube.left_ml, count))
    return tuple(found)
