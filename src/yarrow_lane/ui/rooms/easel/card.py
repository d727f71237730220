"""The easel card: words to be read from two metres."""

from PySide6.QtCore import QRectF, Qt
from PySide6.QtGui import QColor, QFont, QFontMetricsF, QPainter, QPaintEvent
from PySide6.QtWidgets import QWidget

from yarrow_lane.ui.rooms.easel.view import EaselView
from yarrow_lane.ui.theme.lettering import SERIF, lettering, px
from yarrow_lane.ui.theme.sheet import colours

_NARROW = 400  # a card narrower than this has the clock above the pass's name, not beside it: our choice
_CLOCK_SHARE = 0.42  # of the card's width the clock may take; the pass's name has the rest: our choice


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
        narrow = self.width() < px(_NARROW)
        if view.clock:
            font = self._fitted("0:00:00", lettering(72, "bold"), _CLOCK_SHARE * self.width())
            clock_w = QFontMetricsF(font).horizontalAdvance("0:00:00") + px(30)
            painter.setFont(font)
            painter.setPen(QColor(c.text if view.running else c.soft))
            # Beside the name; in a narrow card above it, where only the region's short name stands.
            top, height, foot = (px(12), px(50), px(124)) if narrow else (px(34), px(84), px(118))
            box = QRectF(self.width() - clock_w - right, top, clock_w, height)
            painter.drawText(box, Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter, view.clock)
            words = "painting · Space stops" if view.running else "Space starts the clock"
            painter.setFont(self._fitted(words, lettering(20), clock_w))
            painter.drawText(QRectF(box.left(), foot, clock_w, px(30)), Qt.AlignmentFlag.AlignRight, words)
        whole = self.width() - left - right
        room = whole - clock_w - px(10)
        self._line(painter, view.where, lettering(26, "medium"), c.soft, px(44), left, room)
        self._line(painter, view.title, lettering(52, "bold", SERIF), c.text, px(106), left, whole if narrow else room)
        mark = {"good": "✓ ", "wrong": "✕ "}.get(view.dry_mood, "") if view.dry else ""
        colour = {"good": c.holds, "wrong": c.wrong}.get(view.dry_mood, c.text)
        self._line(painter, mark + view.dry, lettering(28, "medium"), colour, px(184), left, whole)

    @staticmethod
    def _fitted(text: str, font: QFont, room: float) -> QFont:
        # Long words shrink before they are cut: the card must be read as a whole.
        while QFontMetricsF(font).horizontalAdvance(text) > room and font.pixelSize() > px(14):
            font.setPixelSize(font.pixelSize() - 2)
        return font

    @classmethod
    def _line(cls, painter: QPainter, text: str, font: QFont, colour: str, y: float, x: float, room: float) -> None:
        font = cls._fitted(text, font, room)
        painter.setFont(font)
        painter.setPen(QColor(colour))
        shown = QFontMetricsF(font).elidedText(text, Qt.TextElideMode.ElideRight, room)
        painter.drawText(QRectF(x, y - px(40), room, px(56)), Qt.AlignmentFlag.AlignVCenter, shown)
