"""Photographs coming in: looked at in workers, put on record a handful at a time, whatever page is open."""

from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path
from typing import Protocol

from PySide6.QtCore import QObject, QTimer, Signal

from yarrow_lane.desk.desk import Desk
from yarrow_lane.desk.photographs import Photographs
from yarrow_lane.intake.photos import INTAKE, Photo, add_photos
from yarrow_lane.lane.part import Edit
from yarrow_lane.measure.progress import Cancelled, Progress
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.measure.words import one_line
from yarrow_lane.ui.guard import Guard
from yarrow_lane.ui.threads import Threads, Ticket

# Our choice: what arrives within this time is one change on record; the first ones soon, so that something is seen.
_FIRST_MS, _GATHER_MS = 300, 1500
_MOST_SENTENCES = 4  # our choice: more would push the photographs off the window


class Read(Protocol):
    """How one file is read."""

    def __call__(self, path: Path, name: str, progress: Progress) -> Photo: ...


@dataclass(frozen=True)
class Batch:
    """What was dropped together, files and folders: for which commission, the letter it answers (0 for none), the place kept or not."""

    commission_id: str
    paths: tuple[Path, ...]
    answers: int = 0
    keep_location: bool = False


class Arrivals(QObject):
    """Reads files one after the other, batch after batch, and takes them in.

    `reading` says how far it is, as (read, of); (0, 0) when nothing is being read. `odd` keeps the sentences of the last batches of
    each commission until they are forgotten.
    """

    progressed = Signal()
    _read = Signal(object)
    _listed = Signal(object)

    def __init__(
        self, desk: Desk, photographs: Photographs, threads: Threads, guard: Guard, say: Callable[[str, bool], None]
    ) -> None:  # fmt: skip
        super().__init__()
        self._desk, self._photographs, self._threads, self._guard, self._say = desk, photographs, threads, guard, say
        self._batch: Batch | None = None
        self._ticket: Ticket | None = None
        self._next: list[Batch] = []
        self._waiting: list[Photo] = []
        self.odd: dict[str, tuple[str, ...]] = {}
        self.reading = (0, 0)
        # Of all batches since nothing was being read: what was said, and how many are on record.
        self._said: tuple[str, ...] = ()
        self._landed = 0
        self._uncounted = False  # folders still to be looked into
        self._timer = QTimer(self)
        self._timer.setSingleShot(True)
        self._timer.timeout.connect(guard.guarded(self.land))
        self._read.connect(guard.guarded(self._gather))
        self._listed.connect(guard.guarded(self._count))

    @property
    def title(self) -> str:
        return "Reading photographs"

    @property
    def under_way(self) -> bool:
        return self.reading[1] > 0

    @property
    def words(self) -> str:
        """How far it is."""
        if self._uncounted:
            return "looking at what was dropped"
        return f"{self.reading[0]} of {self.reading[1]} read"

    def take(self, commission_id: str, paths: list[Path], answers: int = 0, keep_location: bool = False) -> None:
        """Read these files, after those that are still being read; folders are opened."""
        self.reading = (self.reading[0], self.reading[1] + len(paths))
        self._uncounted = self._uncounted or self._batch is None
        self._next.append(Batch(commission_id, tuple(paths), answers, keep_location))
        if self._batch is None:
            self._begin()
        self.progressed.emit()

    def _begin(self) -> None:
        batch = self._batch = self._next.pop(0)

        def read(path: Path, name: str, progress: Progress) -> Photo:
            return self._photographs.photo_from_file(path, name, batch.answers, batch.keep_location, progress)

        def work(progress: Progress) -> list[str]:
            files = files_in(batch.paths, progress)
            self._listed.emit((batch, len(files)))
            return read_all(files, read, lambda photo: self._read.emit((batch, photo)), self._guard.fault, progress)

        self._ticket = self._threads.run(work, self._end, lambda trouble: self._end([trouble.sentence]))

    def stop(self) -> None:
        """Leave the rest unread; what has arrived stays."""
        if self._ticket is not None:
            self._ticket.drop()
        self._next = []
        said = self._guard.attempt(self.land)
        self._over()
        self.progressed.emit()
        if said is None:
            self._say("Stopped: what was read is in, the rest was left unread.", False)

    def _count(self, listed: tuple[Batch, int]) -> None:
        """The folders of a batch were looked into: as many files as that are read instead of what was dropped."""
        batch, count = listed
        if batch is self._batch:
            self._uncounted = False
            self.reading = (self.reading[0], self.reading[1] - len(batch.paths) + count)
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

    def land(self) -> None:
        """Put on record what was read; raises `Trouble` when that fails, and each of them stands in `odd` by name."""
        self._timer.stop()
        if self._waiting and self._batch is not None:
            photos, self._waiting = tuple(self._waiting), []
            count = len(photos)
            label = f"Took in {photos[0].name}" if count == 1 else f"Took in {count} photographs"
            try:
                self._desk.do(self._batch.commission_id, Edit(INTAKE, label, lambda i: add_photos(i, photos)))
                self._landed += count
            except Trouble as trouble:
                names = tuple(f"“{p.name}” was not taken in: {trouble.sentence}" for p in photos)
                self._add_odd(self._batch.commission_id, names)
                self.progressed.emit()
                raise
        self.progressed.emit()

    def _add_odd(self, commission_id: str, sentences: tuple[str, ...]) -> None:
        self.odd[commission_id] = (*self.odd.get(commission_id, ()), *sentences)
        self._said += sentences

    def _end(self, sentences: list[str]) -> None:
        assert self._batch is not None
        commission_id = self._batch.commission_id
        self._add_odd(commission_id, tuple(sentences))
        self._guard.attempt(self.land)
        if self._next:
            self._begin()
            return
        said, landed, read = self._said, self._landed, self.reading[1]
        self._over()
        self.progressed.emit()
        if said:
            more = len(said) - _MOST_SENTENCES
            rest = f"\n… and {more} more; all of them stand on the bench at Intake." if more > 0 else ""
            count = "" if landed == read else f"{landed} of {read} photographs are in. "
            self._say(count + "\n".join(said[:_MOST_SENTENCES]) + rest, True)
        elif not read:
            self._say("There is no file in what was dropped.", False)
        else:
            self._say("All photographs are in.", False)

    def forget_odd(self, commission_id: str) -> None:
        """Clear the list of what was odd."""
        self.odd.pop(commission_id, None)
        self.progressed.emit()

    def _over(self) -> None:
        """Nothing is being read any more."""
        self._batch, self._ticket, self.reading = None, None, (0, 0)
        self._said, self._landed, self._uncounted = (), 0, False


