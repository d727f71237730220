"""The lane: nine doors, each an arch that shows its state by shape and fill."""

from PySide6.QtCore import QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QColor, QFontMetricsF, QMouseEvent, QPainter, QPainterPath, QPaintEvent, QPen
from PySide6.QtWidgets import QToolTip, QWidget

from yarrow_lane.lane.doors import Door
from yarrow_lane.ui.kit.plain import tip
from yarrow_lane.ui.theme.lettering import lettering, px
from yarrow_lane.ui.theme.sheet import colours

WIDTH_PX = 152
_ARCH_W, _ARCH_H = 26, 36


def arch(rect: QRectF) -> QPainterPath:
    """A door: square at the foot, round at the head."""
    path = QPainterPath()
    radius = rect.width() / 2
    path.moveTo(rect.bottomLeft())
    path.lineTo(rect.left(), rect.top() + radius)
    path.arcTo(QRectF(rect.left(), rect.top(), rect.width(), rect.width()), 180, -180)
    path.lineTo(rect.bottomRight())
    path.closeSubpath()
    return path


class Lane(QWidget):
    """Click or digit opens a door; doors are not locks."""

    chosen = Signal(str)

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("lane")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.setMouseTracking(True)
        self.setFixedWidth(px(WIDTH_PX))
        self.setAccessibleName("The lane")
        self._doors: tuple[Door, ...] = ()
        self._open = ""

    def show_doors(self, doors: tuple[Door, ...], open_door: str) -> None:
        if (doors, open_door) != (self._doors, self._open):
            self._doors, self._open = doors, open_door
            self.update()

    def sizeHint(self) -> QSize:
        return QSize(px(WIDTH_PX), px(640))

    def _row(self, number: int) -> QRectF:
        height = min(px(78), (self.height() - px(16)) / max(1, len(self._doors)))
        return QRectF(0, px(8) + number * height, self.width(), height)

    def paintEvent(self, event: QPaintEvent) -> None:
        c = colours()
        painter = QPainter(self)
        painter.fillRect(self.rect(), QColor(c.lane))
        painter.fillRect(self.width() - 1, 0, 1, self.height(), QColor(c.rule))
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        for number, door in enumerate(self._doors):
            self._paint_door(painter, self._row(number), door, number)
        painter.end()

    def _paint_door(self, painter: QPainter, row: QRectF, door: Door, number: int) -> None:
        c = colours()
        here = door.name == self._open
        if here:
            painter.fillRect(row.adjusted(0, 1, 0, -1), QColor(c.field))
            painter.fillRect(QRectF(row.left(), row.top() + 1, px(4), row.height() - 2), QColor(c.here))
        left, top = px(16), row.top() + px(9)
        place = QRectF(left, top, _ARCH_W, _ARCH_H)
        path_x = place.center().x()
        if number + 1 < len(self._doors):
            painter.setPen(QPen(QColor(c.soft), 1.4, Qt.PenStyle.DotLine))
            painter.drawLine(QPointF(path_x, place.bottom() + 5), QPointF(path_x, row.bottom() + px(6)))
        shape = arch(place)
        if here:
            painter.setBrush(QColor(c.here))
            painter.setPen(QPen(QColor(c.here_edge), 2))
        elif door.state == "ahead":
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.setPen(QPen(QColor(c.soft), 1.6))
        else:
            painter.setBrush(QColor(c.soft))
            painter.setPen(QPen(QColor(c.soft), 1.6))
        painter.drawPath(shape)
        if door.state == "shut":  # a knob: the door is closed behind us
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(QColor(c.here_edge if here else c.lane))
            painter.drawEllipse(QPointF(place.right() - 6, place.center().y() + 4), 2.2, 2.2)
        elif door.state == "waived":  # ajar: gone through against the facts
            painter.setPen(QPen(QColor(c.here_edge if here else c.lane), 2))
            painter.drawLine(QPointF(place.left() + 7, place.bottom() - 5), QPointF(place.right() - 7, place.top() + 11))
        x = place.right() + px(12)
        words = QRectF(x, row.top() + px(5), self.width() - x - px(6), px(20))
        painter.setPen(QColor(c.text))
        painter.setFont(lettering(15.5, "bold"))
        painter.drawText(words, Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter, door.name)
        painter.setPen(QColor(c.soft))
        painter.setFont(lettering(12.5))
        fact = door.fact + (" (waived)" if door.state == "waived" else "")
        room = QRectF(x, words.bottom(), words.width(), row.bottom() - words.bottom() - 2)
        flags = Qt.AlignmentFlag.AlignLeft | Qt.TextFlag.TextWordWrap
        metrics = QFontMetricsF(painter.font())
        if metrics.boundingRect(QRectF(0, 0, room.width(), 1000), flags, fact).height() > room.height():
            flags, fact = Qt.AlignmentFlag.AlignLeft, metrics.elidedText(fact, Qt.TextElideMode.ElideRight, room.width())
        painter.drawText(room, flags, fact)

    def _at(self, position: QPointF) -> Door | None:
        return next((d for n, d in enumerate(self._doors) if self._row(n).contains(position)), None)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        door = self._at(event.position())
        if door is not None:
            self.chosen.emit(door.name)

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        door = self._at(event.position())
        words = ", ".join(filter(None, (door.fact, door.wants, door.stale))) if door is not None else ""
        if door is None or not words:
            QToolTip.hideText()
        else:
            QToolTip.showText(event.globalPosition().toPoint(), tip(f"{door.name}: {words}"), self)
