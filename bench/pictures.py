"""A 24-megapixel JPEG: time to the first picture against a bare decode; pan and zoom with a grid."""

import statistics
import tempfile
import time
from collections.abc import Iterator
from datetime import UTC, datetime
from pathlib import Path

import cv2
import numpy as np
import skimage.data
from PIL import Image
from PySide6.QtCore import QEventLoop, QPointF
from PySide6.QtGui import QImage
from PySide6.QtWidgets import QApplication

from bench.figures import figure
from yarrow_lane.desk.desk import Desk
from yarrow_lane.desk.photographs import Photographs, in_a_worker
from yarrow_lane.intake.brief import new_brief
from yarrow_lane.intake.photos import INTAKE, add_photo
from yarrow_lane.lane.part import Edit
from yarrow_lane.measure.plane import Rect
from yarrow_lane.store.store import Store
from yarrow_lane.ui.kit.levels import Levels, make_levels
from yarrow_lane.ui.kit.overlays import Lattice
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.rooms.intake.page import IntakePage
from yarrow_lane.ui.theme.lettering import load_fonts
from yarrow_lane.ui.window import Window
from yarrow_lane.workers.pool import Workers

WIDTH, HEIGHT = 6000, 4000
TIMES = 7
FRAMES = 240


def large_jpeg(path: Path) -> Path:
    """A real picture enlarged to 24 megapixels, with grain, so that it costs what a photograph costs."""
    picture = cv2.resize(skimage.data.astronaut(), (WIDTH, HEIGHT), interpolation=cv2.INTER_CUBIC)
    grain = np.random.default_rng(1).normal(0, 6, picture.shape[:2])[..., None]
    Image.fromarray(np.clip(picture + grain, 0, 255).astype(np.uint8)).save(path, quality=92)
    return path


def decode_seconds(path: Path) -> float:
    begin = time.perf_counter()
    with Image.open(path) as image:
        image.load()
    return time.perf_counter() - begin


# The picture with a lattice of 8 x 12 over it.
LATTICE = Lattice(
    Rect(0, 0, WIDTH, HEIGHT), tuple(WIDTH * n / 12 for n in range(13)), tuple(HEIGHT * n / 8 for n in range(9))
)  # fmt: skip


def open_seconds(window: Window, commission_id: str, photo_id: str, painted: list[float]) -> tuple[float, float]:
    """Seconds to the first picture on the screen, and to the whole photograph."""
    page = window.page("Intake")
    assert isinstance(page, IntakePage)
    window.workroom.derived._kept.clear()
    window.workroom.derived._bytes = 0
    window.open_door(commission_id, "Intake")
    page.marking.forget()
    painted.clear()
    begin = time.perf_counter()
    page.look_closer(photo_id)
    waiting = QEventLoop()
    window.threads.idle.connect(waiting.quit)
    waiting.exec()
    return painted[0] - begin, painted[-1] - begin


def note_paintings(page: IntakePage) -> list[float]:
    """The moments at which a picture has been painted."""
    picture, painted = page.marking.picture, []
    show = picture.show_levels

    def noted(levels: Levels | None, content: tuple[float, float]) -> None:
        show(levels, content)
        if levels is not None:
            picture.grab()
            painted.append(time.perf_counter())

    picture.show_levels = noted
    return painted


def frames(view: PictureView) -> list[float]:
    """Milliseconds of each frame of a walk of zooms and pans."""
    image = QImage(view.size(), QImage.Format.Format_RGB32)
    dice = np.random.default_rng(2)
    found: list[float] = []
    for n in range(FRAMES):
        if n % 4 == 0:
            view.zoom(float(dice.choice([1.25, 0.8])), QPointF(*dice.uniform(0, 800, 2)))
        else:
            view.pan(QPointF(*dice.uniform(-60, 60, 2)))
        begin = time.perf_counter()
        view.render(image)
        found.append(1000 * (time.perf_counter() - begin))
    return found


def measure() -> Iterator[str]:
    qt = QApplication.instance() or QApplication(["bench"])
    assert isinstance(qt, QApplication)
    load_fonts()
    with tempfile.TemporaryDirectory() as folder:
        path = large_jpeg(Path(folder) / "large.jpg")
        now = datetime.now(UTC)
        store = Store(Path(folder) / "studio", now.date())
        desk = Desk(store, lambda: now)
        commission_id = desk.start_commission(new_brief("Pip", "cat", "", "acrylic", now.date(), None))
        workers = Workers()
        photo = Photographs(store.photos, in_a_worker(workers)).photo_from_file(path, "large.jpg")
        desk.do(commission_id, Edit(INTAKE, "in", lambda i: add_photo(i, photo)))
        window = Window(desk, workers)
        window.show()
        page = window.page("Intake")
        assert isinstance(page, IntakePage)
        painted = note_paintings(page)
        pairs = []
        for _ in range(TIMES):  # side by side, so that a busy machine slows both
            bare = decode_seconds(path)
            pairs.append((bare, *open_seconds(window, commission_id, photo.id, painted)))
        bare, first, whole = (statistics.median(p[n] for p in pairs) for n in range(3))
        yield figure(
            f"first picture of a 24 MP JPEG on the screen over its bare decode of {1000 * bare:.0f} ms", first / bare, 1.5, "x"
        )
        yield f"the whole photograph with its levels on screen {whole * 1000:.0f} ms: ratio {whole / bare:.2f}"
        window.end()
        store.close()
        workers.close()
        view = PictureView("the bench")
        view.show_overlays(LATTICE)
        view.resize(1280, 800)
        with Image.open(path) as image:
            view.show_levels(make_levels(np.asarray(image)), (WIDTH, HEIGHT))
        found = frames(view)
        yield figure("pan and zoom with a lattice at 1280x800, median", float(np.median(found)), 16, "ms")
        yield figure("the same, 95th percentile", float(np.percentile(found, 95)), 16, "ms")
