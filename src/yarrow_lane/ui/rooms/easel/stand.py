"""The stand: the whole window dim, one place, one well, one brush, at most three lines and the clock, to be read from two metres."""

from PySide6.QtCore import QEvent, QObject, QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QColor, QKeyEvent, QKeySequence, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QWidget

from yarrow_lane.easel.keys import EaselKeys
from yarrow_lane.layers.telling import Remedy
from yarrow_lane.measure.plane import Point, Rect
from yarrow_lane.measure.words import begun
from yarrow_lane.ui.kit.levels import Levels
from yarrow_lane.ui.rooms.easel.stand_letters import BRIGHT, DIM, HERE, INK, QUIET, RULE, Letters
from yarrow_lane.ui.rooms.easel.stand_place import StandPlace
from yarrow_lane.ui.rooms.easel.stand_view import StandView
from yarrow_lane.ui.theme.colours import SURROUND
from yarrow_lane.ui.theme.lettering import SERIF

# Keys that keep their meaning; a pedal or presenter sends the first two.
_FIXED = {Qt.Key.Key_PageDown: "forward", Qt.Key.Key_PageUp: "back", Qt.Key.Key_Space: "clock", Qt.Key.Key_Escape: "leave"}


class Stand(QWidget):
    """Covers its window while it is open; `asked` tells what a key means."""

    asked = Signal(str)

    def __init__(self, window: QWidget) -> None:
        super().__init__(window)
        self._window = window
        self.keys = EaselKeys()
        self.view: StandView | None = None
        self.place = StandPlace()
        self.remedy: Remedy | None = None
        self.said = ""
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setProperty("stand", True)
        self.setAccessibleName("At the easel")
        self.hide()
        window.installEventFilter(self)

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        if watched is self._window and event.type() == QEvent.Type.Resize:
            self.setGeometry(self._window.rect())
        return False

    def open(self) -> None:
        self.setGeometry(self._window.rect())
        self.raise_()
        self.show()
        self.setFocus(Qt.FocusReason.OtherFocusReason)

    def show_view(self, view: StandView, levels: Levels | None, content: Point) -> None:
        self.view, self.place.levels, self.place.content = view, levels, content
        words = (view.title, view.under, *view.lines, view.well, view.brush, view.strokes, *view.dry, f"then {view.then}")
        self.setAccessibleDescription(". ".join(w for w in words if w))
        self.update()

    # --- keys

    def meaning(self, event: QKeyEvent) -> str:
        """What a key means here; "" for nothing."""
        fixed = _FIXED.get(Qt.Key(event.key()))
        if fixed:
            return fixed
        pressed = QKeySequence(event.key()).toString()
        for act in ("forward", "back", "nearly", "flip", "grey", "squint", "strip"):
            if pressed.lower() == getattr(self.keys, act).lower():
                return act
        return {"?": "remedy", "d": "dry", "w": "wet"}.get(event.text().lower(), "")

    def keyPressEvent(self, event: QKeyEvent) -> None:
        meaning = self.meaning(event)
        if event.isAutoRepeat() and meaning:
            return
        if meaning in ("flip", "grey", "squint", "strip"):
            self.place.switch(meaning)
            self.update()
        elif meaning:
            self.asked.emit(meaning)
        # What means nothing here is not passed on: doors do not open behind the stand.

    # --- painting

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        painter.fillRect(self.rect(), QColor(DIM))
        if self.view is not None:
            self._paint(painter, self.view)
        painter.end()

    def resizeEvent(self, event: object) -> None:
        self.place.letters.width, self.place.letters.height = float(self.width()), float(self.height())

    @property
    def _letters(self) -> Letters:
        return self.place.letters

    def picture_box(self) -> QRectF:
        """Where the place is shown."""
        u, w, h = self._letters.unit, self.width(), self.height()
        return QRectF(24 * u, 24 * u, 0.565 * w, h - 288 * u)

    def _paint(self, painter: QPainter, v: StandView) -> None:
        u, w, h = self._letters.unit, self.width(), self.height()
        box = self.picture_box()
        self.place.paint(painter, v, box)
        left, wide = box.right() + 28 * u, w - box.right() - 52 * u
        self._letters.say(painter, QRectF(left, 22 * u, wide, 58 * u), v.title, 46, BRIGHT, "bold", family=SERIF)
        self._letters.say(painter, QRectF(left, 78 * u, wide, 38 * u), v.under, 30, QUIET)
        self._paint_well(painter, v, QRectF(left, 124 * u, wide, 226 * u))
        self._paint_brush(painter, v, QRectF(left, 366 * u, wide, 106 * u))
        tone = HERE if v.wet else QUIET
        for n, words in enumerate(v.dry[:2]):
            self._letters.say(painter, QRectF(left, (474 + 29 * n) * u, wide, 30 * u), words, 25, tone)
        top = h - 254 * u
        lines = v.lines if self.remedy is None else remedy_lines(self.remedy)
        shown = lines[:3]
        first = HERE if self.remedy is not None else BRIGHT
        box = QRectF(24 * u, top, 0.575 * w, 182 * u)
        self._letters.wrapped(painter, box, shown, (first, BRIGHT, BRIGHT)[: len(shown)], 46, 20)
        self._paint_clock(painter, v, QRectF(left, top - 6 * u, wide, 176 * u))
        self._paint_foot(painter, v)
        if self.place.strip:
            self.place.paint_strip(painter, v, v.area or Rect(0, 0, *self.place.content))

    def _paint_foot(self, painter: QPainter, v: StandView) -> None:
        u, w, h = self._letters.unit, self.width(), self.height()
        y = h - 52 * u
        painter.setPen(QPen(QColor(RULE), 1))
        painter.drawLine(QPointF(24 * u, y), QPointF(w - 24 * u, y))
        quiet = self.said or (v.due[-1].words if v.due else "")
        if quiet:
            self._letters.say(painter, QRectF(24 * u, y + 4 * u, 0.6 * w, 42 * u), quiet, 30, HERE, "bold")
        else:
            self._letters.say(painter, QRectF(24 * u, y + 4 * u, 80 * u, 42 * u), "Then", 28, HERE, "bold")
            self._letters.say(painter, QRectF(98 * u, y + 4 * u, 0.52 * w, 42 * u), v.then, 28)
        keys = self.keys
        words = f"{key_word(keys.forward)} on  {key_word(keys.back)} back  {key_word(keys.nearly)} to 80\u202f%  Space clock  ? help  Esc room"
        self._letters.say(
            painter, QRectF(0.62 * w, y + 4 * u, 0.38 * w - 24 * u, 42 * u), words, 21, QUIET, flag=Qt.AlignmentFlag.AlignRight
        )

    # --- the well, the brush, the clock

    def _paint_well(self, painter: QPainter, v: StandView, box: QRectF) -> None:
        u = self._letters.unit
        square = QRectF(box.left(), box.top(), box.height(), box.height())
        painter.fillRect(square, QColor(SURROUND))
        if v.swatch is None:
            self._letters.say(painter, square, "no well yet", 26, INK, flag=Qt.AlignmentFlag.AlignHCenter)
            return
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(QColor(*v.swatch))
        painter.drawEllipse(square.adjusted(16 * u, 16 * u, -16 * u, -16 * u))
        left = square.right() + 24 * u
        if not v.parts:
            self._letters.say(painter, QRectF(left, box.top(), box.right() - left, 60 * u), v.well, 34)
            return
        step = box.height() / max(3, len(v.parts))
        most = max((_amount(p.parts) for p in v.parts), default=1.0)
        for n, part in enumerate(v.parts):
            y = box.top() + n * step
            self._letters.say(
                painter, QRectF(left, y, 62 * u, step - 8 * u), part.parts, 48, BRIGHT, "bold", Qt.AlignmentFlag.AlignRight
            )
            x, room = left + 76 * u, box.right() - left - 76 * u
            self._letters.wrapped(painter, QRectF(x, y, room, step - 26 * u), (part.name,), (BRIGHT,), 28, 15)
            painter.setPen(QPen(QColor(RULE), 1))
            painter.setBrush(QColor(*part.srgb))
            painter.drawRect(QRectF(x, y + step - 27 * u, max(12 * u, room * 0.85 * _amount(part.parts) / most), 14 * u))

    def _paint_brush(self, painter: QPainter, v: StandView, box: QRectF) -> None:
        u = self._letters.unit
        painter.fillRect(box, QColor(SURROUND))
        if not v.brush:
            return
        per_mm = max(2.0, self.logicalDpiX() / 25.4)
        colour = QColor(*(v.swatch or (90, 90, 90)))
        thick = max(2.0, v.stroke_mm[0] * per_mm)
        long = min(box.width() * 0.3, max(6.0, v.stroke_mm[1] * per_mm))
        for n in range(3):
            y = box.top() + box.height() * (0.26 + 0.24 * n)
            painter.setPen(QPen(colour, min(thick, box.height() * 0.2), Qt.PenStyle.SolidLine, Qt.PenCapStyle.RoundCap))
            painter.drawLine(QPointF(box.left() + 22 * u, y), QPointF(box.left() + 22 * u + long, y + 3 * u))
        x = box.left() + box.width() * 0.36
        self._letters.say(painter, QRectF(x, box.top() + 8 * u, box.right() - x - 10 * u, 46 * u), v.brush, 32, INK, "bold")
        self._letters.say(
            painter,
            QRectF(x, box.top() + 52 * u, box.right() - x - 10 * u, 46 * u),
            f"strokes {v.strokes} · {v.paint}",
            27,
            INK,
        )

    def _paint_clock(self, painter: QPainter, v: StandView, box: QRectF) -> None:
        u = self._letters.unit
        if v.ring is not None:
            ring = QRectF(box.left() + 4 * u, box.top() + 8 * u, 104 * u, 104 * u)
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.setPen(QPen(QColor(RULE), 9 * u))
            painter.drawEllipse(ring)
            over = any(r.name.startswith(("step", "break")) for r in v.due)
            painter.setPen(QPen(QColor(HERE if over else "#d8d8d8"), 9 * u, Qt.PenStyle.SolidLine, Qt.PenCapStyle.FlatCap))
            painter.drawArc(ring, 90 * 16, -round(v.ring * 360 * 16))
            self._letters.say(painter, ring, v.ring_words, 48, BRIGHT, "bold", Qt.AlignmentFlag.AlignHCenter)
            self._letters.say(
                painter, QRectF(box.left() - 6 * u, ring.bottom() + 10 * u, 200 * u, 34 * u), "min, step back", 24, QUIET
            )
        at = box.left() + 130 * u
        self._letters.say(
            painter,
            QRectF(at, box.top(), box.right() - at, 116 * u),
            v.clock,
            100,
            BRIGHT if v.ring is not None else QUIET,
            "bold",
            Qt.AlignmentFlag.AlignRight,
        )
        pace = v.pace if v.ring is not None else "Space starts the clock" if v.clock else ""
        self._letters.say(
            painter,
            QRectF(at, box.top() + 120 * u, box.right() - at, 34 * u),
            pace,
            25,
            QUIET,
            flag=Qt.AlignmentFlag.AlignRight,
        )


def remedy_lines(remedy: Remedy) -> tuple[str, ...]:
    """What is seen, its usual cause, and what helps, a line each."""
    return f"{begun(remedy.seen)}:", f"{begun(remedy.cause)}.", f"{begun(remedy.helps)}."


_EIGHTHS = {"⅛": 0.125, "¼": 0.25, "⅜": 0.375, "½": 0.5, "⅝": 0.625, "¾": 0.75, "⅞": 0.875}


def _amount(parts: str) -> float:
    """So many parts, as they are written."""
    whole = "".join(ch for ch in parts if ch.isdigit())
    return (float(whole) if whole else 0.0) + sum(_EIGHTHS.get(ch, 0.0) for ch in parts)


def key_word(key: str) -> str:
    """A key as it is shown."""
    return {"Right": "→", "Left": "←", "Up": "↑", "Down": "↓"}.get(key, key)
