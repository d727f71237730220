"""The two families that ship with the application, with lining tabular figures."""

from importlib import resources
from typing import Literal

from PySide6.QtGui import QFont, QFontDatabase

SANS = "Yarrow Sans"
SERIF = "Yarrow Serif"
BODY_PX = 15
Weight = Literal["normal", "medium", "bold"]
_WEIGHTS = {"normal": QFont.Weight.Normal, "medium": QFont.Weight.Medium, "bold": QFont.Weight.Bold}
_percent = 100


def load_fonts() -> None:
    """Make the shipped fonts known; called once, after the application exists."""
    folder = resources.files("yarrow_lane").joinpath("fonts")
    for item in folder.iterdir():
        if item.name.endswith(".ttf"):
            QFontDatabase.addApplicationFontFromData(item.read_bytes())


def set_text_percent(percent: int) -> None:
    """Enlarge all text; widgets made afterwards follow."""
    global _percent
    _percent = percent


def px(size: float) -> int:
    """A length that grows with the text, in screen pixels."""
    return max(1, round(size * _percent / 100))


def lettering(size: float = BODY_PX, weight: Weight = "normal", family: str = SANS) -> QFont:
    """A font at `size` px (at 100 % text); its figures are lining and of equal width."""
    font = QFont(family)
    font.setPixelSize(px(size))
    font.setWeight(_WEIGHTS[weight])

    return font
