"""The calendar's table: the painter's hands on one tapering line, what dries beside, and the finishes beneath.

A sitting is dragged to another day; arrows walk from sitting to sitting, Shift and arrows move the chosen one by a day, P fixes or frees it.
"""

from datetime import date, timedelta

from PySide6.QtCore import QEvent, QPointF, QRectF, Qt, Signal
from PySide6.QtGui import (
    QColor,
    QFontMetricsF,
    QHelpEvent,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPaintEvent,
    QPen,
    QPolygonF,
    QWheelEvent,
)
from PySide6.QtWidgets import QToolTip, QWidget

from yarrow_lane.calendar.sittings import Sitting
from yarrow_lane.measure.days import day_text
from yarrow_lane.measure.lengths import hours_text
from yarrow_lane.ui.kit.plain import tip
from yarrow_lane.ui.paint.elided import draw_line
from yarrow_lane.ui.pictures import Pictures
from yarrow_lane.ui.references import References
from yarrow_lane.ui.rooms.studio.calendar_view import CalendarView, Drying, FinishRow, HandsSitting
from yarrow_lane.ui.rooms.studio.day_scale import DayScale
from yarrow_lane.ui.rooms.studio.finish_rows import GUTTER, FinishPainter
from yarrow_lane.ui.theme.colours import INK, SURROUND
from yarrow_lane.ui.theme.lettering import lettering, px
from yarrow_lane.ui.theme.sheet import colours

_RIGHT = 18  # px after the line
_DRAG_PX = 6
_ROW = 46


