"""A mix as the painter writes it: paints in parts."""

import re

# A comma within a number, and a stroke within a fraction, part nothing.
_BETWEEN = re.compile(r"[:;+\n]|,(?!\d)|(?<!\d)/|/(?!\d)| and ")
# Parts before or behind their paint: 'white 6', '2 parts of ochre', '½ sienna', '1½ blue', '1/8 black', 'PW6 3'.
PARTS = re.compile(r"(?:^|(?<=\s))(?:(\d+(?:[.,]\d+)?)?\s?([⅛¼⅓⅜½⅝⅔¾⅞]|\d+/\d+)|(\d+(?:[.,]\d+)?))(?=$|\s|x|×)")
_FILLING = {"part", "parts", "of", "a", "x", "×"}


def pieces_of(text: str) -> list[str]:
    """What is written of each paint."""
    return [piece.strip() for piece in _BETWEEN.split(text) if piece.strip()]


def name_in(piece: str) -> list[str]:
    """The words that name the paint, without the first parts and what is said round them."""
    return [w for w in PARTS.sub(" ", piece, count=1).split() if w.lower() not in _FILLING]


def counts_as_mix(text: str) -> bool:
    """Whether it names every paint and its parts; 'white 1' is a paint from the tube, 'something warm' no mix."""
    pieces = pieces_of(text)
    return bool(pieces) and all(_is_paint(piece) for piece in pieces)


def _is_paint(piece: str) -> bool:
    return PARTS.search(piece) is not None and any(any(letter.isalpha() for letter in w) for w in name_in(piece))
