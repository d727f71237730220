"""The tubes as rows: what is left as a filled length, what is needed as a mark, and what to order."""

from PySide6.QtCore import QRectF, Qt
from PySide6.QtGui import QColor, QPainter, QPaintEvent, QPen, QWheelEvent
from PySide6.QtWidgets import QWidget

from yarrow_lane.ui.paint.elided import draw_line
from yarrow_lane.ui.rooms.books.paint_view import PaintShown, TubeRow
from yarrow_lane.ui.theme.colours import DAY, INK, SURROUND
from yarrow_lane.ui.theme.lettering import lettering, px

_ROW = 34


class PaintRows(QWidget):
    """Only looked at; the wheel scrolls."""

    def __init__(self) -> None:
        super().__init__()
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self._shown: PaintShown | None = None
        self._first = 0

    def show_paint(self, shown: PaintShown) -> None:
        self._shown = shown
        self._first = min(self._first, max(0, len(shown.rows) - 1))
        self.setAccessibleName(f"Paint: {shown.head}")
        self.update()

    def wheelEvent(self, event: QWheelEvent) -> None:
        rows = len(self._shown.rows) if self._shown else 0
        self._first = min(max(0, self._first + (-1 if event.angleDelta().y() > 0 else 1)), max(0, rows - 6))
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.fillRect(self.rect(), QColor(SURROUND))
        shown = self._shown
        if shown is not None:
            wide = self.width() - px(48)
            draw_line(painter, QRectF(px(24), px(10), wide, px(24)), shown.head, lettering(15, "bold"), colour=INK)
            painter.setPen(QColor(INK))
            painter.setFont(lettering(13))
            painter.drawText(QRectF(px(24), px(34), wide, px(40)), Qt.TextFlag.TextWordWrap, shown.note)
            y = float(px(80))
            for row in shown.rows[self._first :]:
                if y + px(_ROW) > self.height():
                    break
                self._row(painter, row, y)
                y += px(_ROW)
            right = QRectF(self.width() - px(290), px(80), px(270), px(20))
            if shown.commissions and self.width() > px(900):
                draw_line(painter, right, "By commission", lettering(14, "bold"), colour=INK)
                for n, (title, words) in enumerate(shown.commissions):
                    line = right.translated(0, px(26) + n * px(38))
                    draw_line(painter, line, title, lettering(13.5, "bold"), colour=INK)
                    draw_line(painter, line.translated(0, px(16)), words, lettering(12.5), colour=INK)
            if not shown.rows:
                draw_line(
                    painter,
                    QRectF(px(24), y, wide, px(24)),
                    "The paintbox is empty: put tubes in at Palette.",
                    lettering(14),
                    colour=INK,
                )
        painter.end()

    def _row(self, painter: QPainter, row: TubeRow, y: float) -> None:
        draw_line(painter, QRectF(px(24), y, px(176), px(18)), row.name, lettering(14, "bold"), colour=INK)
        draw_line(painter, QRectF(px(24), y + px(15), px(176), px(16)), row.left_words, lettering(12.5), colour=INK)
        bar = QRectF(px(206), y + px(6), px(190), px(14))
        painter.fillRect(bar, QColor("#a6a6a6"))
        painter.fillRect(QRectF(bar.left(), bar.top(), bar.width() * row.left, bar.height()), QColor(INK))
        painter.setPen(QPen(QColor(INK), 1))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawRect(bar)
        if row.needed > 0:
            x = bar.left() + bar.width() * row.needed
            painter.setPen(QPen(QColor(DAY.wrong if row.short else "#ffffff"), 3))
            painter.drawLine(round(x), round(bar.top() - 4), round(x), round(bar.bottom() + 4))
        right = QRectF(bar.right() + px(14), y + px(2), max(10.0, self.width() - bar.right() - px(310)), px(20))
        if row.words:
            draw_line(painter, right, row.words, lettering(13.5, "bold"), colour=INK)
            draw_line(painter, right.translated(0, px(15)), row.used_words, lettering(12.5), colour=INK)
        else:
            draw_line(painter, right, row.used_words, lettering(13), colour=INK)
