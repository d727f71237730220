"""What the ways of working at Compose share: a table of their own, and what they put on the bench."""

from dataclasses import dataclass
from typing import TYPE_CHECKING

from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QWidget

from yarrow_lane.ui.bench_sheet import NextAct, Section, Switch
from yarrow_lane.ui.kit.picture_view import PictureView

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.compose.page import ComposePage


@dataclass(frozen=True)
class Sheets:
    """Sections of the bench, more switches in the sentence, and the yellow field; None leaves it to the room."""

    sections: tuple[Section, ...] = ()
    switches: tuple[Switch, ...] = ()
    act: NextAct | None = None
    remark: str = ""


class Mode:
    """One way of working; `why_not` says what is missing before it makes sense, empty when nothing is."""

    name = ""
    picture: PictureView | None = None

    def __init__(self, page: "ComposePage") -> None:
        self.page = page
        self.widget: QWidget = QWidget()

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
