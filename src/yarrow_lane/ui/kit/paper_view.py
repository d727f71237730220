"""A paper on the table, page by page, as it will be printed."""

from PySide6.QtCore import QRectF, Qt
from PySide6.QtGui import QColor, QImage, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QWidget

from yarrow_lane.documents.seen import pages_of
from yarrow_lane.ui.kit.levels import qimage
from yarrow_lane.ui.paint.elided import draw_line
from yarrow_lane.ui.theme.colours import INK, SURROUND
from yarrow_lane.ui.theme.lettering import lettering, px

_PX_MM = 5.0  # a sheet 1485 px high: sharp on a full screen


class PaperView(QWidget):
    """Page up and Page down turn the pages; a click on the right or left half does too."""

    def __init__(self) -> None:
        super().__init__()
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self._pdfs: tuple[bytes, ...] = ()
        self._drawn: tuple[tuple[QImage, ...], ...] = ()
        self._pages: tuple[QImage, ...] = ()
        self._at = 0
        self._words = ""

    def show_paper(self, pdfs: tuple[bytes, ...], words: str) -> None:
        """Papers one after the other; `words` say what they are. The pages are drawn when the bytes are other ones."""
        if pdfs != self._pdfs:
            known = dict(zip(self._pdfs, self._drawn, strict=True))
            self._drawn = tuple(known.get(pdf) or tuple(qimage(page) for page in pages_of(pdf, _PX_MM)) for pdf in pdfs)
            self._pdfs, self._pages = pdfs, tuple(page for pages in self._drawn for page in pages)
            self._at = min(self._at, len(self._pages) - 1) if len(pdfs) > 1 else 0
        self._words = words
        self.setAccessibleName(f"{words}, page {self._at + 1} of {len(self._pages)}")
        self.update()

    @property
    def pages(self) -> int:
        """How many sheets it has."""
        return len(self._pages)

    def turn(self, by: int) -> bool:
        """Another page; whether there is one."""
        at = min(max(0, self._at + by), max(0, len(self._pages) - 1))
        turned = at != self._at
        self._at = at
        self.update()
        return turned

    def keyPressEvent(self, event: QKeyEvent) -> None:
        steps = {Qt.Key.Key_PageDown: 1, Qt.Key.Key_PageUp: -1}
        if event.key() not in steps or not self.turn(steps[Qt.Key(event.key())]):
            super().keyPressEvent(event)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self.setFocus()
        self.turn(1 if event.position().x() > self.width() / 2 else -1)

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), QColor(SURROUND))
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        if self._pages:
            page = self._pages[self._at]
            room = QRectF(self.rect()).adjusted(px(24), px(40), -px(24), -px(18))
            scale = min(room.width() / page.width(), room.height() / page.height())
            size = page.size().toSizeF() * scale
            place = QRectF(room.center().x() - size.width() / 2, room.top(), size.width(), size.height())
            painter.drawImage(place, page)
            painter.setPen(QPen(QColor(INK), 1))
            painter.drawRect(place)
            many = f", page {self._at + 1} of {len(self._pages)} (Page up, Page down)" if len(self._pages) > 1 else ""
            draw_line(
                painter,
                QRectF(px(24), px(10), self.width() - px(48), px(24)),
                self._words + many,
                lettering(14, "bold"),
                colour=INK,
            )
        painter.end()
