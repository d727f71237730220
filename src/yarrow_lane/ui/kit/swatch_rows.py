"""Rows of colours with their words on the neutral surround: a way to something step by step, or one thing in several lights."""

from dataclasses import dataclass

from PySide6.QtCore import QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QColor, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen, QWheelEvent
from PySide6.QtWidgets import QWidget

from yarrow_lane.ui.paint.elided import draw_line
from yarrow_lane.ui.theme.colours import INK, SURROUND
from yarrow_lane.ui.theme.lettering import lettering, px
from yarrow_lane.ui.theme.sheet import colours

Srgb = tuple[int, int, int]
_HIGH = 86  # px of a row at 100 % text


@dataclass(frozen=True)
class SwatchRow:
    """Colours, each with a word under it; a title and its small print beside them. `key` is told when the row is clicked, 0 for none.

    A `head` row is words alone.
    """

    title: str
    words: str = ""
    swatches: tuple[tuple[Srgb, str], ...] = ()
    key: int = 0
    head: bool = False
    warned: bool = False


class SwatchRows(QWidget):
    """The wheel slides them where there are more than fit."""

    chosen = Signal(int)

    def __init__(self, name: str) -> None:
        super().__init__()
        self.setAccessibleName(name)
        self.setMinimumSize(px(260), px(120))
        self.waiting = ""
        self._rows: tuple[SwatchRow, ...] = ()
        self._framed = 0
        self._slid = 0.0

    def show_rows(self, rows: tuple[SwatchRow, ...]) -> None:
        """Show these; the row framed by keys stays so where it is still there."""
        if len(rows) != len(self._rows):
            self._slid = 0.0
        self._rows = rows
        if self._framed not in {r.key for r in rows}:
            self._framed = 0
        self.update()

    @property
    def rows(self) -> tuple[SwatchRow, ...]:
        """What is shown."""
        return self._rows

    def walk(self, step: int) -> bool:
        """Frame the next row that can be clicked; whether there is one."""
        keys = [r.key for r in self._rows if r.key]
        if not keys:
            return False
        self._framed = (
            keys[(keys.index(self._framed) + step) % len(keys)] if self._framed in keys else keys[0 if step > 0 else -1]
        )
        place = next(p for p, r in self._places() if r.key == self._framed)
        self._slid = max(0.0, self._slid + min(0.0, place.top()) + max(0.0, place.bottom() - self.height()))
        self.update()
        return True

    def take_framed(self) -> bool:
        """What a click on the framed row does."""
        if not self._framed:
            return False
        self.chosen.emit(self._framed)
        return True

    def take_key(self, event: QKeyEvent) -> bool:
        """Up and down walk, t takes; whether the key was used."""
        step = {Qt.Key.Key_Up: -1, Qt.Key.Key_Down: 1}.get(Qt.Key(event.key()))
        if step is not None:
            return self.walk(step)
        return event.text().lower() == "t" and self.take_framed()

    def _places(self) -> list[tuple[QRectF, SwatchRow]]:
        found, top = [], px(14) - self._slid
        for row in self._rows:
            high = px(36) if row.head else px(_HIGH)
            found.append((QRectF(px(18), top, self.width() - px(36), high), row))
            top += high
        return found

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), QColor(SURROUND))
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(QColor(INK))
        if not self._rows:
            painter.setFont(lettering(16))
            room = self.rect().adjusted(px(30), px(20), -px(30), -px(20))
            painter.drawText(room, Qt.AlignmentFlag.AlignCenter | Qt.TextFlag.TextWordWrap, self.waiting)
        widest = max((len(r.swatches) for r in self._rows), default=0)
        for place, row in self._places():
            if place.bottom() > 0 and place.top() < self.height():
                self._paint_row(painter, place, row, widest)
        painter.end()

    def _paint_row(self, painter: QPainter, place: QRectF, row: SwatchRow, widest: int) -> None:
        painter.setPen(QColor(INK))
        if row.head:
            draw_line(painter, place.adjusted(0, px(8), 0, 0), row.title, lettering(16, "bold"))
            return
        # Colours take at most two thirds, and all rows the same.
        each = min(px(122), 0.66 * place.width() / max(1, widest))
        if row.key and row.key == self._framed:
            painter.setPen(QPen(QColor(colours().here), 3))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRect(place.adjusted(-px(6), 0, px(6), -px(2)))
        for n, (srgb, word) in enumerate(row.swatches):
            box = QRectF(place.left() + n * each, place.top() + px(5), each - px(6), px(_HIGH - 28))
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(QColor(*srgb))
            painter.drawRect(box)
            painter.setPen(QColor(INK))
            under = QRectF(box.left(), box.bottom(), each - px(3), px(20))
            draw_line(painter, under, word, lettering(12))
        left = place.left() + widest * each + px(10)
        room = place.right() - left
        if room > px(30):
            painter.setPen(QColor(INK))
            draw_line(painter, QRectF(left, place.top() + px(4), room, px(22)), row.title, lettering(15, "bold"))
            painter.setFont(lettering(13))
            words = QRectF(left, place.top() + px(26), room, place.height() - px(28))
            painter.drawText(
                words, Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignTop | Qt.TextFlag.TextWordWrap, row.words
            )
        if row.warned:
            painter.setPen(QPen(QColor("#5a1a08"), 2))
            painter.drawLine(
                QPointF(place.left() - px(8), place.top() + px(5)), QPointF(place.left() - px(8), place.top() + px(_HIGH - 23))
            )

    def mousePressEvent(self, event: QMouseEvent) -> None:
        for place, row in self._places():
            if row.key and place.contains(event.position()):
                self.chosen.emit(row.key)

    def wheelEvent(self, event: QWheelEvent) -> None:
        places = self._places()
        whole = places[-1][0].bottom() + self._slid + px(14) if places else 0.0
        self._slid = min(max(0.0, self._slid - event.angleDelta().y() / 2), max(0.0, whole - self.height()))
        self.update()
