"""Clients: their names at the left, the chosen one's page beside them."""

from dataclasses import dataclass

from PySide6.QtCore import QRectF, Qt, Signal
from PySide6.QtGui import QColor, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen, QWheelEvent
from PySide6.QtWidgets import QWidget

from yarrow_lane.ui.paint.elided import draw_line
from yarrow_lane.ui.theme.colours import DAY, INK, SURROUND
from yarrow_lane.ui.theme.lettering import SERIF, lettering, px

_LIST, _ROW = 230, 46


@dataclass(frozen=True)
class ClientRow:
    """One client in the list."""

    key: str
    name: str
    words: str


@dataclass(frozen=True)
class ClientsShown:
    """The list, and the chosen one's page as (heading, rows of two)."""

    rows: tuple[ClientRow, ...]
    chosen: str
    name: str
    under: str
    sections: tuple[tuple[str, tuple[tuple[str, str], ...]], ...]


class ClientsSheet(QWidget):
    """Up and down walk the names, a click chooses one."""

    chosen = Signal(str)

    def __init__(self) -> None:
        super().__init__()
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self._shown: ClientsShown | None = None
        self._first = 0
        self._down = 0  # lines the page is scrolled by

    def show_clients(self, shown: ClientsShown) -> None:
        if self._shown is None or shown.chosen != self._shown.chosen:
            self._down = 0
        self._shown = shown
        self.setAccessibleName(f"Clients: {shown.name}" if shown.rows else "Clients: none yet")
        self.update()

    def _walk(self, by: int) -> None:
        shown = self._shown
        if shown is None or not shown.rows:
            return
        at = next((n for n, r in enumerate(shown.rows) if r.key == shown.chosen), 0)
        at = min(max(0, at + by), len(shown.rows) - 1)
        room = max(1, (self.height() - px(44)) // px(_ROW))
        self._first = min(max(self._first, at - room + 1), at)
        self.chosen.emit(shown.rows[at].key)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        steps = {Qt.Key.Key_Down: 1, Qt.Key.Key_Up: -1}
        if event.key() in steps:
            self._walk(steps[Qt.Key(event.key())])
        else:
            super().keyPressEvent(event)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self.setFocus()
        shown, n = self._shown, int((event.position().y() - px(44)) // px(_ROW)) + self._first
        if shown is not None and event.position().x() < px(_LIST) and 0 <= n < len(shown.rows):
            self.chosen.emit(shown.rows[n].key)

    def wheelEvent(self, event: QWheelEvent) -> None:
        by = -1 if event.angleDelta().y() > 0 else 1
        if event.position().x() < px(_LIST):
            self._first = min(max(0, self._first + by), max(0, len(self._shown.rows) - 1 if self._shown else 0))
        else:
            lines = sum(len(rows) + 2 for _, rows in self._shown.sections) if self._shown else 0
            self._down = min(max(0, self._down + by), max(0, lines - 8))
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), QColor(SURROUND))
        shown = self._shown
        if shown is not None:
            self._list(painter, shown)
            if shown.rows:
                self._page(painter, shown)
        painter.end()

    def _list(self, painter: QPainter, shown: ClientsShown) -> None:
        head = f"Clients, {len(shown.rows)}" if shown.rows else "No commission names a client yet"
        draw_line(painter, QRectF(px(18), px(10), px(_LIST + 300), px(24)), head, lettering(15, "bold"), colour=INK)
        for n, row in enumerate(shown.rows[self._first :]):
            place = QRectF(0, px(44) + n * px(_ROW), px(_LIST), px(_ROW))
            if place.top() > self.height():
                break
            if row.key == shown.chosen:
                painter.fillRect(place, QColor(255, 255, 255, 60))
                painter.fillRect(QRectF(0, place.top(), px(4), place.height()), QColor(DAY.here))
            draw_line(painter, place.adjusted(px(18), px(5), -px(8), -px(20)), row.name, lettering(14, "bold"), colour=INK)
            draw_line(painter, place.adjusted(px(18), px(23), -px(8), -px(3)), row.words, lettering(12.5), colour=INK)

    def _page(self, painter: QPainter, shown: ClientsShown) -> None:
        sheet = QRectF(px(_LIST + 14), px(14), self.width() - px(_LIST + 32), self.height() - px(28))
        painter.fillRect(sheet, QColor("#f7f7f5"))
        painter.setPen(QPen(QColor(INK), 1))
        painter.drawRect(sheet)
        painter.setClipRect(sheet)
        x, wide = sheet.left() + px(24), sheet.width() - px(48)
        draw_line(
            painter, QRectF(x, sheet.top() + px(14), wide, px(32)), shown.name, lettering(23, "bold", SERIF), colour="#1c1c1c"
        )
        draw_line(painter, QRectF(x, sheet.top() + px(46), wide, px(20)), shown.under, lettering(13.5), colour="#4a4a4a")
        y, skip = sheet.top() + px(78), self._down
        for heading, rows in shown.sections:
            if skip > 0:
                skip -= 1
            else:
                draw_line(painter, QRectF(x, y, wide, px(22)), heading, lettering(14.5, "bold"), colour="#1c1c1c")
                y += px(24)
            for left, right in rows:
                if skip > 0:
                    skip -= 1
                    continue
                if y > sheet.bottom() - px(20):
                    break
                draw_line(painter, QRectF(x, y, px(150), px(19)), left, lettering(13.5), colour="#4a4a4a")
                draw_line(painter, QRectF(x + px(156), y, wide - px(156), px(19)), right, lettering(13.5), colour="#1c1c1c")
                y += px(20)
            y += px(10)
        painter.setClipping(False)
