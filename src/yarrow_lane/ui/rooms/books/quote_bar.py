"""The quote as a bar with joints: pull a joint for its part, the end for the price, the corner of the canvas for its size."""

from PySide6.QtCore import QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QBrush, QColor, QFontMetricsF, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QWidget

from yarrow_lane.ui.paint.elided import draw_line
from yarrow_lane.ui.pictures import Pictures
from yarrow_lane.ui.references import References
from yarrow_lane.ui.rooms.books.quote_view import QuoteShown
from yarrow_lane.ui.theme.colours import DAY, INK, SURROUND
from yarrow_lane.ui.theme.lettering import lettering, px

_LEFT, _RIGHT = 150, 130
_BAR_TOP, _BAR_HIGH = 70, 52
_GRAB = 7
_FILLS = {"materials": "#7c4f2a", "frame": "#b08a5c", "parcel": "#c8a880", "tax": "#6b6b6b"}
_SIZE_STEP = 10.0  # mm


class QuoteBar(QWidget):
    """`pulled` tells a part's name ("price" for the end) and its amount; `sized` width and height in mm."""

    pulled = Signal(str, int)
    sized = Signal(float, float)

    def __init__(self, pictures: Pictures, references: References) -> None:
        super().__init__()
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setMouseTracking(True)
        self.setMinimumHeight(px(224))
        self._references = references
        self._shown: QuoteShown | None = None
        self._at = -1  # the part the keys stand on; -1 the price
        self._drag = ""
        pictures.arrived.connect(self.update)

    def show_quote(self, shown: QuoteShown | None) -> None:
        self._shown = shown
        if shown is not None:
            self._at = min(self._at, len(shown.segments) - 1)
            self.setAccessibleName(f"{shown.title}: {shown.price_words}, {shown.hour_words}")
        self.update()

    # --- where things stand

    def _x(self, amount: float) -> float:
        assert self._shown is not None
        left, right = px(_LEFT), self.width() - px(_RIGHT)
        return left + (right - left) * amount / self._shown.scale_to

    def _amount(self, x: float) -> int:
        assert self._shown is not None
        left, right = px(_LEFT), self.width() - px(_RIGHT)
        step = self._shown.step
        return round(max(0.0, (x - left) / max(1, right - left)) * self._shown.scale_to / step) * step

    def joints(self) -> list[tuple[str, float, int]]:
        """Each joint that can be pulled: the part it ends, its x, and the amount before that part."""
        found: list[tuple[str, float, int]] = []
        shown, before = self._shown, 0
        if shown is None:
            return []
        for s in shown.segments:
            end = before + max(0, s.amount)
            if s.name not in ("profit", "tax"):
                found.append((s.name, self._x(end), before))
            before = end
        return found

    def _corner(self) -> QRectF:
        box = self._canvas()
        return QRectF(box.right() - px(5), box.bottom() - px(5), px(10), px(10))

    def _canvas(self) -> QRectF:
        shown = self._shown
        assert shown is not None
        scale = px(82) / max(shown.width_mm, shown.height_mm, 500.0)
        return QRectF(px(18), px(40), shown.width_mm * scale, shown.height_mm * scale)

    # --- painting

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        painter.fillRect(self.rect(), QColor(SURROUND))
        painter.setPen(QPen(QColor(0, 0, 0, 90), 1))
        painter.drawLine(0, 0, self.width(), 0)
        if self._shown is not None:
            self._paint(painter, self._shown)
        painter.end()

    def _paint(self, painter: QPainter, shown: QuoteShown) -> None:
        draw_line(
            painter,
            QRectF(px(18), px(8), self.width() - px(40), px(22)),
            shown.title,
            lettering(15, "bold"),
            colour=INK,
        )
        self._paint_canvas(painter, shown)
        self._paint_bar(painter, shown)
        self._paint_axis(painter, shown)
        if self.hasFocus():
            painter.setPen(QPen(QColor("#ffffff"), 1.5, Qt.PenStyle.DashLine))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRect(QRectF(self.rect()).adjusted(3, 3, -3, -3))

    def _paint_canvas(self, painter: QPainter, shown: QuoteShown) -> None:
        box = self._canvas()
        image = self._references.thumbnail(shown.compose) if shown.compose.framed else None
        if image is not None:
            painter.drawImage(box, image)
        else:
            painter.fillRect(box, QColor("#d8d4cc"))
        painter.setPen(QPen(QColor("#ffffff"), 1.3, Qt.PenStyle.DashLine))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawRect(box)
        if not shown.fixed:
            painter.setPen(QPen(QColor(INK), 1.2))
            painter.setBrush(QColor("#ffffff"))
            painter.drawRect(self._corner())
        y = px(40) + px(82) + px(4)
        draw_line(painter, QRectF(px(18), y, px(120), px(18)), shown.size_words, lettering(13.5, "bold"), colour=INK)
        if not shown.fixed:
            draw_line(painter, QRectF(px(18), y + px(17), px(120), px(17)), "pull for size", lettering(12.5), colour=INK)
        for n, (size, price) in enumerate(shown.others[:2]):
            draw_line(
                painter,
                QRectF(px(18), y + px(38) + n * px(17), px(124), px(17)),
                f"{size}: {price}",
                lettering(12.5),
                colour=INK,
            )

    def _paint_bar(self, painter: QPainter, shown: QuoteShown) -> None:
        top, high = px(_BAR_TOP), px(_BAR_HIGH)
        image = self._references.thumbnail(shown.compose) if shown.compose.framed else None
        hours_end = self._x(sum(s.amount for s in shown.segments if s.of_hours))
        painter.setPen(QPen(QColor(INK), 1.2))
        painter.drawPolyline(
            [
                QPointF(px(_LEFT), top - 2),
                QPointF(px(_LEFT), top - px(8)),
                QPointF(hours_end, top - px(8)),
                QPointF(hours_end, top - 2),
            ]
        )
        draw_line(
            painter,
            QRectF(px(_LEFT), top - px(29), self.width() - px(_LEFT) - 8, px(18)),
            shown.hours_words,
            lettering(13, "bold"),
            colour=INK,
        )
        before, label_until = 0, [-1.0, -1.0]
        for n, s in enumerate(shown.segments):
            left, right = self._x(before), self._x(before + max(0, s.amount))
            place = QRectF(left, top, right - left, high)
            if s.of_hours and image is not None:
                share = place.width() / max(1.0, hours_end - px(_LEFT))
                at = (left - px(_LEFT)) / max(1.0, hours_end - px(_LEFT))
                painter.drawImage(
                    place, image, QRectF(at * image.width(), image.height() * 0.3, share * image.width(), image.height() * 0.34)
                )
            elif s.name == "profit":
                painter.fillRect(place, QColor("#dedede"))
                painter.fillRect(place, QBrush(QColor("#5a5a5a"), Qt.BrushStyle.BDiagPattern))
            else:
                painter.fillRect(place, QColor(_FILLS.get(s.name, "#d5d0c6")))
            chosen = self.hasFocus() and n == self._at
            painter.setPen(QPen(QColor("#ffffff" if chosen else INK), 2.6 if chosen else 1.1))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRect(place)
            before += max(0, s.amount)
            self._paint_label(painter, n, s.words + (" ·" if s.pulled else ""), s.detail, left, label_until)
        self._paint_end(painter, shown)

    def _paint_label(self, painter: QPainter, n: int, words: str, detail: str, left: float, until: list[float]) -> None:
        """Beneath the bar in two rows, so that narrow parts keep their words."""
        font, bold = lettering(12.5), lettering(12.5, "bold")
        wide = max(QFontMetricsF(font).horizontalAdvance(words), QFontMetricsF(bold).horizontalAdvance(detail)) + px(8)
        row = 0 if left >= until[0] else 1
        x = max(left, until[row])
        y = px(_BAR_TOP + _BAR_HIGH + 3) + row * px(32)
        if row:
            painter.setPen(QPen(QColor(20, 20, 20, 90), 1))
            painter.drawLine(QPointF(left + 2, px(_BAR_TOP + _BAR_HIGH)), QPointF(left + 2, y + px(4)))
        draw_line(painter, QRectF(x + 3, y, wide, px(16)), words, font, colour=INK)
        draw_line(painter, QRectF(x + 3, y + px(14), wide, px(16)), detail, bold, colour=INK)
        until[row] = x + wide

    def _paint_end(self, painter: QPainter, shown: QuoteShown) -> None:
        x, top, high = self._x(shown.price), px(_BAR_TOP), px(_BAR_HIGH)
        handle = QRectF(x - px(4), top - px(8), px(8), high + px(16))
        painter.setPen(QPen(QColor(INK), 2.2 if self._at == -1 and self.hasFocus() else 1.4))
        painter.setBrush(QColor("#ffffff"))
        painter.drawRoundedRect(handle, 2, 2)
        room = QRectF(x + px(12), top + px(4), self.width() - x - px(16), px(22))
        draw_line(painter, room, shown.price_words, lettering(18, "bold"), colour=INK)
        words = f"{shown.hour_words}, too little" if shown.under else shown.hour_words
        colour = DAY.wrong if shown.under else INK
        if shown.under:
            painter.fillRect(QRectF(room.left() - 3, top + px(27), min(room.width(), px(118)), px(18)), QColor("#e9e2df"))
        draw_line(painter, room.translated(0, px(24)), words, lettering(13, "bold"), colour=colour)

    def _paint_axis(self, painter: QPainter, shown: QuoteShown) -> None:
        y = px(_BAR_TOP + _BAR_HIGH + 72)
        painter.setPen(QPen(QColor(INK), 1.3))
        painter.drawLine(QPointF(self._x(0), y), QPointF(self._x(shown.scale_to), y))
        for amount, words in shown.marks:
            x = self._x(amount)
            painter.setPen(QPen(QColor(INK), 1.3))
            painter.drawLine(QPointF(x, y), QPointF(x, y + px(4)))
            draw_line(
                painter,
                QRectF(x - px(40), y + px(4), px(80), px(16)),
                words,
                lettering(12.5),
                Qt.AlignmentFlag.AlignHCenter,
                INK,
            )
        painter.setPen(QPen(QColor(INK), 1.3))
        painter.setBrush(QColor("#ffffff"))
        for price in shown.lasts:
            painter.drawEllipse(QPointF(self._x(price), y), px(4.5), px(4.5))

    # --- hands

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self.setFocus()
        shown = self._shown
        if shown is None or shown.fixed:
            return
        x, y = event.position().x(), event.position().y()
        if self._corner().adjusted(-px(6), -px(6), px(6), px(6)).contains(event.position()):
            self._drag = "size"
        elif px(_BAR_TOP - 12) <= y <= px(_BAR_TOP + _BAR_HIGH + 12):
            if abs(x - self._x(shown.price)) <= px(_GRAB):
                self._drag, self._at = "price", -1
            else:
                near = min(self.joints(), key=lambda j: abs(j[1] - x), default=None)
                if near is not None and abs(near[1] - x) <= px(_GRAB):
                    self._drag = near[0]
                    self._at = next(n for n, s in enumerate(shown.segments) if s.name == near[0])
        self.update()

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        shown = self._shown
        if shown is None:
            return
        x, y = event.position().x(), event.position().y()
        near = abs(x - self._x(shown.price)) <= px(_GRAB) or any(abs(j[1] - x) <= px(_GRAB) for j in self.joints())
        on_bar = px(_BAR_TOP - 12) <= y <= px(_BAR_TOP + _BAR_HIGH + 12)
        self.setCursor(Qt.CursorShape.SplitHCursor if near and on_bar and not shown.fixed else Qt.CursorShape.ArrowCursor)
        if self._drag == "price":
            self.pulled.emit("price", self._amount(x))
        elif self._drag == "size":
            scale = px(82) / max(shown.width_mm, shown.height_mm, 500.0)
            wide, high = (max(100.0, round(v / scale / _SIZE_STEP) * _SIZE_STEP) for v in (x - px(18), y - px(40)))
            self.sized.emit(min(wide, 3000.0), min(high, 3000.0))
        elif self._drag:
            before = next((b for name, _, b in self.joints() if name == self._drag), 0)
            self.pulled.emit(self._drag, max(0, self._amount(x) - before))

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        self._drag = ""

    def keyPressEvent(self, event: QKeyEvent) -> None:
        shown = self._shown
        if shown is None or shown.fixed:
            super().keyPressEvent(event)
            return
        many = len(shown.segments)
        match event.key():
            case Qt.Key.Key_Left:
                self._at = many - 1 if self._at == -1 else self._at - 1
            case Qt.Key.Key_Right:
                self._at = -1 if self._at == many - 1 else self._at + 1
            case Qt.Key.Key_Up | Qt.Key.Key_Down:
                by = shown.step if event.key() == Qt.Key.Key_Up else -shown.step
                name, now = (
                    ("price", shown.price)
                    if self._at == -1
                    else (shown.segments[self._at].name, shown.segments[self._at].amount)
                )
                self.pulled.emit(name, max(0, now + by))
            case _:
                super().keyPressEvent(event)
        self.update()
