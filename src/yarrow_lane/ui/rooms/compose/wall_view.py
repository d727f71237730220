"""The client's wall on the screen, and how far details carry from it: the viewer is walked nearer and farther."""

from collections.abc import Callable

from PySide6.QtCore import QPointF, QRectF, QSize, Qt
from PySide6.QtGui import QColor, QImage, QMouseEvent, QPainter, QPaintEvent, QPen, QWheelEvent
from PySide6.QtWidgets import QWidget

from yarrow_lane.compose.seen_from import Detail, carries_mm
from yarrow_lane.ui.rooms.compose.wall_drawing import Hanging, WallDrawing
from yarrow_lane.ui.theme.lettering import lettering, px
from yarrow_lane.ui.theme.sheet import colours

NEAREST_MM, FARTHEST_MM = 200.0, 5500.0  # how far the viewer is walked: our choice


class WallView(QWidget):
    """The wheel walks the viewer nearer or farther."""

    def __init__(self, walked: Callable[[int], None]) -> None:
        super().__init__()
        self._walked = walked
        self.setObjectName("table")
        self.setAccessibleName("The piece on the client's wall, at true scale")
        self.setMinimumSize(120, 120)
        self.hanging: Hanging | None = None

    def show_hanging(self, hanging: Hanging) -> None:
        self.hanging = hanging
        self.update()

    def wheelEvent(self, event: QWheelEvent) -> None:
        self._walked(-1 if event.angleDelta().y() > 0 else 1)

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        if self.hanging is not None:
            WallDrawing(self.hanging, (float(self.width()), float(self.height()))).paint(painter)
        painter.end()


class WalkStrip(QWidget):
    """How far each detail carries, and where the client stands; a press or drag walks them."""

    def __init__(self, to: Callable[[float], None]) -> None:
        super().__init__()
        self._to = to
        self.setAccessibleName("How far a detail carries")
        self.setMinimumHeight(px(132))
        self.details: tuple[Detail, ...] = ()
        self.distance_mm = 2500.0
        self.eyes: tuple[tuple[QImage, str], ...] = ()
        self._down = False

    def sizeHint(self) -> QSize:
        return QSize(px(600), px(132))

    def show_details(self, details: tuple[Detail, ...], distance_mm: float, eyes: tuple[tuple[QImage, str], ...]) -> None:
        self.details, self.distance_mm, self.eyes = details, distance_mm, eyes
        self.update()

    def _ends(self) -> tuple[float, float]:
        return px(180), self.width() - px(30) - len(self._eyes_shown) * px(112)

    @property
    def _eyes_shown(self) -> tuple[tuple[QImage, str], ...]:
        """Left out where they would leave no room for the walk."""
        return self.eyes if self.width() - px(210) - len(self.eyes) * px(112) >= px(220) else ()

    def x_of(self, mm: float) -> float:
        left, right = self._ends()
        return left + (right - left) * min(mm, FARTHEST_MM) / FARTHEST_MM

    def _walk(self, x: float) -> None:
        left, right = self._ends()
        self._to(max(NEAREST_MM, min(FARTHEST_MM, (x - left) / max(1.0, right - left) * FARTHEST_MM)))

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self._down = True
        self._walk(event.position().x())

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        if self._down:
            self._walk(event.position().x())

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        self._down = False

    def paintEvent(self, event: QPaintEvent) -> None:
        c = colours()
        painter = QPainter(self)
        painter.fillRect(self.rect(), QColor(c.panel))
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        left, right = self._ends()
        painter.setPen(QColor(c.text))
        painter.setFont(lettering(13.5, "bold"))
        painter.drawText(QRectF(px(14), px(8), px(160), px(20)), Qt.AlignmentFlag.AlignVCenter, "How far a detail carries")
        painter.setPen(QColor(c.soft))
        painter.setFont(lettering(12))
        hint = QRectF(px(14), px(28), px(160), px(18))
        painter.drawText(hint, Qt.AlignmentFlag.AlignVCenter, "the wheel walks them")
        line = px(44)
        painter.setPen(QPen(QColor(c.soft), 1))
        painter.drawLine(QPointF(left, line), QPointF(right, line))
        painter.setFont(lettering(12))
        for metres in range(1, 6):
            x = self.x_of(metres * 1000)
            painter.drawLine(QPointF(x, line - px(4)), QPointF(x, line))
            painter.drawText(
                QRectF(x - px(30), line - px(22), px(60), px(18)), Qt.AlignmentFlag.AlignHCenter, f"{metres}\u202fm"
            )
        here = self.x_of(self.distance_mm)
        painter.setPen(QPen(QColor(c.here_edge), px(2)))
        painter.drawLine(QPointF(here, px(8)), QPointF(here, self.height() - px(6)))
        painter.setBrush(QColor(c.here))
        painter.drawEllipse(QPointF(here, px(12)), px(6), px(6))
        y = line + px(10)
        for detail in self.details:
            seen = carries_mm(detail.mm) >= self.distance_mm
            painter.setPen(QColor(c.text if seen else c.soft))
            painter.setFont(lettering(12.5, "bold" if seen else "normal"))
            words = f"{detail.name} {detail.mm:.1f}\u202fmm"
            painter.drawText(
                QRectF(px(4), y, left - px(12), px(16)), Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter, words
            )
            end = self.x_of(carries_mm(detail.mm))
            painter.fillRect(QRectF(left, y + px(4), end - left, px(8)), QColor(c.text if seen else c.rule))
            painter.setFont(lettering(11.5))
            painter.drawText(
                QRectF(end + px(4), y, px(60), px(16)),
                Qt.AlignmentFlag.AlignVCenter,
                f"{carries_mm(detail.mm) / 1000:.1f}\u202fm",
            )
            y += px(18)
        for n, (image, words) in enumerate(self._eyes_shown):
            box = QRectF(self.width() - (len(self._eyes_shown) - n) * px(112), px(10), px(102), px(78))
            painter.drawImage(box, image)
            painter.setPen(QColor(c.soft))
            painter.setFont(lettering(12))
            painter.drawText(
                QRectF(box.x(), box.bottom() + px(2), box.width(), px(34)),
                Qt.AlignmentFlag.AlignHCenter | Qt.TextFlag.TextWordWrap,
                words,
            )
        painter.end()
