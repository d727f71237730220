"""One photograph, large, with iris circles, landmarks and what is cut off."""

import math

from PySide6.QtCore import QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QColor, QImage, QKeyEvent, QMouseEvent, QPainter, QPen

from yarrow_lane.intake.landmarks import Landmark
from yarrow_lane.intake.light import Glint
from yarrow_lane.intake.photos import Eye
from yarrow_lane.measure.plane import Point, Rect
from yarrow_lane.ui.kit.photo_view import PhotoView
from yarrow_lane.ui.theme.lettering import lettering, px
from yarrow_lane.ui.theme.sheet import colours

_ARROWS = {Qt.Key.Key_Left: (-1, 0), Qt.Key.Key_Right: (1, 0), Qt.Key.Key_Up: (0, -1), Qt.Key.Key_Down: (0, 1)}


class EyeCanvas(PhotoView):
    """Marks an eye by a drag across its iris (`marked`: x, y, radius px), a landmark by a click (`pointed`).

    Arrows nudge the chosen eye by a pixel, [ and ] change its size (`nudged`: dx, dy, growth).
    """

    marked = Signal(float, float, float)
    pointed = Signal(float, float)
    nudged = Signal(float, float, float)

    def __init__(self) -> None:
        super().__init__()
        self.setAccessibleName("The photograph")
        self.setCursor(Qt.CursorShape.CrossCursor)
        self.overlay: QImage | None = None
        self._eyes: tuple[Eye, ...] = ()
        self._points: tuple[Landmark, ...] = ()
        self._glints: tuple[Glint, ...] = ()
        self._mark = "left"
        self._from: Point | None = None
        self._to: Point = (0.0, 0.0)

    def show_marks(self, eyes: tuple[Eye, ...], points: tuple[Landmark, ...], glints: tuple[Glint, ...], mark: str) -> None:
        self._eyes, self._points, self._glints, self._mark = eyes, points, glints, mark
        self.update()

    @property
    def _marks_eyes(self) -> bool:
        return self._mark in ("left", "right")

    def pressed(self, point: Point, event: QMouseEvent) -> None:
        if self._marks_eyes:
            self._from = self._to = point
        else:
            self.pointed.emit(*point)

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

    def keyPressEvent(self, event: QKeyEvent) -> None:
        step = _ARROWS.get(Qt.Key(event.key()))
        grow = {"[": -0.5, "]": 0.5}.get(event.text())
        if self._marks_eyes and (step is not None or grow is not None):
            far = 10 if event.modifiers() & Qt.KeyboardModifier.ShiftModifier else 1
            dx, dy = step or (0, 0)
            self.nudged.emit(dx * far, dy * far, grow or 0.0)
        else:
            super().keyPressEvent(event)

    # --- drawing

    def paint_over(self, painter: QPainter) -> None:
        if self.levels is None:
            return
        if self.overlay is not None:
            painter.drawImage(self.screen_rect(Rect(0, 0, *self.content)), self.overlay)
        for eye in self._eyes:
            self._ring(
                painter, (eye.x, eye.y), eye.radius_px, f"{eye.side} {eye.across_px:.0f}\u202fpx", eye.side == self._mark
            )
        for glint in self._glints:
            at = self.to_screen((glint.x, glint.y))
            painter.setPen(QPen(QColor(colours().here), 2))
            painter.drawRect(QRectF(at.x() - 4, at.y() - 4, 8, 8))
        for point in self._points:
            self._cross(painter, point)
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
        self._label(painter, at + QPointF(r * 0.72 + px(4), -r * 0.72 - px(4)), words)

    def _cross(self, painter: QPainter, point: Landmark) -> None:
        at, arm = self.to_screen((point.x, point.y)), px(7)
        for colour, width in (("#1a1a1a", 4.0), ("#ffffff", 1.6)):
            painter.setPen(QPen(QColor(colour), width))
            painter.drawLine(at + QPointF(-arm, 0), at + QPointF(arm, 0))
            painter.drawLine(at + QPointF(0, -arm), at + QPointF(0, arm))
        self._label(painter, at + QPointF(arm + px(2), -px(4)), point.name)

    @staticmethod
    def _label(painter: QPainter, at: QPointF, words: str) -> None:
        painter.setFont(lettering(14, "bold"))
        for shift, colour in ((1, "#1a1a1a"), (0, "#ffffff")):
            painter.setPen(QColor(colour))
            painter.drawText(at + QPointF(shift, shift), words)
