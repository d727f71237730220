"""Front to back, seen from the side: the eye, the sitters at their distances, the background. Pull one nearer and it grows."""

import math
from collections.abc import Callable
from dataclasses import dataclass

from PySide6.QtCore import QPointF, QRectF, QSize, Qt
from PySide6.QtGui import QColor, QImage, QMouseEvent, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QWidget

from yarrow_lane.measure.spread import spread
from yarrow_lane.ui.theme.lettering import lettering, px
from yarrow_lane.ui.theme.sheet import colours

_HIGH = 148
_REACH = 26


@dataclass(frozen=True)
class Standing:
    """One sitter: metres from the eye, how high it is drawn (share of the strip's room), and whether its scale is known."""

    piece_id: int
    name: str
    metres: float
    high: float
    known: bool
    words: str


class DepthStrip(QWidget):
    """Distances run by their logarithm, so that near ones have room; `pulled(piece, metres, freed)` is told when a hand lets go."""

    def __init__(self, pulled: Callable[[int, float, bool], None], chosen: Callable[[int], None]) -> None:
        super().__init__()
        self._pulled, self._chosen = pulled, chosen
        self.setAccessibleName("Front to back, seen from the side")
        self.setObjectName("choices")
        self.setMouseTracking(True)
        self.setMinimumHeight(px(_HIGH))
        self.sitters: tuple[Standing, ...] = ()
        self.faces: dict[int, QImage] = {}
        self.now = 0
        self._held = 0
        self._at = 0.0
        self._freed = False
        self._range = (1.0, 4.0)
        self.note = ""

    def sizeHint(self) -> QSize:
        return QSize(px(600), px(_HIGH))

    def show_sitters(self, sitters: tuple[Standing, ...], now: int, faces: dict[int, QImage], note: str) -> None:
        if self._held:
            return
        self.sitters, self.now, self.faces, self.note = sitters, now, faces, note
        far = [s.metres for s in sitters] or [2.0]
        self._range = (min(far) * 0.75, max(far) * 1.45)
        self.setToolTip(note)
        self.update()

    # --- where things lie

    def _line(self) -> tuple[float, float, float]:
        """Left and right end of the floor, and its height."""
        return px(96), self.width() * 0.68, self.height() - px(44)

    def x_of(self, metres: float) -> float:
        left, right, _ = self._line()
        near, far = self._range
        return left + (right - left) * math.log(metres / near) / math.log(far / near)

    def metres_at(self, x: float) -> float:
        left, right, _ = self._line()
        near, far = self._range
        share = min(1.0, max(0.0, (x - left) / (right - left)))
        return near * (far / near) ** share

    # --- hands

    def _near(self, x: float) -> int:
        found = min(self.sitters, key=lambda s: abs(self.x_of(s.metres) - x), default=None)
        return found.piece_id if found is not None and abs(self.x_of(found.metres) - x) < px(_REACH) else 0

    def mousePressEvent(self, event: QMouseEvent) -> None:
        found = self._near(event.position().x())
        if event.button() == Qt.MouseButton.LeftButton and found:
            self._held, self._at = found, event.position().x()
            self.now = found
            self.update()

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        if self._held:
            self._at = event.position().x()
            self._freed = bool(event.modifiers() & Qt.KeyboardModifier.AltModifier)
            self.update()
        else:
            over = self._near(event.position().x())
            self.setCursor(Qt.CursorShape.SizeHorCursor if over else Qt.CursorShape.ArrowCursor)

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        held, self._held = self._held, 0
        if not held:
            return
        was = next(s.metres for s in self.sitters if s.piece_id == held)
        if abs(self.x_of(was) - event.position().x()) < px(3):
            self._chosen(held)
        else:
            self._pulled(held, self.metres_at(event.position().x()), bool(event.modifiers() & Qt.KeyboardModifier.AltModifier))
        self.update()

    # --- drawing

    def paintEvent(self, event: QPaintEvent) -> None:
        c = colours()
        painter = QPainter(self)
        painter.fillRect(self.rect(), QColor(c.panel))
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        _left, right, floor = self._line()
        painter.setPen(QColor(c.text))
        painter.setFont(lettering(13.5, "bold"))
        painter.drawText(
            QRectF(px(14), px(6), px(400), px(20)), Qt.AlignmentFlag.AlignVCenter, "Front to back, seen from the side"
        )
        eye = QPointF(px(36), floor - px(52))
        painter.setPen(QPen(QColor(c.soft), 1.2))
        wall = right + px(34)
        painter.drawLine(QPointF(px(14), floor), QPointF(wall + px(20), floor))
        for y in (floor - px(84), floor):
            painter.drawLine(eye, QPointF(wall, y))
        painter.setBrush(QColor(c.soft))
        painter.setPen(Qt.PenStyle.NoPen)
        painter.drawRect(QRectF(wall, floor - px(88), px(4), px(88)))
        self._paint_eye(painter, eye)
        painter.setPen(QColor(c.soft))
        painter.setFont(lettering(12.5))
        painter.drawText(QRectF(px(10), floor + px(4), px(80), px(18)), Qt.AlignmentFlag.AlignVCenter, "your eye")
        painter.drawText(QRectF(wall - px(50), floor + px(4), px(120), px(18)), Qt.AlignmentFlag.AlignHCenter, "background")
        for sitter in sorted(self.sitters, key=lambda s: -s.metres):
            self._paint_sitter(painter, sitter, floor)
        self._paint_words(painter, floor)
        self._paint_note(painter, wall)
        painter.end()

    def _paint_eye(self, painter: QPainter, at: QPointF) -> None:
        c = colours()
        painter.setPen(QPen(QColor(c.text), 1.6))
        painter.setBrush(QColor(c.panel))
        painter.drawEllipse(at, px(11), px(6))
        painter.setBrush(QColor(c.text))
        painter.drawEllipse(at, px(3), px(3))

    def _paint_sitter(self, painter: QPainter, sitter: Standing, floor: float) -> None:
        c = colours()
        held = sitter.piece_id == self._held
        metres = self.metres_at(self._at) if held else sitter.metres
        x = self.x_of(metres)
        high = px(84) * sitter.high * (sitter.metres / metres if held and not self._freed else 1.0)
        face = self.faces.get(sitter.piece_id)
        if face is not None and face.height():
            wide = high * face.width() / face.height()
            painter.drawImage(QRectF(x - wide / 2, floor - high, wide, high), face)
        chosen = sitter.piece_id == self.now
        style = Qt.PenStyle.SolidLine if sitter.known else Qt.PenStyle.DotLine
        painter.setPen(QPen(QColor(c.here_edge if chosen else c.text), px(4) if chosen else px(3), style))
        painter.drawLine(QPointF(x - px(17), floor), QPointF(x + px(17), floor))

    def _paint_words(self, painter: QPainter, floor: float) -> None:
        """Names and metres below the feet, moved apart where sitters stand close."""
        c = colours()
        left, right, _ = self._line()
        wide = min(float(px(76)), (right - left) / max(1, len(self.sitters) - 1))
        near = sorted(self.sitters, key=lambda s: s.metres)
        metres_of = [self.metres_at(self._at) if s.piece_id == self._held else s.metres for s in near]
        places = spread([self.x_of(m) for m in metres_of], wide, left, right)
        for sitter, metres, at in zip(near, metres_of, places, strict=True):
            held = sitter.piece_id == self._held
            painter.setPen(QColor(c.text))
            painter.setFont(lettering(12.5, "bold"))
            name = painter.fontMetrics().elidedText(sitter.name, Qt.TextElideMode.ElideRight, int(wide) - px(4))
            painter.drawText(QRectF(at - wide / 2, floor + px(3), wide, px(17)), Qt.AlignmentFlag.AlignHCenter, name)
            painter.setPen(QColor(c.soft))
            painter.setFont(lettering(12))
            words = f"{metres:.2f}\u202fm" if held and sitter.known else sitter.words
            painter.drawText(QRectF(at - wide / 2, floor + px(19), wide, px(17)), Qt.AlignmentFlag.AlignHCenter, words)

    def _paint_note(self, painter: QPainter, wall: float) -> None:
        c = colours()
        room = QRectF(wall + px(42), px(10), self.width() - wall - px(56), self.height() - px(16))
        if room.width() < px(110):
            return
        painter.setPen(QColor(c.text))
        painter.setFont(lettering(14, "bold"))
        flags = Qt.TextFlag.TextWordWrap | Qt.AlignmentFlag.AlignTop
        head = painter.boundingRect(room, flags, "Pull a sitter nearer and it grows.")
        painter.drawText(room, flags, "Pull a sitter nearer and it grows.")
        painter.setPen(QColor(c.soft))
        painter.setFont(lettering(12.5))
        painter.drawText(room.adjusted(0, head.height() + px(6), 0, 0), flags, self.note)
