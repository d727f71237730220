"""A finish as ten dabs, a chance in ten each: dot likely, ring safe, red past the flag."""

from datetime import date

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QPainter, QPen, QPolygonF

from yarrow_lane.calendar.dates import Dates
from yarrow_lane.measure.days import day_text
from yarrow_lane.ui.rooms.studio.day_scale import DayScale, stacked
from yarrow_lane.ui.theme.colours import DAY, INK
from yarrow_lane.ui.theme.lettering import lettering, px

_WHITE = "#ffffff"
LATE = DAY.wrong  # the surround is the same by day and by evening
_MOST_LEVELS = 3
_SAFE, _LIKELY = 8, 4  # the ninth of ten dabs is safe, the fifth likely


def paint_dabs(painter: QPainter, dates: Dates, promised: date | None, scale: DayScale, base: float, room: float) -> None:
    """Ten dabs over a line at `base`, at most `room` px high."""
    xs = [scale.middle(d) for d in dates.dabs]
    radius = px(4.6)
    placed = stacked(xs, 2 * radius, _MOST_LEVELS)
    top = max((level for _, level in placed), default=0) + 1
    step = min(2 * radius + 1, (room - radius) / max(1, top))
    painter.setPen(QPen(QColor(INK), 1.4))
    painter.drawLine(QPointF(min(xs) - px(10), base), QPointF(max(xs) + px(10), base))
    for n, ((x, level), day) in enumerate(zip(placed, dates.dabs, strict=True)):
        late = promised is not None and day > promised
        centre = QPointF(x, base - radius - 1 - level * step)
        paint_dab(painter, centre, radius, late)
        if n == _LIKELY:
            painter.setBrush(QColor(_WHITE if late else INK))
            painter.drawEllipse(centre, px(1.8), px(1.8))
        if n == _SAFE:
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.setPen(QPen(QColor(INK), 2.2))
            painter.drawEllipse(centre, radius + 1.6, radius + 1.6)


def paint_dab(painter: QPainter, centre: QPointF, radius: float, late: bool) -> None:
    """One of ten."""
    painter.setPen(QPen(QColor(INK), 1))
    painter.setBrush(QColor(LATE if late else _WHITE))
    painter.drawEllipse(centre, radius, radius)


def paint_dab_days(painter: QPainter, dates: Dates, scale: DayScale, base: float, right: float) -> None:
    """The likely day and, bold, the safe one beneath their dabs, moved apart where they would touch."""
    font, bold = lettering(12.5), lettering(12.5, "bold")
    room = px(76)
    at = [scale.middle(dates.likely), scale.middle(dates.safe)]
    if at[1] - at[0] < room:
        middle = sum(at) / 2
        at = [middle - room / 2, middle + room / 2]
    over = at[1] + room / 2 - right
    if over > 0:
        at = [x - over for x in at]
    same = dates.likely == dates.safe
    painter.setPen(QColor(INK))
    for x, day, face in ((at[0], dates.likely, font), (at[1], dates.safe, bold)):
        if same and face is font:
            continue
        painter.setFont(face)
        painter.drawText(QRectF(x - room / 2, base + px(1), room, px(16)), Qt.AlignmentFlag.AlignCenter, day_text(day))


def paint_flag(painter: QPainter, x: float, base: float, top: float, ghost: bool = False) -> None:
    """A promise."""
    painter.setPen(QPen(QColor(INK), 2, Qt.PenStyle.DashLine if ghost else Qt.PenStyle.SolidLine))
    painter.drawLine(QPointF(x, base), QPointF(x, top))
    painter.setPen(Qt.PenStyle.NoPen)
    painter.setBrush(QColor(INK))
    wide, high = px(16), px(10)
    points = [
        QPointF(x, top),
        QPointF(x + wide, top),
        QPointF(x + wide - px(4), top + high / 2),
        QPointF(x + wide, top + high),
        QPointF(x, top + high),
    ]
    painter.drawPolygon(QPolygonF(points))
