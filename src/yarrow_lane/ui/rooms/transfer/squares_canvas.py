"""The reference and the canvas with the same lattice over both."""

from PySide6.QtCore import QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QColor, QMouseEvent, QPainter, QPen

from yarrow_lane.measure.plane import Point, Rect
from yarrow_lane.transfer.squares import Squares, column_letter
from yarrow_lane.ui.kit.photo_view import PhotoView
from yarrow_lane.ui.theme.lettering import lettering, px
from yarrow_lane.ui.theme.sheet import colours


class SquaresCanvas(PhotoView):
    """Content is canvas mm. With a `ground` colour it is the bare canvas, else the reference."""

    margin_px = 30
    chosen = Signal(int, int)

    def __init__(self, title: str) -> None:
        super().__init__()
        self.setAccessibleName(title)
        self.title = title
        self.ground: tuple[int, int, int] | None = None
        self._squares: Squares | None = None
        self._chosen = (0, 0)
        self._drawn: frozenset[tuple[int, int]] = frozenset()

    def show_squares(self, squares: Squares | None, chosen: tuple[int, int], drawn: tuple[tuple[int, int], ...]) -> None:
        self._squares, self._chosen, self._drawn = squares, chosen, frozenset(drawn)
        if squares is not None and self.content != (squares.width_mm, squares.height_mm):
            self.content = (squares.width_mm, squares.height_mm)
            self.fit()
        self.update()

    def pressed(self, point: Point, event: QMouseEvent) -> None:
        self._choose(point)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        if self.levels is None and event.button() == Qt.MouseButton.LeftButton:
            self._choose(self.to_content(event.position()))
        else:
            super().mousePressEvent(event)

    def _choose(self, point: Point) -> None:
        s = self._squares
        if s is not None and Rect(0, 0, s.width_mm, s.height_mm).holds(point):
            column = min(int(point[0] // s.side_mm), s.columns - 1)
            self.chosen.emit(column, min(int(point[1] // s.side_mm), s.rows - 1))

    def paint_over(self, painter: QPainter) -> None:
        s = self._squares
        if s is None:
            return
        whole = self.screen_rect(Rect(0, 0, s.width_mm, s.height_mm))
        if self.ground is not None:
            painter.fillRect(whole, QColor(*self.ground))
        done = QColor(78, 107, 58, 70)
        for square in self._drawn:
            place = self.screen_rect(s.rect(*square))
            if self.ground is not None:
                painter.fillRect(place, done)
                self._tick(painter, place)
        self._lines(painter, s, whole)
        self._letters(painter, s, whole)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        place = self.screen_rect(s.rect(*self._chosen))
        painter.setPen(QPen(QColor("#1a1a1a"), 5))
        painter.drawRect(place)
        painter.setPen(QPen(QColor(colours().here), 3))
        painter.drawRect(place)

    def _tick(self, painter: QPainter, place: QRectF) -> None:
        size = min(place.width(), place.height())
        painter.setPen(QPen(QColor("#2c3f20"), max(1.5, size * 0.05)))
        a, b, c = (QPointF(place.x() + size * x, place.y() + size * y) for x, y in ((0.32, 0.52), (0.46, 0.66), (0.70, 0.36)))
        painter.drawLine(a, b)
        painter.drawLine(b, c)

    def _lines(self, painter: QPainter, s: Squares, whole: QRectF) -> None:
        # On the reference a white hairline over a dark one is seen on every value; on the ground a dark one.
        pens = ((QColor(20, 20, 20, 120), 2.4), (QColor(255, 255, 255, 225), 1.0))
        if self.ground is not None:
            pens = ((QColor(40, 40, 40, 170), 1.2),)
        for colour, width in pens:
            painter.setPen(QPen(colour, width))
            for x in (0.0, *s.lines_across(), s.width_mm):
                painter.drawLine(self.to_screen((x, 0)), self.to_screen((x, s.height_mm)))
            for y in (0.0, *s.lines_down(), s.height_mm):
                painter.drawLine(self.to_screen((0, y)), self.to_screen((s.width_mm, y)))

    def _letters(self, painter: QPainter, s: Squares, whole: QRectF) -> None:
        painter.setPen(QColor("#ffffff"))
        painter.setFont(lettering(13, "medium"))
        size = px(24)
        step = 1 if s.side_mm * self.scale >= px(15) else 2
        for column in range(0, s.columns, step):
            x = self.to_screen((s.rect(column, 0).centre[0], 0)).x()
            painter.drawText(
                QRectF(x - size, whole.top() - size, 2 * size, size), Qt.AlignmentFlag.AlignCenter, column_letter(column)
            )
        for row in range(0, s.rows, step):
            y = self.to_screen((0, s.rect(0, row).centre[1])).y()
            box = QRectF(whole.left() - size - px(6), y - size / 2, size + px(2), size)
            painter.drawText(box, Qt.AlignmentFlag.AlignVCenter | Qt.AlignmentFlag.AlignRight, str(row + 1))
