"""What the house carries: large parts, many commissions, starts, geometry, walks and arrivals."""

import random
import statistics
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable, Iterator
from dataclasses import replace
from datetime import UTC, datetime, timedelta
from pathlib import Path

import numpy as np
import skimage.data
from PIL import Image
from PySide6.QtCore import QEventLoop, QTimer
from PySide6.QtWidgets import QApplication

from bench.figures import as_installed, figure
from yarrow_lane.commission.commission import PARTS as ALL_PARTS
from yarrow_lane.commission.commission import Commission
from yarrow_lane.compose.composition import Compose, Framed
from yarrow_lane.deliver.handover import Deliver
from yarrow_lane.desk.desk import Desk
from yarrow_lane.intake.brief import new_brief
from yarrow_lane.intake.photos import INTAKE, Eye, Intake, Photo, nudge_eye, set_use
from yarrow_lane.intake.rights import Rights
from yarrow_lane.lane.doors import DOORS
from yarrow_lane.lane.part import Edit
from yarrow_lane.layers.regions import LAYERS, Layers, Region
from yarrow_lane.measure.outlines import neighbours
from yarrow_lane.measure.plane import Rect
from yarrow_lane.start import give_back_large_memory
from yarrow_lane.store.codec import to_json
from yarrow_lane.store.store import Store
from yarrow_lane.tone.record import TONE
from yarrow_lane.transfer.record import TRANSFER, mark_drawn, set_count
from yarrow_lane.ui.theme.lettering import load_fonts
from yarrow_lane.ui.window import Window
from yarrow_lane.workers.pool import Workers

NOW = datetime.now(UTC).replace(microsecond=0)
TIMES = 15


def application() -> QApplication:
    give_back_large_memory()  # as the start does
    qt = QApplication.instance() or QApplication(["bench"])
    assert isinstance(qt, QApplication)
    load_fonts()
    return qt


def cpu(step: Callable[[], object]) -> float:
    """Processor seconds of this thread."""
    begin = time.thread_time()
    step()
    return time.thread_time() - begin


def blob(seed: int, corners: int, size: float = 120.0) -> tuple[tuple[float, float], ...]:
    """A wavy outline within 600 x 800 mm."""
    dice = np.random.default_rng(seed)
    angles = np.linspace(0, 2 * np.pi, corners, endpoint=False)
    reach = size / 2 * (0.8 + 0.15 * np.sin(5 * angles + dice.uniform(0, 6)) + dice.uniform(0, 0.05, corners))
    x, y = dice.uniform(size, 600 - size), dice.uniform(size, 800 - size)
    return tuple((float(a), float(b)) for a, b in np.c_[x + reach * np.cos(angles), y + reach * np.sin(angles)])


def photo_of(number: int, photo_id: str = "") -> Photo:
    eyes = (Eye("left", 400 + number, 500, 60), Eye("right", 900 + number, 500, 58))
    name = photo_id or f"{number:064x}"
    return Photo(name, f"photo {number:05}.jpg", 3000, 4000, NOW, eyes=eyes, use="helper", rights=Rights("client"))


# --- a large part beside a small edit


