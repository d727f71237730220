"""The window: header, lane, the open room, messages; and what keys do everywhere."""

from pathlib import Path
from tempfile import TemporaryDirectory

from PySide6.QtCore import QMimeData, Qt, Signal
from PySide6.QtGui import QCloseEvent, QDragEnterEvent, QDropEvent, QKeyEvent, QKeySequence, QResizeEvent
from PySide6.QtWidgets import (
    QAbstractSpinBox,
    QApplication,
    QHBoxLayout,
    QLineEdit,
    QMainWindow,
    QPlainTextEdit,
    QStackedWidget,
    QVBoxLayout,
    QWidget,
)

from yarrow_lane.commission.doors import DOORS, door_now, doors_of
from yarrow_lane.commission.standing import standings
from yarrow_lane.desk.desk import STUDIO, Change, Desk
from yarrow_lane.intake.judge import Judge
from yarrow_lane.measure.days import day_text
from yarrow_lane.measure.lengths import size_text
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.ui.actions import ACTIONS
from yarrow_lane.ui.header import Header
from yarrow_lane.ui.jobs import Jobs
from yarrow_lane.ui.keys_sheet import KeysSheet
from yarrow_lane.ui.lane import Lane
from yarrow_lane.ui.messages import MessageStrip
from yarrow_lane.ui.pictures import PictureShelf
from yarrow_lane.ui.room_page import RoomPage
from yarrow_lane.ui.rooms.check.page import CheckPage
from yarrow_lane.ui.rooms.compose.page import ComposePage
from yarrow_lane.ui.rooms.deliver.page import DeliverPage
from yarrow_lane.ui.rooms.easel.page import EaselPage
from yarrow_lane.ui.rooms.intake.page import IntakePage
from yarrow_lane.ui.rooms.layers.page import LayersPage
from yarrow_lane.ui.rooms.palette.page import PalettePage
from yarrow_lane.ui.rooms.studio.page import StudioPage
from yarrow_lane.ui.rooms.tone.page import TonePage
from yarrow_lane.ui.rooms.transfer.page import TransferPage
from yarrow_lane.ui.theme.sheet import wear
from yarrow_lane.ui.workroom import Workroom

_PAGES: dict[str, type[RoomPage]] = {
    "Intake": IntakePage,
    "Compose": ComposePage,
    "Transfer": TransferPage,
    "Tone": TonePage,
    "Palette": PalettePage,
    "Layers": LayersPage,
    "Easel": EaselPage,
    "Check": CheckPage,
    "Deliver": DeliverPage,
}
_WRITING = (QLineEdit, QPlainTextEdit, QAbstractSpinBox)


