"""Grounds against each other: each with its share of the picture that is darker, too near to tell, and lighter."""

from PySide6.QtCore import QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QColor, QMouseEvent, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QWidget

from yarrow_lane.measure.shares import percents
from yarrow_lane.tone.grounds import ground_srgb
from yarrow_lane.tone.proposal import Judged
from yarrow_lane.ui.paint.elided import draw_line
from yarrow_lane.ui.theme.lettering import lettering, px
from yarrow_lane.ui.theme.sheet import colours

_SHOWN = 4


class GroundsPanel(QWidget):
    """A click looks at a ground."""

    chosen = Signal(str)

    def __init__(self) -> None:
        super().__init__()
        self.setAccessibleName("Grounds")
        self.setFixedSize(self.sizeHint())
        self._grounds: tuple[Judged, ...] = ()
        self._looked_at = ""

    def sizeHint(self) -> QSize:
        return QSize(px(318), px(186))

    def show_grounds(self, grounds: tuple[Judged, ...], looked_at: str) -> None:
        """The first is the proposed one; the one looked at is always among those shown."""
        first = list(grounds[:_SHOWN])
        if looked_at and looked_at not in [g.name for g in first]:
            first[-1:] = [g for g in grounds if g.name == looked_at]
        self._grounds, self._looked_at = tuple(first), looked_at
        self.update()

    def walk(self, step: int) -> None:
        """Look at the ground above or below."""
        names = [g.name for g in self._grounds]
        if names:
            at = names.index(self._looked_at) if self._looked_at in names else -1
            self.chosen.emit(names[(at + step) % len(names)])

    def _rows(self) -> list[tuple[QRectF, Judged]]:
        high = px(40)
        return [(QRectF(px(8), px(24) + n * high, self.width() - px(20), high - px(3)), g) for n, g in enumerate(self._grounds)]

    def paintEvent(self, event: QPaintEvent) -> None:
        painter, c = QPainter(self), colours()
        painter.fillRect(self.rect(), QColor(c.paper))
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(QColor(c.text))
        painter.setFont(lettering(14, "bold"))
        painter.drawText(QPointF(px(8), px(18)), "Grounds")
        painter.setFont(lettering(12))
        painter.setPen(QColor(c.soft))
        head = QRectF(px(8), px(4), self.width() - px(20), px(18))
        painter.drawText(head, Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter, "darker, near, lighter than it, %")
        for place, ground in self._rows():
            self._paint_row(painter, place, ground)
        painter.end()

    def _paint_row(self, painter: QPainter, place: QRectF, ground: Judged) -> None:
        c, colour = colours(), QColor(*ground_srgb(ground.name))
        patch = QRectF(place.left(), place.top(), px(34), place.height())
        painter.setPen(QPen(QColor(c.text), 3 if ground.name == self._looked_at else 1))
        painter.setBrush(colour)
        painter.drawRect(patch)
        left, room = patch.right() + px(9), place.right() - patch.right() - px(9)
        painter.setPen(QColor(c.text))
        first = ground is self._grounds[0]
        line = QRectF(left, place.top() - px(1), room, px(18))
        draw_line(painter, line, f"{ground.name}, proposed" if first else ground.name, lettering(13, "bold"))
        shares = (ground.darker, ground.near, ground.lighter)
        at = left
        for share, percent, brush in zip(shares, percents(shares), (QColor(c.text), colour, QColor("#ffffff")), strict=True):
            wide = room * share
            bar = QRectF(at, place.top() + px(19), wide, px(14))
            painter.setBrush(brush)
            painter.setPen(QPen(QColor(c.text), 1))
            painter.drawRect(bar)
            if wide >= px(24):
                painter.setPen(QColor("#ffffff") if brush.lightnessF() < 0.5 else QColor("#141414"))
                painter.setFont(lettering(12, "bold"))
                painter.drawText(bar, Qt.AlignmentFlag.AlignCenter, str(percent))
            at += wide

    def mousePressEvent(self, event: QMouseEvent) -> None:
        for place, ground in self._rows():
            if place.contains(event.position()):
                self.chosen.emit(ground.name)
