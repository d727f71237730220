"""A document of a room written where the painter says, beside the window's own work, and noted as printed."""

from collections.abc import Callable
from typing import TYPE_CHECKING

from yarrow_lane.compose.reference import reference_key
from yarrow_lane.lane.happening import Printed
from yarrow_lane.measure.progress import Progress

if TYPE_CHECKING:
    from yarrow_lane.ui.room_page import RoomPage


def write(
    page: "RoomPage", title: str, about: str, ending: str, make: Callable[[Progress], bytes], noted: str = ""
) -> None:  # fmt: skip
    """Ask where it goes, make it off the interface's thread, write it; `noted` is what the log says was printed."""
    c, door = page.commission, page.door
    path = page.choose_file(title, f"{c.brief.title} {about}", ending)
    if path is None:
        return

    def done(data: bytes) -> None:
        page.workroom.write_file(path, data)
        if noted:
            page.desk.happen(c.id, Printed(page.workroom.now, noted, reference_key(c.compose)), door)
        page.workroom.say(f"Written to {path}.", False)

    page.workroom.works.run(title, make, done)
