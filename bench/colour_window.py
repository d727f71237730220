"""The window while colours are looked for: the demo's person at Tone and Palette, every way of looking and working walked through."""

import gc
import tempfile
from collections.abc import Iterator
from datetime import UTC, datetime
from pathlib import Path

from PySide6.QtWidgets import QApplication

from bench.figures import figure
from bench.intake import Watch, wait_until_idle
from yarrow_lane.demo.build import build_demo
from yarrow_lane.demo.scene import SetClock
from yarrow_lane.desk.desk import Desk
from yarrow_lane.store.store import Store
from yarrow_lane.ui.theme.lettering import load_fonts
from yarrow_lane.ui.window import Window
from yarrow_lane.workers.pool import Workers

DAY = datetime(2026, 11, 24, 9, 40, tzinfo=UTC)


def longest_block() -> Iterator[str]:
    """The interface thread's own work between two beats, and the longest pause beside it."""
    qt = QApplication.instance() or QApplication(["bench"])
    load_fonts()
    with tempfile.TemporaryDirectory() as folder:
        build_demo(Path(folder) / "studio", DAY)
        store, workers = Store(Path(folder) / "studio", DAY.date()), Workers()
        window = Window(Desk(store, SetClock(DAY)), workers)
        window.resize(1280, 800)
        window.show()
        person = window.desk.studio.on_shelf[2]
        for door in ("Tone", "Palette"):
            window.open_door(person, door)  # a room is built once: what it costs is the start's
            qt.processEvents()
        window.open_studio()
        wait_until_idle(window)
        gc.freeze()  # as `ui.main` does
        watch = Watch()
        window.open_door(person, "Tone")
        page = window.current
        for look in ("values", "squint", "reserves", "warm and cool", "the ground"):
            page.show_look(look)
            wait_until_idle(window)
        page.hand(lambda: page.choose_count(7))
        page.show_look("values")
        wait_until_idle(window)
        window.open_door(person, "Palette")
        page = window.current
        wait_until_idle(window)
        window.act()
        wait_until_idle(window)
        for well in page.wells:
            page.select(well.id)
            wait_until_idle(window)
        for name in page.modes:
            page.work_on(name)
            wait_until_idle(window)
        watch.stop()
        yield figure("window: its own work between two beats, at most", max(watch.worked), 50, "ms CPU")
        yield figure("window: longest pause, with all threads on two cores", max(watch.gaps), 50, "ms")
        window.end()
        workers.close()
        store.close()
