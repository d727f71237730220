"""One strip at the foot of the window: what happened, why, what to do."""

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QHBoxLayout, QLabel, QPushButton, QWidget

from yarrow_lane.ui.bench_words import set_property
from yarrow_lane.ui.theme.lettering import lettering, px


class MessageStrip(QWidget):
    """Shows the newest message until it is dismissed or replaced; empty it takes no room."""

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("message")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        row = QHBoxLayout(self)
        row.setContentsMargins(px(18), px(6), px(12), px(6))
        self._words = QLabel()
        self._words.setFont(lettering(15))
        self._words.setWordWrap(True)
        self._words.setTextFormat(Qt.TextFormat.PlainText)
        self._words.setTextInteractionFlags(Qt.TextInteractionFlag.TextSelectableByMouse)
        row.addWidget(self._words, 1)
        close = QPushButton("Close")
        close.setFont(lettering(14))
        close.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        close.clicked.connect(self.clear)
        row.addWidget(close)
        self.hide()

    @property
    def text(self) -> str:
        """What is being said; empty when nothing is."""
        return "" if self.isHidden() else self._words.text()

    def say(self, text: str, wrong: bool = False) -> None:
        set_property(self, "tone", "wrong" if wrong else "plain")
        set_property(self._words, "tone", "wrong" if wrong else "plain")
        self._words.setText(text)
        self.show()

    def clear(self) -> None:
        self._words.clear()
        self.hide()
