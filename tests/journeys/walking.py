"""A painter who follows the yellow field: it must say what Enter does, and Enter must do it."""

from datetime import timedelta

import cv2
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication

from tests.journeys.hands import fill, keys, reference
from yarrow_lane.compose.reference import reference_key
from yarrow_lane.standins.easel_photo import photograph_by_stand_in
from yarrow_lane.tone.grounds import ground_srgb

ENTER, SPACE, ESC = Qt.Key.Key_Return, Qt.Key.Key_Space, Qt.Key.Key_Escape


class Walk:
    """On one window, with the test's own clock."""

    def __init__(self, qtbot, window, wait_idle, clock, folder) -> None:
        self.qtbot, self.window, self.wait_idle, self.clock, self.folder = qtbot, window, wait_idle, clock, folder

    @property
    def c(self):
        return self.window.desk.commission(self.window.commission_id)

    @property
    def page(self):
        return self.window.current

    @property
    def act(self) -> str:
        return self.page.bench.sheet.act.title

    @property
    def detail(self) -> str:
        return self.page.bench.sheet.act.detail

    def settle(self) -> None:
        self.wait_idle(self.window)
        self.page.refresh()
        if self.window.threads.busy:  # what came asked for more
            self.wait_idle(self.window)

    def fill(self, label: str, value, nth: int = 0) -> None:
        fill(self.qtbot, self.page, label, value, nth)
        self.settle()

    def click(self, label: str, nth: int = 0) -> None:
        """A button or a tick of the bench."""
        self.page.bench.line(label, nth).click()
        self.settle()

    def label(self, begins: str) -> str:
        """The whole label of the first line that begins so."""
        labels = [getattr(line, "label", "") for section in self.page.bench.sheet.sections for line in section.lines]
        return next(label for label in labels if label.startswith(begins))

    def decision(self, section: str) -> str:
        """What a folded section says beside its name."""
        return next(s.decision for s in self.page.bench.sheet.sections if s.title == section)

    @property
    def worry(self) -> str:
        """What the header says beneath the promise."""
        return self.window.desk.standings.of(self.window.commission_id, self.clock()).worry

    def look_at(self, words: str) -> None:
        """One of the buttons above the table."""
        self.page.choices.button(words).click()
        self.settle()

    def enter(self, expected: str = "") -> None:
        """Press Enter where the yellow field says what was expected."""
        assert self.act.startswith(expected), (self.act, self.detail)
        self.page.setFocus()
        keys(self.qtbot, self.window, ENTER)
        for full in QApplication.topLevelWidgets():  # what covers the whole screen ends with Esc
            if full is not self.window and full.isVisible() and full.isFullScreen():
                QTest.keyClick(full, ESC)
        self.settle()

    def through(self, *titles: str) -> None:
        """Enter after Enter; each title is what the yellow field must begin with."""
        for title in titles:
            self.enter(title)

    def go_on(self, door: str) -> None:
        """Through to the next door: the one before is shut, and nothing is said to rest on what has changed since."""
        before = self.window.door
        self.enter(f"Go on to {door}")
        assert self.window.door == door
        assert self.door(before).state == "shut", before
        self.nothing_stale()

    def door(self, name: str):
        standing = self.window.desk.standings.of(self.window.commission_id, self.clock())
        return next(d for d in standing.doors if d.name == name)

    def nothing_stale(self) -> None:
        key = reference_key(self.c.compose)
        made = {
            p: getattr(getattr(self.c, p), "made_from", "") for p in ("transfer", "tone", "palette", "layers", "easel", "check")
        }
        assert all(m in ("", key) for m in made.values()), (key, made)

    # --- the easel, Check and the way out

    def paint_all(self, minutes: float) -> int:
        """Every pass over dry paint, the clock started and stopped by hand; how many there were."""
        painted = 0
        while self.page.view.paint is not None:
            if self.act == "Back to the studio":  # everything that could be painted is wet beneath
                self.clock.now += timedelta(minutes=30)
                self.page.refresh()
                continue
            self.enter("Paint")
            assert self.page.view.running
            self.clock.now += timedelta(minutes=minutes)
            self.enter("Finish")
            painted += 1
        return painted

    def photograph(self, number: int) -> None:
        """The painting as the stand-in hand has it by now, photographed askew; dropped on the window, its corners agreed to."""
        compose = self.c.compose
        size = compose.width_mm, compose.height_mm
        seen = cv2.resize(reference(self.window), (round(2.5 * size[0]), round(2.5 * size[1])), interpolation=cv2.INTER_AREA)
        path = self.folder / f"on the easel {number}.jpg"
        path.write_bytes(photograph_by_stand_in(size, ground_srgb(self.c.tone.ground), seen, number))
        before = len(self.c.check.photos)
        self.window.take_files([path])
        self.qtbot.waitUntil(lambda: len(self.c.check.photos) == before + 1, timeout=30_000)
        self.settle()
        self.enter("Measure it")
        self.qtbot.waitUntil(lambda: self.page.measuring.told() is not None, timeout=90_000)
        self.settle()

    def deliver(self) -> None:
        """Everything that is left, each thing once its wait is over."""
        for _ in range(60):
            if self.c.deliver.delivered is not None:
                return
            if self.act == "Back to the studio":
                self.clock.now += timedelta(hours=12)
                self.page.refresh()
                self.settle()
            else:
                self.enter()
        raise AssertionError(f"It is not delivered: {self.act}, {self.detail}")
