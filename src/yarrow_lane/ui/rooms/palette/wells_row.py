"""The wells in a row, dark to light."""

from dataclasses import dataclass

from PySide6.QtCore import QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QColor, QFontMetricsF, QMouseEvent, QPainter, QPaintEvent, QPen, QWheelEvent
from PySide6.QtWidgets import QWidget

from yarrow_lane.ui.paint.elided import draw_line
from yarrow_lane.ui.theme.colours import INK, SURROUND
from yarrow_lane.ui.theme.lettering import lettering, px
from yarrow_lane.ui.theme.sheet import colours


@dataclass(frozen=True)
class ShownWell:
    """A well as it stands in the row: its colour as looked at, name, value and mix in words; `taken` unless it is only proposed."""

    id: int
    srgb: tuple[int, int, int]
    name: str
    value: str
    mix: str
    taken: bool = True
    heap: bool = False


class WellsRow(QWidget):
    """Click chooses a well; the wheel slides the row when there are many."""

    chosen = Signal(int)

    def __init__(self) -> None:
        super().__init__()
        self.setAccessibleName("The wells")
        self.setFixedHeight(px(194))
        self.waiting = "No colours yet."
        self._wells: tuple[ShownWell, ...] = ()
        self._chosen_id = 0
        self._slid = 0.0
        self._low = False

    def be_low(self, low: bool) -> None:
        """Small circles and names alone, where the picture below needs the room."""
        if low != self._low:
            self._low = low
            self.setFixedHeight(px(92 if low else 194))
            self.update()

    def show_wells(self, wells: tuple[ShownWell, ...], chosen_id: int) -> None:
        """Show these; the chosen one is slid into sight."""
        self._wells, self._chosen_id = wells, chosen_id
        for place, well in self._places():
            if well.id == chosen_id and not (place.left() >= 0 and place.right() <= self.width()):
                self._slid = max(0.0, self._slid + place.left() - px(20))
        self.update()

    def _places(self) -> list[tuple[QRectF, ShownWell]]:
        step = max(px(99), min(px(150), (self.width() - px(20)) / max(1, len(self._wells))))
        return [
            (QRectF(px(10) + n * step - self._slid, px(10), step, px(78 if self._low else 180)), w)
            for n, w in enumerate(self._wells)
        ]

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), QColor(SURROUND))
        painter.fillRect(0, self.height() - 1, self.width(), 1, QColor("#757575"))
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        if not self._wells:
            painter.setPen(QColor(INK))
            painter.setFont(lettering(16))
            painter.drawText(self.rect(), Qt.AlignmentFlag.AlignCenter | Qt.TextFlag.TextWordWrap, self.waiting)
        for place, well in self._places():
            self._paint_well(painter, place, well)
        painter.end()

    def _paint_well(self, painter: QPainter, place: QRectF, well: ShownWell) -> None:
        radius = px(24 if self._low else 40)
        centre = QPointF(place.center().x(), place.top() + radius + px(2))
        painter.setBrush(QColor(*well.srgb))
        painter.setPen(Qt.PenStyle.NoPen if well.taken else QPen(QColor(INK), 2, Qt.PenStyle.DashLine))
        painter.drawEllipse(centre, radius, radius)
        if well.heap:  # it lies on the palette
            painter.setPen(QPen(QColor(INK), 1.5))
            painter.setFont(lettering(15, "bold"))
            painter.drawText(QRectF(centre.x() + radius - px(6), centre.y() + radius - px(22), px(22), px(20)), "✓")
        if well.id == self._chosen_id:
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.setPen(QPen(QColor(colours().here), 3))
            painter.drawEllipse(centre, radius + 4, radius + 4)
        painter.setPen(QColor(INK))
        room, top = place.width() - px(8), centre.y() + radius + px(6)
        centred = Qt.AlignmentFlag.AlignHCenter
        draw_line(painter, QRectF(place.left() + px(4), top, room, px(19)), well.name, lettering(14, "bold"), centred)
        if self._low:
            return
        draw_line(painter, QRectF(place.left() + px(4), top + px(18), room, px(18)), well.value, lettering(13), centred)
        self._paint_mix(painter, QRectF(place.left() + px(4), top + px(36), room, px(48)), well.mix)

    @staticmethod
    def _paint_mix(painter: QPainter, room: QRectF, mix: str) -> None:
        """In three lines, the last shortened."""
        font = lettering(12)
        metrics, words = QFontMetricsF(font), mix.replace("\n", " ").split(" ")
        lines: list[str] = []
        while words and len(lines) < 2:
            line = words.pop(0)
            while words and metrics.horizontalAdvance(f"{line} {words[0]}") <= room.width():
                line += " " + words.pop(0)
            lines.append(line)
        for n, line in enumerate([*lines, " ".join(words)]):
            draw_line(
                painter,
                QRectF(room.left(), room.top() + n * px(15), room.width(), px(16)),
                line,
                font,
                Qt.AlignmentFlag.AlignHCenter,
            )

    def mousePressEvent(self, event: QMouseEvent) -> None:
        for place, well in self._places():
            if place.contains(event.position()):
                self.chosen.emit(well.id)

    def wheelEvent(self, event: QWheelEvent) -> None:
        places = self._places()
        most = max(0.0, places[-1][0].right() + self._slid - self.width()) if places else 0.0
        self._slid = min(max(0.0, self._slid - event.angleDelta().y() / 2), most)
        self.update()
