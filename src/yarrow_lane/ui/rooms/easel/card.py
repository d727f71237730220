"""The easel card: words to be read from two metres."""

from PySide6.QtCore import QRectF, Qt
from PySide6.QtGui import QColor, QFont, QFontMetricsF, QPainter, QPaintEvent
from PySide6.QtWidgets import QWidget

from yarrow_lane.ui.rooms.easel.view import EaselView
from yarrow_lane.ui.theme.lettering import SERIF, lettering, px
from yarrow_lane.ui.theme.sheet import colours


class CardWords(QWidget):
    """What to paint now, over what, and the clock."""

    def __init__(self) -> None:
        super().__init__()
        self.setFixedHeight(px(216))
        self._view: EaselView | None = None

    def show_view(self, view: EaselView) -> None:
        self._view = view
        self.setAccessibleName(f"{view.where}: {view.title}, {view.dry}")
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        c = colours()
        painter.fillRect(self.rect(), QColor(c.panel))
        view = self._view
        if view is not None:
            self._paint(painter, view)
        painter.end()

    def _paint(self, painter: QPainter, view: EaselView) -> None:
        c = colours()
        left, right = px(26), px(26)
        clock_w = 0.0
        if view.clock:
            font = lettering(72, "bold")
            painter.setFont(font)
            clock_w = QFontMetricsF(font).horizontalAdvance("0:00:00") + px(30)
            painter.setPen(QColor(c.text if view.running else c.soft))
            box = QRectF(self.width() - clock_w - right, px(34), clock_w, px(84))
            painter.drawText(box, Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter, view.clock)
            painter.setFont(lettering(20))
            words = "painting · Space stops" if view.running else "Space starts the clock"
            painter.drawText(
                QRectF(box.left() - px(80), box.bottom(), clock_w + px(80), px(30)), Qt.AlignmentFlag.AlignRight, words
            )
        room = self.width() - left - right - clock_w - px(10)
        self._line(painter, view.where, lettering(26, "medium"), c.soft, px(44), left, room)
        self._line(painter, view.title, lettering(52, "bold", SERIF), c.text, px(106), left, room)
        mark = {"good": "✓ ", "wrong": "✕ "}.get(view.dry_mood, "") if view.dry else ""
        colour = {"good": c.holds, "wrong": c.wrong}.get(view.dry_mood, c.text)
        self._line(painter, mark + view.dry, lettering(28, "medium"), colour, px(184), left, self.width() - left - right)

    @staticmethod
    def _line(painter: QPainter, text: str, font: QFont, colour: str, y: float, x: float, room: float) -> None:
        metrics = QFontMetricsF(font)
        # Long names shrink before they are cut: the card must be read as a whole.
        while metrics.horizontalAdvance(text) > room and font.pixelSize() > px(20):
            font.setPixelSize(font.pixelSize() - 2)
            metrics = QFontMetricsF(font)
        painter.setFont(font)
        painter.setPen(QColor(colour))
        shown = metrics.elidedText(text, Qt.TextElideMode.ElideRight, room)
        painter.drawText(QRectF(x, y - px(40), room, px(56)), Qt.AlignmentFlag.AlignVCenter, shown)
