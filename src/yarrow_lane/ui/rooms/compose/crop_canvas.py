"""The crop on the photograph: always the canvas's proportion, moved and resized by mouse and keys."""

from PySide6.QtCore import QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QColor, QKeyEvent, QMouseEvent, QPainter, QPainterPath, QPen

from yarrow_lane.measure.plane import Point, Rect
from yarrow_lane.ui.kit.photo_view import PhotoView
from yarrow_lane.ui.theme.lettering import px
from yarrow_lane.ui.theme.sheet import colours

_GRIP_PX = 14  # how near a corner counts: our choice
_NUDGE = 0.01  # of the crop's width for one arrow: our choice


class CropCanvas(PhotoView):
    """`framed` gives the wanted width in photo px and the centre, once a drag ends or a key is pressed.

    While dragging, `preview` asks the page what the crop would be, so that what is shown
    is exactly what will be stored.
    """

    framed = Signal(float, object)

    def __init__(self) -> None:
        super().__init__()
        self.setAccessibleName("The crop")
        self.crop: Rect | None = None
        self.preview = lambda width, centre: None
        self._drag: tuple[str, Point, Rect] | None = None
        self._wanted: tuple[float, Point] | None = None

    def show_crop(self, crop: Rect | None) -> None:
        if self._drag is None:
            self.crop = crop
            self.update()

    def _corner_near(self, position: QPointF) -> str:
        if self.crop is None:
            return ""
        r = self.screen_rect(self.crop)
        corners = {"tl": r.topLeft(), "tr": r.topRight(), "bl": r.bottomLeft(), "br": r.bottomRight()}
        return next((n for n, p in corners.items() if (p - position).manhattanLength() < px(_GRIP_PX)), "")

    def pressed(self, point: Point, event: QMouseEvent) -> None:
        if self.crop is None:
            return
        corner = self._corner_near(event.position())
        if corner or self.crop.holds(point):
            self._drag = (corner or "move", point, self.crop)

    def moved(self, point: Point, event: QMouseEvent) -> None:
        if self._drag is None:
            corner = self._corner_near(event.position())
            shape = Qt.CursorShape.SizeFDiagCursor if corner in ("tl", "br") else Qt.CursorShape.SizeBDiagCursor
            inside = self.crop is not None and self.crop.holds(point)
            self.setCursor(shape if corner else Qt.CursorShape.SizeAllCursor if inside else Qt.CursorShape.ArrowCursor)
            return
        self._wanted = _dragged(*self._drag, point)
        crop = self.preview(*self._wanted)
        if crop is not None:
            self.crop = crop
        self.update()

    def released(self, point: Point, event: QMouseEvent) -> None:
        drag, self._drag = self._drag, None
        if drag is not None and self._wanted is not None:
            wanted, self._wanted = self._wanted, None
            self.framed.emit(*wanted)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        steps = {Qt.Key.Key_Left: (-1, 0), Qt.Key.Key_Right: (1, 0), Qt.Key.Key_Up: (0, -1), Qt.Key.Key_Down: (0, 1)}
        step = steps.get(Qt.Key(event.key()))
        if self.crop is None or ((step is None and event.text() not in "+-") or (step is None and not event.text())):
            super().keyPressEvent(event)
            return
        x, y = self.crop.centre
        if step is not None:
            by = self.crop.width * _NUDGE * (5 if event.modifiers() & Qt.KeyboardModifier.ShiftModifier else 1)
            self.framed.emit(self.crop.width, (x + step[0] * by, y + step[1] * by))
        else:
            self.framed.emit(self.crop.width * (1 + 2 * _NUDGE if event.text() == "+" else 1 - 2 * _NUDGE), (x, y))

    def paint_over(self, painter: QPainter) -> None:
        if self.crop is None or self.levels is None:
            return
        crop = self.screen_rect(self.crop)
        outside = QPainterPath()
        outside.addRect(self.screen_rect(Rect(0, 0, *self.content)))
        inside = QPainterPath()
        inside.addRect(crop)
        painter.fillPath(outside.subtracted(inside), QColor(60, 60, 60, 165))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.setPen(QPen(QColor(255, 255, 255, 90), 1))
        for n in (1, 2):  # thirds, to place the eyes by
            x, y = crop.left() + crop.width() * n / 3, crop.top() + crop.height() * n / 3
            painter.drawLine(QPointF(x, crop.top()), QPointF(x, crop.bottom()))
            painter.drawLine(QPointF(crop.left(), y), QPointF(crop.right(), y))
        painter.setPen(QPen(QColor("#1a1a1a"), 4))
        painter.drawRect(crop)
        painter.setPen(QPen(QColor(colours().here), 2))
        painter.drawRect(crop)
        painter.setBrush(QColor(colours().here))
        painter.setPen(QPen(QColor("#1a1a1a"), 1))
        grip = px(9)
        for corner in (crop.topLeft(), crop.topRight(), crop.bottomLeft(), crop.bottomRight()):
            painter.drawRect(QRectF(corner.x() - grip / 2, corner.y() - grip / 2, grip, grip))


def _dragged(what: str, start: Point, crop: Rect, point: Point) -> tuple[float, Point]:
    """The width and centre wanted after dragging the crop or one of its corners to `point`."""
    if what == "move":
        x, y = crop.centre
        return crop.width, (x + point[0] - start[0], y + point[1] - start[1])
    # The opposite corner stays; the larger of the two pulls decides, so that the shape keeps its proportion.
    fixed = (crop.x if "r" in what else crop.right, crop.y if "b" in what else crop.bottom)
    proportion = crop.width / crop.height
    width = max(abs(point[0] - fixed[0]), abs(point[1] - fixed[1]) * proportion)
    height = width / proportion
    return width, (
        fixed[0] + (width if "r" in what else -width) / 2,
        fixed[1] + (height if "b" in what else -height) / 2,
    )
