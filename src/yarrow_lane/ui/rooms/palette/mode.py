"""A way of working at the palette."""

from typing import TYPE_CHECKING

from PySide6.QtWidgets import QBoxLayout, QWidget

from yarrow_lane.ui.room_mode import RoomMode, Sheets

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.palette.page import PalettePage

__all__ = ["Mode", "Sheets"]


class Mode(RoomMode):
    """One of them."""

    page: "PalettePage"

    def lay(self, *widgets: QWidget) -> QBoxLayout:
        """Fill the table with widgets side by side."""
        box = QBoxLayout(QBoxLayout.Direction.LeftToRight, self.widget)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(0)
        for widget in widgets:
            box.addWidget(widget, 1)
        return box
