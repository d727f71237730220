"""The light of the leads as dials: a clock for each, and whether they agree."""

from dataclasses import dataclass

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QWidget

from yarrow_lane.ui.theme.colours import INK, SURROUND
from yarrow_lane.ui.theme.lettering import lettering, px
from yarrow_lane.ui.theme.sheet import colours


@dataclass(frozen=True)
class Dial:
    """One lead: degrees clockwise from twelve or None, and words beneath."""

    name: str
    degrees: float | None
    sure: bool
    words: tuple[str, ...]


class LightDials(QWidget):
    """Drawn only; the numbers come from the photographs."""

    def __init__(self) -> None:
        super().__init__()
        self.setAccessibleName("Light of the leads")
        self._dials: tuple[Dial, ...] = ()
        self._verdict = ""

    def show_dials(self, dials: tuple[Dial, ...], verdict: str) -> None:
        self._dials, self._verdict = dials, verdict
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), QColor(SURROUND))
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(QColor(INK))
        painter.setFont(lettering(19, "bold"))
        painter.drawText(QRectF(px(20), px(14), self.width() - px(40), px(60)), Qt.TextFlag.TextWordWrap, self._verdict)
        count = max(1, len(self._dials))
        step = min(px(270), (self.width() - px(30)) / count)
        radius = min(px(92), step * 0.36)
        for n, dial in enumerate(self._dials):
            self._paint_dial(painter, dial, QPointF(px(20) + step * (n + 0.5), px(110) + radius), radius, step)
        painter.end()

    def _paint_dial(self, painter: QPainter, dial: Dial, centre: QPointF, radius: float, step: float) -> None:
        c = colours()
        painter.setPen(QPen(QColor("#2e2e2e"), 2))
        painter.setBrush(QColor(c.panel))
        painter.drawEllipse(centre, radius, radius)
        for hour in range(12):
            painter.save()
            painter.translate(centre)
            painter.rotate(hour * 30)
            painter.setPen(QPen(QColor(c.soft), 2 if hour % 3 == 0 else 1))
            painter.drawLine(QPointF(0, -radius + 3), QPointF(0, -radius + px(12 if hour % 3 == 0 else 8)))
            painter.restore()
        if dial.degrees is None:
            painter.setPen(QColor(c.soft))
            painter.setFont(lettering(44, "bold"))
            painter.drawText(
                QRectF(centre.x() - radius, centre.y() - radius, 2 * radius, 2 * radius), Qt.AlignmentFlag.AlignCenter, "?"
            )
        else:
            painter.save()
            painter.translate(centre)
            painter.rotate(dial.degrees)
            pen = QPen(QColor(c.text), 4, Qt.PenStyle.SolidLine if dial.sure else Qt.PenStyle.DashLine)
            painter.setPen(pen)
            painter.drawLine(QPointF(0, -radius + px(16)), QPointF(0, 0))
            painter.setPen(QPen(QColor(c.text), 4))
            painter.drawPolyline([QPointF(-px(8), -px(12)), QPointF(0, 0), QPointF(px(8), -px(12))])
            painter.restore()
        painter.setPen(QColor(INK))
        flags = Qt.AlignmentFlag.AlignHCenter | Qt.TextFlag.TextWordWrap
        box = QRectF(centre.x() - step / 2 + px(6), centre.y() + radius + px(10), step - px(12), px(22))
        painter.setFont(lettering(15, "bold"))
        painter.drawText(box, Qt.AlignmentFlag.AlignHCenter, dial.name)
        painter.setFont(lettering(15))
        painter.drawText(box.adjusted(0, px(21), 0, px(110)), flags, "\n".join(dial.words))
