"""A stage of the canvas as a small picture with the number of passes behind it."""

from PySide6.QtCore import QRectF, Qt
from PySide6.QtGui import QColor, QImage, QPainter, QPen

from yarrow_lane.ui.paint.elided import draw_line
from yarrow_lane.ui.theme.colours import INK
from yarrow_lane.ui.theme.lettering import lettering, px
from yarrow_lane.ui.theme.sheet import colours


def paint_stage(painter: QPainter, place: QRectF, image: QImage | None, count: int, here: bool, ahead: bool) -> None:
    """Fill `place`; what lies ahead is dashed, where one looks is yellow."""
    if image is not None:
        painter.drawImage(place, image)
    edge = colours().here if here else "#ffffff" if ahead else INK
    painter.setBrush(Qt.BrushStyle.NoBrush)
    painter.setPen(QPen(QColor(edge), 4 if here else 1.4, Qt.PenStyle.DashLine if ahead else Qt.PenStyle.SolidLine))
    painter.drawRect(place)
    plate = QRectF(place.left(), place.top(), px(22), px(15))
    painter.fillRect(plate, QColor(colours().here if here else INK))
    painter.setPen(QColor(INK if here else "#ffffff"))
    draw_line(painter, plate, str(count), lettering(11.5, "bold"), Qt.AlignmentFlag.AlignHCenter)
