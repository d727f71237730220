"""Every photograph's eyes as close-ups of one size, the best first, a row for each sitter."""

from dataclasses import dataclass

from PySide6.QtCore import QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QColor, QFontMetricsF, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen, QWheelEvent
from PySide6.QtWidgets import QWidget

from yarrow_lane.intake.photos import Eye
from yarrow_lane.intake.sides import sitters_own
from yarrow_lane.ui.paint.photo_tile import cover
from yarrow_lane.ui.pictures import Pictures
from yarrow_lane.ui.rooms.intake.eye_area import eye_area
from yarrow_lane.ui.theme.colours import INK, SURROUND
from yarrow_lane.ui.theme.lettering import lettering, px
from yarrow_lane.ui.theme.sheet import colours


@dataclass(frozen=True)
class EyePair:
    """One photograph in a row: its eyes and the words beneath."""

    photo_id: str
    name: str
    size_px: tuple[int, int]
    eyes: tuple[Eye, ...]
    words: tuple[str, ...]


class EyesRow(QWidget):
    """Arrows and clicks choose; the wheel slides."""

    chosen = Signal(str)

    def __init__(self, pictures: Pictures) -> None:
        super().__init__()
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName("Eyes side by side")
        self._pictures = pictures
        self._rows: tuple[tuple[str, tuple[EyePair, ...]], ...] = ()
        self._chosen_id = ""
        self._slid = 0.0
        pictures.arrived.connect(self.update)

    def show_rows(self, rows: tuple[tuple[str, tuple[EyePair, ...]], ...], chosen_id: str) -> None:
        """Rows of (sitter's name, pairs, the best first)."""
        if chosen_id != self._chosen_id:
            self._chosen_id = chosen_id
            self._rows = rows
            self._bring_into_sight()
        self._rows = rows
        self.update()

    def _bring_into_sight(self) -> None:
        place = next((place for pair, place in self._places() if pair.photo_id == self._chosen_id), None)
        if place is not None and (place.left() < 0 or place.right() > self.width()):
            self._slid = max(0.0, self._slid + place.left() - px(16))

    def _places(self) -> list[tuple[EyePair, QRectF]]:
        side = self._side()
        found = []
        for row, (_, pairs) in enumerate(self._rows):
            top = px(40) + row * (side + px(104))
            for column, pair in enumerate(pairs):
                found.append(
                    (pair, QRectF(px(16) + column * (2 * side + px(20)) - self._slid, top, 2 * side + 2, side + px(62)))
                )
        return found

    def _side(self) -> float:
        """One close-up: as large as the rows allow, yet three photographs side by side."""
        rows = max(1, len(self._rows))
        most = max((len(pairs) for _, pairs in self._rows), default=1)
        across = (self.width() - px(16)) / min(3, max(1, most)) / 2 - px(12)
        return max(px(90), min(px(240), across, (self.height() - px(60)) / rows - px(104)))

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), QColor(SURROUND))
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        painter.setPen(QColor(INK))
        if not any(pairs for _, pairs in self._rows):
            painter.setFont(lettering(17))
            painter.drawText(self.rect(), Qt.AlignmentFlag.AlignCenter, "No eyes yet: take photographs in and mark their eyes.")
        side = self._side()
        painter.setFont(lettering(15, "bold"))
        for row, (name, _) in enumerate(self._rows):
            painter.drawText(QPointF(px(16), px(28) + row * (side + px(104))), name)
        for pair, place in self._places():
            if place.intersects(QRectF(self.rect())):
                self._paint_pair(painter, pair, place, side)
        for row, (_, pairs) in enumerate(self._rows):
            mine = [place for pair, place in self._places() if pair in pairs]
            before = sum(place.right() < side for place in mine)
            after = sum(place.left() > self.width() - side for place in mine)
            painter.setFont(lettering(14, "bold"))
            line = QRectF(0, px(12) + row * (side + px(104)), self.width() - px(16), px(22))
            words = " · ".join(w for w in (f"‹ {before} more" if before else "", f"{after} more ›" if after else "") if w)
            painter.drawText(line, Qt.AlignmentFlag.AlignRight, words)
        painter.end()

    def _paint_pair(self, painter: QPainter, pair: EyePair, place: QRectF, side: float) -> None:
        marked = {e.side: e for e in pair.eyes}
        for n, which in enumerate(("left", "right")):
            box = QRectF(place.x() + n * (side + 2), place.y(), side, side)
            painter.fillRect(box, QColor("#9a9a9a"))
            eye = marked.get(which)  # type: ignore[call-overload]
            image = (
                self._pictures.thumbnail(pair.photo_id, pair.name, eye_area(eye, pair.size_px), f"{which} eye") if eye else None
            )
            if image is not None:
                painter.drawImage(box, image, cover(box, image))
            elif eye is None:
                painter.setPen(QColor(INK))
                painter.setFont(lettering(14))
                painter.drawText(box, Qt.AlignmentFlag.AlignCenter, f"{sitters_own(which)} eye\nnot marked")
        if pair.photo_id == self._chosen_id:
            painter.setPen(QPen(QColor(colours().here), 3))
            painter.drawRect(QRectF(place.x() - 3, place.y() - 3, 2 * side + 8, side + 6))
        painter.setPen(QColor(INK))
        for n, words in enumerate((pair.name, *pair.words)):
            font = lettering(14, "bold" if n == 0 else "normal")
            painter.setFont(font)
            shown = QFontMetricsF(font).elidedText(words, Qt.TextElideMode.ElideRight, 2 * side)
            painter.drawText(QPointF(place.x(), place.y() + side + px(20) + n * px(18)), shown)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        for pair, place in self._places():
            if place.contains(event.position()):
                self.chosen.emit(pair.photo_id)

    def wheelEvent(self, event: QWheelEvent) -> None:
        widest = max((len(pairs) for _, pairs in self._rows), default=0) * (2 * self._side() + px(20))
        self._slid = min(max(0.0, self._slid - event.angleDelta().y() / 2), max(0.0, widest - self.width() + px(32)))
        self.update()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        step = {Qt.Key.Key_Left: -1, Qt.Key.Key_Right: 1}.get(Qt.Key(event.key()))
        order = [pair.photo_id for _, pairs in self._rows for pair in pairs]
        if step is None or not order:
            event.ignore()
            return
        now = order.index(self._chosen_id) if self._chosen_id in order else 0
        self.chosen.emit(order[min(max(0, now + step), len(order) - 1)])
