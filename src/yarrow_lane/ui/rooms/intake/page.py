"""The intake page: take photographs in, mark the eyes, decide what leads."""

from dataclasses import replace
from pathlib import Path

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QFileDialog, QStackedLayout

from yarrow_lane.commission.commission import take_photo_away
from yarrow_lane.commission.doors import photo_wants
from yarrow_lane.intake.brief import with_title
from yarrow_lane.intake.photos import Eye, Photo, add_photos, clear_eyes, mark_eye, set_rights, set_use
from yarrow_lane.ui.pictures import Shown
from yarrow_lane.ui.room_page import RoomPage
from yarrow_lane.ui.rooms.intake.arrivals import Arrivals
from yarrow_lane.ui.rooms.intake.eye_canvas import EyeCanvas
from yarrow_lane.ui.rooms.intake.photo_grid import PhotoGrid
from yarrow_lane.ui.rooms.intake.view import IntakeView, intake_view
from yarrow_lane.ui.workroom import Workroom

ENDINGS = "Photographs (*.jpg *.jpeg *.png *.tif *.tiff *.webp *.heic *.heif *.hif);;All files (*)"

_MOST_SENTENCES = 4  # our choice: more would push the photographs off the window


class IntakePage(RoomPage):
    """Door 1."""

    def __init__(self, workroom: Workroom) -> None:
        super().__init__(workroom)
        self.chosen_id, self.mode, self.side = "", "all", "left"
        self.grid = PhotoGrid(workroom.pictures)
        self.eyes = EyeCanvas()
        self._stack = QStackedLayout(self.table)
        self._stack.addWidget(self.grid)
        self._stack.addWidget(self.eyes)
        self._shown_id = ""
        self._arrivals = Arrivals(workroom.desk, workroom.jobs)
        self._arriving_to = ""
        self._arrivals.landed.connect(self._land)
        self._arrivals.ended.connect(self._ended)
        self.grid.chosen.connect(self.select)
        self.grid.opened.connect(self.look_closer)
        self.eyes.marked.connect(self._mark)
        self.view: IntakeView | None = None

    def opened(self) -> None:
        self.chosen_id, self.mode, self.side, self._shown_id = "", "all", "left", ""

    def refresh(self) -> None:
        view = intake_view(self.commission, self.chosen_id, self.mode, self.side, self.workroom.now)
        self.view = view
        self.chosen_id = view.chosen.id if view.chosen else ""
        if view.chosen is None:
            self.mode = "all"
        self._stack.setCurrentWidget(self.eyes if self.mode == "one" else self.grid)
        self.grid.show_tiles(view.tiles, self.chosen_id)
        if self.mode == "one" and view.chosen is not None:
            self._show_photo(view.chosen)
            self.eyes.show_eyes(view.chosen.eyes, self.side)
        self.show_sheets(view.bench, view.choices)

    def _show_photo(self, photo: Photo) -> None:
        if photo.id == self._shown_id:
            return
        self._shown_id = photo.id
        self.eyes.waiting = f"Reading {photo.name}…"
        self.eyes.show_levels(None, (photo.width_px, photo.height_px))

        def ready(shown: Shown) -> None:
            if self._shown_id == photo.id:
                self.eyes.show_levels(shown.levels, (photo.width_px, photo.height_px))

        self.workroom.pictures.photo(photo.id, photo.name, ready)

    # --- choosing and marking

    def select(self, photo_id: str) -> None:
        self.chosen_id = photo_id
        self.refresh()

    def look_closer(self, photo_id: str) -> None:
        """Show one photograph large, ready to mark the eye that is missing."""
        self.chosen_id, self.mode = photo_id, "one"
        photo = self.commission.intake.photo(photo_id)
        self.side = "left" if photo.eye("left") is None else "right"
        self.refresh()
        self.eyes.setFocus(Qt.FocusReason.OtherFocusReason)

    def _mark(self, x: float, y: float, radius: float) -> None:
        eye = Eye(self.side, x, y, radius)  # type: ignore[arg-type]
        photo_id, side = self.chosen_id, self.side
        marked = self.workroom.attempt(
            lambda: self.desk.do_part(
                self.commission_id, f"Marked the {side} eye", "intake", lambda i: mark_eye(i, photo_id, eye)
            )
        )
        if marked and side == "left" and self.commission.intake.photo(photo_id).eye("right") is None:
            self.side = "right"
            self.refresh()

    def choose(self, key: str, value: str) -> None:
        if key == "add":
            self.choose_files()
        elif key == "side":
            self.side = value
        elif key == "mode" and value == "one" and self.chosen_id:
            self.look_closer(self.chosen_id)
        else:
            self.mode = "all"
        self.refresh()

    def change(self, key: str, value: object) -> None:
        photo_id, text = self.chosen_id, str(value)
        if key in ("title", "client", "medium", "promised", "wish"):
            if key == "title":
                self.desk.do_part(self.commission_id, "Named the commission", "brief", lambda b: with_title(b, text), "Intake")
            else:
                self.desk.do_part(
                    self.commission_id, f"Changed the {key}", "brief", lambda b: replace(b, **{key: value}), "Intake"
                )
            return
        if key == "use":
            self._edit(f"Use: {text}", lambda i: set_use(i, photo_id, value))  # type: ignore[arg-type]
            return
        rights = replace(self.commission.intake.photo(photo_id).rights, **{key: value})
        self._edit("Wrote down the rights", lambda i: set_rights(i, photo_id, rights))

    def _edit(self, label: str, step: object) -> None:
        self.desk.do_part(self.commission_id, label, "intake", step)  # type: ignore[arg-type]

    def press(self, key: str) -> None:
        photo_id = self.chosen_id
        if key == "clear eyes":
            self._edit("Took the eye marks off", lambda i: clear_eyes(i, photo_id))
        elif key == "take away":
            name = self.commission.intake.photo(photo_id).name
            self.desk.do(self.commission_id, f"Took {name} away", "Intake", lambda c: take_photo_away(c, photo_id))

    def act(self) -> None:
        c = self.commission
        if not c.intake.photos:
            self.choose_files()
        elif not c.intake.leads:
            self._edit("Use: lead", lambda i: set_use(i, self.chosen_id, "lead"))
        else:
            wanting = next((p for p in c.intake.kept if photo_wants(p)), None)
            if wanting is None:
                self.workroom.open_door(c.id, "Compose")
            elif wanting.use == "lead" and not wanting.eyes:
                self.look_closer(wanting.id)
            else:
                self.select(wanting.id)
                self.bench.line("permission").setFocus(Qt.FocusReason.OtherFocusReason)

    def key(self, event: QKeyEvent) -> bool:
        if event.key() == Qt.Key.Key_Escape and self.mode == "one":
            self.choose("mode", "all")
            self.grid.setFocus(Qt.FocusReason.OtherFocusReason)
            return True
        if event.key() == Qt.Key.Key_Space and self.chosen_id:
            self.choose("mode", "all") if self.mode == "one" else self.look_closer(self.chosen_id)
            return True
        return False

    # --- taking in

    def choose_files(self) -> None:
        names, _ = QFileDialog.getOpenFileNames(self, "Choose photographs", str(Path.home()), ENDINGS)
        if names:
            self.take_files([Path(n) for n in names])

    def take_files(self, paths: list[Path]) -> None:
        self._arriving_to = self.commission_id
        self.workroom.say("Reading the photographs…", False)
        self._arrivals.take(paths)

    def _land(self, photos: tuple[Photo, ...]) -> None:
        count = len(photos)
        label = f"Took in {photos[0].name}" if count == 1 else f"Took in {count} photographs"
        self.workroom.attempt(
            lambda: self.desk.do_part(self._arriving_to, label, "intake", lambda i: add_photos(i, photos))
        )  # fmt: skip

    def _ended(self, sentences: list[str]) -> None:
        if sentences:
            self.workroom.say("\n".join(sentences[:_MOST_SENTENCES]) + _and_more(len(sentences) - _MOST_SENTENCES), True)
        else:
            self.workroom.say("All photographs are in.", False)


def _and_more(count: int) -> str:
    return f"\n… and {count} more." if count > 0 else ""
