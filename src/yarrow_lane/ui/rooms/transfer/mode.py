"""A way of carrying the drawing."""

from pathlib import Path
from typing import TYPE_CHECKING

from PySide6.QtWidgets import QBoxLayout, QWidget

from yarrow_lane.transfer.ways import Way
from yarrow_lane.ui.room_mode import RoomMode, Sheets

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.transfer.page import TransferPage

__all__ = ["Mode", "Sheets"]


class Mode(RoomMode):
    """One of them."""

    page: "TransferPage"

    def lay(self, *views: QWidget) -> QBoxLayout:
        """Fill the table with the views, side by side until the layout is told otherwise."""
        box = QBoxLayout(QBoxLayout.Direction.LeftToRight, self.widget)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(0)
        for view in views:
            box.addWidget(view, 1)
        return box

    def begin(self, way: Way) -> None:
        """The painter comes here to carry over by that way."""

    def takes_files(self) -> bool:
        """Whether a picture dropped now is for this way of working."""
        return False

    def take(self, path: Path) -> None:
        """A picture was dropped."""

    def why_not(self) -> str:
        return "" if self.page.commission.compose.framed else "there is nothing to carry over yet: compose the picture first"
