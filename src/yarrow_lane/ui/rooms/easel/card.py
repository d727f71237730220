"""The easel card: the region shown, the rest dimmed; words to be read from two metres."""

from PySide6.QtCore import QRectF, Qt
from PySide6.QtGui import QColor, QFontMetricsF, QPainter, QPainterPath, QPaintEvent, QPen, QPolygonF
from PySide6.QtWidgets import QWidget

from yarrow_lane.layers.regions import Region
from yarrow_lane.measure.plane import Rect, polygon_bounds
from yarrow_lane.ui.kit.reference_canvas import ReferenceCanvas
from yarrow_lane.ui.rooms.easel.view import EaselView
from yarrow_lane.ui.theme.lettering import SERIF, lettering, px
from yarrow_lane.ui.theme.sheet import colours

_AIR = 0.18  # of the region's size left round it: our choice


class RegionShown(ReferenceCanvas):
    """The crop, enlarged to the region being painted, everything else dimmed. Z shows the whole."""

    def __init__(self) -> None:
        super().__init__("Where to paint")
        self._region: Region | None = None
        self.whole = False

    def show_region(self, region: Region | None) -> None:
        if region != self._region:
            self._region = region
            self._aim()
        self.update()

    def toggle_whole(self) -> None:
        self.whole = not self.whole
        self._aim()

    def arrived(self) -> None:
        self._aim()

    def _aim(self) -> None:
        if self._region is None or self.whole:
            self.fit()
            return
        b = polygon_bounds(self._region.outline)
        air = max(b.width, b.height) * _AIR
        left, top = max(0.0, b.x - air), max(0.0, b.y - air)
        right, bottom = min(self.content[0], b.right + air), min(self.content[1], b.bottom + air)
        self.fit(Rect(left, top, right - left, bottom - top))

    def resizeEvent(self, event: object) -> None:
        self._aim()

    def paint_over(self, painter: QPainter) -> None:
        if self.levels is None or self._region is None:
            return
        outline = QPainterPath()
        outline.addPolygon(QPolygonF([self.to_screen(p) for p in self._region.outline]))
        outline.closeSubpath()
        rest = QPainterPath()
        rest.addRect(self.screen_rect(Rect(0, 0, *self.content)))
        painter.fillPath(rest.subtracted(outline), QColor(110, 110, 110, 190))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        for colour, width in (("#1a1a1a", 3.5), ("#ffffff", 1.6)):
            painter.setPen(QPen(QColor(colour), width))
            painter.drawPath(outline)


class CardWords(QWidget):
    """What to paint now, over what, and the clock."""

    def __init__(self) -> None:
        super().__init__()
        self.setFixedHeight(px(216))
        self._view: EaselView | None = None

    def show_view(self, view: EaselView) -> None:
        self._view = view
        self.setAccessibleName(f"{view.where}: {view.title}, {view.dry}")
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        c = colours()
        painter.fillRect(self.rect(), QColor(c.panel))
        view = self._view
        if view is not None:
            self._paint(painter, view)
        painter.end()

    def _paint(self, painter: QPainter, view: EaselView) -> None:
        c = colours()
        left, right = px(26), px(26)
        clock_w = 0.0
        if view.clock:
            font = lettering(72, "bold")
            painter.setFont(font)
            clock_w = QFontMetricsF(font).horizontalAdvance("0:00:00") + px(30)
            painter.setPen(QColor(c.text if view.running else c.soft))
            box = QRectF(self.width() - clock_w - right, px(34), clock_w, px(84))
            painter.drawText(box, Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter, view.clock)
            painter.setFont(lettering(20))
            words = "painting · Space stops" if view.running else "Space starts the clock"
            painter.drawText(
                QRectF(box.left() - px(80), box.bottom(), clock_w + px(80), px(30)), Qt.AlignmentFlag.AlignRight, words
            )
        room = self.width() - left - right - clock_w - px(10)
        self._line(painter, view.where, lettering(26, "medium"), c.soft, px(44), left, room)
        self._line(painter, view.title, lettering(52, "bold", SERIF), c.text, px(106), left, room)
        mark = {"good": "✓ ", "wrong": "✕ "}.get(view.dry_tone, "") if view.dry else ""
        colour = {"good": c.holds, "wrong": c.wrong}.get(view.dry_tone, c.text)
        self._line(painter, mark + view.dry, lettering(28, "medium"), colour, px(184), left, self.width() - left - right)

    @staticmethod
    def _line(painter: QPainter, text: str, font: object, colour: str, y: float, x: float, room: float) -> None:
        metrics = QFontMetricsF(font)  # type: ignore[call-overload]
        # Long names shrink before they are cut: the card must be read as a whole.
        while metrics.horizontalAdvance(text) > room and font.pixelSize() > px(20):  # type: ignore[attr-defined]
            font.setPixelSize(font.pixelSize() - 2)  # type: ignore[attr-defined]
            metrics = QFontMetricsF(font)  # type: ignore[call-overload]
        painter.setFont(font)  # type: ignore[arg-type]
        painter.setPen(QColor(colour))
        painter.drawText(
            QRectF(x, y - px(40), room, px(56)),
            Qt.AlignmentFlag.AlignVCenter,
            metrics.elidedText(text, Qt.TextElideMode.ElideRight, room),
        )
