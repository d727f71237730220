"""Beside the measured canvas: what its signs mean, and what the light hides of a fault of a whole region."""

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QFontMetricsF, QPainter, QPaintEvent, QPen, QPolygonF
from PySide6.QtWidgets import QWidget

from yarrow_lane.ui.paint.elided import draw_line
from yarrow_lane.ui.rooms.check.measuring_view import ENLARGED
from yarrow_lane.ui.theme.colours import INK, SURROUND
from yarrow_lane.ui.theme.lettering import lettering, px

WIDE = 150


class Legend(QWidget):
    """Painted on the neutral surround."""

    def __init__(self) -> None:
        super().__init__()
        self.setFixedWidth(px(WIDE))
        self.setAccessibleName("What the signs mean, and what the light hides")
        self._bars: tuple[tuple[str, float], ...] = ()
        self._words = ""

    def show_bars(self, bars: tuple[tuple[str, float], ...], words: str) -> None:
        """Region and hidden share each, and what follows from it."""
        self.setFixedWidth(px(WIDE))
        self._bars, self._words = bars, words
        self.setAccessibleDescription("; ".join(f"{n}: {100 * s:.0f} % hidden" for n, s in bars) + f". {words}")
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.fillRect(self.rect(), QColor(SURROUND))
        painter.setPen(QColor(INK))
        y = self._signs(painter)
        if self._bars:
            painter.setPen(QPen(QColor(INK), 0.6))
            painter.drawLine(QPointF(0, y), QPointF(self.width() - px(8), y))
            y = self._paint_bars(painter, y + px(6))
        self._wrapped(painter, y + px(4))
        painter.end()

    def _signs(self, painter: QPainter) -> float:
        room = self.width() - px(8)
        draw_line(painter, QRectF(0, px(14), room, px(20)), "Numbered, worst first", lettering(13, "bold"), colour=INK)
        font = lettering(13)
        for n, words in enumerate(("colour", f"drawing, × {ENLARGED:.0f}", "meant so")):
            y = px(48) + n * px(24)
            draw_line(painter, QRectF(px(36), y - px(10), room - px(36), px(20)), words, font, colour=INK)
            painter.setPen(QPen(QColor("#ffffff"), 1.8, Qt.PenStyle.DashLine if n == 2 else Qt.PenStyle.SolidLine))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            if n == 1:
                painter.setPen(QPen(QColor(INK), 2))
                painter.drawLine(QPointF(px(3), y), QPointF(px(20), y))
                painter.setBrush(QColor(INK))
                painter.drawPolygon(QPolygonF([QPointF(px(28), y), QPointF(px(19), y - px(5)), QPointF(px(19), y + px(5))]))
            else:
                painter.drawEllipse(QPointF(px(15), y), px(12), px(7))
        return float(px(118))

    def _paint_bars(self, painter: QPainter, y: float) -> float:
        room = self.width() - px(12)
        draw_line(painter, QRectF(0, y, room, px(18)), "What the light hides", lettering(13, "bold"), colour=INK)
        draw_line(painter, QRectF(0, y + px(17), room, px(18)), "of a fault of a whole…", lettering(12.5), colour=INK)
        y += px(38)
        for name, share in self._bars:
            if y + px(36) > self.height() - px(60):
                break
            draw_line(painter, QRectF(0, y, room, px(17)), name, lettering(12.5), colour=INK)
            bar = QRectF(0, y + px(18), room, px(8))
            painter.setPen(QPen(QColor(INK), 1))
            painter.setBrush(QColor("#ffffff"))
            painter.drawRect(bar)
            part = QRectF(bar.right() - bar.width() * share, bar.top(), bar.width() * share, bar.height())
            painter.setBrush(QColor(SURROUND))
            painter.drawRect(part)
            painter.setBrush(Qt.BrushStyle.BDiagPattern)
            painter.drawRect(part)
            painter.setBrush(Qt.BrushStyle.NoBrush)
            y += px(34)
        return y

    def _wrapped(self, painter: QPainter, y: float) -> None:
        if not self._words:
            return
        font = lettering(12.5)
        painter.setFont(font)
        painter.setPen(QColor(INK))
        box = QRectF(0, y, self.width() - px(10), max(0.0, self.height() - y - px(8)))
        need = QFontMetricsF(font).boundingRect(box, Qt.TextFlag.TextWordWrap, self._words)
        if need.height() <= box.height():
            painter.drawText(box, Qt.TextFlag.TextWordWrap, self._words)
