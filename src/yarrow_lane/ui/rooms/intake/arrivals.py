"""Photographs coming in: read off the interface thread, shown as they are read, stopped on request."""

from collections.abc import Callable
from pathlib import Path

from PySide6.QtCore import QObject, QTimer, Signal

from yarrow_lane.desk.desk import Desk
from yarrow_lane.intake.photos import Photo
from yarrow_lane.measure.progress import Progress
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.ui.jobs import Jobs

# Our choice: what arrives within this time is one change on record; the first ones soon, so that something is seen.
_FIRST_MS, _GATHER_MS = 300, 1500


class Arrivals(QObject):
    """Reads files one after the other; `landed` tells a handful at a time, `ended` the sentences of what failed.

    `reading` says how far it is, as (read, of); (0, 0) when nothing is being read.
    """

    landed = Signal(object)
    ended = Signal(object)
    progressed = Signal()
    _read = Signal(object)

    def __init__(self, desk: Desk, jobs: Jobs) -> None:
        super().__init__()
        self._desk, self._jobs = desk, jobs
        self._waiting: list[Photo] = []
        self.reading = (0, 0)
        self._timer = QTimer(self)
        self._timer.setSingleShot(True)
        self._timer.timeout.connect(self._land)
        self._read.connect(self._gather)

    def take(self, paths: list[Path], answers: int = 0, keep_location: bool = False) -> None:
        """Begin with these files; folders are opened."""
        files = [f for p in paths for f in (_files_in(p) if p.is_dir() else [p])]
        self.reading = (0, len(files))

        def read(path: Path, name: str) -> Photo:
            return self._desk.photo_from_file(path, name, answers, keep_location)

        def work(progress: Progress) -> list[str]:
            return read_all(files, read, self._read.emit, progress)

        self._jobs.run("arrivals", work, self._end)
        self.progressed.emit()

    def stop(self) -> None:
        """Leave the rest unread; what has arrived stays."""
        self._jobs.stop("arrivals")
        self.reading = (0, 0)
        self._land()
        self.progressed.emit()

    def _gather(self, photo: Photo | None) -> None:
        if self.reading[1]:
            self.reading = (self.reading[0] + 1, self.reading[1])
        if photo is not None:
            self._waiting.append(photo)
        if not self._timer.isActive():
            self._timer.start(_GATHER_MS if self.reading[0] > 1 else _FIRST_MS)

    def _land(self) -> None:
        if self._waiting:
            photos, self._waiting = tuple(self._waiting), []
            self.landed.emit(photos)
        else:
            self.progressed.emit()

    def _end(self, sentences: list[str]) -> None:
        self._timer.stop()
        self.reading = (0, 0)
        self._land()
        self.ended.emit(sentences)


def _files_in(folder: Path) -> list[Path]:
    """Every file of a folder and the folders in it; hidden ones are the system's, not the client's."""
    return sorted(f for f in folder.rglob("*") if f.is_file() and not f.name.startswith("."))


def read_all(
    files: list[Path], read: Callable[[Path, str], Photo], told: Callable[[Photo | None], None], progress: Progress
) -> list[str]:
    """Read each file; what fails or is odd becomes a sentence and never stops the others. `told` gets None for a failure."""
    sentences: list[str] = []
    for number, path in enumerate(files):
        progress.at(number / len(files))
        try:
            photo = read(path, path.name)
        except Trouble as trouble:
            sentences.append(trouble.sentence)
            told(None)
            continue
        told(photo)
        if photo.remark:
            sentences.append(photo.remark)
    return sentences
