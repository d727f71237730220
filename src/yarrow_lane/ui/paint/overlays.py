"""Draw functions for everything that lies over a picture: each line dark under light, so that it is seen on any photograph."""

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QFontMetricsF, QPainter, QPainterPath, QPen, QPolygonF

from yarrow_lane.measure.plane import Point, Rect
from yarrow_lane.ui.kit.overlays import (
    Arrow,
    Badge,
    Box,
    Cross,
    Drawn,
    Grip,
    Ink,
    Lattice,
    Line,
    Outline,
    Overlay,
    Ring,
    Ticks,
    Veil,
    Wash,
    Way,
    Words,
)
from yarrow_lane.ui.theme.colours import INK
from yarrow_lane.ui.theme.lettering import lettering, px
from yarrow_lane.ui.theme.sheet import colours

_DARK = "#1a1a1a"
_STYLES = {"solid": Qt.PenStyle.SolidLine, "dashes": Qt.PenStyle.DashLine, "dots": Qt.PenStyle.DotLine}


@dataclass(frozen=True)
class Place:
    """Where the picture's units lie on the screen, and where words stand already."""

    origin: QPointF  # of the picture, on the screen
    steps: Point  # px of the screen for one unit to the right and one down; negative while it is seen mirrored
    worded: list[QRectF]
    whole: QRectF  # the picture itself: the surround stays neutral

    @property
    def scale(self) -> float:
        return abs(self.steps[0])

    def to_screen(self, point: Point) -> QPointF:
        return QPointF(self.origin.x() + self.steps[0] * point[0], self.origin.y() + self.steps[1] * point[1])

    def rect(self, rect: Rect) -> QRectF:
        return QRectF(self.to_screen((rect.x, rect.y)), self.to_screen((rect.right, rect.bottom))).normalized()

    def polygon(self, points: Iterable[Point]) -> QPolygonF:
        left, top, (right, down) = self.origin.x(), self.origin.y(), self.steps  # once: a drawing has ten thousand points
        return QPolygonF([QPointF(left + right * x, top + down * y) for x, y in points])


_OFF, _HOLDS = "#ff7a4d", "#a9d68c"  # on pictures of any value, over a dark line; a number or a word always goes with them


def two_pens(ink: Ink, weight: float, line: Line = "solid") -> Sequence[QPen]:
    """The dark line beneath and the light one on it; "dark" is a single line, for bare grounds."""
    style = _STYLES[line]
    if ink == "dark":
        return (QPen(QColor(40, 40, 40, 170), weight, style),)
    light = {"light": "#ffffff", "faint": "#d0d0d0", "here": colours().here, "off": _OFF, "holds": _HOLDS}[ink]
    # Under a hairline the dark one is faint, or it would be all that is seen.
    dark = QColor(20, 20, 20, 200 if weight >= 1 else 110)
    return QPen(dark, weight + 1.8 * min(1.0, weight), style), QPen(QColor(light), weight, style)


def paint_overlay(painter: QPainter, overlay: Overlay, place: Place) -> None:
    """Draw one of them."""
    painter.setBrush(Qt.BrushStyle.NoBrush)
    match overlay:
        case Lattice():
            _lattice(painter, overlay, place)
        case Outline():
            _outline(painter, overlay, place)
        case Box():
            for pen in two_pens(overlay.ink, overlay.weight, overlay.line):
                painter.setPen(pen)
                painter.drawRect(place.rect(overlay.rect))
        case Ring():
            _ring(painter, overlay, place)
        case Cross():
            at, arm = place.to_screen(overlay.at), px(7)
            for pen in two_pens("light", 1.6):
                painter.setPen(pen)
                painter.drawLine(at + QPointF(-arm, 0), at + QPointF(arm, 0))
                painter.drawLine(at + QPointF(0, -arm), at + QPointF(0, arm))
        case Grip():
            at, side = place.to_screen(overlay.at), px(9)
            painter.setBrush(QColor("#ffffff"))
            painter.setPen(QPen(QColor(_DARK), 1.4))
            painter.drawRect(QRectF(at.x() - side / 2, at.y() - side / 2, side, side))
        case Words():
            _words(painter, overlay, place)
        case Arrow():
            _arrow(painter, overlay, place)
        case Veil():
            _veil(painter, overlay, place)
        case Wash():
            _wash(painter, overlay, place)
        case Drawn():
            _drawn(painter, overlay, place)
        case Ticks():
            _ticks(painter, overlay, place)
        case Badge():
            _badge(painter, overlay, place)
        case Way():
            _way(painter, overlay, place)


