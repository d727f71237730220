"""One place enlarged beneath the canvas: the reference and the paint there, how far off it is, and how it is mended."""

from collections.abc import Callable

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QFont, QFontMetricsF, QPainter, QPaintEvent, QPen, QPolygonF, QResizeEvent
from PySide6.QtWidgets import QHBoxLayout, QPushButton, QSizePolicy, QVBoxLayout, QWidget

from yarrow_lane.check.mending import Mend
from yarrow_lane.check.ranking import Fault
from yarrow_lane.measure.colour.munsell_value import value_of
from yarrow_lane.measure.colour.warm import warm_and_pink
from yarrow_lane.measure.plane import Point, Rect
from yarrow_lane.measure.words import begun
from yarrow_lane.ui.kit.levels import Levels
from yarrow_lane.ui.kit.overlays import Outline, Overlay, Ring, Way
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.kit.plain import PlainLabel
from yarrow_lane.ui.paint.elided import draw_line
from yarrow_lane.ui.theme.lettering import lettering, px
from yarrow_lane.ui.theme.sheet import colours

_HIGH, _LOUPE, _SMALL_LOUPE = 176, 148, 96
_WIDE, _LEAST_BOTH, _LEAST_ONE = 760, 620, 500  # px of width from which loupes are large, both shown, one shown
_ROOM = 470  # px of height the page wants to show it at all
_LEAST_REACH_MM = 26.0
_STEPS, _MOST_STEPS = 10, 2  # of value; of mending
_WARM_RANGE = 24.0  # Lab units from end to end of the scale


class _Scales(QWidget):
    """A stair of values and a line from cool to warm: from what is painted to what is wanted."""

    def __init__(self) -> None:
        super().__init__()
        self.setMinimumWidth(px(140))
        self._fault: Fault | None = None

    def show_fault(self, fault: Fault) -> None:
        self._fault = fault
        self.setAccessibleName("How far off")
        self.setAccessibleDescription(fault.words)
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        if self._fault is not None:
            self._paint(painter, self._fault)
        painter.end()

    def _paint(self, painter: QPainter, fault: Fault) -> None:
        ink = colours().text
        draw_line(painter, QRectF(0, px(4), self.width(), px(22)), begun(fault.words), lettering(15, "bold"), colour=ink)
        c = fault.colour
        if c is None:
            words = "A line in the wrong place: mend it before its colours."
            draw_line(painter, QRectF(0, px(28), self.width(), px(20)), words, lettering(13), colour=ink)
            return
        wide, foot, tall = min(self.width() - px(8), px(230)), px(124), px(58)
        step = wide / _STEPS
        painter.setPen(QPen(QColor(ink), 0.8))
        for n in range(_STEPS):
            grey = round(255 * ((n + 0.5) / _STEPS) ** 1.0)
            high = tall * (n + 1) / _STEPS
            painter.fillRect(QRectF(n * step, foot - high, step, high), QColor(grey, grey, grey))
        painter.drawLine(QPointF(0, foot), QPointF(wide, foot))
        painted, wanted = value_of(c.seen[0]), value_of(c.wanted[0])
        doubt = f" ±{c.sd / 10:.1f}" if c.value else ""
        self._pins(painter, painted * step, wanted * step, foot, px(44), f"painted {painted:.1f}{doubt}", f"wants {wanted:.1f}")
        small = lettering(12)
        draw_line(painter, QRectF(0, foot + px(1), wide / 2, px(16)), "dark", small, colour=colours().soft)
        draw_line(
            painter,
            QRectF(wide / 2, foot + px(1), wide / 2, px(16)),
            "light",
            small,
            Qt.AlignmentFlag.AlignRight,
            colours().soft,
        )
        self._warmth(painter, fault, wide, foot + px(30))

    def _pins(
        self, painter: QPainter, painted: float, wanted: float, foot: float, top: float, said: str, asked: str
    ) -> None:  # fmt: skip
        """Hollow where it is painted, full where it should be, an arrow between."""
        ink = QColor(colours().text)
        painter.setPen(QPen(ink, 1.4))
        for x, full in ((painted, False), (wanted, True)):
            painter.drawLine(QPointF(x, top + px(4)), QPointF(x, foot))
            painter.setBrush(ink if full else QColor(colours().field))
            painter.drawEllipse(QPointF(x, top), px(4), px(4))
        if abs(painted - wanted) > px(14):
            self._arrow(painter, painted, wanted, top + px(12))
        font = lettering(12, "bold")
        if abs(painted - wanted) < px(6):
            box = QRectF(max(0.0, wanted - px(60)), top - px(21), px(120), px(16))
            draw_line(painter, box, asked.replace("wants", "value"), font, Qt.AlignmentFlag.AlignHCenter, colours().text)
            return
        left, right = (asked, said) if wanted < painted else (said, asked)
        a, b = sorted((painted, wanted))
        metrics, y = QFontMetricsF(font), top - px(21)
        wide = metrics.horizontalAdvance(left) + px(4)
        begin = max(0.0, a - wide + px(8))
        draw_line(painter, QRectF(begin, y, wide, px(16)), left, font, colour=colours().text)
        then = max(b - px(2), begin + wide + px(6))
        draw_line(painter, QRectF(then, y, self.width() - then, px(16)), right, font, colour=colours().text)

    def _arrow(self, painter: QPainter, of: float, to: float, y: float) -> None:
        way = 1 if to > of else -1
        painter.setPen(QPen(QColor(colours().wrong), 2))
        painter.drawLine(QPointF(of + way * px(5), y), QPointF(to - way * px(9), y))
        painter.setBrush(QColor(colours().wrong))
        painter.setPen(Qt.PenStyle.NoPen)
        tip = to - way * px(3)
        painter.drawPolygon(
            QPolygonF([QPointF(tip, y), QPointF(tip - way * px(8), y - px(4)), QPointF(tip - way * px(8), y + px(4))])
        )

    def _warmth(self, painter: QPainter, fault: Fault, wide: float, y: float) -> None:
        c = fault.colour
        assert c is not None
        soft, ink = colours().soft, QColor(colours().text)
        draw_line(painter, QRectF(0, y - px(9), px(34), px(18)), "cool", lettering(12), colour=soft)
        draw_line(
            painter, QRectF(wide - px(36), y - px(9), px(36), px(18)), "warm", lettering(12), Qt.AlignmentFlag.AlignRight, soft
        )
        left, right = px(38), wide - px(42)
        painter.setPen(QPen(ink, 1))
        painter.drawLine(QPointF(left, y), QPointF(right, y))
        for n in range(9):
            x = left + (right - left) * n / 8
            painter.drawLine(QPointF(x, y - px(3)), QPointF(x, y + px(3)))
        wanted, seen = (warm_and_pink(lab[1], lab[2])[0] for lab in (c.wanted, c.seen))
        middle = (wanted + seen) / 2

        def at(value: float) -> float:
            return left + (right - left) * min(1.0, max(0.0, 0.5 + (value - middle) / _WARM_RANGE))

        if abs(at(wanted) - at(seen)) > px(14):
            self._arrow(painter, at(seen), at(wanted), y)
        painter.setPen(QPen(ink, 1.4))
        for value, full in ((seen, False), (wanted, True)):
            painter.setBrush(ink if full else QColor(colours().field))
            painter.drawEllipse(QPointF(at(value), y), px(4), px(4))


