"""What every page is handed: the desk, the pictures, the long work, a way to speak, and the one guard."""

from collections.abc import Callable
from datetime import datetime
from pathlib import Path

from PySide6.QtCore import QObject, QTimer

from yarrow_lane.desk.derived import Derived
from yarrow_lane.desk.desk import Desk
from yarrow_lane.desk.photographs import Photographs, in_a_worker
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.store.things import write_synced
from yarrow_lane.ui.arrivals import Arrivals
from yarrow_lane.ui.guard import Guard
from yarrow_lane.ui.judging import Judging
from yarrow_lane.ui.pictures import Pictures
from yarrow_lane.ui.references import References
from yarrow_lane.ui.safekeeping import Safekeeping
from yarrow_lane.ui.threads import Threads
from yarrow_lane.ui.watching import Watching
from yarrow_lane.ui.works import Works
from yarrow_lane.workers.pool import Workers

_TIDY_AFTER_MS, _TIDY_STEP_MS = 20_000, 200  # our choice: idle work waits, and never takes long at a time


class Workroom(QObject):
    """Made once for a window; it outlives pages, themes and sizes of text.

    `say(text, wrong)` shows a message, `report(trouble)` what went wrong, `open_door(id, door)` and `open_studio()` go there,
    `open_hall(where, id)` to the shelf, the calendar or the books, there to that commission.
    """

    def __init__(
        self, desk: Desk, workers: Workers, say: Callable[[str, bool], None], report: Callable[[Trouble], None],
        open_door: Callable[[str, str], None], open_studio: Callable[[], None],
        open_hall: Callable[[str, str], None],
    ) -> None:  # fmt: skip
        super().__init__()
        self.desk, self.say, self.report, self.open_door, self.open_studio = desk, say, report, open_door, open_studio
        self.open_hall = open_hall
        self.guard = Guard(desk.store.folder, report)
        self.threads = Threads(self.guard.attempt, self.guard.fault)
        self.derived = Derived(self.threads, desk.store.cache, report)
        self.pictures = Pictures(desk.store.photos, self.derived, workers)
        self.references = References(self.pictures, self.derived, workers, desk.store.cache)
        self.photographs = Photographs(desk.store.photos, in_a_worker(workers))
        self.judging = Judging(desk, self.pictures, self.derived, workers)
        self.workers = workers
        self.arrivals = Arrivals(desk, self.photographs, self.threads, self.guard, say)
        self.works = Works(self.threads, report)
        self.works.watch(self.arrivals, self.arrivals.progressed)
        self.safekeeping = Safekeeping(desk.store, self.works, say, desk.clock)
        self.watching = Watching(desk, self.guard)
        self._tidying = desk.tidy()
        self._tidy = QTimer(self)
        self._tidy.setInterval(_TIDY_AFTER_MS)
        self._tidy.timeout.connect(self.guard.guarded(self._tidy_a_little))
        self._tidy.start()

    @property
    def now(self) -> datetime:
        return self.desk.clock()

    def _tidy_a_little(self) -> None:
        """One small step of the idle work; when all is done it begins again after a while."""
        if self.threads.busy:
            return
        try:
            next(self._tidying)
            self._tidy.setInterval(_TIDY_STEP_MS)
        except StopIteration:
            self._tidying = self.desk.tidy()
            self._tidy.setInterval(60 * _TIDY_AFTER_MS)
            self.safekeeping.daily()
        except Trouble:
            self._tidying = self.desk.tidy()
            self._tidy.setInterval(60 * _TIDY_AFTER_MS)
            raise

    def write_file(self, path: Path, data: bytes) -> None:
        """Write a document; raises `Trouble` that names the file."""
        try:
            write_synced(path, data)
        except OSError as error:
            why = error.strerror or str(error)
            raise Trouble(f"“{path.name}” was not written", why, "choose another folder") from error

    def close(self) -> None:
        """Wait for what runs, keep what was worked out."""
        self._tidy.stop()
        self.watching.stop()
        self.threads.close()
        self.guard.attempt(self.desk.save_what_was_worked_out)
        self.guard.close()
