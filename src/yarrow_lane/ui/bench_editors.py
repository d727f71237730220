"""Lines of the bench that the painter edits or presses."""

from collections.abc import Callable
from datetime import date

from PySide6.QtCore import QDate, QEvent, QObject, QPointF, QSignalBlocker, Qt
from PySide6.QtGui import QColor, QKeyEvent, QPainter, QPaintEvent, QPen, QWheelEvent
from PySide6.QtWidgets import (
    QAbstractSpinBox,
    QComboBox,
    QDateEdit,
    QDoubleSpinBox,
    QHBoxLayout,
    QLineEdit,
    QPlainTextEdit,
    QPushButton,
    QSizePolicy,
    QVBoxLayout,
    QWidget,
)

from yarrow_lane.ui.bench_sheet import Amount, Day, Field, Pick, Press, Tick
from yarrow_lane.ui.bench_words import small_label
from yarrow_lane.ui.theme.lettering import lettering, px
from yarrow_lane.ui.theme.sheet import colours

Changed = Callable[[str, object], None]
_NO_DAY = QDate(2000, 1, 1)
_ENTER = (Qt.Key.Key_Return, Qt.Key.Key_Enter)


class _WheelPasses(QObject):
    """The wheel scrolls the bench; it never changes a number by accident."""

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        if isinstance(event, QWheelEvent) and not (isinstance(watched, QWidget) and watched.hasFocus()):
            event.ignore()
            return True
        return False


def _chevron(widget: QWidget) -> None:
    """The mark of a list that opens: the style sheet's own arrow would need a picture file."""
    painter = QPainter(widget)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    painter.setPen(QPen(QColor(colours().soft), 1.6))
    x, y, step = widget.width() - px(13), widget.height() / 2 - px(1), px(4)
    painter.drawPolyline([QPointF(x - step, y - step / 2), QPointF(x, y + step / 2), QPointF(x + step, y - step / 2)])
    painter.end()


class _PickBox(QComboBox):
    def paintEvent(self, event: QPaintEvent) -> None:
        super().paintEvent(event)
        _chevron(self)


class _DayBox(QDateEdit):
    def paintEvent(self, event: QPaintEvent) -> None:
        super().paintEvent(event)
        _chevron(self)


class _KeepsEnter(QObject):
    """Enter in an editor stores what is written; it must not go on to the window and do the next act."""

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        if isinstance(event, QKeyEvent) and event.type() == QEvent.Type.KeyPress and event.key() in _ENTER:
            if isinstance(watched, QLineEdit):
                watched.editingFinished.emit()
            elif isinstance(watched, QAbstractSpinBox):
                watched.interpretText()
            return True
        return False


class _Labelled(QWidget):
    """A label over or beside an editor."""

    def __init__(self, label: str, editor: QWidget, beside: bool) -> None:
        super().__init__()
        box = QHBoxLayout(self) if beside else QVBoxLayout(self)
        box.setContentsMargins(0, px(2), 0, px(2))
        box.setSpacing(px(8) if beside else px(2))
        self.label = small_label(label)
        box.addWidget(self.label, 1)
        box.addWidget(editor)
        self.setFocusProxy(editor)
        if isinstance(editor, QLineEdit | QAbstractSpinBox):
            self._enter = _KeepsEnter()
            editor.installEventFilter(self._enter)


class FieldLine(_Labelled):
    """Words; stored when the painter leaves the field or presses Enter."""

    def __init__(self, line: Field, changed: Changed) -> None:
        self._key, self._stored, self._changed = line.key, line.value, changed
        self.editor: QLineEdit | QPlainTextEdit = QPlainTextEdit() if line.long else QLineEdit()
        self.editor.setFont(lettering(14.5))
        self.editor.setPlaceholderText(line.hint)
        self.editor.setAccessibleName(line.label)
        super().__init__(line.label, self.editor, beside=False)
        if isinstance(self.editor, QLineEdit):
            self.editor.editingFinished.connect(self.store)
        else:
            self.editor.setFixedHeight(px(74))
            self.editor.setTabChangesFocus(True)
            self.editor.installEventFilter(self)
        self._put(line.value)

    def text(self) -> str:
        return self.editor.text() if isinstance(self.editor, QLineEdit) else self.editor.toPlainText()

    def _put(self, text: str) -> None:
        blocker = QSignalBlocker(self.editor)
        if isinstance(self.editor, QLineEdit):
            self.editor.setText(text)
        else:
            self.editor.setPlainText(text)
        del blocker

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        if event.type() == QEvent.Type.FocusOut:
            self.store()
        return False

    def store(self) -> None:
        """Pass on what is written, if it is new."""
        if self.text() != self._stored:
            self._stored = self.text()
            self._changed(self._key, self._stored)

    def show_line(self, line: Field) -> None:
        self.label.setText(line.label)
        # A field the painter is writing in is not overwritten with what was stored before.
        if line.value != self._stored or not self.editor.hasFocus():
            self._stored = line.value
            if self.text() != line.value:
                self._put(line.value)


