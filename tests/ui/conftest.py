"""The demo studio in the real window."""

import pytest

from tests.conftest import NOON
from yarrow_lane.demo.build import build_demo
from yarrow_lane.demo.scene import SetClock
from yarrow_lane.desk.desk import Desk
from yarrow_lane.store.store import Store
from yarrow_lane.ui.window import Window


@pytest.fixture(scope="module")
def demo_store(tmp_path_factory):
    folder = tmp_path_factory.mktemp("demo") / "studio"
    build_demo(folder, NOON)
    store = Store(folder, NOON.date())
    yield store
    store.close()


@pytest.fixture
def demo_window(qtbot, demo_store, fonts, workers):
    window = Window(Desk(demo_store, SetClock(NOON)), workers)
    qtbot.addWidget(window)
    window.show()
    yield window
    window.end()