class _Steps(QWidget):
    """How it is mended: a colour and two lines a step."""

    def __init__(self) -> None:
        super().__init__()
        self._mend: Mend | None = None
        self.setAccessibleName("How it is mended")

    def show_mend(self, mend: Mend) -> None:
        self._mend = mend
        self.setAccessibleDescription("; ".join(f"{s.words}: {s.detail}" for s in mend.steps))
        self.setToolTip("\n".join(f"{s.words}: {s.detail}" for s in mend.steps))
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        steps = self._mend.steps[:_MOST_STEPS] if self._mend is not None else ()
        top = 0.0
        for step in steps:
            left = float(px(4))
            if step.srgb is not None:
                painter.setPen(QPen(QColor(colours().text), 0.8))
                painter.setBrush(QColor(*step.srgb))
                painter.drawEllipse(QPointF(px(16), top + px(18)), px(13), px(13))
                left = float(px(38))
            room = self.width() - left - px(4)
            # One step alone has room for two lines of each.
            high = px(36) if len(steps) == 1 else px(19)
            for words, font, colour in (
                (step.words, lettering(14, "bold"), colours().text), (step.detail, lettering(13), colours().soft),
            ):  # fmt: skip
                top += self._words(painter, QRectF(left, top, room, high), words, font, colour)
            top += px(5)
        painter.end()

    def _words(self, painter: QPainter, room: QRectF, words: str, font: QFont, colour: str) -> float:
        """On as many lines as the room has; how high they stand."""
        metrics = QFontMetricsF(font)
        need = metrics.boundingRect(room, Qt.TextFlag.TextWordWrap, words)
        if need.height() > room.height() or room.height() < 2 * metrics.height():
            line = QRectF(room.left(), room.top(), room.width(), px(19))
            draw_line(painter, line, words, font, colour=colour)
            return float(px(20))
        painter.setFont(font)
        painter.setPen(QColor(colour))
        painter.drawText(room, Qt.TextFlag.TextWordWrap, words)
        return need.height() + px(2)


