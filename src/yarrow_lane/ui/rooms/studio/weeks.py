"""The weeks ahead: planned sittings, promise flags and the likely finish."""

from datetime import date

from PySide6.QtCore import QEvent, QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QFontMetricsF, QHelpEvent, QPainter, QPaintEvent, QPen, QPolygonF, QWheelEvent
from PySide6.QtWidgets import QToolTip, QWidget

from yarrow_lane.measure.days import MONTHS, WEEKDAYS
from yarrow_lane.ui.kit.plain import tip
from yarrow_lane.ui.rooms.studio.view import StudioView, WeekRow, days_shown
from yarrow_lane.ui.theme.lettering import lettering, px
from yarrow_lane.ui.theme.sheet import colours

_MOST_ROWS = 8  # our choice: more rows than these are slid through with the wheel, so that the shelf keeps its room


class Weeks(QWidget):
    """Five weeks from this Monday; one row for each commission. The wheel slides the rows when there are many."""

    def __init__(self) -> None:
        super().__init__()
        self._view: StudioView | None = None
        self._first = 0
        self._rows: list[tuple[QRectF, str]] = []  # where each name stands

    def show_view(self, view: StudioView) -> None:
        self._view = view
        self._first = min(self._first, max(0, len(view.rows) - _MOST_ROWS))
        self.setMinimumHeight(px(58) + px(32) * min(_MOST_ROWS, max(3, len(view.rows))))
        self.update()

    def wheelEvent(self, event: QWheelEvent) -> None:
        if self._view is not None:
            step = -1 if event.angleDelta().y() > 0 else 1
            self._first = min(max(0, self._first + step), max(0, len(self._view.rows) - _MOST_ROWS))
            self.update()

    def event(self, event: QEvent) -> bool:
        """The whole name of a row, where it is shortened, shows under the pointer."""
        if isinstance(event, QHelpEvent) and event.type() == QEvent.Type.ToolTip:
            title = next((title for place, title in self._rows if place.contains(QPointF(event.pos()))), "")
            QToolTip.showText(event.globalPos(), tip(title), self)
            return True
        return super().event(event)

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        c = colours()
        painter.fillRect(self.rect(), QColor(c.paper))
        if self._view is not None:
            self._paint(painter, self._view)
        painter.end()

    def _paint(self, painter: QPainter, view: StudioView) -> None:
        c = colours()
        days = days_shown(view)
        left, right, top = px(178), self.width() - px(14), px(56)
        step = (right - left) / len(days)
        rows = view.rows[self._first : self._first + _MOST_ROWS]
        row_h = min(px(64), (self.height() - top - px(8)) / max(1, len(rows)))
        foot = top + row_h * max(3, len(rows))
        dates = lettering(14, "bold")
        # Where the letters or the dates would run into each other, fewer are written.
        letters_fit = step >= px(11)
        every = 1 + int(QFontMetricsF(dates).horizontalAdvance("30\u202fNov ") // (7 * step))
        for n, day in enumerate(days):
            x = left + n * step
            if day.weekday() not in view.weekdays:
                painter.fillRect(QRectF(x, top - px(4), step, foot - top), QColor(c.weekend))
            if letters_fit:
                painter.setPen(QColor(c.soft))
                painter.setFont(lettering(12.5))
                letter = WEEKDAYS[day.weekday()][0]
                painter.drawText(QRectF(x, px(28), step, px(20)), Qt.AlignmentFlag.AlignCenter, letter)
            if day.weekday() == 0:
                painter.setPen(QPen(QColor(c.rule), 1.4))
                painter.drawLine(QPointF(x, px(28)), QPointF(x, foot - px(4)))
                if n // 7 % every == 0:
                    painter.setPen(QColor(c.text))
                    painter.setFont(dates)
                    painter.drawText(QPointF(x, px(22)), f"{day.day}\u202f{MONTHS[day.month - 1]}")
        self._rows = [(QRectF(0, top + n * row_h, right, row_h), row.title) for n, row in enumerate(rows)]
        for n, row in enumerate(rows):
            self._paint_row(painter, view, row, QRectF(left, top + n * row_h, right - left, row_h), step)
        today = left + ((view.today - view.first_day).days + 0.5) * step
        painter.setPen(QPen(QColor(c.here_edge), 2))
        painter.drawLine(QPointF(today, px(46)), QPointF(today, foot))
        painter.setFont(lettering(12.5, "bold"))
        painter.setPen(QColor(c.text))
        painter.drawText(QRectF(px(20), px(28), px(150), px(20)), Qt.AlignmentFlag.AlignVCenter, self._words(view))

    def _words(self, view: StudioView) -> str:
        if len(view.rows) <= _MOST_ROWS:
            return "The weeks ahead"
        return f"{self._first + 1} to {min(len(view.rows), self._first + _MOST_ROWS)} of {len(view.rows)}"

    def _paint_row(self, painter: QPainter, view: StudioView, row: WeekRow, place: QRectF, step: float) -> None:
        c = colours()
        base = place.bottom() - px(12)
        painter.setPen(QPen(QColor(c.rule), 1))
        painter.drawLine(QPointF(place.left(), base), QPointF(place.right(), base))
        painter.setPen(QColor(c.text))
        font = lettering(15, "bold")
        painter.setFont(font)
        name = QFontMetricsF(font).elidedText(row.title, Qt.TextElideMode.ElideRight, place.left() - px(32))
        painter.drawText(
            QRectF(px(20), place.top(), place.left() - px(30), place.height()), Qt.AlignmentFlag.AlignVCenter, name
        )

        def x_of(day: date) -> float:
            return place.left() + (day - view.first_day).days * step

        painter.setPen(QPen(QColor("#4a4a4a"), 1))
        painter.setBrush(QColor("#8f8f8f"))
        for day, share in row.sittings:
            x = x_of(day)
            if place.left() <= x < place.right() - 1:
                height = max(3.0, min(1.0, share) * (place.height() - px(26)))
                painter.drawRect(QRectF(x + 2, base - height, step - 4, height))
        if row.finish is not None:
            self._paint_finish(painter, row, row.finish, x_of(row.finish), base, place, step)
        if row.promised is not None:
            self._paint_flag(painter, row.promised, x_of(row.promised), base, place, step)

    def _paint_finish(
        self, painter: QPainter, row: WeekRow, finish: date, x: float, base: float, place: QRectF, step: float
    ) -> None:  # fmt: skip
        c = colours()
        colour = QColor(c.wrong if row.late else c.holds)
        painter.setFont(lettering(12.5))
        painter.setPen(colour)
        if x >= place.right():
            words = "ready later" if not row.late else "late"
            painter.drawText(QRectF(place.right() - px(70), base + px(1), px(68), px(14)), Qt.AlignmentFlag.AlignRight, words)
            return
        # The bar spans what is only waiting: from the last sitting to the day it can be handed over.
        last = max((d for d, _ in row.sittings), default=finish)
        begin = max(place.left(), x - (finish - last).days * step)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(colour)
        painter.drawRoundedRect(QRectF(begin, base + px(4), x + step - begin, px(5)), 2, 2)
        painter.setPen(colour)
        painter.drawText(QPointF(x + step + px(4), base + px(11)), "late" if row.late else "ready")

    def _paint_flag(self, painter: QPainter, day: date, x: float, base: float, place: QRectF, step: float) -> None:
        if not place.left() <= x < place.right():
            return
        c = colours()
        pole = x + step / 2
        top = place.top() + px(4)
        painter.setPen(QPen(QColor(c.text), 2))
        painter.drawLine(QPointF(pole, base), QPointF(pole, top))
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(QColor(c.text))
        width, height = px(17), px(11)
        notch = QPointF(pole + width - px(5), top + height / 2)
        painter.drawPolygon(
            QPolygonF([QPointF(pole, top), QPointF(pole + width, top), notch, QPointF(pole + width, top + height), QPointF(pole, top + height)])
        )  # fmt: skip
