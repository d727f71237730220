"""A mix as the painter writes it: paints in parts."""

import re

_BETWEEN = re.compile(r"[:;,+/\n]| and ")
# A paint and its parts in either order: 'white 6', '2 parts of ochre', '½ sienna', 'PW6 3'.
_PARTS = re.compile(r"(?:^|(?<=\s))(?:\d+(?:[.,]\d+)?|[½¼¾⅓⅔])(?=$|\s|x|×)")
_FILLING = {"part", "parts", "of", "a", "x", "×"}


def counts_as_mix(text: str) -> bool:
    """Whether it names every paint and its parts; 'white 1' is a paint from the tube, 'something warm' no mix."""
    pieces = [piece.strip() for piece in _BETWEEN.split(text) if piece.strip()]
    return bool(pieces) and all(_is_paint(piece) for piece in pieces)


def _is_paint(piece: str) -> bool:
    name = _PARTS.sub(" ", piece)
    words = [w for w in name.split() if w.lower() not in _FILLING]
    return _PARTS.search(piece) is not None and any(any(letter.isalpha() for letter in w) for w in words)
