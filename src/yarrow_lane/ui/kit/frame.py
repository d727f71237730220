"""How a picture is looked at: zoom, place, turned, grey. Views that share a frame pan, zoom, flip and grey together."""

from PySide6.QtCore import QObject, Signal

from yarrow_lane.measure.plane import Point


class Frame(QObject):
    """`zoom` 1 shows the whole content; `centre` is the middle of the view in shares of the content's width and height."""

    changed = Signal()

    def __init__(self) -> None:
        super().__init__()
        self.zoom = 1.0
        self.centre: Point = (0.5, 0.5)
        self.mirrored = False
        self.upside_down = False
        self.grey = False

    @property
    def whole(self) -> bool:
        """Whether the whole content is shown as large as it goes."""
        return self.zoom == 1.0 and self.centre == (0.5, 0.5)

    @property
    def flips(self) -> tuple[bool, bool]:
        """Whether left and right, and top and bottom, change places on the screen: upside down is a half turn."""
        return self.mirrored != self.upside_down, self.upside_down

    def look(self, zoom: float, centre: Point) -> None:
        """Look closer, or elsewhere."""
        if (zoom, centre) != (self.zoom, self.centre):
            self.zoom, self.centre = zoom, centre
            self.changed.emit()

    def fit(self) -> None:
        """Show the whole."""
        self.look(1.0, (0.5, 0.5))

    def turn(self, mirrored: bool = False, upside_down: bool = False, grey: bool | None = None) -> None:
        """Show it mirrored, upside down or in greys."""
        wanted = (mirrored, upside_down, self.grey if grey is None else grey)
        if wanted != (self.mirrored, self.upside_down, self.grey):
            self.mirrored, self.upside_down, self.grey = wanted
            self.changed.emit()
