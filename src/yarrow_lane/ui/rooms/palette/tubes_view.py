"""The paintbox as drawn tubes: their colour, what is left, and how well each is known."""

from dataclasses import dataclass

from PySide6.QtCore import QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QColor, QMouseEvent, QPainter, QPaintEvent, QPen, QPolygonF, QWheelEvent
from PySide6.QtWidgets import QWidget

from yarrow_lane.ui.paint.elided import draw_line
from yarrow_lane.ui.theme.colours import INK, SURROUND
from yarrow_lane.ui.theme.lettering import lettering, px
from yarrow_lane.ui.theme.sheet import colours

_WIDE, _HIGH = 138.0, 168.0


@dataclass(frozen=True)
class ShownTube:
    """A tube: its own colour and its tint, name, words under it, the share that is left, and whether it is generic."""

    id: int
    srgb: tuple[int, int, int]
    tint: tuple[int, int, int]
    name: str
    words: str
    left: float
    generic: bool
    warned: bool


class TubesView(QWidget):
    """A click chooses a tube; the wheel slides the box where there are many."""

    chosen = Signal(int)

    def __init__(self) -> None:
        super().__init__()
        self.setAccessibleName("The paintbox")
        self.setMinimumSize(px(200), px(150))
        self.waiting = ""
        self._tubes: tuple[ShownTube, ...] = ()
        self._chosen = 0
        self._slid = 0.0

    def show_tubes(self, tubes: tuple[ShownTube, ...], chosen: int) -> None:
        """Show these."""
        self._tubes, self._chosen = tubes, chosen
        self._slid = min(self._slid, self._most_slid())
        self.update()

    def _columns(self) -> int:
        return max(1, int((self.width() - px(24)) // px(_WIDE)))

    def _places(self) -> list[tuple[QRectF, ShownTube]]:
        columns = self._columns()
        wide = (self.width() - px(24)) / columns
        found = []
        for n, tube in enumerate(self._tubes):
            row, column = divmod(n, columns)
            found.append((QRectF(px(12) + column * wide, px(12) + row * px(_HIGH) - self._slid, wide, px(_HIGH)), tube))
        return found

    def _most_slid(self) -> float:
        rows = -(-len(self._tubes) // self._columns())
        return max(0.0, rows * px(_HIGH) + px(24) - self.height())

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), QColor(SURROUND))
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        if not self._tubes:
            painter.setPen(QColor(INK))
            painter.setFont(lettering(16))
            room = self.rect().adjusted(px(30), px(20), -px(30), -px(20))
            painter.drawText(room, Qt.AlignmentFlag.AlignCenter | Qt.TextFlag.TextWordWrap, self.waiting)
        for place, tube in self._places():
            if place.bottom() > 0 and place.top() < self.height():
                self._paint_tube(painter, place, tube)
        painter.end()

    def _paint_tube(self, painter: QPainter, place: QRectF, tube: ShownTube) -> None:
        middle, top = place.center().x(), place.top() + px(6)
        cap = QRectF(middle - px(9), top, px(18), px(12))
        body = QRectF(middle - px(24), top + px(20), px(48), px(70))
        painter.setPen(QPen(QColor(INK), 1.4))
        painter.setBrush(QColor(*tube.srgb))
        painter.drawRect(cap)
        shoulder = QPolygonF(
            [QPointF(cap.left(), cap.bottom()), QPointF(cap.right(), cap.bottom()), body.topRight(), body.topLeft()]
        )
        painter.setBrush(QColor("#f4f4f4"))
        painter.drawPolygon(shoulder)
        # What is used up is rolled away from below.
        full = QRectF(body.left(), body.top(), body.width(), body.height() * max(0.06, tube.left))
        painter.setPen(QPen(QColor(INK), 1, Qt.PenStyle.DotLine))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawRect(body)
        painter.setPen(QPen(QColor(INK), 1.4, Qt.PenStyle.DashLine if tube.generic else Qt.PenStyle.SolidLine))
        painter.setBrush(QColor("#f4f4f4"))
        painter.drawRect(full)
        band = QRectF(full.left(), full.top() + px(3), full.width(), min(px(36), full.height() - px(3)))
        painter.setPen(Qt.PenStyle.NoPen)
        painter.fillRect(QRectF(band.left(), band.top(), band.width() * 0.62, band.height()), QColor(*tube.srgb))
        painter.fillRect(
            QRectF(band.left() + band.width() * 0.62, band.top(), band.width() * 0.38, band.height()), QColor(*tube.tint)
        )
        if tube.id == self._chosen:
            painter.setPen(QPen(QColor(colours().here), 3))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRect(QRectF(body.left() - px(7), cap.top() - px(5), body.width() + px(14), px(104)))
        painter.setPen(QColor(INK))
        centre = Qt.AlignmentFlag.AlignHCenter
        room = place.width() - px(6)
        under = top + px(98)
        draw_line(painter, QRectF(place.left() + px(3), under, room, px(19)), tube.name, lettering(14, "bold"), centre)
        draw_line(painter, QRectF(place.left() + px(3), under + px(18), room, px(18)), tube.words, lettering(12), centre)
        if tube.warned:
            painter.setPen(QColor("#5a1a08"))
            draw_line(
                painter,
                QRectF(place.left() + px(3), under + px(34), room, px(18)),
                "nearly empty",
                lettering(12, "bold"),
                centre,
            )

    def mousePressEvent(self, event: QMouseEvent) -> None:
        for place, tube in self._places():
            if place.contains(event.position()):
                self.chosen.emit(tube.id)

    def wheelEvent(self, event: QWheelEvent) -> None:
        self._slid = min(max(0.0, self._slid - event.angleDelta().y() / 2), self._most_slid())
        self.update()
