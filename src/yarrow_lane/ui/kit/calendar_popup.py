"""A month to pick a day from: opens at the day written, else at today."""

from datetime import date, timedelta

from PySide6.QtCore import QPoint, QRectF, Qt, Signal
from PySide6.QtGui import QColor, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen, QWheelEvent
from PySide6.QtWidgets import QWidget

from yarrow_lane.measure.dates import later
from yarrow_lane.measure.days import WEEKDAYS, monday_of
from yarrow_lane.ui.theme.lettering import lettering, px
from yarrow_lane.ui.theme.sheet import colours

_LONG_MONTHS = (
    "January", "February", "March", "April", "May", "June", "July", "August", "September", "October", "November", "December",
)  # fmt: skip
_CELL, _HEAD, _WEEKS = 34, 62, 6
_STEPS = {Qt.Key.Key_Left: -1, Qt.Key.Key_Right: 1, Qt.Key.Key_Up: -7, Qt.Key.Key_Down: 7}
_MONTHS = {Qt.Key.Key_PageUp: -1, Qt.Key.Key_PageDown: 1}


class CalendarPopup(QWidget):
    """Arrows walk the days, Page up and down the months, Enter or a click picks, Esc leaves; today is ringed."""

    picked = Signal(object)

    def __init__(self, parent: QWidget) -> None:
        super().__init__(parent, Qt.WindowType.Popup)
        self.setAccessibleName("Calendar")
        self.setFixedSize(px(_CELL) * 7 + px(16), px(_HEAD) + px(_CELL) * _WEEKS + px(10))
        self._today = self._day = date.min

    def show_at(self, place: QPoint, day: date, today: date) -> None:
        """Open below that place of the screen, on that day."""
        self._day, self._today = day, today
        where = self.screen().availableGeometry()
        left = min(max(where.left(), place.x()), where.right() - self.width())
        self.move(left, min(place.y(), where.bottom() - self.height()))
        self.show()
        self.setFocus()

    @property
    def day(self) -> date:
        """The day that Enter picks."""
        return self._day

    def _first(self) -> date:
        return monday_of(self._day.replace(day=1))

    def _place(self, number: int) -> QRectF:
        cell = px(_CELL)
        return QRectF(px(8) + number % 7 * cell, px(_HEAD) + number // 7 * cell, cell, cell)

    def _turn(self) -> tuple[QRectF, QRectF]:
        """Where the month before and the month after are clicked."""
        side = px(30)
        return QRectF(px(8), px(6), side, side), QRectF(self.width() - px(8) - side, px(6), side, side)

    def paintEvent(self, event: QPaintEvent) -> None:
        c = colours()
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.fillRect(self.rect(), QColor(c.field))
        painter.setPen(QColor(c.soft))
        painter.drawRect(self.rect().adjusted(0, 0, -1, -1))
        painter.setPen(QColor(c.text))
        painter.setFont(lettering(15, "bold"))
        title = QRectF(0, px(6), self.width(), px(30))
        painter.drawText(title, Qt.AlignmentFlag.AlignCenter, f"{_LONG_MONTHS[self._day.month - 1]} {self._day.year}")
        for place, sign in zip(self._turn(), "‹›", strict=True):
            painter.drawText(place, Qt.AlignmentFlag.AlignCenter, sign)
        painter.setFont(lettering(12.5))
        painter.setPen(QColor(c.soft))
        for n, name in enumerate(WEEKDAYS):
            painter.drawText(QRectF(px(8) + n * px(_CELL), px(38), px(_CELL), px(22)), Qt.AlignmentFlag.AlignCenter, name)
        painter.setFont(lettering(14.5))
        for n in range(7 * _WEEKS):
            self._paint_day(painter, self._place(n), self._first() + timedelta(days=n))
        painter.end()

    def _paint_day(self, painter: QPainter, place: QRectF, day: date) -> None:
        c = colours()
        chosen = day == self._day
        inner = place.adjusted(px(2), px(2), -px(2), -px(2))
        if chosen:
            painter.setBrush(QColor(c.chosen))
            painter.setPen(Qt.PenStyle.NoPen)
            painter.drawRect(inner)
        if day == self._today:
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.setPen(QPen(QColor(c.here_edge), 2))
            painter.drawRect(inner)
        painter.setPen(QColor(c.on_chosen if chosen else c.text if day.month == self._day.month else c.soft))
        painter.drawText(place, Qt.AlignmentFlag.AlignCenter, str(day.day))

    def _go(self, day: date | None) -> None:
        if day is not None and date(1900, 1, 1) <= day < date(9000, 1, 1):  # far from where dates end
            self._day = day
            self.update()

    def mousePressEvent(self, event: QMouseEvent) -> None:
        at = event.position()
        back, on = self._turn()
        if not QRectF(self.rect()).contains(at):
            self.close()
        elif back.contains(at) or on.contains(at):
            self._go(later(self._day, -1 if back.contains(at) else 1, "m"))
        else:
            number = next((n for n in range(7 * _WEEKS) if self._place(n).contains(at)), None)
            if number is not None:
                self._pick(self._first() + timedelta(days=number))

    def wheelEvent(self, event: QWheelEvent) -> None:
        self._go(later(self._day, -1 if event.angleDelta().y() > 0 else 1, "m"))

    def keyPressEvent(self, event: QKeyEvent) -> None:
        key = Qt.Key(event.key())
        if key in _STEPS:
            self._go(later(self._day, _STEPS[key], "d"))
        elif key in _MONTHS:
            self._go(later(self._day, _MONTHS[key], "m"))
        elif key in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self._pick(self._day)
        elif key == Qt.Key.Key_Escape:
            self.close()

    def _pick(self, day: date) -> None:
        self.close()
        self.picked.emit(day)
