"""The steps of the way out, painted down the page."""

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QFontMetricsF, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QWidget

from yarrow_lane.ui.rooms.deliver.view import StepShown
from yarrow_lane.ui.theme.lettering import SERIF, lettering, px
from yarrow_lane.ui.theme.sheet import colours


class StepsView(QWidget):
    """The steps down the page with their dates; the present one is lit."""

    def __init__(self) -> None:
        super().__init__()
        self.setMinimumWidth(px(290))
        self._steps: tuple[StepShown, ...] = ()

    def show_steps(self, steps: tuple[StepShown, ...]) -> None:
        self._steps = steps
        self.setAccessibleName("; ".join(f"{s.name}: {s.state} {s.date}" for s in steps))
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        c = colours()
        painter = QPainter(self)
        painter.fillRect(self.rect(), QColor(c.paper))
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        height = min(px(112), (self.height() - px(24)) / max(1, len(self._steps)))
        for n, step in enumerate(self._steps):
            self._paint_step(painter, QRectF(px(24), px(12) + n * height, self.width() - px(44), height), step, n)
        painter.end()

    def _paint_step(self, painter: QPainter, row: QRectF, step: StepShown, n: int) -> None:
        c = colours()
        dot = QPointF(row.left() + px(14), row.top() + px(26))
        if n + 1 < len(self._steps):
            painter.setPen(QPen(QColor(c.soft), 2, Qt.PenStyle.SolidLine if step.state == "done" else Qt.PenStyle.DotLine))
            painter.drawLine(dot + QPointF(0, px(14)), dot + QPointF(0, row.height() - px(14)))
        fill = {"done": QColor(c.soft), "now": QColor(c.here), "ahead": QColor(c.paper)}[step.state]
        painter.setBrush(fill)
        painter.setPen(QPen(QColor(c.here_edge if step.state == "now" else c.soft), 2))
        painter.drawEllipse(dot, px(11), px(11))
        if step.state == "done":
            painter.setPen(QPen(QColor(c.paper), 2.4))
            painter.drawPolyline([dot + QPointF(-5, 0), dot + QPointF(-1, 4), dot + QPointF(5, -4)])
        x = row.left() + px(44)
        strong = step.state != "ahead"
        font = lettering(21, "bold", SERIF)
        painter.setFont(font)
        painter.setPen(QColor(c.text if strong else c.soft))
        painter.drawText(QPointF(x, row.top() + px(33)), step.name)
        name_w = QFontMetricsF(font).horizontalAdvance(step.name)
        dates = lettering(17, "bold")
        painter.setFont(dates)
        date_x = x + name_w + px(14)
        beside = date_x + QFontMetricsF(dates).horizontalAdvance(step.date) <= row.right()
        if beside:
            painter.drawText(QPointF(date_x, row.top() + px(33)), step.date)
        painter.setFont(lettering(15.5))
        painter.setPen(QColor(c.soft))
        room = QRectF(x, row.top() + px(40), row.right() - x, row.height() - px(40))
        detail = step.detail if beside else f"{step.date}: {step.detail}"
        painter.drawText(room, Qt.AlignmentFlag.AlignLeft | Qt.TextFlag.TextWordWrap, detail)
