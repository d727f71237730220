"""The check page: the painting beside the crop, mirrored, grey, blinking."""

from dataclasses import replace
from pathlib import Path

from PySide6.QtCore import Qt, QTimer
from PySide6.QtGui import QHideEvent, QKeyEvent
from PySide6.QtWidgets import QFileDialog, QHBoxLayout

from yarrow_lane.check.comparison import grey, note_seen, painting_rect, put_painting
from yarrow_lane.intake.opening import PictureFacts
from yarrow_lane.measure.progress import Progress
from yarrow_lane.ui.kit.levels import Levels, make_levels
from yarrow_lane.ui.kit.photo_view import PhotoView
from yarrow_lane.ui.pictures import Shown
from yarrow_lane.ui.room_page import RoomPage
from yarrow_lane.ui.rooms.check.view import CheckLook, check_view
from yarrow_lane.ui.rooms.intake.page import ENDINGS
from yarrow_lane.ui.workroom import Workroom

_BLINK_MS = 700  # our choice: long enough to see, short enough that a shift jumps


class CheckPage(RoomPage):
    """Door 8."""

    def __init__(self, workroom: Workroom) -> None:
        super().__init__(workroom)
        self.look = CheckLook()
        self.draft = ""
        self.reference, self.painting = PhotoView(), PhotoView()
        self.reference.setAccessibleName("The crop")
        self.painting.setAccessibleName("The painting")
        self._shown: dict[str, Shown] = {}
        self._greys: dict[str, Levels] = {}
        self._row = QHBoxLayout(self.table)
        self._row.setContentsMargins(0, 0, 0, 0)
        self._row.setSpacing(0)
        self._row.addWidget(self.reference, 1)
        self._row.addWidget(self.painting, 1)
        self._blink = QTimer(self)
        self._blink.setInterval(_BLINK_MS)
        self._blink.timeout.connect(self.blink_now)
        self._painting_shows = False

    def opened(self) -> None:
        self.look, self.draft = CheckLook(), ""
        self._shown, self._greys = {}, {}

    def refresh(self) -> None:
        c = self.commission
        view = check_view(c, self.look, self.draft, self.workroom.now)
        self.reference.waiting = "Choose the size and lay the crop at Compose first."
        self.painting.waiting = "Drop a photograph of the painting here: straight on, the whole canvas, even daylight."
        if c.compose.framed:
            self.reference.waiting = "Reading the photograph…"
            self.workroom.pictures.reference(c, lambda s: self._ready("reference", s), "check reference")
            if c.check.photo_id:
                area = painting_rect(c.check.size_px, c.compose.proportion)
                self.workroom.pictures.painting(c, area, lambda s: self._ready("painting", s))
        self._show_looks()
        self.show_sheets(view.bench, view.choices)

    def _ready(self, which: str, shown: Shown) -> None:
        if self._shown.get(which) is not shown:
            self._shown[which] = shown
            self._greys.pop(which, None)
            self._show_looks()

    def _show_looks(self) -> None:
        size = (
            (self.commission.compose.width_mm, self.commission.compose.height_mm) if self.commission.compose.framed else (1, 1)
        )
        for which, side in (("reference", self.reference), ("painting", self.painting)):
            side.mirrored = self.look.flip == "mirror"
            side.upside_down = self.look.flip == "down"
            shown = self._shown.get(which)
            if shown is None:
                side.show_levels(None, size)
            elif not self.look.grey:
                side.show_levels(shown.levels, size)
            elif which in self._greys:
                side.show_levels(self._greys[which], size)
            else:
                self._make_grey(which, shown)
            side.update()
        both = not self.look.blink
        self.reference.setVisible(both or not self._painting_shows)
        self.painting.setVisible(both or self._painting_shows)

    def _make_grey(self, which: str, shown: Shown) -> None:
        def work(_: Progress) -> Levels:
            return make_levels(grey(shown.picture))

        def done(levels: Levels) -> None:
            self._greys[which] = levels
            self._show_looks()

        self.workroom.jobs.run(f"grey {which}", work, done)

    def blink_now(self) -> None:
        """Show the other one of the two."""
        self._painting_shows = not self._painting_shows
        self._show_looks()

    def hideEvent(self, event: QHideEvent) -> None:
        self._blink.stop()

    def set_look(self, look: CheckLook) -> None:
        self.look = look
        if look.blink:
            self._blink.start()
        else:
            self._blink.stop()
            self._painting_shows = False
        self.refresh()

    def choose(self, key: str, value: str) -> None:
        fields = {"flip": {"flip": value}, "grey": {"grey": value == "grey"}, "blink": {"blink": value == "blink"}}
        self.set_look(replace(self.look, **fields[key]))  # type: ignore[arg-type]

    def change(self, key: str, value: object) -> None:
        self.draft = str(value)

    def press(self, key: str) -> None:
        if key == "choose":
            self.choose_file()
            return
        self.bench.store_pending()
        text, self.draft = self.draft, ""
        self.desk.do_part(self.commission_id, "Noted what to mend", "check", lambda x: note_seen(x, text))
        self.refresh()

    def choose_file(self) -> None:
        name, _ = QFileDialog.getOpenFileName(self, "Choose a photograph of the painting", str(Path.home()), ENDINGS)
        if name:
            self.take_files([Path(name)])

    def take_files(self, paths: list[Path]) -> None:
        path, commission_id = paths[0], self.commission_id

        def work(_: Progress) -> tuple[str, PictureFacts]:
            return self.desk.keep_picture(path, path.name)

        def done(kept: tuple[str, PictureFacts]) -> None:
            size = (kept[1].width_px, kept[1].height_px)
            now = self.workroom.now
            self.desk.do_part(
                commission_id, f"Put {path.name} beside the crop", "check",
                lambda x: put_painting(x, kept[0], path.name, size, now),
            )  # fmt: skip

        self.workroom.jobs.run("take painting", work, done)

    def act(self) -> None:
        if not self.commission.compose.framed:
            self.workroom.open_door(self.commission_id, "Compose")
        elif self.commission.check.at is None:
            self.choose_file()
        else:
            self.workroom.open_door(self.commission_id, "Deliver")

    def key(self, event: QKeyEvent) -> bool:
        word = event.text().lower()
        if word == "f":
            order = ("upright", "mirror", "down")
            self.choose("flip", order[(order.index(self.look.flip) + 1) % 3])
        elif word == "g":
            self.choose("grey", "colour" if self.look.grey else "grey")
        elif word == "b":
            self.choose("blink", "side" if self.look.blink else "blink")
        elif event.key() == Qt.Key.Key_Escape and self.look != CheckLook():
            self.set_look(CheckLook())
        else:
            return False
        return True
