"""What a change would do to later work, shown before it is made: taken with Enter, left with Esc."""

from collections.abc import Callable

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from yarrow_lane.ui.kit.plain import PlainLabel
from yarrow_lane.ui.theme.lettering import lettering, px


class QuestionStrip(QWidget):
    """Lies at the foot of the window while it waits; its yellow field then is the only one."""

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("message")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        row = QHBoxLayout(self)
        row.setContentsMargins(px(18), px(8), px(12), px(8))
        words = QVBoxLayout()
        words.setSpacing(px(2))
        self.title, self.list = PlainLabel(), PlainLabel()
        self.title.setFont(lettering(15.5, "bold"))
        self.list.setFont(lettering(14.5))
        for label in (self.title, self.list):
            label.setWordWrap(True)
            words.addWidget(label)
        row.addLayout(words, 1)
        self.yes, self.no = QPushButton("Do it"), QPushButton("Leave it")
        self.yes.setObjectName("act")
        self.yes.setFont(lettering(15, "bold"))
        self.no.setFont(lettering(14))
        for button in (self.yes, self.no):
            button.setFocusPolicy(Qt.FocusPolicy.NoFocus)
            row.addWidget(button, 0, Qt.AlignmentFlag.AlignVCenter)
        self.yes.clicked.connect(lambda: self.answer(True))
        self.no.clicked.connect(lambda: self.answer(False))
        self._then: Callable[[bool], None] | None = None
        self.hide()

    @property
    def waiting(self) -> bool:
        return self._then is not None

    def ask(self, what: str, changes: tuple[str, ...], then: Callable[[bool], None]) -> None:
        """Show what would become of later work; `then` hears whether the change is wanted. An older question is left."""
        self._then = then
        # `what` is told as done, as undo will tell it.
        self.title.setText(f"{what}: what becomes of later work")
        self.list.setText("\n".join(f"· {change}" for change in changes))
        self.show()

    def answer(self, wanted: bool) -> None:
        """Close the question and say so."""
        then, self._then = self._then, None
        self.hide()
        if then is not None:
            then(wanted)

    def leave(self) -> None:
        """Close the question without an answer being told."""
        self._then = None
        self.hide()
