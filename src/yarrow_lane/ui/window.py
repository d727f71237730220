"""The window: header, lane, the open room, what is said and asked; and going from place to place."""

from pathlib import Path

from PySide6.QtCore import Qt, QTimer, Signal
from PySide6.QtGui import QCloseEvent, QDragEnterEvent, QDropEvent, QKeyEvent, QResizeEvent
from PySide6.QtWidgets import QApplication, QHBoxLayout, QMainWindow, QStackedWidget, QVBoxLayout, QWidget

from yarrow_lane.desk.air_kept import AIR_CHANGED
from yarrow_lane.desk.desk import STUDIO, Change, Desk
from yarrow_lane.lane.doors import DOORS
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.store.trouble import Damaged
from yarrow_lane.ui import taking
from yarrow_lane.ui.air_watch import AirWatch
from yarrow_lane.ui.guide_sheet import show_guide
from yarrow_lane.ui.header import Header, show_commission, show_hall, show_studio
from yarrow_lane.ui.keys import take_key
from yarrow_lane.ui.keys_sheet import KeysSheet
from yarrow_lane.ui.lane import Lane
from yarrow_lane.ui.messages import MessageStrip, Offer
from yarrow_lane.ui.pasting import Pasted, local_files
from yarrow_lane.ui.question import QuestionStrip
from yarrow_lane.ui.restore_sheet import RestoreSheet
from yarrow_lane.ui.room_page import RoomPage
from yarrow_lane.ui.rooms.studio.page import StudioPage
from yarrow_lane.ui.rooms_table import BOOKS_ROOM, BY_NAME, STUDIO_ROOM
from yarrow_lane.ui.running_clock import RunningClock
from yarrow_lane.ui.theme.sheet import wear
from yarrow_lane.ui.time_steps import show_step
from yarrow_lane.ui.workroom import Workroom
from yarrow_lane.ui.works import WorksStrip
from yarrow_lane.workers.pool import Workers

BOOKS = "books"  # as the studio's choices call them
_MEASURED_MS = 400  # our choice: measures come in bursts, and the frame is told what they come to once


