"""The client's wall drawn at true scale, on the screen or on paper: the piece, other sizes, what stands below, a person."""

from dataclasses import dataclass

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QImage, QLinearGradient, QPainter, QPainterPath, QPen

from yarrow_lane.measure.raster import Picture
from yarrow_lane.ui.kit.levels import array_of
from yarrow_lane.ui.theme.lettering import lettering, px

PERSON_MM = 1680.0  # our choice: a grown person
_FLOOR_MM = 140.0  # of floor drawn below the wall


@dataclass(frozen=True)
class Hanging:
    """Everything drawn on the wall, mm; `others` are (width, height, words) of other sizes, outlined round the piece."""

    wall: str
    size: tuple[float, float]
    outer: tuple[float, float]
    inset: tuple[float, float]
    bar: str
    framed: bool
    middle_mm: float
    picture: QImage | None
    furniture: tuple[str, float, float]
    words: str
    others: tuple[tuple[float, float, str], ...]


def shown_mm(h: Hanging) -> tuple[float, float]:
    """How much wall is drawn: enough for the piece, what is round it and a person."""
    largest = max([h.outer[0], *(w for w, _, _ in h.others)])
    wide = max(2600.0, largest + 1500.0, h.furniture[1] * 0.62 + largest * 0.6 + 900)
    high = max(2250.0, h.middle_mm + max([h.outer[1], *(o for _, o, _ in h.others)]) / 2 + 120)
    return wide, high + _FLOOR_MM


def wall_picture(hanging: Hanging, width: int, height: int) -> Picture:
    """On a sheet of that many px, (H, W, 3)."""
    image = QImage(width, height, QImage.Format.Format_RGB888)
    image.fill(QColor("white"))
    painter = QPainter(image)
    WallDrawing(hanging, (float(width), float(height))).paint(painter)
    painter.end()
    return array_of(image)


