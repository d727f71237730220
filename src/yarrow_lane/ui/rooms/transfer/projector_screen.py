"""The lines alone, full screen, for the projector: black around, four crosses at the canvas's corners."""

from PySide6.QtCore import QPointF, Qt, QTimer
from PySide6.QtGui import QColor, QKeyEvent, QPainter, QPaintEvent, QPen, QPolygonF
from PySide6.QtWidgets import QWidget

from yarrow_lane.measure.plane import Polygon
from yarrow_lane.transfer.projector import ARM_SHARE
from yarrow_lane.ui.kit.overlays import Drawn

_BLINK_MS = 400
_COLOURS = ("#ffffff", "#ff4030", "#30ff60", "#40a0ff")  # white, then what shows on a ground near white


class ProjectorScreen(QWidget):
    """+ and - make the lines thicker or finer, C changes their colour, B lets the crosses blink alone, Esc ends.

    A projector turned on its side shows them lying, so that they stand upright on the canvas; R for one turned to the other side.
    """

    def __init__(self, lines: Drawn, canvas_mm: tuple[float, float], thick_px: int, on_its_side: bool = False) -> None:
        super().__init__(None, Qt.WindowType.Window)
        self.setWindowTitle("Lines for the projector")
        self.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        self.setCursor(Qt.CursorShape.BlankCursor)
        self.lines, self.canvas_mm, self.thick_px = lines, canvas_mm, thick_px
        self.colour, self.blinking, self._lit = 0, False, True
        self.degrees = 90 if on_its_side else 0
        self._timer = QTimer(self)
        self._timer.setInterval(_BLINK_MS)
        self._timer.timeout.connect(self._blink)

    def _blink(self) -> None:
        self._lit = not self._lit
        self.update()

    def _placed(self, painter: QPainter) -> tuple[float, float, float]:
        """Turn the painter as the projector is turned; px per mm so that the canvas is whole, and where its top left lies."""
        size = (self.width(), self.height()) if self.degrees % 180 == 0 else (self.height(), self.width())
        painter.translate(self.width() / 2, self.height() / 2)
        painter.rotate(self.degrees)
        scale = min(size[0] / self.canvas_mm[0], size[1] / self.canvas_mm[1])
        return scale, -self.canvas_mm[0] * scale / 2, -self.canvas_mm[1] * scale / 2

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), Qt.GlobalColor.black)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        scale, left, top = self._placed(painter)

        def placed(path: Polygon) -> QPolygonF:
            return QPolygonF([QPointF(left + x * scale, top + y * scale) for x, y in path])

        colour = QColor(_COLOURS[self.colour])
        if not self.blinking:
            for paths, style in ((self.lines.paths, Qt.PenStyle.SolidLine), (self.lines.lost, Qt.PenStyle.DashLine)):
                painter.setPen(QPen(colour, self.thick_px, style, Qt.PenCapStyle.RoundCap, Qt.PenJoinStyle.RoundJoin))
                for path in paths:
                    painter.drawPolyline(placed(path))
        if not self.blinking or self._lit:
            painter.setPen(QPen(colour, self.thick_px))
            arm = ARM_SHARE * min(self.canvas_mm)
            for x in (0.0, self.canvas_mm[0]):
                for y in (0.0, self.canvas_mm[1]):
                    painter.drawPolyline(placed(((x - arm, y), (x + arm, y))))
                    painter.drawPolyline(placed(((x, y - arm), (x, y + arm))))
        painter.end()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        text = event.text().lower()
        if event.key() == Qt.Key.Key_Escape:
            self.close()
        elif text in ("+", "-"):
            self.thick_px = min(40, max(1, self.thick_px + (1 if text == "+" else -1)))
        elif text == "c":
            self.colour = (self.colour + 1) % len(_COLOURS)
        elif text == "r":
            self.degrees = (self.degrees + 180) % 360
        elif text == "b":
            self.blinking, self._lit = not self.blinking, True
            if self.blinking:
                self._timer.start()
            else:
                self._timer.stop()
        self.update()
