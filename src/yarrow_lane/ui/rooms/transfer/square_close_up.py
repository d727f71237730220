"""One square, enlarged, with its quarters."""

from PySide6.QtCore import QPointF, Qt
from PySide6.QtGui import QColor, QPainter, QPen

from yarrow_lane.measure.plane import Rect
from yarrow_lane.ui.kit.photo_view import PhotoView
from yarrow_lane.ui.theme.sheet import colours


class SquareCloseUp(PhotoView):
    """Shows one square of the reference; the fine lines quarter it and quarter it again."""

    def __init__(self) -> None:
        super().__init__()
        self.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.setAccessibleName("The chosen square, enlarged")
        self._area: Rect | None = None

    def show_area(self, area: Rect | None) -> None:
        self._area = area
        if area is not None:
            self.fit(area)
        self.update()

    def resizeEvent(self, event: object) -> None:
        if self._area is not None:
            self.fit(self._area)

    def paint_over(self, painter: QPainter) -> None:
        if self._area is None or self.levels is None:
            return
        place = self.screen_rect(self._area)
        for colour, width, parts in (("#1a1a1a", 1.6, 4), ("#ffffff", 0.7, 4), ("#ffffff", 1.4, 2)):
            pen = QColor(colour)
            pen.setAlpha(150)
            painter.setPen(QPen(pen, width))
            for n in range(1, parts):
                x, y = place.left() + place.width() * n / parts, place.top() + place.height() * n / parts
                painter.drawLine(QPointF(x, place.top()), QPointF(x, place.bottom()))
                painter.drawLine(QPointF(place.left(), y), QPointF(place.right(), y))
        painter.setPen(QPen(QColor(colours().here), 3))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawRect(place.adjusted(1, 1, -1, -1))
