"""Words in one line, shortened where there is no room."""

from PySide6.QtCore import QRectF, Qt
from PySide6.QtGui import QFont, QFontMetricsF, QPainter


def draw_line(
    painter: QPainter, room: QRectF, words: str, font: QFont, side: Qt.AlignmentFlag = Qt.AlignmentFlag.AlignLeft
) -> None:
    """In the painter's pen."""
    painter.setFont(font)
    shown = QFontMetricsF(font).elidedText(words, Qt.TextElideMode.ElideRight, room.width())
    painter.drawText(room, side | Qt.AlignmentFlag.AlignVCenter, shown)
