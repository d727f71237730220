"""A picture that can be panned and zoomed, with overlays over it and a tool in hand, all in the picture's own units."""

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QImage, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QResizeEvent, QWheelEvent
from PySide6.QtWidgets import QWidget

from yarrow_lane.measure.plane import Point, Rect
from yarrow_lane.ui.kit.frame import Frame
from yarrow_lane.ui.kit.levels import Levels
from yarrow_lane.ui.kit.overlays import Overlay
from yarrow_lane.ui.kit.tools import Tool
from yarrow_lane.ui.paint.overlays import Place, paint_overlay
from yarrow_lane.ui.theme.colours import INK, SURROUND
from yarrow_lane.ui.theme.lettering import lettering, px

_STEP = 1.25  # zoom of one wheel notch: our choice
_MOST_ZOOM = 40.0  # screen px per picture px: our choice
_REACH_PX = 14  # how near a mark counts: our choice
_CURSORS = {
    "arrow": Qt.CursorShape.ArrowCursor,
    "cross": Qt.CursorShape.CrossCursor,
    "move": Qt.CursorShape.SizeAllCursor,
    "rising": Qt.CursorShape.SizeBDiagCursor,
    "falling": Qt.CursorShape.SizeFDiagCursor,
}


class PictureView(QWidget):
    """Content is `content` units wide and high (photograph px or canvas mm), with y down.

    Wheel zooms about the pointer, middle or right drag pans, 0 shows all, + and - zoom; the left button is the tool's. With a
    `ground` colour a bare canvas stands in place of a picture.
    """

    def __init__(self, name: str, frame: Frame | None = None, margin_px: int = 18) -> None:
        super().__init__()
        self.setObjectName("table")
        self.setAccessibleName(name)
        self.setMouseTracking(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setMinimumSize(120, 120)
        self.levels: Levels | None = None
        self.content: Point = (1.0, 1.0)
        self.waiting = ""
        self.ground: tuple[int, int, int] | None = None
        self.laid: QImage | None = None
        self.overlays: tuple[Overlay, ...] = ()
        self.tool: Tool | None = None
        self.frame = frame or Frame()
        self.frame.changed.connect(self.update)
        self._margin = margin_px
        self._pan_from: QPointF | None = None
        self._area: Rect | None = None  # what was fitted last, until a hand looks elsewhere

    # --- what is shown

    def show_levels(self, levels: Levels | None, content: Point) -> None:
        """Show another picture; the view stays where it is while the content has the same size."""
        moved = content != self.content
        self.levels, self.content = levels, content
        if moved:
            self.fit()
        self.update()

    def show_overlays(self, *overlays: Overlay) -> None:
        """Lay these over the picture, the first lowest."""
        if overlays != self.overlays:
            self.overlays = overlays
            self.update()

    def fit(self, area: Rect | None = None) -> None:
        """Show the whole content, or one area of it, as large as it goes."""
        self._area = area
        if area is None or area.width <= 0 or area.height <= 0:
            self.frame.fit()
            return
        zoom = min(self.width() / area.width, self.height() / area.height) / self._fitted_scale
        self.frame.look(zoom, (area.centre[0] / self.content[0], area.centre[1] / self.content[1]))

    @property
    def _fitted_scale(self) -> float:
        room_w, room_h = max(1, self.width() - 2 * self._margin), max(1, self.height() - 2 * self._margin)
        return min(room_w / self.content[0], room_h / self.content[1])

    @property
    def scale(self) -> float:
        """Screen pixels per content unit."""
        return self._fitted_scale * self.frame.zoom

    def _centre(self) -> Point:
        return self.frame.centre[0] * self.content[0], self.frame.centre[1] * self.content[1]

    def _signs(self) -> Point:
        flip_x, flip_y = self.frame.flips
        return (-1.0 if flip_x else 1.0), (-1.0 if flip_y else 1.0)

    def to_screen(self, point: Point) -> QPointF:
        (cx, cy), (sx, sy), scale = self._centre(), self._signs(), self.scale
        return QPointF(
            self.width() / 2 + sx * (point[0] - cx) * scale, self.height() / 2 + sy * (point[1] - cy) * scale
        )  # fmt: skip

    def to_content(self, position: QPointF) -> Point:
        (cx, cy), (sx, sy), scale = self._centre(), self._signs(), self.scale
        return (
            cx + sx * (position.x() - self.width() / 2) / scale,
            cy + sy * (position.y() - self.height() / 2) / scale,
        )

    def screen_rect(self, rect: Rect) -> QRectF:
        return QRectF(self.to_screen((rect.x, rect.y)), self.to_screen((rect.right, rect.bottom))).normalized()

    def zoom(self, factor: float, about: QPointF) -> None:
        """Zoom about a point of the screen."""
        self._area = None
        low = 0.5 * self._fitted_scale
        wanted = min(max(self.scale * factor, low), _MOST_ZOOM * self._finest())
        kept, (cx, cy) = self.to_content(about), self._centre()
        ratio = self.scale / wanted
        centre = kept[0] + (cx - kept[0]) * ratio, kept[1] + (cy - kept[1]) * ratio
        self.frame.look(wanted / self._fitted_scale, (centre[0] / self.content[0], centre[1] / self.content[1]))

    def _finest(self) -> float:
        """Picture px per content unit at the finest level."""
        return self.levels.images[0].width() / self.content[0] if self.levels else 1.0

    def pan(self, by: QPointF) -> None:
        """Move by so many px of the screen."""
        self._area = None
        (cx, cy), (sx, sy), scale = self._centre(), self._signs(), self.scale
        x, y = cx - sx * by.x() / scale, cy - sy * by.y() / scale
        self.frame.look(self.frame.zoom, (x / self.content[0], y / self.content[1]))

    # --- drawing

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), QColor(SURROUND))
        if self.levels is not None:
            self._draw_picture(painter)
        elif self.ground is not None:
            painter.fillRect(self.screen_rect(Rect(0, 0, *self.content)), QColor(*self.ground))
        else:
            painter.setPen(QColor(INK))
            painter.setFont(lettering(16))
            room = self.rect().adjusted(px(40), px(20), -px(40), -px(20))
            painter.drawText(room, Qt.AlignmentFlag.AlignCenter | Qt.TextFlag.TextWordWrap, self.waiting)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        if self.levels is not None or self.ground is not None:
            if self.laid is not None:
                painter.drawImage(self.screen_rect(Rect(0, 0, *self.content)), self.laid)
            (right, down), scale = self._signs(), self.scale
            whole = self.screen_rect(Rect(0, 0, *self.content))
            place = Place(self.to_screen((0.0, 0.0)), (right * scale, down * scale), [], whole)
            for overlay in (*self.overlays, *(self.tool.overlays if self.tool is not None else ())):
                paint_overlay(painter, overlay, place)
        painter.end()

    def _draw_picture(self, painter: QPainter) -> None:
        assert self.levels is not None
        image = self.levels.for_width(self.content[0] * self.scale, self.frame.grey)
        whole = self.screen_rect(Rect(0, 0, *self.content))
        seen = whole.intersected(QRectF(self.rect()))
        if seen.isEmpty():
            return
        painter.save()
        flip_x, flip_y = self.frame.flips
        if flip_x or flip_y:
            painter.translate(whole.center())
            painter.scale(-1.0 if flip_x else 1.0, -1.0 if flip_y else 1.0)
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
        if self._area is not None:
            self.fit(self._area)
        self.update()

    def wheelEvent(self, event: QWheelEvent) -> None:
        self.zoom(_STEP ** (event.angleDelta().y() / 120), event.position())

    @property
    def _reach(self) -> float:
        return px(_REACH_PX) / self.scale

    @property
    def _in_hand(self) -> Tool | None:
        return self.tool if self.levels is not None or self.ground is not None else None

    def mousePressEvent(self, event: QMouseEvent) -> None:
        if event.button() in (Qt.MouseButton.MiddleButton, Qt.MouseButton.RightButton):
            self._pan_from = event.position()
        elif event.button() == Qt.MouseButton.LeftButton and self._in_hand is not None:
            self._in_hand.press(self.to_content(event.position()), self._reach)
            self.update()

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        if self._pan_from is not None:
            self.pan(event.position() - self._pan_from)
            self._pan_from = event.position()
        elif self._in_hand is not None:
            point = self.to_content(event.position())
            self.setCursor(_CURSORS[self._in_hand.hint(point, self._reach)])
            if self._in_hand.move(point):
                self.update()

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        if event.button() in (Qt.MouseButton.MiddleButton, Qt.MouseButton.RightButton):
            self._pan_from = None
        elif event.button() == Qt.MouseButton.LeftButton and self._in_hand is not None:
            self._in_hand.release(self.to_content(event.position()))
            self.update()

    def mouseDoubleClickEvent(self, event: QMouseEvent) -> None:
        if event.button() == Qt.MouseButton.LeftButton and self._in_hand is not None:
            self._in_hand.double(self.to_content(event.position()))
            self.update()

    def key(self, event: QKeyEvent) -> bool:
        """+ and - zoom, 0 shows all; whether it was one of them. The room's own keys come first."""
        centre = QPointF(self.width() / 2, self.height() / 2)
        if event.text() == "+":
            self.zoom(_STEP, centre)
        elif event.text() == "-":
            self.zoom(1 / _STEP, centre)
        elif event.text() == "0":
            self.fit()
        else:
            return False
        return True
