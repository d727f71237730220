"""The picture's own lightness: a histogram whose limits are dragged, dropping into a stepped bar."""

from itertools import pairwise

from PySide6.QtCore import QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QColor, QFontMetricsF, QMouseEvent, QPainter, QPaintEvent, QPen, QPolygonF
from PySide6.QtWidgets import QWidget

from yarrow_lane.measure.colour.grey import grey_code
from yarrow_lane.measure.colour.munsell_value import value_of
from yarrow_lane.measure.shares import percents
from yarrow_lane.tone.record import NEAREST
from yarrow_lane.ui.theme.lettering import lettering, px
from yarrow_lane.ui.theme.sheet import colours

_REACH = 12  # px within which a limit is taken hold of: our choice


class ValuesPanel(QWidget):
    """L* runs from left to right; `dragged(limits)` while a limit is pulled, `moved(limits)` when it is let go."""

    dragged = Signal(tuple)
    moved = Signal(tuple)

    def __init__(self) -> None:
        super().__init__()
        self.setAccessibleName("The picture's own lightness")
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setMouseTracking(True)
        self.setFixedHeight(px(186))
        self._counts: tuple[float, ...] = ()
        self._limits: tuple[float, ...] = ()
        self._shares: tuple[float, ...] = ()
        self._shown: tuple[float, ...] = ()
        self._cm2 = 0.0
        self._ground: tuple[float, tuple[int, int, int]] | None = None
        self._held: int | None = None
        self._keyed: int | None = None

    def sizeHint(self) -> QSize:
        return QSize(px(420), px(186))

    def show_values(
        self, counts: tuple[float, ...], limits: tuple[float, ...], shares: tuple[float, ...], shown: tuple[float, ...], cm2: float,
        ground: tuple[float, tuple[int, int, int]] | None,
    ) -> None:  # fmt: skip
        """`counts` for L* 0..100, limits and shown L*, shares 0..1, the canvas's cm2, and a ground's L* with its colour."""
        if self._held is None:
            self._limits = limits
        self._counts, self._shares, self._shown, self._cm2, self._ground = counts, shares, shown, cm2, ground
        self.update()

    @property
    def limits(self) -> tuple[float, ...]:
        """As they are shown now."""
        return self._limits

    def choose(self, step: int) -> None:
        """Take hold of the next limit by keys."""
        if self._limits:
            self._keyed = (self._keyed + step) % len(self._limits) if self._keyed is not None else 0
            self.update()

    def nudge(self, steps: int) -> bool:
        """Move the limit held by keys by so many units of lightness; whether one is held."""
        if self._keyed is None or self._keyed >= len(self._limits):
            return False
        self._put(self._keyed, self._limits[self._keyed] + steps)
        self.moved.emit(self._limits)
        return True

    # --- places

    def _plot(self) -> QRectF:
        return QRectF(px(16), px(34), self.width() - px(32), px(62))

    def _x(self, lightness: float) -> float:
        plot = self._plot()
        return plot.left() + plot.width() * lightness / 100

    def _lightness(self, x: float) -> float:
        plot = self._plot()
        return 100 * (x - plot.left()) / max(1.0, plot.width())

    def _near(self, x: float) -> int | None:
        found = [(abs(self._x(v) - x), n) for n, v in enumerate(self._limits)]
        return min(found)[1] if found and min(found)[0] <= px(_REACH) else None

    # --- drawing

    def paintEvent(self, event: QPaintEvent) -> None:
        painter, c = QPainter(self), colours()
        painter.fillRect(self.rect(), QColor(c.paper))
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setFont(lettering(14, "bold"))
        painter.setPen(QColor(c.text))
        painter.drawText(QPointF(px(16), px(20)), "The picture's own lightness")
        if not self._counts:
            painter.end()
            return
        after = px(16) + QFontMetricsF(lettering(14, "bold")).horizontalAdvance("The picture's own lightness  ")
        painter.setFont(lettering(13))
        painter.setPen(QColor(c.soft))
        painter.drawText(QPointF(after, px(20)), "drag a limit: the shapes follow" if self._limits else "")
        self._paint_hills(painter)
        self._paint_steps(painter)
        self._paint_limits(painter)
        if self._ground is not None:
            self._paint_ground(painter, *self._ground)
        painter.end()

    def _ends(self) -> tuple[float, ...]:
        return (0.0, *self._limits, 100.0)

    def _greys(self) -> list[QColor]:
        shown = self._shown if len(self._shown) == len(self._limits) + 1 else ()
        ends = self._ends()
        middles = shown or tuple((a + b) / 2 for a, b in pairwise(ends))
        return [QColor(int(g), int(g), int(g)) for g in grey_code(middles)]

    def _paint_hills(self, painter: QPainter) -> None:
        plot, most = self._plot(), max(self._counts) or 1.0
        greys, ends = self._greys(), self._ends()
        for n, grey in enumerate(greys):
            low, high = ends[n], ends[n + 1]
            line = [QPointF(self._x(low), plot.bottom())]
            steps = [low, *(float(v) for v in range(int(low) + 1, int(high) + 1) if low < v < high), high]
            line += [QPointF(self._x(v), plot.bottom() - plot.height() * (self._count(v) / most) ** 0.6) for v in steps]
            line.append(QPointF(self._x(high), plot.bottom()))
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(grey)
            painter.drawPolygon(QPolygonF(line))
            painter.setPen(QPen(QColor(colours().text), 1))
            painter.drawPolyline(QPolygonF(line[1:-1]))
        painter.drawLine(QPointF(plot.left(), plot.bottom()), QPointF(plot.right(), plot.bottom()))

    def _count(self, lightness: float) -> float:
        """Smoothed a little, so that the hills read as hills."""
        low = int(max(0, min(100, round(lightness))))
        near = self._counts[max(0, low - 1) : low + 2]
        return sum(near) / len(near)

    def _paint_steps(self, painter: QPainter) -> None:
        plot, ends = self._plot(), self._ends()
        top, bottom = plot.bottom() + px(26), plot.bottom() + px(52)
        greys, text = self._greys(), colours().text
        percent = percents(self._shares) if len(self._shares) == len(greys) else ()
        for n, grey in enumerate(greys):
            left, right = self._x(ends[n]), self._x(ends[n + 1])
            rise = (bottom - top) * (n + 1) / len(greys)
            painter.setPen(QPen(QColor(text), 1))
            painter.setBrush(grey)
            painter.drawRect(QRectF(left, bottom - rise, right - left, rise))
            if percent:
                painter.setPen(QColor(text))
                painter.setFont(lettering(13, "bold"))
                room = QRectF((left + right) / 2 - px(40), bottom + px(1), px(80), px(17))
                words = f"{percent[n]}\u202f%"
                if right - left >= px(34):
                    painter.drawText(room, Qt.AlignmentFlag.AlignCenter, words)
                if right - left >= px(62):
                    painter.setFont(lettering(12))
                    painter.setPen(QColor(colours().soft))
                    cm2 = self._shares[n] * self._cm2
                    painter.drawText(room.translated(0, px(15)), Qt.AlignmentFlag.AlignCenter, f"{cm2:.0f}\u202fcm²")

    def _paint_limits(self, painter: QPainter) -> None:
        plot, c = self._plot(), colours()
        painter.setFont(lettering(13, "bold"))
        for n, limit in enumerate(self._limits):
            x = self._x(limit)
            painter.setPen(QPen(QColor(c.text), 1.4))
            painter.drawLine(QPointF(x, plot.top()), QPointF(x, plot.bottom() + px(30)))
            box = QRectF(x - px(17), plot.bottom() + px(3), px(34), px(19))
            crowded = any(abs(self._x(v) - x) < px(34) for m, v in enumerate(self._limits) if m < n)
            if crowded and self._held != n:
                continue
            held = n in (self._held, self._keyed)
            painter.setBrush(QColor(c.here if held else c.field))
            painter.drawRoundedRect(box, 3, 3)
            painter.setPen(QColor(c.on_here if held else c.text))
            painter.drawText(box, Qt.AlignmentFlag.AlignCenter, f"{value_of(limit):.1f}")

    def _paint_ground(self, painter: QPainter, lightness: float, colour: tuple[int, int, int]) -> None:
        plot, x = self._plot(), self._x(lightness)
        painter.setPen(QPen(QColor(colours().paper), px(7)))
        painter.drawLine(QPointF(x, plot.top() - px(2)), QPointF(x, plot.bottom()))
        painter.setPen(QPen(QColor(*colour), px(5)))
        painter.drawLine(QPointF(x, plot.top() - px(2)), QPointF(x, plot.bottom()))
        painter.setPen(QColor(colours().text))
        painter.setFont(lettering(13, "bold"))
        words = f"ground {value_of(lightness):.1f}"
        wide = QFontMetricsF(lettering(13, "bold")).horizontalAdvance(words)
        left = min(max(px(4), x - wide / 2), self.width() - wide - px(4))
        painter.drawText(QPointF(left, plot.top() - px(1)), words)

    # --- hands

    def mousePressEvent(self, event: QMouseEvent) -> None:
        if event.button() == Qt.MouseButton.LeftButton:
            self._held = self._near(event.position().x())
            self.update()

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        if self._held is None:
            near = self._near(event.position().x()) is not None
            self.setCursor(Qt.CursorShape.SizeHorCursor if near else Qt.CursorShape.ArrowCursor)
            return
        self._put(self._held, self._lightness(event.position().x()))
        self.dragged.emit(self._limits)

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        held, self._held = self._held, None
        if held is not None:
            self.moved.emit(self._limits)
            self.update()

    def _put(self, n: int, lightness: float) -> None:
        low = (self._limits[n - 1] if n else 0.0) + NEAREST
        high = (self._limits[n + 1] if n + 1 < len(self._limits) else 100.0) - NEAREST
        limits = list(self._limits)
        limits[n] = round(min(max(lightness, low), high), 1)
        self._limits = tuple(limits)
        self.update()
