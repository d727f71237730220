"""What saves a promise, beneath the calendar: three remedies in the size that just reaches 9 in 10, and beside them the days to ask for."""

from collections.abc import Callable

from PySide6.QtCore import QPointF, QRectF
from PySide6.QtGui import QColor, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QPushButton, QWidget

from yarrow_lane.calendar.dates import DABS
from yarrow_lane.ui.paint.elided import draw_line
from yarrow_lane.ui.rooms.studio.calendar_view import RemedyCard
from yarrow_lane.ui.rooms.studio.dabs import paint_dab, paint_flag
from yarrow_lane.ui.theme.colours import INK, SURROUND
from yarrow_lane.ui.theme.lettering import lettering, px

_HIGH = 172


class RemedyStrip(QWidget):
    """Cards with a button each; hidden while every promise is safe."""

    def __init__(self, take: Callable[[int], None]) -> None:
        super().__init__()
        self._take = take
        self._cards: tuple[RemedyCard, ...] = ()
        self._heading = ""
        self._buttons: list[QPushButton] = []
        self.setFixedHeight(px(_HIGH))
        self.setAccessibleName("What saves the promise")
        self.hide()

    def show_cards(self, heading: str, cards: tuple[RemedyCard, ...]) -> None:
        changed = [(c.button, c.number) for c in cards] != [(c.button, c.number) for c in self._cards]
        self._heading, self._cards = heading, cards
        self.setVisible(bool(cards))
        self.setFixedHeight(px(_HIGH))
        if changed:
            for button in self._buttons:
                button.setParent(None)
                button.deleteLater()
            self._buttons = []
            for card in cards:
                button = QPushButton(card.button, self)
                button.clicked.connect(lambda _=False, n=card.number: self._take(n))
                button.show()
                self._buttons.append(button)
        for button, card in zip(self._buttons, cards, strict=True):
            button.setAccessibleName(f"{card.button}: {card.title}, {card.kept_words}")
            button.setAccessibleDescription("; ".join(card.lines))
        self._place()
        self.update()

    def _box(self, n: int) -> QRectF:
        wide = (self.width() - px(36)) / max(1, len(self._cards))
        return QRectF(px(18) + n * wide, px(34), wide - px(16), self.height() - px(40))

    def _place(self) -> None:
        for n, button in enumerate(self._buttons):
            box = self._box(n)
            button.adjustSize()
            wide = min(button.sizeHint().width(), int(box.width()))
            button.setGeometry(
                int(box.left()), int(box.bottom() - button.sizeHint().height() - px(2)), wide, button.sizeHint().height()
            )

    def resizeEvent(self, event: object) -> None:
        self._place()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.fillRect(self.rect(), QColor(SURROUND))
        painter.setPen(QPen(QColor(INK), 1))
        painter.drawLine(0, 0, self.width(), 0)
        draw_line(painter, QRectF(px(18), px(6), self.width() - px(36), px(24)), self._heading, lettering(15, "bold"))
        for n, card in enumerate(self._cards):
            self._paint_card(painter, card, self._box(n))
            if n:
                x = self._box(n).left() - px(9)
                painter.setPen(QPen(QColor(INK), 2 if card.number < 0 else 0.6))
                painter.drawLine(QPointF(x, px(36)), QPointF(x, self.height() - px(8)))
        painter.end()

    def _paint_card(self, painter: QPainter, card: RemedyCard, box: QRectF) -> None:
        painter.setPen(QColor(INK))
        draw_line(painter, QRectF(box.left(), box.top(), box.width(), px(20)), card.title, lettering(14, "bold"))
        for n, line in enumerate(card.lines[:2]):
            draw_line(painter, QRectF(box.left(), box.top() + px(20) + n * px(17), box.width(), px(17)), line, lettering(13))
        base = box.top() + px(84)
        step = min(px(11), (box.width() - px(70)) / (DABS + 1))
        x = box.left() + px(6)
        for n in range(DABS):
            late = n >= card.kept
            paint_dab(painter, QPointF(x + n * step + (px(12) if late else 0), base - px(6)), px(4.4), late)
        end = x + DABS * step + px(8)
        painter.setPen(QPen(QColor(INK), 1.2))
        painter.drawLine(QPointF(box.left(), base), QPointF(end, base))
        paint_flag(painter, x + card.kept * step, base, base - px(26))
        draw_line(painter, QRectF(end + px(6), base - px(16), px(62), px(18)), card.kept_words, lettering(13, "bold"))
