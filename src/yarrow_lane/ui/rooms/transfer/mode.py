"""A way of carrying the drawing."""

from typing import TYPE_CHECKING

from yarrow_lane.ui.room_mode import RoomMode, Sheets

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.transfer.page import TransferPage

__all__ = ["Mode", "Sheets"]


class Mode(RoomMode):
    """One of them."""

    page: "TransferPage"

    def why_not(self) -> str:
        return "" if self.page.commission.compose.framed else "there is nothing to carry over yet: compose the picture first"
