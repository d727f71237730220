"""A folder that the telephone fills: new pictures in it are offered in the rooms that await one, never taken by themselves."""

from collections.abc import Iterable
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
_MEMORY = "watched folder"


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
        """Watch what the studio says. What lay there when the folder was chosen is not offered; what came while the program slept is."""
        folder = self._desk.studio.watched
        if folder == self._folder:
            return
        self.stop()
        self._folder, self.offered = folder, ()
        if not folder:
            return
        kept = self._desk.recall(_MEMORY)
        if isinstance(kept, dict) and kept.get("folder") == folder and isinstance(kept.get("known"), list):
            self._known = frozenset(map(str, kept["known"]))
            self.offered = new_pictures(folder, self._known)
        else:
            self._know(p.name for p in new_pictures(folder, frozenset()))
        if Path(folder).is_dir():
            self._watcher.addPath(folder)

    def _know(self, names: Iterable[str]) -> None:
        """These are not offered any more, over a restart too."""
        there = {p.name for p in new_pictures(self._folder, frozenset())}
        self._known = frozenset({*self._known, *names} & there)
        self.offered = tuple(p for p in self.offered if p.name not in self._known)
        self._desk.remember(_MEMORY, {"folder": self._folder, "known": sorted(self._known)})

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
        self._know([path.name])
        page.offered(path)
        self.changed.emit()
        return None

    def _none(self) -> Meaning:
        self._know([p.name for p in self.offered])
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
