"""Lines of the bench that only say something: facts, notes, deeds, headlines."""

from html import escape

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QHBoxLayout, QLabel, QVBoxLayout, QWidget

from yarrow_lane.ui.bench_sheet import Deed, Fact, Headline, Note
from yarrow_lane.ui.theme.lettering import SERIF, lettering, px


def set_property(widget: QWidget, name: str, value: str) -> None:
    """Set a style-sheet property and let the style look again."""
    if widget.property(name) != value:
        widget.setProperty(name, value)
        widget.style().unpolish(widget)
        widget.style().polish(widget)


def small_label(text: str, role: str = "", size: float = 14) -> QLabel:
    label = QLabel(text)
    label.setFont(lettering(size))
    label.setWordWrap(True)
    label.setTextFormat(Qt.TextFormat.PlainText)
    if role:
        label.setProperty("role", role)
    return label


class FactLine(QWidget):
    """Label at the left, bold number at the right."""

    def __init__(self, line: Fact) -> None:
        super().__init__()
        row = QHBoxLayout(self)
        row.setContentsMargins(0, px(2), 0, px(2))
        row.setSpacing(px(8))
        self._label = small_label("")
        self._value = small_label("")
        self._value.setFont(lettering(14.5, "bold"))
        self._value.setAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignTop)
        self._label.setAlignment(Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignTop)
        row.addWidget(self._label, 1)
        row.addWidget(self._value, 1)
        self.show_line(line)

    def show_line(self, line: Fact) -> None:
        self._label.setText(line.label)
        self._value.setText(line.value)
        # The longer side gets the room, so that neither wraps without need.
        layout = self.layout()
        assert isinstance(layout, QHBoxLayout)
        layout.setStretch(0, max(6, len(line.label)))
        layout.setStretch(1, max(6, round(len(line.value) * 1.15)))
        set_property(self._value, "tone", line.tone)


class NoteLine(QLabel):
    """A sentence in small type."""

    def __init__(self, line: Note) -> None:
        super().__init__()
        self.setWordWrap(True)
        self.setTextFormat(Qt.TextFormat.PlainText)
        self.setFont(lettering(13.5))
        self.setProperty("role", "soft")
        self.show_line(line)

    def show_line(self, line: Note) -> None:
        self.setText(line.text)
        set_property(self, "tone", line.tone)


class DeedLine(QWidget):
    """Clock time at the left; who, what and the small print beside it."""

    def __init__(self, line: Deed) -> None:
        super().__init__()
        row = QHBoxLayout(self)
        row.setContentsMargins(0, px(3), 0, px(3))
        row.setSpacing(px(10))
        self._when, self._what, self._detail = small_label(""), QLabel(), small_label("", "soft", 13)
        self._when.setFont(lettering(14.5, "bold"))
        self._when.setFixedWidth(px(44))
        self._when.setAlignment(Qt.AlignmentFlag.AlignTop)
        self._what.setFont(lettering(14.5))
        self._what.setTextFormat(Qt.TextFormat.RichText)
        self._what.setWordWrap(True)
        words = QVBoxLayout()
        words.setSpacing(0)
        words.addWidget(self._what)
        words.addWidget(self._detail)
        row.addWidget(self._when)
        row.addLayout(words, 1)
        self.show_line(line)

    def show_line(self, line: Deed) -> None:
        self._when.setText(line.when)
        self._what.setText(f"<b>{escape(line.who)}</b>, {escape(line.what)}")
        self._detail.setText(line.detail)


class HeadlineLine(QLabel):
    """A name in large type."""

    def __init__(self, line: Headline) -> None:
        super().__init__()
        self.setWordWrap(True)
        self.setTextFormat(Qt.TextFormat.PlainText)
        self.setFont(lettering(19, "bold", SERIF))
        self.show_line(line)

    def show_line(self, line: Headline) -> None:
        self.setText(line.text)
