"""One strip at the foot of the window: what happened, why, what to do."""

from collections.abc import Callable
from dataclasses import dataclass

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QHBoxLayout, QPushButton, QWidget

from yarrow_lane.ui.bench_words import set_property
from yarrow_lane.ui.kit.plain import PlainLabel, on_button
from yarrow_lane.ui.theme.lettering import lettering, px


@dataclass(frozen=True)
class Offer:
    """A verb and what it does; `do` sees to its own trouble."""

    words: str
    do: Callable[[], object]


class MessageStrip(QWidget):
    """Shows the newest message until it is dismissed or replaced; empty it takes no room."""

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("message")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        row = QHBoxLayout(self)
        row.setContentsMargins(px(18), px(6), px(12), px(6))
        self._words = PlainLabel()
        self._words.setFont(lettering(15))
        self._words.setWordWrap(True)
        self._words.setTextInteractionFlags(Qt.TextInteractionFlag.TextSelectableByMouse)
        row.addWidget(self._words, 1)
        self._offer: Offer | None = None
        self.offer = QPushButton()
        self.offer.setFont(lettering(14))
        self.offer.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.offer.clicked.connect(self._take_offer)
        row.addWidget(self.offer)
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

    def say(self, text: str, wrong: bool = False, offer: Offer | None = None) -> None:
        """Show a message; `offer` is what can be done about it, on a button beside it."""
        self._offer = offer
        self.offer.setText(on_button(offer.words) if offer is not None else "")
        self.offer.setVisible(offer is not None)
        set_property(self, "tone", "wrong" if wrong else "plain")
        set_property(self._words, "tone", "wrong" if wrong else "plain")
        self._words.setText(text)
        self.show()

    def _take_offer(self) -> None:
        if self._offer is not None:
            self._offer.do()

    def overtaken(self) -> None:
        """What was said is over; what offers to do something stays until it is done or dismissed."""
        if self._offer is None:
            self.clear()

    def clear(self) -> None:
        self._words.clear()
        self.hide()
