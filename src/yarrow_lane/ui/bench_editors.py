"""Lines of the bench that the painter edits or presses; each hands its value to what its line says it means."""

from collections.abc import Callable
from typing import Any

from PySide6.QtCore import QEvent, QObject, QPointF, QSignalBlocker, Qt
from PySide6.QtGui import QColor, QPainter, QPaintEvent, QPen, QWheelEvent
from PySide6.QtWidgets import (
    QAbstractSpinBox,
    QComboBox,
    QDoubleSpinBox,
    QHBoxLayout,
    QLineEdit,
    QPlainTextEdit,
    QSizePolicy,
    QStyle,
    QStyleOptionComboBox,
    QStylePainter,
    QVBoxLayout,
    QWidget,
)

from yarrow_lane.measure.lengths import example_text, number_text, parse_length
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.measure.words import cleaned
from yarrow_lane.store.trouble import StoreTrouble
from yarrow_lane.ui.bench_keys import KeepsEnter
from yarrow_lane.ui.bench_sheet import Amount, Field, Length, Meaning, Pick, Press, Span, Tick
from yarrow_lane.ui.bench_words import set_property, small_label
from yarrow_lane.ui.kit.plain import FittingButton, PlainLabel
from yarrow_lane.ui.theme.lettering import lettering, px
from yarrow_lane.ui.theme.sheet import colours

# Takes what a change means, worked out when it is called; gives back the trouble it ran into, if any.
Hand = Callable[[Callable[[], Meaning]], Trouble | None]


class _WheelPasses(QObject):
    """The wheel scrolls the bench; it never changes a number by accident."""

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        if isinstance(event, QWheelEvent) and not (isinstance(watched, QWidget) and watched.hasFocus()):
            event.ignore()
            return True
        return False


def chevron(widget: QWidget) -> None:
    """The mark of a list that opens: the style sheet's own arrow would need a picture file."""
    painter = QPainter(widget)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    painter.setPen(QPen(QColor(colours().soft), 1.6))
    x, y, step = widget.width() - px(13), widget.height() / 2 - px(1), px(4)
    painter.drawPolyline([QPointF(x - step, y - step / 2), QPointF(x, y + step / 2), QPointF(x + step, y - step / 2)])
    painter.end()


class _PickBox(QComboBox):
    """A list that says what does not fit by an ellipsis in the middle; opened it is as wide as its longest line."""

    def paintEvent(self, event: QPaintEvent) -> None:
        painter, option = QStylePainter(self), QStyleOptionComboBox()
        self.initStyleOption(option)
        painter.drawComplexControl(QStyle.ComplexControl.CC_ComboBox, option)
        room = self.width() - px(36)  # the chevron and the edges
        said = option.currentText or self.placeholderText()
        option.currentText = self.fontMetrics().elidedText(said, Qt.TextElideMode.ElideMiddle, room)
        painter.drawControl(QStyle.ControlElement.CE_ComboBoxLabel, option)
        painter.end()
        chevron(self)

    def showPopup(self) -> None:
        words = (self.itemText(n) for n in range(self.count()))
        widest = max((self.fontMetrics().horizontalAdvance(w) for w in words), default=0) + px(40)
        self.view().setMinimumWidth(max(self.width(), min(widest, px(420))))
        super().showPopup()


class Labelled(QWidget):
    """A label over or beside an editor of one part or several, and beneath it in words what was wrong with the last value."""

    def __init__(self, label: str, editor: QWidget | tuple[QWidget, ...], beside: bool, hand: Hand) -> None:
        super().__init__()
        self._hand = hand
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)  # it is marked when it is pointed at
        outer = QVBoxLayout(self)
        outer.setContentsMargins(0, px(2), 0, px(2))
        outer.setSpacing(px(2))
        box = QHBoxLayout() if beside else QVBoxLayout()
        box.setSpacing(px(8) if beside else px(2))
        self.box = box
        self.label = small_label(label)
        box.addWidget(self.label, 1)
        parts = editor if isinstance(editor, tuple) else (editor,)
        row = QHBoxLayout()
        row.setSpacing(px(4))
        for part in parts:
            row.addWidget(part)
        box.addLayout(row)
        outer.addLayout(box)
        self.fault = PlainLabel()
        self.fault.setFont(lettering(13))
        self.fault.setWordWrap(True)
        set_property(self.fault, "tone", "wrong")
        self.fault.hide()
        outer.addWidget(self.fault)
        self.setFocusProxy(parts[0])
        self._enter, self._wheel = KeepsEnter(), _WheelPasses()
        for part in parts:
            if isinstance(part, QLineEdit | QAbstractSpinBox):
                part.installEventFilter(self._enter)
            if isinstance(part, QAbstractSpinBox | QComboBox):
                part.installEventFilter(self._wheel)

    def let_go(self) -> None:
        """The line goes or is hidden: what it has opened over the window closes with it."""

    def hand_over(self, meaning: Callable[[], Meaning]) -> Trouble | None:
        """Let the value mean what it means; what was wrong with it stays beneath the editor, and is given back."""
        trouble = self._hand(meaning)
        self.fault.setText("" if trouble is None else trouble.why or trouble.what)
        self.fault.setVisible(trouble is not None)
        return trouble


