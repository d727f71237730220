"""Money in time: each price a dashed height, the paint rises in it with the hours, the black line with what has come in."""

from datetime import date, timedelta

from PySide6.QtCore import QPointF, QRectF, Qt, Signal
from PySide6.QtGui import (
    QBrush,
    QColor,
    QFontMetricsF,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPainterPath,
    QPaintEvent,
    QPen,
    QPolygonF,
    QWheelEvent,
)
from PySide6.QtWidgets import QWidget

from yarrow_lane.measure.days import day_text
from yarrow_lane.ui.paint.elided import draw_line
from yarrow_lane.ui.pictures import Pictures
from yarrow_lane.ui.references import References
from yarrow_lane.ui.rooms.books.view import MoneyRow, MoneyView
from yarrow_lane.ui.theme.colours import DAY, INK, SURROUND
from yarrow_lane.ui.theme.lettering import lettering, px

_GUTTER, _RIGHT, _TOP = 178, 34, 62
_LEAST_ROW, _MOST_ROW, _LOW = 38, 90, 6  # a row without its price; what prices add to it at most on average; a price of nothing
_WHITE = "#ffffff"


class MoneyLines(QWidget):
    """Arrows walk the commissions, a click chooses one, Enter does what the bench says; a double click opens the commission."""

    chosen = Signal(str)
    opened = Signal(str)

    def __init__(self, pictures: Pictures, references: References) -> None:
        super().__init__()
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setMinimumHeight(px(160))
        self.setAccessibleName("Money in time")
        self._references = references
        self._view: MoneyView | None = None
        self._id = ""
        self._first = 0
        pictures.arrived.connect(self.update)

    def show_view(self, view: MoneyView, commission_id: str) -> None:
        self._view, self._id = view, commission_id
        self._show_chosen()
        row = next((r for r in view.rows if r.id == commission_id), None)
        self.setAccessibleDescription(f"{row.title}: {row.price_words}; {row.tag}" if row else "")
        self.update()

    # --- where things stand

    def day_x(self, day: date) -> float:
        """Where a day stands; days beyond the ends stand there."""
        view = self._view
        assert view is not None
        whole = max(1, (view.last - view.first).days)
        share = min(1.0, max(0.0, (day - view.first).days / whole))
        left, right = px(_GUTTER), self.width() - px(_RIGHT)
        return left + share * (right - left)

    def places(self) -> list[tuple[MoneyRow, QRectF, float]]:
        """Each row shown with its rectangle, and how high its price stands in it."""
        view = self._view
        if view is None or not view.rows:
            return []
        rows = view.rows[self._first :]
        least, total = px(_LEAST_ROW), sum(r.price for r in rows) or 1
        room = max(0.0, min(self.height() - px(_TOP) - px(6) - least * len(rows), px(_MOST_ROW) * len(rows)))
        scale = (room + least - px(20)) / total if len(rows) == 1 else room / total
        scale = max(scale, px(26) / max(1, view.most))
        y, found = float(px(_TOP)), []
        for row in rows:
            high = least + scale * row.price
            if y + high > self.height() - px(2):
                break
            found.append((row, QRectF(0, y, self.width(), high), px(_LOW) + scale * row.price if row.price else 0.0))
            y += high
        return found

    def _show_chosen(self) -> None:
        view = self._view
        at = next((n for n, r in enumerate(view.rows) if r.id == self._id), 0) if view else 0
        if at < self._first:
            self._first = at
        while self.places() and at >= self._first + len(self.places()):
            self._first += 1

    # --- painting

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        painter.fillRect(self.rect(), QColor(SURROUND))
        if self._view is not None:
            self._paint(painter, self._view)
        painter.end()

    def _paint(self, painter: QPainter, view: MoneyView) -> None:
        bold = lettering(15, "bold")
        head = "Money in time"
        wide = QFontMetricsF(bold).horizontalAdvance(head)
        draw_line(painter, QRectF(px(18), px(8), wide + 4, px(22)), head, bold, colour=INK)
        words = (
            view.empty
            or "paint rises with the hours, the line with what has come in, the dashes are the price; red: paint ahead of money"
        )
        draw_line(painter, QRectF(px(32) + wide, px(8), self.width() - wide - px(50), px(22)), words, lettering(13), colour=INK)
        self._paint_months(painter, view)
        for row, place, high in self.places():
            self._paint_row(painter, view, row, place, high)
        hidden = len(view.rows) - self._first - len(self.places())
        if hidden > 0 or self._first:
            many = " · ".join(
                w for w in (f"{self._first} above" if self._first else "", f"{hidden} below" if hidden > 0 else "") if w
            )
            draw_line(painter, QRectF(px(18), self.height() - px(20), px(_GUTTER), px(18)), many, lettering(12.5), colour=INK)
        self._paint_today(painter, view)

    def _paint_months(self, painter: QPainter, view: MoneyView) -> None:
        day = view.first.replace(day=1)
        painter.setFont(lettering(13, "bold"))
        until = -1.0
        while day <= view.last:
            x = self.day_x(max(day, view.first))
            painter.setPen(QPen(QColor(255, 255, 255, 80), 1))
            painter.drawLine(QPointF(x, px(54)), QPointF(x, self.height()))
            if x > until and abs(x + px(14) - self.day_x(view.today)) > px(48):
                painter.setPen(QColor(INK))
                painter.drawText(QPointF(x + 3, px(50)), f"{day:%b}")
                until = x + px(34)
            day = (day + timedelta(days=32)).replace(day=1)

    def _paint_today(self, painter: QPainter, view: MoneyView) -> None:
        x = self.day_x(view.today)
        painter.setPen(QPen(QColor(DAY.here), 2))
        painter.drawLine(QPointF(x, px(54)), QPointF(x, self.height()))
        words = day_text(view.today)
        font = lettering(12.5, "bold")
        wide = QFontMetricsF(font).horizontalAdvance(words) + px(10)
        box = QRectF(x - wide / 2, px(35), wide, px(19))
        painter.setPen(QPen(QColor(DAY.here_edge), 1))
        painter.setBrush(QColor(DAY.here))
        painter.drawRect(box)
        painter.setPen(QColor(DAY.on_here))
        painter.setFont(font)
        painter.drawText(box, Qt.AlignmentFlag.AlignCenter, words)

    def _paint_row(self, painter: QPainter, view: MoneyView, row: MoneyRow, place: QRectF, high: float) -> None:
        base = place.bottom() - px(5)
        if row.id == self._id:
            painter.fillRect(place.adjusted(0, 1, 0, -1), QColor(255, 255, 255, 46))
            painter.fillRect(QRectF(0, place.top() + 1, px(4), place.height() - 2), QColor(DAY.here))
        names = QRectF(px(18), place.top() + px(4), px(_GUTTER - 26), px(18))
        draw_line(painter, names, row.title, lettering(14.5, "bold"), colour=INK)
        client = QRectF(px(18), names.top() + px(17), px(_GUTTER - 88), px(18))
        draw_line(painter, client, row.client, lettering(12.5), colour=INK)
        right = QRectF(px(_GUTTER - 68), client.top(), px(60), px(18))
        draw_line(painter, right, row.price_words, lettering(14, "bold"), Qt.AlignmentFlag.AlignRight, INK)
        start = row.agreed or row.quoted
        end = row.delivered or row.promised or view.last
        if start is None or row.price <= 0:
            draw_line(
                painter,
                QRectF(self.day_x(view.today) + px(8), place.center().y() - px(9), px(300), px(18)),
                row.tag,
                lettering(13),
                colour=INK,
            )
            return
        left, finish = (
            self.day_x(min(start, row.quoted or start)),
            max(self.day_x(end), self.day_x(view.today) if row.delivered is None else 0.0),
        )
        box = QRectF(left, base - high, max(2.0, finish - left), high)
        self._paint_hours(painter, view, row, box)
        pen = QPen(QColor(_WHITE), 1.4, Qt.PenStyle.DashLine)
        painter.setPen(pen)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawPolyline(QPolygonF([box.bottomLeft(), box.topLeft(), box.topRight()]))
        self._paint_money(painter, view, row, box)
        self._paint_flag(painter, row, box)
        self._paint_tag(painter, view, row, box)

    def _paint_hours(self, painter: QPainter, view: MoneyView, row: MoneyRow, box: QRectF) -> None:
        points = [QPointF(box.left(), box.bottom())]
        share = 0.0
        for day, now in row.paint:
            points += [
                QPointF(self.day_x(day), box.bottom() - share * box.height()),
                QPointF(self.day_x(day), box.bottom() - now * box.height()),
            ]
            share = now
        here = max(box.left(), min(self.day_x(view.today), box.right()))
        points += [QPointF(here, box.bottom() - share * box.height()), QPointF(here, box.bottom())]
        path = QPainterPath()
        path.addPolygon(QPolygonF(points))
        ahead = QPainterPath()
        ahead.addPolygon(
            QPolygonF(
                [
                    QPointF(here, box.bottom()),
                    QPointF(here, box.bottom() - share * box.height()),
                    box.topRight(),
                    box.bottomRight(),
                ]
            )
        )
        image = self._references.thumbnail(row.compose) if row.compose.framed else None
        for outline, opacity in ((path, 1.0), (ahead, 0.42 if row.delivered is None and box.right() > here + 2 else 0.0)):
            if not opacity:
                continue
            painter.save()
            painter.setClipPath(outline)
            painter.setOpacity(opacity)
            if image is not None:
                scale = box.width() / image.width()
                cut = min(float(image.height()), box.height() / scale)
                painter.drawImage(box, image, QRectF(0, (image.height() - cut) * 0.42, image.width(), cut))
            else:
                painter.fillRect(box, QColor("#b9b9b9"))
            painter.restore()
        paid = row.came[-1][1] / row.price if row.came else 0.0
        if share > paid + 0.005 and row.behind:
            red = QPainterPath()
            red.addRect(
                QRectF(box.left(), box.bottom() - share * box.height(), here - box.left(), (share - paid) * box.height())
            )
            painter.save()
            painter.setClipPath(path.intersected(red))
            painter.fillRect(box, QColor(138, 47, 18, 120))
            painter.fillRect(box, QBrush(QColor(_WHITE), Qt.BrushStyle.BDiagPattern))
            painter.restore()

    def _paint_money(self, painter: QPainter, view: MoneyView, row: MoneyRow, box: QRectF) -> None:
        def y(amount: int) -> float:
            return box.bottom() - box.height() * min(1.15, amount / row.price)

        points, dots, level = [QPointF(box.left(), box.bottom())], [], 0
        for day, total in row.came:
            x = self.day_x(day)
            points += [QPointF(x, y(level)), QPointF(x, y(total))]
            dots.append(QPointF(x, y(total)))
            level = total
        here = min(max(box.left(), self.day_x(view.today)), box.right())
        points.append(QPointF(max(here, points[-1].x()), y(level)))
        for colour, wide in ((_WHITE, 4.2), (INK, 2.2)):
            painter.setPen(QPen(QColor(colour), wide))
            painter.drawPolyline(QPolygonF(points))
        if row.to_come and row.delivered is None:
            painter.setPen(QPen(QColor(INK), 1.6, Qt.PenStyle.DashLine))
            painter.drawPolyline(QPolygonF([points[-1], QPointF(box.right(), y(level)), QPointF(box.right(), y(row.price))]))
        painter.setPen(QPen(QColor(INK), 1.6))
        painter.setBrush(QColor(_WHITE))
        until = -1.0
        for dot, (_, words) in zip(dots, row.steps, strict=False):
            painter.drawEllipse(dot, px(4), px(4))
            font = lettering(12.5)
            wide = QFontMetricsF(font).horizontalAdvance(words)
            if dot.x() > until and dot.x() + wide < self.width() - px(8) and box.height() > px(34):
                draw_line(painter, QRectF(dot.x() + px(7), dot.y() - px(17), wide + 4, px(16)), words, font, colour=INK)
                until = dot.x() + wide + px(16)

    def _paint_flag(self, painter: QPainter, row: MoneyRow, box: QRectF) -> None:
        day = row.delivered or row.promised
        if day is None:
            return
        x = self.day_x(day)
        painter.setPen(QPen(QColor(INK), 1.8))
        painter.drawLine(QPointF(x, box.bottom()), QPointF(x, box.top() - px(10)))
        painter.setBrush(QColor(INK))
        top = box.top() - px(10)
        painter.drawPolygon(
            QPolygonF(
                [
                    QPointF(x, top),
                    QPointF(x + px(14), top),
                    QPointF(x + px(10), top + px(4.5)),
                    QPointF(x + px(14), top + px(9)),
                    QPointF(x, top + px(9)),
                ]
            )
        )

    def _paint_tag(self, painter: QPainter, view: MoneyView, row: MoneyRow, box: QRectF) -> None:
        if not row.tag:
            return
        font = lettering(12.5, "bold")
        wide = QFontMetricsF(font).horizontalAdvance(row.tag) + px(12)
        x = self.day_x(view.today) - wide - px(6)
        if row.delivered is not None:
            x = min(self.day_x(row.delivered) + px(20), self.width() - wide - px(6))
        x = max(px(_GUTTER) + 2, x)
        y = max(px(_TOP) - px(6), box.top() - px(20)) if row.tag_wrong or row.delivered is None else box.top() - px(10)
        place = QRectF(x, y, wide, px(18))
        if row.tag_wrong:
            painter.fillRect(place, QColor(DAY.wrong))
            draw_line(painter, place, row.tag, font, Qt.AlignmentFlag.AlignHCenter, _WHITE)
        else:
            draw_line(painter, place, row.tag, font, Qt.AlignmentFlag.AlignRight, INK)

    # --- hands

    def _walk(self, by: int) -> None:
        rows = self._view.rows if self._view else ()
        if rows:
            at = next((n for n, r in enumerate(rows) if r.id == self._id), 0)
            self.chosen.emit(rows[min(max(0, at + by), len(rows) - 1)].id)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        steps = {Qt.Key.Key_Down: 1, Qt.Key.Key_Up: -1, Qt.Key.Key_Right: 1, Qt.Key.Key_Left: -1}
        if event.key() in steps:
            self._walk(steps[Qt.Key(event.key())])
        else:
            super().keyPressEvent(event)

    def _row_at(self, y: float) -> MoneyRow | None:
        return next((row for row, place, _ in self.places() if place.top() <= y < place.bottom()), None)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self.setFocus()
        row = self._row_at(event.position().y())
        if row is not None:
            self.chosen.emit(row.id)

    def mouseDoubleClickEvent(self, event: QMouseEvent) -> None:
        row = self._row_at(event.position().y())
        if row is not None:
            self.opened.emit(row.id)

    def wheelEvent(self, event: QWheelEvent) -> None:
        rows = len(self._view.rows) if self._view else 0
        step = -1 if event.angleDelta().y() > 0 else 1
        self._first = min(max(0, self._first + step), max(0, rows - len(self.places())))
        self.update()
