"""All photographs of a commission as cards."""

import time

from PySide6.QtCore import QPointF, QRectF, QSize, Qt, QTimer, Signal
from PySide6.QtGui import QColor, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen, QPixmap, QWheelEvent
from PySide6.QtWidgets import QWidget

from yarrow_lane.ui.paint.photo_tile import TilePaint, paint_tile
from yarrow_lane.ui.pictures import Pictures
from yarrow_lane.ui.rooms.intake.eye_area import eye_area
from yarrow_lane.ui.rooms.intake.view import Tile
from yarrow_lane.ui.theme.colours import INK, SURROUND
from yarrow_lane.ui.theme.lettering import lettering, px
from yarrow_lane.ui.theme.sheet import colours

_DRAWING_S = 0.03  # our choice: so long one painting may draw new cards
_MOST_CARDS = 80  # our choice: more than a large window shows


class PhotoGrid(QWidget):
    """Arrows walk, Enter or double click looks closer; the wheel scrolls."""

    chosen = Signal(str)
    opened = Signal(str)

    def __init__(self, pictures: Pictures) -> None:
        super().__init__()
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName("The photographs")
        self._pictures = pictures
        self._tiles: tuple[Tile, ...] = ()
        self._chosen_id = ""
        self._slid = 0.0
        self._cards: dict[str, tuple[object, QPixmap]] = {}
        pictures.arrived.connect(self.update)

    def show_tiles(self, tiles: tuple[Tile, ...], chosen_id: str) -> None:
        self._tiles, self._chosen_id = tiles, chosen_id
        self._slid = min(self._slid, self._longest())
        self.update()

    # --- places

    def _layout(self) -> tuple[int, float, float]:
        gap = px(14)
        columns = max(1, int((self.width() - gap) / px(258)))
        width = (self.width() - gap * (columns + 1)) / columns
        return columns, width, width * 0.68 + px(92)

    def _place(self, number: int) -> QRectF:
        columns, width, height = self._layout()
        gap = px(14)
        row, column = divmod(number, columns)
        return QRectF(gap + column * (width + gap), gap + row * (height + gap) - self._slid, width, height)

    def _longest(self) -> float:
        columns, _, height = self._layout()
        rows = -(-len(self._tiles) // columns)
        return max(0.0, rows * (height + px(14)) + px(14) - self.height())

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), QColor(SURROUND))
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        if not self._tiles:
            painter.setPen(QColor(INK))
            painter.setFont(lettering(17))
            words = "Drop the client's photographs here.\nJPEG, PNG, TIFF, WebP or HEIC, as many as there are."
            painter.drawText(self.rect(), Qt.AlignmentFlag.AlignCenter, words)
        begin, left_out = time.perf_counter(), False
        for number, tile in enumerate(self._tiles):
            place = self._place(number)
            if not place.intersects(QRectF(self.rect())):
                continue
            # Cards that are new take a few milliseconds each: when many come at once, the rest follow in the next turn.
            drawn = self._paint_tile(painter, place, tile, may_draw=time.perf_counter() - begin < _DRAWING_S)
            left_out = left_out or not drawn
        painter.end()
        if left_out:
            QTimer.singleShot(0, self.update)

    def _paint_tile(self, painter: QPainter, place: QRectF, t: Tile, may_draw: bool) -> bool:
        card = self._card(place.size().toSize(), t, may_draw)
        if card is None:
            painter.fillRect(place, QColor(colours().panel))
        else:
            painter.drawPixmap(place.topLeft(), card)
        if t.photo_id == self._chosen_id:
            painter.setPen(QPen(QColor(colours().here), 3))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRect(place.adjusted(-2, -2, 2, 2))
        return card is not None

    def _card(self, size: QSize, t: Tile, may_draw: bool) -> QPixmap | None:
        """The card as it was drawn last, or drawn anew where there is time: None where there is not."""
        image = self._pictures.thumbnail(t.photo_id, t.name)
        eyes = tuple(self._pictures.thumbnail(t.photo_id, t.name, eye_area(e, t.size_px), f"{e.side} eye") for e in t.eyes)
        state = (t, size.toTuple(), colours(), *(i.cacheKey() if i is not None else 0 for i in (image, *eyes)))
        kept = self._cards.get(t.photo_id)
        if kept is not None and kept[0] == state:
            return kept[1]
        if not may_draw:
            return None
        card = QPixmap(size)
        painter = QPainter(card)
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        paint_tile(painter, QRectF(card.rect()), TilePaint(t.name, t.use, t.lines, t.share, t.mood, image, eyes))
        painter.end()
        while len(self._cards) >= _MOST_CARDS:
            self._cards.pop(next(iter(self._cards)))
        self._cards[t.photo_id] = (state, card)
        return card

    # --- hands

    def _at(self, position: QPointF) -> str:
        return next((t.photo_id for n, t in enumerate(self._tiles) if self._place(n).contains(position)), "")

    def mousePressEvent(self, event: QMouseEvent) -> None:
        if found := self._at(event.position()):
            self.chosen.emit(found)

    def mouseDoubleClickEvent(self, event: QMouseEvent) -> None:
        if found := self._at(event.position()):
            self.opened.emit(found)

    def wheelEvent(self, event: QWheelEvent) -> None:
        self._slid = min(max(0.0, self._slid - event.angleDelta().y() / 2), self._longest())
        self.update()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        columns = self._layout()[0]
        steps = {Qt.Key.Key_Left: -1, Qt.Key.Key_Right: 1, Qt.Key.Key_Up: -columns, Qt.Key.Key_Down: columns}
        step = steps.get(Qt.Key(event.key()))
        if step is None or not self._tiles:
            event.ignore()
            return
        now = next((n for n, t in enumerate(self._tiles) if t.photo_id == self._chosen_id), 0)
        number = min(max(0, now + step), len(self._tiles) - 1)
        place = self._place(number)
        if place.top() < 0 or place.bottom() > self.height():
            self._slid = min(max(0.0, self._slid + place.top() - px(14)), self._longest())
        self.chosen.emit(self._tiles[number].photo_id)
