"""A way of working at the palette."""

from typing import TYPE_CHECKING

from yarrow_lane.ui.room_mode import RoomMode, Sheets

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.palette.page import PalettePage

__all__ = ["Mode", "Sheets"]


class Mode(RoomMode):
    """One of them."""

    page: "PalettePage"
