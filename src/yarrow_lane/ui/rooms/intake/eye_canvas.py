"""One photograph, large, with iris circles, landmarks and what is cut off."""

import math

from PySide6.QtCore import QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QColor, QFontMetricsF, QImage, QKeyEvent, QMouseEvent, QPainter, QPen

from yarrow_lane.intake.landmarks import Landmark
from yarrow_lane.measure.plane import Point, Rect
from yarrow_lane.ui.kit.photo_view import PhotoView
from yarrow_lane.ui.rooms.intake.marks import LightShown, MarksShown
from yarrow_lane.ui.theme.lettering import lettering, px
from yarrow_lane.ui.theme.sheet import colours

_ARROWS = {Qt.Key.Key_Left: (-1, 0), Qt.Key.Key_Right: (1, 0), Qt.Key.Key_Up: (0, -1), Qt.Key.Key_Down: (0, 1)}


class EyeCanvas(PhotoView):
    """Marks an eye by a drag across its iris (`marked`: x, y, radius px), a landmark by a click (`pointed`).

    Arrows nudge what is being marked by a pixel, [ and ] change the size of an iris (`nudged`: dx, dy, growth).
    """

    marked = Signal(float, float, float)
    pointed = Signal(float, float)
    nudged = Signal(float, float, float)

    def __init__(self) -> None:
        super().__init__()
        self.setAccessibleName("The photograph")
        self.setCursor(Qt.CursorShape.CrossCursor)
        self.overlay: QImage | None = None
        self._marks = MarksShown("left")
        self._worded: list[QRectF] = []
        self._from: Point | None = None
        self._to: Point = (0.0, 0.0)

    def show_marks(self, marks: MarksShown) -> None:
        self._marks = marks
        self.update()

    @property
    def _marks_eyes(self) -> bool:
        return self._marks.mark in ("left", "right")

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
        if step is not None or grow is not None:
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
        marks = self._marks
        self._worded = []
        for eye in marks.eyes:
            words = f"{eye.side} {eye.across_px:.0f}\u202fpx"
            self._ring(painter, (eye.x, eye.y), eye.radius_px, words, eye.side == marks.mark, eye.side == "left")
        if marks.head is not None:
            self._line(painter, *marks.head)
        if marks.lids is not None:
            self._box(painter, *marks.lids)
        for glint in marks.glints:
            at = self.to_screen((glint.x, glint.y))
            painter.setPen(QPen(QColor(colours().here), 2))
            painter.drawRect(QRectF(at.x() - 4, at.y() - 4, 8, 8))
        for point in marks.points:
            self._cross(painter, point)
        if marks.light is not None:
            self._arrow(painter, marks.light)
        if self._from is not None:
            (x0, y0), (x1, y1) = self._from, self._to
            across = math.hypot(x1 - x0, y1 - y0)
            self._ring(painter, ((x0 + x1) / 2, (y0 + y1) / 2), across / 2, f"{across:.0f}\u202fpx", True)

    def _ring(
        self, painter: QPainter, centre: Point, radius: float, words: str, strong: bool, words_left: bool = False
    ) -> None:
        at, r = self.to_screen(centre), radius * self.scale
        painter.setBrush(Qt.BrushStyle.NoBrush)
        # Dark under light: seen on any photograph.
        for colour, width in (("#1a1a1a", 4.0), ("#ffffff" if strong else "#d0d0d0", 2.0)):
            painter.setPen(QPen(QColor(colour), width))
            painter.drawEllipse(at, r, r)
        # The words stand away from the other eye.
        aside = -QFontMetricsF(lettering(14, "bold")).horizontalAdvance(words) - r - px(4) if words_left else r + px(4)
        self._label(painter, at + QPointF(aside, px(5)), words)

    def _line(self, painter: QPainter, one: Point, other: Point, words: str) -> None:
        a, b = self.to_screen(one), self.to_screen(other)
        for colour, width in (("#1a1a1a", 3.0), ("#ffffff", 1.4)):
            painter.setPen(QPen(QColor(colour), width, Qt.PenStyle.DotLine))
            painter.drawLine(a, b)
        # Beside the upper part of the head: lower down the eyes have their own words.
        at = a * 0.8 + b * 0.2
        self._label(painter, at - QPointF(QFontMetricsF(lettering(14, "bold")).horizontalAdvance(words) + px(8), 0), words)

    def _box(self, painter: QPainter, rect: Rect, words: str) -> None:
        place = self.screen_rect(rect)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        for colour, width in (("#1a1a1a", 3.0), ("#ffffff", 1.2)):
            painter.setPen(QPen(QColor(colour), width, Qt.PenStyle.DashLine))
            painter.drawRect(place)
        self._label(painter, place.bottomLeft() + QPointF(0, px(16)), words)

    def _arrow(self, painter: QPainter, light: LightShown) -> None:
        """From where the light comes, pointing at the eye; broken while it is not sure."""
        at = self.to_screen(light.to)
        turn = math.radians(light.degrees)
        towards = QPointF(math.sin(turn), -math.cos(turn))
        reach = max(px(70), light.reach * self.scale)
        tail, tip = at + towards * (reach + px(60)), at + towards * reach
        side = QPointF(-towards.y(), towards.x())
        style = Qt.PenStyle.SolidLine if light.sure else Qt.PenStyle.DashLine
        for colour, width in (("#1a1a1a", 6.0), (colours().here, 3.0)):
            painter.setPen(QPen(QColor(colour), width, style))
            painter.drawLine(tail, tip)
            painter.setPen(QPen(QColor(colour), width))
            painter.drawPolyline([tip + towards * px(12) + side * px(8), tip, tip + towards * px(12) - side * px(8)])
        self._label(painter, tail + QPointF(px(8), -px(6)), light.words)

    def _cross(self, painter: QPainter, point: Landmark) -> None:
        at, arm = self.to_screen((point.x, point.y)), px(7)
        for colour, width in (("#1a1a1a", 4.0), ("#ffffff", 1.6)):
            painter.setPen(QPen(QColor(colour), width))
            painter.drawLine(at + QPointF(-arm, 0), at + QPointF(arm, 0))
            painter.drawLine(at + QPointF(0, -arm), at + QPointF(0, arm))
        self._label(painter, at + QPointF(arm + px(2), -px(4)), point.name)

    def _label(self, painter: QPainter, at: QPointF, words: str) -> None:
        """Words beside a mark; left out where they would cover those of another (zooming in makes room)."""
        painter.setFont(lettering(14, "bold"))
        place = painter.fontMetrics().boundingRect(words).toRectF().translated(at)
        if any(place.intersects(other) for other in self._worded):
            return
        self._worded.append(place)
        for shift, colour in ((1, "#1a1a1a"), (0, "#ffffff")):
            painter.setPen(QColor(colour))
            painter.drawText(at + QPointF(shift, shift), words)
