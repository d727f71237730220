"""Strictly neutral greys, and three colours that always come with a word or a shape.

A neutral surround keeps colour judgement honest (viewing-condition practice, ISO 3664).
Contrast of text is at least 4.5:1 (WCAG 2.2, 1.4.3); tested.
"""

from dataclasses import dataclass

SURROUND = "#8c8c8c"  # about Munsell N5.5; the same by day and by evening, so that colours can be compared
INK = "#141414"  # words on the surround: 5.5 : 1, where white would have 3.4 : 1


@dataclass(frozen=True)
class Colours:
    """One theme. `here` marks where we are and the next act; `wrong` and `holds` judge."""

    panel: str
    lane: str
    paper: str
    text: str
    soft: str
    rule: str
    field: str
    here: str
    on_here: str
    here_edge: str
    wrong: str
    holds: str
    chosen: str
    on_chosen: str
    weekend: str


DAY = Colours(
    panel="#f1f1f1", lane="#e8e8e8", paper="#e4e4e4", text="#222222", soft="#5a5a5a", rule="#c6c6c6", field="#ffffff",
    here="#f3c64f", on_here="#222222", here_edge="#7a5600", wrong="#8a2f12", holds="#4e6b3a", chosen="#222222",
    on_chosen="#ffffff", weekend="#d2d2d2",
)  # fmt: skip
EVENING = Colours(
    panel="#2f2f2f", lane="#292929", paper="#363636", text="#dedede", soft="#adadad", rule="#525252", field="#242424",
    here="#d6ad42", on_here="#1c1c1c", here_edge="#7a5600", wrong="#eb9373", holds="#a4c48b", chosen="#dedede",
    on_chosen="#222222", weekend="#2b2b2b",
)  # fmt: skip


def luminance(colour: str) -> float:
    """Relative luminance of "#rrggbb" (WCAG 2.2)."""
    codes = (int(colour[n : n + 2], 16) / 255 for n in (1, 3, 5))
    r, g, b = (c / 12.92 if c <= 0.04045 else ((c + 0.055) / 1.055) ** 2.4 for c in codes)
    return 0.2126 * r + 0.7152 * g + 0.0722 * b


def contrast(one: str, other: str) -> float:
    """Contrast ratio, 1 to 21 (WCAG 2.2)."""
    light, dark = sorted((luminance(one), luminance(other)), reverse=True)
    return (light + 0.05) / (dark + 0.05)
