"""What an hour of each kind of commission brought, on one scale with the floor."""

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QWidget

from yarrow_lane.ui.paint.elided import draw_line
from yarrow_lane.ui.pictures import Pictures
from yarrow_lane.ui.references import References
from yarrow_lane.ui.rooms.books.quote_view import EarnedDot, EarnedShown
from yarrow_lane.ui.theme.colours import DAY, INK, SURROUND
from yarrow_lane.ui.theme.lettering import lettering, px

_TILE = 25


class EarnedScale(QWidget):
    """Only looked at."""

    def __init__(self, pictures: Pictures, references: References) -> None:
        super().__init__()
        self.setMinimumSize(px(200), px(224))
        self._references = references
        self._shown: EarnedShown | None = None
        pictures.arrived.connect(self.update)

    def show_earned(self, shown: EarnedShown) -> None:
        self._shown = shown
        self.setAccessibleName(
            "Earned an hour: " + ("; ".join(f"{d.kind} {d.words}, {d.works}" for d in shown.dots) or shown.empty)
        )
        self.update()

    def _x(self, amount: float) -> float:
        assert self._shown is not None
        left, right = px(26), self.width() - px(40)
        return left + (right - left) * (amount - self._shown.low) / max(1, self._shown.high - self._shown.low)

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        painter.fillRect(self.rect(), QColor(SURROUND))
        painter.setPen(QPen(QColor(0, 0, 0, 90), 1))
        painter.drawLine(0, 0, self.width(), 0)
        painter.drawLine(0, px(10), 0, self.height() - px(10))
        if self._shown is not None:
            self._paint(painter, self._shown)
        painter.end()

    def _paint(self, painter: QPainter, shown: EarnedShown) -> None:
        wide = self.width() - px(24)
        draw_line(painter, QRectF(px(12), px(8), wide, px(22)), "Earned an hour, by kind", lettering(15, "bold"), colour=INK)
        if shown.empty:
            painter.setFont(lettering(13))
            painter.setPen(QColor(INK))
            painter.drawText(QRectF(px(12), px(36), wide, px(60)), Qt.TextFlag.TextWordWrap, shown.empty)
            return
        draw_line(painter, QRectF(px(12), px(28), wide, px(18)), shown.floor_words, lettering(12.5), colour=INK)
        y = px(72)
        painter.setPen(QPen(QColor(INK), 1.4))
        painter.drawLine(QPointF(self._x(shown.low), y), QPointF(self._x(shown.high), y))
        painter.setPen(QPen(QColor(DAY.wrong), 3))
        if shown.low < shown.floor:
            painter.drawLine(QPointF(self._x(shown.low), y), QPointF(self._x(shown.floor), y))
        painter.drawLine(QPointF(self._x(shown.floor), y - px(12)), QPointF(self._x(shown.floor), y + px(4)))
        for amount, words in shown.marks:
            draw_line(
                painter,
                QRectF(self._x(amount) - px(30), y - px(24), px(60), px(16)),
                words,
                lettering(12.5),
                Qt.AlignmentFlag.AlignHCenter,
                INK,
            )
        levels = [-1e9] * 4
        often = shown.dots if self.width() > px(330) else shown.dots[: len(levels)]  # those with the most works come first
        for dot in sorted(often, key=lambda d: d.an_hour):
            x = self._x(dot.an_hour)
            left = min(max(px(8), x - px(16)), self.width() - px(100))
            level = next((n for n, until in enumerate(levels) if left >= until), len(levels) - 1)
            levels[level] = left + px(104)
            self._paint_dot(painter, dot, x, left, y, y + px(14) + level * px(31))

    def _paint_dot(self, painter: QPainter, dot: EarnedDot, x: float, left: float, y: float, top: float) -> None:
        painter.setPen(QPen(QColor(20, 20, 20, 70), 1))
        painter.drawLine(QPointF(x, y), QPointF(x, top))
        painter.setPen(QPen(QColor(INK), 1))
        painter.setBrush(QColor("#ffffff"))
        painter.drawEllipse(QPointF(x, y), px(4), px(4))
        tile = QRectF(left, top, px(_TILE), px(_TILE))
        image = self._references.thumbnail(dot.compose) if dot.compose is not None and dot.compose.framed else None
        if image is not None:
            side = min(image.width(), image.height())
            painter.drawImage(tile, image, QRectF((image.width() - side) / 2, (image.height() - side) * 0.3, side, side))
        else:
            painter.fillRect(tile, QColor("#b9b9b9"))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.setPen(QPen(QColor(INK), 1))
        painter.drawRect(tile)
        words = QRectF(tile.right() + px(4), top - px(2), px(84), px(16))
        draw_line(painter, words, dot.kind, lettering(12.5), colour=INK)
        draw_line(painter, words.translated(0, px(14)), f"{dot.words}, {dot.works}", lettering(12.5, "bold"), colour=INK)
