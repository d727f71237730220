"""The canvas as a thing: its front, an edge, the gap and the frame, seen from a corner and turned by a drag."""

import math
from collections.abc import Callable
from dataclasses import dataclass

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QImage, QMouseEvent, QPainter, QPaintEvent, QPen, QPolygonF, QTransform
from PySide6.QtWidgets import QWidget

from yarrow_lane.compose.sides import Sides
from yarrow_lane.ui.theme.colours import INK, SURROUND
from yarrow_lane.ui.theme.lettering import lettering, px

_Point3 = tuple[float, float, float]
_MOST_DEG = 62.0
_FRAME_BACK = 4.0  # mm the frame's face stands before the canvas: our choice


@dataclass(frozen=True)
class Corner:
    """What is drawn: the picture with `round_mm` of it beyond the front on every side, colours as "#rrggbb"."""

    width_mm: float
    height_mm: float
    sides: Sides
    edge: str
    bar: str
    picture: QImage | None
    round_mm: float
    measures: tuple[str, ...]


class CornerView(QWidget):
    """Turned by dragging; the lower right corner of the canvas is near."""

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("table")
        self.setAccessibleName("The corner of the canvas, turned by dragging")
        self.setMinimumSize(120, 120)
        self.setCursor(Qt.CursorShape.OpenHandCursor)
        self.corner: Corner | None = None
        self.yaw, self.pitch = -36.0, -20.0
        self._from: tuple[QPointF, float, float] | None = None

    def show_corner(self, corner: Corner) -> None:
        self.corner = corner
        self.update()

    def turn(self, yaw: float, pitch: float) -> None:
        """Degrees; the front always stays in sight."""
        self.yaw, self.pitch = (max(-_MOST_DEG, min(_MOST_DEG, v)) for v in (yaw, pitch))
        self.update()

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self._from = (event.position(), self.yaw, self.pitch)

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        if self._from is not None:
            start, yaw, pitch = self._from
            by = event.position() - start
            self.turn(yaw + by.x() * 0.3, pitch - by.y() * 0.3)

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        self._from = None

    # --- drawing

    def _placed(self, at: _Point3, scale: float, anchor: _Point3) -> QPointF:
        """Without vanishing points, as a joiner draws it: y runs down, z away from the eye."""
        x, y, z = (a - b for a, b in zip(at, anchor, strict=True))
        yaw, pitch = math.radians(self.yaw), math.radians(self.pitch)
        x, z = x * math.cos(yaw) + z * math.sin(yaw), -x * math.sin(yaw) + z * math.cos(yaw)
        y = y * math.cos(pitch) - z * math.sin(pitch)
        return QPointF(self.width() * 0.66 + x * scale, self.height() * 0.66 + y * scale)

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), QColor(SURROUND))
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        if self.corner is not None:
            self._paint(painter, self.corner)
        painter.end()

    def _paint(self, painter: QPainter, c: Corner) -> None:
        # Large enough that the edge is seen: the near corner fills the table, the far one runs off it.
        shown = min(max(c.width_mm, c.height_mm), max(160.0, 9 * c.sides.depth_mm, 0.45 * min(c.width_mm, c.height_mm)))
        scale = max(self.width() * 0.62, self.height() * 0.62) / shown
        w, h, d = c.width_mm, c.height_mm, c.sides.depth_mm
        anchor = (w, h, 0.0)

        def at(x: float, y: float, z: float) -> QPointF:
            return self._placed((x, y, z), scale, anchor)

        def face(*corners: _Point3) -> QPolygonF:
            return QPolygonF([at(*corner) for corner in corners])

        if c.sides.frame == "floating":
            self._frame(painter, c, at, back=True)
        right_seen, lower_seen = self.yaw < 0, self.pitch < 0
        r = c.round_mm
        for seen, quad, part in (
            (right_seen, face((w, 0, 0), (w, 0, d), (w, h, d), (w, h, 0)), (r + w, r, r, h)),
            (not right_seen, face((0, 0, d), (0, 0, 0), (0, h, 0), (0, h, d)), (0.0, r, r, h)),
            (lower_seen, face((0, h, 0), (w, h, 0), (w, h, d), (0, h, d)), (r, r + h, w, r)),
            (not lower_seen, face((0, 0, d), (w, 0, d), (w, 0, 0), (0, 0, 0)), (r, 0.0, w, r)),
        ):
            if seen and d > 0:
                self._face(painter, c, quad, part if r else None, 118 if quad is None else 112)
        front = face((0, 0, 0), (w, 0, 0), (w, h, 0), (0, h, 0))
        self._face(painter, c, front, (r, r, w, h), 100, front=True)
        painter.setPen(QPen(QColor(20, 20, 20, 120), 1))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawPolygon(front)
        if c.sides.frame == "floating":
            self._frame(painter, c, at, back=False)
        self._words(painter, c)
        self._section(painter, c)

    def _section(self, painter: QPainter, c: Corner) -> None:
        """Cut through the lower edge, seen from the side, its measures beside it."""
        s, ink = c.sides, QColor(INK)
        deep = max(s.depth_mm, 3.0)
        framed = s.frame == "floating"
        scale = min(px(3), px(120) / (deep + 24))
        high = 46.0
        right, foot = self.width() - px(26), float(self.height() - px(64))
        left = right - (deep + (_FRAME_BACK + 6 if framed else 0)) * scale
        painter.setPen(QPen(ink, 1.2))
        painter.setBrush(QColor("#e8e4da"))
        below = (s.gap_mm + s.bar_mm) * scale if framed else 0.0
        canvas = QRectF(right - deep * scale, foot - below - high * scale, deep * scale, high * scale)
        painter.drawRect(canvas)
        painter.setFont(lettering(12))
        flags = Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter
        room = QRectF(left - px(170), canvas.y() - px(22), right - left + px(170), px(18))
        painter.setPen(ink)
        painter.drawText(room, flags, f"section, {s.depth_mm:g}\u202fmm deep")
        if framed:
            painter.setBrush(QColor(c.bar))
            wide = (deep + _FRAME_BACK + 5) * scale
            painter.drawRect(
                QRectF(right - deep * scale - _FRAME_BACK * scale, foot - s.bar_mm * scale, wide, s.bar_mm * scale)
            )
            painter.drawRect(QRectF(right, foot - s.bar_mm * scale - 30 * scale, 5 * scale, 30 * scale))
            words = (
                (f"gap {s.gap_mm:g}\u202fmm", foot - (s.bar_mm + s.gap_mm / 2) * scale),
                (f"face {s.bar_mm:g}\u202fmm", foot - s.bar_mm / 2 * scale),
            )
            for text, y in words:
                painter.drawText(QRectF(left - px(106), y - px(9), px(100), px(18)), flags, text)

    def _face(
        self, painter: QPainter, c: Corner, quad: QPolygonF, part: tuple[float, float, float, float] | None, dark: int, front: bool = False
    ) -> None:  # fmt: skip
        if c.picture is None or part is None:
            painter.setPen(Qt.PenStyle.NoPen)
            colour = QColor("#dcd9d2") if front or c.sides.finish == "undecided" else QColor(c.edge)
            painter.setBrush(colour.darker(dark))
            painter.drawPolygon(quad)
            return
        x, y, wide, high = part
        across = c.picture.width() / (c.width_mm + 2 * c.round_mm)
        source = QRectF(x * across, y * across, max(1.0, wide * across), max(1.0, high * across))
        square = QPolygonF([source.topLeft(), source.topRight(), source.bottomRight(), source.bottomLeft()])
        bend = QTransform()
        if QTransform.quadToQuad(square, quad, bend):
            painter.save()
            painter.setTransform(bend, True)
            painter.drawImage(source, c.picture, source)
            if dark > 100:
                painter.fillRect(source, QColor(0, 0, 0, 40))
            painter.restore()

    def _frame(self, painter: QPainter, c: Corner, at: Callable[[float, float, float], QPointF], back: bool) -> None:
        """A floating frame is a tray: its bottom and far walls lie behind the canvas, its near walls before it."""
        g, b, z = c.sides.gap_mm, c.sides.bar_mm, -_FRAME_BACK
        w, h, d = c.width_mm, c.height_mm, c.sides.depth_mm + _FRAME_BACK
        painter.setPen(QPen(QColor(0, 0, 0, 90), 0.8))
        bar = QColor(c.bar)
        if back:
            painter.setBrush(QColor("#1d1b19"))
            painter.drawPolygon(QPolygonF([at(x, y, d) for x, y in ((-g, -g), (w + g, -g), (w + g, h + g), (-g, h + g))]))
            return
        outer = ((-g - b, -g - b), (w + g + b, -g - b), (w + g + b, h + g + b), (-g - b, h + g + b))
        inner = ((-g, -g), (w + g, -g), (w + g, h + g), (-g, h + g))
        for n, seen in ((1, self.yaw < 0), (2, self.pitch < 0), (3, self.yaw > 0), (0, self.pitch > 0)):
            one, two = outer[n], outer[(n + 1) % 4]
            if seen:
                painter.setBrush(bar.darker(140))
                painter.drawPolygon(QPolygonF([at(*one, z), at(*two, z), at(*two, d), at(*one, d)]))
        for n in range(4):
            m = (n + 1) % 4
            painter.setBrush(bar.lighter(104 + 5 * n))
            painter.drawPolygon(QPolygonF([at(*outer[n], z), at(*outer[m], z), at(*inner[m], z), at(*inner[n], z)]))

    def _words(self, painter: QPainter, c: Corner) -> None:
        painter.setPen(QColor(INK))
        y = float(self.height() - px(32) - px(21) * len(c.measures))
        for n, words in enumerate(c.measures):
            painter.setFont(lettering(15, "bold" if n == 0 else "normal"))
            painter.drawText(QRectF(px(18), y, self.width() - px(36), px(22)), Qt.AlignmentFlag.AlignVCenter, words)
            y += px(21)
        painter.setFont(lettering(13))
        foot = QRectF(px(18), self.height() - px(30), self.width() - px(36), px(22))
        painter.drawText(foot, Qt.AlignmentFlag.AlignVCenter, "Drag to turn it.")
