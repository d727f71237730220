"""A way of working in the layers room."""

from typing import TYPE_CHECKING

from yarrow_lane.ui.room_mode import RoomMode, Sheets

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.layers.page import LayersPage

__all__ = ["Mode", "Sheets"]


class Mode(RoomMode):
    """One of them."""

    page: "LayersPage"

    def needs_regions(self) -> str:
        """Why it cannot be worked on yet, as long as no regions are taken."""
        return "" if self.page.commission.layers.sitter_drawn else "take or draw the sitter's regions first"
