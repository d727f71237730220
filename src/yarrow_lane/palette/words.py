"""A colour in the painter's words: its hue, how strong it is, and how it differs from another."""

import math

Lab = tuple[float, float, float]

# CIELAB hue angles, degrees, at which one name gives way to the next, and chroma limits: our choice, after the hue circle
# of common paints (cadmium red about 35, yellow ochre about 75, lemon about 95, sap green about 130, ultramarine about 290;
# from memory).
_HUES = (
    (20, "pink"),
    (50, "red"),
    (72, "orange"),
    (100, "yellow"),
    (125, "yellow green"),
    (170, "green"),
    (230, "blue green"),
    (308, "blue"),
    (335, "violet"),
    (360, "pink"),
)
_NEUTRAL, _GREYED, _STRONG = 3.0, 14.0, 45.0
_WARM_FROM, _WARM_TO = 330.0, 115.0  # our choice: from pink over red to lemon
_SEEN = 2.0  # L*, a* or b*: our choice of the least that is worth a word


def hue_words(lab: Lab) -> str:
    """'greyed orange, warm', 'strong blue, cool', 'grey'; a guess by names, the numbers stay in the record."""
    _, a, b = lab
    chroma, angle = math.hypot(a, b), math.degrees(math.atan2(b, a)) % 360
    if chroma < _NEUTRAL:
        return "grey"
    name = next(words for limit, words in _HUES if angle < limit)
    strength = "greyed " if chroma < _GREYED else "strong " if chroma > _STRONG else ""
    return f"{strength}{name}, {'warm' if angle >= _WARM_FROM or angle < _WARM_TO else 'cool'}"


def beside_words(lab: Lab, other: Lab) -> str:
    """How it differs from another: 'lighter, yellower, redder'; 'much the same' where nothing does."""
    words = (("lighter", "darker"), ("redder", "greener"), ("yellower", "bluer"))
    differences = ((x - y, more, less) for (x, y), (more, less) in zip(zip(lab, other, strict=True), words, strict=True))
    found = [more if d > 0 else less for d, more, less in differences if abs(d) >= _SEEN]
    return ", ".join(found) or "much the same"
