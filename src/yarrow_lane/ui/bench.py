"""The bench: numbers and choices in the order they are decided, and the one next act at its foot."""

from collections import Counter
from dataclasses import dataclass
from typing import Any

from PySide6.QtCore import QEvent, Qt, QTimer, Signal
from PySide6.QtGui import QHideEvent, QMouseEvent
from PySide6.QtWidgets import QApplication, QFrame, QHBoxLayout, QPushButton, QScrollArea, QVBoxLayout, QWidget
from shiboken6 import isValid

from yarrow_lane.ui.bench_day import DayLine
from yarrow_lane.ui.bench_editors import FieldLine, Hand, Labelled, LengthLine, PickLine
from yarrow_lane.ui.bench_lines import line_widget
from yarrow_lane.ui.bench_sheet import BenchSheet, Line, NextAct, Section
from yarrow_lane.ui.bench_words import WIDTH_PX, set_property
from yarrow_lane.ui.kit.plain import PlainLabel, shortened, tip
from yarrow_lane.ui.theme.lettering import lettering, px

_LONG_NAME, _MOST_TITLE, _MOST_DETAIL = 30, 90, 140  # letters: our choice, a name of 300 does not fill the bench
_MARKED_MS = 4000  # our choice: long enough to look from the picture to the bench


class ActButton(QPushButton):
    """The only yellow field."""

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("act")
        box = QVBoxLayout(self)
        box.setContentsMargins(px(12), px(8), px(12), px(9))
        box.setSpacing(0)
        self.title, self.detail = PlainLabel(), PlainLabel()
        self.title.setFont(lettering(16.5, "bold"))
        self.detail.setFont(lettering(14))
        for label in (self.title, self.detail):
            label.setWordWrap(True)
            label.setAttribute(Qt.WidgetAttribute.WA_TransparentForMouseEvents)
            box.addWidget(label)

    def show_act(self, act: NextAct, resting: bool) -> None:
        can = act.enabled and act.do is not None and not resting
        self.title.setText(shortened(act.title, _MOST_TITLE))
        self.detail.setText(shortened(act.detail, _MOST_DETAIL))
        self.setToolTip(
            tip(f"{act.title}. {act.detail}") if len(act.title) > _MOST_TITLE or len(act.detail) > _MOST_DETAIL else ""
        )
        self.detail.setVisible(bool(act.detail))
        self.setEnabled(can)
        for label in (self.title, self.detail):
            set_property(label, "role", "act" if can else "act off")
        self.setAccessibleName(f"Next: {act.title}")
        width = px(WIDTH_PX) - px(32) - px(24)
        height = self.title.heightForWidth(width) + (self.detail.heightForWidth(width) if act.detail else 0)
        self.setFixedHeight(height + px(19))


class _Heading(QWidget):
    """The name of a section; where it folds, its decision beside it, and a click opens and folds it."""

    clicked = Signal()

    def __init__(self, title: str) -> None:
        super().__init__()
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, px(2))
        row.setSpacing(px(8))
        self._title, self._decision = PlainLabel(), PlainLabel()
        self._title.setFont(lettering(13.5, "bold"))
        self._title.setProperty("role", "head")
        self._decision.setFont(lettering(13.5))
        self._decision.setProperty("role", "soft")
        self._decision.setWordWrap(True)
        row.addWidget(self._title)
        row.addWidget(self._decision, 1)
        self._name = title
        self._folds = False
        self.show_words("", True)

    def show_words(self, decision: str, open_: bool) -> None:
        self._folds = bool(decision)
        mark = ("▾ " if open_ else "▸ ") if decision else ""
        room = px(WIDTH_PX) - px(56)
        self._title.setText(self._title.fontMetrics().elidedText(mark + self._name, Qt.TextElideMode.ElideRight, room))
        self._title.setToolTip(tip(self._name) if len(self._name) > _LONG_NAME else "")
        self._decision.setText("" if open_ else decision)
        self.setCursor(Qt.CursorShape.PointingHandCursor if decision else Qt.CursorShape.ArrowCursor)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        if self._folds:
            self.clicked.emit()


_Shape = tuple[object, ...]


@dataclass
class _Slot:
    """One widget of the bench: a line, or a heading or rule (then `line` is None)."""

    shape: _Shape
    widget: Any
    line: Line | None


def _wanted(sheet: BenchSheet, folded: dict[str, bool]) -> list[tuple[_Shape, Line | None]]:
    """What stands on the bench from top to foot; widgets of equal shape can take each other's place."""
    found: list[tuple[_Shape, Line | None]] = []
    for number, section in enumerate(sheet.sections):
        if number:
            found.append((("rule",), None))
        if section.title:
            found.append((("head", section.title), None))
        if section.decision and folded.get(section.title, True):
            continue
        found += [((type(x), getattr(x, "label", ""), getattr(x, "about", None)), x) for x in section.lines]
    return found


def _has(section: Section, label: str) -> bool:
    return any(getattr(line, "label", "") == label for line in section.lines)


def _rule() -> QWidget:
    holder = QWidget()
    box = QVBoxLayout(holder)
    box.setContentsMargins(0, px(5), 0, px(3))
    rule = QFrame()
    rule.setProperty("role", "rule")
    box.addWidget(rule)
    return holder


