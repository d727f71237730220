"""Own pace as a small plot: hours per 100 cm² by kind of area, as first guessed and as it went, each pass a dot."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from math import log

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QWidget

from yarrow_lane.calendar.pace import Pace, Paced, factor_words
from yarrow_lane.layers.kinds import family_facts
from yarrow_lane.measure.days import day_text, moved_text
from yarrow_lane.measure.words import counted
from yarrow_lane.ui.paint.elided import draw_line
from yarrow_lane.ui.theme.colours import INK, SURROUND
from yarrow_lane.ui.theme.lettering import lettering, px

_LEFT, _RIGHT, _ROW = 150, 150, 44
_MOST_ROWS = 9
_RANGE = log(4.0)  # a quarter to four times the first guess is shown: our choice


@dataclass(frozen=True)
class PlotRow:
    """One kind: its passes' ratios to the first guess, the learned factor and its spread, hours per 100 cm² guessed and own."""

    name: str
    ratios: tuple[float, ...]
    factor: float
    spread: tuple[float, float]
    guessed: float
    own: float


@dataclass(frozen=True)
class PlotView:
    """All kinds that were logged, and what they changed in the dates."""

    rows: tuple[PlotRow, ...]
    words: str
    dates: str


def pace_plot(logged: Mapping[str, Sequence[Paced]], pace: Pace, safe: date | None, guessed: date | None) -> PlotView:
    """Work the plot out; `safe` and `guessed` are the safe days with and without what was learned."""
    rows = []
    for family in pace.families[:_MOST_ROWS]:
        ratios = tuple(
            p.taken / p.guessed for of in logged.values() for p in of if p.family == family and p.guessed > 0 and p.taken > 0
        )
        facts, factor = family_facts(family), pace.factor(family)
        hours = facts.per_100cm2_h
        rows.append(PlotRow(facts.said, ratios, factor, pace.spread(family), hours, hours * factor))
    many = len(pace.commissions)
    words = f"{pace.passes} passes of {counted(many, 'portrait')}" if pace.passes else "nothing is logged yet"
    if pace.passes and pace.first_guesses:
        words += ": still mostly first guesses"
    return PlotView(tuple(rows), words, _dates(safe, guessed))


def _dates(safe: date | None, guessed: date | None) -> str:
    if safe is None or guessed is None:
        return ""
    days = (safe - guessed).days
    if not days:
        return f"Safe day {day_text(safe)}, as by first guesses."
    return f"Safe day {day_text(safe)}: {moved_text(days)} than by first guesses."


class PacePlot(QWidget):
    """The first guess is the line in the middle; right of it is longer."""

    def __init__(self) -> None:
        super().__init__()
        self.setMinimumHeight(px(200))
        self.setAccessibleName("Your pace")
        self._view: PlotView | None = None

    def show_plot(self, view: PlotView) -> None:
        self._view = view
        self.setAccessibleDescription("; ".join(f"{r.name}: {factor_words(r.factor)}" for r in view.rows))
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.fillRect(self.rect(), QColor(SURROUND))
        if self._view is not None:
            self._paint(painter, self._view)
        painter.end()

    def _x(self, ratio: float) -> float:
        share = 0.5 + 0.5 * max(-1.0, min(1.0, log(max(ratio, 1e-3)) / _RANGE))
        return px(_LEFT) + share * (self.width() - px(_LEFT) - px(_RIGHT))

    def _text(
        self, painter: QPainter, box: QRectF, words: str, bold: bool = False, size: float = 13.5, right: bool = False
    ) -> None:
        side = Qt.AlignmentFlag.AlignRight if right else Qt.AlignmentFlag.AlignLeft
        draw_line(painter, box, words, lettering(size, "bold" if bold else "normal"), side, INK)

    def _paint(self, painter: QPainter, view: PlotView) -> None:
        self._text(
            painter,
            QRectF(px(18), px(8), self.width() - px(36), px(22)),
            f"Your pace against the first guess: {view.words}",
            True,
            15,
        )
        top = px(62)
        foot = top + px(_ROW) * len(view.rows)
        for ratio, words in (
            (0.25, "a quarter"),
            (0.5, "half"),
            (1.0, "as first guessed"),
            (2.0, "twice"),
            (4.0, "four times"),
        ):
            x = self._x(ratio)
            painter.setPen(QPen(QColor(INK), 2.0 if ratio == 1.0 else 0.6))
            painter.drawLine(QPointF(x, top - px(6)), QPointF(x, foot))
            painter.setFont(lettering(12.5, "bold" if ratio == 1.0 else "normal"))
            painter.drawText(QRectF(x - px(60), px(34), px(120), px(20)), Qt.AlignmentFlag.AlignCenter, words)
        for n, row in enumerate(view.rows):
            self._paint_row(painter, row, top + n * px(_ROW))
        self._text(painter, QRectF(px(18), foot + px(10), self.width() - px(36), px(22)), view.dates, True, 14)
        note = "Bar: what 8 of 10 passes of this kind will take; short line: the middle; dots: passes logged."
        self._text(painter, QRectF(px(18), foot + px(32), self.width() - px(36), px(20)), note, False, 12.5)

    def _paint_row(self, painter: QPainter, row: PlotRow, y: float) -> None:
        middle = y + px(_ROW) / 2
        self._text(painter, QRectF(px(18), y, px(_LEFT) - px(24), px(_ROW)), row.name, True)
        left, right = self._x(row.spread[0]), self._x(row.spread[1])
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(QColor(255, 255, 255, 110))
        painter.drawRect(QRectF(left, middle - px(9), right - left, px(18)))
        painter.setPen(QPen(QColor(INK), 2.4))
        painter.drawLine(QPointF(self._x(row.factor), middle - px(12)), QPointF(self._x(row.factor), middle + px(12)))
        painter.setPen(QPen(QColor(INK), 1))
        painter.setBrush(QColor("#ffffff"))
        for n, ratio in enumerate(row.ratios[-40:]):
            painter.drawEllipse(QPointF(self._x(ratio), middle + px(5) * ((n % 3) - 1)), px(3), px(3))
        box = QRectF(self.width() - px(_RIGHT) + px(8), y, px(_RIGHT) - px(22), px(_ROW) / 2)
        self._text(painter, box.translated(0, px(4)), factor_words(row.factor), True, 13.5, True)
        if row.guessed:
            self._text(
                painter, box.translated(0, px(21)), f"{row.own:.2f} of {row.guessed:.2f}\u202fh / 100\u202fcm²", False, 12, True
            )