class CalendarTable(QWidget):
    """`chosen` tells a commission, `moved` a sitting and the day it is dragged to, `pinned` a sitting to fix or free."""

    chosen = Signal(str)
    opened = Signal(str)
    moved = Signal(object, object)
    pinned = Signal(object)

    def __init__(self, pictures: Pictures, references: References) -> None:
        super().__init__()
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setMinimumHeight(px(320))
        self.setAccessibleName("The calendar")
        self._references = references
        self._finishes = FinishPainter(references)
        self._view: CalendarView | None = None
        self._commission = ""
        self._at: Sitting | None = None  # the sitting the keys stand on
        self._press: tuple[QPointF, HandsSitting] | None = None
        self._drag: date | None = None
        self._first_row = 0
        pictures.arrived.connect(self.update)

    def show_view(self, view: CalendarView, commission_id: str) -> None:
        self._view, self._commission = view, commission_id
        if self._at is not None:
            at = self._at
            same = [s.sitting for s in view.sittings if s.sitting.commission_id == at.commission_id]
            alike = [s for s in same if set(at_key(s)) & set(at_key(at))] or same
            self._at = min(alike, key=lambda s: abs((s.start - at.start).total_seconds()), default=None)
        self._tell()
        self.update()

    @property
    def sitting(self) -> Sitting | None:
        """The one that mouse or keys stand on."""
        return self._at

    # --- where things stand

    def scale(self) -> DayScale:
        """The line of days at the present width."""
        view = self._view
        assert view is not None
        return DayScale(view.today, view.days, px(GUTTER), self.width() - px(GUTTER) - px(_RIGHT), view.hours)

    def _line(self) -> tuple[float, float]:
        """Middle and greatest height of the tapering line."""
        room = self.height()
        tall = max(px(56), min(px(118), 0.2 * room))
        return px(56) + tall / 2, tall

    def places(self) -> list[tuple[HandsSitting, QRectF]]:
        """Each sitting with its strip on the screen."""
        view = self._view
        if view is None:
            return []
        scale, (middle, tall) = self.scale(), self._line()
        last = view.today + timedelta(days=view.days - 1)
        found = []
        for s in view.sittings:
            if not view.today <= s.sitting.day <= last:
                continue
            left, right = scale.x(s.sitting.start), scale.x(s.sitting.end)
            high = tall * scale.height(s.sitting.day)
            found.append((s, QRectF(left, middle - high / 2, max(px(3), right - left - 1.5), high)))
        return found

    def _rows_top(self) -> float:
        middle, tall = self._line()
        drying = len(self._view.drying) if self._view else 0
        return middle + tall / 2 + px(12) + px(18) * max(1, drying) + px(24)

    def _rows_shown(self) -> int:
        return max(1, int((self.height() - self._rows_top()) // px(_ROW)))

    def _row_at(self, y: float) -> FinishRow | None:
        n = int((y - self._rows_top()) // px(_ROW))
        rows = self._view.rows[self._first_row :] if self._view else ()
        return rows[n] if y >= self._rows_top() and 0 <= n < min(len(rows), self._rows_shown()) else None

    # --- painting

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.fillRect(self.rect(), QColor(SURROUND))
        if self._view is not None:
            self._paint(painter, self._view)
        painter.end()

    def _paint(self, painter: QPainter, view: CalendarView) -> None:
        head = "Your hands, day by day"
        bold = lettering(15, "bold")
        wide = QFontMetricsF(bold).horizontalAdvance(head)
        draw_line(painter, QRectF(px(18), px(8), wide + 4, px(22)), head, bold, colour=INK)
        words = view.empty or "one line: near days wide, far days small; drag a sitting to another day"
        draw_line(painter, QRectF(px(30) + wide, px(8), self.width() - wide - px(50), px(22)), words, lettering(13), colour=INK)
        scale = self.scale()
        self._paint_days(painter, view, scale)
        for s, place in self.places():
            self._paint_strip(painter, s, place, scale)
        self._paint_drying(painter, view, scale)
        self._paint_rows(painter, view, scale)
        if self._press is not None and self._drag is not None:
            self._paint_ghost(painter, scale)

    def _paint_days(self, painter: QPainter, view: CalendarView, scale: DayScale) -> None:
        middle, tall = self._line()
        foot = self.height()
        months_from = -1.0
        for n in range(view.days):
            day = view.today + timedelta(days=n)
            x, wide = scale.day_left(day), scale.day_width(day)
            high = tall * scale.height(day)
            if day in view.closed:
                painter.fillRect(QRectF(x, middle - high / 2 - px(6), wide, high + px(12)), QColor(0, 0, 0, 34))
            if day.weekday() == 0:
                painter.setPen(QPen(QColor(255, 255, 255, 70), 1))
                painter.drawLine(QPointF(x, px(50)), QPointF(x, foot))
            words = "Today, " + day_text(day) if n == 0 else day_text(day) if day.weekday() == 0 or n < 4 else ""
            font = lettering(12.5, "bold")
            if words and x + 2 > months_from:
                room = QFontMetricsF(font).horizontalAdvance(words)
                if n and day.weekday() != 0 and room > wide - 4:
                    words = words.split(" ")[0]
                    room = QFontMetricsF(font).horizontalAdvance(words)
                if x + room > self.width() - 4:
                    continue
                draw_line(painter, QRectF(x + 1, px(31), room + 4, px(18)), words, font, colour=INK)
                months_from = x + room + px(8)
        painter.setPen(QPen(QColor(INK), 1))
        edge = [
            (scale.day_left(view.today + timedelta(days=n)), tall * scale.height(view.today + timedelta(days=n)) / 2)
            for n in range(view.days)
        ]
        for sign in (-1, 1):
            painter.setPen(QPen(QColor(0, 0, 0, 60), 1))
            painter.drawPolyline(QPolygonF([QPointF(x, middle + sign * (h + 3)) for x, h in edge]))

    def _paint_strip(self, painter: QPainter, s: HandsSitting, place: QRectF, scale: DayScale) -> None:
        image = self._references.thumbnail(s.compose) if s.compose.framed else None
        if image is not None and image.height() > 0:
            # A strip as wide as the sitting, cut where the canvas has got to by then.
            wide = min(float(image.width()), place.width() / place.height() * image.height())
            middle = (s.share[0] + s.share[1]) / 2 * image.width()
            left = min(max(0.0, middle - wide / 2), image.width() - wide)
            painter.drawImage(place, image, QRectF(left, 0, wide, image.height()))
        else:
            painter.fillRect(place, QColor("#bdbdbd"))
        here = s.number == 1
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.setPen(QPen(QColor(colours().here if here else INK), 3 if here else 1))
        painter.drawRect(place)
        if self._at is not None and s.sitting == self._at and self.hasFocus():
            painter.setPen(QPen(QColor("#ffffff"), 2, Qt.PenStyle.DashLine))
            painter.drawRect(place.adjusted(-3, -3, 3, 3))
        if s.number and place.width() >= px(12):
            centre = QPointF(place.center().x(), place.bottom() - px(14))
            painter.setPen(QPen(QColor(INK), 1))
            painter.setBrush(QColor(colours().here if here else "#ffffff"))
            painter.drawEllipse(centre, px(9), px(9))
            draw_line(
                painter,
                QRectF(centre.x() - px(9), centre.y() - px(9), px(18), px(18)),
                str(s.number),
                lettering(12.5, "bold"),
                Qt.AlignmentFlag.AlignHCenter,
                colour=INK,
            )
        elif place.width() >= px(15):
            box = QRectF(place.left(), place.bottom() - px(19), place.width(), px(18))
            painter.fillRect(QRectF(place.center().x() - px(7), box.top(), px(14), px(17)), QColor(20, 20, 20, 170))
            draw_line(painter, box, s.title[:1], lettering(12.5, "bold"), Qt.AlignmentFlag.AlignHCenter, colour="#ffffff")
        if s.sitting.pinned:
            x = place.center().x()
            painter.setPen(QPen(QColor("#ffffff"), 2))
            painter.drawLine(QPointF(x, place.top() - px(4)), QPointF(x, place.top() + place.height() * 0.4))
            painter.setPen(QPen(QColor(INK), 1))
            painter.setBrush(QColor("#ffffff"))
            painter.drawEllipse(QPointF(x, place.top() - px(4)), px(4), px(4))

    def _paint_drying(self, painter: QPainter, view: CalendarView, scale: DayScale) -> None:
        middle, tall = self._line()
        top = middle + tall / 2 + px(12)
        draw_line(
            painter,
            QRectF(px(18), top - px(2), px(GUTTER) - px(26), px(18)),
            "Drying beside",
            lettering(13, "bold"),
            colour=INK,
        )
        if not view.drying:
            draw_line(
                painter, QRectF(px(GUTTER), top - px(2), px(400), px(18)), "nothing wet or at rest", lettering(12.5), colour=INK
            )
        for n, d in enumerate(view.drying):
            self._paint_wedge(painter, d, scale, top + n * px(18) + px(7))
        y = self._rows_top() - px(22)
        legend = (
            "Each finish in ten dabs, a chance in ten each:  dot likely, 5 in 10 ·  ring safe, 9 in 10 ·  red past the flag"
        )
        draw_line(
            painter, QRectF(px(GUTTER), y, self.width() - px(GUTTER) - px(8), px(18)), legend, lettering(12.5), colour=INK
        )

    def _paint_wedge(self, painter: QPainter, d: Drying, scale: DayScale, y: float) -> None:
        left = max(px(GUTTER) * 1.0, scale.x(d.begin))
        right = max(left + px(12), min(scale.x(d.end), self.width() - px(_RIGHT)))
        painter.setPen(QPen(QColor(INK), 1))
        painter.setBrush(QColor("#e9e2d2"))
        painter.drawPolygon(QPolygonF([QPointF(left, y - px(5)), QPointF(left, y + px(5)), QPointF(right, y)]))
        painter.drawLine(QPointF(right, y - px(5)), QPointF(right, y + px(5)))
        font = lettering(12.5)
        wide = QFontMetricsF(font).horizontalAdvance(d.words)
        at = right + px(6) if right + px(8) + wide < self.width() else left - wide - px(8)
        if at < px(GUTTER):
            at = px(GUTTER) + px(14)
            painter.fillRect(QRectF(at - 3, y - px(9), wide + 6, px(18)), QColor(SURROUND))
        draw_line(painter, QRectF(at, y - px(9), wide + 4, px(18)), d.words, font, colour=INK)

    def _paint_rows(self, painter: QPainter, view: CalendarView, scale: DayScale) -> None:
        top, high = self._rows_top(), px(_ROW)
        shown = view.rows[self._first_row : self._first_row + self._rows_shown()]
        for n, row in enumerate(shown):
            chosen = bool(row.commission_id) and row.commission_id == self._commission
            self._finishes.paint(painter, row, scale, QRectF(0, top + n * high, self.width(), high), chosen)
        if len(view.rows) > len(shown):
            words = f"{self._first_row + 1} to {self._first_row + len(shown)} of {len(view.rows)}"
            draw_line(painter, QRectF(px(18), top - px(22), px(GUTTER) - px(24), px(18)), words, lettering(12.5), colour=INK)

    def _paint_ghost(self, painter: QPainter, scale: DayScale) -> None:
        assert self._press is not None and self._drag is not None
        middle, tall = self._line()
        high = tall * scale.height(self._drag)
        place = QRectF(
            scale.day_left(self._drag), middle - high / 2 - px(4), max(px(6), scale.day_width(self._drag)), high + px(8)
        )
        painter.setBrush(QColor(255, 255, 255, 60))
        painter.setPen(QPen(QColor("#ffffff"), 2, Qt.PenStyle.DashLine))
        painter.drawRect(place)
        words = f"{self._press[1].title} on {day_text(self._drag)}"
        font = lettering(13, "bold")
        wide = QFontMetricsF(font).horizontalAdvance(words) + px(12)
        x = min(place.left(), self.width() - wide - px(4))
        painter.fillRect(QRectF(x, place.bottom() + px(2), wide, px(20)), QColor(INK))
        draw_line(painter, QRectF(x + px(6), place.bottom() + px(2), wide, px(20)), words, font, colour="#ffffff")

    # --- hands

    def sitting_at(self, point: QPointF) -> HandsSitting | None:
        """The sitting under a point."""
        return next((s for s, place in self.places() if place.adjusted(-1, 0, 2, 0).contains(point)), None)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        found = self.sitting_at(event.position())
        if found is not None:
            self._press, self._drag, self._at = (event.position(), found), None, found.sitting
            self.chosen.emit(found.sitting.commission_id)
            return
        row = self._row_at(event.position().y())
        if row is not None and row.commission_id:
            self.chosen.emit(row.commission_id)

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        if self._press is None:
            return
        if abs(event.position().x() - self._press[0].x()) >= _DRAG_PX:
            self._drag = self.scale().day_at(event.position().x())
            self.update()

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        press, day = self._press, self._drag
        self._press = self._drag = None
        self.update()
        if press is not None and day is not None and day != press[1].sitting.day:
            self.moved.emit(press[1].sitting, day)

    def mouseDoubleClickEvent(self, event: QMouseEvent) -> None:
        found = self.sitting_at(event.position())
        row = self._row_at(event.position().y())
        name = found.sitting.commission_id if found is not None else row.commission_id if row is not None else ""
        if name:
            self.opened.emit(name)

    def wheelEvent(self, event: QWheelEvent) -> None:
        if self._view is not None:
            most = max(0, len(self._view.rows) - self._rows_shown())
            self._first_row = min(most, max(0, self._first_row - (1 if event.angleDelta().y() > 0 else -1)))
            self.update()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        view = self._view
        step = {Qt.Key.Key_Left: -1, Qt.Key.Key_Right: 1}.get(Qt.Key(event.key()))
        if view is not None and event.key() in (Qt.Key.Key_Up, Qt.Key.Key_Down):
            self._walk_rows(view, -1 if event.key() == Qt.Key.Key_Up else 1)
        elif view is not None and step is not None and view.sittings:
            if event.modifiers() & Qt.KeyboardModifier.ShiftModifier and self._at is not None:
                self.moved.emit(self._at, self._at.day + timedelta(days=step))
            else:
                self._walk(view, step)
        elif self._at is not None and event.text().lower() == "p":
            self.pinned.emit(self._at)
        else:
            event.ignore()

    def _walk(self, view: CalendarView, step: int) -> None:
        every = [s.sitting for s in view.sittings]
        now = every.index(self._at) if self._at in every else -1 if step > 0 else 0
        self._at = every[(now + step) % len(every)]
        self._tell()
        self.chosen.emit(self._at.commission_id)
        self.update()

    def _walk_rows(self, view: CalendarView, step: int) -> None:
        names = [r.commission_id for r in view.rows if r.commission_id]
        if not names:
            return
        now = names.index(self._commission) if self._commission in names else -step
        name = names[(now + step) % len(names)]
        at = next(n for n, r in enumerate(view.rows) if r.commission_id == name)
        self._first_row = (
            min(self._first_row, at) if at < self._first_row else max(self._first_row, at - self._rows_shown() + 1)
        )
        self.chosen.emit(name)

    def _tell(self) -> None:
        words = sitting_words(self._at, self._title(self._at)) if self._at is not None else ""
        self.setAccessibleDescription(words)

    def _title(self, sitting: Sitting) -> str:
        rows = self._view.rows if self._view is not None else ()
        return next((r.title for r in rows if r.commission_id == sitting.commission_id), "")

    def event(self, event: QEvent) -> bool:
        """What a sitting paints shows under the pointer."""
        if isinstance(event, QHelpEvent) and event.type() == QEvent.Type.ToolTip:
            found = self.sitting_at(QPointF(event.pos()))
            QToolTip.showText(
                event.globalPos(), tip(sitting_words(found.sitting, found.title)) if found is not None else "", self
            )
            return True
        return super().event(event)


def at_key(s: Sitting) -> tuple[str, ...]:
    """What is done in it, by key."""
    return tuple(a.key for a in s.acts)


def sitting_words(s: Sitting, title: str) -> str:
    """A sitting in words: whose, when, and which passes."""
    acts = "; ".join(f"{a.words}, {hours_text(a.minutes)}" for a in s.acts)
    fixed = ", fixed by you" if s.pinned else ""
    return f"{title}, {day_text(s.day)} {s.start:%H:%M} to {s.end:%H:%M}{fixed}: {acts}"
