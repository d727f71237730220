"""The bench: numbers and choices in the order they are decided, and the one next act at its foot."""

from dataclasses import dataclass

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


_Shape = tuple[object, ...]


@dataclass
class _Slot:
    """One widget of the bench: a line, or a heading or rule (then `line` is None)."""

    shape: _Shape
    widget: QWidget
    line: Line | None


def _wanted(sheet: BenchSheet) -> list[tuple[_Shape, Line | None]]:
    """What stands on the bench from top to foot; widgets of equal shape can take each other's place."""
    found: list[tuple[_Shape, Line | None]] = []
    for number, section in enumerate(sheet.sections):
        if number:
            found.append((("rule",), None))
        if section.title:
            found.append((("head", section.title), None))
        found += [((type(line), getattr(line, "key", "")), line) for line in section.lines]
    return found


def _rule() -> QWidget:
    holder = QWidget()
    box = QVBoxLayout(holder)
    box.setContentsMargins(0, px(5), 0, px(3))
    rule = QFrame()
    rule.setProperty("role", "rule")
    box.addWidget(rule)
    return holder


def _heading(title: str) -> QWidget:
    head = QLabel(title)
    head.setProperty("role", "head")
    head.setFont(lettering(13.5, "bold"))
    head.setContentsMargins(0, 0, 0, px(2))
    return head


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
        self._slots: list[_Slot] = []
        lines = QWidget()
        lines.setObjectName("lines")
        self._box = QVBoxLayout(lines)
        self._box.setContentsMargins(0, 0, px(14), px(8))
        self._box.setSpacing(px(3))
        self._box.addStretch(1)
        self._scroll.setWidget(lines)
        self._sheet = BenchSheet()

    def show_sheet(self, sheet: BenchSheet) -> None:
        """Show what differs from before."""
        wanted = _wanted(sheet)
        self._rebuild([shape for shape, _ in wanted], wanted)
        for slot, (_, line) in zip(self._slots, wanted, strict=True):
            if line is not None and (slot.line != line or isinstance(slot.widget, FieldLine)):
                slot.widget.show_line(line)  # type: ignore[attr-defined]
            slot.line = line
        self.act.setVisible(sheet.act is not None)
        if sheet.act is not None:
            self.act.show_act(sheet.act)
        self._sheet = sheet

    def _rebuild(self, shapes: list[_Shape], wanted: list[tuple[_Shape, Line | None]]) -> None:
        """Make new widgets only between the lines that stay at the top and at the bottom."""
        here = [slot.shape for slot in self._slots]
        if here == shapes:
            return
        top = 0
        while top < min(len(here), len(shapes)) and here[top] == shapes[top]:
            top += 1
        foot = 0
        while foot < min(len(here), len(shapes)) - top and here[-1 - foot] == shapes[-1 - foot]:
            foot += 1
        for slot in self._slots[top : len(here) - foot]:
            # A change made in an editor may take it away while it is still speaking: it goes later.
            self._box.removeWidget(slot.widget)
            slot.widget.hide()
            slot.widget.deleteLater()
        made = [self._slot(shape, line) for shape, line in wanted[top : len(shapes) - foot]]
        for n, slot in enumerate(made):
            self._box.insertWidget(top + n, slot.widget)
        self._slots[top : len(here) - foot] = made

    def _slot(self, shape: _Shape, line: Line | None) -> "_Slot":
        if line is not None:
            return _Slot(shape, line_widget(line, self.changed.emit, self.pressed.emit), line)
        return _Slot(shape, _heading(str(shape[1])) if shape[0] == "head" else _rule(), None)

    def line(self, key: str) -> QWidget:
        """The widget of the line with that key; raises KeyError."""
        for slot in self._slots:
            if getattr(slot.line, "key", None) == key:
                return slot.widget
        raise KeyError(key)

    def store_pending(self) -> None:
        """Pass on words still being written, before the painter leaves."""
        for slot in list(self._slots):
            if isinstance(slot.widget, FieldLine):
                slot.widget.store()
