"""The check page: look anew, measure, hold strips beside it, see its way."""

from collections.abc import Mapping
from pathlib import Path
from typing import TYPE_CHECKING

from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QFileDialog, QStackedLayout

from yarrow_lane.canvas_photo.taken import Taken
from yarrow_lane.check.record import CHECK, middle_of, with_photo, with_sheet
from yarrow_lane.commission.last_list import noted
from yarrow_lane.commission.recompose import Proposal, Recomposed
from yarrow_lane.deliver.handover import rest_ends
from yarrow_lane.intake.opening import PictureFacts
from yarrow_lane.lane.happening import Photographed, of_kind
from yarrow_lane.lane.part import Edit
from yarrow_lane.measure.days import clock_text, day_text
from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Polygon
from yarrow_lane.measure.progress import Progress
from yarrow_lane.tone.grounds import ground_srgb
from yarrow_lane.ui.bench_sheet import BenchSheet, ChoiceSheet, Field, Line, Meaning, Note, Press, Section, Switch
from yarrow_lane.ui.file_words import ENDINGS
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.room_mode import ModedPage
from yarrow_lane.ui.rooms.check.film_mode import FilmMode
from yarrow_lane.ui.rooms.check.looking_mode import LookingMode
from yarrow_lane.ui.rooms.check.measuring_mode import MeasuringMode
from yarrow_lane.ui.rooms.check.mode import Mode
from yarrow_lane.ui.rooms.check.saving import save_frame
from yarrow_lane.ui.rooms.check.strips_mode import StripsMode
from yarrow_lane.ui.workroom import Workroom

if TYPE_CHECKING:
    from yarrow_lane.standins import easel_photo
else:
    easel_photo = late("yarrow_lane.standins.easel_photo")

Source = Path | bytes
_PX_PER_MM = 3.0  # of the reference the stand-in paints from


