"""What all rooms share: choices above, the table in the middle, the bench at the right."""

from dataclasses import replace
from pathlib import Path

from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QFileDialog, QHBoxLayout, QVBoxLayout, QWidget

from yarrow_lane.commission.commission import Commission, pass_door, unpass_door
from yarrow_lane.commission.doors import doors_of
from yarrow_lane.commission.studio import Studio
from yarrow_lane.store.pictures import write_synced
from yarrow_lane.ui.bench import Bench
from yarrow_lane.ui.bench_sheet import BenchSheet, ChoiceSheet
from yarrow_lane.ui.choice_row import ChoiceRow
from yarrow_lane.ui.door_section import PASS, REASON, UNPASS, door_section
from yarrow_lane.ui.workroom import Workroom


class RoomPage(QWidget):
    """One room of the open commission. Subclasses fill `table` and answer the hooks below."""

    def __init__(self, workroom: Workroom) -> None:
        super().__init__()
        self.workroom = workroom
        self.desk = workroom.desk
        self.commission_id = ""
        self.door_name = ""
        self._reason = ""
        self.choices = ChoiceRow()
        self.bench = Bench()
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
        self.bench.changed.connect(lambda key, value: workroom.attempt(lambda: self._changed(key, value)))
        self.bench.pressed.connect(lambda key: workroom.attempt(lambda: self._pressed(key)))
        self.bench.acted.connect(lambda: workroom.attempt(self.act))
        self.choices.chosen.connect(lambda key, value: workroom.attempt(lambda: self.choose(key, value)))

    @property
    def commission(self) -> Commission:
        return self.desk.commission(self.commission_id)

    @property
    def studio(self) -> Studio:
        return self.desk.studio

    def open(self, commission_id: str) -> None:
        """Show this commission."""
        self.commission_id = commission_id
        self._reason = ""
        self.opened()
        self.refresh()

    def show_sheets(self, bench: BenchSheet, choices: ChoiceSheet) -> None:
        """Show bench and choices, the bench with what this door still wants at its end."""
        if self.door_name:
            door = next(d for d in doors_of(self.commission, self.studio) if d.name == self.door_name)
            section = door_section(door, self.commission.doors.reason(self.door_name), self._reason)
            if section is not None:
                bench = replace(bench, sections=(*bench.sections, section))
        self.bench.show_sheet(bench)
        self.choices.show_sheet(choices)
        self.choices.setVisible(bool(choices.switches or choices.remark))

    def save_file(self, words: str, name: str, ending: str, data: bytes) -> None:
        """Ask where a document goes and write it there."""
        chosen, _ = QFileDialog.getSaveFileName(self, words, str(Path.home() / name), f"*{ending}")
        if chosen:
            path = Path(chosen if chosen.endswith(ending) else chosen + ending)
            try:
                write_synced(path, data)
            except OSError as error:
                self.workroom.say(f"“{path.name}” was not written, because {error.strerror}; choose another folder.", True)
                return
            self.workroom.say(f"Written to {path}.", False)

    def _changed(self, key: str, value: object) -> None:
        if key == REASON:
            self._reason = str(value)
        else:
            self.change(key, value)

    def _pressed(self, key: str) -> None:
        door = self.door_name
        if key == PASS:
            self.bench.store_pending()
            today, reason = self.workroom.now.date(), self._reason
            self.desk.do(self.commission_id, f"Passed {door}", door, lambda c: pass_door(c, door, reason, today))
        elif key == UNPASS:
            self.desk.do(self.commission_id, f"{door} is decided by the facts", door, lambda c: unpass_door(c, door))
        else:
            self.press(key)

    # --- hooks

    def opened(self) -> None:
        """Another commission came in: forget what belonged to the last one."""

    def refresh(self) -> None:
        """Show the commission as it is now."""

    def change(self, key: str, value: object) -> None:
        """An editor of the bench has a new value."""

    def press(self, key: str) -> None:
        """A button of the bench was pressed."""

    def choose(self, key: str, value: str) -> None:
        """A switch above the table was chosen."""

    def act(self) -> None:
        """Do the next act."""

    def take_files(self, paths: list[Path]) -> None:
        """Files were dropped on this room."""
        self.workroom.say("Photographs are taken in at Intake, pictures of the painting at Check.", False)

    def key(self, event: QKeyEvent) -> bool:
        """A key nobody else took; True when it was used."""
        return False
