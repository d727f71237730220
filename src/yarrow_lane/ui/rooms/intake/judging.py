"""The measures of every photograph, made off the interface thread and kept by content, marks and version."""

from pydantic import TypeAdapter
from PySide6.QtCore import QObject, Signal

from yarrow_lane.desk.desk import Desk
from yarrow_lane.intake.evidence import VERSION, Evidence, measure_photo
from yarrow_lane.intake.opening import open_picture
from yarrow_lane.intake.photos import Photo
from yarrow_lane.measure.progress import Progress
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.ui.jobs import Jobs

_AS_JSON = TypeAdapter(Evidence)


class Judging(QObject):
    """Hands out `Evidence`; `judged` tells when some more has come."""

    judged = Signal(str)

    def __init__(self, desk: Desk, jobs: Jobs) -> None:
        super().__init__()
        self._desk, self._jobs = desk, jobs
        self._found: dict[tuple[object, ...], Evidence] = {}
        self._failed: set[tuple[object, ...]] = set()
        self._asked: set[str] = set()
        self._asked_key: dict[str, tuple[object, ...]] = {}

    @staticmethod
    def _key(photo: Photo) -> tuple[object, ...]:
        return ("evidence", photo.id, photo.eyes, VERSION)

    def evidence(self, photos: tuple[Photo, ...]) -> dict[str, Evidence]:
        """What is known now, by photograph; the rest is asked for. Photographs that left are no longer measured."""
        here = {p.id for p in photos}
        for gone in self._asked - here:
            self._jobs.stop(f"judge {gone}")
        self._asked &= here
        known: dict[str, Evidence] = {}
        for photo in photos:
            key = self._key(photo)
            if key in self._found:
                known[photo.id] = self._found[key]
            elif key not in self._failed:
                self._ask(photo, key)
        return known

    def _ask(self, photo: Photo, key: tuple[object, ...]) -> None:
        kind = f"judge {photo.id}"
        if photo.id in self._asked and self._jobs.asked(kind) and self._asked_key.get(photo.id) == key:
            return
        self._asked.add(photo.id)
        self._asked_key[photo.id] = key
        path, cache = self._desk.store.pictures.path(photo.id), self._desk.store.cache

        def work(progress: Progress) -> Evidence:
            if (kept := cache.get(*key)) is not None:
                return _AS_JSON.validate_json(kept)
            progress.at(0.0)
            found = measure_photo(open_picture(path, photo.name).picture, photo.eyes, progress)
            cache.put(_AS_JSON.dump_json(found), *key)
            return found

        def done(found: Evidence) -> None:
            self._found[key] = found
            self.judged.emit(photo.id)

        def failed(_: Trouble) -> None:
            # What is wrong with the file is said where it is opened; here it only stays unmeasured.
            self._failed.add(key)

        self._jobs.run(kind, work, done, failed, priority=-2)
