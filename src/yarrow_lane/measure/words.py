"""Words made fit to keep, to begin a sentence, to count, to name a file: no letters that are none, no signs that steer a screen."""

import re
import unicodedata

# Unicode 15, categories Cc (controls but line ends and tabs), Cs (lone surrogates), Co and Cn (private, unassigned) and the signs
# that turn the direction of a line (UAX 9): none can be read, and each can make one name look like another.
_DIRECTIONS = "\u061c\u200e\u200f\u202a\u202b\u202c\u202d\u202e\u2066\u2067\u2068\u2069"
_LOST = "\ufffd"
_NAME_BYTES = 120  # our choice: with a folder and an ending well below the 255 of common file systems


def _fit(letter: str) -> str:
    if letter in "\n\t" or letter.isprintable():
        return letter
    kind = unicodedata.category(letter)
    if letter in _DIRECTIONS:
        return ""
    if kind == "Cs":
        return _LOST
    return " " if kind in ("Cc", "Zs", "Zl", "Zp") else letter


def cleaned(text: str) -> str:
    """The same words without controls, lone surrogates and signs of direction; line ends and tabs stay."""
    if text.isascii() and text.isprintable():
        return text
    return "".join(map(_fit, text.replace("\r\n", "\n").replace("\r", "\n")))


def one_line(text: str) -> str:
    """The same words, cleaned, in one line without doubled spaces."""
    return " ".join(cleaned(text).split())


def begun(words: str) -> str:
    """The words as they begin a sentence; all other letters stay, names among them."""
    return words[:1].upper() + words[1:]


def within(words: str) -> str:
    """The words of an act or heading as they stand within a sentence."""
    return words[:1].lower() + words[1:]


def counted(count: int, noun: str) -> str:
    """ "1 day", "3 days", "2 passes", "2 copies"."""
    if count != 1 and noun.endswith("y") and noun[-2:-1] not in "aeiou":
        return f"{count} {noun[:-1]}ies"
    ending = "" if count == 1 else "es" if noun.endswith(("s", "ch")) else "s"
    return f"{count} {noun}{ending}"


def file_name(text: str, ending: str, otherwise: str = "untitled") -> str:
    """A name for a file from a painter's words: no path, no leading dot, at most 120 bytes with its `ending`."""
    stem = re.sub(r'[/\\:*?"<>|\0]', " ", one_line(text))
    stem = " ".join(stem.split()).lstrip(". ")
    cut = stem.encode("utf-8")[: _NAME_BYTES - len(ending.encode("utf-8"))].decode("utf-8", "ignore").rstrip(". ")
    return (cut or otherwise) + ending
