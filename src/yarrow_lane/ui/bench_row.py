"""A line of a numbered list on the bench: chosen by a click, and shown to be."""

from PySide6.QtCore import QPointF, QRectF, QSize, Qt
from PySide6.QtGui import QColor, QFont, QFontMetricsF, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QPushButton, QSizePolicy

from yarrow_lane.ui.bench_editors import Hand
from yarrow_lane.ui.bench_sheet import Row
from yarrow_lane.ui.bench_words import WIDTH_PX
from yarrow_lane.ui.kit.plain import tip
from yarrow_lane.ui.paint.elided import draw_line
from yarrow_lane.ui.theme.lettering import lettering, px
from yarrow_lane.ui.theme.sheet import colours

_HIGH, _LINE = 50, 18
_BADGE = 11


class RowLine(QPushButton):
    """The number in a ring (none without a number), title over small print, a colour over its word."""

    def __init__(self, line: Row, hand: Hand) -> None:
        super().__init__()
        self.setProperty("role", "row")
        self.setFlat(True)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.setFixedHeight(px(_HIGH))
        self.line, self._hand = line, hand
        self.clicked.connect(self._told)
        self.show_line(line)

    def _told(self) -> None:
        line = self.line
        self._hand(lambda: line.do())

    def show_line(self, line: Row) -> None:
        self.line = line
        self._lines = self._title_lines()
        self.setFixedHeight(px(_HIGH + _LINE * (len(self._lines) - 1)))
        meant = ", counts no more" if line.aside else ""
        self.setAccessibleName(f"{line.number}, {line.title}{meant}" if line.number else line.title)
        self.setAccessibleDescription(f"{line.detail}. {line.side}")
        self.setToolTip(tip(f"{line.title}: {line.detail}"))
        self.update()

    def _title_lines(self) -> list[str]:
        """The title on one line, or broken over two where the bench is too narrow for it."""
        words, metrics = self.line.title.split(" "), QFontMetricsF(lettering(14, "bold"))
        first = len(words)
        while first > 1 and metrics.horizontalAdvance(" ".join(words[:first])) > self._room():
            first -= 1
        rest = " ".join(words[first:])
        return [" ".join(words[:first]), rest] if rest else [self.line.title]

    def _beside(self) -> float:
        line = self.line
        words = QFontMetricsF(self._side_font()).horizontalAdvance(line.side) if line.side else 0.0
        return max(float(px(26)) if line.srgb is not None else 0.0, words)

    def _indent(self) -> int:
        return 38 if self.line.number else 10

    def _side_font(self) -> QFont:
        """Beside a line without a number stands what it comes to."""
        return lettering(12.5) if self.line.number else lettering(14.5, "bold")

    def _room(self) -> float:
        """Px for title and small print, by the bench's own width."""
        return px(WIDTH_PX) - px(50) - px(self._indent()) - self._beside() - px(12)

    def sizeHint(self) -> QSize:
        return QSize(px(200), self.height())

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        line, c = self.line, colours()
        if line.chosen:
            painter.fillRect(self.rect(), QColor(c.field))
            painter.fillRect(QRectF(0, 0, px(4), self.height()), QColor(c.here))
        soft = QColor(c.soft if line.aside else c.text)
        if line.number:
            self._badge(painter, QPointF(px(20), self.height() / 2))
        small, bold, beside = self._side_font(), lettering(14, "bold"), self._beside()
        left, right = px(self._indent()), self.width() - px(4)
        room, top = right - left - beside - px(6), px(5)
        for words in self._lines:
            draw_line(painter, QRectF(left, top, room, px(20)), words, bold, colour=soft.name())
            top += px(_LINE)
        draw_line(painter, QRectF(left, top + px(2), room, px(20)), line.detail, lettering(13), colour=soft.name())
        if line.side:
            low = line.srgb is not None
            box = QRectF(right - beside, px(26) if low else px(14), beside, px(20))
            draw_line(painter, box, line.side, small, Qt.AlignmentFlag.AlignRight, c.soft if line.number else c.text)
        if line.srgb is not None:
            painter.setPen(QPen(QColor(c.text), 0.8))
            painter.setBrush(QColor(*line.srgb))
            painter.drawEllipse(QPointF(right - px(11), px(16)), px(9), px(9))
        if self.hasFocus():
            painter.setPen(QPen(QColor(c.text), 1.4))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRect(QRectF(self.rect()).adjusted(1, 1, -1, -1))
        painter.end()

    def _badge(self, painter: QPainter, centre: QPointF) -> None:
        line, c = self.line, colours()
        pen = QPen(QColor(c.soft if line.aside else c.text), 1.6)
        if line.aside:
            pen.setStyle(Qt.PenStyle.DashLine)
        painter.setPen(pen)
        painter.setBrush(QColor(c.here) if line.chosen else QColor(c.field))
        painter.drawEllipse(centre, px(_BADGE), px(_BADGE))
        ink = c.on_here if line.chosen else c.soft if line.aside else c.text
        box = QRectF(centre.x() - px(_BADGE), centre.y() - px(_BADGE), px(2 * _BADGE), px(2 * _BADGE))
        draw_line(painter, box, line.number, lettering(12.5, "bold"), Qt.AlignmentFlag.AlignHCenter, ink)
