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
from PySide6.QtGui import QColor, QImage, QPainter
from PySide6.QtWidgets import QApplication

from yarrow_lane.desk.desk import Desk
from yarrow_lane.intake.brief import new_brief
from yarrow_lane.intake.photos import add_photo
from yarrow_lane.store.store import Store
from yarrow_lane.ui.kit.levels import Levels, make_levels
from yarrow_lane.ui.kit.photo_view import PhotoView
from yarrow_lane.ui.rooms.intake.page import IntakePage
from yarrow_lane.ui.theme.lettering import load_fonts
from yarrow_lane.ui.window import Window

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


class GridView(PhotoView):
    """The picture with a lattice of 8 x 12 over it."""

    def paint_over(self, painter: QPainter) -> None:
        painter.setPen(QColor("white"))
        for n in range(13):
            painter.drawLine(self.to_screen((WIDTH * n / 12, 0)), self.to_screen((WIDTH * n / 12, HEIGHT)))
        for n in range(9):
            painter.drawLine(self.to_screen((0, HEIGHT * n / 8)), self.to_screen((WIDTH, HEIGHT * n / 8)))


def open_seconds(window: Window, commission_id: str, photo_id: str) -> tuple[float, float]:
    """Seconds to the first picture on the screen, and to the whole photograph."""
    page = window.page("Intake")
    window.pictures._kept.clear()
    window.open_door(commission_id, "Intake")
    page._shown_id = ""
    page.eyes.levels = None
    page.eyes.marks = []
    begin = time.perf_counter()
    page.look_closer(photo_id)
    waiting = QEventLoop()
    window.jobs.idle.connect(waiting.quit)
    waiting.exec()
    return page.eyes.marks[0] - begin, page.eyes.marks[-1] - begin


def note_paintings(page: IntakePage) -> None:
    """Note the moment each picture has been painted."""
    show = page.eyes.show_levels

    def noted(levels: Levels | None, content: tuple[float, float]) -> None:
        show(levels, content)
        if levels is not None:
            page.eyes.grab()
            page.eyes.marks.append(time.perf_counter())

    page.eyes.show_levels = noted


def frames(view: PhotoView) -> list[float]:
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
        photo = desk.photo_from_file(path, "large.jpg")
        desk.do_part(commission_id, "in", "intake", lambda i: add_photo(i, photo))
        window = Window(desk)
        window.show()
        note_paintings(window.page("Intake"))
        pairs = []
        for _ in range(TIMES):  # side by side, so that a busy machine slows both
            bare = decode_seconds(path)
            pairs.append((bare, *open_seconds(window, commission_id, photo.id)))
        bare, first, whole = (statistics.median(p[n] for p in pairs) for n in range(3))
        yield f"24 MP JPEG, bare decode {bare * 1000:.0f} ms; first picture on screen {first * 1000:.0f} ms: ratio {first / bare:.2f} (goal 1.5)"
        yield f"the whole photograph with its levels on screen {whole * 1000:.0f} ms: ratio {whole / bare:.2f}"
        window.close()
        store.close()
        view = GridView()
        view.resize(1280, 800)
        with Image.open(path) as image:
            view.show_levels(make_levels(np.asarray(image)), (WIDTH, HEIGHT))
        found = frames(view)
        yield f"pan and zoom with grid at 1280x800: median {np.median(found):.1f} ms, 95th percentile {np.percentile(found, 95):.1f} ms (goal 16)"
