"""The chart of passes: one line per region, every pass as a bar in the order of painting."""

from PySide6.QtCore import QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QColor, QFontMetricsF, QMouseEvent, QPainter, QPaintEvent, QPen, QWheelEvent
from PySide6.QtWidgets import QWidget

from yarrow_lane.layers.regions import Region
from yarrow_lane.measure.lengths import hours_text
from yarrow_lane.ui.paint.overlays import paint_tick
from yarrow_lane.ui.rooms.layers.view import Bar
from yarrow_lane.ui.theme.lettering import lettering, px
from yarrow_lane.ui.theme.sheet import colours

_WET = QColor("#3f6b8c")


class PassesChart(QWidget):
    """Bars are as wide as their hours; dots after a bar show how long it stays wet. Click chooses a pass."""

    chosen = Signal(str)

    def __init__(self) -> None:
        super().__init__()
        self.setAccessibleName("The passes in their order")
        self._bars: tuple[Bar, ...] = ()
        self._regions: tuple[Region, ...] = ()
        self._tints: dict[int, tuple[int, int, int]] = {}
        self._chosen_id = ""
        self._slid = 0.0

    def show_bars(
        self, bars: tuple[Bar, ...], regions: tuple[Region, ...], chosen_id: str, tints: dict[int, tuple[int, int, int]]
    ) -> None:
        self._bars, self._regions, self._chosen_id, self._tints = bars, regions, chosen_id, tints
        self.update()

    # --- places

    def _label_w(self) -> float:
        return px(120)

    def _row_h(self) -> float:
        return max(px(22), min(px(48), (self.height() - px(40)) / max(1, len(self._regions))))

    def _per_minute(self) -> float:
        total = sum(b.minutes for b in self._bars) or 1.0
        return (self.width() - self._label_w() - px(70)) / total

    def _place(self, bar: Bar) -> QRectF:
        row = next(n for n, r in enumerate(self._regions) if r.id == bar.region_id)
        h, scale = self._row_h(), self._per_minute()
        top = px(34) + row * h - self._slid
        return QRectF(self._label_w() + bar.begin * scale, top + h * 0.14, max(3.0, bar.minutes * scale), h * 0.56)

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        c = colours()
        painter.fillRect(self.rect(), QColor(c.paper))
        if not self._bars:
            painter.setPen(QColor(c.soft))
            painter.setFont(lettering(15))
            words = "The passes appear here once regions are drawn."
            painter.drawText(self.rect(), Qt.AlignmentFlag.AlignCenter, words)
            painter.end()
            return
        self._paint_rows(painter)
        for bar in self._bars:
            self._paint_bar(painter, bar)
        painter.fillRect(QRectF(0, 0, self.width(), px(30)), QColor(c.paper))
        self._paint_hours(painter)
        painter.end()

    def _paint_rows(self, painter: QPainter) -> None:
        c, h = colours(), self._row_h()
        font = lettering(14, "bold")
        for n, region in enumerate(self._regions):
            top = px(34) + n * h - self._slid
            painter.setPen(QPen(QColor(c.rule), 1))
            painter.drawLine(QPointF(px(10), top + h * 0.78), QPointF(self.width() - px(8), top + h * 0.78))
            painter.setPen(QColor(c.text))
            painter.setFont(font)
            name = QFontMetricsF(font).elidedText(region.name, Qt.TextElideMode.ElideRight, self._label_w() - px(20))
            painter.drawText(QRectF(px(12), top, self._label_w(), h * 0.78), Qt.AlignmentFlag.AlignVCenter, name)

    def _paint_hours(self, painter: QPainter) -> None:
        c, scale = colours(), self._per_minute()
        total = sum(b.minutes for b in self._bars)
        step = next((s for s in (30, 60, 120, 240, 480, 960) if s * scale > px(52)), 1920)
        painter.setFont(lettering(12.5))
        at = 0.0
        while at <= total:
            x = self._label_w() + at * scale
            painter.setPen(QColor(c.soft))
            painter.drawText(QPointF(x + 3, px(20)), hours_text(at) if at else "start")
            painter.setPen(QPen(QColor(c.rule), 1))
            painter.drawLine(QPointF(x, px(8)), QPointF(x, px(30)))
            at += step

    def _paint_bar(self, painter: QPainter, bar: Bar) -> None:
        c, place = colours(), self._place(bar)
        tint = QColor(*self._tints.get(bar.region_id, (150, 150, 150)))
        painter.setBrush(tint)
        chosen = bar.pass_id == self._chosen_id
        painter.setPen(QPen(QColor(c.text), 2.6 if chosen else 1))
        painter.drawRect(place)
        if bar.done:
            paint_tick(painter, place.center())
        wet = min(bar.dry_minutes * self._per_minute(), self.width() - place.right() - px(4))
        painter.setPen(QPen(_WET, 3, Qt.PenStyle.DotLine))
        painter.drawLine(QPointF(place.right() + 3, place.bottom()), QPointF(place.right() + max(8.0, wet), place.bottom()))
        font = lettering(12)
        if self._row_h() >= px(34) and QFontMetricsF(font).horizontalAdvance(bar.name) < max(place.width(), px(30)) + px(8):
            painter.setPen(QColor(c.soft))
            painter.setFont(font)
            painter.drawText(QPointF(place.left(), place.bottom() + px(13)), bar.name)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        for bar in self._bars:
            if self._place(bar).adjusted(-3, -6, 3, 8).contains(event.position()):
                self.chosen.emit(bar.pass_id)
                return

    def wheelEvent(self, event: QWheelEvent) -> None:
        most = max(0.0, px(40) + len(self._regions) * self._row_h() - self.height())
        self._slid = min(max(0.0, self._slid - event.angleDelta().y() / 3), most)
        self.update()
