"""Words as they are: what a client or a file wrote is never read as marks of a page or as a key."""

from html import escape

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QLabel


class PlainLabel(QLabel):
    """A label that shows its text letter by letter."""

    def __init__(self, text: str = "") -> None:
        super().__init__(text)
        self.setTextFormat(Qt.TextFormat.PlainText)


def tip(text: str) -> str:
    """Words for a tool tip, which Qt would read as a page when they look like one."""
    return f"<qt>{escape(text)}</qt>" if text else ""


def on_button(text: str) -> str:
    """Words for a button, in which a single "&" would be taken for a key."""
    return text.replace("&", "&&")