def beside_large_parts() -> Iterator[str]:
    qt = application()
    workers = Workers()
    spent: dict[str, tuple[float, float]] = {}
    size = 0
    with tempfile.TemporaryDirectory() as folder:
        store = Store(Path(folder) / "studio", NOW.date())
        desk = Desk(store, lambda: NOW)
        windows = {}
        for name in ("empty", "large"):
            windows[name] = desk.start_commission(new_brief(name, "cat", "", "acrylic", NOW.date(), None))
        regions = tuple(Region(n + 1, f"region {n}", "fur", (blob(n, 1000),)) for n in range(60))
        desk.do(windows["large"], Edit(LAYERS, "Drew", lambda _: Layers(regions, next_id=61)))
        size = len(to_json(LAYERS, desk.commission(windows["large"]).layers))
        window = Window(desk, workers)
        window.show()
        found: dict[str, list[tuple[float, float]]] = {"empty": [], "large": []}
        for n in range(TIMES):
            for name, commission_id in windows.items():
                window.open_door(commission_id, "Tone")
                qt.processEvents()
                edit = Edit(TONE, "Squint", lambda t, n=n: replace(t, squint_mm=5.0 + n))
                did = wall(lambda e=edit, i=commission_id: (desk.do(i, e), window.grab()))
                undid = wall(lambda i=commission_id: (desk.undo(i), window.grab()))
                desk.redo(commission_id)
                found[name].append((did, undid))
        for name, pairs in found.items():
            spent[name] = (statistics.median(p[0] for p in pairs), statistics.median(p[1] for p in pairs))
        window.end()
        workers.close()
        store.close()
    for n, (what, goal) in enumerate((("a Tone edit", 1.2), ("its undo", 1.5))):
        large, empty = spent["large"][n], spent["empty"][n]
        words = f"{what} beside {size / 1e6:.1f} MB of regions, stored and shown, over an empty commission"
        yield figure(words, large / empty, goal, f"x ({1000 * large:.0f} ms)")


def wall(step: Callable[[], object]) -> float:
    begin = time.perf_counter()
    step()
    return time.perf_counter() - begin


# --- growth of the file


def growth() -> Iterator[str]:
    with tempfile.TemporaryDirectory() as folder:
        store = Store(Path(folder) / "studio", NOW.date())
        moment = NOW
        desk = Desk(store, lambda: moment)
        cid = desk.start_commission(new_brief("Pip", "cat", "", "acrylic", NOW.date(), None))
        photos = tuple(photo_of(n) for n in range(300))
        desk.do(cid, Edit(INTAKE, "Took in 300", lambda _: Intake(photos)))
        path = Path(folder) / "studio" / "studio.db"

        def size() -> int:
            store.database._sql.execute("PRAGMA wal_checkpoint(TRUNCATE)")
            return path.stat().st_size

        begin = size()
        for n in range(300):
            moment += timedelta(seconds=5)
            use = "lead" if photos[n].use != "lead" else "helper"
            desk.do(cid, Edit(INTAKE, "Use", lambda i, n=n, use=use: set_use(i, photos[n].id, use)))
        yield figure("growth of the file per edit of a 300-photograph intake", (size() - begin) / 300 / 1000, 4, "kB")
        moment += timedelta(seconds=5)
        desk.do(cid, Edit(INTAKE, "Nudged", lambda i: nudge_eye(i, photos[9].id, "left", 1, 0), "nudge"))
        begin = size()
        for n in range(500):
            moment += timedelta(milliseconds=100)
            step = 1 if n % 7 else -3
            desk.do(cid, Edit(INTAKE, "Nudged", lambda i, d=step: nudge_eye(i, photos[9].id, "left", d, 0), "nudge"))
        yield figure("growth of the file per nudge of an eye", (size() - begin) / 500 / 1000, 0.02, "kB")
        store.close()


# --- many commissions


def filled(folder: Path, active: int, delivered: int, photos: int) -> None:
    """A studio of many commissions; `active` have regions and passes and stand at the easel."""
    store = Store(folder, NOW.date())
    desk = Desk(store, lambda: NOW)
    database = store.database
    outlines = [blob(n, 40, 90) for n in range(8)]
    rows, shelf = [], []
    for n in range(active + delivered):
        promised = NOW.date() + timedelta(days=20 + n) if n < active else NOW.date() - timedelta(days=n)
        c = Commission(f"c{n + 1:04d}", new_brief(f"Sitter {n}", "dog", f"Client {n}", "acrylic", NOW.date(), promised))
        kept = tuple(photo_of(n * photos + k) for k in range(photos))
        if kept:
            kept = (replace(kept[0], use="lead"), *kept[1:])
        compose = Compose(300, 400, "", Framed(kept[0].id, Rect(0, 0, 3000, 4000))) if kept else Compose(300, 400)
        c = replace(c, intake=Intake(kept), compose=compose)
        if n < active:
            regions = tuple(Region(k + 1, f"fur {k}", "fur", (outlines[k],)) for k in range(8))
            c = replace(c, layers=Layers(regions, next_id=9), transfer=set_count(c.transfer, 8))
        else:
            c = replace(c, deliver=Deliver(signed=NOW, delivered=NOW - timedelta(days=n)))
        rows.append((c.id, {p.name: to_json(p, getattr(c, p.name)) for p in ALL_PARTS}, f"Started {n}", "Intake"))
        shelf.append(c.id)
    database.append_several(rows, NOW)
    desk.do_studio("Filled", lambda s: replace(s, on_shelf=tuple(shelf)))
    store.close()


