"""The table of rooms: pages, keys and what a drop means in each."""

from collections.abc import Callable
from dataclasses import dataclass
from importlib import import_module
from typing import Literal

from yarrow_lane.ui.room_page import RoomPage

Takes = Literal["a commission", "photographs", "painting"]


@dataclass(frozen=True)
class Room:
    """One room: its name (a door's, the studio's or the books'), the digit that opens it, and what files dropped there are."""

    name: str
    key: str
    module: str
    page_name: str
    takes: Takes = "photographs"

    @property
    def page(self) -> Callable[..., RoomPage]:
        """The page's class; loaded when the room is first opened: a quick start."""
        found: Callable[..., RoomPage] = getattr(import_module(f"yarrow_lane.ui.rooms.{self.module}.page"), self.page_name)
        return found


STUDIO_ROOM = Room("Studio", "", "studio", "StudioPage", "a commission")
BOOKS_ROOM = Room("Books", "", "books", "BooksPage", "a commission")
ROOMS: tuple[Room, ...] = (
    STUDIO_ROOM,
    BOOKS_ROOM,
    Room("Intake", "1", "intake", "IntakePage"),
    Room("Compose", "2", "compose", "ComposePage"),
    Room("Transfer", "3", "transfer", "TransferPage"),
    Room("Tone", "4", "tone", "TonePage"),
    Room("Palette", "5", "palette", "PalettePage"),
    Room("Layers", "6", "layers", "LayersPage"),
    Room("Easel", "7", "easel", "EaselPage"),
    Room("Check", "8", "check", "CheckPage", "painting"),
    Room("Deliver", "9", "deliver", "DeliverPage"),
)
BY_NAME = {room.name: room for room in ROOMS}
BY_KEY = {room.key: room for room in ROOMS if room.key}
