"""One photograph, large, with the iris circles on it."""

import math

from PySide6.QtCore import QPointF, Qt, Signal
from PySide6.QtGui import QColor, QMouseEvent, QPainter, QPen

from yarrow_lane.intake.photos import Eye
from yarrow_lane.measure.plane import Point
from yarrow_lane.ui.kit.photo_view import PhotoView
from yarrow_lane.ui.theme.lettering import lettering, px


class EyeCanvas(PhotoView):
    """Dragging from one rim of the iris to the other marks it: `marked` gives centre x, y and radius in px."""

    marked = Signal(float, float, float)

    def __init__(self) -> None:
        super().__init__()
        self.setAccessibleName("The photograph")
        self.setCursor(Qt.CursorShape.CrossCursor)
        self._eyes: tuple[Eye, ...] = ()
        self._side = "left"
        self._from: Point | None = None
        self._to: Point = (0.0, 0.0)

    def show_eyes(self, eyes: tuple[Eye, ...], side: str) -> None:
        self._eyes, self._side = eyes, side
        self.update()

    def pressed(self, point: Point, event: QMouseEvent) -> None:
        self._from = self._to = point

    def moved(self, point: Point, event: QMouseEvent) -> None:
        if self._from is not None:
            self._to = point
            self.update()

    def released(self, point: Point, event: QMouseEvent) -> None:
        if self._from is None:
            return
        (x0, y0), (x1, y1) = self._from, point
        self._from = None
        self.update()
        radius = math.hypot(x1 - x0, y1 - y0) / 2
        if radius * self.scale >= 2:  # a click without a drag marks nothing
            self.marked.emit((x0 + x1) / 2, (y0 + y1) / 2, radius)

    def paint_over(self, painter: QPainter) -> None:
        for eye in self._eyes:
            self._ring(
                painter, (eye.x, eye.y), eye.radius_px, f"{eye.side} {eye.across_px:.0f}\u202fpx", eye.side == self._side
            )
        if self._from is not None:
            (x0, y0), (x1, y1) = self._from, self._to
            across = math.hypot(x1 - x0, y1 - y0)
            self._ring(painter, ((x0 + x1) / 2, (y0 + y1) / 2), across / 2, f"{across:.0f}\u202fpx", True)

    def _ring(self, painter: QPainter, centre: Point, radius: float, words: str, strong: bool) -> None:
        at, r = self.to_screen(centre), radius * self.scale
        painter.setBrush(Qt.BrushStyle.NoBrush)
        # Dark under light: seen on any photograph.
        for colour, width in (("#1a1a1a", 4.0), ("#ffffff" if strong else "#d0d0d0", 2.0)):
            painter.setPen(QPen(QColor(colour), width))
            painter.drawEllipse(at, r, r)
        painter.setFont(lettering(14, "bold"))
        corner = at + QPointF(r * 0.72 + px(4), -r * 0.72 - px(4))
        for shift, colour in ((1, "#1a1a1a"), (0, "#ffffff")):
            painter.setPen(QColor(colour))
            painter.drawText(corner + QPointF(shift, shift), words)