class Bench(QWidget):
    """Shows a `BenchSheet`; only what differs is touched, so that the painter's focus stays.

    `hand` takes what a change means and gives back the trouble it ran into, if any.
    """

    acted = Signal()

    def __init__(self, hand: Hand) -> None:
        super().__init__()
        self._hand = hand
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
        self._folded: dict[str, bool] = {}
        lines = QWidget()
        lines.setObjectName("lines")
        self._box = QVBoxLayout(lines)
        self._box.setContentsMargins(0, 0, px(14), px(8))
        self._box.setSpacing(px(3))
        self._box.addStretch(1)
        self._scroll.setWidget(lines)
        self.sheet = BenchSheet()
        self._resting = False
        self._marked: QWidget | None = None
        self._mark_time = QTimer(self)
        self._mark_time.setSingleShot(True)
        self._mark_time.setInterval(_MARKED_MS)
        self._mark_time.timeout.connect(self._unmark)

    def show_sheet(self, sheet: BenchSheet) -> None:
        """Show what differs from before."""
        self.sheet = sheet
        wanted = _wanted(sheet, self._folded)
        self._rebuild([shape for shape, _ in wanted], wanted)
        for slot, (_, line) in zip(self._slots, wanted, strict=True):
            if line is not None:
                if slot.line == line and not isinstance(slot.widget, FieldLine):
                    if hasattr(slot.widget, "line"):
                        slot.widget.line = line  # it shows the same but may mean it of something else
                else:
                    slot.widget.show_line(line)
            slot.line = line
        self._show_decisions()
        self.act.setVisible(sheet.act is not None)
        if sheet.act is not None:
            self.act.show_act(sheet.act, self._resting)

    def show_record(self) -> None:
        """At the next sheet every editor shows what is on record again, not what was wanted and refused."""
        for slot in self._slots:
            if isinstance(slot.widget, Labelled) and not isinstance(slot.widget, FieldLine):
                slot.line = None

    def rest(self, resting: bool) -> None:
        """While something is asked elsewhere in the window the yellow field cannot be pressed."""
        self._resting = resting
        if self.sheet.act is not None:
            self.act.show_act(self.sheet.act, resting)

    def _show_decisions(self) -> None:
        decisions = {s.title: s.decision for s in self.sheet.sections}
        for slot in self._slots:
            if isinstance(slot.widget, _Heading):
                title = str(slot.shape[1])
                slot.widget.show_words(decisions[title], not self._folded.get(title, True))

    def fold(self, title: str, folded: bool) -> None:
        """Fold a section to its decision, or open it."""
        self._folded[title] = folded
        self.show_sheet(self.sheet)

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
        gone = self._slots[top : len(here) - foot]
        made = [self._slot(shape, line) for shape, line in wanted[top : len(shapes) - foot]]
        self._slots[top : len(here) - foot] = made
        focus, page = QApplication.focusWidget(), self.parentWidget()
        if focus is not None and page is not None and any(s.widget is focus or s.widget.isAncestorOf(focus) for s in gone):
            page.setFocus()  # left to Qt the keys would go to the next number box, and Enter would do nothing
        self._let_go(gone)
        for slot in gone:
            # A change made in an editor may take it away while it is still speaking: it goes later.
            self._box.removeWidget(slot.widget)
            slot.widget.hide()
            slot.widget.deleteLater()
        for n, slot in enumerate(made):
            self._box.insertWidget(top + n, slot.widget)

    def _slot(self, shape: _Shape, line: Line | None) -> _Slot:
        if line is not None:
            return _Slot(shape, line_widget(line, self._hand), line)
        if shape[0] == "head":
            title = str(shape[1])
            heading = _Heading(title)
            heading.clicked.connect(lambda: self.fold(title, not self._folded.get(title, True)))
            return _Slot(shape, heading, None)
        return _Slot(shape, _rule(), None)

    def line(self, label: str, nth: int = 0) -> Any:
        """The widget of the line with that label, the `nth` of several; raises KeyError."""
        seen: Counter[str] = Counter()
        for slot in self._slots:
            name = getattr(slot.line, "label", None)
            if name is not None:
                if name == label and seen[name] == nth:
                    return slot.widget
                seen[name] += 1
        raise KeyError(label)

    def point_at(self, label: str, nth: int = 0) -> None:
        """Bring a line into sight, mark it for a while and give it the keys; a list opens. Raises KeyError."""
        folded = next((s.title for s in self.sheet.sections if s.decision and _has(s, label)), None)
        if folded is not None and self._folded.get(folded, True):
            self.fold(folded, False)
        self._unmark()
        self._marked = line = self.line(label, nth)
        set_property(line, "pointed", "yes")
        # What is new has its place before it is shown.
        QApplication.sendPostedEvents(self._scroll.widget(), QEvent.Type.LayoutRequest)
        self._scroll.ensureWidgetVisible(line, 0, px(40))
        line.setFocus(Qt.FocusReason.OtherFocusReason)
        if isinstance(line, PickLine):
            line.editor.showPopup()
        self._mark_time.start()

    def hideEvent(self, event: QHideEvent) -> None:
        self._mark_time.stop()
        self._unmark()
        self._let_go(self._slots)

    @staticmethod
    def _let_go(slots: list[_Slot]) -> None:
        for slot in slots:
            if isinstance(slot.widget, Labelled):
                slot.widget.let_go()

    def _unmark(self) -> None:
        if self._marked is not None and isValid(self._marked):
            set_property(self._marked, "pointed", "")
        self._marked = None

    def asking(self) -> str:
        """The label of a field that waits for an answer; empty when none does."""
        return next((slot.widget.line.label for slot in self._slots if getattr(slot.widget, "asks", False)), "")

    def store_pending(self) -> None:
        """Pass on words still being written, before the painter leaves; raises `StoreTrouble` when they cannot be stored."""
        troubles = [
            slot.widget.store() for slot in list(self._slots) if isinstance(slot.widget, FieldLine | LengthLine | DayLine)
        ]
        for trouble in filter(None, troubles):
            raise trouble
