"""Words in one line, shortened where there is no room."""

from PySide6.QtCore import QRectF, Qt
from PySide6.QtGui import QColor, QFont, QFontMetricsF, QPainter


def draw_line(
    painter: QPainter, room: QRectF, words: str, font: QFont, side: Qt.AlignmentFlag = Qt.AlignmentFlag.AlignLeft, colour: str = ""
) -> None:  # fmt: skip
    """In that colour, else in the painter's pen."""
    if colour:
        painter.setPen(QColor(colour))
    painter.setFont(font)
    shown = QFontMetricsF(font).elidedText(words, Qt.TextElideMode.ElideRight, room.width())
    painter.drawText(room, side | Qt.AlignmentFlag.AlignVCenter, shown)
