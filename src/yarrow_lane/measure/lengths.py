"""Lengths as millimetres, and how the painter writes them: "40 x 50 cm", "8 1/2 in".

1 in = 25.4 mm exactly (international yard and pound agreement, 1959).
"""

import math
import re
from fractions import Fraction
from typing import Literal

from yarrow_lane.measure.trouble import Trouble

MM_PER_INCH = 25.4
Unit = Literal["cm", "in"]
THIN_SPACE = "\u202f"  # narrow and unbreakable: a number never parts from its unit
_SIXTEENTHS = 16
_HAND_MM = 100.0  # our choice: an example is no measure
_PER_UNIT = {"mm": 1.0, "cm": 10.0, "m": 1000.0, "in": MM_PER_INCH, '"': MM_PER_INCH, "″": MM_PER_INCH}
_LENGTH = re.compile(
    r"^\s*(?:(?P<whole>\d+(?:[.,]\d+)?)(?=\s|[a-z\"″]|$))?\s*(?:(?P<up>\d+)\s*/\s*(?P<down>\d+))?\s*"
    r"(?P<unit>mm|cm|m|in|inch|inches|\"|″)?\s*$",
    re.IGNORECASE,
)


class LengthError(Trouble):
    """The words are not a length."""


def parse_length(text: str, unit: Unit = "cm") -> float:
    """Millimetres from "40", "40 cm", "402mm", "8 1/2 in".

    A bare number is read in `unit`. Raises `LengthError` on anything that is
    not a positive, finite length.
    """
    match = _LENGTH.match(text)
    if match is None or (match["whole"] is None and match["up"] is None):
        raise LengthError(f"“{text.strip()}” is not a length", "", "write it like 40 cm or 8 1/2 in")
    number = float((match["whole"] or "0").replace(",", "."))
    if match["up"] is not None:
        # "81/2" would be read as 81 halves: a fraction must stand apart from its whole.
        if int(match["down"]) == 0:
            raise LengthError(f"“{text.strip()}” divides by nothing", "", "write a fraction like 1/2")
        number += int(match["up"]) / int(match["down"])
    word = (match["unit"] or unit).lower()
    length_mm = number * _PER_UNIT["in" if word.startswith("in") else word]
    if length_mm <= 0:
        raise LengthError(f"“{text.strip()}” is no length at all", "", "write a number above zero")
    return length_mm


def inches_text(length_mm: float) -> str:
    """Inches to the nearest sixteenth: 215.9 mm -> "8 1/2"."""
    sixteenths = round(length_mm / MM_PER_INCH * _SIXTEENTHS)
    whole, rest = divmod(sixteenths, _SIXTEENTHS)
    if rest == 0:
        return str(whole)
    part = Fraction(rest, _SIXTEENTHS)
    piece = f"{part.numerator}/{part.denominator}"
    return f"{whole} {piece}" if whole else piece


def number_text(length_mm: float, unit: Unit = "cm", decimals: int = 1) -> str:
    """The bare number in the painter's unit, without trailing zeros."""
    if unit == "in":
        return inches_text(length_mm)
    text = f"{length_mm / 10:.{decimals}f}"
    return text.rstrip("0").rstrip(".") if "." in text else text


def length_text(length_mm: float, unit: Unit = "cm", decimals: int = 1) -> str:
    """A length with its unit, a thin space between: "5.0 cm" as "5 cm", "8 1/2 in"."""
    return f"{number_text(length_mm, unit, decimals)}{THIN_SPACE}{unit}"


def example_text(length_mm: float, unit: Unit) -> str:
    """A usual length as an example to write by, in whole inches from a hand's breadth on; "" for none."""
    if unit == "in" and length_mm >= _HAND_MM:
        return str(round(length_mm / MM_PER_INCH))
    return number_text(length_mm, unit) if length_mm else ""


def size_text(width_mm: float, height_mm: float, unit: Unit = "cm") -> str:
    """Width by height in the painter's unit: "40 × 50 cm"."""
    return f"{number_text(width_mm, unit)} × {number_text(height_mm, unit)}{THIN_SPACE}{unit}"


def hours_text(minutes: float) -> str:
    """Time at the easel: 75 -> "1 h 15", 40 -> "40 min"; from ten hours on in whole hours: 645 -> "11 h"."""
    whole = max(0, math.floor(minutes + 0.5))
    if whole >= 600:
        return f"{math.floor(whole / 60 + 0.5)}{THIN_SPACE}h"
    hours, rest = divmod(whole, 60)
    if hours == 0:
        return f"{rest}{THIN_SPACE}min"
    return f"{hours}{THIN_SPACE}h" if rest == 0 else f"{hours}{THIN_SPACE}h {rest:02d}"
