"""The projector in the room, seen from the side, and the lines as the eye will get them in three lights."""

from dataclasses import dataclass

from PySide6.QtCore import QPointF, QRectF, QSize, Qt
from PySide6.QtGui import QColor, QPainter, QPaintEvent, QPen, QPolygonF
from PySide6.QtWidgets import QWidget

from yarrow_lane.measure.plane import Rect
from yarrow_lane.transfer.projector import Projected, read_words
from yarrow_lane.ui.kit.overlays import Drawn
from yarrow_lane.ui.theme.colours import INK, SURROUND
from yarrow_lane.ui.theme.lettering import lettering, px
from yarrow_lane.ui.theme.sheet import colours

_FLOOR_TO_CANVAS_MM = 900.0  # our choice: the lower edge of a canvas on an easel
_GAMMA = 2.2  # about what a screen does: the patches are a picture, not a measure


@dataclass(frozen=True)
class Light:
    """The same lines in one light of the room."""

    name: str
    lux: float
    contrast: float
    here: bool


@dataclass(frozen=True)
class Beam:
    """What is drawn: the image, the canvas (mm), the part of it shown below, the lines, the ground, the lights."""

    projected: Projected
    canvas_mm: tuple[float, float]
    part: Rect
    lines: Drawn
    ground: tuple[int, int, int]
    lights: tuple[Light, ...]
    distance_words: str
    height_words: str