def _lattice(painter: QPainter, o: Lattice, place: Place) -> None:
    a = o.area
    for pen in two_pens(o.ink, o.weight):
        painter.setPen(pen)
        for x in o.xs:
            painter.drawLine(place.to_screen((x, a.y)), place.to_screen((x, a.bottom)))
        for y in o.ys:
            painter.drawLine(place.to_screen((a.x, y)), place.to_screen((a.right, y)))
    whole, size = place.rect(a), px(24)
    painter.setPen(QColor(INK))
    painter.setFont(lettering(13, "medium"))
    apart = min((abs(two - one) for (one, _), (two, _) in zip(o.columns, o.columns[1:], strict=False)), default=1e9)
    step = 1 if apart * place.scale >= px(15) else 2
    for x, name in o.columns[::step]:
        at = place.to_screen((x, a.y)).x()
        painter.drawText(QRectF(at - size, whole.top() - size, 2 * size, size), Qt.AlignmentFlag.AlignCenter, name)
    for y, name in o.rows[::step]:
        at = place.to_screen((a.x, y)).y()
        box = QRectF(whole.left() - size - px(6), at - size / 2, size + px(2), size)
        painter.drawText(box, Qt.AlignmentFlag.AlignVCenter | Qt.AlignmentFlag.AlignRight, name)


def _outline(painter: QPainter, o: Outline, place: Place) -> None:
    points = place.polygon(o.points)
    if o.filled or o.flat is not None:
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(QColor(*o.flat) if o.flat is not None else QColor(255, 255, 255, 46))
        painter.drawPolygon(points)
        painter.setBrush(Qt.BrushStyle.NoBrush)
    for pen in two_pens(o.ink, o.weight, o.line):
        painter.setPen(pen)
        painter.drawPolygon(points) if o.closed else painter.drawPolyline(points)


def _drawn(painter: QPainter, o: Drawn, place: Place) -> None:
    for paths, style in ((o.paths, Qt.PenStyle.SolidLine), (o.lost, Qt.PenStyle.DashLine)):
        painter.setPen(QPen(QColor(*o.colour), o.weight, style, Qt.PenCapStyle.RoundCap, Qt.PenJoinStyle.RoundJoin))
        for path in paths:
            painter.drawPolyline(place.polygon(path))


def _ticks(painter: QPainter, o: Ticks, place: Place) -> None:
    half = px(4)
    painter.setPen(QPen(QColor(*o.colour), px(2), Qt.PenStyle.SolidLine, Qt.PenCapStyle.FlatCap))
    for point, upright in o.marks:
        at = place.to_screen(point)
        if o.dots:
            painter.setBrush(QColor(*o.colour))
            painter.drawEllipse(at, half, half)
            continue
        along = QPointF(half, 0) if upright else QPointF(0, half)
        painter.drawLine(at - along, at + along)


def _ring(painter: QPainter, o: Ring, place: Place) -> None:
    at, radius = place.to_screen(o.centre), o.radius_px or o.radius * place.scale
    if o.fill is not None:
        painter.setBrush(QColor(*o.fill))
    for pen in two_pens(o.ink, o.weight, o.line):
        painter.setPen(pen)
        painter.drawEllipse(at, radius, radius)


def _words(painter: QPainter, o: Words, place: Place) -> None:
    font = lettering(14, "bold")
    painter.setFont(font)
    width = QFontMetricsF(font).horizontalAdvance(o.text)
    clear = o.clear_of * place.scale + px(4)
    aside = {"left": -width - clear, "right": clear, "over": -width / 2}[o.side]
    at = place.to_screen(o.at) + QPointF(aside + o.shift[0], px(5) + o.shift[1])
    room = painter.fontMetrics().boundingRect(o.text).toRectF().translated(at)
    if any(room.intersects(other) for other in place.worded):
        return
    place.worded.append(room)
    for shift, colour in ((1, _DARK), (0, "#ffffff")):
        painter.setPen(QColor(colour))
        painter.drawText(at + QPointF(shift, shift), o.text)


