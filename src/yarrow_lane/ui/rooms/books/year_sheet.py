"""The year sheet, painted: twelve months with their two lengths, and what each kind brought for an hour."""

from PySide6.QtCore import QRectF, Qt
from PySide6.QtGui import QColor, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QWidget

from yarrow_lane.ui.paint.elided import draw_line
from yarrow_lane.ui.rooms.books.year_view import KIND_HEAD, MONTH_HEAD, YearShown
from yarrow_lane.ui.theme.colours import DAY, INK, SURROUND
from yarrow_lane.ui.theme.lettering import lettering, px

_ROW, _LABEL, _COLUMN = 27, 110, 100


class YearSheet(QWidget):
    """Only looked at; the arrows of the page change the year."""

    def __init__(self) -> None:
        super().__init__()
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self._shown: YearShown | None = None

    def show_year(self, shown: YearShown) -> None:
        self._shown = shown
        total = shown.months[-1]
        self.setAccessibleName(f"The year {shown.year}: came in {total[1]}, went out {total[2]}")
        self.setMinimumHeight(px(96) + px(_ROW) * (len(shown.months) + len(shown.kinds) + 3))
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), QColor(SURROUND))
        if self._shown is not None:
            y = self._months(painter, self._shown)
            self._kinds(painter, self._shown, y)
        painter.end()

    def _line(self, painter: QPainter, y: float, words: tuple[str, ...], bold: bool) -> None:
        font = lettering(14, "bold" if bold else "normal")
        draw_line(painter, QRectF(px(24), y, px(_LABEL), px(_ROW)), words[0], lettering(14, "bold"), colour=INK)
        for n, text in enumerate(words[1:]):
            place = QRectF(px(24 + _LABEL) + n * px(_COLUMN), y, px(_COLUMN - 10), px(_ROW))
            draw_line(painter, place, text, font, Qt.AlignmentFlag.AlignRight, INK)

    def _rule(self, painter: QPainter, y: float, columns: int) -> None:
        painter.setPen(QPen(QColor(0, 0, 0, 120), 1))
        painter.drawLine(px(24), round(y), px(24 + _LABEL) + columns * px(_COLUMN), round(y))

    def _months(self, painter: QPainter, shown: YearShown) -> float:
        draw_line(painter, QRectF(px(24), px(10), px(600), px(24)), f"The year {shown.year}", lettering(15, "bold"), colour=INK)
        y = float(px(40))
        self._line(painter, y, MONTH_HEAD, False)
        y += px(_ROW)
        most = max((max(pair) for pair in shown.bars), default=0) or 1
        left = px(24 + _LABEL) + 4 * px(_COLUMN) + px(24)
        room = max(px(40), self.width() - left - px(24))
        for n, words in enumerate(shown.months):
            last = n == len(shown.months) - 1
            if last:
                self._rule(painter, y, len(MONTH_HEAD) - 1)
            if n + 1 == shown.now and not last:
                painter.fillRect(QRectF(0, y, px(4), px(_ROW)), QColor(DAY.here))
            self._line(painter, y, words, last)
            if not last:
                came, went = shown.bars[n]
                painter.fillRect(QRectF(left, y + px(5), room * came / most, px(9)), QColor(INK))
                painter.fillRect(QRectF(left, y + px(15), room * went / most, px(6)), QColor("#e4e4e4"))
            y += px(_ROW)
        draw_line(
            painter, QRectF(left, px(40), room, px(_ROW)), "black: came in · light: went out", lettering(12.5), colour=INK
        )
        return y + px(16)

    def _kinds(self, painter: QPainter, shown: YearShown, y: float) -> None:
        words = "By kind, over what is delivered" if shown.kinds else "By kind: nothing is delivered yet"
        draw_line(painter, QRectF(px(24), y, px(600), px(24)), words, lettering(15, "bold"), colour=INK)
        if not shown.kinds:
            return
        y += px(28)
        self._line(painter, y, KIND_HEAD, False)
        y += px(_ROW)
        for n, row in enumerate(shown.kinds):
            last = n == len(shown.kinds) - 1 and len(shown.kinds) > 1
            if last:
                self._rule(painter, y, len(KIND_HEAD) - 1)
            self._line(painter, y, row, last)
            y += px(_ROW)
