"""The window while colours are looked for: the demo's person at Tone and Palette, every way of looking and working walked through."""

import gc
import tempfile
from collections.abc import Callable, Iterator
from datetime import UTC, datetime
from functools import partial
from pathlib import Path

import numpy as np
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


def _tone(window: Window) -> Iterator[Callable[[], object]]:
    """Every way of looking, and seven values."""
    page = window.current
    for look in ("squint", "reserves", "warm and cool", "the ground", "values"):
        yield partial(page.show_look, look)
    yield lambda: page.hand(lambda: page.choose_count(7))


def _palette(window: Window) -> Iterator[Callable[[], object]]:
    """The string taken, every well looked at, every way of working."""
    page = window.current
    yield window.act
    for well in page.commission.palette.wells:
        yield partial(page.select, well.id)
    for name in page.modes:
        yield partial(page.work_on, name)


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
        opening, working, pauses = [], [], []
        for door, ways in (("Tone", _tone), ("Palette", _palette)):
            watch = Watch()
            window.open_door(person, door)
            wait_until_idle(window)
            watch.stop()
            opening.append(max(watch.worked))
            watch = Watch()
            for way in ways(window):
                way()
                wait_until_idle(window)
            watch.stop()
            working += watch.worked
            pauses.append(max(watch.gaps))
        share = float((np.array(working) <= 50).mean())
        yield figure(
            f"window: its own work between two beats of {len(working)}, at most ({100 * share:.1f} % within)",
            max(working),
            50,
            "ms CPU",
        )
        yield figure("window: longest pause, with all threads on two cores", max(pauses), 50, "ms")
        yield figure("window: a room opened, its own work", max(opening), 50, "ms CPU")
        window.end()
        workers.close()
        store.close()
