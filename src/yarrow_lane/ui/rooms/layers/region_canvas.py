"""The crop with the regions on it, and the one being drawn."""

from PySide6.QtCore import QPointF, Qt, Signal
from PySide6.QtGui import QColor, QFontMetricsF, QMouseEvent, QPainter, QPen, QPolygonF

from yarrow_lane.layers.regions import Layers, Region, region_at
from yarrow_lane.measure.plane import Point, Polygon, polygon_bounds
from yarrow_lane.ui.kit.reference_canvas import ReferenceCanvas
from yarrow_lane.ui.theme.lettering import lettering, px
from yarrow_lane.ui.theme.sheet import colours


class RegionCanvas(ReferenceCanvas):
    """`closed` gives a finished outline in canvas mm; `chosen` the region under a click."""

    closed = Signal(object)
    chosen = Signal(int)
    changed = Signal()

    def __init__(self) -> None:
        super().__init__("The crop with its regions")
        self._regions: tuple[Region, ...] = ()
        self._chosen_id = 0
        self._corners: list[Point] | None = None
        self._pointer: Point = (0.0, 0.0)

    @property
    def drawing(self) -> bool:
        return self._corners is not None

    @property
    def corners(self) -> Polygon:
        return tuple(self._corners or ())

    def show_regions(self, regions: tuple[Region, ...], chosen_id: int) -> None:
        self._regions, self._chosen_id = regions, chosen_id
        self.update()

    def begin(self) -> None:
        """Start an outline."""
        self._corners = []
        self.setCursor(Qt.CursorShape.CrossCursor)
        self.changed.emit()

    def give_up(self) -> None:
        self._corners = None
        self.setCursor(Qt.CursorShape.ArrowCursor)
        self.update()
        self.changed.emit()

    def step_back(self) -> None:
        """Take the last corner back."""
        if self._corners:
            self._corners.pop()
            self.update()

    def close_outline(self) -> None:
        """Finish the outline; the page decides whether it holds."""
        corners = self.corners
        self.give_up()
        self.closed.emit(corners)

    def pressed(self, point: Point, event: QMouseEvent) -> None:
        if self._corners is None:
            found = region_at(Layers(self._regions), point)
            self.chosen.emit(found.id if found else 0)
            return
        self._corners.append(point)
        self.update()

    def moved(self, point: Point, event: QMouseEvent) -> None:
        self._pointer = point
        if self._corners is not None:
            self.update()

    def mouseDoubleClickEvent(self, event: QMouseEvent) -> None:
        if self._corners is not None and len(self._corners) >= 3:
            self.close_outline()

    def paint_over(self, painter: QPainter) -> None:
        if self.levels is None:
            return
        for region in self._regions:
            self._paint_region(painter, region)
        if self._corners is not None:
            points = [self.to_screen(p) for p in (*self._corners, self._pointer)]
            for colour, width in (("#1a1a1a", 4), (colours().here, 2)):
                painter.setPen(QPen(QColor(colour), width))
                painter.drawPolyline(QPolygonF(points))
            painter.setBrush(QColor(colours().here))
            painter.setPen(QPen(QColor("#1a1a1a"), 1))
            for point in points[:-1]:
                painter.drawEllipse(point, 4, 4)

    def _paint_region(self, painter: QPainter, region: Region) -> None:
        outline = QPolygonF([self.to_screen(p) for p in region.outline])
        chosen = region.id == self._chosen_id
        painter.setBrush(QColor(255, 255, 255, 46) if chosen else Qt.BrushStyle.NoBrush)
        painter.setPen(QPen(QColor(20, 20, 20, 190), 4 if chosen else 3))
        painter.drawPolygon(outline)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.setPen(QPen(QColor(colours().here if chosen else "#ffffff"), 2.2 if chosen else 1.3))
        painter.drawPolygon(outline)
        bounds = polygon_bounds(region.outline)
        if chosen or min(bounds.width, bounds.height) * self.scale > px(40):
            font = lettering(13, "bold")
            painter.setFont(font)
            at = self.to_screen(bounds.centre)
            if region.kind == "background":  # its middle lies under the sitter
                at = self.to_screen((bounds.x, bounds.y)) + QPointF(px(50), px(18))
            at -= QPointF(QFontMetricsF(font).horizontalAdvance(region.name) / 2, -px(4))
            for shift, colour in ((1, "#1a1a1a"), (0, "#ffffff")):
                painter.setPen(QColor(colour))
                painter.drawText(at + QPointF(shift, shift), region.name)
