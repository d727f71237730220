"""The intake page: take photographs in, mark the eyes, judge them, decide what leads, ask for more."""

from dataclasses import replace
from pathlib import Path

from PySide6.QtCore import Qt, QTimer
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QFileDialog, QPlainTextEdit, QStackedLayout

from yarrow_lane.desk.letters import letter_remarks
from yarrow_lane.intake.standing import kept_wants
from yarrow_lane.lane.happening import LetterSent, of_kind
from yarrow_lane.lane.standing import Standing
from yarrow_lane.measure.progress import Progress
from yarrow_lane.measure.words import begun
from yarrow_lane.ui.bench_sheet import Meaning, NextAct
from yarrow_lane.ui.file_words import ENDINGS
from yarrow_lane.ui.room_page import RoomPage
from yarrow_lane.ui.rooms.intake.comparing import eye_rows, light_dials
from yarrow_lane.ui.rooms.intake.eyes_row import EyesRow
from yarrow_lane.ui.rooms.intake.light_dials import LightDials
from yarrow_lane.ui.rooms.intake.marking import Marking
from yarrow_lane.ui.rooms.intake.paperwork import contact_sheet_of, draft_letter, send_letter
from yarrow_lane.ui.rooms.intake.photo_grid import PhotoGrid
from yarrow_lane.ui.rooms.intake.view import IntakeView, Look, intake_view, used
from yarrow_lane.ui.theme.lettering import lettering, px
from yarrow_lane.ui.workroom import Workroom

_SOON_MS = 150  # our choice
_MODE_KEYS = {"e": "eyes", "l": "light", "a": "letter"}


