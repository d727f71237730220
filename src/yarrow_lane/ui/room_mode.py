"""What the ways of working in a room share: a table of their own, and what they put on the bench."""

from collections.abc import Mapping
from dataclasses import dataclass

from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QBoxLayout, QWidget

from yarrow_lane.measure.words import begun
from yarrow_lane.ui.bench_sheet import NextAct, Section, Switch
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.room_page import RoomPage


@dataclass(frozen=True)
class Sheets:
    """Sections of the bench, more switches in the sentence, and the yellow field; None leaves it to the room."""

    sections: tuple[Section, ...] = ()
    switches: tuple[Switch, ...] = ()
    act: NextAct | None = None
    remark: str = ""


class RoomMode:
    """One way of working; `why_not` says what is missing before it makes sense, empty when nothing is."""

    name = ""
    picture: PictureView | None = None
    page: RoomPage

    def __init__(self, page: RoomPage) -> None:
        self.page = page
        self.widget: QWidget = QWidget()

    def lay(self, *views: QWidget) -> QBoxLayout:
        """Fill the table with the views, side by side until the layout is told otherwise."""
        box = QBoxLayout(QBoxLayout.Direction.LeftToRight, self.widget)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(0)
        for view in views:
            box.addWidget(view, 1)
        return box

    def why_not(self) -> str:
        return ""

    def opened(self) -> None:
        """Another commission came in."""

    def left(self) -> None:
        """The painter goes elsewhere."""

    def refresh(self) -> Sheets:
        return Sheets()

    def key(self, event: QKeyEvent) -> bool:
        return False


class ModedPage(RoomPage):
    """A room with several ways of working, each with a table of its own; subclasses fill `modes` and choose the first `mode`."""

    modes: Mapping[str, RoomMode]
    mode: RoomMode

    def left(self) -> None:
        self.mode.left()
        super().left()

    def work_on(self, name: str) -> None:
        """Another way of working; what it lacks is said in the strip."""
        wanted = self.modes[name]
        why = wanted.why_not()
        if why:
            self.workroom.say(f"{begun(why)}.", True)
        elif wanted is not self.mode:
            self.mode.left()
            self.mode = wanted
        self.refresh()
