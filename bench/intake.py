"""Judging a 24-megapixel photograph, and three hundred photographs of 12 megapixels arriving at once."""

import gc
import os
import statistics
import tempfile
import threading
import time
from collections.abc import Callable, Iterator
from datetime import UTC, datetime
from pathlib import Path

import cv2
import numpy as np
import skimage.data
from PIL import Image
from PySide6.QtCore import QEventLoop, QTimer
from PySide6.QtWidgets import QApplication

from bench.figures import figure
from bench.pictures import decode_seconds, large_jpeg
from yarrow_lane.desk.desk import Desk
from yarrow_lane.intake.brief import new_brief
from yarrow_lane.intake.evidence import measure_photo
from yarrow_lane.intake.opening import open_picture
from yarrow_lane.intake.photos import Eye
from yarrow_lane.store.store import Store
from yarrow_lane.ui.theme.lettering import load_fonts
from yarrow_lane.ui.window import Window
from yarrow_lane.workers.pool import Workers

MANY = 300
SHOTS = 60  # different pictures; each comes as several files of its own content
BEAT_MS = 5
TIMES = 5


def judging() -> Iterator[str]:
    """One core: OpenCV is kept to one thread."""
    threads = cv2.getNumThreads()
    cv2.setNumThreads(1)
    with tempfile.TemporaryDirectory() as folder:
        path = large_jpeg(Path(folder) / "large.jpg")
        picture = open_picture(path, "large.jpg").picture
        ratio = picture.shape[1] / 512
        eyes = (Eye("left", 204 * ratio, 101.5 * ratio, 3.4 * ratio), Eye("right", 246.5 * ratio, 103.6 * ratio, 3.4 * ratio))
        pairs = []
        for _ in range(TIMES):
            bare = decode_seconds(path)
            begin = time.perf_counter()
            measure_photo(picture, eyes)
            pairs.append((bare, time.perf_counter() - begin))
    cv2.setNumThreads(threads)
    bare, found = (statistics.median(p[n] for p in pairs) for n in range(2))
    yield figure(f"all measures of a 24 MP photograph on one core ({found / bare:.1f} x its bare decode)", found, 1.5, "s")


