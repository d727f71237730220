"""The measures of every photograph, worked out in workers, kept by content, marks and version."""

from PySide6.QtCore import QObject, Signal

from yarrow_lane.desk.derived import Derived, Key, Making
from yarrow_lane.intake.evidence import VERSION, Evidence
from yarrow_lane.intake.photos import Photo
from yarrow_lane.measure.progress import Progress
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.store.codec import from_plain_json, to_plain_json
from yarrow_lane.ui.pictures import Pictures
from yarrow_lane.workers.pool import Workers

_BYTES = 2000  # about one `Evidence`


class Judging(QObject):
    """Hands out `Evidence`; `judged` tells when some more has come. One photograph is measured after the other."""

    judged = Signal()

    def __init__(self, pictures: Pictures, derived: Derived, workers: Workers) -> None:
        super().__init__()
        self._pictures, self._derived, self._workers = pictures, derived, workers
        self._found: dict[Key, Evidence] = {}
        self._failed: set[Key] = set()
        self._waiting: dict[Key, Photo] = {}
        self._now: Key | None = None

    @staticmethod
    def _key(photo: Photo) -> Key:
        return Key("evidence", (photo.id,), photo.eyes, VERSION)

    def evidence(self, photos: tuple[Photo, ...]) -> dict[str, Evidence]:
        """What is known now, by photograph; the rest is asked for. Others are no longer measured."""
        wanted = {self._key(p): p for p in photos}
        if self._now is not None and self._now not in wanted:
            self._derived.leave(self)
            self._now = None
        self._found = {k: e for k, e in self._found.items() if k in wanted}
        for key in wanted:
            if key not in self._found and (kept := self._derived.have(key)) is not None:
                self._found[key] = kept
        self._waiting = {k: p for k, p in wanted.items() if k not in self._found and k not in self._failed and k != self._now}
        self._next()
        return {p.id: self._found[k] for k, p in wanted.items() if k in self._found}

    def wants(self, photo_id: str) -> bool:
        """Whether that photograph is being measured or waits for it."""
        return any(key.inputs == (photo_id,) for key in (*self._waiting, *([self._now] if self._now else [])))

    def _next(self) -> None:
        if self._now is not None or not self._waiting:
            return
        key = next(iter(self._waiting))
        photo = self._waiting.pop(key)
        self._now = key

        def make(progress: Progress) -> Evidence:
            path = self._pictures.file(photo.id, photo.name)
            found: Evidence = self._workers.ask("intake.evidence:measure_file", path, photo.name, photo.eyes, progress=progress)
            return found

        making = Making(
            make, lambda _: _BYTES, lambda e: to_plain_json(e).encode(), lambda d: from_plain_json(Evidence, d.decode()), -2
        )
        self._derived.want(key, self, making, lambda found: self._done(key, found), lambda t: self._not_done(key, t))

    def _done(self, key: Key, found: Evidence) -> None:
        self._found[key] = found
        self._over(key)
        self.judged.emit()

    def _not_done(self, key: Key, _: Trouble) -> None:
        # What is wrong with the file is said where it is opened; here it only stays unmeasured.
        self._failed.add(key)
        self._over(key)

    def _over(self, key: Key) -> None:
        if self._now == key:
            self._now = None
            self._next()
