"""A folder that the telephone fills: new pictures in it are offered, never taken by themselves."""

from pathlib import Path
from typing import TYPE_CHECKING

from PySide6.QtCore import QFileSystemWatcher, QTimer
from PySide6.QtWidgets import QFileDialog

from yarrow_lane.check.watched import new_pictures
from yarrow_lane.measure.words import counted
from yarrow_lane.ui.bench_sheet import Line, Meaning, Note, Press, Section

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.check.page import CheckPage

_SETTLES_MS = 1500  # a file that is still copied grows: our choice


class Watching:
    """Of the open commission."""

    def __init__(self, page: "CheckPage") -> None:
        self._page = page
        self._soon = soon = QTimer(page)
        soon.setSingleShot(True)
        soon.setInterval(_SETTLES_MS)
        soon.timeout.connect(page.workroom.guard.guarded(self._look))
        self._watcher = QFileSystemWatcher(page)
        self._watcher.directoryChanged.connect(lambda _: soon.start())
        self._known: frozenset[str] = frozenset()
        self.offered: tuple[Path, ...] = ()

    def opened(self) -> None:
        """Another commission, or another folder."""
        if self._watcher.directories():
            self._watcher.removePaths(self._watcher.directories())
        self.offered = ()
        folder = self._page.commission.check.watched
        self._known = frozenset(str(p) for p in new_pictures(folder, frozenset()))
        if folder and Path(folder).is_dir():
            self._watcher.addPath(folder)

    def _look(self) -> None:
        self.offered = new_pictures(self._page.commission.check.watched, self._known)
        self._page.refresh()

    def sections(self) -> tuple[Section, ...]:
        """What turned up, to be taken or left."""
        folder = self._page.commission.check.watched
        if folder and not Path(folder).is_dir():
            return (Section("The watched folder", (Note(f"“{folder}” is not there: choose another.", "wrong"),)),)
        if not self.offered:
            return ()
        lines: list[Line] = [Press(f"Take “{p.name}”", lambda p=p: self._take(p)) for p in self.offered[:3]]  # type: ignore[misc]
        lines.append(Press("None of them", self._none))
        return (Section(f"{counted(len(self.offered), 'new picture')} in the folder", tuple(lines)),)

    def _take(self, path: Path) -> Meaning:
        self._known |= {str(path)}
        self.offered = tuple(p for p in self.offered if p != path)
        self._page.take_in(path, path.name)
        self._page.refresh()
        return None

    def _none(self) -> Meaning:
        self._known |= {str(p) for p in self.offered}
        self.offered = ()
        self._page.refresh()
        return None

    def press(self) -> Press:
        """Watch a folder, or no longer."""
        folder = self._page.commission.check.watched
        if folder:
            return Press(f"Stop watching “{Path(folder).name}”", self._stop)
        return Press("Watch a folder…", self._choose)

    def _choose(self) -> Meaning:
        folder = QFileDialog.getExistingDirectory(self._page, "A folder that your telephone fills", str(Path.home()))
        if folder:
            self._page.watch(folder)
        return None

    def _stop(self) -> Meaning:
        self._page.watch("")
        return None
