"""What all rooms share: choices above, the table in the middle, the bench at the right."""

from collections.abc import Callable
from dataclasses import replace
from datetime import datetime
from pathlib import Path

from PySide6.QtCore import Signal
from PySide6.QtGui import QHideEvent, QKeyEvent
from PySide6.QtWidgets import QFileDialog, QHBoxLayout, QVBoxLayout, QWidget

from yarrow_lane.commission.commission import DOORS_PART, Commission, unwaive_door, waive_door
from yarrow_lane.commission.recompose import Proposal, Recomposed
from yarrow_lane.commission.standing import photos_that_count, room_standings
from yarrow_lane.commission.studio import Studio
from yarrow_lane.commission.today import meanwhile
from yarrow_lane.easel.air import aired
from yarrow_lane.lane.doors import door_after
from yarrow_lane.lane.part import Edit
from yarrow_lane.lane.standing import Act, Standing, act_detail, can_be_done
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.measure.words import begun, file_name, within
from yarrow_lane.store.trouble import StoreTrouble
from yarrow_lane.ui.bench import Bench
from yarrow_lane.ui.bench_sheet import BenchSheet, ChoiceSheet, Field, Meaning, NextAct, Note, Press, Section
from yarrow_lane.ui.choice_row import ChoiceRow
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.watching import AWAITED
from yarrow_lane.ui.workroom import Workroom


