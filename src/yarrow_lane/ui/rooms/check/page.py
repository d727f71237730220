"""The check page: the painting beside the crop, mirrored, grey, blinking."""

from dataclasses import replace
from pathlib import Path

from PySide6.QtCore import Qt, QTimer
from PySide6.QtGui import QHideEvent, QKeyEvent
from PySide6.QtWidgets import QFileDialog, QHBoxLayout

from yarrow_lane.check.comparison import CHECK, note_seen, painting_rect, put_painting
from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.recompose import Proposal, Recomposed
from yarrow_lane.deliver.handover import with_notes
from yarrow_lane.intake.opening import PictureFacts
from yarrow_lane.lane.happening import Photographed
from yarrow_lane.lane.part import Edit
from yarrow_lane.measure.progress import Progress
from yarrow_lane.ui.bench_sheet import Meaning
from yarrow_lane.ui.file_words import ENDINGS
from yarrow_lane.ui.kit.frame import Frame
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.kit.reference_view import beside_or_above, show_reference
from yarrow_lane.ui.pictures import Shown
from yarrow_lane.ui.room_page import RoomPage
from yarrow_lane.ui.rooms.check.view import FLIPS, CheckLook, check_view
from yarrow_lane.ui.workroom import Workroom

_BLINK_MS = 700  # our choice: long enough to see, short enough that a shift jumps
_DROP = "Drop a photograph of the painting here: straight on, the whole canvas, even daylight."


class CheckPage(RoomPage):
    """Door 8."""

    door = "Check"

    def __init__(self, workroom: Workroom) -> None:
        super().__init__(workroom)
        self.look = CheckLook()
        self.draft = ""
        self.frame = Frame()
        self.reference, self.painting = PictureView("The crop", self.frame), PictureView("The painting", self.frame)
        self.picture = self.reference
        self._pair = row = QHBoxLayout(self.table)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(0)
        row.addWidget(self.reference, 1)
        row.addWidget(self.painting, 1)
        self._blink = QTimer(self)
        self._blink.setInterval(_BLINK_MS)
        self._blink.timeout.connect(workroom.guard.guarded(self.blink_now))
        self._painting_shows = False
        self._painting_id: object = None

    def opened(self) -> None:
        self.draft, self._painting_id = "", None
        self.painting.show_levels(None, (1, 1))
        self._look(CheckLook())

    def refresh(self) -> None:
        c = self.commission
        view = check_view(c, self.look, self.draft, self.workroom.now, self, self.next_act(self._choose))
        show_reference(self.reference, self.workroom.references, c.compose, self)
        self._pair.setDirection(beside_or_above(c.compose))
        self._show_painting()
        both = not self.look.blink
        self.reference.setVisible(both or not self._painting_shows)
        self.painting.setVisible(both or self._painting_shows)
        self.show_sheets(view.bench, view.choices)

    def _show_painting(self) -> None:
        c = self.commission
        self.painting.waiting = _DROP
        if not c.compose.framed or not c.check.photo_id:
            self.painting.show_levels(None, (1, 1))
            return
        size = (c.compose.width_mm, c.compose.height_mm)
        area = painting_rect(c.check.size_px, c.compose.proportion)
        wanted = (c.check.photo_id, area)
        if wanted != self._painting_id:
            self._painting_id = wanted
            self.painting.waiting = "Reading the photograph…"
            self.painting.show_levels(None, size)
        elif self.painting.levels is not None:
            return

        def ready(shown: Shown) -> None:
            if self._painting_id == wanted:
                self.painting.show_levels(shown.levels, size)

        self.workroom.pictures.part(c.check.photo_id, c.check.photo_name, area, self, ready)

    def blink_now(self) -> None:
        """Show the other one of the two."""
        self._painting_shows = not self._painting_shows
        self.refresh()

    def hideEvent(self, event: QHideEvent) -> None:
        self._blink.stop()
        super().hideEvent(event)

    def set_look(self, look: CheckLook) -> None:
        """Look at both in another way."""
        self._look(look)
        self.refresh()

    def _look(self, look: CheckLook) -> None:
        self.look = look
        self.frame.turn(look.flip == "mirror", look.flip == "down", look.grey)
        if look.blink:
            self._blink.start()
        else:
            self._blink.stop()
            self._painting_shows = False

    # --- what the bench asks for

    def write_draft(self, text: str) -> None:
        self.draft = text

    def note_it(self) -> Meaning:
        self.bench.store_pending()
        text = self.draft

        def noted(c: Commission) -> Recomposed:
            """On Check's list and on the last list at Deliver: one list, wherever it is looked at."""
            check = note_seen(c.check, text)
            return Recomposed(replace(c, check=check, deliver=with_notes(c.deliver, check.seen[-1:])))

        if self.hand(lambda: Proposal("Noted what to mend", "Check", noted)) is None:
            self.write_draft("")
            self.refresh()
        return None

    def choose_painting(self) -> None:
        """Ask for the file."""
        name, _ = QFileDialog.getOpenFileName(self, "Choose a photograph of the painting", str(Path.home()), ENDINGS)
        if name:
            self.take_files([Path(name)])

    def _choose(self) -> Meaning:
        self.choose_painting()
        return None

    def take_files(self, paths: list[Path]) -> None:
        path, commission_id = paths[0], self.commission_id

        def work(progress: Progress) -> tuple[str, PictureFacts]:
            return self.workroom.photographs.keep_picture(path, path.name, progress)

        def done(kept: tuple[str, PictureFacts]) -> None:
            size, now = (kept[1].width_px, kept[1].height_px), self.workroom.now
            self.desk.happen(commission_id, Photographed(now, kept[0], path.name), "Check")
            label = f"Put {path.name} beside the crop"
            self.desk.do(commission_id, Edit(CHECK, label, lambda x: put_painting(x, kept[0], path.name, size, now)))

        self.workroom.works.run(f"Reading {path.name}", work, done)

    def key(self, event: QKeyEvent) -> bool:
        word, look = event.text().lower(), self.look
        if word == "f":
            self.set_look(replace(look, flip=FLIPS[(FLIPS.index(look.flip) + 1) % len(FLIPS)]))
        elif word == "g":
            self.set_look(replace(look, grey=not look.grey))
        elif word == "b":
            self.set_look(replace(look, blink=not look.blink))
        elif event.key() == Qt.Key.Key_Escape and look != CheckLook():
            self.set_look(CheckLook())
        else:
            return False
        return True
