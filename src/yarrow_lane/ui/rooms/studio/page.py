"""The studio page: shelf and weeks ahead, or the calendar; beside them today's acts and the forms of the studio."""

from collections.abc import Callable
from contextlib import suppress
from dataclasses import replace
from datetime import date, datetime
from pathlib import Path

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QFileDialog, QStackedWidget, QVBoxLayout, QWidget

from yarrow_lane.calendar.sittings import Plan, Sitting
from yarrow_lane.commission.at_easel import NOWHERE, AtEasel, at_easel
from yarrow_lane.commission.newcomer import Newcomer
from yarrow_lane.commission.standing import Outlook
from yarrow_lane.commission.studio import Studio, press
from yarrow_lane.commission.today import TimedAct
from yarrow_lane.easel.air_text import read_air
from yarrow_lane.easel.keys import set_key
from yarrow_lane.intake.brief import new_brief
from yarrow_lane.intake.names import proposed_name
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.store.copies import copies_in, newest_day
from yarrow_lane.ui.room_page import RoomPage
from yarrow_lane.ui.rooms.studio.ask_bench import Ask
from yarrow_lane.ui.rooms.studio.calendar_acts import CalendarActs
from yarrow_lane.ui.rooms.studio.calendar_bench import moved_words
from yarrow_lane.ui.rooms.studio.calendar_table import CalendarTable
from yarrow_lane.ui.rooms.studio.calendar_view import calendar_view
from yarrow_lane.ui.rooms.studio.looked import Looked
from yarrow_lane.ui.rooms.studio.own_time_bench import Off
from yarrow_lane.ui.rooms.studio.papers import calendar_ics, hours_csv, plan_csv
from yarrow_lane.ui.rooms.studio.remedy_strip import RemedyStrip
from yarrow_lane.ui.rooms.studio.settings import Kept
from yarrow_lane.ui.rooms.studio.shelf import Shelf
from yarrow_lane.ui.rooms.studio.view import FIND, OnBench, OnTable, StartForm, StudioView, studio_view
from yarrow_lane.ui.rooms.studio.weeks import Weeks
from yarrow_lane.ui.threads import Ticket
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
        self.on_table: OnTable = "shelf"
        self.calendar = CalendarTable(workroom.pictures, workroom.references)
        self.remedies = RemedyStrip(self._take_remedy)
        self._acts = CalendarActs(self)
        self.piece: Newcomer | None = None
        self.off = Off()
        self.ask: Ask | None = None
        self._plans: tuple[Plan | None, Plan | None] = (None, None)
        self._asked_better: Plan | None = None
        self._looking: Ticket | None = None
        self._stack = QStackedWidget()
        for some in ((self.shelf, self.weeks), (self.calendar, self.remedies)):
            page = QWidget()
            inside = QVBoxLayout(page)
            inside.setContentsMargins(0, 0, 0, 0)
            inside.setSpacing(0)
            inside.addWidget(some[0], 1)
            inside.addWidget(some[1])
            self._stack.addWidget(page)
        box = QVBoxLayout(self.table)
        box.setContentsMargins(0, 0, 0, 0)
        box.addWidget(self._stack)
        self.calendar.chosen.connect(workroom.guard.guarded(self.look_at))
        self.calendar.opened.connect(workroom.guard.guarded(self.open_one))
        self.calendar.moved.connect(workroom.guard.guarded(self._acts.move_sitting))
        self.calendar.pinned.connect(workroom.guard.guarded(self._acts.pin_or_free))
        self.shelf.selected.connect(workroom.guard.guarded(self.select))
        self.shelf.opened.connect(workroom.guard.guarded(self.open_one))
        self.view: StudioView | None = None

    def refresh(self) -> None:
        if self.selected not in self.studio.on_shelf:
            self.selected = self.studio.on_shelf[0] if self.studio.on_shelf else ""
        standings, now = self.desk.standings, self.workroom.now
        found = standings.outlooks(now)
        plan = standings.plan(now)
        if plan is not self._plans[1]:
            self._plans = (self._plans[1], plan)
        looked = self._looked(found, plan, now)
        if self.on_table == "calendar":
            # Before the bench: it tells of the sitting the calendar stands on now.
            self._show_calendar(found, looked, now)
            looked = replace(looked, sitting=self.calendar.sitting)
        view = studio_view(
            self.studio, found, standings.unreadable(), now, self.selected, self.on_bench, self.form,
            self._kept() if self.on_bench == "settings" else Kept(),
            standings.away(now) if self.on_bench == "away" else ((), ()), self, self.on_table, looked,
        )  # fmt: skip
        self.view = view
        if self.on_table == "shelf":
            self.shelf.show_canvases(view.shelf, self.selected)
            self.weeks.show_view(view)
        self.show_sheets(view.bench, view.choices)
        self._look_for_better(plan, now)

    def _looked(self, found: tuple[Outlook, ...], plan: Plan, now: datetime) -> Looked:
        """What the bench wants to know for what it shows; all of it is kept where it is worked out."""
        standings = self.desk.standings
        looked = Looked(plan, self.selected, off=self.off, ask=self.ask, here=self._here(now))
        if self.on_bench == "start":
            return replace(looked, offered=self._acts.offered(now))
        if self.on_bench != "today" or self.on_table != "calendar":
            return looked
        titles = {o.standing.id: o.standing.title for o in found}
        return replace(
            looked,
            yesterday=standings.planned.days.before(now.date()),
            pace=standings.pace(now),
            days=standings.painted_days(now),
            offered=self._acts.offered(now),
            moved=moved_words(self._plans[0], plan, titles),
        )

    def _here(self, now: datetime) -> AtEasel:
        clock = next(iter(self.desk.standings.clocks()), None)
        return NOWHERE if clock is None else at_easel(self.desk.commission(clock.id), self.studio.climate, now)

    def _show_calendar(self, found: tuple[Outlook, ...], looked: Looked, now: datetime) -> None:
        standings = self.desk.standings
        trouble = standings.trouble(self.selected, now) if self.selected in {o.standing.id for o in found} else None
        offered = looked.offered if self.piece is not None or self.on_bench == "start" else None
        yesterday = standings.planned.days.before(now.date())
        view = calendar_view(found, looked.plan, self.studio, now, yesterday, trouble, offered)
        self.calendar.show_view(view, self.selected)
        self.remedies.show_cards(view.heading, view.cards)

    def _look_for_better(self, plan: Plan, now: datetime) -> None:
        """A better plan is looked for behind, once for each plan, and shown when it gains a day."""
        if plan is self._asked_better or plan.late <= 0:
            return
        question = self.desk.standings.planned.question(now, self.studio)
        if question is None:
            return
        self._asked_better = plan
        if self._looking is not None:
            self._looking.drop()  # it was about a plan that is no more

        def done(better: Plan) -> None:
            if self.desk.standings.planned.answer(plan, better):
                self.refresh()

        def failed(trouble: Trouble) -> None:
            self.workroom.report(trouble)

        workers = self.workroom.workers
        self._looking = self.workroom.threads.run(
            lambda progress: workers.ask("calendar.question:thorough", *question, progress=progress), done, failed
        )

    def look_at(self, commission_id: str) -> None:
        """Look at another commission in the calendar."""
        self.selected = commission_id
        self.refresh()

    def go_in_studio(self, where: str) -> None:
        """The shelf, the calendar, the books, or something on the bench."""
        if where == "books":
            self.workroom.open_hall(where, self.selected)
            return
        if where in ("shelf", "calendar"):
            self.on_table = "shelf" if where == "shelf" else "calendar"
            self._stack.setCurrentIndex(0 if where == "shelf" else 1)
            if where == "calendar":
                self._acts.show_worst()
            self.put_on_bench("today")
            (self.shelf if where == "shelf" else self.calendar).setFocus(Qt.FocusReason.OtherFocusReason)
            return
        self.put_on_bench(where)  # type: ignore[arg-type]

    def pin_or_free(self, sitting: Sitting) -> None:
        """A sitting is fixed where it stands, or moves freely again."""
        self._acts.pin_or_free(sitting)

    def unpress(self, commission_id: str) -> None:
        """It is planned by its own promise again."""
        self.set_studio("Plan it by its own promise", lambda s: press(s, commission_id, 0))

    def begin_act(self, act: TimedAct) -> None:
        """Go where the act is done; a pass is chosen at the easel."""
        self._acts.begin(act)

    def fill_newcomer(self, piece: Newcomer) -> None:
        """Another piece to ask about."""
        self.piece = piece
        self.refresh()

    def promise(self, day: date) -> None:
        """The day goes into the brief of the commission that is being started."""
        self.form = replace(self.form, promised=day)
        self.put_on_bench("start")

    def read_air_by(self, source: str) -> None:
        """Where the air is read from; a file is chosen."""
        if source == "file":
            chosen, _ = QFileDialog.getOpenFileName(self, "The file another program writes the air to", str(Path.home()))
            if not chosen:
                self.refresh()
                return
            read_air(Path(chosen))  # trouble is said before it is taken
            source = chosen
        self.set_studio("Chose where the air is read", lambda s: replace(s, air_from=source))

    def set_easel_key(self, act: str, key: str) -> None:
        """Another key at the stand."""
        self.set_studio("Set a key of the stand", lambda s: replace(s, easel_keys=set_key(s.easel_keys, act, key.strip())))

    def want_off(self, off: Off) -> None:
        self.off = off
        self.refresh()

    def read_engagements(self) -> None:
        """Other engagements out of a calendar file."""
        self._acts.read_engagements()

    def write_ask(self, text: str) -> None:
        if self.ask is not None:
            self.ask = replace(self.ask, text=text)

    def send_ask(self) -> None:
        self._acts.send_ask()

    def move_promise(self) -> None:
        self._acts.move_promise()

    def _take_remedy(self, number: int) -> None:
        self.workroom.guard.attempt(lambda: self._acts.take_remedy(number))

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
        self.piece = None
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
        self.selected = self.desk.start_commission(brief, self.piece)  # what was asked about need not be written again
        self.on_bench, self.form, self.piece = "today", StartForm(), None
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
        if event.text().lower() == "c" and self.on_bench == "today":
            self.go_in_studio("shelf" if self.on_table == "calendar" else "calendar")
            return True
        if event.text().lower() == "b":
            self.go_in_studio("books")
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
        self.save_file("Save promises and sittings", "yarrow-lane", ".ics", calendar_ics(self.desk))

    def save_plan(self) -> None:
        self.save_file("Save the plan", "plan", ".csv", plan_csv(self.desk).encode("utf-8"))

    def save_hours(self) -> None:
        self.save_file("Save the hours", "hours", ".csv", hours_csv(self.desk).encode("utf-8"))
