"""The painting taken apart: what is on it has slid home, what is to come hangs apart on dotted lines with its wait."""

from itertools import combinations
from math import hypot

from PySide6.QtCore import QPointF, QRectF, Qt, Signal
from PySide6.QtGui import (
    QColor,
    QFontMetricsF,
    QImage,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPaintEvent,
    QPen,
    QPolygonF,
    QTransform,
)
from PySide6.QtWidgets import QWidget

from yarrow_lane.ui.paint.elided import draw_line
from yarrow_lane.ui.rooms.deliver.parts_view import PartShown
from yarrow_lane.ui.theme.colours import DAY, INK, SURROUND
from yarrow_lane.ui.theme.lettering import lettering, px

_WHITE = "#ffffff"
_APART = (88.0, 16.0)  # px that a part one step in front stands to the right and lower
_LABEL_W, _LABEL_H = 128, 62
_SHORTER_PX = 0.1  # by less no two are swapped: so it comes to an end
_ABOVE = ("varnish 1", "varnish 2")
_GROW = {"parcel": 0.16, "frame": 0.08, "glassine": 0.03}  # by so much they are larger than the painting
_THICK = {"parcel": 0.5, "frame": 0.14}
Quad = tuple[QPointF, QPointF, QPointF, QPointF]  # from the top left, clockwise


