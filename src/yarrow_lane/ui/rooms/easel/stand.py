"""The stand: the whole window dim, one place, one well, one brush, at most three lines and the clock, to be read from two metres."""

from PySide6.QtCore import QEvent, QObject, QPointF, QRectF, Qt, Signal
from PySide6.QtGui import (
    QColor,
    QFont,
    QFontMetricsF,
    QImage,
    QKeyEvent,
    QKeySequence,
    QPainter,
    QPainterPath,
    QPaintEvent,
    QPen,
    QPolygonF,
)
from PySide6.QtWidgets import QWidget

from yarrow_lane.easel.keys import EaselKeys
from yarrow_lane.layers.telling import Remedy
from yarrow_lane.measure.plane import Point, Rect
from yarrow_lane.measure.words import begun
from yarrow_lane.ui.kit.levels import Levels
from yarrow_lane.ui.rooms.easel.stand_view import PatchShape, StandView
from yarrow_lane.ui.theme.colours import SURROUND
from yarrow_lane.ui.theme.lettering import SERIF, lettering

# A room of its own, dim whatever the theme: the paint is judged beside it. Words on it have 11 : 1 and 6 : 1.
_DIM, _BRIGHT, _QUIET, _HERE, _RULE = "#2f2f2f", "#f2f2f2", "#b4b4b4", "#f3c64f", "#5a5a5a"
_INK = "#141414"
_WIDE, _HIGH = 1280.0, 800.0
_SQUINT_PX = 26  # a patch seen through half-closed eyes: our choice

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
        self.levels: Levels | None = None
        self.content: Point = (1.0, 1.0)
        self.remedy: Remedy | None = None
        self.said = ""
        self.upside_down = self.grey = self.squint = self.strip = False
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
        self.view, self.levels, self.content = view, levels, content
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
            name = {"flip": "upside_down"}.get(meaning, meaning)
            setattr(self, name, not getattr(self, name))
            self.update()
        elif meaning:
            self.asked.emit(meaning)
        # What means nothing here is not passed on: doors do not open behind the stand.

    # --- painting

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        painter.fillRect(self.rect(), QColor(_DIM))
        if self.view is not None:
            self._paint(painter, self.view)
        painter.end()

    @property
    def unit(self) -> float:
        """One px of a window of 1280 x 800 here."""
        return min(self.width() / _WIDE, self.height() / _HIGH)

    def _font(self, size: float, weight: str = "normal", family: str | None = None) -> QFont:
        font = lettering(14, weight, family) if family else lettering(14, weight)  # type: ignore[arg-type]
        font.setPixelSize(max(9, round(size * self.unit)))
        return font

    def _say(
        self, painter: QPainter, box: QRectF, words: str, size: float, colour: str = _BRIGHT, weight: str = "normal",
        flag: Qt.AlignmentFlag = Qt.AlignmentFlag.AlignLeft, family: str | None = None,
    ) -> None:  # fmt: skip
        """One line, smaller rather than cut."""
        font = self._font(size, weight, family)
        while QFontMetricsF(font).horizontalAdvance(words) > box.width() and font.pixelSize() > size * self.unit * 0.58:
            font.setPixelSize(font.pixelSize() - 1)
        painter.setFont(font)
        painter.setPen(QColor(colour))
        painter.drawText(
            box,
            flag | Qt.AlignmentFlag.AlignVCenter,
            QFontMetricsF(font).elidedText(words, Qt.TextElideMode.ElideRight, box.width()),
        )

    def _paint_lines(self, painter: QPainter, lines: tuple[str, ...], box: QRectF) -> None:
        """All lines at one size, wrapped, as large as they go; the first of a remedy says what is seen."""
        flags = Qt.TextFlag.TextWordWrap | Qt.AlignmentFlag.AlignLeft
        size = 46.0
        while True:
            metrics = QFontMetricsF(self._font(size))
            highs = [metrics.boundingRect(QRectF(0, 0, box.width(), 9999), flags, line).height() for line in lines]
            if sum(highs) <= box.height() or size <= 20:
                break
            size -= 1
        painter.setFont(self._font(size))
        gap = min(14 * self.unit, (box.height() - sum(highs)) / max(1, len(lines)))
        y = box.top()
        for n, (line, high) in enumerate(zip(lines, highs, strict=True)):
            painter.setPen(QColor(_HERE if self.remedy is not None and n == 0 else _BRIGHT))
            painter.drawText(QRectF(box.left(), y, box.width(), high + 2), flags, line)
            y += high + gap

    def _name(self, painter: QPainter, box: QRectF, words: str) -> None:
        """A tube's name on one line or two."""
        size = 28.0
        flags = Qt.TextFlag.TextWordWrap | Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter
        while size > 15:
            bounds = QFontMetricsF(self._font(size)).boundingRect(box, flags, words)
            if bounds.height() <= box.height() and bounds.width() <= box.width():
                break
            size -= 1
        painter.setFont(self._font(size))
        painter.setPen(QColor(_BRIGHT))
        painter.drawText(box, flags, words)

    def picture_box(self) -> QRectF:
        """Where the place is shown."""
        u, w, h = self.unit, self.width(), self.height()
        return QRectF(24 * u, 24 * u, 0.565 * w, h - 288 * u)

    def _paint(self, painter: QPainter, v: StandView) -> None:
        u, w, h = self.unit, self.width(), self.height()
        box = self.picture_box()
        self._paint_place(painter, v, box)
        left, wide = box.right() + 28 * u, w - box.right() - 52 * u
        self._say(painter, QRectF(left, 22 * u, wide, 58 * u), v.title, 46, _BRIGHT, "bold", family=SERIF)
        self._say(painter, QRectF(left, 78 * u, wide, 38 * u), v.under, 30, _QUIET)
        self._paint_well(painter, v, QRectF(left, 124 * u, wide, 226 * u))
        self._paint_brush(painter, v, QRectF(left, 366 * u, wide, 106 * u))
        tone = _HERE if v.wet else _QUIET
        for n, words in enumerate(v.dry[:2]):
            self._say(painter, QRectF(left, (474 + 29 * n) * u, wide, 30 * u), words, 25, tone)
        top = h - 254 * u
        lines = v.lines if self.remedy is None else remedy_lines(self.remedy)
        self._paint_lines(painter, lines[:3], QRectF(24 * u, top, 0.575 * w, 182 * u))
        self._paint_clock(painter, v, QRectF(left, top - 6 * u, wide, 176 * u))
        self._paint_foot(painter, v)

    def _paint_foot(self, painter: QPainter, v: StandView) -> None:
        u, w, h = self.unit, self.width(), self.height()
        y = h - 52 * u
        painter.setPen(QPen(QColor(_RULE), 1))
        painter.drawLine(QPointF(24 * u, y), QPointF(w - 24 * u, y))
        quiet = self.said or (v.due[-1].words if v.due else "")
        if quiet:
            self._say(painter, QRectF(24 * u, y + 4 * u, 0.6 * w, 42 * u), quiet, 30, _HERE, "bold")
        else:
            self._say(painter, QRectF(24 * u, y + 4 * u, 80 * u, 42 * u), "Then", 28, _HERE, "bold")
            self._say(painter, QRectF(98 * u, y + 4 * u, 0.52 * w, 42 * u), v.then, 28)
        keys = self.keys
        words = f"{key_word(keys.forward)} on  {key_word(keys.back)} back  {key_word(keys.nearly)} to 80\u202f%  Space clock  ? help  Esc room"
        self._say(
            painter, QRectF(0.62 * w, y + 4 * u, 0.38 * w - 24 * u, 42 * u), words, 21, _QUIET, flag=Qt.AlignmentFlag.AlignRight
        )

    # --- the place

    def _frame(self, area: Rect, box: QRectF) -> tuple[float, QPointF]:
        """Screen px per mm, and where the canvas's corner lies."""
        scale = min(box.width() / area.width, box.height() / area.height)
        corner = QPointF(box.center().x() - area.centre[0] * scale, box.center().y() - area.centre[1] * scale)
        return scale, corner

    def _paint_place(self, painter: QPainter, v: StandView, box: QRectF) -> None:
        painter.fillRect(box, QColor("#202020"))
        area = v.area or Rect(0, 0, *self.content)
        scale, corner = self._frame(area, box)
        painter.save()
        painter.setClipRect(box)
        if self.upside_down:
            painter.translate(box.center())
            painter.rotate(180)
            painter.translate(-box.center())
        if self.levels is not None:
            self._paint_picture(painter, area, box, scale, corner)

        def at(p: Point) -> QPointF:
            return QPointF(corner.x() + p[0] * scale, corner.y() + p[1] * scale)

        self._paint_shapes(painter, v, box, at)
        for root, tip in v.arrows if not self.squint else ():
            self._arrow(painter, at(root), at(tip))
        painter.restore()
        if self.levels is not None and len(v.shapes) > 1:
            self._paint_map(painter, v, box)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.setPen(QPen(QColor("#141414"), 1))
        painter.drawRect(box)

    def _paint_picture(self, painter: QPainter, area: Rect, box: QRectF, scale: float, corner: QPointF) -> None:
        assert self.levels is not None
        wanted = self.content[0] * scale
        image = self.levels.for_width(wanted, self.grey)
        if self.squint:
            image = image.scaledToWidth(
                max(4, round(self.content[0] / max(area.width, area.height) * _SQUINT_PX)),
                Qt.TransformationMode.SmoothTransformation,
            )
        whole = QRectF(corner.x(), corner.y(), self.content[0] * scale, self.content[1] * scale)
        painter.drawImage(whole, image)

    def _paint_shapes(self, painter: QPainter, v: StandView, box: QRectF, at) -> None:  # type: ignore[no-untyped-def]
        here = next((s for s in v.shapes if s.state == "here"), None)
        if here is not None and not self.squint:
            veil = QPainterPath()
            veil.addRect(box.adjusted(-box.width(), -box.height(), box.width(), box.height()))
            veil.addPath(_path(here, at))
            veil.setFillRule(Qt.FillRule.OddEvenFill)
            painter.fillPath(veil, QColor(0, 0, 0, 120))
        for shape in v.shapes if len(v.shapes) > 1 else ():
            if shape.state != "here":
                style = Qt.PenStyle.DashLine if shape.state == "coming" else Qt.PenStyle.SolidLine
                painter.setPen(QPen(QColor(230, 230, 230, 170), 1.4 * self.unit, style))
                painter.setBrush(Qt.BrushStyle.NoBrush)
                painter.drawPath(_path(shape, at))
                words = {"done": f"{shape.number} done", "nearly": f"{shape.number} to 80\u202f%"}.get(
                    shape.state, str(shape.number)
                )
                self._at_middle(painter, shape, at, words)
        if here is not None:
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.setPen(QPen(QColor("#141414"), 5 * self.unit))
            painter.drawPath(_path(here, at))
            painter.setPen(QPen(QColor("#ffffff"), 2.4 * self.unit))
            painter.drawPath(_path(here, at))
            if here.number:
                self._badge(painter, here, at)

    def _upright(self, painter: QPainter, centre: QPointF) -> None:
        """Words stay upright while the picture stands on its head."""
        painter.translate(centre)
        if self.upside_down:
            painter.rotate(180)

    def _at_middle(self, painter: QPainter, shape: PatchShape, at, words: str) -> None:  # type: ignore[no-untyped-def]
        centre = QPolygonF([at(p) for p in shape.rings[0]]).boundingRect().center()
        u = self.unit
        painter.save()
        self._upright(painter, centre)
        box = QRectF(-90 * u, -20 * u, 180 * u, 40 * u)
        self._say(painter, box.translated(1.5, 1.5), words, 28, _INK, "bold", Qt.AlignmentFlag.AlignHCenter)
        self._say(painter, box, words, 28, "#f2f2f2", "bold", Qt.AlignmentFlag.AlignHCenter)
        painter.restore()

    def _badge(self, painter: QPainter, shape: PatchShape, at) -> None:  # type: ignore[no-untyped-def]
        u = self.unit
        corner = min(shape.rings[0], key=lambda p: p[0] + p[1] * (1 if not self.upside_down else -1))
        painter.save()
        self._upright(painter, at(corner))
        painter.setPen(QPen(QColor(_INK), 2 * u))
        painter.setBrush(QColor(_HERE))
        painter.drawEllipse(QPointF(0, 0), 32 * u, 32 * u)
        self._say(
            painter,
            QRectF(-32 * u, -32 * u, 64 * u, 64 * u),
            str(shape.number),
            42,
            _INK,
            "bold",
            Qt.AlignmentFlag.AlignHCenter,
        )
        painter.restore()

    def _arrow(self, painter: QPainter, root: QPointF, tip: QPointF) -> None:
        u = self.unit
        along = tip - root
        length = max(1e-6, (along.x() ** 2 + along.y() ** 2) ** 0.5)
        way = along / length
        side = QPointF(-way.y(), way.x())
        head = min(14 * u, 0.35 * length)
        for colour, wide in ((_INK, 7.0), ("#ffffff", 3.6)):
            painter.setPen(QPen(QColor(colour), wide * u, Qt.PenStyle.SolidLine, Qt.PenCapStyle.RoundCap))
            painter.drawLine(root, tip)
            painter.drawLine(tip, tip - way * head + side * head * 0.6)
            painter.drawLine(tip, tip - way * head - side * head * 0.6)
        painter.setPen(QPen(QColor(_INK), 1))
        painter.setBrush(QColor("#ffffff"))
        painter.drawEllipse(root, 5 * u, 5 * u)

    def _paint_map(self, painter: QPainter, v: StandView, box: QRectF) -> None:
        """The climb on the whole canvas, small."""
        assert self.levels is not None
        u = self.unit
        k = min(140 * u / self.content[0], 160 * u / self.content[1])
        wide, high = self.content[0] * k, self.content[1] * k
        place = QRectF(box.right() - wide - 12 * u, box.bottom() - high - 12 * u, wide, high)
        painter.drawImage(place, self.levels.for_width(wide, True))
        painter.setPen(QPen(QColor("#ffffff"), 1))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawRect(place)
        last: QPointF | None = None
        for shape in v.shapes:
            b = (
                QPolygonF([QPointF(place.left() + x * k, place.top() + y * k) for x, y in shape.rings[0]])
                .boundingRect()
                .center()
            )
            if last is not None:
                painter.setPen(
                    QPen(
                        QColor(255, 255, 255, 200), 1, Qt.PenStyle.DotLine if shape.state == "coming" else Qt.PenStyle.SolidLine
                    )
                )
                painter.drawLine(last, b)
            here = shape.state == "here"
            painter.setPen(QPen(QColor(_INK), 1))
            painter.setBrush(QColor(_HERE if here else "#ffffff" if shape.state == "done" else "#8c8c8c"))
            painter.drawEllipse(b, (6 if here else 2.6) * u, (6 if here else 2.6) * u)
            last = b

    def _paint_strip(self, painter: QPainter, v: StandView, area: Rect) -> None:
        """The reference without a white border, at the very edge of the window, to hold the paint beside; the well's colour next to it."""
        assert v.swatch is not None
        wide = 150 * self.unit
        band = QRectF(0, 0, wide, self.height())
        if self.levels is not None:
            image: QImage = self.levels.for_width(self.content[0] * 4, self.grey)
            ratio = image.width() / self.content[0]
            high = min(area.height, area.width * band.height() / wide)
            across = high * wide / band.height()
            source = QRectF(
                (area.centre[0] - across / 2) * ratio, (area.centre[1] - high / 2) * ratio, across * ratio, high * ratio
            )
            painter.drawImage(band, image, source)
        painter.fillRect(QRectF(wide, 0, 60 * self.unit, self.height()), QColor(*v.swatch))

    # --- the well, the brush, the clock

    def _paint_well(self, painter: QPainter, v: StandView, box: QRectF) -> None:
        u = self.unit
        square = QRectF(box.left(), box.top(), box.height(), box.height())
        painter.fillRect(square, QColor(SURROUND))
        if v.swatch is None:
            self._say(painter, square, "no well yet", 26, _INK, flag=Qt.AlignmentFlag.AlignHCenter)
            return
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(QColor(*v.swatch))
        painter.drawEllipse(square.adjusted(16 * u, 16 * u, -16 * u, -16 * u))
        left = square.right() + 24 * u
        if not v.parts:
            self._say(painter, QRectF(left, box.top(), box.right() - left, 60 * u), v.well, 34)
            return
        step = box.height() / max(3, len(v.parts))
        most = max((_amount(p.parts) for p in v.parts), default=1.0)
        for n, part in enumerate(v.parts):
            y = box.top() + n * step
            self._say(
                painter, QRectF(left, y, 62 * u, step - 8 * u), part.parts, 48, _BRIGHT, "bold", Qt.AlignmentFlag.AlignRight
            )
            x, room = left + 76 * u, box.right() - left - 76 * u
            self._name(painter, QRectF(x, y - 4 * u, room, step - 24 * u), part.name)
            painter.setPen(QPen(QColor(_RULE), 1))
            painter.setBrush(QColor(*part.srgb))
            painter.drawRect(QRectF(x, y + step - 27 * u, max(12 * u, room * 0.85 * _amount(part.parts) / most), 14 * u))

    def _paint_brush(self, painter: QPainter, v: StandView, box: QRectF) -> None:
        u = self.unit
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
        self._say(painter, QRectF(x, box.top() + 8 * u, box.right() - x - 10 * u, 46 * u), v.brush, 32, _INK, "bold")
        self._say(
            painter,
            QRectF(x, box.top() + 52 * u, box.right() - x - 10 * u, 46 * u),
            f"strokes {v.strokes} · {v.paint}",
            27,
            _INK,
        )

    def _paint_clock(self, painter: QPainter, v: StandView, box: QRectF) -> None:
        u = self.unit
        if v.ring is not None:
            ring = QRectF(box.left() + 4 * u, box.top() + 8 * u, 104 * u, 104 * u)
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.setPen(QPen(QColor(_RULE), 9 * u))
            painter.drawEllipse(ring)
            over = any(r.name.startswith(("step", "break")) for r in v.due)
            painter.setPen(QPen(QColor(_HERE if over else "#d8d8d8"), 9 * u, Qt.PenStyle.SolidLine, Qt.PenCapStyle.FlatCap))
            painter.drawArc(ring, 90 * 16, -round(v.ring * 360 * 16))
            self._say(painter, ring, v.ring_words, 48, _BRIGHT, "bold", Qt.AlignmentFlag.AlignHCenter)
            self._say(
                painter, QRectF(box.left() - 6 * u, ring.bottom() + 10 * u, 200 * u, 34 * u), "min, step back", 24, _QUIET
            )
        at = box.left() + 130 * u
        self._say(
            painter,
            QRectF(at, box.top(), box.right() - at, 116 * u),
            v.clock,
            100,
            _BRIGHT if v.ring is not None else _QUIET,
            "bold",
            Qt.AlignmentFlag.AlignRight,
        )
        pace = v.pace if v.ring is not None else "Space starts the clock" if v.clock else ""
        self._say(
            painter,
            QRectF(at, box.top() + 120 * u, box.right() - at, 34 * u),
            pace,
            25,
            _QUIET,
            flag=Qt.AlignmentFlag.AlignRight,
        )


def remedy_lines(remedy: Remedy) -> tuple[str, ...]:
    """What is seen, its usual cause, and what helps, a line each."""
    return f"{begun(remedy.seen)}:", f"{begun(remedy.cause)}.", f"{begun(remedy.helps)}."


def _path(shape: PatchShape, at) -> QPainterPath:  # type: ignore[no-untyped-def]
    path = QPainterPath()
    for ring in shape.rings:
        path.addPolygon(QPolygonF([at(p) for p in ring]))
        path.closeSubpath()
    path.setFillRule(Qt.FillRule.OddEvenFill)
    return path


_EIGHTHS = {"⅛": 0.125, "¼": 0.25, "⅜": 0.375, "½": 0.5, "⅝": 0.625, "¾": 0.75, "⅞": 0.875}


def _amount(parts: str) -> float:
    """So many parts, as they are written."""
    whole = "".join(ch for ch in parts if ch.isdigit())
    return (float(whole) if whole else 0.0) + sum(_EIGHTHS.get(ch, 0.0) for ch in parts)


def key_word(key: str) -> str:
    """A key as it is shown."""
    return {"Right": "→", "Left": "←", "Up": "↑", "Down": "↓"}.get(key, key)