def many_files(folder: Path) -> list[Path]:
    """Real pictures enlarged to 4000 x 3000, each cut differently; copies differ in their last bytes alone."""
    dice = np.random.default_rng(5)
    sources = [skimage.data.astronaut(), skimage.data.cat(), skimage.data.coffee(), skimage.data.rocket()]
    paths = []
    for shot in range(SHOTS):
        source = sources[shot % len(sources)]
        h, w = source.shape[:2]
        side = int(min(h, w) * dice.uniform(0.5, 0.95))
        y, x = int(dice.uniform(0, h - side)), int(dice.uniform(0, w - side))
        cut = source[y : y + side, x : x + int(side * 0.9)]
        picture = cv2.resize(cut, (4000, 3000), interpolation=cv2.INTER_CUBIC)
        grain = dice.normal(0, 5, (3000, 4000, 1)).astype(np.float32)
        whole = np.clip(picture + grain, 0, 255).astype(np.uint8)
        path = folder / f"shot-{shot:03}.jpg"
        Image.fromarray(whole).save(path, quality=85)
        data = path.read_bytes()
        for copy in range(MANY // SHOTS):
            paths.append(folder / f"photo-{shot:03}-{copy}.jpg")
            paths[-1].write_bytes(data + bytes([copy]))
        path.unlink()
    return paths


def resident_mb() -> float:
    """Of this process and those it started: the photographs are measured in one of its own."""
    mine = str(os.getpid())
    pages = 0
    for place in Path("/proc").glob("[0-9]*"):
        try:
            if place.name == mine or (place / "stat").read_text("ascii", "replace").rsplit(")", 1)[1].split()[1] == mine:
                pages += int((place / "statm").read_text("ascii").split()[1])
        except OSError:
            continue  # it ended while we looked
    return pages * os.sysconf("SC_PAGE_SIZE") / 1e6


class Watch:
    """Gaps between the beats of the event loop, what the interface thread itself worked in each, and the most memory."""

    def __init__(self) -> None:
        self.gaps: list[float] = []
        self.worked: list[float] = []
        self.most_mb = 0.0
        self._last, self._spent = time.perf_counter(), time.thread_time()
        self._timer = QTimer()
        self._timer.setInterval(BEAT_MS)
        self._timer.timeout.connect(self._beat)
        self._timer.start()
        self._over = threading.Event()
        self._weigher = threading.Thread(target=self._weigh, daemon=True)
        self._weigher.start()

    def _beat(self) -> None:
        now, spent = time.perf_counter(), time.thread_time()
        self.gaps.append(1000 * (now - self._last) - BEAT_MS)
        self.worked.append(1000 * (spent - self._spent))
        self._last, self._spent = now, spent

    def _weigh(self) -> None:
        while not self._over.wait(0.05):
            self.most_mb = max(self.most_mb, resident_mb())

    def stop(self) -> str:
        """What was seen, in words."""
        self._timer.stop()
        self._over.set()
        self._weigher.join()
        gaps = np.array(self.gaps)
        return f"longest pause {gaps.max():.0f} ms, 99th percentile {np.percentile(gaps, 99):.0f} ms"


def pauses_beside(work: Callable[[threading.Event], None] | None, seconds: float) -> str:
    """The pauses of a bare event loop, alone or beside two threads that do `work`: what this machine does by itself."""
    over = threading.Event()
    threads = [threading.Thread(target=work, args=(over,), daemon=True) for _ in range(2)] if work else []
    for thread in threads:
        thread.start()
    watch, end = Watch(), QEventLoop()
    QTimer.singleShot(int(1000 * seconds), end.quit)
    end.exec()
    words = watch.stop()
    over.set()
    for thread in threads:
        thread.join()
    return words


def wait_until_idle(window: Window) -> None:
    for _ in range(2):  # what has just arrived may still ask for its measures
        if window.threads.busy:
            waiting = QEventLoop()
            window.threads.idle.connect(waiting.quit)
            waiting.exec()
        end = QEventLoop()
        QTimer.singleShot(500, end.quit)
        end.exec()


def crowd() -> Iterator[str]:
    qt = QApplication.instance() or QApplication(["bench"])
    assert isinstance(qt, QApplication)
    load_fonts()
    with tempfile.TemporaryDirectory() as folder:
        files = many_files(Path(folder))
        now = datetime.now(UTC)
        store = Store(Path(folder) / "studio", now.date())
        desk = Desk(store, lambda: now)
        commission_id = desk.start_commission(new_brief("Pip", "cat", "", "acrylic", now.date(), None))
        workers = Workers()
        window = Window(desk, workers)
        window.show()
        window.open_door(commission_id, "Intake")
        wait_until_idle(window)
        empty = resident_mb()
        gc.freeze()  # as `ui.main` does

        def decode(over: threading.Event) -> None:
            while not over.is_set():
                decode_seconds(files[0])

        yield f"a bare event loop with nothing under way: {pauses_beside(None, 5)}"
        yield f"a bare event loop beside two threads that only decode with Pillow: {pauses_beside(decode, 20)}"
        begin = time.perf_counter()
        watch = Watch()
        window.take_files(files)
        while len(desk.commission(commission_id).intake.photos) < MANY:
            qt.processEvents(QEventLoop.ProcessEventsFlag.WaitForMoreEvents)
        arrived = time.perf_counter() - begin
        wait_until_idle(window)
        judged = time.perf_counter() - begin
        page = window.page("Intake")
        for n in range(60):  # and the painter walks through them meanwhile
            page.grid.setFocus()
            page.select(desk.commission(commission_id).intake.photos[n * MANY // 60].id)
            qt.processEvents()
        watch.stop()
        yield f"{MANY} photographs of 12 MP: in after {arrived:.0f} s, all judged after {judged:.0f} s"
        yield figure(
            f"meanwhile the window's longest pause (99th percentile {np.percentile(watch.gaps, 99):.0f} ms)",
            max(watch.gaps),
            100,
            "ms",
        )
        yield f"longest work of the interface thread itself between two beats: {max(watch.worked):.0f} ms of processor time"
        yield figure(f"most memory of all its processes ({empty:.0f} MB before)", watch.most_mb, 800, "MB")
        window.end()
        store.close()
        workers.close()


def measure() -> Iterator[str]:
    yield from judging()
    yield from crowd()
