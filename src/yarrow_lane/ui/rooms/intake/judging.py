"""The measures of every photograph, made in a process of their own, kept by content, marks and version."""

from PySide6.QtCore import QObject, Signal

from yarrow_lane.intake.evidence import VERSION, Evidence
from yarrow_lane.intake.judge import EVIDENCE
from yarrow_lane.intake.photos import Photo
from yarrow_lane.measure.progress import Progress
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.ui.workroom import Workroom

_Key = tuple[object, ...]


class Judging(QObject):
    """Hands out `Evidence`; `judged` tells when some more has come. One photograph is measured after the other."""

    judged = Signal(str)

    def __init__(self, workroom: Workroom) -> None:
        super().__init__()
        self._workroom = workroom
        self._found: dict[_Key, Evidence] = {}
        self._failed: set[_Key] = set()
        self._waiting: dict[_Key, Photo] = {}
        self._now: _Key | None = None

    @staticmethod
    def _key(photo: Photo) -> _Key:
        return ("evidence", photo.id, photo.eyes, VERSION)

    def evidence(self, photos: tuple[Photo, ...]) -> dict[str, Evidence]:
        """What is known now, by photograph; the rest is asked for. Photographs that left are no longer measured."""
        wanted = {self._key(p): p for p in photos}
        if self._now is not None and self._now not in wanted:
            self._workroom.jobs.stop("judge")
            self._now = None
        self._waiting = {k: p for k, p in wanted.items() if k not in self._found and k not in self._failed and k != self._now}
        self._next()
        return {p.id: self._found[k] for k, p in wanted.items() if k in self._found}

    def wants(self, photo_id: str) -> bool:
        """Whether that photograph is being measured or waits for it."""
        keys = (*self._waiting, *([self._now] if self._now else []))
        return any(key[1] == photo_id for key in keys)

    def _next(self) -> None:
        if self._now is not None or not self._waiting:
            return
        key = next(iter(self._waiting))
        photo = self._waiting.pop(key)
        self._now = key
        store, judge = self._workroom.desk.store, self._workroom.judge
        path = store.pictures.path(photo.id)

        def work(progress: Progress) -> Evidence:
            if (kept := store.cache.get(*key)) is not None:
                return EVIDENCE.validate_json(kept)
            found = judge.measure(path, photo.name, photo.eyes, progress)
            store.cache.put(EVIDENCE.dump_json(found), *key)
            return found

        def done(found: Evidence) -> None:
            self._found[key] = found
            self._over()
            self.judged.emit(photo.id)

        def failed(_: Trouble) -> None:
            # What is wrong with the file is said where it is opened; here it only stays unmeasured.
            self._failed.add(key)
            self._over()

        self._workroom.jobs.run("judge", work, done, failed, priority=-2)

    def _over(self) -> None:
        self._now = None
        self._next()
