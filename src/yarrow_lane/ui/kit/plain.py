"""Words as they are: what a client or a file wrote is never read as marks of a page or as a key, however long it is."""

import re
from html import escape

from PySide6.QtCore import QSize, Qt
from PySide6.QtGui import QResizeEvent
from PySide6.QtWidgets import QLabel, QPushButton

_LONG, _EACH = 20, 12  # letters: a word this long may break after so many: our choice
_BREAK = "\u200b"  # zero width space


def breakable(text: str) -> str:
    """The same words, the very long ones with places where a line may end; at a hyphen it may anyway."""
    return re.sub(rf"[^\s-]{{{_LONG},}}", lambda word: re.sub(rf"(.{{{_EACH}}})(?=.)", rf"\1{_BREAK}", word[0]), text)


class PlainLabel(QLabel):
    """A label that shows its text letter by letter; a word too long for a line is broken."""

    def __init__(self, text: str = "") -> None:
        super().__init__()
        self.setTextFormat(Qt.TextFormat.PlainText)
        self.setText(text)

    def setText(self, text: str) -> None:
        super().setText(breakable(text))

    def text(self) -> str:
        return super().text().replace(_BREAK, "")


class FittingButton(QPushButton):
    """A button that shortens its words in the middle to the room there is; whole they are its tool tip."""

    def __init__(self) -> None:
        super().__init__()
        self._words = ""

    def show_words(self, words: str) -> None:
        self._words = words
        self._fit()

    def minimumSizeHint(self) -> QSize:
        return QSize(0, super().minimumSizeHint().height())

    def sizeHint(self) -> QSize:
        return QSize(0, super().sizeHint().height())

    def resizeEvent(self, event: QResizeEvent) -> None:
        self._fit()

    def _fit(self) -> None:
        room = self.width() - 24
        shown = (
            self.fontMetrics().elidedText(self._words, Qt.TextElideMode.ElideMiddle, room) if self.isVisible() else self._words
        )
        self.setText(on_button(shown))
        self.setAccessibleName(self._words)
        self.setToolTip(tip(self._words) if shown != self._words else "")


def shortened(text: str, most: int) -> str:
    """The first so many letters, and a sign that there are more."""
    return text if len(text) <= most else text[: most - 1].rstrip() + "…"


def tip(text: str) -> str:
    """Words for a tool tip, which Qt would read as a page when they look like one."""
    return f"<qt>{escape(text)}</qt>" if text else ""


def on_button(text: str) -> str:
    """Words for a button, in which a single "&" would be taken for a key."""
    return text.replace("&", "&&")
