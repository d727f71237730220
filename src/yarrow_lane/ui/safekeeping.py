"""Copies of the studio elsewhere: made once a day when the place is there, and the whole studio in one file when it is wanted."""

from collections.abc import Callable
from datetime import date, datetime
from pathlib import Path

from yarrow_lane.measure.progress import Progress
from yarrow_lane.store.bundle import write_bundle
from yarrow_lane.store.copies import PLACE
from yarrow_lane.store.elsewhere import keep_elsewhere, same_disk, wanted_at
from yarrow_lane.store.store import Store
from yarrow_lane.store.things import Brought
from yarrow_lane.ui.works import Works


class Safekeeping:
    """Asked by the idle hours and by the studio's page; everything long runs beside the window."""

    def __init__(
        self, store: Store, works: Works, say: Callable[[str, bool], None], clock: Callable[[], datetime]
    ) -> None:  # fmt: skip
        self._store, self._works, self._say, self._clock = store, works, say, clock
        self._tried: date | None = None

    def daily(self) -> None:
        """Bring the copy of the day to its place, once a day; a stick that is not put in is waited for."""
        today, place = self._clock().date(), self._store.elsewhere
        if place is not None and self._tried != today and wanted_at(place, today):
            self._tried = today
            self._bring(place, today, lambda brought: None)

    def keep_at(self, chosen: Path | None) -> None:
        """Keep a copy there from now on, the first at once; or none. Raises `StoreTrouble`."""
        self._store.keep_elsewhere(chosen)
        place, today = self._store.elsewhere, self._clock().date()
        if chosen is None or place is None:
            self._say("From now on no copy is kept elsewhere. What was kept there stays.", False)
            return
        self._tried = today
        together = same_disk(chosen, self._store.folder)
        warning = " It lies on the same disk as the studio: a stick or another disk is safer." if together else ""
        self._bring(place, today, lambda brought: self._say(f"Kept at {place}: {brought.words}.{warning}", together))

    def _bring(self, place: Path, today: date, done: Callable[[Brought], None]) -> None:
        photos = self._store.photos
        title = f"Keeping a copy at {place.parent}"
        self._with_copy(title, "keeping", lambda copy, progress: keep_elsewhere(copy, photos, place, today, progress), done)

    def save_everything(self, target: Path) -> None:
        """Write the whole studio into one file. Raises `StoreTrouble`."""
        photos = self._store.photos

        def said(brought: Brought) -> None:
            self._say(f"Everything is in {target}: {brought.words}.", False)

        self._with_copy(
            "Saving everything", "saving", lambda copy, progress: write_bundle(copy, photos, target, progress), said
        )

    def _with_copy(
        self, title: str, name: str, work: Callable[[Path, Progress], Brought], done: Callable[[Brought], None]
    ) -> None:  # fmt: skip
        """Do something beside the window with a copy of the studio's file as it is now. Raises `StoreTrouble`."""
        copy = self._store.database.copy_to(self._store.folder / PLACE / f"{name}.part")

        def with_it(progress: Progress) -> Brought:
            try:
                return work(copy, progress)
            finally:
                copy.unlink(missing_ok=True)

        self._works.run(title, with_it, done)