class FieldLine(Labelled):
    """Words; stored when the painter leaves the field or presses Enter."""

    def __init__(self, line: Field, hand: Hand) -> None:
        self.line = line
        self._stored, self._storing = line.value, False
        self.editor: QLineEdit | QPlainTextEdit = QPlainTextEdit() if line.long else QLineEdit()
        self.editor.setFont(lettering(14.5))
        self.editor.setPlaceholderText(line.hint)
        self.editor.setAccessibleName(line.label)
        super().__init__(line.label, self.editor, False, hand)
        if isinstance(self.editor, QLineEdit):
            self.editor.editingFinished.connect(self.store)
        else:
            self.editor.setFixedHeight(px(74))
            self.editor.setTabChangesFocus(True)
            self.editor.installEventFilter(self)
        self._put(line.value)

    def text(self) -> str:
        return cleaned(self.editor.text() if isinstance(self.editor, QLineEdit) else self.editor.toPlainText())

    def _put(self, text: str) -> None:
        blocker = QSignalBlocker(self.editor)
        if isinstance(self.editor, QLineEdit):
            self.editor.setText(text)
            if not self.editor.hasFocus():
                self.editor.setCursorPosition(0)  # a long name shows its beginning
        else:
            self.editor.setPlainText(text)
        del blocker

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        if event.type() == QEvent.Type.FocusOut:
            self.store()
        return False

    def store(self) -> StoreTrouble | None:
        """Pass on what is written, if it is new; returns why it could not be put on record, and it stays new."""
        text, line = self.text(), self.line
        if text == self._stored or self._storing:
            return None
        self._storing = True  # showing what came of it may take the focus away, which would store it again
        try:
            trouble = self.hand_over(lambda: line.edit(text))
        finally:
            self._storing = False
        if isinstance(trouble, StoreTrouble):
            return trouble
        self._stored = text
        if trouble is None:
            self.show_line(self.line)
        return None

    def show_line(self, line: Field) -> None:
        self.line = line
        self.label.setText(line.label)
        # Words that are not on record yet are not overwritten with what was stored before.
        if line.value != self._stored or not (self.editor.hasFocus() or self._storing):
            self._stored = line.value
            if self.text() != line.value:
                self._put(line.value)


class LengthLine(Labelled):
    """A length written in the painter's unit, or with a unit of its own."""

    def __init__(self, line: Length, hand: Hand) -> None:
        self.line = line
        self.editor = QLineEdit()
        self.editor.setFont(lettering(14.5))
        self.editor.setAccessibleName(line.label)
        self.editor.setAlignment(Qt.AlignmentFlag.AlignRight)
        self.editor.setFixedWidth(px(96))
        self._stored = ""
        super().__init__(line.label, self.editor, True, hand)
        self.show_line(line)
        self.editor.editingFinished.connect(self.store)

    def store(self) -> StoreTrouble | None:
        """Pass on what is written, if it is new; returns why it could not be put on record, and it stays new."""
        text = self.editor.text().strip()
        if text == self._stored:
            return None
        line, before, self._stored = self.line, self._stored, text
        if not text and not line.may_be_none:
            self.show_line(line)
            return None
        trouble = self.hand_over(lambda: line.edit(parse_length(text, line.unit) if text else 0.0))
        if not isinstance(trouble, StoreTrouble):
            return None
        self._stored = before
        return trouble

    def show_line(self, line: Length) -> None:
        self.line = line
        self.label.setText(f"{line.label}, {line.unit}")
        self.editor.setPlaceholderText(example_text(line.usual_mm, line.unit))
        text = number_text(line.value_mm, line.unit) if line.value_mm else ""
        if text != self._stored and not (self.editor.hasFocus() and self.fault.text()):
            self._stored = text
            self.editor.setText(text)


