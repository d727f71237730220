"""The studio page: shelf, weeks ahead and today's acts."""

from collections.abc import Callable
from contextlib import suppress
from dataclasses import replace
from pathlib import Path

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QFileDialog, QVBoxLayout

from yarrow_lane.commission.studio import Studio
from yarrow_lane.intake.brief import new_brief
from yarrow_lane.intake.names import proposed_name
from yarrow_lane.store.copies import copies_in, newest_day
from yarrow_lane.ui.room_page import RoomPage
from yarrow_lane.ui.rooms.studio.papers import calendar_bytes, hours_text
from yarrow_lane.ui.rooms.studio.settings import Kept
from yarrow_lane.ui.rooms.studio.shelf import Shelf
from yarrow_lane.ui.rooms.studio.view import FIND, OnBench, StartForm, StudioView, studio_view
from yarrow_lane.ui.rooms.studio.weeks import Weeks
from yarrow_lane.ui.workroom import Workroom


class StudioPage(RoomPage):
    """All commissions at once."""

    demo_wanted = Signal()
    restore_wanted = Signal()

    def __init__(self, workroom: Workroom) -> None:
        super().__init__(workroom)
        self.selected = ""
        self.on_bench: OnBench = "today"
        self.form = StartForm()
        self.shelf = Shelf(workroom.pictures, workroom.references)
        self.weeks = Weeks()
        box = QVBoxLayout(self.table)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(0)
        box.addWidget(self.shelf, 1)
        box.addWidget(self.weeks)
        self.shelf.selected.connect(workroom.guard.guarded(self.select))
        self.shelf.opened.connect(workroom.guard.guarded(self.open_one))
        self.view: StudioView | None = None

    def refresh(self) -> None:
        if self.selected not in self.studio.on_shelf:
            self.selected = self.studio.on_shelf[0] if self.studio.on_shelf else ""
        standings, now = self.desk.standings, self.workroom.now
        found = standings.outlooks(now)
        view = studio_view(
            self.studio, found, standings.unreadable(), standings.painted_today(now), now, self.selected, self.on_bench, self.form,
            self._kept() if self.on_bench == "settings" else Kept(),
            standings.away(now) if self.on_bench == "away" else ((), ()), self,
        )  # fmt: skip
        self.view = view
        self.shelf.show_canvases(view.shelf, self.selected)
        self.weeks.show_view(view)
        self.show_sheets(view.bench, view.choices)

    def select(self, commission_id: str) -> None:
        """Look at another commission."""
        self.selected = commission_id
        self.put_on_bench("today")

    def open_one(self, commission_id: str) -> None:
        """Open a commission where it stands."""
        self.workroom.open_door(commission_id, "")

    def open_selected(self) -> None:
        self.open_one(self.selected)

    # --- what the bench asks for

    def put_on_bench(self, what: OnBench) -> None:
        """Today, the form of a new commission, or the settings."""
        self.on_bench = what
        self.refresh()
        if what == "start":
            self.bench.line("Sitter").setFocus(Qt.FocusReason.OtherFocusReason)

    def fill_form(self, form: StartForm) -> None:
        self.form = form
        self.refresh()

    def clear_form(self) -> None:
        """An empty form."""
        self.fill_form(StartForm())
        self.bench.point_at("Sitter")

    def take_files(self, paths: list[Path]) -> None:
        """Photographs dropped on the shelf start a commission: a name is proposed from theirs."""
        name = next(filter(None, (proposed_name(p.name) for p in paths)), "")
        self.form = replace(self.form, files=tuple(map(str, paths)), sitter=self.form.sitter or name)
        self.put_on_bench("start")
        if name:
            self.bench.act.setFocus(Qt.FocusReason.OtherFocusReason)

    def find_name(self, words: str) -> None:
        """Choose the first commission with those words in its name or its client's, also among what is put away."""
        wanted = words.strip().casefold()
        standings, now = self.desk.standings, self.workroom.now
        if not wanted:
            return
        found = next((s for s in standings.all(now) if wanted in f"{s.title} {s.client}".casefold()), None)
        if found is not None:
            self.select(found.id)
            self.shelf.show_chosen()
            return
        away = next((s for s in standings.away(now)[0] if wanted in f"{s.title} {s.client}".casefold()), None)
        if away is None:
            self.workroom.say(f"Nobody here is called “{words.strip()}”.", False)
            return
        self.put_on_bench("away")
        self.bench.point_at(f"Bring {away.title} back to the shelf")

    def bring_back(self, commission_id: str) -> None:
        """What was put away stands on the shelf again."""
        self.selected = commission_id
        self.desk.bring_back(commission_id)

    def start(self) -> None:
        """A new commission comes to the shelf and opens at Intake."""
        self.bench.store_pending()
        if self.bench.asking():
            self.bench.point_at(self.bench.asking())
            return
        form = self.form
        brief = new_brief(
            form.sitter, form.kind, form.client, form.medium, self.workroom.now.date(), form.promised, form.wish
        )  # fmt: skip
        self.selected = self.desk.start_commission(brief)
        self.on_bench, self.form = "today", StartForm()
        self.workroom.open_door(self.selected, "Intake")
        if form.files:
            self.workroom.arrivals.take(self.selected, [Path(f) for f in form.files], 0, False)

    def put_away(self) -> None:
        """Take the selected one off the shelf; undo brings it back."""
        self.desk.put_away(self.selected)

    def want_demo(self) -> None:
        self.demo_wanted.emit()

    def set_studio(self, label: str, step: Callable[[Studio], Studio]) -> None:
        """Another setting; the word joins nothing: each is one change."""
        self.desk.do_studio(label, step)

    # --- copies

    def _kept(self) -> Kept:
        store = self.desk.store
        here = copies_in(store.folder)
        there = copies_in(store.elsewhere) if store.elsewhere is not None else ()
        return Kept(
            len(here), newest_day(here), str(store.elsewhere.parent) if store.elsewhere is not None else "", newest_day(there)
        )  # fmt: skip

    def keep_elsewhere(self) -> None:
        """Choose a folder on a stick, another disk or one that is synced."""
        chosen = QFileDialog.getExistingDirectory(self, "Keep a copy of the studio in this folder", str(Path.home()))
        if chosen:
            self.workroom.safekeeping.keep_at(Path(chosen))
            self.refresh()

    def keep_nothing_elsewhere(self) -> None:
        self.workroom.safekeeping.keep_at(None)
        self.refresh()

    def save_everything(self) -> None:
        """The whole studio in one file."""
        name = f"yarrow-lane {self.workroom.now:%Y-%m-%d}"
        path = self.choose_file("Save everything", name, ".zip")
        if path is not None:
            self.workroom.safekeeping.save_everything(path)

    def show_copies(self) -> None:
        self.restore_wanted.emit()

    def key(self, event: QKeyEvent) -> bool:
        if event.text() == "/" and self.view is not None:
            self.put_on_bench("today")
            with suppress(KeyError):  # a few are found by looking
                self.bench.point_at(FIND)
            return True
        if event.text() == "n" and self.on_bench != "start":
            self.put_on_bench("start")
            return True
        if event.key() == Qt.Key.Key_Escape and self.on_bench != "today":
            self.put_on_bench("today")
            return True
        return False

    # --- documents

    def save_calendar(self) -> None:
        self.save_file("Save promises and sittings", "yarrow-lane", ".ics", calendar_bytes(self.desk))

    def save_hours(self) -> None:
        self.save_file("Save the hours", "hours", ".csv", hours_text(self.desk).encode("utf-8"))
