"""The bench: numbers and choices in the order they are decided, and the one next act at its foot."""

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import QFrame, QLabel, QPushButton, QScrollArea, QVBoxLayout, QWidget

from yarrow_lane.ui.bench_editors import FieldLine
from yarrow_lane.ui.bench_lines import line_widget
from yarrow_lane.ui.bench_sheet import BenchSheet, Line, NextAct
from yarrow_lane.ui.bench_words import set_property
from yarrow_lane.ui.theme.lettering import lettering, px

WIDTH_PX = 306


class ActButton(QPushButton):
    """The only yellow field."""

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("act")
        box = QVBoxLayout(self)
        box.setContentsMargins(px(12), px(8), px(12), px(9))
        box.setSpacing(0)
        self.title, self.detail = QLabel(), QLabel()
        self.title.setFont(lettering(16.5, "bold"))
        self.detail.setFont(lettering(14))
        for label in (self.title, self.detail):
            label.setWordWrap(True)
            label.setTextFormat(Qt.TextFormat.PlainText)
            label.setAttribute(Qt.WidgetAttribute.WA_TransparentForMouseEvents)
            box.addWidget(label)

    def show_act(self, act: NextAct) -> None:
        self.title.setText(act.title)
        self.detail.setText(act.detail)
        self.detail.setVisible(bool(act.detail))
        self.setEnabled(act.enabled)
        for label in (self.title, self.detail):
            set_property(label, "role", "act" if act.enabled else "act off")
        self.setAccessibleName(f"Next: {act.title}")
        width = px(WIDTH_PX) - px(32) - px(24)
        height = self.title.heightForWidth(width) + (self.detail.heightForWidth(width) if act.detail else 0)
        self.setFixedHeight(height + px(19))


class Bench(QWidget):
    """Shows a `BenchSheet`; only what differs is touched, so that the painter's focus stays."""

    changed = Signal(str, object)
    pressed = Signal(str)
    acted = Signal()

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("bench")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.setFixedWidth(px(WIDTH_PX))
        outer = QVBoxLayout(self)
        outer.setContentsMargins(px(16), px(10), px(1), px(14))
        self._scroll = QScrollArea()
        self._scroll.setWidgetResizable(True)
        self._scroll.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self._scroll.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        outer.addWidget(self._scroll, 1)
        self.act = ActButton()
        self.act.clicked.connect(self.acted)
        foot = QVBoxLayout()
        foot.setContentsMargins(0, px(8), px(15), 0)
        foot.addWidget(self.act)
        outer.addLayout(foot)
        self._shape: tuple[object, ...] = ()
        self._widgets: list[QWidget] = []
        self._sheet = BenchSheet()

    def show_sheet(self, sheet: BenchSheet) -> None:
        """Show what differs from before."""
        shape = tuple((s.title, *((type(line), getattr(line, "key", "")) for line in s.lines)) for s in sheet.sections)
        if shape != self._shape:
            self._build(sheet)
            self._shape = shape
        else:
            before = [line for s in self._sheet.sections for line in s.lines]
            lines = [line for s in sheet.sections for line in s.lines]
            for widget, was, line in zip(self._widgets, before, lines, strict=True):
                if was != line or isinstance(widget, FieldLine):
                    widget.show_line(line)  # type: ignore[attr-defined]
        self.act.setVisible(sheet.act is not None)
        if sheet.act is not None:
            self.act.show_act(sheet.act)
        self._sheet = sheet

    def _build(self, sheet: BenchSheet) -> None:
        at = self._scroll.verticalScrollBar().value()
        lines = QWidget()
        lines.setObjectName("lines")
        box = QVBoxLayout(lines)
        box.setContentsMargins(0, 0, px(14), px(8))
        box.setSpacing(px(3))
        self._widgets = []
        for number, section in enumerate(sheet.sections):
            if number:
                box.addSpacing(px(5))
                rule = QFrame()
                rule.setProperty("role", "rule")
                box.addWidget(rule)
                box.addSpacing(px(3))
            if section.title:
                head = QLabel(section.title)
                head.setProperty("role", "head")
                head.setFont(lettering(13.5, "bold"))
                box.addWidget(head)
                box.addSpacing(px(2))
            for line in section.lines:
                widget = line_widget(line, self.changed.emit, self.pressed.emit)
                self._widgets.append(widget)
                box.addWidget(widget)
        box.addStretch(1)
        # A change made in an editor may rebuild the bench while that editor is still speaking: it goes later.
        old = self._scroll.takeWidget()
        if old is not None:
            old.hide()
            old.deleteLater()
        self._scroll.setWidget(lines)
        self._scroll.verticalScrollBar().setValue(at)

    def line(self, key: str) -> QWidget:
        """The widget of the line with that key; raises KeyError."""
        lines: list[Line] = [line for s in self._sheet.sections for line in s.lines]
        for widget, line in zip(self._widgets, lines, strict=True):
            if getattr(line, "key", None) == key:
                return widget
        raise KeyError(key)

    def store_pending(self) -> None:
        """Pass on words still being written, before the painter leaves."""
        for widget in list(self._widgets):
            if isinstance(widget, FieldLine):
                widget.store()
