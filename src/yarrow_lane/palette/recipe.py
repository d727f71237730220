"""A mix by its tubes: whole and simple parts of each, as they are said and as they are written by hand."""

import re
from collections.abc import Mapping
from dataclasses import dataclass
from fractions import Fraction

import numpy as np

from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.paint.paints import Paints, Parts
from yarrow_lane.paint.recipes.ladder import EIGHTHS, simplest
from yarrow_lane.palette.mixes import PARTS, name_in, pieces_of


class RecipeTrouble(Trouble):
    """A mix that names no paint, or one that is not in the paintbox."""


@dataclass(frozen=True)
class Share:
    """So many parts of a tube; with `tint` of its let-down, one part in ten of white."""

    tube: int
    parts: float
    tint: bool = False


Recipe = tuple[Share, ...]
_GLYPHS = {1: "⅛", 2: "¼", 3: "⅜", 4: "½", 5: "⅝", 6: "¾", 7: "⅞"}
_VALUES = {"⅛": 1 / 8, "¼": 1 / 4, "⅓": 1 / 3, "⅜": 3 / 8, "½": 1 / 2, "⅝": 5 / 8, "⅔": 2 / 3, "¾": 3 / 4, "⅞": 7 / 8}


def recipe_of(paints: Paints, eighths: Parts) -> Recipe:
    """One row of the solver as a recipe, most first."""
    row = simplest(eighths)
    columns = sorted((int(n) for n in np.nonzero(row)[0]), key=lambda n: -row[n])
    return tuple(Share(paints.all[n].id, float(row[n]) / EIGHTHS, paints.all[n].tint) for n in columns)


def eighths_of(paints: Paints, recipe: Recipe) -> Parts:
    """The recipe as a row of columns; let-downs not among them are worked out from tube and white. Raises `RecipeTrouble`."""
    row = np.zeros(len(paints))
    for share in recipe:
        try:
            if not share.tint or any(p.tint and p.id == share.tube for p in paints.all):
                row[paints.column(share.tube, share.tint)] += share.parts * EIGHTHS
            else:
                white = min(paints.whites, key=lambda n: paints.all[n].absorbing.mean())
                row[paints.column(share.tube)] += share.parts * EIGHTHS / 11
                row[white] += share.parts * EIGHTHS * 10 / 11
        except (KeyError, ValueError):
            raise RecipeTrouble(
                "The mix was not worked out", "a tube of it is no longer in the paintbox", "mix it from others"
            ) from None
    if not row.any():
        raise RecipeTrouble("The mix was not worked out", "it has no parts")
    return row


def parts_text(parts: float) -> str:
    """'6', '½', '2½', '0.3' where no eighth is near."""
    eighths = round(parts * EIGHTHS)
    if eighths == 0 or abs(parts * EIGHTHS - eighths) > 0.06:
        return f"{parts:.2g}"
    whole, rest = divmod(eighths, EIGHTHS)
    return (str(whole) if whole else "") + (_GLYPHS[rest] if rest else "")


def recipe_words(recipe: Recipe, names: Mapping[int, str]) -> str:
    """'6 titanium white : 2 yellow ochre : ½ burnt sienna'."""
    return " : ".join(f"{parts_text(s.parts)} {share_name(s, names)}" for s in recipe)


def share_name(share: Share, names: Mapping[int, str]) -> str:
    """The tube's name; of a let-down that it is one."""
    name = names.get(share.tube, "a tube that is gone")
    return f"{name} 1 in 10" if share.tint else name


def read_recipe(text: str, names: Mapping[int, str]) -> Recipe:
    """A mix written by hand: 'white 6 : ochre 2', '½ burnt sienna + 3 white'. Parts that are missing count one.

    Raises `RecipeTrouble` for a name no tube or several tubes bear, and without parts.
    """
    shares: dict[int, float] = {}
    for piece in pieces_of(text):
        tube = _tube_called(" ".join(name_in(piece)).lower(), names)
        shares[tube] = shares.get(tube, 0.0) + _parts_in(piece)
    recipe = tuple(Share(tube, parts) for tube, parts in sorted(shares.items(), key=lambda s: -s[1]) if parts > 0)
    if not recipe:
        raise RecipeTrouble("The mix was not read", "it names no parts of any paint", "write it as white 6 : ochre 2")
    return recipe


def _parts_in(piece: str) -> float:
    """The parts that are written, else one."""
    found = PARTS.search(piece)
    if found is None:
        return 1.0
    before, fraction, alone = found.groups()
    parts = float((before or alone or "0").replace(",", "."))
    if not fraction:
        return parts
    try:
        return parts + (_VALUES[fraction] if fraction in _VALUES else float(Fraction(fraction)))
    except ZeroDivisionError:
        raise RecipeTrouble("The mix was not read", f"{fraction} is no number of parts") from None


def _tube_called(said: str, names: Mapping[int, str]) -> int:
    same = [i for i, name in names.items() if name.lower() == said]
    near = same or [i for i, name in names.items() if said and set(said.split()) <= set(re.split(r"[\s,]+", name.lower()))]
    if len(near) == 1:
        return near[0]
    if not near:
        raise RecipeTrouble("The mix was not read", f"no tube in the paintbox is called “{said}”", "put it in at Tubes")
    both = " or ".join(names[i] for i in near[:3])
    raise RecipeTrouble("The mix was not read", f"“{said}” may be {both}", "write which one")