class PlaceStrip(QWidget):
    """`listed()` puts the place on the last list or takes it off, `meant()` says that it is so on purpose or no longer."""

    def __init__(self, listed: Callable[[], None], meant: Callable[[], None]) -> None:
        super().__init__()
        self.setObjectName("choices")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.setFixedHeight(px(_HIGH))
        # It never makes the window wider: what has no room is left out.
        self.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Fixed)
        self.reference, self.painting = (PictureView(n, margin_px=0) for n in ("The reference there", "The painting there"))
        self.scales, self.steps, self.where = _Scales(), _Steps(), PlainLabel()
        self.where.setFont(lettering(13.5, "bold"))
        self.where.setWordWrap(True)
        self.list_button, self.meant_button = QPushButton(), QPushButton()
        self.list_button.clicked.connect(listed)
        self.meant_button.clicked.connect(meant)
        self._area = Rect(0, 0, 1, 1)
        self._boxes: dict[PictureView, QWidget] = {}
        row = QHBoxLayout(self)
        row.setContentsMargins(px(12), px(6), px(10), px(6))
        row.setSpacing(px(12))
        for view, words in ((self.reference, "reference"), (self.painting, "painting, light evened")):
            view.setMinimumSize(px(60), px(60))
            view.setAttribute(Qt.WidgetAttribute.WA_TransparentForMouseEvents)
            view.setFocusPolicy(Qt.FocusPolicy.NoFocus)
            label = PlainLabel()
            label.setText(words)
            label.setFont(lettering(12.5))
            label.setProperty("role", "soft")
            holder = self._boxes[view] = QWidget()
            box = QVBoxLayout(holder)
            box.setContentsMargins(0, 0, 0, 0)
            box.setSpacing(px(2))
            box.addWidget(label)
            box.addWidget(view, 1)
            view.setFixedWidth(px(_LOUPE))
            row.addWidget(holder)
        row.addWidget(self.scales, 5)
        right = QVBoxLayout()
        right.setSpacing(px(4))
        right.addWidget(self.where)
        right.addWidget(self.steps, 1)
        buttons = QHBoxLayout()
        buttons.setSpacing(px(8))
        for button in (self.list_button, self.meant_button):
            button.setFont(lettering(14))
            buttons.addWidget(button)
        buttons.addStretch(1)
        right.addLayout(buttons)
        row.addLayout(right, 6)

    def show_place(
        self, fault: Fault, mend: Mend, painting: Levels, reference: Levels | None, size_mm: Point
    ) -> None:  # fmt: skip
        """That fault, enlarged on both."""
        reach = max(_LEAST_REACH_MM, 0.8 * fault.mm)
        self._area = Rect(fault.at[0] - reach, fault.at[1] - reach, 2 * reach, 2 * reach)
        for view, levels in ((self.reference, reference), (self.painting, painting)):
            view.show_levels(levels, size_mm)
            view.show_overlays(*_marks(fault, view is self.painting))
            view.fit(self._area)
        self.where.setText(fault.where)
        self.scales.show_fault(fault)
        self.steps.show_mend(mend)
        self.list_button.setText("off the list" if fault.listed is not None else "on the last list")
        self.meant_button.setText("not meant so" if fault.meant is not None else "meant so")
        self.list_button.setEnabled(fault.meant is None)
        parent = self.parentWidget()
        self.setVisible(parent is None or parent.height() >= px(_ROOM))

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        for view, least in ((self.reference, _LEAST_BOTH), (self.painting, _LEAST_ONE)):
            self._boxes[view].setVisible(self.width() >= px(least))
            view.setFixedWidth(px(_LOUPE if self.width() >= px(_WIDE) else _SMALL_LOUPE))
            view.fit(self._area)


def _marks(fault: Fault, on_painting: bool) -> tuple[Overlay, ...]:
    if fault.moved is not None:
        drawn = fault.at[0] + fault.moved.right, fault.at[1] + fault.moved.down
        return (Way(drawn, fault.at, "here"),) if on_painting else (Ring(fault.at, radius_px=5, ink="here"),)
    assert fault.colour is not None
    return (Outline(fault.colour.outline, "here", 1.6),) if fault.colour.outline else ()
