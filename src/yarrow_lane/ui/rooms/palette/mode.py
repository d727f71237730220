"""A way of working at the palette."""

from typing import TYPE_CHECKING

from PySide6.QtGui import QKeyEvent

from yarrow_lane.ui.kit.swatch_rows import SwatchRows
from yarrow_lane.ui.room_mode import RoomMode, Sheets

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.palette.page import PalettePage

__all__ = ["Mode", "RowsMode", "Sheets"]


class Mode(RoomMode):
    """One of them."""

    page: "PalettePage"


class RowsMode(Mode):
    """Rows of colours fill the table; keys walk and take them as clicks do."""

    def __init__(self, page: "PalettePage", called: str) -> None:
        super().__init__(page)
        self.rows = SwatchRows(called)
        self.lay(self.rows)

    def key(self, event: QKeyEvent) -> bool:
        return self.rows.take_key(event)
