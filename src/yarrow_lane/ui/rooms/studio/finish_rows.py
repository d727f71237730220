"""The finishes beneath the calendar's line: whose, how safe, ten dabs over the days, and the flag."""

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QPainter, QPen

from yarrow_lane.measure.days import day_text
from yarrow_lane.ui.paint.elided import draw_line
from yarrow_lane.ui.references import References
from yarrow_lane.ui.rooms.studio.calendar_view import FinishRow
from yarrow_lane.ui.rooms.studio.dabs import LATE, paint_dab_days, paint_dabs, paint_flag
from yarrow_lane.ui.rooms.studio.day_scale import DayScale
from yarrow_lane.ui.theme.colours import INK
from yarrow_lane.ui.theme.lettering import lettering, px
from yarrow_lane.ui.theme.sheet import colours

GUTTER = 152  # px before the line of days
_SOFT_INK = "#242424"


class FinishPainter:
    """Paints rows; the canvases come from the references."""

    def __init__(self, references: References) -> None:
        self._references = references

    def paint(self, painter: QPainter, row: FinishRow, scale: DayScale, place: QRectF, chosen: bool) -> None:
        """One row across the whole table."""
        y, high, width = place.top(), place.height(), place.width()
        painter.setPen(QPen(QColor(0, 0, 0, 70), 1))
        painter.drawLine(QPointF(0, y), QPointF(width, y))
        if chosen:
            painter.fillRect(QRectF(0, y + 1, width, high - 1), QColor(255, 255, 255, 26))
            painter.fillRect(QRectF(0, y + 1, px(4), high - 1), QColor(colours().here))
        self._paint_canvas(painter, row, QRectF(px(14), y + px(5), px(34), high - px(10)))
        left = px(56)
        draw_line(
            painter, QRectF(left, y + px(4), px(GUTTER) - left + px(10), px(20)), row.title, lettering(14, "bold"), colour=INK
        )
        draw_line(
            painter, QRectF(left, y + px(24), px(GUTTER) - left + px(10), px(18)), row.small, lettering(12.5), colour=_SOFT_INK
        )
        x = px(GUTTER) + px(20)
        busy = [scale.middle(d) for d in (row.dates.dabs if row.dates else ())] + [
            scale.middle(d) for d in (row.promised,) if d
        ]
        room = max(px(30), min([*busy, width]) - x - px(16)) if busy else width - x - px(20)
        if row.mood == "wrong":
            painter.fillRect(QRectF(x, y + px(6), px(18), px(18)), QColor(LATE))
            draw_line(
                painter,
                QRectF(x, y + px(6), px(18), px(18)),
                "!",
                lettering(14, "bold"),
                Qt.AlignmentFlag.AlignHCenter,
                colour="#ffffff",
            )
            x, room = x + px(24), room - px(24)
        draw_line(painter, QRectF(x, y + px(4), room, px(20)), row.words, lettering(14, "bold"), colour=INK)
        draw_line(painter, QRectF(x, y + px(24), room, px(18)), row.under, lettering(12.5), colour=_SOFT_INK)
        base = y + high - px(18)
        if row.dates is not None:
            paint_dabs(painter, row.dates, row.promised, scale, base, high - px(22))
            paint_dab_days(painter, row.dates, scale, base, width - px(6))
        elif row.finish is not None:
            draw_line(
                painter,
                QRectF(scale.middle(row.finish) - px(60), base, px(120), px(16)),
                f"about {day_text(row.finish)}",
                lettering(12.5),
                Qt.AlignmentFlag.AlignHCenter,
                colour=INK,
            )
        if row.promised is not None:
            paint_flag(painter, scale.middle(row.promised), base, y + px(4))
        if row.was_safe is not None and row.dates is not None and row.was_safe != row.dates.safe:
            self._paint_moved(painter, scale.middle(row.was_safe), scale.middle(row.dates.safe), y + px(6))

    def _paint_moved(self, painter: QPainter, old: float, new: float, y: float) -> None:
        """A white arrow from where the safe day stood the day before."""
        painter.setPen(QPen(QColor("#ffffff"), 1.6))
        painter.drawLine(QPointF(old, y), QPointF(new, y))
        way = 1 if new > old else -1
        painter.drawLine(QPointF(new, y), QPointF(new - way * px(5), y - px(3)))
        painter.drawLine(QPointF(new, y), QPointF(new - way * px(5), y + px(3)))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawEllipse(QPointF(old, y), px(2.5), px(2.5))

    def _paint_canvas(self, painter: QPainter, row: FinishRow, box: QRectF) -> None:
        c = row.compose
        if c is None or not c.sized:
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.setPen(QPen(QColor("#ffffff"), 1.4, Qt.PenStyle.DashLine))
            painter.drawRect(QRectF(box.left() + px(6), box.top(), px(22), box.height()))
            return
        k = min(box.width() / c.width_mm, box.height() / c.height_mm)
        wide, high = c.width_mm * k, c.height_mm * k
        place = QRectF(box.center().x() - wide / 2, box.center().y() - high / 2, wide, high)
        image = self._references.thumbnail(c) if c.framed else None
        if image is not None:
            painter.drawImage(place, image)
        else:
            painter.fillRect(place, QColor("#e4e0d6"))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.setPen(QPen(QColor(INK), 1))
        painter.drawRect(place)