class Window(QMainWindow):
    """One studio on the screen. `demo_wanted` asks for the demo studio instead, `restore_wanted` for a copy (its path) of this one."""

    demo_wanted = Signal()
    restore_wanted = Signal(object)

    def __init__(self, desk: Desk, workers: Workers) -> None:
        super().__init__()
        self.desk = desk
        self._worn = (desk.studio.evening, desk.studio.text_percent)
        self._wear()
        self.message = MessageStrip()
        self.workroom = Workroom(desk, workers, self.say, self.report, self.open_door, self.open_studio, self.open_hall)
        self.threads = self.workroom.threads
        self._pasted = Pasted()
        self.commission_id, self.door = "", ""
        self.hall = STUDIO_ROOM.name  # which room is open while no commission is
        self._said_at = ("", "")
        self._ending = False
        self._sheets: list[QWidget] = []  # what is laid over the window
        self.setWindowTitle("Yarrow Lane")
        self.setAcceptDrops(True)
        self.resize(1280, 800)
        self.clock = RunningClock(self.workroom, lambda words, offer: self.message.say(words, True, offer), self._refresh_frame)
        self.air = AirWatch(desk, self.workroom.guard.guarded, self.report, self._refresh_frame)
        self._measured = QTimer(self)
        self._measured.setSingleShot(True)
        self._measured.setInterval(_MEASURED_MS)
        self._measured.timeout.connect(self.workroom.guard.guarded(self._refresh_frame))
        self.workroom.judging.judged.connect(self._measured.start)
        try:
            self._build()
            desk.listen(self._changed)
            self._go_where_left()
        except BaseException:
            self.workroom.close()
            raise
        if desk.store.trouble is not None:
            self.report(desk.store.trouble)
        self.air.follow()

    # --- made of

    def _build(self) -> None:
        self.header, self.lane, self.message = Header(), Lane(), MessageStrip()
        self.question = QuestionStrip()
        self.works_strip = WorksStrip(self.workroom.works, self.workroom.guard.guarded)
        self.stack = QStackedWidget()
        self.pages: dict[str, RoomPage] = {}
        self.studio_page = self._made_studio()
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
        for strip in (self.works_strip, self.question, self.message):
            box.addWidget(strip)
        self.setCentralWidget(body)
        for old in self._sheets:
            old.deleteLater()
        self.keys_sheet = KeysSheet(self)
        self._sheets = [self.keys_sheet]
        guarded = self.workroom.guard.guarded
        self.header.back.connect(guarded(self.open_studio))
        self.lane.chosen.connect(guarded(lambda door: self.open_door(self.commission_id, door)))

    def _made_studio(self) -> StudioPage:
        page = StudioPage(self.workroom)
        page.demo_wanted.connect(self.demo_wanted)
        page.restore_wanted.connect(self.workroom.guard.guarded(self.show_copies))
        self._take_in(STUDIO_ROOM.name, page)
        return page

    def _take_in(self, name: str, page: RoomPage) -> None:
        page.asked.connect(self._ask)
        page.hand_seen.connect(lambda: self.clock.hand())
        self.pages[name] = page
        self.stack.addWidget(page)

    def page(self, name: str) -> RoomPage:
        """The page of a room, made when it is first opened: a quick start."""
        if name not in self.pages:
            self._take_in(name, BY_NAME[name].page(self.workroom))
        return self.pages[name]

    @property
    def current(self) -> RoomPage:
        return self.pages[self.door or self.hall]

    @property
    def room(self) -> str:
        """The name of the room that is open."""
        return self.door or self.hall

    def _wear(self) -> None:
        application = QApplication.instance()
        assert isinstance(application, QApplication)
        wear(application, self.desk.studio.evening, self.desk.studio.text_percent)

    # --- going places

    def open_studio(self) -> None:
        """Back to the shelf."""
        self._leave()
        if self.commission_id:
            self.studio_page.selected = self.commission_id
        self.commission_id, self.door, self.hall = "", "", STUDIO_ROOM.name
        self.stack.setCurrentWidget(self.studio_page)
        self.studio_page.refresh()
        self._arrived()
        self.studio_page.shelf.setFocus(Qt.FocusReason.OtherFocusReason)

    def open_hall(self, where: str, commission_id: str = "") -> None:
        """The shelf, the calendar, or the books of a commission ("": the most urgent)."""
        if where != BOOKS:
            self.open_studio()
            self.studio_page.go_in_studio(where)
            return
        self._leave()
        page = self.page(BOOKS_ROOM.name)
        self.commission_id, self.door, self.hall = "", "", BOOKS_ROOM.name
        self.stack.setCurrentWidget(page)
        page.open(commission_id)
        self._arrived()
        page.setFocus(Qt.FocusReason.OtherFocusReason)

    def open_door(self, commission_id: str, door: str) -> None:
        """Open a commission at a door; without one, where it stands. Raises `Trouble` when it cannot be read."""
        self._leave()
        standing = self.desk.standings.of(commission_id, self.workroom.now)
        self.desk.commission(commission_id)
        page = self.page(door or standing.door)
        self.commission_id, self.door = commission_id, door or standing.door
        self.stack.setCurrentWidget(page)
        page.open(commission_id)
        self._arrived()
        page.table.setFocus(Qt.FocusReason.OtherFocusReason)
        page.setFocus(Qt.FocusReason.OtherFocusReason)

    def _leave(self) -> None:
        """Raises `StoreTrouble` while words cannot be stored: the painter then stays with them."""
        self.message.clear()  # what is said from here on is still said where one arrives
        self.question.leave()
        self.current.bench.rest(False)
        self.current.bench.store_pending()

    def _arrived(self) -> None:
        self._refresh_frame()
        self.workroom.guard.attempt(
            lambda: self.desk.remember("place", [self.commission_id, self.room if self.hall == BOOKS_ROOM.name else self.door])
        )

    def _go_where_left(self) -> None:
        match self.desk.recall("place"):
            case [str(commission_id), str(door)] if commission_id in self.desk.studio.on_shelf and door in DOORS:
                if self.workroom.guard.attempt(lambda: self.open_door(commission_id, door)) is None:
                    return
                words = self.message.text
                self.open_studio()
                self.say(words, True)
            case ["", BOOKS_ROOM.name]:
                self.open_hall(BOOKS)
            case _:  # nowhere yet, or its memory is damaged: nothing is lost by it
                self.open_studio()

    # --- showing

    def _changed(self, change: Change) -> None:
        if change.label != AIR_CHANGED:  # that was no hand
            self.clock.hand()
        if (self.commission_id, self.door) == self._said_at and change.document == self._document:
            self.message.overtaken()  # the next change there has succeeded: what was said before it is over
        if change.document == STUDIO:
            self.air.follow()
            if self.commission_id and self.commission_id not in self.desk.studio.on_shelf:
                self.commission_id = self.door = ""
                self.hall = STUDIO_ROOM.name
                self.stack.setCurrentWidget(self.studio_page)
            worn = (self.desk.studio.evening, self.desk.studio.text_percent)
            if worn != self._worn:
                self._worn = worn
                self._rebuild()
                return
        if change.document in (STUDIO, self.commission_id) or not self.commission_id:
            self.current.refresh()
            self._refresh_frame()

    def _rebuild(self) -> None:
        """Another theme or size of text: make the widgets anew, in the same place. The workroom and its work go on."""
        self._wear()
        bench = self.studio_page.on_bench
        place, hall = (self.commission_id, self.door), self.hall
        for page in self.pages.values():
            page.left()
        self.commission_id, self.door, self.hall = "", "", STUDIO_ROOM.name
        self._build()
        self.studio_page.on_bench = bench
        if place[0]:
            self.open_door(*place)
        else:
            self.open_hall(BOOKS) if hall == BOOKS_ROOM.name else self.open_studio()

    def _refresh_frame(self) -> None:
        self.lane.setVisible(bool(self.commission_id))
        if not self.commission_id:
            self.header.show_clock(self.clock.words())
            if self.current is not self.studio_page:
                show_hall(self.header, self.current.heading)
                return
            assert self.studio_page.view is not None
            show_studio(self.header, self.studio_page.view, self.workroom.now)
            return
        outlook = self.desk.standings.outlook(self.commission_id, self.workroom.now)
        self.header.show_clock(self.clock.words())  # read off the standings just asked for
        self.lane.show_doors(outlook.standing.doors, self.door)
        show_commission(self.header, outlook, self.studio_page.studio)

    def say(self, text: str, wrong: bool) -> None:
        """Say something at the foot of the window; it goes when the next change at that place succeeds."""
        self._said_at = (self.commission_id, self.door)
        self.message.say(text, wrong)

    def report(self, trouble: Trouble) -> None:
        """Say what went wrong, and offer what may mend it."""
        offer = Offer("Restore…", self.workroom.guard.guarded(self.show_copies)) if isinstance(trouble, Damaged) else None
        self.message.say(trouble.sentence, True, offer)

    def show_copies(self) -> None:
        """The copies of the studio, laid over the window."""
        self.current.bench.rest(True)
        sheet = next((s for s in self._sheets if isinstance(s, RestoreSheet)), None) or self._made_restore_sheet()
        elsewhere = self.desk.store.elsewhere
        sheet.show_copies(() if elsewhere is None else (elsewhere,))

    def _made_restore_sheet(self) -> RestoreSheet:
        """Made when it is first wanted: most days nobody does."""
        sheet = RestoreSheet(self.desk.store.folder, self.desk.clock, self.workroom.guard.guarded, self)
        sheet.chosen.connect(self.restore_wanted)
        sheet.left.connect(self._restore_left)
        self._sheets.append(sheet)
        return sheet

    def _restore_left(self) -> None:
        self.current.bench.rest(False)
        self.current.setFocus(Qt.FocusReason.OtherFocusReason)

    def _ask(self, what: str, changes: tuple[str, ...], then: object) -> None:
        bench = self.current.bench

        def answered(wanted: bool) -> None:
            bench.rest(False)
            self.workroom.guard.attempt(lambda: then(wanted))  # type: ignore[operator]

        bench.rest(True)  # its yellow field gives way to the question's
        self.question.ask(what, changes, answered)

    # --- hands

    def keyPressEvent(self, event: QKeyEvent) -> None:
        self.clock.hand()
        used = False

        def step() -> None:
            nonlocal used
            used = take_key(self, event)

        if self.workroom.guard.attempt(step) is None and not used:
            super().keyPressEvent(event)

    def act(self) -> None:
        """Enter: the question's yellow field while one is asked, else the bench's."""
        if self.question.waiting:
            self.question.answer(True)
        elif self.current.bench.act.isEnabled():
            self.current.hand(self.current.act)

    def keys(self) -> None:
        self.keys_sheet.show_keys(self.room)

    def guide(self) -> None:
        show_guide(self, self._sheets)

    def back(self) -> None:
        """Esc: one step back at a time."""
        if self.question.waiting:
            self.question.answer(False)
        elif self.message.text:
            self.message.clear()
        elif not self.workroom.works.stop() and (self.commission_id or self.hall != STUDIO_ROOM.name):
            self.open_studio()

    def quit(self) -> None:
        self.close()

    def end(self) -> None:
        """Close whatever is under way or cannot be stored: the painter said so, or the program ends."""
        self._ending = True
        self.close()

    def _may_close(self) -> bool:
        """Whether everything is on record and nothing is under way; else it is said, with a way to close all the same."""
        if self._ending:
            self.workroom.guard.attempt(self.current.bench.store_pending)
            return True
        trouble = self.workroom.guard.attempt(self.current.bench.store_pending)
        trouble = trouble or self.workroom.guard.attempt(self.workroom.arrivals.land)
        running = self.workroom.works.now
        if trouble is None and not running:
            return self.clock.may_close(self.end)
        words = trouble.sentence if trouble is not None else " · ".join(f"{w.title}: {w.words}" for w in running)
        self.message.say(f"Not closed yet. {words}", trouble is not None, Offer("Close all the same", self.end))
        return False

    def undo(self) -> None:
        show_step(self, self.desk.undo(self._document), "Taken back", "There is nothing to take back here.")

    def redo(self) -> None:
        show_step(self, self.desk.redo(self._document), "Done again", "There is nothing to do again here.")

    @property
    def _document(self) -> str:
        return self.commission_id or self.current.commission_id or STUDIO

    def dragEnterEvent(self, event: QDragEnterEvent) -> None:
        if event.mimeData().hasUrls():
            event.acceptProposedAction()

    def dropEvent(self, event: QDropEvent) -> None:
        paths = local_files(event.mimeData())
        if paths:
            event.acceptProposedAction()
            self.take_files(paths)

    def paste(self) -> None:
        """Take in what was copied: files, or a picture itself."""
        taking.paste(self, self._pasted)

    def take_files(self, paths: list[Path]) -> None:
        """Pictures dropped anywhere."""
        self.workroom.guard.attempt(lambda: taking.take_files(self, paths))

    def resizeEvent(self, event: QResizeEvent) -> None:
        for sheet in self._sheets:
            sheet.setGeometry(self.rect())

    def closeEvent(self, event: QCloseEvent) -> None:
        if not self._may_close():
            event.ignore()
            return
        self._measured.stop()
        self.clock.close()
        self.air.close()
        self.workroom.close()  # first: what stops says so to the pages
        for page in self.pages.values():
            page.left()
        self._pasted.close()
        event.accept()
