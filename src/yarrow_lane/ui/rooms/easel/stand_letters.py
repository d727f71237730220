"""Letters on the stand: sizes for a window of 1280 x 800 and as much larger as the window is."""

from dataclasses import dataclass

from PySide6.QtCore import QRectF, Qt
from PySide6.QtGui import QColor, QFont, QFontMetricsF, QPainter

from yarrow_lane.ui.theme.lettering import SANS, Weight, lettering

# A room of its own, dim whatever the theme: the paint is judged beside it. Words on it have 11 : 1 and 6 : 1.
DIM, BRIGHT, QUIET, HERE, RULE = "#2f2f2f", "#f2f2f2", "#b4b4b4", "#f3c64f", "#5a5a5a"
INK = "#141414"
_WIDE, _HIGH = 1280.0, 800.0
_SMALLER = 0.58  # words shrink to this share of their size before they are cut: our choice


@dataclass
class Letters:
    """The window's size in px."""

    width: float = _WIDE
    height: float = _HIGH

    @property
    def unit(self) -> float:
        """One px of a window of 1280 x 800 here."""
        return min(self.width / _WIDE, self.height / _HIGH)

    def font(self, size: float, weight: Weight = "normal", family: str = SANS) -> QFont:
        """A font of so many such px."""
        font = lettering(14, weight, family)
        font.setPixelSize(max(9, round(size * self.unit)))
        return font

    def say(
        self, painter: QPainter, box: QRectF, words: str, size: float, colour: str = BRIGHT, weight: Weight = "normal",
        flag: Qt.AlignmentFlag = Qt.AlignmentFlag.AlignLeft, family: str = SANS,
    ) -> None:  # fmt: skip
        """One line, smaller rather than cut."""
        font = self.font(size, weight, family)
        while QFontMetricsF(font).horizontalAdvance(words) > box.width() and font.pixelSize() > size * self.unit * _SMALLER:
            font.setPixelSize(font.pixelSize() - 1)
        painter.setFont(font)
        painter.setPen(QColor(colour))
        shown = QFontMetricsF(font).elidedText(words, Qt.TextElideMode.ElideRight, box.width())
        painter.drawText(box, flag | Qt.AlignmentFlag.AlignVCenter, shown)

    def wrapped(
        self, painter: QPainter, box: QRectF, lines: tuple[str, ...], colours: tuple[str, ...], size: float, least: float
    ) -> None:
        """Lines at one size, each wrapped, as large as all of them go into the box."""
        flags = Qt.TextFlag.TextWordWrap | Qt.AlignmentFlag.AlignLeft
        while True:
            metrics = QFontMetricsF(self.font(size))
            bounds = [metrics.boundingRect(QRectF(0, 0, box.width(), 9999), flags, line) for line in lines]
            fits = sum(b.height() for b in bounds) <= box.height() and all(b.width() <= box.width() for b in bounds)
            if fits or size <= least:
                break
            size -= 1
        painter.setFont(self.font(size))
        gap = max(0.0, min(14 * self.unit, (box.height() - sum(b.height() for b in bounds)) / max(1, len(lines))))
        y = box.top()
        for line, b, colour in zip(lines, bounds, colours, strict=True):
            painter.setPen(QColor(colour))
            painter.drawText(QRectF(box.left(), y, box.width(), b.height() + 2), flags, line)
            y += b.height() + gap