class Window(QMainWindow):
    """One studio on the screen. `demo_wanted` asks for the demo studio instead."""

    demo_wanted = Signal()

    def __init__(self, desk: Desk) -> None:
        super().__init__()
        self.desk = desk
        self._worn = (desk.studio.evening, desk.studio.text_percent)
        self._wear()
        self.jobs = Jobs(self._failed)
        self.pictures = PictureShelf(desk, self.jobs)
        self.judge = Judge()
        self.workroom = Workroom(desk, self.jobs, self.pictures, self.judge, self._say, self.open_door)
        # A pasted picture becomes a file first, so that it is read like any other.
        self._pasted = TemporaryDirectory(prefix="yarrow-lane-")
        self.commission_id, self.door = "", ""
        self.setWindowTitle("Yarrow Lane")
        self.setAcceptDrops(True)
        self.resize(1280, 800)
        self._build()
        desk.listen(self._changed)
        self._go_where_left()

    # --- made of

    def _build(self) -> None:
        self.header, self.lane, self.message = Header(), Lane(), MessageStrip()
        self.stack = QStackedWidget()
        self.studio_page = StudioPage(self.workroom)
        self.studio_page.demo_wanted.connect(self.demo_wanted)
        self.stack.addWidget(self.studio_page)
        self.pages: dict[str, RoomPage] = {}
        middle = QHBoxLayout()
        middle.setSpacing(0)
        middle.addWidget(self.lane)
        middle.addWidget(self.stack, 1)
        body = QWidget()
        box = QVBoxLayout(body)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(0)
        box.addWidget(self.header)
        box.addLayout(middle, 1)
        box.addWidget(self.message)
        self.setCentralWidget(body)
        self.keys_sheet = KeysSheet(self)
        self.header.back.connect(self.open_studio)
        self.lane.chosen.connect(lambda door: self.open_door(self.commission_id, door))

    def page(self, door: str) -> RoomPage:
        """The page of a door, made when it is first opened: a quick start."""
        if door not in self.pages:
            page = _PAGES[door](self.workroom)
            page.door_name = door
            self.pages[door] = page
            self.stack.addWidget(page)
        return self.pages[door]

    @property
    def current(self) -> RoomPage:
        return self.pages[self.door] if self.door else self.studio_page

    def _wear(self) -> None:
        application = QApplication.instance()
        assert isinstance(application, QApplication)
        wear(application, self.desk.studio.evening, self.desk.studio.text_percent)

    # --- going places

    def open_studio(self) -> None:
        """Back to the shelf."""
        self.current.bench.store_pending()
        if self.commission_id:
            self.studio_page.selected = self.commission_id
        self.commission_id, self.door = "", ""
        self.stack.setCurrentWidget(self.studio_page)
        self.studio_page.refresh()
        self._arrived()
        self.studio_page.shelf.setFocus(Qt.FocusReason.OtherFocusReason)

    def open_door(self, commission_id: str, door: str) -> None:
        """Open a commission at a door; without one, where it stands."""
        self.current.bench.store_pending()
        if not door:
            door = door_now(doors_of(self.desk.commission(commission_id), self.desk.studio)).name
        page = self.page(door)
        self.commission_id, self.door = commission_id, door
        self.stack.setCurrentWidget(page)
        page.open(commission_id)
        self._arrived()
        page.table.setFocus(Qt.FocusReason.OtherFocusReason)
        page.setFocus(Qt.FocusReason.OtherFocusReason)

    def _arrived(self) -> None:
        self.message.clear()
        self.desk.remember("place", [self.commission_id, self.door])
        self._refresh_frame()

    def _go_where_left(self) -> None:
        place = self.desk.recall("place")
        if place and place[0] in self.desk.studio.on_shelf and place[1] in DOORS:
            self.open_door(place[0], place[1])
        else:
            self.open_studio()

    # --- showing

    def _changed(self, change: Change) -> None:
        if change.document == STUDIO:
            if self.commission_id and self.commission_id not in self.desk.studio.on_shelf:
                self.commission_id = ""
            worn = (self.desk.studio.evening, self.desk.studio.text_percent)
            if worn != self._worn:
                self._worn = worn
                self._rebuild()
                return
        self.current.refresh()
        self._refresh_frame()

    def _rebuild(self) -> None:
        """Another theme or size of text: make the widgets anew, in the same place."""
        self._wear()
        settings = self.studio_page.settings
        place = (self.commission_id, self.door)
        self.commission_id = self.door = ""
        self._build()
        self.studio_page.settings = settings
        self.open_door(*place) if place[0] else self.open_studio()

    def _refresh_frame(self) -> None:
        in_studio = not self.commission_id
        self.lane.setVisible(not in_studio)
        if in_studio:
            view = self.studio_page.view
            assert view is not None
            today = day_text(self.workroom.now.date())
            self.header.show_words(view.heading, f"{today} · {view.count}", "", view.under, view.worried, True)
            return
        c = self.desk.commission(self.commission_id)
        self.lane.show_doors(doors_of(c, self.desk.studio), self.door)
        standing = next(
            s for s in standings(self.desk.commissions, self.desk.studio, self.workroom.now) if s.commission.id == c.id
        )
        for_whom = f"for {c.brief.client} · " if c.brief.client else ""
        size = f" · {size_text(c.compose.width_mm, c.compose.height_mm, self.desk.studio.unit)}" if c.compose.sized else ""
        promise = f"Promised {day_text(c.brief.promised)}" if c.brief.promised else "No date promised"
        words = standing.worry
        if not words and standing.days_in_hand is not None and c.deliver.delivered is None and c.compose.sized:
            days = standing.days_in_hand
            words = f"{days} working day{'s' * (days != 1)} in hand"
        self.header.show_words(c.brief.title, f"{for_whom}{c.brief.medium}{size}", promise, words, bool(standing.worry), False)

    def _say(self, text: str, wrong: bool) -> None:
        self.message.say(text, wrong)

    def _failed(self, trouble: Trouble) -> None:
        self.message.say(trouble.sentence, True)

    # --- hands

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if self.keys_sheet.isVisible():
            self.keys_sheet.hide()
            return
        writing = isinstance(QApplication.focusWidget(), _WRITING)
        action = _action_of(event)
        if action in ("undo", "redo", "quit"):
            getattr(self, action)()
        elif writing:
            # Enter has stored what was written; Esc leaves the field.
            if event.key() == Qt.Key.Key_Escape:
                self.current.setFocus(Qt.FocusReason.OtherFocusReason)
        elif self.current.key(event):
            return
        elif action is not None:
            getattr(self, action)()
        elif self.commission_id and event.text() in tuple("123456789"):
            self.open_door(self.commission_id, DOORS[int(event.text()) - 1])
        else:
            super().keyPressEvent(event)

    def act(self) -> None:
        if self.current.bench.act.isEnabled():
            self.workroom.attempt(self.current.act)

    def keys(self) -> None:
        self.keys_sheet.show_keys(self.door or "Studio")

    def back(self) -> None:
        if self.message.text:
            self.message.clear()
        elif self.commission_id:
            self.open_studio()

    def quit(self) -> None:
        self.close()

    def undo(self) -> None:
        self._step_in_time(lambda: self.desk.undo(self._document), "Taken back", "There is nothing to take back here.")

    def redo(self) -> None:
        self._step_in_time(lambda: self.desk.redo(self._document), "Done again", "There is nothing to do again here.")

    @property
    def _document(self) -> str:
        return self.commission_id or STUDIO

    def _step_in_time(self, step, words: str, nothing: str) -> None:  # type: ignore[no-untyped-def]
        change: Change | None = None

        def take() -> None:
            nonlocal change
            change = step()

        if not self.workroom.attempt(take):
            return
        if change is None:
            self._say(nothing, False)
            return
        # Show the place where it happened, so that what was taken back is seen.
        if self.commission_id and change.place in DOORS and change.place != self.door:
            self.open_door(self.commission_id, change.place)
        self._say(f"{words}: {change.label}", False)

    def dragEnterEvent(self, event: QDragEnterEvent) -> None:
        if event.mimeData().hasUrls():
            event.acceptProposedAction()

    def dropEvent(self, event: QDropEvent) -> None:
        paths = _local_files(event.mimeData())
        if paths:
            event.acceptProposedAction()
            self.take_files(paths)

    def paste(self) -> None:
        """Take in what was copied: files, or a picture itself."""
        copied = QApplication.clipboard().mimeData()
        paths = _local_files(copied)
        if not paths and copied.hasImage():
            path = Path(self._pasted.name) / f"pasted {self.workroom.now:%Y-%m-%d %H.%M.%S}.png"
            if QApplication.clipboard().image().save(str(path), "PNG"):  # type: ignore[call-overload]
                paths = [path]
        if paths:
            self.take_files(paths)
        else:
            self._say("Nothing was pasted: copy a picture or picture files first.", False)

    def take_files(self, paths: list[Path]) -> None:
        """Pictures dropped anywhere: at Check the painting, elsewhere the client's photographs."""
        if self.commission_id and self.door != "Check":
            self.open_door(self.commission_id, "Intake")
        self.workroom.attempt(lambda: self.current.take_files(paths))

    def resizeEvent(self, event: QResizeEvent) -> None:
        self.keys_sheet.setGeometry(self.rect())
        if self.header.title.text():
            self._refresh_frame()

    def closeEvent(self, event: QCloseEvent) -> None:
        self.current.bench.store_pending()
        self.jobs.close()
        self.judge.close()
        self._pasted.cleanup()
        event.accept()


def _local_files(data: QMimeData) -> list[Path]:
    return [Path(u.toLocalFile()) for u in data.urls() if u.isLocalFile()]


def _action_of(event: QKeyEvent) -> str | None:
    pressed = QKeySequence(event.keyCombination())
    for action in ACTIONS:
        for keys in action.keys:
            if QKeySequence(keys) == pressed or (len(keys) == 1 and event.text() == keys):
                return action.id
    return None