def one_edit(active: int, delivered: int) -> tuple[float, float]:
    """Processor seconds of standing and header after one edit that changes the plan, median; and of the first of all."""
    with tempfile.TemporaryDirectory() as folder:
        studio = Path(folder) / "studio"
        filled(studio, active, delivered, 3)
        store = Store(studio, NOW.date())
        desk = Desk(store, lambda: NOW)
        first = cpu(lambda: desk.standings.outlooks(NOW))
        spent = []
        for n in range(TIMES):
            cid = desk.studio.on_shelf[n * 7 % active]
            desk.do(cid, Edit(TRANSFER, "Drew", lambda t, n=n: mark_drawn(t, n % 8, n // 8, True)))
            spent.append(cpu(lambda i=cid: desk.standings.outlook(i, NOW)))
        store.close()
        return statistics.median(spent), first


def many() -> Iterator[str]:
    for active, delivered, goal in ((200, 0, 20), (200, 1800, 40), (2000, 0, 40)):
        found, first = one_edit(active, delivered)
        words = f"standing and header of one edit, {active} at the easel and {delivered} delivered"
        yield figure(words, 1000 * found, goal, f"ms CPU (all of them anew: {first:.1f} s)")


START = """
import gc
gc.disable()  # as yarrow_lane.start does
import yarrow_lane.desk.desk  # as it does too
import sys, time
begin = time.process_time()
from datetime import UTC, datetime
from pathlib import Path
from PySide6.QtWidgets import QApplication
from yarrow_lane.ui.main import Application
from yarrow_lane.ui.theme.lettering import load_fonts
qt = QApplication([])
qt.setStyle("Fusion")
load_fonts()
application = Application(Path(sys.argv[1]))
application.start()
application.window.grab()
# VmHWM, not ru_maxrss: that one remembers the process that started this one.
most = next(l for l in Path("/proc/self/status").read_text().splitlines() if l.startswith("VmHWM")).split()[1]
print("painted", int(most) / 1000, time.process_time() - begin, flush=True)
application.close()
"""


def started(studio: Path, compiled: Path) -> tuple[float, float, float]:
    """Seconds from the start of a process to its first painted window, its most memory in MB, and its processor seconds."""
    begin = time.perf_counter()
    process = subprocess.Popen(
        [sys.executable, "-c", START, str(studio)],
        stdout=subprocess.PIPE,
        stderr=subprocess.DEVNULL,
        text=True,
        env=as_installed(compiled),
    )
    assert process.stdout is not None
    words = process.stdout.readline().split()
    found = time.perf_counter() - begin
    process.wait()
    return found, float(words[1]), float(words[2])


def starting() -> Iterator[str]:
    with tempfile.TemporaryDirectory() as folder:
        empty, full, compiled = (Path(folder) / name for name in ("empty", "full", "compiled"))
        filled(full, 200, 1800, 10)
        for studio in (empty, full):
            started(studio, compiled)  # the first start compiles the sources and keeps the standings
        pairs = [(started(empty, compiled), started(full, compiled)) for _ in range(5)]
        more = statistics.median(f[0] - e[0] for e, f in pairs)
        yield figure("first window with 2,000 commissions and 20,000 photographs, over an empty studio", more, 0.5, "s more")
        yield figure("its memory", statistics.median(f[1] for _, f in pairs), 350, "MB")
        yield figure("start to first window, empty studio", statistics.median(e[0] for e, _ in pairs), 1.0, "s")
        yield figure("the same in processor time", statistics.median(e[2] for e, _ in pairs), 1.0, "s CPU")


# --- geometry


def geometry() -> Iterator[str]:
    outlines = [blob(n, 200) for n in range(60)]
    neighbours(outlines[:2])
    spent = statistics.median(cpu(lambda: neighbours(outlines)) for _ in range(5))
    yield figure("neighbours of 60 regions of 200 points", 1000 * spent, 50, "ms CPU")


# --- walks and arrivals


def settle(qt: QApplication, window: Window, seconds: float) -> bool:
    """Let everything arrive; whether it did in time."""
    end = time.monotonic() + seconds
    while window.threads.busy and time.monotonic() < end:
        qt.processEvents(QEventLoop.ProcessEventsFlag.AllEvents, 50)
    qt.processEvents()
    return not window.threads.busy


def walks() -> Iterator[str]:
    """200 walks: a door is opened, left while it loads, come back to; every picture must arrive."""
    qt = application()
    workers = Workers()
    dice = random.Random(7)
    waiting = 0
    with tempfile.TemporaryDirectory() as folder:
        from yarrow_lane.demo.build import build_demo

        studio = Path(folder) / "studio"
        build_demo(studio, NOW)
        store = Store(studio, NOW.date())
        desk = Desk(store, lambda: NOW)
        window = Window(desk, workers)
        window.show()
        shown = [i for i in desk.studio.on_shelf if desk.commission(i).compose.framed]
        for _ in range(200):
            window.workroom.derived._kept.clear()
            window.workroom.derived._bytes = 0
            commission_id = dice.choice(shown)
            for _ in range(dice.randint(2, 4)):
                window.open_door(dice.choice(shown), dice.choice(DOORS[1:]))
                end = QEventLoop()
                QTimer.singleShot(dice.choice((0, 1, 5, 20, 60)), end.quit)
                end.exec()
            window.open_door(commission_id, dice.choice(DOORS[1:]))
            settle(qt, window, 30)
            picture = window.current.picture
            waiting += picture is None or picture.levels is None
        window.end()
        store.close()
    workers.close()
    yield figure("of 200 random walks over doors, those whose picture never came", waiting, 0, "")


def theme_in_the_middle() -> Iterator[str]:
    """300 photographs arrive; the theme changes while they do."""
    qt = application()
    workers = Workers()
    with tempfile.TemporaryDirectory() as folder:
        files = []
        cat = skimage.data.cat()
        for n in range(300):
            files.append(Path(folder) / f"photo-{n:03}.jpg")
            Image.fromarray(np.roll(cat, n, axis=1)).save(files[-1], quality=80)
        store = Store(Path(folder) / "studio", NOW.date())
        desk = Desk(store, lambda: NOW)
        cid = desk.start_commission(new_brief("Pip", "cat", "", "acrylic", NOW.date(), None))
        window = Window(desk, workers)
        window.show()
        window.open_door(cid, "Intake")
        window.take_files(files)
        for n in range(4):
            end = time.monotonic() + 1.5
            while time.monotonic() < end:
                qt.processEvents(QEventLoop.ProcessEventsFlag.AllEvents, 50)
            desk.do_studio("Theme", lambda s, n=n: replace(s, evening=n % 2 == 0))
        end = time.monotonic() + 120
        while window.workroom.arrivals.under_way and time.monotonic() < end:
            qt.processEvents(QEventLoop.ProcessEventsFlag.AllEvents, 50)
        lost = 300 - len(desk.commission(cid).intake.photos)
        window.end()
        store.close()
    workers.close()
    yield figure("of 300 arrivals, those lost when the theme changed in the middle", lost, 0, "")


def measure() -> Iterator[str]:
    for what in (beside_large_parts, growth, many, starting, geometry, walks, theme_in_the_middle):
        yield from what()
