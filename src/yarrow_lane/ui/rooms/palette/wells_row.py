"""The wells in a row, dark to light."""

from PySide6.QtCore import QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QColor, QFontMetricsF, QMouseEvent, QPainter, QPaintEvent, QPen, QWheelEvent
from PySide6.QtWidgets import QWidget

from yarrow_lane.measure.colour.munsell_value import value_text
from yarrow_lane.palette.wells import Well
from yarrow_lane.ui.theme.colours import INK, SURROUND
from yarrow_lane.ui.theme.lettering import lettering, px
from yarrow_lane.ui.theme.sheet import colours


class WellsRow(QWidget):
    """Click chooses a well; the wheel slides the row when there are many."""

    chosen = Signal(int)

    def __init__(self) -> None:
        super().__init__()
        self.setAccessibleName("The wells")
        self.setFixedHeight(px(172))
        self._wells: tuple[tuple[Well, str], ...] = ()
        self._chosen_id = 0
        self._slid = 0.0

    def show_wells(self, wells: tuple[tuple[Well, str], ...], chosen_id: int) -> None:
        self._wells, self._chosen_id = wells, chosen_id
        for place, well, _ in self._places():
            if well.id == chosen_id and not (place.left() >= 0 and place.right() <= self.width()):
                self._slid = max(0.0, self._slid + place.left() - px(20))
        self.update()

    def _places(self) -> list[tuple[QRectF, Well, str]]:
        step = max(px(99), min(px(150), (self.width() - px(20)) / max(1, len(self._wells))))
        return [
            (QRectF(px(10) + n * step - self._slid, px(10), step, px(152)), w, name) for n, (w, name) in enumerate(self._wells)
        ]

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), QColor(SURROUND))
        painter.fillRect(0, self.height() - 1, self.width(), 1, QColor("#757575"))
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        if not self._wells:
            painter.setPen(QColor(INK))
            painter.setFont(lettering(16))
            painter.drawText(self.rect(), Qt.AlignmentFlag.AlignCenter, "No colours yet. Click on the crop to take one.")
        for place, well, name in self._places():
            self._paint_well(painter, place, well, name)
        painter.end()

    def _paint_well(self, painter: QPainter, place: QRectF, well: Well, name: str) -> None:
        radius = px(40)
        centre = QPointF(place.center().x(), place.top() + radius + px(2))
        painter.setBrush(QColor(*well.srgb))
        painter.setPen(Qt.PenStyle.NoPen)
        painter.drawEllipse(centre, radius, radius)
        if well.id == self._chosen_id:
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.setPen(QPen(QColor(colours().here), 3))
            painter.drawEllipse(centre, radius + 4, radius + 4)
        bold, small = lettering(14, "bold"), lettering(13)
        room = place.width() - px(8)
        lines = ((name, bold), (value_text(well.lab[0]), small), (well.mix or "no mix yet", small))
        for n, (text, font) in enumerate(lines):
            painter.setFont(font)
            painter.setPen(QColor(INK))
            line = text.replace("\n", " ")
            shown = QFontMetricsF(font).elidedText(line, Qt.TextElideMode.ElideRight, room)
            box = QRectF(place.left() + px(4), centre.y() + radius + px(6) + n * px(19), room, px(19))
            painter.drawText(box, Qt.AlignmentFlag.AlignHCenter | Qt.AlignmentFlag.AlignVCenter, shown)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        for place, well, _ in self._places():
            if place.contains(event.position()):
                self.chosen.emit(well.id)

    def wheelEvent(self, event: QWheelEvent) -> None:
        places = self._places()
        most = max(0.0, places[-1][0].right() + self._slid - self.width()) if places else 0.0
        self._slid = min(max(0.0, self._slid - event.angleDelta().y() / 2), most)
        self.update()
