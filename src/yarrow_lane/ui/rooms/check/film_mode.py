"""The film: every photograph of the painting on its own millimetres, in one light."""

from collections.abc import Sequence
from typing import TYPE_CHECKING, Any

from PySide6.QtCore import QTimer
from PySide6.QtGui import QKeyEvent, Qt

from yarrow_lane.check.film import before_and_after, film_of, png_of
from yarrow_lane.check.grid import px_per_mm_for
from yarrow_lane.compose.reference import reference_key
from yarrow_lane.measure.days import day_text
from yarrow_lane.measure.progress import SILENT, Progress
from yarrow_lane.measure.raster import Picture
from yarrow_lane.measure.words import counted
from yarrow_lane.ui.asked import Asked
from yarrow_lane.ui.bench_sheet import Fact, Line, Meaning, NextAct, Note, Press, Section
from yarrow_lane.ui.kit.levels import single_level
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.rooms.check.mode import Mode, Sheets
from yarrow_lane.ui.rooms.check.saving import save_frames, write
from yarrow_lane.ui.straight_canvas import file_of

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.check.page import CheckPage

_EACH_MS = 900
_FEWEST = 2


class FilmMode(Mode):
    """Frames that run, or are walked through by the arrows."""

    name = "film"

    def __init__(self, page: "CheckPage") -> None:
        super().__init__(page)
        self.view = PictureView("The painting's way")
        self.picture = self.view
        self.lay(self.view)
        self.at = 0
        self._asked: Asked[tuple[Picture, ...]] = Asked(
            page, "check.question:film_frames", lambda frames: sum(f.nbytes for f in frames)
        )
        self._runs = QTimer(self.widget)
        self._runs.setInterval(_EACH_MS)
        self._runs.timeout.connect(page.workroom.guard.guarded(self._next))

    def opened(self) -> None:
        self._asked.forget()
        self.at = 0
        self._runs.stop()

    def left(self) -> None:
        self._runs.stop()

    def why_not(self) -> str:
        photos = len(self.page.commission.check.photos)
        return "" if photos >= _FEWEST else "a film wants two photographs of the painting at least"

    @property
    def frames(self) -> tuple[Picture, ...]:
        """As far as they have come."""
        return self._asked.found or ()

    def refresh(self) -> Sheets:
        page, c = self.page, self.page.commission
        photos, size = c.check.photos, (c.compose.width_mm, c.compose.height_mm)
        wanted = (tuple((p.photo_id, p.corners) for p in photos), reference_key(c.compose), size)

        def arguments() -> tuple[Any, ...]:
            reference = page.workroom.references.for_print(c.compose, c.compose.canvas, px_per_mm_for(size), SILENT)
            return tuple(file_of(page.workroom, p) for p in photos), reference, size

        self._asked.want(photos[-1].photo_id, wanted, arguments)
        frames = self.frames
        if not frames:
            self.view.waiting = self._asked.trouble or "Straightening every photograph…"
            self.view.show_levels(None, size)
            return Sheets((Section("The film", (Note(self.view.waiting, "wrong" if self._asked.trouble else "plain"),)),))
        self.at = min(self.at, len(frames) - 1)
        self.view.show_levels(single_level(frames[self.at]), size)
        rows: list[Line] = [Fact(f"{'▸ ' if n == self.at else ''}{n + 1}", day_text(p.at.date())) for n, p in enumerate(photos)]
        running = self._runs.isActive()
        rows += [
            Press("Stop it" if running else "Run it (Space)", self.run_or_stop),
            Press("Frames as PNG…", self._save_frames),
            Press("Before and after…", self._save_both),
            Note("Every frame lies on the canvas's own millimetres, its light evened to the last: what jumps was painted."),
        ]
        act = NextAct("Save the film…", f"{counted(len(frames), 'photograph')}, animated WebP", self._save)
        return Sheets((Section("The film", tuple(rows)),), (), act, "Space runs it, ← → walk")

    def _next(self) -> None:
        if self.frames:
            self.at = (self.at + 1) % len(self.frames)
            self.page.refresh()

    def run_or_stop(self) -> Meaning:
        """Let it run, or stand."""
        if self._runs.isActive():
            self._runs.stop()
        else:
            self._runs.start()
        self.page.refresh()
        return None

    def _save(self) -> Meaning:
        frames = self.frames
        write(self.page, "The film of the painting", "film", ".webp", lambda _: film_of(frames))
        return None

    def _save_frames(self) -> Meaning:
        frames = self.frames

        def make(progress: Progress) -> Sequence[bytes]:
            return [png_of(f) for f in frames]

        save_frames(self.page, make)
        return None

    def _save_both(self) -> Meaning:
        first, last = self.frames[0], self.frames[-1]
        write(self.page, "Before and after", "before and after", ".jpg", lambda _: before_and_after(first, last))
        return None

    def key(self, event: QKeyEvent) -> bool:
        step = {Qt.Key.Key_Left: -1, Qt.Key.Key_Right: 1}.get(Qt.Key(event.key()))
        if not self.frames:
            return False
        if step is not None:
            self.at = (self.at + step) % len(self.frames)
            self.page.refresh()
        elif event.key() == Qt.Key.Key_Space:
            self.run_or_stop()
        else:
            return False
        return True
