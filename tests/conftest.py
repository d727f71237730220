"""What all tests share: real pictures, a studio of its own, and a clock that is set."""

import io
import os
import shutil
import time
from datetime import UTC, datetime
from functools import lru_cache
from pathlib import Path

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

import numpy as np
import pytest
import skimage.data
from hypothesis import settings
from PIL import Image

from tests.leftovers import Watch
from tests.remembered import RememberingWorkers
from yarrow_lane.demo.build import build_demo
from yarrow_lane.demo.scene import SetClock
from yarrow_lane.desk.desk import Desk
from yarrow_lane.intake.brief import new_brief
from yarrow_lane.palette.mixer import make_mixer
from yarrow_lane.store.store import Store
from yarrow_lane.workers.pool import Workers

# The machine is shared: how long one example takes says nothing about the code.
settings.register_profile("yarrow", deadline=None, max_examples=50)
settings.load_profile("yarrow")
NOON = datetime(2026, 3, 9, 12, 0, tzinfo=UTC)  # a Monday


def jpeg_of(picture: np.ndarray, **how: object) -> bytes:
    out = io.BytesIO()
    Image.fromarray(picture).save(out, "JPEG", quality=95, **how)
    return out.getvalue()


@pytest.fixture(scope="session")
def cat() -> np.ndarray:
    """A real photograph that ships with scikit-image (CC0, by S. van der Walt): 300 x 451 px."""
    return skimage.data.cat()


@pytest.fixture
def cat_file(tmp_path: Path, cat: np.ndarray) -> Path:
    path = tmp_path / "cat.jpg"
    path.write_bytes(jpeg_of(cat))
    return path


@pytest.fixture
def clock() -> SetClock:
    return SetClock(NOON)


@pytest.fixture
def desk(tmp_path: Path, clock: SetClock):
    store = Store(tmp_path / "studio", clock().date())
    yield Desk(store, clock)
    store.close()


@pytest.fixture
def commission_id(desk: Desk) -> str:
    brief = new_brief("Pip", "cat", "A. Client", "acrylic", NOON.date(), datetime(2026, 4, 10).date(), "soft background")
    return desk.start_commission(brief)


@pytest.fixture
def wait_idle(qtbot):
    """Let the window read and paint until nothing is under way."""

    def wait(window) -> None:
        window.grab()
        qtbot.waitUntil(lambda: not window.threads.busy, timeout=90_000)
        window.grab()
        qtbot.waitUntil(lambda: not window.threads.busy, timeout=90_000)

    return wait


@pytest.fixture(scope="session")
def fonts(qapp):
    from yarrow_lane.ui.theme.lettering import load_fonts

    qapp.setStyle("Fusion")
    load_fonts()


@pytest.fixture(autouse=True)
def no_dialogs(monkeypatch):
    """A file dialog waits for a person: in tests it is answered at once, with nothing."""
    from PySide6.QtWidgets import QFileDialog

    for name in ("getOpenFileNames", "getOpenFileName", "getSaveFileName"):
        monkeypatch.setattr(QFileDialog, name, lambda *_: ("", ""))
    monkeypatch.setattr(QFileDialog, "getExistingDirectory", lambda *_: "")


@pytest.fixture(autouse=True, scope="session")
def paintboxes_ready():
    """A paintbox is made ready once for all windows of this process: a second of each test that only passes by the palette."""
    from yarrow_lane.ui.rooms.palette import answering

    ready = lru_cache(3)(make_mixer)
    with pytest.MonkeyPatch.context() as patch:
        patch.setattr(answering, "make_mixer", lambda box, medium, _: ready(box, medium))
        yield


_LASTING: list[Workers] = []


def shared_by_all(tmp_path_factory) -> Path:
    """One folder for all processes of this run."""
    shared = tmp_path_factory.getbasetemp()
    return shared.parent if "PYTEST_XDIST_WORKER" in os.environ else shared


@pytest.fixture(scope="session")
def workers(tmp_path_factory):
    """Two processes for all tests: starting one for each would cost more than the tests; what they answered is remembered."""
    workers = RememberingWorkers(shared_by_all(tmp_path_factory) / "answers")
    _LASTING.append(workers)
    yield workers
    _LASTING.remove(workers)
    workers.close()


@pytest.fixture(autouse=True)
def nothing_left():
    """Fails a test that leaves a timer, thread, process or window behind, and names the line that began it."""
    with pytest.MonkeyPatch.context() as patch:
        watch = Watch(patch)
        yield
    lasting = {w._process.pid for pool in _LASTING for w in (*pool._free, *pool._busy)}
    left = watch.left(lasting)
    assert not left, "\n".join(left)


@pytest.fixture
def window(qtbot, desk, fonts, workers):
    """The real window on a studio of the test's own."""
    from yarrow_lane.ui.window import Window

    window = Window(desk, workers)
    qtbot.addWidget(window)
    window.show()
    window.activateWindow()
    qtbot.waitExposed(window)
    yield window
    window.end()


@pytest.fixture(scope="session")
def demo_as_built(tmp_path_factory) -> Path:
    """The demo, built once for all workers: the first builds it, the others wait for it."""
    shared = shared_by_all(tmp_path_factory)
    folder, done = shared / "demo as built", shared / "demo is built"
    try:
        folder.mkdir()
    except FileExistsError:
        while not done.exists():
            time.sleep(0.2)
    else:
        try:
            build_demo(folder / "studio", NOON)
        finally:
            done.touch()  # the others do not wait for one that failed: they fail for want of it
    return folder / "studio"


@pytest.fixture(scope="module")
def demo_store(demo_as_built, tmp_path_factory):
    folder = tmp_path_factory.mktemp("demo") / "studio"
    shutil.copytree(demo_as_built, folder)
    store = Store(folder, NOON.date())
    yield store
    store.close()


@pytest.fixture
def demo(demo_as_built, tmp_path):
    """The demo's desk, in a studio of its own."""
    folder = tmp_path / "demo studio"
    shutil.copytree(demo_as_built, folder)
    store = Store(folder, NOON.date())
    yield Desk(store, SetClock(NOON))
    store.close()


@pytest.fixture
def demo_window(qtbot, demo_store, fonts, workers):
    from yarrow_lane.ui.window import Window

    window = Window(Desk(demo_store, SetClock(NOON)), workers)
    qtbot.addWidget(window)
    window.show()
    yield window
    window.end()