class CheckPage(ModedPage):
    """Door 8."""

    door = "Check"

    def __init__(self, workroom: Workroom) -> None:
        super().__init__(workroom)
        self.draft = ""
        self.looking, self.measuring = LookingMode(self), MeasuringMode(self)
        order: tuple[Mode, ...] = (self.measuring, self.looking, StripsMode(self), FilmMode(self))
        self.modes: Mapping[str, Mode] = {mode.name: mode for mode in order}
        self.mode: Mode = self.measuring
        self.resting = PictureView("The painting rests")
        self._looks_anyway = False
        self._stack = QStackedLayout(self.table)
        for widget in (*(mode.widget for mode in order), self.resting):
            self._stack.addWidget(widget)
        self.picture = self.mode.picture

    def opened(self) -> None:
        self.draft, self._looks_anyway = "", False
        for mode in self.modes.values():
            mode.opened()
        # Without a photograph there is the reference to look at, and nothing to measure.
        measures = self.commission.compose.framed and bool(self.commission.check.photos)
        self.mode = self.measuring if measures else self.looking

    def refresh(self) -> None:
        c = self.commission
        until = rest_ends(c.deliver)
        if until is not None and c.deliver.looked is None and self.workroom.now < until and not self._looks_anyway:
            self._show_rest(clock_text(until, self.workroom.now))
            return
        if self.mode.why_not():
            self.mode.left()
            self.mode = self.looking
        sheets = self.mode.refresh()
        self._stack.setCurrentWidget(self.mode.widget)
        self.picture = self.mode.picture
        options = tuple((name, name) for name in self.modes)
        switch = Switch("Compare by", options, self.work_on, self.mode.name)
        act = sheets.act or self.next_act(self.choose_photo)
        bench = BenchSheet(sheets.sections, act)
        self.show_sheets(bench, ChoiceSheet((switch, *sheets.switches), sheets.remark))

    def _show_rest(self, until: str) -> None:
        """The rest clock hides the picture: fresh eyes are what it is for."""
        self._stack.setCurrentWidget(self.resting)
        self.picture = self.resting
        self.resting.waiting = f"The painting rests unseen until {until}."
        self.resting.show_levels(None, (1, 1))
        note = Note(f"Turned to the wall until {until}: eyes that have not seen it for a day see what is off.")
        self.show_sheets(
            BenchSheet(
                (Section("It rests", (note, Press("Look all the same", self._look_anyway))),), self.next_act(self.choose_photo)
            ),
            ChoiceSheet(),
        )

    def _look_anyway(self) -> Meaning:
        self._looks_anyway = True
        self.refresh()
        return None

    # --- what the modes share

    def photo_presses(self, another: bool = False) -> list[Line]:
        """Ways to get a photograph of the painting."""
        lines: list[Line] = [Press("Choose a photograph of it…", self.choose_photo)]
        if not self.commission.check.photos and self.commission.compose.framed:
            lines.append(Press("Print the grey frame for it…", self.save_frame))
        if another:
            lines.append(Press("The same state, lamp moved…", self._choose_second))
            lines.append(Press("A white sheet in this light…", self._choose_sheet))
        filed = self._filed_at_easel()
        if filed is not None:
            lines.append(
                Press(f"Take the one filed at the easel, {day_text(filed.at.date())}", lambda: self._take_filed(filed))
            )
        if self.commission.compose.framed:
            lines.append(Press("Take one with the camera stand-in", self.take_stand_in))
        lines.append(self.workroom.watching.press(self))
        return lines

    def seen_section(self) -> Section:
        """What the painter sees."""
        c = self.commission
        mended = {line.text for line in c.deliver.last_list if line.done}
        seen: list[Line] = [
            Note(f"{n}. {text}{', mended' if text in mended else ''}") for n, text in enumerate(c.check.seen, 1)
        ]
        field = Field("To mend", self.draft, self.write_draft, "left ear too light")
        words = f"{len(c.check.seen)} noted" if c.check.seen else "nothing noted"
        measured = self.mode is self.measuring and self.measuring.asking.measured.found is not None
        decision = words if measured else ""
        return Section("What you see", (*seen, field, Press("Note it", self.note_it)), decision)

    def write_draft(self, text: str) -> None:
        self.draft = text

    def note_it(self) -> Meaning:
        """On Check's list and on the last list at Deliver: one list, wherever it is looked at."""
        self.bench.store_pending()
        text = self.draft

        if self.hand(lambda: Proposal("Noted what to mend", "Check", lambda c: Recomposed(noted(c, text)))) is None:
            self.write_draft("")
            self.refresh()
        return None

    def save_frame(self) -> Meaning:
        """Print the grey frame."""
        save_frame(self)
        return None

    # --- photographs

    def _ask(self, title: str) -> Path | None:
        name, _ = QFileDialog.getOpenFileName(self, title, str(Path.home()), ENDINGS)
        return Path(name) if name else None

    def choose_photo(self) -> Meaning:
        """Ask for the next photograph of the painting."""
        path = self._ask("Choose a photograph of the painting")
        if path is not None:
            self.take_files([path])
        return None

    def _choose_second(self) -> Meaning:
        path = self._ask("Choose the second photograph of this state")
        if path is not None:
            self.take_in(path, path.name, second=True)
        return None

    def _choose_sheet(self) -> Meaning:
        path = self._ask("Choose the photograph of the white sheet")
        if path is not None:
            self._take_sheet(path)
        return None

    def takes_files(self) -> bool:
        return self.commission.compose.framed

    def take_files(self, paths: list[Path]) -> None:
        """Photographs of the painting; of several the last is the newest."""
        for path in paths:
            self.take_in(path, path.name)

    def take_in(self, source: Source, name: str, second: bool = False) -> None:
        """Keep it, look for the canvas in it, put it on record; where no canvas is seen its middle is taken."""
        commission_id, compose, workroom = self.commission_id, self.commission.compose, self.workroom
        size_mm = (compose.width_mm or 1.0, compose.height_mm or 1.0)

        def work(progress: Progress) -> Taken:
            photo_id, facts = workroom.photographs.keep_picture(source, name, progress)
            size = facts.width_px, facts.height_px
            found: Polygon | None = workroom.workers.ask(
                "check.question:suggest_corners", workroom.pictures.file(photo_id, name), name, size_mm, progress=progress
            )
            return Taken(photo_id, name, size, workroom.now, found or middle_of(size, size_mm[0] / size_mm[1]))

        def done(photo: Taken) -> None:
            self.desk.happen(commission_id, Photographed(photo.at, photo.photo_id, name), "Check")
            label = f"Put {name} beside the crop"
            first = not self.desk.commission(commission_id).check.photos
            self.desk.do(commission_id, Edit(CHECK, label, lambda x: with_photo(x, photo, second)))
            if first and self.commission_id == commission_id and self.isVisible():
                self.work_on("measuring")

        workroom.works.run(f"Reading {name}", work, done)

    def _filed_at_easel(self) -> Photographed | None:
        """The newest photograph of the painting that was filed to a pass and is not looked at here yet."""
        known = {p.photo_id for p in self.commission.check.photos}
        every = of_kind(self.commission.log, Photographed)
        return next((h for h in reversed(every) if h.purpose == "painting" and h.about and h.photo_id not in known), None)

    def _take_filed(self, filed: Photographed) -> Meaning:
        self.take_in(self.workroom.pictures.file(filed.photo_id, filed.name), filed.name)
        return None

    def _take_sheet(self, path: Path) -> None:
        commission_id = self.commission_id

        def work(progress: Progress) -> tuple[str, PictureFacts]:
            return self.workroom.photographs.keep_picture(path, path.name, progress)

        def done(kept: tuple[str, PictureFacts]) -> None:
            label = "A white sheet tells the light"
            self.desk.do(commission_id, Edit(CHECK, label, lambda x: with_sheet(x, kept[0], path.name)))

        self.workroom.works.run(f"Reading {path.name}", work, done)

    def take_stand_in(self) -> Meaning:
        """The camera that is none looks at the painting, with the grey frame round it and the usual faults."""
        c, number = self.commission, len(self.commission.check.photos)
        size = (c.compose.width_mm, c.compose.height_mm)
        ground, workroom = ground_srgb(c.tone.ground), self.workroom

        def make(progress: Progress) -> bytes:
            px_per_mm = min(_PX_PER_MM, 1500 / max(size))
            reference = workroom.references.for_print(c.compose, c.compose.canvas, px_per_mm, progress)
            return easel_photo.photograph_by_stand_in(size, ground, reference, number)

        name = f"camera stand-in, painting {number + 1}.jpg"
        workroom.works.run("The camera stand-in", make, lambda data: self.take_in(data, name))
        return None

    def key(self, event: QKeyEvent) -> bool:
        return self.mode.key(event)
