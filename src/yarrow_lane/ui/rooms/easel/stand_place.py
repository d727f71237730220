"""The place to paint on the stand: the reference enlarged, the patches, the strokes as arrows, and the climb as a small map."""

from collections.abc import Callable
from dataclasses import dataclass, field

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QImage, QPainter, QPainterPath, QPen, QPolygonF

from yarrow_lane.measure.plane import Point, Rect
from yarrow_lane.ui.kit.levels import Levels
from yarrow_lane.ui.rooms.easel.stand_letters import BRIGHT, HERE, INK, Letters
from yarrow_lane.ui.rooms.easel.stand_view import PatchShape, StandView

_SQUINT_PX = 26  # a patch seen through half-closed eyes: our choice
At = Callable[[Point], QPointF]


@dataclass
class StandPlace:
    """Painted by the stand; how it is looked at is switched by keys."""

    letters: Letters = field(default_factory=Letters)
    levels: Levels | None = None
    content: Point = (1.0, 1.0)
    upside_down: bool = False
    grey: bool = False
    squint: bool = False
    strip: bool = False

    @property
    def unit(self) -> float:
        return self.letters.unit

    def switch(self, what: str) -> None:
        """Another way of looking, or back."""
        name = {"flip": "upside_down"}.get(what, what)
        setattr(self, name, not getattr(self, name))

    def _frame(self, area: Rect, box: QRectF) -> tuple[float, QPointF]:
        """Screen px per mm, and where the canvas's corner lies."""
        scale = min(box.width() / area.width, box.height() / area.height)
        corner = QPointF(box.center().x() - area.centre[0] * scale, box.center().y() - area.centre[1] * scale)
        return scale, corner

    def paint(self, painter: QPainter, v: StandView, box: QRectF) -> None:
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
        painter.setPen(QPen(QColor(INK), 1))
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

    def _paint_shapes(self, painter: QPainter, v: StandView, box: QRectF, at: At) -> None:
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
            painter.setPen(QPen(QColor(INK), 5 * self.unit))
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

    def _at_middle(self, painter: QPainter, shape: PatchShape, at: At, words: str) -> None:
        centre = QPolygonF([at(p) for p in shape.rings[0]]).boundingRect().center()
        u = self.unit
        painter.save()
        self._upright(painter, centre)
        box = QRectF(-90 * u, -20 * u, 180 * u, 40 * u)
        self.letters.say(painter, box.translated(1.5, 1.5), words, 28, INK, "bold", Qt.AlignmentFlag.AlignHCenter)
        self.letters.say(painter, box, words, 28, BRIGHT, "bold", Qt.AlignmentFlag.AlignHCenter)
        painter.restore()

    def _badge(self, painter: QPainter, shape: PatchShape, at: At) -> None:
        u = self.unit
        corner = min(shape.rings[0], key=lambda p: p[0] + p[1] * (1 if not self.upside_down else -1))
        painter.save()
        self._upright(painter, at(corner))
        painter.setPen(QPen(QColor(INK), 2 * u))
        painter.setBrush(QColor(HERE))
        painter.drawEllipse(QPointF(0, 0), 32 * u, 32 * u)
        self.letters.say(
            painter,
            QRectF(-32 * u, -32 * u, 64 * u, 64 * u),
            str(shape.number),
            42,
            INK,
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
        for colour, wide in ((INK, 7.0), ("#ffffff", 3.6)):
            painter.setPen(QPen(QColor(colour), wide * u, Qt.PenStyle.SolidLine, Qt.PenCapStyle.RoundCap))
            painter.drawLine(root, tip)
            painter.drawLine(tip, tip - way * head + side * head * 0.6)
            painter.drawLine(tip, tip - way * head - side * head * 0.6)
        painter.setPen(QPen(QColor(INK), 1))
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
            painter.setPen(QPen(QColor(INK), 1))
            painter.setBrush(QColor(HERE if here else "#ffffff" if shape.state == "done" else "#8c8c8c"))
            painter.drawEllipse(b, (6 if here else 2.6) * u, (6 if here else 2.6) * u)
            last = b

    def paint_strip(self, painter: QPainter, v: StandView, area: Rect) -> None:
        """The reference without a white border, at the very edge of the window, to hold the paint beside; the well's colour next to it."""
        wide = 150 * self.unit
        band = QRectF(0, 0, wide, self.letters.height)
        if self.levels is not None:
            image: QImage = self.levels.for_width(self.content[0] * 4, self.grey)
            ratio = image.width() / self.content[0]
            high = min(area.height, area.width * band.height() / wide)
            across = high * wide / band.height()
            source = QRectF(
                (area.centre[0] - across / 2) * ratio, (area.centre[1] - high / 2) * ratio, across * ratio, high * ratio
            )
            painter.drawImage(band, image, source)
        if v.swatch is not None:
            painter.fillRect(QRectF(wide, 0, 60 * self.unit, self.letters.height), QColor(*v.swatch))


def _path(shape: PatchShape, at: At) -> QPainterPath:
    path = QPainterPath()
    for ring in shape.rings:
        path.addPolygon(QPolygonF([at(p) for p in ring]))
        path.closeSubpath()
    path.setFillRule(Qt.FillRule.OddEvenFill)
    return path
