"""What is off, and where, in a painter's words."""

import math
from collections.abc import Sequence

from yarrow_lane.check.measured import ColourFault, HiddenShare
from yarrow_lane.measure.place_words import place_words
from yarrow_lane.measure.plane import Point
from yarrow_lane.measure.words import begun, counted

_WAYS = ("right of", "above right of", "above", "above left of", "left of", "below left of", "below", "below right of")
_AT_MM = 9.0  # so near it lies at the place itself (our choice)
_FAR = 0.3  # of the longer side: farther the canvas's own parts say more
# Lab units up to which paint is a little, clearly or far too warm: our choice.
_LITTLE, _CLEARLY = 7.0, 12.0
TELLS_HIDDEN = 0.3  # a share worth a word: our choice


def values_text(lightness: float) -> str:
    """ "half a value", "1½ values": one step is 10 of L*, which Munsell's value follows closely (ASTM D1535)."""
    halves = max(1, round(abs(lightness) / 5))
    whole, half = divmod(halves, 2)
    return "half a value" if not whole else f"{whole}½ values" if half else counted(whole, "value")


def value_words(lightness: float) -> str:
    """ "half a value too light", "2 values too dark"."""
    return f"{values_text(lightness)} too {'light' if lightness > 0 else 'dark'}"


def warmth_words(by: float) -> str:
    """ "a little too warm"."""
    how = "a little" if abs(by) < _LITTLE else "clearly" if abs(by) < _CLEARLY else "far"
    return f"{how} too {'warm' if by > 0 else 'cool'}"


def colour_words(fault: ColourFault) -> str:
    """Both, the heavier first."""
    said = []
    if fault.value:
        said.append((abs(fault.value) / 5, value_words(fault.value)))
    if fault.warmth:
        said.append((abs(fault.warmth) / 8, warmth_words(fault.warmth)))
    words = ", ".join(w for _, w in sorted(said, reverse=True))
    return words if fault.value else f"{words}, the value holds"


def where_words(at: Point, area: str, places: Sequence[tuple[str, Point]], size_mm: tuple[float, float]) -> str:
    """ "Cheek, 3 cm below the left eye"; far from every place the part of the canvas."""
    near = min(places, key=lambda p: math.dist(at, p[1]), default=None)
    if near is None or math.dist(at, near[1]) > _FAR * max(size_mm):
        return begun(", ".join(x for x in (area, place_words(at, *size_mm)) if x))
    name = near[0] if "'s " in near[0] else f"the {near[0]}"
    away = math.dist(at, near[1])
    if away < _AT_MM:
        return begun(", ".join(x for x in (area, f"at {name}") if x))
    angle = math.degrees(math.atan2(near[1][1] - at[1], at[0] - near[1][0])) % 360
    way = _WAYS[int((angle + 22.5) // 45) % 8]
    halves = max(1, round(away / 5))
    whole, half = divmod(halves, 2)
    return begun(", ".join(x for x in (area, f"{whole or ''}{'½' if half else ''}\u202fcm {way} {name}") if x))


def hidden_words(hidden: HiddenShare) -> str:
    """What a fault of a whole region would show."""
    shows = 1 - hidden.share
    part = _PARTS[min(_PARTS, key=lambda p: abs(p - shows))]
    how = "not show" if shows < 0.1 else f"show only a {part} of itself"
    return f"A fault of the whole {hidden.name} would {how} here: put the grey frame round."


_PARTS = {0.1: "tenth", 0.2: "fifth", 0.25: "quarter", 1 / 3: "third", 0.5: "half", 2 / 3: "good half"}
