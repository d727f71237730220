"""In which order a recipe is mixed: the first heap, what dulls or turns it, what lightens it."""

from collections.abc import Mapping

import numpy as np

from yarrow_lane.paint.paints import Paints
from yarrow_lane.palette.recipe import Recipe, Share, eighths_of, share_name
from yarrow_lane.palette.words import hue_words

# From this share of white on, the colour goes into the white and not the white into the colour: our choice, common practice for pale mixes.
_PALE_SHARE = 0.75


def mixing_order(paints: Paints, recipe: Recipe) -> Recipe:
    """Colours by amount, touches of strong ones after them, white last; for pale mixes white first and the weakest colour next."""
    white = [s for s in recipe if _is_white(paints, s)]
    colours = [s for s in recipe if not _is_white(paints, s)]
    total = sum(s.parts for s in recipe)
    if white and sum(s.parts for s in white) >= _PALE_SHARE * total:
        return (*white, *sorted(colours, key=lambda s: _strength(paints, s)))
    return (*sorted(colours, key=lambda s: (-s.parts, _strength(paints, s))), *white)


def order_words(paints: Paints, recipe: Recipe, names: Mapping[int, str]) -> str:
    """'Begin with yellow ochre and burnt sienna: a strong orange. Then white.'"""
    steps = mixing_order(paints, recipe)
    if len(steps) == 1:
        return f"{_named(steps[0], names).capitalize()} as it comes from the tube."
    first = steps[:2]
    lab = paints.lab(eighths_of(paints, first))
    heap = hue_words((float(lab[0]), float(lab[1]), float(lab[2]))).split(",")[0]
    begun = " and ".join(_named(s, names) for s in first)
    words = f"Begin with {begun}: {'an' if heap[0] in 'aeiou' else 'a'} {heap}."
    if len(steps) > 2:
        words += " Then " + ", then ".join(_named(s, names) for s in steps[2:]) + "."
    return words


def _named(share: Share, names: Mapping[int, str]) -> str:
    name = share_name(share, names)
    return f"a touch of {name}" if share.parts < 1 else name


def _is_white(paints: Paints, share: Share) -> bool:
    return not share.tint and any(p.white for p in paints.all if p.id == share.tube)


def _strength(paints: Paints, share: Share) -> float:
    return float(np.mean([p.absorbing.mean() for p in paints.all if p.id == share.tube and not p.tint] or [0.0]))