class RoomPage(QWidget):
    """One room of the open commission. Subclasses fill `table`, say what they show in `refresh`, and answer the hooks below."""

    door = ""
    heading = ("", "", "")  # of a room that is no door: title, small print, and what stands at the right
    picture: PictureView | None = None  # what + - and 0 zoom
    # A change that touches later work: what it is, what becomes of that work, and what to do with the answer.
    asked = Signal(str, object, object)
    hand_seen = Signal()  # a key that the window did not hear

    def __init__(self, workroom: Workroom) -> None:
        super().__init__()
        self.workroom = workroom
        self.desk = workroom.desk
        self.commission_id = ""
        self._reasons: dict[str, str] = {}  # for waiving this door, half written ones stay, by commission
        self.setProperty("page", True)  # where the keys of the bench's editors go back to
        self.choices = ChoiceRow(self.hand)
        self.bench = Bench(self.hand)
        self.table = QWidget()
        self.table.setObjectName("table")
        left = QVBoxLayout()
        left.setSpacing(0)
        left.addWidget(self.choices)
        left.addWidget(self.table, 1)
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(0)
        row.addLayout(left, 1)
        row.addWidget(self.bench)
        self.bench.acted.connect(lambda: self.hand(self.act))
        workroom.watching.changed.connect(self._watched)
        leave = workroom.derived.leave
        self.destroyed.connect(lambda: leave(self))  # a page may ask once more while it goes: nothing arrives at what is gone

    @property
    def commission(self) -> Commission:
        return self.desk.commission(self.commission_id)

    @property
    def seen(self) -> Commission:
        """The commission with films that dry as the room went: to look at; edits go to what is on record."""
        c = self.commission
        easel = aired(c.easel, self.desk.air.air)
        return c if easel is c.easel else replace(c, easel=easel)

    @property
    def studio(self) -> Studio:
        return self.desk.studio

    def standing(self) -> Standing:
        """Where this room stands: its act is the one the studio shows too."""
        return self.standings()[self.door]

    def standings(self) -> dict[str, Standing]:
        """Where all rooms of the open commission stand."""
        c = self.seen
        return room_standings(c, self.studio, self.workroom.now, self.desk.evidence.of_all(photos_that_count(c)))

    # --- changing

    def hand(self, meaning: Callable[[], Meaning]) -> Trouble | None:
        """Work out what a change means and take it; returns the trouble it ran into, which has been said already.

        After trouble the page shows what is on record again, not what was wanted.
        """
        trouble = self.workroom.guard.attempt(lambda: self.take(meaning()))
        if isinstance(trouble, StoreTrouble):
            self.workroom.guard.attempt(self.refresh)
        return trouble

    def take(self, meaning: Meaning) -> None:
        """Put a change on record; one that touches later work is shown first."""
        if isinstance(meaning, Edit):
            if not self.desk.do(self.commission_id, meaning):
                self.refresh()
        elif isinstance(meaning, Proposal):
            self.propose(meaning)

    def propose(self, proposal: Proposal, answered: Callable[[bool], None] | None = None) -> None:
        """Take a change at once when nothing rests on what it changes; else ask first. `answered` hears it before it is done.

        When something else changed before the answer came, and with it the list, it is asked again.
        """
        commission_id, before = self.commission_id, self.commission
        found: Recomposed = proposal.step(before)

        def step(c: Commission) -> Recomposed:
            return found if c is before else proposal.step(c)

        def then(wanted: bool) -> None:
            if wanted and step(self.desk.commission(commission_id)).changes != found.changes:
                self.propose(proposal, answered)
                return
            if answered is not None:
                answered(wanted)
            if wanted and self.desk.change(
                commission_id, proposal.label, proposal.door, lambda c: step(c).commission
            ):  # what changed has told the page
                return
            if not wanted:
                self.bench.show_record()
            self.refresh()

        if found.changes:
            self.asked.emit(proposal.label, found.changes, then)
        else:
            then(True)

    # --- showing

    def open(self, commission_id: str) -> None:
        """Show this commission."""
        self.commission_id = commission_id
        self.opened()
        self.refresh()

    def hideEvent(self, event: QHideEvent) -> None:
        self.left()

    def next_act(self, do: Callable[[], Meaning], on: Callable[[], Meaning] | None = None) -> NextAct:
        """The yellow field: the room's own act as the studio shows it, else on to the next door."""
        standing, now = self.standing(), self.workroom.now
        if standing.act is not None:
            act = standing.act
            return NextAct(act.title, act.detail, do) if can_be_done(act, now) else self._waiting(act, now)
        following = door_after(self.door)
        if not following:
            return NextAct("Back to the studio", standing.fact, lambda: self.workroom.open_studio())
        return NextAct(f"Go on to {following}", standing.fact, on or (lambda: self.go_to(following)))

    def _waiting(self, act: Act, now: datetime) -> NextAct:
        """What may be done while this commission has to be waited for: the nearest promise of the others, else a look at today."""
        waits = f"{act.title}: {act_detail(act, now)}"
        other = meanwhile(self.desk.standings.all(now), self.commission_id, now)
        if other is None or other.act is None:
            return NextAct("Back to the studio", waits, lambda: self.workroom.open_studio())
        return NextAct(
            f"Meanwhile {other.title}: {within(other.act.title)}", waits, lambda: self.workroom.open_door(other.id, "")
        )

    def go_to(self, door: str) -> None:
        """Open another door of this commission."""
        self.workroom.open_door(self.commission_id, door)

    def show_sheets(self, bench: BenchSheet, choices: ChoiceSheet) -> None:
        """Show bench and choices, the bench with what this door still wants at its end."""
        if self.door and self.commission_id:
            if self.door in AWAITED:
                bench = replace(bench, sections=(*self.workroom.watching.sections(self), *bench.sections))
            section = self._door_section(self.standing())
            if section is not None:
                bench = replace(bench, sections=(*bench.sections, section))
        self.bench.show_sheet(bench)
        self.choices.show_sheet(choices)
        self.choices.setVisible(bool(choices.switches or choices.remark))

    def _door_section(self, standing: Standing) -> Section | None:
        """What the door still wants, and waiving it with a reason; nothing once the facts shut it."""
        stale = (Note(f"This room's work was {standing.stale}: look it over.", "wrong"),) if standing.stale else ()
        door, reason = self.door, self.commission.doors.reason(self.door)
        if not standing.wants:
            return Section("This door", stale) if stale else None
        wants = begun(standing.wants)
        if reason:
            back = Edit(DOORS_PART, f"{door} is decided by the facts", lambda d: unwaive_door(d, door), door=door)
            words = Note(f"{wants}. Waived all the same: {reason}")
            return Section("This door", (*stale, words, Press("Let the facts decide again", lambda: back)))
        field = Field("Waive it all the same, because", self._reasons.get(self.commission_id, ""), self._write_reason)
        return Section("This door", (*stale, Note(f"{wants}."), field, Press("Waive this door", self._waive)))

    def _write_reason(self, text: str) -> None:
        self._reasons[self.commission_id] = text

    def _waive(self) -> Meaning:
        self.bench.store_pending()
        door, reason, today = self.door, self._reasons.get(self.commission_id, ""), self.workroom.now.date()
        return Edit(DOORS_PART, f"Waived {door}", lambda d: waive_door(d, door, reason, today), keep="waived", door=door)

    # --- documents

    def choose_file(self, words: str, name: str, ending: str) -> Path | None:
        """Ask where a document goes; `name` without its ending is proposed."""
        chosen, _ = QFileDialog.getSaveFileName(self, words, str(Path.home() / file_name(name, ending)), f"*{ending}")
        return Path(chosen if chosen.endswith(ending) else chosen + ending) if chosen else None

    def save_file(self, words: str, name: str, ending: str, data: bytes) -> bool:
        """Ask where a document goes and write it there; whether it was written. Raises `Trouble`."""
        path = self.choose_file(words, name, ending)
        if path is None:
            return False
        self.workroom.write_file(path, data)
        self.workroom.say(f"Written to {path}.", False)
        return True

    # --- hooks

    def opened(self) -> None:
        """Another commission came in: forget what belonged to the last one."""

    def left(self) -> None:
        """The painter goes elsewhere: what only this page waits for is dropped."""
        self.workroom.derived.leave(self)

    def refresh(self) -> None:
        """Show the commission as it is now."""

    def act(self) -> Meaning:
        """Do what the yellow field says."""
        wanted = self.bench.sheet.act
        return wanted.do() if wanted is not None and wanted.do is not None and wanted.enabled else None

    def takes_files(self) -> bool:
        """Whether pictures dropped now are for what is looked at, and not the client's photographs."""
        return False

    def take_files(self, paths: list[Path]) -> None:
        """Files were dropped on this room."""

    def _watched(self) -> None:
        """Something turned up in the watched folder, or was taken."""
        if self.door in AWAITED and self.commission_id and self.isVisible():
            self.workroom.guard.attempt(self.refresh)

    def offered(self, path: Path) -> None:
        """A picture that turned up in the watched folder is taken here."""
        self.take_files([path])

    def key(self, event: QKeyEvent) -> bool:
        """A key nobody else took; True when it was used."""
        return False
