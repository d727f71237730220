"""A picture that can be panned and zoomed, with things drawn over it in its own units."""

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QResizeEvent, QWheelEvent
from PySide6.QtWidgets import QWidget

from yarrow_lane.measure.plane import Point, Rect
from yarrow_lane.ui.kit.levels import Levels
from yarrow_lane.ui.theme.colours import SURROUND
from yarrow_lane.ui.theme.lettering import lettering, px

_STEP = 1.25  # zoom of one wheel notch: our choice
_MOST_ZOOM = 40.0  # screen px per picture px: our choice


class PhotoView(QWidget):
    """Content is `content` units wide and high (photograph px or canvas mm), with y down.

    Wheel zooms about the pointer, middle or right drag pans, 0 shows all, + and - zoom.
    Subclasses draw over it in `paint_over` and take the left button.
    """

    margin_px = 18

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("table")
        self.setMouseTracking(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setMinimumSize(120, 120)
        self.levels: Levels | None = None
        self.content: Point = (1.0, 1.0)
        self.waiting = ""
        self.upside_down = False
        self.mirrored = False
        self._scale = 1.0
        self._left_top = QPointF(0, 0)
        self._fitted = True
        self._pan_from: QPointF | None = None

    # --- what is shown

    def show_levels(self, levels: Levels | None, content: Point) -> None:
        """Show another picture; the view stays where it is while the content has the same size."""
        moved = content != self.content or self.levels is None
        self.levels, self.content = levels, content
        if moved or self._fitted:
            self.fit()
        self.update()

    def fit(self, area: Rect | None = None) -> None:
        """Show the whole content, or one area of it, as large as it goes."""
        self._fitted = area is None
        target = area or Rect(0, 0, *self.content)
        margin = self.margin_px if area is None else 0
        room_w, room_h = max(1, self.width() - 2 * margin), max(1, self.height() - 2 * margin)
        if target.width <= 0 or target.height <= 0:
            return
        self._scale = min(room_w / target.width, room_h / target.height)
        cx, cy = target.centre
        self._left_top = QPointF(self.width() / 2 - cx * self._scale, self.height() / 2 - cy * self._scale)
        self.update()

    @property
    def scale(self) -> float:
        """Screen pixels per content unit."""
        return self._scale

    def to_screen(self, point: Point) -> QPointF:
        x = self.content[0] - point[0] if self.mirrored != self.upside_down else point[0]
        y = self.content[1] - point[1] if self.upside_down else point[1]
        return QPointF(self._left_top.x() + x * self._scale, self._left_top.y() + y * self._scale)

    def to_content(self, position: QPointF) -> Point:
        x = (position.x() - self._left_top.x()) / self._scale
        y = (position.y() - self._left_top.y()) / self._scale
        flipped_x = self.content[0] - x if self.mirrored != self.upside_down else x
        return flipped_x, self.content[1] - y if self.upside_down else y

    def screen_rect(self, rect: Rect) -> QRectF:
        return QRectF(self.to_screen((rect.x, rect.y)), self.to_screen((rect.right, rect.bottom))).normalized()

    def zoom(self, factor: float, about: QPointF) -> None:
        """Zoom about a point of the screen."""
        low = min(self.width() / self.content[0], self.height() / self.content[1]) * 0.5
        wanted = min(max(self._scale * factor, low), _MOST_ZOOM * self._finest())
        factor = wanted / self._scale
        self._left_top = about + (self._left_top - about) * factor
        self._scale = wanted
        self._fitted = False
        self.update()

    def _finest(self) -> float:
        """Picture px per content unit at the finest level."""
        return self.levels.images[0].width() / self.content[0] if self.levels else 1.0

    def pan(self, by: QPointF) -> None:
        self._left_top += by
        self._fitted = False
        self.update()

    # --- drawing

    def paint_over(self, painter: QPainter) -> None:
        """Draw over the picture, in screen pixels; for subclasses."""

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), QColor(SURROUND))
        if self.levels is None:
            painter.setPen(QColor("#ffffff"))
            painter.setFont(lettering(16))
            room = self.rect().adjusted(px(40), px(20), -px(40), -px(20))
            painter.drawText(room, Qt.AlignmentFlag.AlignCenter | Qt.TextFlag.TextWordWrap, self.waiting)
        else:
            self._draw_picture(painter)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        self.paint_over(painter)
        painter.end()

    def _draw_picture(self, painter: QPainter) -> None:
        assert self.levels is not None
        image = self.levels.for_width(self.content[0] * self._scale)
        whole = QRectF(self._left_top.x(), self._left_top.y(), self.content[0] * self._scale, self.content[1] * self._scale)
        seen = whole.intersected(QRectF(self.rect()))
        if seen.isEmpty():
            return
        painter.save()
        if self.upside_down or self.mirrored:
            painter.translate(whole.center())
            painter.scale(-1.0 if self.mirrored != self.upside_down else 1.0, -1.0 if self.upside_down else 1.0)
            painter.translate(-whole.center())
            seen = whole
        ratio_x, ratio_y = image.width() / whole.width(), image.height() / whole.height()
        source = QRectF(
            (seen.x() - whole.x()) * ratio_x, (seen.y() - whole.y()) * ratio_y, seen.width() * ratio_x, seen.height() * ratio_y
        )
        # Far enlarged, pixels are shown as they are: that is what the painter wants to judge.
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform, ratio_x > 0.25)
        painter.drawImage(seen, image, source)
        painter.restore()

    # --- hands

    def resizeEvent(self, event: QResizeEvent) -> None:
        if self._fitted:
            self.fit()

    def wheelEvent(self, event: QWheelEvent) -> None:
        self.zoom(_STEP ** (event.angleDelta().y() / 120), event.position())

    def mousePressEvent(self, event: QMouseEvent) -> None:
        if event.button() in (Qt.MouseButton.MiddleButton, Qt.MouseButton.RightButton):
            self._pan_from = event.position()
        elif event.button() == Qt.MouseButton.LeftButton and self.levels is not None:
            self.pressed(self.to_content(event.position()), event)

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        if self._pan_from is not None:
            self.pan(event.position() - self._pan_from)
            self._pan_from = event.position()
        elif self.levels is not None:
            self.moved(self.to_content(event.position()), event)

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        if event.button() in (Qt.MouseButton.MiddleButton, Qt.MouseButton.RightButton):
            self._pan_from = None
        elif event.button() == Qt.MouseButton.LeftButton and self.levels is not None:
            self.released(self.to_content(event.position()), event)

    def pressed(self, point: Point, event: QMouseEvent) -> None:
        """Left button down, in content units; for subclasses."""

    def moved(self, point: Point, event: QMouseEvent) -> None:
        """Pointer moved, in content units; for subclasses."""

    def released(self, point: Point, event: QMouseEvent) -> None:
        """Left button up, in content units; for subclasses."""

    def keyPressEvent(self, event: QKeyEvent) -> None:
        centre = QPointF(self.width() / 2, self.height() / 2)
        if event.text() == "+":
            self.zoom(_STEP, centre)
        elif event.text() == "-":
            self.zoom(1 / _STEP, centre)
        elif event.text() == "0":
            self.fit()
        else:
            event.ignore()