class AmountLine(_Labelled):
    """A number with its unit."""

    def __init__(self, line: Amount, changed: Changed) -> None:
        self.editor = QDoubleSpinBox()
        self.editor.setFont(lettering(14.5))
        self.editor.setAccessibleName(line.label)
        self.editor.setKeyboardTracking(False)
        self.editor.setAlignment(Qt.AlignmentFlag.AlignRight)
        self.editor.setFixedWidth(px(96))
        self._wheel = _WheelPasses()
        self.editor.installEventFilter(self._wheel)
        self._key, self._changed = line.key, changed
        super().__init__(line.label, self.editor, beside=True)
        self.show_line(line)
        self.editor.valueChanged.connect(self._told)

    def _told(self, value: float) -> None:
        self._changed(self._key, value)

    def show_line(self, line: Amount) -> None:
        blocker = QSignalBlocker(self.editor)
        self.label.setText(line.label)
        self.editor.setDecimals(line.decimals)
        self.editor.setRange(line.low, line.high)
        self.editor.setSingleStep(line.step)
        self.editor.setSuffix(f"\u202f{line.unit}" if line.unit else "")
        self.editor.setValue(line.value)
        del blocker


class DayLine(_Labelled):
    """A date; the year 2000 stands for none yet."""

    def __init__(self, line: Day, changed: Changed) -> None:
        self.editor = _DayBox()
        self.editor.setFont(lettering(14.5))
        self.editor.setAccessibleName(line.label)
        self.editor.setDisplayFormat("ddd d MMM yyyy")
        self.editor.setMinimumDate(_NO_DAY)
        self.editor.setSpecialValueText("none yet")
        self.editor.setCalendarPopup(True)
        self.editor.setKeyboardTracking(False)
        self.editor.setFixedWidth(px(152))
        self._wheel = _WheelPasses()
        self.editor.installEventFilter(self._wheel)
        self._key, self._changed = line.key, changed
        super().__init__(line.label, self.editor, beside=True)
        self.show_line(line)
        self.editor.dateChanged.connect(self._told)

    def _told(self, day: QDate) -> None:
        self._changed(self._key, None if day == _NO_DAY else date(day.year(), day.month(), day.day()))

    def show_line(self, line: Day) -> None:
        blocker = QSignalBlocker(self.editor)
        self.editor.setDate(QDate(line.value.year, line.value.month, line.value.day) if line.value else _NO_DAY)
        del blocker


class PickLine(_Labelled):
    """One of several."""

    def __init__(self, line: Pick, changed: Changed) -> None:
        self.editor = _PickBox()
        self.editor.setPlaceholderText("choose…")
        self.editor.setFont(lettering(14.5))
        self.editor.setAccessibleName(line.label)
        self.editor.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Fixed)
        self.editor.setMaxVisibleItems(24)
        self._wheel = _WheelPasses()
        self.editor.installEventFilter(self._wheel)
        self._options: tuple[tuple[str, str], ...] = ()
        self._key, self._changed = line.key, changed
        super().__init__(line.label, self.editor, beside=True)
        self.layout().setStretch(0, 2)  # type: ignore[union-attr]
        self.layout().setStretch(1, 3)  # type: ignore[union-attr]
        self.show_line(line)
        self.editor.activated.connect(self._told)

    def _told(self, index: int) -> None:
        self._changed(self._key, self._options[index][0])

    def show_line(self, line: Pick) -> None:
        blocker = QSignalBlocker(self.editor)
        if line.options != self._options:
            self._options = line.options
            self.editor.clear()
            self.editor.addItems([words for _, words in line.options])
        values = [value for value, _ in line.options]
        self.editor.setCurrentIndex(values.index(line.value) if line.value in values else -1)
        del blocker


class TickLine(QPushButton):
    """Yes or no, said with a mark and a word."""

    def __init__(self, line: Tick, changed: Changed) -> None:
        super().__init__()
        self.setFont(lettering(14.5))
        self.setFlat(True)
        self.setStyleSheet("text-align: left; border: none; padding: 3px 0; background: transparent;")
        self._line, self._changed = line, changed
        self.clicked.connect(self._told)
        self.show_line(line)

    def _told(self) -> None:
        self._changed(self._line.key, not self._line.value)

    def show_line(self, line: Tick) -> None:
        self._line = line
        self.setText(f"{'☑' if line.value else '☐'}  {line.label}")


class PressLine(QPushButton):
    """A button with a verb on it."""

    def __init__(self, line: Press, pressed: Callable[[str], None]) -> None:
        super().__init__()
        self.setFont(lettering(14.5))
        self._key, self._pressed = line.key, pressed
        self.clicked.connect(self._told)
        self.show_line(line)

    def _told(self) -> None:
        self._pressed(self._key)

    def show_line(self, line: Press) -> None:
        self.setText(line.words)
        self.setEnabled(line.enabled)
