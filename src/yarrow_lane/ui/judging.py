"""Photographs are measured in workers, one after the other, and what is found is kept beside the commissions."""

from PySide6.QtCore import QObject, Signal

from yarrow_lane.desk.derived import Derived, Key, Making
from yarrow_lane.desk.desk import Desk
from yarrow_lane.desk.evidence import Marked
from yarrow_lane.intake.evidence import Evidence
from yarrow_lane.intake.photos import Photo
from yarrow_lane.measure.progress import Progress
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.ui.pictures import Pictures
from yarrow_lane.workers.pool import Workers

_BYTES = 2000  # about one `Evidence`


class Judging(QObject):
    """Hands out `Evidence`; `judged` tells when some more has come."""

    judged = Signal()

    def __init__(self, desk: Desk, pictures: Pictures, derived: Derived, workers: Workers) -> None:
        super().__init__()
        self._desk, self._pictures, self._derived, self._workers = desk, pictures, derived, workers
        self._failed: set[Marked] = set()
        self._waiting: dict[Marked, Photo] = {}
        self._now: Marked | None = None

    def evidence(self, photos: tuple[Photo, ...]) -> dict[str, Evidence]:
        """What is known now, by photograph; the rest is asked for. Others are no longer measured. Raises `StoreTrouble`."""
        known = self._desk.evidence.of_all(photos)
        wanted = {(p.id, p.eyes): p for p in photos if p.id not in known}
        if self._now is not None and self._now not in wanted:
            self._derived.leave(self)
            self._now = None
        self._waiting = {k: p for k, p in wanted.items() if k not in self._failed and k != self._now}
        self._next()
        return known

    def _next(self) -> None:
        if self._now is not None or not self._waiting:
            return
        marked = next(iter(self._waiting))
        photo = self._waiting.pop(marked)
        self._now = marked

        def make(progress: Progress) -> Evidence:
            path = self._pictures.file(photo.id, photo.name)
            found: Evidence = self._workers.ask("intake.evidence:measure_file", path, photo.name, photo.eyes, progress=progress)
            return found

        making = Making(make, lambda _: _BYTES, priority=-2)
        key = Key("evidence", marked[:1], marked[1:])
        self._derived.want(key, self, making, lambda found: self._done(marked, found), lambda t: self._not_done(marked, t))

    def _done(self, marked: Marked, found: Evidence) -> None:
        self._over(marked)
        self._desk.measured(marked, found)
        self.judged.emit()

    def _not_done(self, marked: Marked, _: Trouble) -> None:
        # What is wrong with the file is said where it is opened; here it only stays unmeasured.
        self._failed.add(marked)
        self._over(marked)

    def _over(self, marked: Marked) -> None:
        if self._now == marked:
            self._now = None
            self._next()
