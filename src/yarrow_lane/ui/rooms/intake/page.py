"""The intake page: take photographs in, mark the eyes, judge them, decide what leads, ask for more."""

from dataclasses import replace
from pathlib import Path
from typing import Any

from PySide6.QtCore import Qt, QTimer
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QFileDialog, QPlainTextEdit, QStackedLayout

from yarrow_lane.commission.commission import take_photo_away
from yarrow_lane.commission.doors import kept_wants
from yarrow_lane.intake.brief import add_sitter
from yarrow_lane.intake.landmarks import Landmark
from yarrow_lane.intake.opening import open_picture
from yarrow_lane.intake.photos import (
    Eye,
    Photo,
    add_photos,
    clear_marks,
    mark_eye,
    mark_landmark,
    nudge_eye,
    nudge_landmark,
)
from yarrow_lane.intake.suggestions import suggest_eyes
from yarrow_lane.measure.progress import Progress
from yarrow_lane.ui.pictures import Shown
from yarrow_lane.ui.room_page import RoomPage
from yarrow_lane.ui.rooms.intake.arrivals import Arrivals
from yarrow_lane.ui.rooms.intake.comparing import eye_rows, light_dials
from yarrow_lane.ui.rooms.intake.edits import edit_for
from yarrow_lane.ui.rooms.intake.evidence_lines import sitter_of
from yarrow_lane.ui.rooms.intake.eye_canvas import EyeCanvas
from yarrow_lane.ui.rooms.intake.eyes_row import EyesRow
from yarrow_lane.ui.rooms.intake.judging import Judging
from yarrow_lane.ui.rooms.intake.light_dials import LightDials
from yarrow_lane.ui.rooms.intake.marks import marks_shown
from yarrow_lane.ui.rooms.intake.overlays import overlay_of
from yarrow_lane.ui.rooms.intake.paperwork import contact_sheet_of, draft_letter, send_letter
from yarrow_lane.ui.rooms.intake.photo_grid import PhotoGrid
from yarrow_lane.ui.rooms.intake.view import IntakeView, Look, intake_view, marks_for
from yarrow_lane.ui.theme.lettering import lettering, px
from yarrow_lane.ui.workroom import Workroom

ENDINGS = "Photographs (*.jpg *.jpeg *.png *.tif *.tiff *.webp *.heic *.heif *.hif);;All files (*)"
_MOST_SENTENCES = 4  # our choice: more would push the photographs off the window
_SOON_MS = 150  # our choice


