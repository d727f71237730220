"""Photographs coming in: read off the interface thread, shown as they are read, stopped on request."""

from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path

from PySide6.QtCore import QObject, QTimer, Signal

from yarrow_lane.desk.desk import Desk
from yarrow_lane.intake.photos import Photo
from yarrow_lane.measure.progress import Progress
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.ui.jobs import Jobs

# Our choice: what arrives within this time is one change on record; the first ones soon, so that something is seen.
_FIRST_MS, _GATHER_MS = 300, 1500


@dataclass(frozen=True)
class Batch:
    """Files dropped together: for which commission, the letter they answer (0 for none), and whether the place is kept."""

    commission_id: str
    files: tuple[Path, ...]
    answers: int = 0
    keep_location: bool = False


class Arrivals(QObject):
    """Reads files one after the other, batch after batch.

    `landed` tells a handful at a time (commission, photographs), `ended` the sentences of what failed or was odd once
    nothing is left. `reading` says how far it is, as (read, of); (0, 0) when nothing is being read.
    """

    landed = Signal(str, object)
    ended = Signal(object)
    progressed = Signal()
    _read = Signal(object)

    def __init__(self, desk: Desk, jobs: Jobs) -> None:
        super().__init__()
        self._desk, self._jobs = desk, jobs
        self._batch: Batch | None = None
        self._next: list[Batch] = []
        self._sentences: list[str] = []
        self._waiting: list[Photo] = []
        self.reading = (0, 0)
        self._timer = QTimer(self)
        self._timer.setSingleShot(True)
        self._timer.timeout.connect(self._land)
        self._read.connect(self._gather)

    def take(self, commission_id: str, paths: list[Path], answers: int = 0, keep_location: bool = False) -> None:
        """Read these files, after those that are still being read; folders are opened."""
        files = tuple(f for p in paths for f in (_files_in(p) if p.is_dir() else [p]))
        self.reading = (self.reading[0], self.reading[1] + len(files))
        self._next.append(Batch(commission_id, files, answers, keep_location))
        if self._batch is None:
            self._begin()
        self.progressed.emit()

    def _begin(self) -> None:
        batch = self._batch = self._next.pop(0)

        def read(path: Path, name: str) -> Photo:
            return self._desk.photo_from_file(path, name, batch.answers, batch.keep_location)

        def work(progress: Progress) -> list[str]:
            return read_all(list(batch.files), read, lambda photo: self._read.emit((batch, photo)), progress)

        self._jobs.run("arrivals", work, self._end)

    def stop(self) -> None:
        """Leave the rest unread; what has arrived stays."""
        self._jobs.stop("arrivals")
        self._next = []
        self._land()
        self._over()
        self.progressed.emit()

    def _gather(self, read: tuple[Batch, Photo | None]) -> None:
        batch, photo = read
        if batch is not self._batch:
            return  # read while it was being stopped
        self.reading = (self.reading[0] + 1, self.reading[1])
        if photo is not None:
            self._waiting.append(photo)
        if not self._timer.isActive():
            self._timer.start(_GATHER_MS if self.reading[0] > 1 else _FIRST_MS)

    def _land(self) -> None:
        self._timer.stop()
        if self._waiting and self._batch is not None:
            photos, self._waiting = tuple(self._waiting), []
            self.landed.emit(self._batch.commission_id, photos)
        else:
            self.progressed.emit()

    def _end(self, sentences: list[str]) -> None:
        self._sentences += sentences
        self._land()
        if self._next:
            self._begin()
        else:
            self.ended.emit(self._over())

    def _over(self) -> list[str]:
        """Nothing is being read any more; returns what was to be said."""
        said, self._sentences = self._sentences, []
        self._batch, self.reading = None, (0, 0)
        return said


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
