"""The crop with the places where colours were taken."""

from PySide6.QtCore import QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QColor, QMouseEvent, QPainter, QPen

from yarrow_lane.measure.plane import Point, Rect
from yarrow_lane.palette.wells import Well
from yarrow_lane.ui.kit.reference_canvas import ReferenceCanvas
from yarrow_lane.ui.theme.lettering import lettering, px
from yarrow_lane.ui.theme.sheet import colours


class SampleCanvas(ReferenceCanvas):
    """A click takes a colour (`taken`, canvas mm) or, on a mark, chooses its well."""

    taken = Signal(float, float)
    chosen = Signal(int)

    def __init__(self) -> None:
        super().__init__("The crop: click to take a colour")
        self.setCursor(Qt.CursorShape.CrossCursor)
        self._wells: tuple[Well, ...] = ()
        self._chosen_id = 0
        self.patch_mm = 4.0
        self._pointer: Point | None = None

    def show_wells(self, wells: tuple[Well, ...], chosen_id: int) -> None:
        self._wells, self._chosen_id = wells, chosen_id
        self.update()

    def pressed(self, point: Point, event: QMouseEvent) -> None:
        for well in self._wells:
            offset = self.to_screen(well.at_mm) - event.position()
            if offset.manhattanLength() < px(10):
                self.chosen.emit(well.id)
                return
        if Rect(0, 0, *self.content).holds(point):
            self.taken.emit(*point)

    def moved(self, point: Point, event: QMouseEvent) -> None:
        self._pointer = point
        self.update()

    def leaveEvent(self, event: object) -> None:
        self._pointer = None
        self.update()

    def paint_over(self, painter: QPainter) -> None:
        if self.levels is None:
            return
        for well in self._wells:
            at = self.to_screen(well.at_mm)
            chosen = well.id == self._chosen_id
            painter.setPen(QPen(QColor("#1a1a1a"), 5))
            painter.setBrush(QColor(*well.srgb))
            painter.drawEllipse(at, px(10), px(10))
            painter.setPen(QPen(QColor(colours().here if chosen else "#ffffff"), 3 if chosen else 2))
            painter.drawEllipse(at, px(10), px(10))
            if chosen:
                painter.setFont(lettering(14, "bold"))
                for shift, colour in ((1, "#1a1a1a"), (0, "#ffffff")):
                    painter.setPen(QColor(colour))
                    painter.drawText(at + QPointF(px(15) + shift, px(5) + shift), well.name)
        if self._pointer is not None:
            half = self.patch_mm / 2 * self.scale
            at = self.to_screen(self._pointer)
            painter.setBrush(Qt.BrushStyle.NoBrush)
            for colour, width in (("#1a1a1a", 3), ("#ffffff", 1)):
                painter.setPen(QPen(QColor(colour), width))
                painter.drawRect(QRectF(at.x() - half, at.y() - half, 2 * half, 2 * half))