def files_in(paths: tuple[Path, ...], progress: Progress) -> tuple[Path, ...]:
    """The files among what was dropped, and those in the folders and the folders in them; hidden ones are the system's."""
    found: list[Path] = []
    for path in paths:
        progress.at(0.0)
        if path.is_dir():
            inside = []
            for each in path.rglob("*"):
                progress.at(0.0)
                if not each.name.startswith(".") and each.is_file():
                    inside.append(each)
            found += sorted(inside)
        else:
            found.append(path)
    return tuple(found)


def _why_not(name: str, error: Exception, fault: Callable[[Exception], Trouble]) -> str:
    if isinstance(error, Trouble):
        return error.sentence
    if isinstance(error, OSError):
        return f"“{name}” was not taken in, because {error.strerror or error}; try it again."
    trouble = fault(error)
    return f"“{name}” was not taken in: {trouble.sentence}"


def read_all(
    files: tuple[Path, ...], read: Read, told: Callable[[Photo | None], None], fault: Callable[[Exception], Trouble],
    progress: Progress,
) -> list[str]:  # fmt: skip
    """Read each file; what fails or is odd becomes a sentence and never stops the others. `told` gets None for a failure.

    `fault` puts a fault of ours into words.
    """
    sentences: list[str] = []
    for number, path in enumerate(files):
        progress.at(number / len(files))
        name = one_line(path.name)
        try:
            photo = read(path, name, progress)
        except Cancelled:
            raise
        except Exception as error:  # one file must not take the others with it
            sentences.append(_why_not(name, error, fault))
            told(None)
            continue
        told(photo)
        if photo.remark:
            sentences.append(photo.remark)
    return sentences