class _Number(QDoubleSpinBox):
    def __init__(self, name: str) -> None:
        super().__init__()
        self.setFont(lettering(14.5))
        self.setAccessibleName(name)
        self.setKeyboardTracking(False)
        self.setAlignment(Qt.AlignmentFlag.AlignRight)

    def put(self, value: float, low: float, high: float, step: float, decimals: int, unit: str) -> None:
        blocker = QSignalBlocker(self)
        self.setDecimals(decimals)
        self.setRange(low, high)
        self.setSingleStep(step)
        self.setSuffix(f"\u202f{unit}" if unit else "")
        self.setValue(value)
        del blocker


class AmountLine(Labelled):
    """A number with its unit."""

    def __init__(self, line: Amount, hand: Hand) -> None:
        self.editor = _Number(line.label)
        self.editor.setFixedWidth(px(96))
        super().__init__(line.label, self.editor, True, hand)
        self.show_line(line)
        self.editor.valueChanged.connect(self._told)

    def _told(self, value: float) -> None:
        line = self.line
        if self.hand_over(lambda: line.edit(value)) is not None:
            self.show_line(line)  # a refused number goes back to what is on record

    def show_line(self, line: Amount) -> None:
        self.line = line
        self.label.setText(line.label)
        self.editor.put(line.value, line.low, line.high, line.step, line.decimals, line.unit)


class SpanLine(Labelled):
    """Two numbers that are the ends of a stretch."""

    def __init__(self, line: Span, hand: Hand) -> None:
        self.ends = (_Number(f"{line.label}, from"), _Number(f"{line.label}, to"))
        super().__init__(line.label, (self.ends[0], small_label("to"), self.ends[1]), True, hand)
        for end in self.ends:
            end.setFixedWidth(px(78))
            end.valueChanged.connect(self._told)
        self.show_line(line)

    def _told(self, _: float) -> None:
        line = self.line
        one, other = (end.value() for end in self.ends)
        if self.hand_over(lambda: line.edit(one, other)) is not None:
            self.show_line(line)

    def show_line(self, line: Span) -> None:
        self.line = line
        for end, value in zip(self.ends, line.ends, strict=True):
            end.put(value, line.low, line.high, line.step, line.decimals, line.unit)


class PickLine(Labelled):
    """One of several."""

    def __init__(self, line: Pick, hand: Hand) -> None:
        self.editor = _PickBox()
        self.editor.setPlaceholderText("choose…")
        self.editor.setFont(lettering(14.5))
        self.editor.setAccessibleName(line.label)
        self.editor.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Fixed)
        self.editor.setMaxVisibleItems(24)
        self.options: tuple[tuple[Any, str], ...] = ()
        super().__init__(line.label, self.editor, True, hand)
        self.box.setStretch(0, 2)
        self.box.setStretch(1, 3)
        self.show_line(line)
        self.editor.activated.connect(self._told)

    def let_go(self) -> None:
        self.editor.hidePopup()

    def _told(self, index: int) -> None:
        line, value = self.line, self.options[index][0]
        if self.hand_over(lambda: line.edit(value)) is not None:
            self.show_line(line)

    def show_line(self, line: Pick) -> None:
        self.line = line
        blocker = QSignalBlocker(self.editor)
        if line.options != self.options:
            self.options = line.options
            self.editor.clear()
            self.editor.addItems([words for _, words in line.options])
        values = [value for value, _ in line.options]
        self.editor.setCurrentIndex(values.index(line.value) if line.value in values else -1)
        del blocker


class TickLine(FittingButton):
    """Yes or no, said with a mark and a word."""

    def __init__(self, line: Tick, hand: Hand) -> None:
        super().__init__()
        self.setFont(lettering(14.5))
        self.setFlat(True)
        self.setProperty("role", "tick")
        self.line, self._hand = line, hand
        self.clicked.connect(self._told)
        self.show_line(line)

    def _told(self) -> None:
        line = self.line
        self._hand(lambda: line.edit(not line.value))

    def show_line(self, line: Tick) -> None:
        self.line = line
        self.show_words(f"{'☑' if line.value else '☐'}  {line.label}")


class PressLine(FittingButton):
    """A button with a verb on it."""

    def __init__(self, line: Press, hand: Hand) -> None:
        super().__init__()
        self.setFont(lettering(14.5))
        self.line, self._hand = line, hand
        self.clicked.connect(self._told)
        self.show_line(line)

    def _told(self) -> None:
        line = self.line
        self._hand(lambda: line.do())

    def show_line(self, line: Press) -> None:
        self.line = line
        self.show_words(line.words)
        self.setEnabled(line.enabled)
