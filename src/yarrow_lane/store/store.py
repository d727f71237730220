"""The studio on disk as one thing: folder, versions, photographs, cache."""

from collections.abc import Iterator
from datetime import date, datetime, timedelta
from pathlib import Path

from yarrow_lane.store.cache import Cache
from yarrow_lane.store.copies import oldest_day
from yarrow_lane.store.database import Database
from yarrow_lane.store.elsewhere import place_in
from yarrow_lane.store.folder import FolderLock
from yarrow_lane.store.references import names_in
from yarrow_lane.store.things import Things, remove_unfinished
from yarrow_lane.store.trouble import Damaged, StoreTrouble

# Our choice: some milliseconds each.
_VERSIONS_A_STEP = 100
_DOCUMENTS_A_STEP = 50
_PARTS_A_STEP = 50
_FILES_A_STEP = 500
_ELSEWHERE = "copy elsewhere"  # a place of this machine: remembered, not a change that undo takes back
_ORPHANS_STAY = timedelta(days=30)  # our choice: undo reaches back a week; and as long as a copy names it
_UNFINISHED_STAY = timedelta(days=1)  # our choice: nothing is written for so long


class Store:
    """Opens the folder and holds it until closed; raises `StoreTrouble` before any change."""

    def __init__(self, folder: Path, today: date) -> None:
        self.folder = folder
        self._lock = FolderLock(folder)
        try:
            self.database = Database(folder)
        except BaseException:
            self._lock.release()
            raise
        self.photos = Things(folder, "photos")
        self.cache = Cache(folder)
        self._told_of_damage = False
        self._failed_on: date | None = None
        # Said by the window, once; work goes on without today's copy.
        self.trouble: StoreTrouble | None = self._daily_copy(today)
        self.elsewhere: Path | None = None
        try:
            self._look_elsewhere(self.database.recall(_ELSEWHERE))
        except StoreTrouble as trouble:  # the studio was moved, or that line is damaged
            self.trouble = self.trouble or trouble

    def _daily_copy(self, today: date) -> StoreTrouble | None:
        """See to the copy of the day; returns why there is none, once a day."""
        if self._failed_on == today:
            return None
        try:
            self.database.daily_copy(today)
        except StoreTrouble as trouble:
            self._failed_on = today
            return StoreTrouble("The daily copy of the studio was not made", trouble.why, trouble.remedy)
        return None

    def keep_elsewhere(self, chosen: Path | None) -> None:
        """Keep a copy of the studio in that folder from now on, or none. Raises `StoreTrouble`."""
        if chosen is not None:
            place_in(chosen, self.folder)
        self.database.remember(_ELSEWHERE, str(chosen) if chosen is not None else "")
        self._look_elsewhere(str(chosen) if chosen is not None else "")

    def _look_elsewhere(self, chosen: str | None) -> None:
        """What is kept elsewhere mends what is damaged here."""
        self.elsewhere = place_in(Path(chosen), self.folder) if chosen else None
        self.photos.mirrors = () if self.elsewhere is None else (self.elsewhere,)

    def tidy(self, now: datetime) -> Iterator[None]:
        """Idle work, a small step at a time: old versions are thinned out, things nobody names go after a month.

        Raises `StoreTrouble`, the same damage once; a step that raises has changed nothing.
        """
        trouble = self._daily_copy(now.date())
        if trouble is not None:
            raise trouble
        yield
        for number, document in enumerate(self.database.versions.heads()):
            while self.database.thin(document, now, _VERSIONS_A_STEP):
                yield
            if number % _DOCUMENTS_A_STEP == 0:
                yield
        yield
        try:
            yield from self._sweep(now)
        except Damaged:
            # What cannot be read may name photographs: none of them goes. It is said once, then where it is opened.
            if not self._told_of_damage:
                self._told_of_damage = True
                raise
        for place in ("photos", "cache"):
            remove_unfinished(self.folder / place, now - _UNFINISHED_STAY)
            yield
        yield from self.cache.trim()
        self.database.checkpoint()

    def _sweep(self, now: datetime) -> Iterator[None]:
        named: set[str] = set()
        for number, text in enumerate(self.database.parts.texts()):
            named |= names_in(text)
            if number % _PARTS_A_STEP == 0:
                yield
        for number, document in enumerate(self.database.versions.heads()):
            for text in self.database.happenings(document):
                named |= names_in(text)
            if number % _DOCUMENTS_A_STEP == 0:
                yield
        orphans = []
        for number, thing in enumerate(self.photos.names()):
            if thing not in named:
                orphans.append(thing)
            if number % _FILES_A_STEP == 0:
                yield
        # What has come in meanwhile is not yet named: it is noted now and looked at again another day.
        since = self.database.note_orphans(orphans, now)
        yield
        oldest = oldest_day(self.folder)
        for thing, moment in since.items():
            # A copy made before that day may still name it.
            if now - moment > _ORPHANS_STAY and (oldest is None or oldest > moment.date()):
                self.photos.remove(thing)
                yield

    def close(self) -> None:
        self.database.close()
        self._lock.release()
