"""The papers at the foot of the table as small pages: written ones solid, unwritten ones dashed."""

from dataclasses import dataclass
from typing import Literal

from PySide6.QtCore import QRectF, Qt, Signal
from PySide6.QtGui import QColor, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QWidget

from yarrow_lane.ui.paint.elided import draw_line
from yarrow_lane.ui.theme.colours import DAY, INK
from yarrow_lane.ui.theme.lettering import lettering, px

_NARROW = 138  # px of room under which names stand beneath the pages
PaperKey = Literal["invoice", "care sheet", "certificate", "delivery note", "parcel label"]


@dataclass(frozen=True)
class PaperShown:
    """One paper: its name, a line about it, and whether it is written; `chosen` is the one on the table."""

    key: PaperKey
    name: str
    words: tuple[str, str]
    written: bool
    chosen: bool = False


class PapersStrip(QWidget):
    """Left and right walk, Space or a click shows one on the table."""

    wanted = Signal(str)

    def __init__(self) -> None:
        super().__init__()
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setFixedHeight(px(112))
        self._papers: tuple[PaperShown, ...] = ()
        self._at = 0

    def show_papers(self, papers: tuple[PaperShown, ...]) -> None:
        self._papers = papers
        self.setAccessibleName("Papers: " + "; ".join(f"{p.name}, {'written' if p.written else 'to write'}" for p in papers))
        self.update()

    def places(self) -> list[tuple[PaperShown, QRectF]]:
        """Each paper with its room."""
        room = (self.width() - px(16)) / max(1, len(self._papers))
        return [(p, QRectF(px(12) + n * room, px(8), room - px(6), px(96))) for n, p in enumerate(self._papers)]

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.fillRect(self.rect(), QColor("#9a9a9a"))
        for n, (paper, place) in enumerate(self.places()):
            self._paint(painter, paper, place, self.hasFocus() and n == self._at)
        painter.end()

    def _paint(self, painter: QPainter, paper: PaperShown, place: QRectF, focused: bool) -> None:
        narrow = place.width() < px(_NARROW)
        page = QRectF(place.left(), place.top() + px(2), px(40 if narrow else 62), px(56 if narrow else 88))
        if paper.chosen:
            painter.setPen(QPen(QColor(DAY.here), 3))
        elif paper.written:
            painter.setPen(QPen(QColor(INK), 1.2))
        else:
            painter.setPen(QPen(QColor("#ffffff"), 1.6, Qt.PenStyle.DashLine))
        painter.setBrush(QColor("#ffffff") if paper.written else Qt.BrushStyle.NoBrush)
        painter.drawRect(page)
        if paper.written:
            painter.fillRect(QRectF(page.left() + px(7), page.top() + px(8), px(18 if narrow else 26), px(4)), QColor(INK))
            for n in range(3 if narrow else 6):
                wide = (48, 40, 46, 34, 44, 28)[n] * (0.6 if narrow else 1.0)
                painter.fillRect(QRectF(page.left() + px(7), page.top() + px(22 + 9 * n), px(wide), px(2.4)), QColor("#8a8a8a"))
        state = "written" if paper.written else "to write"
        if narrow:
            beneath = QRectF(place.left(), page.bottom() + px(1), place.width(), px(17))
            draw_line(painter, beneath, paper.name, lettering(12.5, "bold"), colour=INK)
            draw_line(painter, beneath.translated(0, px(16)), state, lettering(12.5), colour=INK)
            return
        words = QRectF(page.right() + px(8), place.top(), place.right() - page.right() - px(10), px(18))
        draw_line(painter, words, paper.name, lettering(14, "bold"), colour=INK)
        for n, text in enumerate(paper.words):
            draw_line(painter, words.translated(0, px(18 + 16 * n)), text, lettering(12.5), colour=INK)
        draw_line(painter, words.translated(0, px(66)), state, lettering(13, "bold"), colour=INK)
        if focused:
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.setPen(QPen(QColor(INK), 1.4, Qt.PenStyle.DashLine))
            painter.drawRect(place)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self.setFocus()
        for n, (paper, place) in enumerate(self.places()):
            if place.contains(event.position()):
                self._at = n
                self.wanted.emit(paper.key)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() in (Qt.Key.Key_Left, Qt.Key.Key_Right) and self._papers:
            self._at = (self._at + (1 if event.key() == Qt.Key.Key_Right else -1)) % len(self._papers)
            self.update()
        elif event.key() == Qt.Key.Key_Space and self._papers:
            self.wanted.emit(self._papers[self._at].key)
        else:
            super().keyPressEvent(event)
