"""A large patch of colour on the neutral surround, to hold paint against."""

from PySide6.QtCore import QRectF, Qt
from PySide6.QtGui import QColor, QPainter, QPaintEvent
from PySide6.QtWidgets import QWidget

from yarrow_lane.ui.theme.colours import INK, SURROUND
from yarrow_lane.ui.theme.lettering import lettering, px


class CompareView(QWidget):
    """The colour now shown, and what is asked."""

    def __init__(self) -> None:
        super().__init__()
        self.setAccessibleName("The patch to hold the paint to")
        self._srgb: tuple[int, int, int] = (140, 140, 140)
        self._words = ""

    def show_colour(self, srgb: tuple[int, int, int], words: str) -> None:
        """Show another colour."""
        self._srgb, self._words = srgb, words
        self.update()

    @property
    def srgb(self) -> tuple[int, int, int]:
        """What is shown."""
        return self._srgb

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), QColor(SURROUND))
        side = min(self.width() - px(80), self.height() - px(120))
        painter.fillRect(QRectF((self.width() - side) / 2, px(24), side, side), QColor(*self._srgb))
        painter.setPen(QColor(INK))
        painter.setFont(lettering(18, "bold"))
        room = QRectF(px(20), px(32) + side, self.width() - px(40), px(60))
        painter.drawText(room, Qt.AlignmentFlag.AlignCenter | Qt.TextFlag.TextWordWrap, self._words)
        painter.end()