class IntakePage(RoomPage):
    """Door 1. One of five tables is shown: all photographs, one large, eyes side by side, light, the letter."""

    door = "Intake"

    def __init__(self, workroom: Workroom) -> None:
        super().__init__(workroom)
        self.look = Look()
        self.grid = PhotoGrid(workroom.pictures)
        self.marking = Marking(self)
        self.pairs = EyesRow(workroom.pictures)
        self.dials = LightDials()
        self.letter = QPlainTextEdit()
        self.letter.setFont(lettering(17))
        self.letter.setAccessibleName("The letter")
        self.letter.document().setDocumentMargin(px(34))
        self._letters: dict[str, str] = {}  # half written ones stay, by commission
        self.letter.textChanged.connect(self._keep_letter)
        self._stack = QStackedLayout(self.table)
        for widget in (self.grid, self.marking.picture, self.pairs, self.dials, self.letter):
            self._stack.addWidget(widget)
        self.picture = self.marking.picture
        self._connect()
        self.view: IntakeView | None = None

    def _connect(self) -> None:
        guarded = self.workroom.guard.guarded
        # Measures come by the dozen while a batch is read: they are shown together.
        self._soon = QTimer(self)
        self._soon.setSingleShot(True)
        self._soon.setInterval(_SOON_MS)
        self._soon.timeout.connect(guarded(self._refresh_if_open))
        self._sheets_later = QTimer(self)
        self._sheets_later.setSingleShot(True)
        self._sheets_later.timeout.connect(guarded(self._show_sheets_now))
        self.workroom.judging.judged.connect(self._refresh_soon)
        self.workroom.arrivals.progressed.connect(self._refresh_soon)
        self.grid.chosen.connect(guarded(self.select))
        self.grid.opened.connect(guarded(self.look_closer))
        self.pairs.chosen.connect(guarded(self.select))

    @property
    def chosen_id(self) -> str:
        return self.look.chosen_id

    def opened(self) -> None:
        self.look = Look(keep_location=self.look.keep_location)
        self.marking.forget()
        self.letter.setPlainText(self._letters.get(self.commission_id, ""))
        self.workroom.pictures.forget_missing()

    def left(self) -> None:
        self._soon.stop()
        self._sheets_later.stop()
        super().left()

    def _refresh_soon(self) -> None:
        if self.isVisible() and not self._soon.isActive():
            self._soon.start()

    def _refresh_if_open(self) -> None:
        if self.commission_id and self.isVisible():
            self.refresh()

    def refresh(self) -> None:
        c = self.commission
        evidence = self.workroom.judging.evidence(c.intake.photos)
        odd = self.workroom.arrivals.odd.get(c.id, ())
        view = intake_view(c, self.studio, self.look, evidence, odd, self.workroom.now.date(), self, self._act(self.standing()))
        self.view = view
        mode = self.look.mode if view.chosen or self.look.mode == "letter" else "all"
        self.look = replace(self.look, chosen_id=view.chosen.id if view.chosen else "", mode=mode)
        tables = {
            "all": self.grid, "one": self.marking.picture, "eyes": self.pairs, "light": self.dials, "letter": self.letter,
        }  # fmt: skip
        self._stack.setCurrentWidget(tables[mode])
        if mode == "all":
            self.grid.show_tiles(view.tiles, self.chosen_id)
        elif mode == "one" and view.chosen is not None:
            self.marking.show(view.chosen, evidence.get(view.chosen.id), self.look)
        elif mode == "eyes":
            self.pairs.show_rows(eye_rows(c, evidence), self.chosen_id)
        elif mode == "light":
            self.dials.show_dials(*light_dials(c, evidence))
        elif not self.letter.toPlainText():
            self.draft_letter()
        if self.workroom.arrivals.under_way:  # while a batch is read the cards come first, and the bench in a turn of its own
            self._sheets_later.start()
        else:
            self._show_sheets_now()

    def _show_sheets_now(self) -> None:
        self._sheets_later.stop()
        if self.view is not None and self.commission_id:
            self.show_sheets(self.view.bench, self.view.choices)

    # --- looking

    def set_look(self, look: Look) -> None:
        """Look in another way; one photograph large begins with what is not marked yet."""
        if look.mode == "one" and self.look.mode != "one" and self.chosen_id:
            self.look_closer(self.chosen_id)
            return
        self.look = look
        self.refresh()

    def select(self, photo_id: str) -> None:
        """Look at another photograph."""
        self.bench.store_pending()
        self.look = replace(self.look, chosen_id=photo_id)
        self.refresh()

    def look_closer(self, photo_id: str) -> None:
        """Show one photograph large, ready to mark what is missing."""
        photo = self.commission.intake.photo(photo_id)
        mark = "left" if photo.eye("left") is None else "right"
        self.look = replace(self.look, chosen_id=photo_id, mode="one", mark=mark, bench="photo")
        self.refresh()
        self.marking.picture.setFocus(Qt.FocusReason.OtherFocusReason)

    def suggest(self) -> None:
        self.marking.suggest()

    def take_partner(self) -> None:
        self.marking.take_partner()

    def snap(self) -> None:
        self.marking.snap()

    def keep_location(self, keep: bool) -> None:
        self.look = replace(self.look, keep_location=keep)
        self.refresh()

    # --- the yellow field

    def _act(self, standing: Standing) -> NextAct:
        """The room's own act; where a lead is still to be chosen it says which one Enter takes."""
        c = self.commission
        chosen = next((p for p in c.intake.photos if p.id == self.chosen_id), next(iter(c.intake.photos), None))
        act = self.next_act(self._do_next)
        if standing.act is not None and chosen is not None and not c.intake.leads:
            return replace(act, detail=f"Enter makes {chosen.name} the lead")
        return act

    def _do_next(self) -> Meaning:
        c = self.commission
        if not c.intake.photos:
            self.choose_files()
            return None
        if not c.intake.leads:
            return used(c.intake.photo(self.chosen_id), "lead")
        found = kept_wants(c.intake, c.brief)
        if found is None:
            return None
        photo, _ = found
        if photo.use == "lead" and photo.wants_eyes:
            self.look_closer(photo.id)
            return None
        self.look = replace(self.look, bench="photo")
        self.select(photo.id)
        line = "Consent of who is shown" if photo.rights.known else "Permission"
        self.bench.point_at(line)
        return None

    def key(self, event: QKeyEvent) -> bool:
        if event.key() == Qt.Key.Key_Escape and self.look.mode != "all":
            self.set_look(replace(self.look, mode="all"))
            self.grid.setFocus(Qt.FocusReason.OtherFocusReason)
            return True
        if event.key() == Qt.Key.Key_Space and self.chosen_id:
            if self.look.mode == "one":
                self.set_look(replace(self.look, mode="all"))
            else:
                self.look_closer(self.chosen_id)
            return True
        if self.look.mode == "one" and self.marking.key(event):
            return True
        word = _MODE_KEYS.get(event.text().lower())
        if word is not None:
            self.set_look(replace(self.look, mode=word, bench="photo"))
            return True
        return False

    # --- taking in

    def choose_files(self) -> None:
        """Ask for photographs."""
        names, _ = QFileDialog.getOpenFileNames(self, "Choose photographs", str(Path.home()), ENDINGS)
        if names:
            self.take_files([Path(n) for n in names])

    def take_files(self, paths: list[Path]) -> None:
        letters = of_kind(self.commission.log, LetterSent)
        # What comes after a letter is taken as its answer; the painter can say otherwise.
        answers = letters[-1].number if letters else 0
        self.workroom.arrivals.take(self.commission_id, paths, answers, self.look.keep_location)

    def forget_odd(self) -> None:
        self.workroom.arrivals.forget_odd(self.commission_id)

    # --- letter and contact sheet

    def _keep_letter(self) -> None:
        if self.commission_id:
            self._letters[self.commission_id] = self.letter.toPlainText()
            self._refresh_soon()

    def draft_letter(self) -> None:
        """Write the letter from what is missing now."""
        c = self.commission
        evidence = self.workroom.judging.evidence(c.intake.photos)
        self.letter.setPlainText(draft_letter(c, self.studio, evidence))

    def letter_text(self) -> str:
        """The letter as it is written now."""
        return self.letter.toPlainText()

    def back_to_photos(self) -> None:
        """The letter is done with."""
        self.set_look(replace(self.look, mode="all"))

    def send_letter(self) -> None:
        """Put the letter into the outbox and on record."""
        c = self.commission
        evidence = self.workroom.judging.evidence(c.intake.photos)
        path = send_letter(self.desk, c, self.letter.toPlainText(), evidence)
        remarks = letter_remarks(c.brief)
        self.workroom.say(" ".join((f"In the outbox: {path}.", *(f"{begun(r)}." for r in remarks))), bool(remarks))

    def save_contact_sheet(self) -> None:
        """Ask where the contact sheet goes; it is written beside the window's own work."""
        c = self.commission
        path = self.choose_file("Save the contact sheet", f"{c.brief.title} photographs", ".pdf")
        if path is None:
            return

        def work(progress: Progress) -> bytes:
            return contact_sheet_of(c, self.workroom.pictures, self.workroom.workers, progress)

        def done(data: bytes) -> None:
            self.workroom.write_file(path, data)
            warning = c.brief.contact_warning
            self.workroom.say(f"Written to {path}." + (f" {warning}." if warning else ""), bool(warning))

        self.workroom.works.run("Writing the contact sheet", work, done)