class ProjectorView(QWidget):
    """Everything to one scale, but the patches, which show a part of the canvas enlarged."""

    def __init__(self) -> None:
        super().__init__()
        self.setAccessibleName("The projector in the room, from the side")
        self.beam: Beam | None = None

    def sizeHint(self) -> QSize:
        return QSize(px(800), px(560))

    def show_beam(self, beam: Beam | None) -> None:
        if beam != self.beam:
            self.beam = beam
            self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.fillRect(self.rect(), QColor(SURROUND))
        if self.beam is not None:
            split = self.height() * 0.58
            self._paint_room(painter, self.beam, QRectF(0, 0, self.width(), split))
            self._paint_lights(painter, self.beam, QRectF(0, split, self.width(), self.height() - split))
        painter.end()

    def _paint_room(self, painter: QPainter, beam: Beam, room: QRectF) -> None:
        ink = QColor(INK)
        painter.setPen(ink)
        painter.setFont(lettering(14, "bold"))
        painter.drawText(QPointF(px(16), px(24)), "The room from the side")
        far, image = beam.projected.distance_mm, beam.projected.height_mm
        middle = _FLOOR_TO_CANVAS_MM + beam.canvas_mm[1] / 2
        top = max(middle + image / 2, _FLOOR_TO_CANVAS_MM + beam.canvas_mm[1]) + 150
        scale = min((room.width() - px(190)) / (far + 500), (room.height() - px(70)) / top)
        floor = room.bottom() - px(30)
        canvas_x = room.left() + px(90) + (far + 250) * scale
        lens_x = canvas_x - far * scale

        def up(mm: float) -> float:
            return float(floor - mm * scale)

        painter.setPen(QPen(ink, 2))
        painter.drawLine(QPointF(room.left() + px(16), floor), QPointF(room.right() - px(16), floor))
        cone = QPolygonF(
            [QPointF(lens_x, up(middle)), QPointF(canvas_x, up(middle + image / 2)), QPointF(canvas_x, up(middle - image / 2))]
        )
        painter.setPen(QPen(QColor("#f4f0e4"), 1))
        painter.setBrush(QColor(255, 255, 245, 90))
        painter.drawPolygon(cone)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(ink)
        body = max(px(26), 220 * scale)
        painter.drawRect(QRectF(lens_x - body, up(middle) - body / 4, body, body / 2))
        painter.setPen(QPen(ink, 1.6))
        for foot in (-0.35, 0.35):
            painter.drawLine(QPointF(lens_x - body / 2, up(middle) + body / 4), QPointF(lens_x - body / 2 + foot * body, floor))
        painter.setPen(QPen(ink, 5))
        low = _FLOOR_TO_CANVAS_MM
        painter.drawLine(QPointF(canvas_x + 2, up(low)), QPointF(canvas_x + 2, up(low + beam.canvas_mm[1])))
        painter.setPen(QPen(ink, 1.6))
        painter.drawLine(
            QPointF(canvas_x + 6, up(low + beam.canvas_mm[1] + 100)), QPointF(canvas_x + 30 * scale + px(24), floor)
        )
        self._measure(painter, QPointF(lens_x, floor - px(22)), QPointF(canvas_x, floor - px(22)), beam.distance_words)
        painter.setFont(lettering(13, "medium"))
        painter.drawText(QPointF(canvas_x + px(14), up(low + beam.canvas_mm[1] / 2)), beam.height_words)
        painter.setFont(lettering(12.5))
        painter.drawText(
            QPointF(room.left() + px(16), floor + px(20)), "lens level with the canvas's middle: its sides stay upright"
        )

    def _measure(self, painter: QPainter, one: QPointF, other: QPointF, words: str) -> None:
        painter.setPen(QPen(QColor(INK), 1.2))
        painter.drawLine(one, other)
        for end in (one, other):
            painter.drawLine(end + QPointF(0, -px(5)), end + QPointF(0, px(5)))
        painter.setFont(lettering(13.5, "bold"))
        box = QRectF(0, 0, painter.fontMetrics().horizontalAdvance(words) + px(8), px(20))
        box.moveCenter(QPointF((one.x() + other.x()) / 2, one.y() - px(14)))
        painter.fillRect(box, QColor(SURROUND))  # a leg of the projector may stand there
        painter.drawText(box, Qt.AlignmentFlag.AlignCenter, words)

    def _paint_lights(self, painter: QPainter, beam: Beam, room: QRectF) -> None:
        c = colours()
        painter.fillRect(room, QColor(c.panel))
        gap, words = px(14), px(44)
        count = len(beam.lights)
        wide = (room.width() - gap * (count + 1)) / count
        high = room.height() - words - px(38)
        painter.setPen(QColor(c.text))
        painter.setFont(lettering(14, "bold"))
        painter.drawText(QPointF(room.left() + gap, room.top() + px(22)), "The same lines in three lights")
        for number, light in enumerate(beam.lights):
            box = QRectF(room.left() + gap + number * (wide + gap), room.top() + px(32), wide, high)
            self._patch(painter, beam, light, box)
            painter.setPen(QPen(QColor(c.here_edge if light.here else c.text), 3 if light.here else 1))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRect(box)
            said = read_words(light.contrast)
            painter.setPen(QColor(c.text))
            painter.setFont(lettering(13, "bold"))
            line = QRectF(box.left(), box.bottom() + px(4), box.width(), px(18))
            name = painter.fontMetrics().elidedText(
                f"{light.name}, {light.lux:.0f}\u202flx", Qt.TextElideMode.ElideRight, int(box.width())
            )
            painter.drawText(line, Qt.AlignmentFlag.AlignLeft, name)
            below = line.translated(0, px(18))
            painter.drawText(below, Qt.AlignmentFlag.AlignLeft, f"{light.contrast:.1f} : 1")
            painter.setPen(QColor(c.wrong if said == "lost" else c.holds))
            painter.drawText(below, Qt.AlignmentFlag.AlignRight, said)

    def _patch(self, painter: QPainter, beam: Beam, light: Light, box: QRectF) -> None:
        """The eye gets used to the brightest: the line keeps its value, the ground comes up to it as the room gets lighter."""
        dim = (1 / light.contrast) ** (1 / _GAMMA)
        ground = QColor(*(round(v * dim) for v in beam.ground))
        painter.fillRect(box, ground)
        painter.save()
        painter.setClipRect(box)
        scale = max(box.width() / beam.part.width, box.height() / beam.part.height)
        bright = QColor(*(min(255, round(v * 1.15)) for v in beam.ground))
        weight = max(1.4, beam.projected.finest_mm * scale)
        painter.setPen(QPen(bright, weight, Qt.PenStyle.SolidLine, Qt.PenCapStyle.RoundCap))
        for path in (*beam.lines.paths, *beam.lines.lost):
            points = [QPointF(box.left() + (x - beam.part.x) * scale, box.top() + (y - beam.part.y) * scale) for x, y in path]
            painter.drawPolyline(QPolygonF(points))
        painter.restore()
