"""A folder that the telephone fills: new pictures in it are offered in the rooms that await one, never taken by themselves."""

from dataclasses import replace
from functools import partial
from pathlib import Path
from typing import TYPE_CHECKING

from PySide6.QtCore import QFileSystemWatcher, QObject, QTimer, Signal
from PySide6.QtWidgets import QFileDialog

from yarrow_lane.desk.desk import Desk
from yarrow_lane.intake.watched import new_pictures
from yarrow_lane.measure.words import counted
from yarrow_lane.ui.bench_sheet import Line, Meaning, Note, Press, Section
from yarrow_lane.ui.guard import Guard

if TYPE_CHECKING:
    from yarrow_lane.ui.room_page import RoomPage

AWAITED = ("Intake", "Transfer", "Easel", "Check")  # where a photograph may be the next thing wanted
_SETTLES_MS = 1500  # a file that is still copied grows: our choice
_SHOWN = 3


class Watching(QObject):
    """The studio's one folder; `changed` tells that something is offered or no longer."""

    changed = Signal()

    def __init__(self, desk: Desk, guard: Guard) -> None:
        super().__init__()
        self._desk = desk
        self._soon = soon = QTimer(self)
        soon.setSingleShot(True)
        soon.setInterval(_SETTLES_MS)
        soon.timeout.connect(guard.guarded(self.look))
        self._watcher = QFileSystemWatcher(self)
        self._watcher.directoryChanged.connect(lambda _: soon.start())
        self._folder = ""
        self._known: frozenset[str] = frozenset()
        self.offered: tuple[Path, ...] = ()

    def follow(self) -> None:
        """Watch what the studio says; what lies there already is not offered."""
        folder = self._desk.studio.watched
        if folder == self._folder:
            return
        self._soon.stop()
        if self._watcher.directories():
            self._watcher.removePaths(self._watcher.directories())
        self._folder, self.offered = folder, ()
        self._known = frozenset(str(p) for p in new_pictures(folder, frozenset()))
        if folder and Path(folder).is_dir():
            self._watcher.addPath(folder)

    def stop(self) -> None:
        """Nothing is looked for any more."""
        self._soon.stop()
        if self._watcher.directories():
            self._watcher.removePaths(self._watcher.directories())

    def look(self) -> None:
        """See what turned up."""
        found = new_pictures(self._folder, self._known)
        if found != self.offered:
            self.offered = found
            self.changed.emit()

    def sections(self, page: "RoomPage") -> tuple[Section, ...]:
        """What turned up, to be taken in that room or left."""
        self.follow()
        if self._folder and not Path(self._folder).is_dir():
            return (Section("The watched folder", (Note(f"“{self._folder}” is not there: choose another.", "wrong"),)),)
        if not self.offered or not (page.takes_files() or page.door == "Intake"):
            return ()
        lines: list[Line] = [Press(f"Take “{p.name}”", partial(self._take, page, p)) for p in self.offered[:_SHOWN]]
        lines.append(Press("None of them", self._none))
        return (Section(f"{counted(len(self.offered), 'new picture')} in the folder", tuple(lines)),)

    def _take(self, page: "RoomPage", path: Path) -> Meaning:
        self._known |= {str(path)}
        self.offered = tuple(p for p in self.offered if p != path)
        page.offered(path)
        self.changed.emit()
        return None

    def _none(self) -> Meaning:
        self._known |= {str(p) for p in self.offered}
        self.offered = ()
        self.changed.emit()
        return None

    def press(self, page: "RoomPage") -> Press:
        """Watch a folder, or no longer."""
        folder = self._desk.studio.watched
        if folder:
            return Press(f"Stop watching “{Path(folder).name}”", lambda: self.watch(""))
        return Press("Watch a folder…", lambda: self._choose(page))

    def _choose(self, page: "RoomPage") -> Meaning:
        folder = QFileDialog.getExistingDirectory(page, "A folder that your telephone fills", str(Path.home()))
        return self.watch(folder) if folder else None

    def watch(self, folder: str) -> Meaning:
        """That folder, or with "" none."""
        label = "Watches a folder" if folder else "Watches no folder"
        self._desk.do_studio(label, lambda s: replace(s, watched=folder))
        self.follow()
        self.changed.emit()
        return None
