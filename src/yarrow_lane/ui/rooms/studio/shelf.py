"""The shelf: every canvas at one true scale."""

from PySide6.QtCore import QEvent, QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QColor, QFontMetricsF, QHelpEvent, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen, QWheelEvent
from PySide6.QtWidgets import QToolTip, QWidget

from yarrow_lane.tone.grounds import ground_srgb
from yarrow_lane.ui.kit.plain import tip
from yarrow_lane.ui.pictures import Pictures
from yarrow_lane.ui.references import References
from yarrow_lane.ui.rooms.studio.view import ShelfCanvas
from yarrow_lane.ui.theme.colours import INK, SURROUND
from yarrow_lane.ui.theme.lettering import lettering, px
from yarrow_lane.ui.theme.sheet import colours

_MOST_SCALE = 0.62  # our choice: 40 cm stand 250 px high; one canvas alone does not fill the wall
_LEAST_SCALE = 0.09  # screen px per mm at which a canvas can still be recognised: our choice


_BARS = ((1000.0, "1 m"), (500.0, "50 cm"), (200.0, "20 cm"), (100.0, "10 cm"), (50.0, "5 cm"))


class Shelf(QWidget):
    """Arrows walk along, Enter or double click opens. `selected` tells the commission's id."""

    selected = Signal(str)
    opened = Signal(str)

    def __init__(self, pictures: Pictures, references: References) -> None:
        super().__init__()
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setMinimumHeight(px(160))
        self.setAccessibleName("The shelf")
        self._references = references
        self._canvases: tuple[ShelfCanvas, ...] = ()
        self._chosen = ""
        self._slid = 0.0
        pictures.arrived.connect(self.update)

    def show_canvases(self, canvases: tuple[ShelfCanvas, ...], chosen: str) -> None:
        self._canvases, self._chosen = canvases, chosen
        self.update()

    # --- where each canvas stands

    def _scale(self) -> float:
        room_h = self.height() - px(40) - px(78)
        tallest = max(c.height_mm for c in self._canvases)
        wide = sum(c.width_mm for c in self._canvases)
        gaps = px(34) * (len(self._canvases) - 1) + px(48)
        return max(_LEAST_SCALE, min(px(1000) / 1000 * _MOST_SCALE, room_h / tallest, (self.width() - gaps) / wide))

    def places(self) -> list[tuple[ShelfCanvas, QRectF, float]]:
        """Each canvas with its rectangle on the screen and the width its words may take."""
        if not self._canvases:
            return []
        scale = self._scale()
        board = self.height() - px(78)
        x = px(24) - self._slid
        found: list[tuple[ShelfCanvas, QRectF, float]] = []
        many = len(self._canvases)
        # Words get their usual room, or less when the shelf is full: a canvas out of sight is worse than a short word.
        words = min(px(96), max(px(66), (self.width() - px(48)) / many - px(22)))
        total = sum(max(c.width_mm * scale, words) for c in self._canvases)
        gap = max(px(22), min(px(60), (self.width() - px(48) - total) / max(1, many - 1)))
        for c in self._canvases:
            width, height = c.width_mm * scale, c.height_mm * scale
            step = max(width, words) + gap
            found.append((c, QRectF(x, board - height, width, height), step - px(10)))
            x += step
        return found

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), QColor(SURROUND))
        painter.setPen(QColor(INK))
        painter.setFont(lettering(14))
        places = self.places()
        if places:
            painter.drawText(QPointF(px(20), px(24)), "The shelf, all at one scale")
            self._paint_scale(painter)
        else:
            painter.setFont(lettering(17))
            words = "The shelf is empty.\nDrop the client's photographs here: they start a commission.\nOr press Enter to start one by hand."
            painter.drawText(self.rect().adjusted(0, 0, 0, -px(78)), Qt.AlignmentFlag.AlignCenter, words)
        board = self.height() - px(78)
        painter.fillRect(QRectF(0, board, self.width(), px(8)), QColor("#5c5c5c"))
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        for canvas, rect, room in places:
            # Only what is in sight asks for its picture: a shelf may hold thousands.
            if rect.right() + room > 0 and rect.left() < self.width():
                self._paint_canvas(painter, canvas, rect, room)
        self._say_what_is_out_of_sight(painter, places)
        painter.end()

    def _paint_scale(self, painter: QPainter) -> None:
        """A bar of a round length at the shelf's scale."""
        length, words = next(((mm, w) for mm, w in _BARS if mm * self._scale() <= px(120)), _BARS[-1])
        x, y, wide = px(220), px(19), length * self._scale()
        painter.fillRect(QRectF(x, y, wide, 2), QColor(INK))
        for end in (x, x + wide - 1):
            painter.fillRect(QRectF(end, y - px(4), 1.5, px(4) + 2), QColor(INK))
        painter.setPen(QColor(INK))
        painter.setFont(lettering(13))
        painter.drawText(QPointF(x + wide + px(8), y + px(5)), words)

    def _say_what_is_out_of_sight(self, painter: QPainter, places: list[tuple[ShelfCanvas, QRectF, float]]) -> None:
        before = sum(rect.right() < 0 for _, rect, _ in places)
        after = sum(rect.left() > self.width() - px(30) for _, rect, _ in places)
        words = " · ".join(w for w in (f"‹ {before} more" if before else "", f"{after} more ›" if after else "") if w)
        painter.setFont(lettering(14, "bold"))
        painter.setPen(QColor(INK))
        painter.drawText(QRectF(0, px(10), self.width() - px(20), px(20)), Qt.AlignmentFlag.AlignRight, words)

    def _paint_canvas(self, painter: QPainter, c: ShelfCanvas, rect: QRectF, room: float) -> None:
        painter.fillRect(rect.translated(px(3), px(3)), QColor("#6b6b6b"))
        if c.sized:
            painter.fillRect(rect, QColor(*ground_srgb(c.ground)))
            image = self._references.thumbnail(c.compose)
            if image is not None:
                # What is not painted yet shows faintly over the ground.
                painter.setOpacity(0.35 + 0.65 * c.share_painted)
                painter.drawImage(rect, image)
                painter.setOpacity(1.0)
            painter.setPen(QPen(QColor("#2e2e2e"), 1))
        else:
            painter.fillRect(rect, QColor("#a0a0a0"))
            painter.setPen(QPen(QColor("#3c3c3c"), 1, Qt.PenStyle.DashLine))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawRect(rect)
        if c.commission_id == self._chosen:
            painter.setPen(QPen(QColor(colours().here), 3))
            painter.drawRect(rect.adjusted(-4, -4, 4, 4))
        self._paint_words(painter, c, rect, room)

    def _paint_words(self, painter: QPainter, c: ShelfCanvas, rect: QRectF, room: float) -> None:
        y = rect.bottom() + px(12)
        bold, small = lettering(15, "bold"), lettering(13)
        lines = ((c.title, bold, INK), (c.size, small, INK), (c.worry or c.words, small, INK))
        for number, (text, font, colour) in enumerate(lines):
            painter.setFont(font)
            painter.setPen(QColor(colour))
            if number == 2 and c.worry:
                text = f"! {text}"
            here = min(room, self.width() - rect.left() - px(6)) if rect.left() < self.width() - px(30) else room
            shown = QFontMetricsF(font).elidedText(text, Qt.TextElideMode.ElideRight, here)
            painter.drawText(QPointF(rect.left(), y + px(8) + number * px(18)), shown)

    # --- hands

    def _index(self) -> int:
        return next((n for n, c in enumerate(self._canvases) if c.commission_id == self._chosen), 0)

    def _at(self, point: QPointF) -> ShelfCanvas | None:
        """The canvas at a place, its words included."""
        places = (
            (canvas, QRectF(rect.left(), rect.top(), max(rect.width(), room), self.height() - rect.top()))
            for canvas, rect, room in self.places()
        )
        return next((canvas for canvas, place in places if place.contains(point)), None)

    def event(self, event: QEvent) -> bool:
        """All that is known of a canvas, whole, shows under the pointer."""
        if isinstance(event, QHelpEvent) and event.type() == QEvent.Type.ToolTip:
            c = self._at(QPointF(event.pos()))
            words = ", ".join(filter(None, (c.title, c.size, c.worry or c.words))) if c is not None else ""
            QToolTip.showText(event.globalPos(), tip(words), self)
            return True
        return super().event(event)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        canvas = self._at(event.position())
        if canvas is not None:
            self.selected.emit(canvas.commission_id)

    def mouseDoubleClickEvent(self, event: QMouseEvent) -> None:
        for canvas, rect, _ in self.places():
            if rect.contains(event.position()):
                self.opened.emit(canvas.commission_id)

    def wheelEvent(self, event: QWheelEvent) -> None:
        places = self.places()
        if places:
            overhang = max(0.0, places[-1][1].right() + self._slid - self.width() + px(120))
            self._slid = min(max(0.0, self._slid - event.angleDelta().y() / 2), overhang)
            self.update()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        step = {Qt.Key.Key_Left: -1, Qt.Key.Key_Right: 1}.get(Qt.Key(event.key()))
        if step is None or not self._canvases:
            event.ignore()
            return
        chosen = self._canvases[(self._index() + step) % len(self._canvases)].commission_id
        self.selected.emit(chosen)
        self.show_chosen()

    def show_chosen(self) -> None:
        """Slide the shelf until the chosen canvas is in sight."""
        for canvas, rect, _ in self.places():
            if canvas.commission_id == self._chosen and not (rect.left() >= 0 and rect.right() <= self.width()):
                self._slid = max(0.0, self._slid + rect.left() - px(40))
                self.update()