class ExplodedView(QWidget):
    """Left and right walk the parts; Space or a click on one tells it with `touched`."""

    touched = Signal(str)

    def __init__(self) -> None:
        super().__init__()
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setMinimumSize(px(300), px(220))
        self._parts: tuple[PartShown, ...] = ()
        self._image: QImage | None = None
        self._size = (240.0, 300.0)
        self._sides = "#cfcac0"
        self._at = 0

    def show_parts(self, parts: tuple[PartShown, ...], image: QImage | None, size_mm: tuple[float, float], sides: str) -> None:
        """`sides` is their colour as it is seen on the screen."""
        self._parts, self._image, self._size, self._sides = parts, image, size_mm, sides
        self._at = min(self._at, max(0, len(parts) - 1))
        said = {"on": "on it", "next": "next", "ahead": "still to come"}
        self.setAccessibleName("; ".join(f"{p.name}: {said[p.state]}, {', '.join(filter(None, p.words))}" for p in parts))
        self.update()

    # --- where things stand

    def _face(self) -> Quad:
        """The painting's front, seen from the right."""
        behind = 1 + max((-p.depth for p in self._parts if p.state != "on"), default=0.0)
        ahead = 1 + max((p.depth for p in self._parts if p.state != "on"), default=0.0)
        wide = self.width() - px(_APART[0]) * (behind + ahead) * self._squeeze() - px(30)
        largest = 1 + max((_GROW.get(p.key, 0.0) for p in self._parts), default=0.0)
        wide, high = wide / largest, (self.height() - px(2 * _LABEL_H + 52)) / largest
        scale = min(wide / self._size[0], high / (self._size[1] + 0.2 * self._size[0]))
        w, h = self._size[0] * scale, self._size[1] * scale
        rise = 0.2 * w
        left = px(16) + px(_APART[0]) * behind * self._squeeze() + max(0.0, (wide - w) / 2)
        top = px(_LABEL_H + 20) + max(0.0, (high * largest - h - rise) / 2)
        return QPointF(left, top + rise), QPointF(left + w, top), QPointF(left + w, top + h), QPointF(left, top + h + rise)

    def _squeeze(self) -> float:
        """Parts stand closer where the window is narrow."""
        return min(1.0, self.width() / px(980))

    def outline(self, part: PartShown) -> Quad:
        """Where a part hangs: at the painting once it is on."""
        face = self._face()
        if part.key == "signature":
            left, right = face[3], face[2]
            a, b = left + (right - left) * 0.66, left + (right - left) * 0.94
            up = QPointF(0, -(face[3].y() - face[0].y()) * 0.075)
            return a + up, b + up, b + up * 0.25, a + up * 0.25
        away = 0.0 if part.state == "on" else part.depth * self._squeeze()
        by = QPointF(px(_APART[0]) * away, px(_APART[1]) * away * (1.0 if away > 0 else 0.35))
        moved = (face[0] + by, face[1] + by, face[2] + by, face[3] + by)
        grow = _GROW.get(part.key, 0.0)
        if not grow:
            return moved
        return _grown(moved, 1 + grow)

    def labels(self) -> list[tuple[PartShown, QRectF]]:
        """Words above for the coats, beneath for the rest, so placed that no line to a part crosses another."""
        above = [p for p in self._parts if p.key in _ABOVE]
        below = [p for p in self._parts if p.key not in _ABOVE]
        wide = float(px(_LABEL_W))
        found = []
        for n, p in enumerate(above):
            x = self.width() - px(16) - wide * (len(above) - n) * 1.1
            found.append((p, QRectF(x, px(8), wide, px(_LABEL_H - 8))))
        room = (self.width() - px(20)) / max(1, len(below))
        top = self.height() - px(_LABEL_H)
        places = [QRectF(px(14) + n * room, top, min(wide, room - px(6)), px(_LABEL_H - 6)) for n in range(len(below))]
        return found + list(zip(self._uncrossed(below, places), places, strict=True))

    def _uncrossed(self, parts: list[PartShown], places: list[QRectF]) -> list[PartShown]:
        """The parts in such an order that the lines from their words are short: two that cross are longer than the same two swapped."""
        order = sorted(parts, key=lambda p: self._dot(p).x())

        def long(n: int, part: PartShown) -> float:
            away = self._dot(part) - places[n].topLeft()
            return hypot(away.x(), away.y())

        swapped = True
        while swapped:
            swapped = False
            for n, m in combinations(range(len(order)), 2):
                a, b = order[n], order[m]
                if long(n, b) + long(m, a) < long(n, a) + long(m, b) - _SHORTER_PX:
                    order[n], order[m], swapped = b, a, True
        return order

    def _dot(self, part: PartShown) -> QPointF:
        shape = self.outline(part)
        if part.key == "sides":
            return (shape[0] + shape[3]) / 2 + QPointF(-px(7), 0)
        if part.key in _ABOVE:
            return shape[0] + (shape[1] - shape[0]) * (0.82 if part.key == "varnish 1" else 0.93)
        if part.key == "signature":
            return shape[0] + (shape[2] - shape[0]) / 2
        return shape[3] + (shape[2] - shape[3]) * (0.08 if part.depth < 0 else 0.5)

    # --- painting

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        painter.fillRect(self.rect(), QColor(SURROUND))
        for part in self._parts:
            if part.depth < 0:
                self._paint_part(painter, part)
        self._paint_painting(painter)
        for part in self._parts:
            if part.depth >= 0 and part.key != "sides":
                self._paint_part(painter, part)
        for n, (part, place) in enumerate(self.labels()):
            self._paint_label(painter, part, place, self.hasFocus() and n == self._at)
        painter.end()

    def _paint_painting(self, painter: QPainter) -> None:
        face = self._face()
        back = QPointF(-px(16), -px(3))
        done = any(p.key == "sides" and p.state == "on" for p in self._parts)
        painter.setPen(QPen(QColor(INK), 1))
        painter.setBrush(QColor(self._sides if done else "#d8d4ca"))
        painter.drawPolygon(QPolygonF([face[0], face[0] + back, face[3] + back, face[3]]))
        painter.drawPolygon(QPolygonF([face[0], face[0] + back, face[1] + back, face[1]]))
        painter.setBrush(QColor("#d8d4ca"))
        painter.drawPolygon(QPolygonF(face))
        if self._image is not None and not self._image.isNull():
            w, h = float(self._image.width()), float(self._image.height())
            flat = QPolygonF([QPointF(0, 0), QPointF(w, 0), QPointF(w, h), QPointF(0, h)])
            turned = QTransform.quadToQuad(flat, QPolygonF(face))
            if isinstance(turned, QTransform):
                painter.save()
                painter.setTransform(turned, True)
                painter.drawImage(QPointF(0, 0), self._image)
                painter.restore()

    def _pen(self, part: PartShown) -> QPen:
        if part.state == "next":
            return QPen(QColor(DAY.here), 2.6)
        return QPen(QColor(_WHITE), 1.4, Qt.PenStyle.SolidLine if part.state == "on" else Qt.PenStyle.DashLine)

    def _paint_part(self, painter: QPainter, part: PartShown) -> None:
        shape, home = self.outline(part), self._face()
        painter.setBrush(Qt.BrushStyle.NoBrush)
        if part.state != "on" and part.depth:
            painter.setPen(QPen(QColor(255, 255, 255, 120), 1, Qt.PenStyle.DotLine))
            for a, b in zip(shape, home, strict=True):
                painter.drawLine(a, b)
        painter.setPen(self._pen(part))
        if part.key == "hanging":
            self._paint_wire(painter, part, shape)
            return
        if part.state == "on" and part.key in ("glassine", "parcel"):
            painter.setPen(QPen(QColor(_WHITE), 1.4))
        if part.key.startswith("varnish"):
            painter.setBrush(QColor(255, 255, 255, 22 if part.state == "on" else 12))
        painter.drawPolygon(QPolygonF(shape))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        thick = _THICK.get(part.key, 0.0)
        if thick:
            deep = QPointF(-px(_APART[0]) * thick * self._squeeze(), -px(_APART[1]) * thick * 0.6)
            painter.drawPolyline(QPolygonF([shape[0], shape[0] + deep, shape[1] + deep, shape[1]]))
            painter.drawPolyline(QPolygonF([shape[0] + deep, shape[3] + deep, shape[3]]))
        if part.key == "frame":
            painter.drawPolygon(QPolygonF(_grown(shape, 0.92)))
        if part.key == "glassine":
            for n in range(4):
                a, b, c = shape[n], shape[(n + 1) % 4], shape[(n - 1) % 4]
                painter.drawLine(a + (b - a) * 0.12, a + (c - a) * 0.12)

    def _paint_wire(self, painter: QPainter, part: PartShown, shape: Quad) -> None:
        left, right = shape[0] + (shape[3] - shape[0]) / 3, shape[1] + (shape[2] - shape[1]) / 3
        if part.state == "on":
            return  # it is behind the canvas now
        painter.drawPolygon(QPolygonF(shape))
        painter.drawLine(left + (right - left) * 0.06, (left + right) / 2 + QPointF(0, -px(14)))
        painter.drawLine((left + right) / 2 + QPointF(0, -px(14)), right + (left - right) * 0.06)
        for ring in (left + (right - left) * 0.06, right + (left - right) * 0.06):
            painter.drawEllipse(ring, px(4), px(4))

    def _paint_label(self, painter: QPainter, part: PartShown, place: QRectF, chosen: bool) -> None:
        dot = self._dot(part)
        above = place.top() < dot.y() and part.key in _ABOVE
        near = QPointF(place.left() + px(10), place.bottom() + px(1) if above else place.top() - px(1))
        painter.setPen(QPen(QColor(DAY.here if part.state == "next" else _WHITE), 1.2))
        painter.drawLine(near, dot)
        painter.setPen(QPen(QColor(INK), 1.2))
        painter.setBrush(QColor(DAY.here if part.state == "next" else _WHITE if part.state == "on" else SURROUND))
        painter.drawEllipse(dot, px(4.5), px(4.5))
        if chosen:
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.setPen(QPen(QColor(_WHITE), 1.4, Qt.PenStyle.DashLine))
            painter.drawRect(place.adjusted(-4, -2, 2, 2))
        mark = "✓ " if part.state == "on" else ""
        bold = lettering(14, "bold")
        draw_line(painter, QRectF(place.left(), place.top(), place.width(), px(19)), mark + part.name, bold, colour=INK)
        small = lettering(12.5)
        for n, words in enumerate(part.words):
            shown = QFontMetricsF(small).elidedText(words, Qt.TextElideMode.ElideRight, place.width())
            draw_line(
                painter, QRectF(place.left(), place.top() + px(19 + 16 * n), place.width(), px(16)), shown, small, colour=INK
            )

    # --- hands

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self.setFocus()
        at = event.position()
        for n, (part, place) in enumerate(self.labels()):
            dot = self._dot(part) - at
            if place.contains(at) or dot.x() ** 2 + dot.y() ** 2 < px(12) ** 2:
                self._at = n
                self.touched.emit(part.key)
                return

    def keyPressEvent(self, event: QKeyEvent) -> None:
        labels = self.labels()
        if event.key() in (Qt.Key.Key_Left, Qt.Key.Key_Right) and labels:
            self._at = (self._at + (1 if event.key() == Qt.Key.Key_Right else -1)) % len(labels)
            self.update()
        elif event.key() == Qt.Key.Key_Space and labels:
            self.touched.emit(labels[self._at][0].key)
        else:
            super().keyPressEvent(event)


def _grown(quad: Quad, by: float) -> Quad:
    """Larger or smaller about its middle."""
    middle = (quad[0] + quad[2]) / 2
    a, b, c, d = (middle + (corner - middle) * by for corner in quad)
    return a, b, c, d
