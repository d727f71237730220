"""One well, large: the photograph's colour against its mix, the tubes as bars of their own colour, how it is mixed, and other ways to it."""

from dataclasses import dataclass

from PySide6.QtCore import QRectF, Qt, Signal
from PySide6.QtGui import QColor, QFontMetricsF, QMouseEvent, QPainter, QPaintEvent, QPen, QWheelEvent
from PySide6.QtWidgets import QWidget

from yarrow_lane.ui.paint.elided import draw_line
from yarrow_lane.ui.theme.colours import INK, SURROUND
from yarrow_lane.ui.theme.lettering import lettering, px
from yarrow_lane.ui.theme.sheet import colours

Srgb = tuple[int, int, int]


@dataclass(frozen=True)
class Bar:
    """A tube of the mix: its share 0..1, its parts and name in words, and its own colour."""

    share: float
    parts: str
    name: str
    srgb: Srgb


@dataclass(frozen=True)
class Other:
    """Another way to the colour: its name, price, mix in words and colour; `here` when it is the well's own."""

    name: str
    price: str
    mix: str
    srgb: Srgb
    here: bool


@dataclass(frozen=True)
class ShownMix:
    """All that is drawn of a well; `swatches` with a word each, side by side without a gap, so that they can be compared."""

    title: str
    swatches: tuple[tuple[Srgb, str], ...]
    bars: tuple[Bar, ...]
    words: tuple[str, ...]
    others: tuple[Other, ...]
    note: str = ""


class WellPanel(QWidget):
    """A click on another way takes it (`taken`, its place among the others)."""

    taken = Signal(int)

    def __init__(self) -> None:
        super().__init__()
        self.setAccessibleName("This well's mix")
        self.setMinimumWidth(px(220))
        self._shown: ShownMix | None = None
        self._places: list[QRectF] = []
        self.waiting = ""
        self._slid = self._whole = 0.0

    def show_mix(self, shown: ShownMix | None, waiting: str = "") -> None:
        """Show a well, or words while there is none."""
        if shown is None or self._shown is None or shown.title != self._shown.title:
            self._slid = 0.0
        self._shown, self.waiting = shown, waiting
        self.update()

    @property
    def shown(self) -> ShownMix | None:
        """What is drawn now."""
        return self._shown

    def place_of(self, other: int) -> QRectF:
        """Where another way is drawn."""
        return self._places[other]

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), QColor(SURROUND))
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(QColor(INK))
        self._places = []
        if self._shown is None:
            painter.setFont(lettering(16))
            room = self.rect().adjusted(px(20), px(20), -px(20), -px(20))
            painter.drawText(room, Qt.AlignmentFlag.AlignCenter | Qt.TextFlag.TextWordWrap, self.waiting)
        else:
            self._paint(painter, self._shown)
        painter.end()

    def _paint(self, painter: QPainter, shown: ShownMix) -> None:
        left, width, top = float(px(14)), float(self.width() - px(28)), px(10) - self._slid
        draw_line(painter, QRectF(left, top, width, px(26)), shown.title, lettering(19, "bold"))
        top = self._swatches(painter, shown, left, width, top + px(30))
        top = self._bars(painter, shown.bars, left, width, top + px(8))
        top = self._words(painter, shown, left, width, top + px(4))
        self._whole = self._others(painter, shown.others, left, width, top + px(6)) + self._slid

    def _swatches(self, painter: QPainter, shown: ShownMix, left: float, width: float, top: float) -> float:
        high = px(70) if self.height() > px(560) else px(52)
        each = width / max(1, len(shown.swatches))
        for n, (srgb, word) in enumerate(shown.swatches):
            painter.fillRect(QRectF(left + n * each, top, each + 1, high), QColor(*srgb))
            painter.setPen(QColor(INK))
            draw_line(painter, QRectF(left + n * each, top + high + px(2), each, px(18)), word, lettering(13))
        return top + high + px(20)

    def _bars(self, painter: QPainter, bars: tuple[Bar, ...], left: float, width: float, top: float) -> float:
        most = max((b.share for b in bars), default=1.0)
        longest = 0.42 * width
        for bar in bars:
            painter.setPen(Qt.PenStyle.NoPen)
            long = max(px(5), longest * bar.share / most)
            painter.fillRect(QRectF(left, top, long, px(18)), QColor(*bar.srgb))
            painter.setPen(QColor(INK))
            bold = lettering(15, "bold")
            parts = QFontMetricsF(bold).horizontalAdvance(bar.parts)
            draw_line(painter, QRectF(left + long + px(9), top, parts + px(4), px(20)), bar.parts, bold)
            name = left + long + px(9) + parts + px(9)
            draw_line(painter, QRectF(name, top, left + width - name, px(20)), bar.name, lettering(15))
            top += px(22)
        return top

    def _words(self, painter: QPainter, shown: ShownMix, left: float, width: float, top: float) -> float:
        for text, strong in [(w, False) for w in shown.words] + ([(shown.note, True)] if shown.note else []):
            font = lettering(14, "bold" if strong else "normal")
            painter.setFont(font)
            painter.setPen(QColor(INK))
            flags = Qt.TextFlag.TextWordWrap | Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignTop
            box = painter.boundingRect(QRectF(left, top, width, 2000), flags, text)
            painter.drawText(box, flags, text)
            top = box.bottom() + px(2)
        return top

    def _others(self, painter: QPainter, others: tuple[Other, ...], left: float, width: float, top: float) -> float:
        if not others:
            return top
        painter.setPen(QColor(INK))
        draw_line(painter, QRectF(left, top, width, px(20)), "Ways to it: a click takes one, W the next", lettering(14, "bold"))
        top += px(22)
        for other in others:
            place = QRectF(left, top, width, px(36))
            self._places.append(place)
            painter.fillRect(QRectF(left, top + px(2), px(40), px(31)), QColor(*other.srgb))
            if other.here:
                painter.setPen(QPen(QColor(colours().here), 3))
                painter.setBrush(Qt.BrushStyle.NoBrush)
                painter.drawRect(QRectF(left, top + px(2), px(40), px(31)))
            painter.setPen(QColor(INK))
            price = QFontMetricsF(lettering(13)).horizontalAdvance(other.price) + px(6)
            draw_line(painter, QRectF(left + px(48), top, width - px(48) - price, px(18)), other.name, lettering(13, "bold"))
            draw_line(
                painter,
                QRectF(left + width - price, top, price, px(18)),
                other.price,
                lettering(13),
                Qt.AlignmentFlag.AlignRight,
            )
            draw_line(painter, QRectF(left + px(48), top + px(16), width - px(48), px(18)), other.mix, lettering(13))
            top += px(38)
        return top

    def mousePressEvent(self, event: QMouseEvent) -> None:
        for n, place in enumerate(self._places):
            if place.contains(event.position()):
                self.taken.emit(n)
                return

    def wheelEvent(self, event: QWheelEvent) -> None:
        most = max(0.0, self._whole - self.height())
        self._slid = min(max(0.0, self._slid - event.angleDelta().y() / 2), most)
        self.update()
