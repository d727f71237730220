"""A way of carrying the drawing."""

from pathlib import Path
from typing import TYPE_CHECKING

from yarrow_lane.transfer.ways import Way
from yarrow_lane.ui.room_mode import RoomMode, Sheets

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.transfer.page import TransferPage

__all__ = ["Mode", "Sheets"]


class Mode(RoomMode):
    """One of them."""

    page: "TransferPage"

    def begin(self, way: Way) -> None:
        """The painter comes here to carry over by that way."""

    def takes_files(self) -> bool:
        """Whether a picture dropped now is for this way of working."""
        return False

    def take(self, path: Path) -> None:
        """A picture was dropped."""

    def why_not(self) -> str:
        return "" if self.page.commission.compose.framed else "there is nothing to carry over yet: compose the picture first"
