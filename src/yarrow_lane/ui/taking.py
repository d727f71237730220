"""Pictures that are dropped on the window or pasted into it, and whose they are."""

from pathlib import Path
from typing import TYPE_CHECKING

from PySide6.QtWidgets import QApplication

from yarrow_lane.ui.pasting import Pasted
from yarrow_lane.ui.rooms_table import BY_NAME, STUDIO_ROOM

if TYPE_CHECKING:
    from yarrow_lane.ui.window import Window


def paste(window: "Window", pasted: Pasted) -> None:
    """Take in what was copied: files, or a picture itself."""
    paths = pasted.files(QApplication.clipboard(), window.workroom.now)
    if paths:
        window.take_files(paths)
    else:
        window.say("Nothing was pasted: copy a picture or picture files first.", False)


def take_files(window: "Window", paths: list[Path]) -> None:
    """At Check the painting, while a drawing is measured its photograph, on the shelf and in the books a new commission, else the client's."""
    takes = BY_NAME[window.room].takes
    if takes == "a commission" and window.hall != STUDIO_ROOM.name:
        window.open_studio()
    if takes == "photographs" and window.door != "Intake" and not window.current.takes_files():
        window.open_door(window.commission_id, "Intake")
    window.current.take_files(paths)
