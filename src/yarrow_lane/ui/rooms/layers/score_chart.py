"""The score as films: each coat, once laid, runs on to the right end; its slope is the time of laying, its height the film."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import date

from PySide6.QtCore import QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import (
    QColor,
    QFontMetricsF,
    QImage,
    QMouseEvent,
    QPainter,
    QPainterPath,
    QPaintEvent,
    QPen,
    QPolygonF,
    QWheelEvent,
)
from PySide6.QtWidgets import QWidget

from yarrow_lane.layers.coverage import Rings
from yarrow_lane.layers.passes import Pass
from yarrow_lane.measure.days import day_text
from yarrow_lane.measure.words import counted
from yarrow_lane.ui.paint.elided import draw_line
from yarrow_lane.ui.paint.stage import paint_stage
from yarrow_lane.ui.theme.colours import INK, SURROUND
from yarrow_lane.ui.theme.lettering import lettering, px
from yarrow_lane.ui.theme.sheet import colours
from yarrow_lane.ui.words import area_text

Rgb = tuple[int, int, int]
_MOST_UM = 420.0  # a stack as high as a row: our choice


@dataclass(frozen=True)
class Row:
    """One region: its name, area and outline as a thumbnail."""

    region_id: int
    name: str
    cm2: float
    rings: Rings


@dataclass(frozen=True)
class Score:
    """All that is drawn; `colour` and `um` (its film over the whole region) by pass id; sets are pass ids.

    `days` gives each pass its day; `stages` pictures after so many passes.
    """

    rows: tuple[Row, ...] = ()
    passes: tuple[Pass, ...] = ()
    canvas: tuple[float, float] = (1.0, 1.0)
    colour: Mapping[str, Rgb] = field(default_factory=dict)
    um: Mapping[str, float] = field(default_factory=dict)
    done: frozenset[str] = frozenset()
    wet: frozenset[str] = frozenset()
    free: frozenset[str] = frozenset()
    warned: frozenset[str] = frozenset()
    chain: frozenset[str] = frozenset()
    following: str = ""
    days: Mapping[str, date | None] = field(default_factory=dict)
    today: date | None = None
    stages: tuple[tuple[int, QImage], ...] = ()


def _fitting(name: str, room: float) -> str:
    """A name that is too long for its room says whose it is by an initial: "B. right eye"."""
    whose, found, rest = name.partition("'s ")
    fits = QFontMetricsF(lettering(13, "bold")).horizontalAdvance(name) <= room
    return name if fits or not found else f"{whose[:1]}. {rest}"


class ScoreChart(QWidget):
    """A click looks at a pass; a pass dragged to another column is painted there: `moved(pass id, before which)`."""

    chosen = Signal(str)
    moved = Signal(str, str)

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("table")
        self.setAccessibleName("The score: regions and what lies on them")
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.score = Score()
        self.pass_id = ""
        self._slid = 0.0
        self._held: tuple[str, QPointF] | None = None
        self._to: int | None = None  # the column a dragged pass would go to

    def sizeHint(self) -> QSize:
        return QSize(px(700), px(560))

    def show_score(self, score: Score, pass_id: str) -> None:
        self.score, self.pass_id = score, pass_id
        self._slid = min(self._slid, self._most_slide())
        self.update()

    # --- places

    def _left(self) -> float:
        return px(128)

    def _right(self) -> float:
        return self.width() - px(98)

    def _head(self) -> float:
        return px(30)

    def _foot(self) -> float:
        return px(112) if self.score.stages and self.height() > px(420) else px(8)

    def _row_h(self) -> float:
        room = self.height() - self._head() - self._foot()
        return float(max(px(46), min(px(74), room / max(1, len(self.score.rows)))))

    def _most_slide(self) -> float:
        return max(0.0, len(self.score.rows) * self._row_h() - (self.height() - self._head() - self._foot()))

    def _column(self, n: float) -> float:
        return self._left() + n * (self._right() - self._left()) / max(1, len(self.score.passes))

    def _um(self, um: float) -> float:
        return um / _MOST_UM * (self._row_h() - px(20))

    # --- painting

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.fillRect(self.rect(), QColor(SURROUND))
        if not self.score.passes:
            painter.setPen(QColor(INK))
            painter.setFont(lettering(15))
            painter.drawText(self.rect(), Qt.AlignmentFlag.AlignCenter, "The passes appear here once regions are taken.")
            painter.end()
            return
        body = QRectF(0, self._head(), self.width(), self.height() - self._head() - self._foot())
        painter.setClipRect(body)
        self._paint_days(painter, body, False)
        for n, row in enumerate(self.score.rows):
            self._paint_row(painter, row, self._head() + n * self._row_h() - self._slid)
        self._paint_now(painter, body)
        if self._to is not None:
            x = self._column(self._to)
            painter.setPen(QPen(QColor(INK), 2, Qt.PenStyle.DashLine))
            painter.drawLine(QPointF(x, body.top()), QPointF(x, body.bottom()))
        painter.setClipping(False)
        self._paint_days(painter, body, True)
        if self.score.stages and self._foot() > px(50):
            self._paint_stages(painter)
        painter.end()

    def _days(self) -> list[tuple[int, date | None]]:
        """Where a new day begins."""
        found: list[tuple[int, date | None]] = []
        last: object = self
        for n, p in enumerate(self.score.passes):
            day = self.score.days.get(p.id)
            if day != last:
                found.append((n, day))
                last = day
        return found

    def _paint_days(self, painter: QPainter, body: QRectF, heads: bool) -> None:
        places = self._days()
        if not heads:
            for n, _ in places[1:]:
                painter.fillRect(QRectF(self._column(n) - px(2), body.top(), px(4), body.height()), QColor(0, 0, 0, 26))
            return
        painter.setPen(QColor(INK))
        font = lettering(12.5, "bold")
        draw_line(painter, QRectF(px(10), px(4), self._left() - px(14), px(22)), "What lies over", font)
        draw_line(painter, QRectF(self._right() + px(8), px(4), px(88), px(22)), "Cut through", font)
        for k, (n, day) in enumerate(places):
            begin = self._column(n)
            end = self._column(places[k + 1][0]) if k + 1 < len(places) else self._right()
            words = "" if day is None else f"Today, {day_text(day)}" if day == self.score.today else day_text(day)
            if end - begin > px(34):
                draw_line(painter, QRectF(begin + px(2), px(4), end - begin - px(4), px(22)), words, font)

    def _paint_row(self, painter: QPainter, row: Row, top: float) -> None:
        height = self._row_h()
        if top > self.height() or top + height < 0:
            return
        base = top + height - px(5)
        painter.setPen(QPen(QColor(255, 255, 255, 120), 1))
        painter.drawLine(QPointF(0, top + height - 0.5), QPointF(self.width(), top + height - 0.5))
        self._thumbnail(painter, row, QRectF(px(8), top + px(5), px(26), height - px(12)))
        painter.setPen(QColor(INK))
        words = QRectF(px(40), top + height / 2 - px(17), self._left() - px(44), px(17))
        draw_line(painter, words, _fitting(row.name, words.width()), lettering(13, "bold"))
        draw_line(painter, words.translated(0, px(16)), area_text(row.cm2), lettering(12))
        # The cloth runs through beneath all.
        painter.fillRect(QRectF(self._left(), base, self._right() - self._left(), px(2)), QColor(232, 226, 214))
        floor = base
        coats: list[tuple[Pass, int]] = [(p, n) for n, p in enumerate(self.score.passes) if p.region_id == row.region_id]
        total = 0.0
        for p, n in coats:
            um = self.score.um[p.id]
            self._paint_coat(painter, p, n, floor, self._um(um))
            floor -= self._um(um)
            total += um
        self._paint_labels(painter, coats, base, top)
        self._paint_core(painter, coats, row, top, total)

    def _shape(self, n: int, floor: float, high: float) -> QPolygonF:
        begin, end, right = self._column(n), self._column(n + 1), self._right()
        return QPolygonF(
            [QPointF(begin, floor), QPointF(end, floor - high), QPointF(right, floor - high), QPointF(right, floor)]
        )

    def _paint_coat(self, painter: QPainter, p: Pass, n: int, floor: float, high: float) -> None:
        colour = QColor(*self.score.colour[p.id])
        done = p.id in self.score.done
        if not done:
            colour.setAlpha(150)
        shape = self._shape(n, floor, max(1.5, high))
        painter.setPen(QPen(QColor(20, 20, 20, 150 if done else 70), 0.7))
        painter.setBrush(colour)
        painter.drawPolygon(shape)
        if p.id in self.score.wet:
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(Qt.BrushStyle.BDiagPattern)
            painter.setPen(QPen(QColor("#ffffff"), 1))
            wide = self._column(n + 2) - self._column(n)
            painter.fillRect(QRectF(self._column(n), floor - high, wide, max(3.0, high)), Qt.BrushStyle.BDiagPattern)
        if p.id in self.score.free or p.id == self.pass_id:
            here = p.id == self.score.following
            chosen = p.id == self.pass_id
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.setPen(QPen(QColor(colours().here if here else "#ffffff"), 3.4 if chosen else 2.2))
            begin, end = self._column(n), self._column(n + 1)
            far = min(self._right(), end + px(14))
            tall = max(px(5), high)
            painter.drawPolygon(
                QPolygonF([QPointF(begin, floor), QPointF(end, floor - tall), QPointF(far, floor - tall), QPointF(far, floor)])
            )

    def _paint_labels(self, painter: QPainter, coats: list[tuple[Pass, int]], base: float, top: float) -> None:
        floor = base
        bold, plain = lettering(12, "bold"), lettering(12)
        wide, small = QFontMetricsF(bold), QFontMetricsF(plain)
        until = 0.0
        for k, (p, n) in enumerate(coats):
            floor -= self._um(self.score.um[p.id])
            x = self._column(n)
            y = max(top + px(13), floor - px(3))
            number = f"{n + 1}!" if p.id in self.score.warned else str(n + 1)
            room = (self._column(coats[k + 1][1]) if k + 1 < len(coats) else self._right()) - x
            if x < until:
                continue
            here = p.id == self.score.following
            if here:
                painter.setPen(Qt.PenStyle.NoPen)
                painter.setBrush(QColor(colours().here))
                painter.drawRoundedRect(QRectF(x - px(3), y - px(12), wide.horizontalAdvance(number) + px(7), px(16)), 2, 2)
            painter.setPen(QColor(INK))
            painter.setFont(bold)
            painter.drawText(QPointF(x, y), number)
            until = x + wide.horizontalAdvance(number) + px(3)
            name = p.name if p.id == self.pass_id else p.name.split(" and ")[0]
            if room - (until - x) > px(22):
                painter.setFont(bold if p.id in self.score.chain else plain)
                shown = small.elidedText(name, Qt.TextElideMode.ElideRight, room - (until - x) - px(4))
                if len(shown) > 3:
                    painter.drawText(QPointF(until + px(1), y), shown)
                    until += small.horizontalAdvance(shown) + px(4)

    def _paint_core(self, painter: QPainter, coats: list[tuple[Pass, int]], row: Row, top: float, total: float) -> None:
        place = QRectF(self._right() + px(8), top + px(6), px(30), self._row_h() - px(14))
        painter.setPen(QPen(QColor(20, 20, 20), 1))
        painter.setBrush(QColor(232, 226, 214))
        painter.drawRect(place)
        at = place.bottom()
        for p, _ in coats:
            high = place.height() * self.score.um[p.id] / max(total, 1.0) * 0.94
            painter.setBrush(QColor(*self.score.colour[p.id]))
            painter.setPen(QPen(QColor(20, 20, 20, 110), 0.6))
            at -= high
            painter.drawRect(QRectF(place.left(), at, place.width(), high))
        painter.setPen(QColor(INK))
        words = QRectF(place.right() + px(5), place.center().y() - px(16), px(54), px(16))
        many = len({p.key for p, _ in coats})
        draw_line(painter, words, counted(many, "coat"), lettering(12))
        draw_line(painter, words.translated(0, px(15)), f"{total / 1000:.2f}\u202fmm", lettering(12, "bold"))

    def _thumbnail(self, painter: QPainter, row: Row, place: QRectF) -> None:
        wide, high = self.score.canvas
        scale = min(place.width() / wide, place.height() / high)
        frame = QRectF(place.left(), place.top() + (place.height() - high * scale) / 2, wide * scale, high * scale)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.fillRect(frame, QColor(110, 110, 110))
        shape = QPainterPath()  # odd and even: holes stay open
        for ring in row.rings:
            shape.addPolygon(QPolygonF([QPointF(frame.left() + x * scale, frame.top() + y * scale) for x, y in ring]))
        painter.fillPath(shape, QColor("#ffffff"))
        self._ring_round(painter, row, frame, scale)

    def _ring_round(self, painter: QPainter, row: Row, frame: QRectF, scale: float) -> None:
        """What is too small to be seen is ringed."""
        corners = [p for ring in row.rings for p in ring]
        if not corners:
            return
        left, right = min(x for x, _ in corners) * scale, max(x for x, _ in corners) * scale
        top, bottom = min(y for _, y in corners) * scale, max(y for _, y in corners) * scale
        if max(right - left, bottom - top) >= px(9):
            return
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.setPen(QPen(QColor("#ffffff"), 1.2))
        painter.drawEllipse(QPointF(frame.left() + (left + right) / 2, frame.top() + (top + bottom) / 2), px(5), px(5))

    def _paint_now(self, painter: QPainter, body: QRectF) -> None:
        count = sum(p.id in self.score.done for p in self.score.passes)
        ahead = [n for n, p in enumerate(self.score.passes) if p.id not in self.score.done]
        if not ahead or not count:
            return
        x = self._column(ahead[0])
        painter.setPen(QPen(QColor(INK), 3))
        painter.drawLine(QPointF(x, body.top()), QPointF(x, body.bottom()))
        painter.setPen(QPen(QColor(colours().here), 1.6))
        painter.drawLine(QPointF(x, body.top()), QPointF(x, body.bottom()))

    def _paint_stages(self, painter: QPainter) -> None:
        top = self.height() - self._foot() + px(6)
        high = self._foot() - px(14)
        painter.setPen(QColor(INK))
        font = lettering(12)
        draw_line(painter, QRectF(px(10), top + px(10), self._left() - px(16), px(16)), "The canvas at the", font)
        draw_line(painter, QRectF(px(10), top + px(25), self._left() - px(16), px(16)), "end of each day,", font)
        draw_line(painter, QRectF(px(10), top + px(40), self._left() - px(16), px(16)), "foreseen", font)
        until, done = self._left(), sum(p.id in self.score.done for p in self.score.passes)
        for count, image in self.score.stages:
            wide = high * image.width() / max(1, image.height())
            x = min(max(until, self._column(count) - wide), self._right() - wide)
            if x < until - 0.5:
                continue
            place = QRectF(x, top, wide, high)
            paint_stage(painter, place, image, count, False, count > done)
            until = x + wide + px(4)

    # --- hands

    def _pass_at(self, at: QPointF) -> str:
        row = int((at.y() - self._head() + self._slid) // self._row_h())
        if not 0 <= row < len(self.score.rows) or at.y() < self._head():
            return ""
        own = [(n, p) for n, p in enumerate(self.score.passes) if p.region_id == self.score.rows[row].region_id]
        begun = [p.id for n, p in own if self._column(n) <= at.x() + px(2)]
        return begun[-1] if begun else (own[0][1].id if own else "")

    def mousePressEvent(self, event: QMouseEvent) -> None:
        if event.button() == Qt.MouseButton.LeftButton:
            found = self._pass_at(event.position())
            self._held = (found, event.position()) if found else None

    def _dragged_to(self, at: QPointF) -> int | None:
        """Before which column the held pass would be painted; None while it is only clicked."""
        count = len(self.score.passes)
        one = (self._right() - self._left()) / max(1, count)
        if self._held is None or abs(at.x() - self._held[1].x()) < max(one, px(12)):
            return None
        column = int((at.x() - self._left()) // one) + (at.x() > self._held[1].x())
        return min(max(0, column), count)

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        to = self._dragged_to(event.position())
        if to != self._to:
            self._to = to
            self.update()

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        to, held = self._dragged_to(event.position()), self._held
        self._held = self._to = None
        self.update()
        if held is None:
            return
        if to is None:
            self.chosen.emit(held[0])
            return
        before = self.score.passes[to].id if to < len(self.score.passes) else ""
        if before != held[0]:
            self.moved.emit(held[0], before)

    def wheelEvent(self, event: QWheelEvent) -> None:
        self._slid = min(max(0.0, self._slid - event.angleDelta().y() / 2), self._most_slide())
        self.update()