class WallDrawing:
    """One wall on a sheet of so many px."""

    def __init__(self, hanging: Hanging, size: tuple[float, float]) -> None:
        self._hanging, self._size = hanging, size
        wide, high = shown_mm(hanging)
        self._scale = min(size[0] / wide, size[1] / high)  # px for each mm of the wall

    def paint(self, painter: QPainter) -> None:
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        h, scale = self._hanging, self._scale
        floor = self._size[1] - _FLOOR_MM * scale
        wall = QColor(h.wall)
        ink = QColor("#141414") if wall.lightnessF() > 0.42 else QColor("#f0f0f0")
        light = QLinearGradient(0, 0, self._size[0], 0)
        light.setColorAt(0, wall.lighter(104))
        light.setColorAt(1, wall.darker(107))
        painter.fillRect(QRectF(0, 0, *self._size), light)
        painter.fillRect(QRectF(0, floor, self._size[0], self._size[1]), wall.darker(150))
        painter.setPen(QPen(ink, 0.8))
        painter.drawLine(QPointF(0, floor - 90 * scale), QPointF(self._size[0], floor - 90 * scale))
        painter.drawLine(QPointF(0, floor), QPointF(self._size[0], floor))
        centre = self._centre(h, scale)
        self._furniture(painter, h, scale, floor, centre.x(), ink)
        self._person(painter, scale, floor, ink)
        self._others(painter, h, scale, centre, ink)
        self._piece(painter, h, scale, centre)
        self._measures(painter, h, scale, centre, floor, ink)

    def _centre(self, h: Hanging, scale: float) -> QPointF:
        wide, _ = shown_mm(h)
        largest = max([h.outer[0], h.furniture[1] if h.furniture[0] else 0.0, *(w for w, _, _ in h.others)])
        left = max(px(40), (self._size[0] - wide * scale) / 2 + 120 * scale)
        floor = self._size[1] - _FLOOR_MM * scale
        return QPointF(left + min(largest, wide * 0.62) * scale / 2, floor - h.middle_mm * scale)

    def _furniture(self, painter: QPainter, h: Hanging, scale: float, floor: float, middle: float, ink: QColor) -> None:
        name, wide, high = h.furniture
        if not name or not wide or not high:
            return
        box = QRectF(middle - wide * scale / 2, floor - high * scale, wide * scale, high * scale)
        painter.setBrush(QColor(ink.red(), ink.green(), ink.blue(), 22))
        painter.setPen(QPen(ink, 1.1))
        painter.drawRoundedRect(box, px(8), px(8))
        painter.setFont(lettering(13))
        words = f"{name}, {wide / 10:g} × {high / 10:g} cm"
        # At its foot: larger sizes may reach down over its top.
        painter.drawText(box.adjusted(px(10), 0, 0, -px(6)), Qt.AlignmentFlag.AlignBottom | Qt.AlignmentFlag.AlignLeft, words)

    def _person(self, painter: QPainter, scale: float, floor: float, ink: QColor) -> None:
        high = PERSON_MM * scale
        x = self._size[0] - px(40) - 230 * scale
        if x < self._size[0] * 0.55:
            return
        path = QPainterPath()
        path.addEllipse(QPointF(x, floor - high * 0.935), high * 0.046, high * 0.065)
        top = floor - high * 0.855
        path.moveTo(x - high * 0.022, floor - high * 0.877)
        path.lineTo(x - high * 0.026, top)
        path.cubicTo(
            x - high * 0.06, top + high * 0.02, x - high * 0.12, top + high * 0.015, x - high * 0.125, top + high * 0.06
        )
        path.lineTo(x - high * 0.135, floor - high * 0.45)
        path.lineTo(x - high * 0.1, floor - high * 0.45)
        path.lineTo(x - high * 0.088, top + high * 0.14)
        path.lineTo(x - high * 0.09, floor - high * 0.42)
        path.lineTo(x - high * 0.066, floor)
        path.lineTo(x - high * 0.012, floor)
        path.lineTo(x, floor - high * 0.42)
        path.lineTo(x + high * 0.012, floor)
        path.lineTo(x + high * 0.066, floor)
        path.lineTo(x + high * 0.09, floor - high * 0.42)
        path.lineTo(x + high * 0.088, top + high * 0.14)
        path.lineTo(x + high * 0.1, floor - high * 0.45)
        path.lineTo(x + high * 0.135, floor - high * 0.45)
        path.lineTo(x + high * 0.125, top + high * 0.06)
        path.cubicTo(x + high * 0.12, top + high * 0.015, x + high * 0.06, top + high * 0.02, x + high * 0.026, top)
        path.lineTo(x + high * 0.022, floor - high * 0.877)
        path.closeSubpath()
        painter.setPen(QPen(QColor(ink.red(), ink.green(), ink.blue(), 140), 1.1))
        painter.setBrush(QColor(ink.red(), ink.green(), ink.blue(), 12))
        painter.drawPath(path)
        painter.setPen(ink)
        painter.setFont(lettering(12.5))
        painter.drawText(
            QRectF(x - px(60), floor - high - px(20), px(120), px(18)),
            Qt.AlignmentFlag.AlignHCenter,
            f"{PERSON_MM / 10:g}\u202fcm",
        )

    def _others(self, painter: QPainter, h: Hanging, scale: float, centre: QPointF, ink: QColor) -> None:
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.setFont(lettering(12.5))
        for wide, high, words in h.others:
            box = QRectF(centre.x() - wide * scale / 2, centre.y() - high * scale / 2, wide * scale, high * scale)
            painter.setPen(QPen(ink, 1.0, Qt.PenStyle.DashLine))
            painter.drawRect(box)
            at = QRectF(box.left() + px(6), box.top() + px(2), box.width() - px(8), px(18))
            painter.setPen(ink)
            painter.drawText(at, Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter, words)

    def _piece(self, painter: QPainter, h: Hanging, scale: float, centre: QPointF) -> None:
        wide, high = h.outer
        box = QRectF(centre.x() - wide * scale / 2, centre.y() - high * scale / 2, wide * scale, high * scale)
        for step in range(4, 0, -1):
            by = step * 5 * scale + 1
            painter.fillRect(box.translated(by, by), QColor(0, 0, 0, 22))
        if h.framed:
            painter.fillRect(box, QColor(h.bar))
            painter.fillRect(
                box.adjusted(*(m * scale for m in (h.inset[1], h.inset[1], -h.inset[1], -h.inset[1]))), QColor("#1a1816")
            )
        inner = QRectF(box.x() + h.inset[0] * scale, box.y() + h.inset[0] * scale, h.size[0] * scale, h.size[1] * scale)
        if not h.framed and h.inset[0]:
            painter.fillRect(box, QColor("#f4f2ec"))
        if h.picture is not None:
            painter.drawImage(inner, h.picture)
        else:
            painter.fillRect(inner, QColor("#d8d4cc"))

    def _measures(self, painter: QPainter, h: Hanging, scale: float, centre: QPointF, floor: float, ink: QColor) -> None:
        wide, high = h.outer
        below = centre.y() + high * scale / 2
        painter.setPen(ink)
        painter.setFont(lettering(14, "bold"))
        words = QRectF(centre.x() - max(wide * scale, px(240)) / 2, below + px(7), max(wide * scale, px(240)), px(20))
        painter.drawText(words, Qt.AlignmentFlag.AlignHCenter, h.words)
        widest = max([wide, *(w for w, _, _ in h.others)])
        x = centre.x() + widest * scale / 2 + px(16)
        painter.setPen(QPen(ink, 0.8, Qt.PenStyle.DotLine))
        painter.drawLine(QPointF(centre.x() + wide * scale / 2, below), QPointF(x, below))
        painter.setPen(QPen(ink, 1.0))
        painter.drawLine(QPointF(x, below), QPointF(x, floor))
        for y in (below, floor):
            painter.drawLine(QPointF(x - px(4), y), QPointF(x + px(4), y))
        painter.setFont(lettering(12.5))
        lower = (floor - below) / scale
        painter.drawText(
            QRectF(x + px(6), (below + floor) / 2 - px(10), px(140), px(20)),
            Qt.AlignmentFlag.AlignVCenter,
            f"{lower / 10:.0f}\u202fcm up",
        )
