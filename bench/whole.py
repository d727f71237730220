"""The whole: what an idle window costs at each door, whether a long day leaves anything behind, the size of what is installed.

Starts are `bench start`'s and those with 20,000 photographs `bench house`'s own; they are run again here, so that one run tells all.
"""

import gc
import os
import random
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from datetime import datetime, timedelta
from functools import partial
from pathlib import Path

from PySide6.QtCore import QEventLoop, QObject, Qt, QTimer
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication

from bench import start
from bench.figures import figure
from bench.house import NOW, application, settle, starting
from yarrow_lane.demo.build import build_demo
from yarrow_lane.demo.scene import SetClock
from yarrow_lane.desk.desk import Desk
from yarrow_lane.lane.doors import DOORS
from yarrow_lane.store.store import Store
from yarrow_lane.ui.window import Window
from yarrow_lane.workers.pool import Workers

_IDLE_S, _RESTS_S, _NO_WORK_S = 8.0, 30.0, 0.005
_NEXT_TIDYING_MS = 60_000  # beyond it the tidying is over for now
# Eight hours of hands: one deed in ten seconds, common enough between strokes of a brush (our choice).
_DEEDS, _WARM, _EACH_S = 2880, 480, 10


def _resident_mb() -> float:
    pages = int(Path("/proc/self/statm").read_text().split()[1])
    return pages * os.sysconf("SC_PAGE_SIZE") / 1e6


def _wait(seconds: float) -> None:
    end = QEventLoop()
    QTimer.singleShot(int(1000 * seconds), end.quit)
    end.exec()


@contextmanager
def _on_the_demo(clock: Callable[[], datetime]) -> Iterator[tuple[QApplication, Window, Path]]:
    """The real window on a demo of its own, everything put away afterwards."""
    qt, workers = application(), Workers()
    with tempfile.TemporaryDirectory() as folder:
        studio = Path(folder) / "studio"
        build_demo(studio, NOW)
        store = Store(studio, NOW.date())
        window = Window(Desk(store, clock), workers)
        window.resize(1280, 800)
        window.show()
        yield qt, window, studio
        window.end()
        store.close()
    workers.close()


def _used(seconds: float) -> float:
    """Processor seconds of this process while so much time passes."""
    before = time.process_time()
    _wait(seconds)
    return time.process_time() - before


def _idle(qt: QApplication, window: Window, go: Callable[[], object]) -> float:
    """Share of one core while nothing is done, after everything that was asked for has come.

    Pictures are made one after the other, with moments between: waited for are three seconds without work, at most half a minute.
    """
    go()
    settle(qt, window, 60)
    quiet, begun = 0, time.monotonic()
    while quiet < 3 and time.monotonic() < begun + _RESTS_S:
        quiet = quiet + 1 if _used(1.0) < _NO_WORK_S else 0
    return _used(_IDLE_S) / _IDLE_S


def idle() -> Iterator[str]:
    """At the shelf, the books and the nine doors of a commission at the easel."""
    with _on_the_demo(lambda: NOW) as (qt, window, _):
        while window.workroom._tidy.interval() < _NEXT_TIDYING_MS:  # what an idle quarter of a minute after the start is for
            _wait(1.0)
        cid = window.desk.studio.on_shelf[1]
        places: dict[str, Callable[[], object]] = {
            "the shelf": window.open_studio,
            "the books": lambda: window.open_hall("books"),
        }
        places |= {door: partial(window.open_door, cid, door) for door in DOORS}
        found = {where: _idle(qt, window, go) for where, go in places.items()}
        at = max(found, key=lambda where: found[where])
        yield figure(f"an idle window at its worst place of {len(found)}, {at}", 100 * found[at], 1.0, "% of a core")
        yield figure("an idle window, mean of them", 100 * sum(found.values()) / len(found), 0.3, "% of a core")


class _Day:
    """One painter's hands: doors and halls, arrows, zoom, a nudge and its undo; a clock that runs with them."""

    def __init__(self, window: Window, clock: SetClock, dice: random.Random) -> None:
        self.window, self.clock, self.dice = window, clock, dice
        self.shelf = window.desk.studio.on_shelf

    def deeds(self, count: int) -> None:
        """One after the other from a running event loop: only that one takes away what is to be deleted later."""
        loop, timer, left = QEventLoop(), QTimer(), [count]

        def next_one() -> None:
            self.deed()
            left[0] -= 1
            if left[0] <= 0:
                loop.quit()

        timer.timeout.connect(next_one)
        timer.start(5)
        loop.exec()
        timer.stop()

    def deed(self) -> None:
        window, dice = self.window, self.dice
        self.clock.now += timedelta(seconds=_EACH_S)
        match dice.randrange(6):
            case 0:
                window.open_door(dice.choice(self.shelf), dice.choice(DOORS))
            case 1:
                window.open_studio()
            case 2:
                window.open_hall("books")
            case 3:
                if window.commission_id and window.door == "Compose":
                    QTest.keyClick(window, Qt.Key.Key_Right)
                    QTest.keyClick(window, Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier)
            case 4:
                QTest.keyClick(window, dice.choice((Qt.Key.Key_Down, Qt.Key.Key_Up, Qt.Key.Key_Left, Qt.Key.Key_Plus)))
            case _:
                window.current.refresh()


def day() -> Iterator[str]:
    """Memory, objects and widgets after the first hour and a bit, and after eight."""
    clock = SetClock(NOW)
    with _on_the_demo(clock) as (qt, window, studio):
        hands = _Day(window, clock, random.Random(16))
        for cid in hands.shelf:
            for door in DOORS:
                window.open_door(cid, door)
                settle(qt, window, 60)

        def now() -> tuple[float, int, int, float]:
            settle(qt, window, 60)
            _wait(1.0)
            gc.collect()
            size = sum(f.stat().st_size for f in studio.glob("studio.db*")) / 1e6
            return _resident_mb(), len(window.findChildren(QObject)), len(qt.allWidgets()), size

        hands.deeds(_WARM)
        first = now()
        hands.deeds(_DEEDS - _WARM)
        more = [b - a for a, b in zip(first, now(), strict=True)]
        yield figure("memory more after eight hours of hands than after the first 80 minutes", more[0], 40, "MB")
        yield figure("objects more in the window", more[1], 200, "")
        yield figure("widgets more", more[2], 60, "")
        yield figure("the studio's file larger", more[3], 5, "MB")


def wheel() -> Iterator[str]:
    """What is downloaded to install it."""
    top = Path(__file__).parents[1]
    with tempfile.TemporaryDirectory() as folder:
        command = [sys.executable, "-m", "pip", "wheel", "-q", "--no-deps", "-w", folder, str(top)]
        subprocess.run(command, check=True, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL)
        (made,) = Path(folder).glob("*.whl")
        yield figure("the wheel", made.stat().st_size / 1e6, 40, "MB")


def measure() -> Iterator[str]:
    for what in (wheel, start.measure, starting, idle, day):
        yield from what()