def _arrow(painter: QPainter, o: Arrow, place: Place) -> None:
    at, turn = place.to_screen(o.to), math.radians(o.degrees)
    towards = QPointF(math.sin(turn), -math.cos(turn))
    reach = max(px(70), o.reach * place.scale)
    tail, tip = at + towards * (reach + px(60)), at + towards * reach
    side = QPointF(-towards.y(), towards.x())
    for shaft, head in zip(two_pens("light", 3.0, "solid" if o.sure else "dashes"), two_pens("light", 3.0), strict=True):
        painter.setPen(shaft)
        painter.drawLine(tail, tip)
        painter.setPen(head)
        painter.drawPolyline([tip + towards * px(12) + side * px(8), tip, tip + towards * px(12) - side * px(8)])
    away = Place(tail, place.steps, place.worded, place.whole)
    _words(painter, Words((0, 0), o.words, shift=(px(4), -px(11))), away)


def _veil(painter: QPainter, o: Veil, place: Place) -> None:
    inside, whole = QPainterPath(), QPainterPath()
    inside.addPolygon(place.polygon(o.around))
    inside.closeSubpath()
    whole.addRect(place.whole)
    painter.fillPath(whole.subtracted(inside), QColor(75, 75, 75, o.opacity))


def _wash(painter: QPainter, o: Wash, place: Place) -> None:
    rect = place.rect(o.rect)
    painter.fillRect(rect, QColor(*o.colour, o.opacity))
    if o.tick:
        size = min(rect.width(), rect.height())
        painter.setPen(QPen(QColor("#2c3f20"), max(1.5, size * 0.05)))
        a, b, c = (QPointF(rect.x() + size * x, rect.y() + size * y) for x, y in ((0.32, 0.52), (0.46, 0.66), (0.70, 0.36)))
        painter.drawPolyline([a, b, c])


def paint_tick(painter: QPainter, middle: QPointF) -> None:
    """A small mark that something is done, seen on any colour."""
    for pen in (QPen(QColor(_DARK), 4), QPen(QColor("#ffffff"), 2)):
        painter.setPen(pen)
        painter.drawPolyline([middle + QPointF(-4, 0), middle + QPointF(-1, 4), middle + QPointF(5, -5)])


def _badge(painter: QPainter, o: Badge, place: Place) -> None:
    centre, radius = place.to_screen(o.at) + QPointF(*o.shift), px(12)
    painter.setPen(QPen(QColor(_DARK), 2.0, Qt.PenStyle.DashLine if o.aside else Qt.PenStyle.SolidLine))
    painter.setBrush(QColor(colours().here if o.chosen else "#ffffff" if not o.aside else "#d8d8d8"))
    painter.drawEllipse(centre, radius, radius)
    painter.setBrush(Qt.BrushStyle.NoBrush)
    painter.setFont(lettering(13.5, "bold"))
    box = QRectF(centre.x() - radius, centre.y() - radius, 2 * radius, 2 * radius)
    painter.drawText(box, Qt.AlignmentFlag.AlignCenter, o.text)


def _way(painter: QPainter, o: Way, place: Place) -> None:
    one, other = place.to_screen(o.of), place.to_screen(o.to)
    along = other - one
    length = math.hypot(along.x(), along.y())
    if length < 1:
        return
    unit = along / length
    head, half = min(px(12), 0.6 * length), px(5)
    across = QPointF(-unit.y(), unit.x())
    base = other - unit * head
    for pen in two_pens(o.ink, o.weight):
        painter.setPen(pen)
        painter.drawLine(one, base)
    painter.setPen(QPen(QColor(_DARK), 1.2))
    painter.setBrush(two_pens(o.ink, o.weight)[-1].color())
    painter.drawPolygon(QPolygonF([other, base + across * half, base - across * half]))
    painter.drawEllipse(one, px(3), px(3))
    painter.setBrush(Qt.BrushStyle.NoBrush)
