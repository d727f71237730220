"""A way of working at Compose."""

from typing import TYPE_CHECKING

from yarrow_lane.ui.room_mode import RoomMode, Sheets

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.compose.page import ComposePage

__all__ = ["Mode", "Sheets"]


class Mode(RoomMode):
    """One of the seven."""

    page: "ComposePage"
