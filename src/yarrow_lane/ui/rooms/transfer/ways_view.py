"""The ways side by side: what each takes as a bar, how far it reaches, and which is advised."""

from collections.abc import Callable
from dataclasses import dataclass

from PySide6.QtCore import QPointF, QRectF, QSize, Qt
from PySide6.QtGui import QColor, QFontMetricsF, QMouseEvent, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QWidget

from yarrow_lane.measure.lengths import hours_text
from yarrow_lane.transfer.offers import Offer
from yarrow_lane.transfer.ways import Way
from yarrow_lane.ui.theme.lettering import SERIF, lettering, px
from yarrow_lane.ui.theme.sheet import colours

_ROW, _HEAD, _NAME = 84, 40, 176


@dataclass(frozen=True)
class Row:
    """One way: what it offers, whether it is advised, and for what it is taken ("the outline"); empty when for nothing."""

    offer: Offer
    advised: bool
    taken_for: str


class WaysView(QWidget):
    """Click a way to take it; `took(way)` is told."""

    def __init__(self, took: Callable[[Way], None]) -> None:
        super().__init__()
        self._took = took
        self.setAccessibleName("The ways to carry the drawing over, and what each takes")
        self.setMouseTracking(True)
        self.rows: tuple[Row, ...] = ()
        self.heading = ""
        self._over = -1

    def show_rows(self, heading: str, rows: tuple[Row, ...]) -> None:
        """The ways in the order given."""
        self.heading, self.rows = heading, rows
        self.update()

    def sizeHint(self) -> QSize:
        return QSize(px(600), px(_HEAD + 6 * 60))

    def row_rect(self, number: int) -> QRectF:
        """Where a row is painted."""
        high = min(px(_ROW), (self.height() - px(_HEAD)) / max(1, len(self.rows)))
        return QRectF(px(14), px(_HEAD) + number * high, self.width() - px(28), high - px(6))

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        c = colours()
        painter.fillRect(self.rect(), QColor(c.paper))
        painter.setPen(QColor(c.soft))
        font = lettering(13.5)
        painter.setFont(font)
        heading = QFontMetricsF(font).elidedText(self.heading, Qt.TextElideMode.ElideRight, self.width() - px(40))
        painter.drawText(QRectF(px(26), 0, self.width() - px(40), px(_HEAD)), Qt.AlignmentFlag.AlignVCenter, heading)
        most = max((row.offer.minutes for row in self.rows), default=1.0)
        for number, row in enumerate(self.rows):
            self._paint_row(painter, self.row_rect(number), row, most, number == self._over)
        painter.end()

    def _paint_row(self, painter: QPainter, place: QRectF, row: Row, most: float, over: bool) -> None:
        c, offer = colours(), row.offer
        painter.setPen(QPen(QColor(c.here_edge if row.taken_for else c.rule), 2 if row.taken_for else 1))
        painter.setBrush(QColor(c.panel if over or row.taken_for else c.paper))
        painter.drawRect(place)
        if row.taken_for:
            painter.fillRect(QRectF(place.left(), place.top(), px(5), place.height()), QColor(c.here))
        tall = place.height() >= px(58)
        line = place.height() / (2 if tall else 1)
        left, name_wide = place.left() + px(14), px(_NAME)
        painter.setPen(QColor(c.text))
        painter.setFont(lettering(17, "bold", SERIF))
        painter.drawText(QRectF(left, place.top(), name_wide, line), Qt.AlignmentFlag.AlignVCenter, offer.way)
        if not tall and row.advised:  # no room for the word: a dot, and the bench says it
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(QColor(c.here_edge))
            painter.drawEllipse(QPointF(left - px(7), place.center().y()), px(3), px(3))
        if tall:
            words = f"taken for {row.taken_for}" if row.taken_for else "advised" if row.advised else ""
            painter.setPen(QColor(c.holds if row.taken_for else c.here_edge))
            painter.setFont(lettering(12.5, "bold"))
            painter.drawText(QRectF(left, place.top() + line - px(4), name_wide, line), Qt.AlignmentFlag.AlignVCenter, words)
        self._paint_time(
            painter, QRectF(left + name_wide, place.top(), place.right() - left - name_wide - px(12), line), offer, most
        )
        if tall:
            below = QRectF(left + name_wide, place.top() + line - px(4), place.right() - left - name_wide - px(12), line)
            self._paint_words(painter, below, offer)

    def _paint_time(self, painter: QPainter, place: QRectF, offer: Offer, most: float) -> None:
        """Making ready light, drawing dark; the time at the right."""
        c = colours()
        room = place.width() - px(92)
        scale = room / most if most > 0 else 0.0
        bar = QRectF(place.left(), place.center().y() - px(7), offer.ready * scale, px(14))
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(QColor(c.rule))
        painter.drawRect(bar)
        painter.setBrush(QColor(c.soft))
        painter.drawRect(QRectF(bar.right(), bar.top(), offer.draw * scale, bar.height()))
        painter.setPen(QColor(c.text))
        painter.setFont(lettering(14.5, "bold"))
        words = hours_text(offer.minutes) if offer.own else f"≈\u202f{hours_text(offer.minutes)}"
        painter.drawText(
            QRectF(place.right() - px(88), place.top(), px(88), place.height()),
            Qt.AlignmentFlag.AlignVCenter | Qt.AlignmentFlag.AlignRight, words,
        )  # fmt: skip

    def _paint_words(self, painter: QPainter, place: QRectF, offer: Offer) -> None:
        c = colours()
        font = lettering(13)
        painter.setFont(font)
        painter.setPen(QColor(c.wrong if offer.why_not else c.soft))
        words = (
            f"not advised: {offer.why_not}"
            if offer.why_not
            else f"{offer.reach} · true to about {offer.off_mm:.1f}\u202fmm · leaves {offer.leaves}"
        )
        cut = QFontMetricsF(font).elidedText(words, Qt.TextElideMode.ElideRight, place.width())
        painter.drawText(place, Qt.AlignmentFlag.AlignVCenter, cut)

    def _row_at(self, at: QPointF) -> int:
        return next((n for n in range(len(self.rows)) if self.row_rect(n).contains(at)), -1)

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        over = self._row_at(event.position())
        if over != self._over:
            self._over = over
            row = self.rows[over] if over >= 0 else None
            self.setToolTip(f"{row.offer.reach}. Leaves {row.offer.leaves}." if row is not None else "")
            self.update()

    def mousePressEvent(self, event: QMouseEvent) -> None:
        number = self._row_at(event.position())
        if number >= 0 and event.button() == Qt.MouseButton.LeftButton:
            self._took(self.rows[number].offer.way)
