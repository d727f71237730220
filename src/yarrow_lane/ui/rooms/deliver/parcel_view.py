"""The parcel on the table: the box with its measures, and what goes round the painting from the paint outwards."""

from dataclasses import dataclass

from PySide6.QtCore import QPointF, QRectF
from PySide6.QtGui import QColor, QPainter, QPaintEvent, QPen, QPolygonF
from PySide6.QtWidgets import QWidget

from yarrow_lane.deliver.parcel import Parcel
from yarrow_lane.ui.paint.elided import draw_line
from yarrow_lane.ui.theme.colours import INK, SURROUND
from yarrow_lane.ui.theme.lettering import lettering, px


@dataclass(frozen=True)
class ParcelShown:
    """`parcel` is None while the canvas has no size; `why` then says so."""

    parcel: Parcel | None
    rows: tuple[tuple[str, str], ...] = ()
    why: str = ""


class ParcelView(QWidget):
    """Only looked at."""

    def __init__(self) -> None:
        super().__init__()
        self._shown = ParcelShown(None)

    def show_parcel(self, shown: ParcelShown) -> None:
        self._shown = shown
        p = shown.parcel
        self.setAccessibleName(f"Parcel: {p.length_cm} by {p.width_cm} by {p.height_cm} cm" if p else shown.why)
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.fillRect(self.rect(), QColor(SURROUND))
        p = self._shown.parcel
        if p is None:
            draw_line(
                painter, QRectF(px(24), px(20), self.width() - px(48), px(24)), self._shown.why, lettering(15), colour=INK
            )
        else:
            self._box(painter, p)
            self._list(painter)
        painter.end()

    def _box(self, painter: QPainter, p: Parcel) -> None:
        room = QRectF(px(60), px(50), self.width() * 0.42, self.height() * 0.62)
        scale = min(room.width() / (p.length_cm + 0.55 * p.height_cm), room.height() / (p.width_cm + 0.4 * p.height_cm))
        w, h, d = p.length_cm * scale, p.width_cm * scale, p.height_cm * scale
        deep = QPointF(d * 0.55, -d * 0.4)
        a = QPointF(room.left(), room.top() + d * 0.4 + (room.height() - h - d * 0.4) / 2)
        front = (a, a + QPointF(w, 0), a + QPointF(w, h), a + QPointF(0, h))
        painter.setPen(QPen(QColor(INK), 1.3))
        for colour, shape in (
            ("#c9b08c", QPolygonF(front)),
            ("#d8c3a3", QPolygonF([front[0], front[0] + deep, front[1] + deep, front[1]])),
            ("#b39a76", QPolygonF([front[1], front[1] + deep, front[2] + deep, front[2]])),
        ):
            painter.setBrush(QColor(colour))
            painter.drawPolygon(shape)
        font = lettering(14, "bold")
        draw_line(painter, QRectF(front[3].x(), front[3].y() + px(6), w, px(20)), f"{p.length_cm}\u202fcm", font, colour=INK)
        draw_line(painter, QRectF(a.x() - px(54), a.y() + h / 2, px(50), px(20)), f"{p.width_cm}\u202fcm", font, colour=INK)
        draw_line(
            painter,
            QRectF(front[2].x() + d * 0.3, front[2].y() - d * 0.15, px(70), px(20)),
            f"{p.height_cm}\u202fcm",
            font,
            colour=INK,
        )
        y = front[3].y() + px(40)
        facts = (
            ("The painting, with what is on it", f"{p.of_paint_kg:.1f}\u202fkg"),
            ("Packed", f"{p.weight_kg:.1f}\u202fkg"),
            ("By its volume", f"{p.volumetric_kg:.1f}\u202fkg"),
            ("Charged as", f"{p.charged_kg:g}\u202fkg"),
        )
        for n, (label, value) in enumerate(facts):
            line = QRectF(px(60), y + n * px(21), px(220), px(20))
            draw_line(painter, line, label, lettering(13.5), colour=INK)
            draw_line(painter, line.translated(px(224), 0), value, lettering(13.5, "bold"), colour=INK)
        if p.lift_with_two:
            draw_line(
                painter,
                QRectF(px(60), y + px(88), self.width() * 0.5, px(20)),
                "Large: lift it with two.",
                lettering(13.5, "bold"),
                colour=INK,
            )

    def _list(self, painter: QPainter) -> None:
        x = self.width() * 0.56
        wide = self.width() - x - px(16)
        draw_line(painter, QRectF(x, px(36), wide, px(24)), "From the paint outwards", lettering(15, "bold"), colour=INK)
        for n, (what, how) in enumerate(self._shown.rows):
            y = px(70) + n * px(44)
            painter.setPen(QPen(QColor("#ffffff"), 1.3))
            painter.drawEllipse(QPointF(x + px(7), y + px(10)), px(5), px(5))
            draw_line(painter, QRectF(x + px(22), y, wide - px(22), px(20)), what, lettering(14, "bold"), colour=INK)
            draw_line(painter, QRectF(x + px(22), y + px(18), wide - px(22), px(18)), how, lettering(12.5), colour=INK)