class IntakePage(RoomPage):
    """Door 1."""

    def __init__(self, workroom: Workroom) -> None:
        super().__init__(workroom)
        self.look = Look()
        self.grid = PhotoGrid(workroom.pictures)
        self.eyes = EyeCanvas()
        self.pairs = EyesRow(workroom.pictures)
        self.dials = LightDials()
        self.letter = QPlainTextEdit()
        self.letter.setFont(lettering(17))
        self.letter.setAccessibleName("The letter")
        self.letter.document().setDocumentMargin(px(34))
        self._stack = QStackedLayout(self.table)
        for widget in (self.grid, self.eyes, self.pairs, self.dials, self.letter):
            self._stack.addWidget(widget)
        self._shown_id = ""
        self._shown: Shown | None = None
        self._overlaid = ("", "")
        self.judging = Judging(workroom)
        self.arrivals = Arrivals(workroom.desk, workroom.jobs)
        self._connect()
        self.view: IntakeView | None = None

    def _connect(self) -> None:
        # Measures come by the dozen while a batch is read: they are shown together.
        self._soon = QTimer(self)
        self._soon.setSingleShot(True)
        self._soon.setInterval(_SOON_MS)
        self._soon.timeout.connect(self._refresh_if_open)
        self._sheets_later = QTimer(self)
        self._sheets_later.setSingleShot(True)
        self._sheets_later.timeout.connect(self._show_sheets_now)
        self.judging.judged.connect(self._refresh_soon)
        self.arrivals.landed.connect(self._land)
        self.arrivals.ended.connect(self._ended)
        self.arrivals.progressed.connect(self._refresh_if_open)
        self.grid.chosen.connect(self.select)
        self.grid.opened.connect(self.look_closer)
        self.pairs.chosen.connect(self.select)
        self.eyes.marked.connect(self._mark_eye)
        self.eyes.pointed.connect(self._mark_point)
        self.eyes.nudged.connect(self._nudge)

    @property
    def chosen_id(self) -> str:
        return self.look.chosen_id

    def opened(self) -> None:
        self.look, self._shown_id, self._shown = Look(keep_location=self.look.keep_location), "", None
        self.letter.clear()

    def _refresh_soon(self) -> None:
        if not self._soon.isActive():
            self._soon.start()

    def _refresh_if_open(self) -> None:
        if self.commission_id and self.isVisible():
            self.refresh()

    def refresh(self) -> None:
        c = self.commission
        evidence = self.judging.evidence(c.intake.photos)
        read, of = self.arrivals.reading
        self.look = replace(self.look, reading=f"{read} of {of} read" if of else "")
        view = intake_view(c, self.studio, self.look, evidence)
        self.view = view
        mode = self.look.mode if view.chosen or self.look.mode == "letter" else "all"
        self.look = replace(self.look, chosen_id=view.chosen.id if view.chosen else "", mode=mode)
        tables = {"all": self.grid, "one": self.eyes, "eyes": self.pairs, "light": self.dials, "letter": self.letter}
        self._stack.setCurrentWidget(tables[mode])
        if mode == "all":
            self.grid.show_tiles(view.tiles, self.chosen_id)
        elif mode == "one" and view.chosen is not None:
            self._show_photo(view.chosen)
            self.eyes.show_marks(marks_shown(view.chosen, evidence.get(view.chosen.id), self.look.mark))
        elif mode == "eyes":
            self.pairs.show_rows(eye_rows(c, evidence), self.chosen_id)
        elif mode == "light":
            self.dials.show_dials(*light_dials(c, evidence))
        elif not self.letter.toPlainText():
            self.draft_letter()
        if of:  # while a batch is read the cards come first, and the bench in a turn of its own
            self._sheets_later.start()
        else:
            self._show_sheets_now()

    def _show_sheets_now(self) -> None:
        self._sheets_later.stop()
        if self.view is not None and self.commission_id:
            self.show_sheets(self.view.bench, self.view.choices)

    def _show_photo(self, photo: Photo) -> None:
        self._show_overlay(photo)
        if photo.id == self._shown_id:
            return
        self._shown_id, self._shown = photo.id, None
        self.eyes.waiting = f"Reading {photo.name}…"
        self.eyes.show_levels(None, (photo.width_px, photo.height_px))

        def ready(shown: Shown) -> None:
            if self._shown_id == photo.id:
                self._shown = shown
                self.eyes.show_levels(shown.levels, (photo.width_px, photo.height_px))
                self._show_overlay(photo)

        self.workroom.pictures.photo(photo.id, photo.name, ready)

    def _show_overlay(self, photo: Photo) -> None:
        kind = self.look.overlay if self._shown is not None and self._shown.whole else ""
        wanted = (photo.id, kind) if kind else ("", "")
        if wanted == self._overlaid:
            return
        self._overlaid = wanted
        self.eyes.overlay = None
        self.eyes.update()
        if kind and self._shown is not None:
            picture = self._shown.picture

            def done(image: Any) -> None:
                if self._overlaid == wanted:
                    self.eyes.overlay = image
                    self.eyes.update()

            self.workroom.jobs.run("overlay", lambda _: overlay_of(picture, kind), done)

    # --- choosing and marking

    def select(self, photo_id: str) -> None:
        self.look = replace(self.look, chosen_id=photo_id)
        self.refresh()

    def look_closer(self, photo_id: str) -> None:
        """Show one photograph large, ready to mark what is missing."""
        photo = self.commission.intake.photo(photo_id)
        mark = "left" if photo.eye("left") is None else "right"
        self.look = replace(self.look, chosen_id=photo_id, mode="one", mark=mark, bench="photo")
        self.refresh()
        self.eyes.setFocus(Qt.FocusReason.OtherFocusReason)

    def _mark_eye(self, x: float, y: float, radius: float) -> None:
        side = self.look.mark
        eye = Eye(side, x, y, radius)  # type: ignore[arg-type]
        if self._edit(f"Marked the {side} eye", lambda i: mark_eye(i, self.chosen_id, eye)):
            self._next_mark()

    def _mark_point(self, x: float, y: float) -> None:
        point = Landmark(self.look.mark, x, y)
        if self._edit(f"Marked the {point.name}", lambda i: mark_landmark(i, self.chosen_id, point)):
            self._next_mark()

    def _next_mark(self) -> None:
        """Go on to the first thing of the template that is not marked yet."""
        photo = self.commission.intake.photo(self.chosen_id)
        done = {e.side for e in photo.eyes} | {m.name for m in photo.landmarks}
        left = [m for m in marks_for(self.commission, photo) if m not in done]
        if left and self.look.mark in done:
            self.look = replace(self.look, mark=left[0])
            self.refresh()

    def _nudge(self, dx: float, dy: float, grow: float) -> None:
        mark: Any = self.look.mark
        if mark in ("left", "right"):
            self._edit(f"Nudged the {mark} eye", lambda i: nudge_eye(i, self.chosen_id, mark, dx, dy, grow))
        elif not grow:
            self._edit(f"Nudged the {mark}", lambda i: nudge_landmark(i, self.chosen_id, mark, dx, dy))

    def _edit(self, label: str, step: Any) -> bool:
        return self.workroom.attempt(lambda: self.desk.do_part(self.commission_id, label, "intake", step))

    def suggest(self) -> None:
        """Let the detector guess; it says when it cannot."""
        photo = self.commission.intake.photo(self.chosen_id)
        sitter = sitter_of(self.commission, photo)
        path, commission_id = self.desk.store.pictures.path(photo.id), self.commission_id
        kind = sitter.kind if sitter else "other"

        def work(_: Progress) -> tuple[Eye, ...]:
            return suggest_eyes(open_picture(path, photo.name).picture, kind)

        def done(found: tuple[Eye, ...]) -> None:
            if not found:
                self.workroom.say("No eyes could be found with any certainty; drag across them yourself.", False)
                return

            def step(intake: Any) -> Any:
                for eye in found:
                    intake = mark_eye(intake, photo.id, eye)
                return intake

            self.desk.do_part(commission_id, f"Suggested the eyes of {photo.name}", "intake", step)
            self.workroom.say("Suggested: look closely and set the circles right.", False)

        self.workroom.jobs.run("suggest", work, done)

    # --- hands

    def choose(self, key: str, value: str) -> None:
        if key == "add":
            self.choose_files()
        elif key == "stop":
            self.arrivals.stop()
            self.workroom.say("Stopped: what was read is in, the rest was left unread.", False)
        elif key == "bench":
            self.look = replace(self.look, bench=value)
        elif value == "one" and self.chosen_id:
            self.look_closer(self.chosen_id)
        else:
            self.look = replace(self.look, mode=value, bench="photo")
        self.refresh()

    def change(self, key: str, value: object) -> None:
        if key == "mark":
            self.look = replace(self.look, mark=str(value))
            self.refresh()
        elif key == "overlay":
            self.look = replace(self.look, overlay=str(value))
            self.refresh()
        elif key == "keep location":
            self.look = replace(self.look, keep_location=bool(value))
            self.refresh()
        else:
            label, part, step = edit_for(self.commission, self.chosen_id, key, value, self.studio.unit)
            self.desk.do_part(self.commission_id, label, part, step, "Intake")

    def press(self, key: str) -> None:
        photo_id = self.chosen_id
        if key == "clear marks":
            self._edit("Took the marks off", lambda i: clear_marks(i, photo_id))
        elif key == "forget refused":
            self.look = replace(self.look, refused=())
            self.refresh()
        elif key == "take away":
            name = self.commission.intake.photo(photo_id).name
            self.desk.do(self.commission_id, f"Took {name} away", "Intake", lambda c: take_photo_away(c, photo_id))
        elif key == "suggest":
            self.suggest()
        elif key == "add sitter":
            number = len(self.commission.brief.sitters) + 1
            self.desk.do_part(
                self.commission_id, "One more sitter", "brief", lambda b: add_sitter(b, f"Sitter {number}", "other"), "Intake"
            )
        elif key == "sheet":
            self.save_contact_sheet()
        elif key == "redraft":
            self.draft_letter()

    def act(self) -> None:
        c = self.commission
        if self.look.mode == "letter" and self.look.bench == "photo":
            self.send_letter()
        elif not c.intake.photos:
            self.choose_files()
        elif not c.intake.leads:
            self.change("use", "lead")
        else:
            found = kept_wants(c)
            if found is None:
                self.workroom.open_door(c.id, "Compose")
                return
            photo, _ = found
            if photo.use == "lead" and not photo.eyes:
                self.look_closer(photo.id)
                return
            self.look = replace(self.look, bench="photo")
            self.select(photo.id)
            self.bench.line("consent" if photo.rights.known else "permission").setFocus(Qt.FocusReason.OtherFocusReason)

    def key(self, event: QKeyEvent) -> bool:
        if event.key() == Qt.Key.Key_Escape and self.look.mode != "all":
            self.choose("mode", "all")
            self.grid.setFocus(Qt.FocusReason.OtherFocusReason)
            return True
        if event.key() == Qt.Key.Key_Space and self.chosen_id:
            self.choose("mode", "all") if self.look.mode == "one" else self.look_closer(self.chosen_id)
            return True
        word = {"e": "eyes", "l": "light", "a": "letter"}.get(event.text().lower())
        if word is not None:
            self.choose("mode", word)
            return True
        return False

    # --- taking in

    def choose_files(self) -> None:
        names, _ = QFileDialog.getOpenFileNames(self, "Choose photographs", str(Path.home()), ENDINGS)
        if names:
            self.take_files([Path(n) for n in names])

    def take_files(self, paths: list[Path]) -> None:
        requests = self.commission.intake.requests
        # What comes after a letter is taken as its answer; the painter can say otherwise.
        answers = requests[-1].number if requests else 0
        self.arrivals.take(self.commission_id, paths, answers, self.look.keep_location)

    def _land(self, commission_id: str, photos: tuple[Photo, ...]) -> None:
        count = len(photos)
        label = f"Took in {photos[0].name}" if count == 1 else f"Took in {count} photographs"
        self.workroom.attempt(lambda: self.desk.do_part(commission_id, label, "intake", lambda i: add_photos(i, photos)))

    def _ended(self, sentences: list[str]) -> None:
        self.look = replace(self.look, refused=tuple(sentences))
        self._refresh_if_open()
        if sentences:
            more = len(sentences) - _MOST_SENTENCES
            rest = f"\n… and {more} more; all of them stand on the bench." if more > 0 else ""
            self.workroom.say("\n".join(sentences[:_MOST_SENTENCES]) + rest, True)
        else:
            self.workroom.say("All photographs are in.", False)

    # --- letter and contact sheet

    def draft_letter(self) -> None:
        """Write the letter from what is missing now."""
        c = self.commission
        self.letter.setPlainText(draft_letter(c, self.studio, self.judging.evidence(c.intake.photos)))

    def send_letter(self) -> None:
        """Put the letter into the outbox and on record."""
        c = self.commission
        path = send_letter(self.desk, c, self.letter.toPlainText(), self.judging.evidence(c.intake.photos))
        warning = c.brief.contact_warning
        self.workroom.say(f"In the outbox: {path}." + (f" {warning}." if warning else ""), bool(warning))

    def save_contact_sheet(self) -> None:
        name = f"{self.commission.brief.title} photographs.pdf"
        self.save_file("Save the contact sheet", name, ".pdf", contact_sheet_of(self.desk, self.commission))
        if self.commission.brief.contact_warning:
            self.workroom.say(f"{self.commission.brief.contact_warning}.", True)
