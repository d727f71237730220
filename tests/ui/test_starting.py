"""Starting: the command line, the picture of the window, a studio that cannot be opened, the demo of the day."""

import platform
import shutil
import subprocess
import sys
from datetime import timedelta

import pytest
from PIL import Image

from tests.conftest import NOON
from yarrow_lane import __version__
from yarrow_lane.demo.build import demo_folder
from yarrow_lane.store.store import Store
from yarrow_lane.ui import main as starting


@pytest.fixture
def data(tmp_path, monkeypatch):
    monkeypatch.setattr(starting, "data_folder", lambda: tmp_path / "data")
    return tmp_path / "data"


@pytest.fixture
def built_once(demo_as_built, monkeypatch):
    """The demo that the other tests use: how it is built is tested elsewhere, here it matters where it stands and that it opens."""
    monkeypatch.setattr("yarrow_lane.demo.build.build_demo", lambda folder, _: shutil.copytree(demo_as_built, folder))


def test_a_picture_of_ones_own_studio(qapp, data, tmp_path):
    shot = tmp_path / "shot.png"
    assert starting.main(["--shot", str(shot)]) == 0
    with Image.open(shot) as image:
        assert image.size == (1280, 800)
    assert (data / "studio" / "studio.db").exists()


def test_another_studio_is_named(qapp, data, tmp_path):
    assert starting.main(["--studio", str(tmp_path / "mine"), "--shot", str(tmp_path / "a.png")]) == 0
    assert (tmp_path / "mine" / "studio.db").exists() and not data.exists()


def test_the_demo_is_a_copy_of_its_own(qapp, data, tmp_path, built_once):
    assert starting.main(["--demo", "--shot", str(tmp_path / "a.png")]) == 0
    (demo,) = (data / "demo").iterdir()
    assert (demo / "complete").exists() and not (data / "studio").exists()


def test_a_picture_that_cannot_be_written_is_said(qapp, data, tmp_path, capsys):
    assert starting.main(["--shot", str(tmp_path / "no" / "such" / "a.png")]) == 1
    assert "choose another place" in capsys.readouterr().err


def test_a_studio_that_is_held_is_said_and_ends(qapp, data, tmp_path, capsys):
    held = Store(tmp_path / "mine", NOON.date())
    try:
        assert starting.main(["--studio", str(tmp_path / "mine"), "--shot", str(tmp_path / "a.png")]) == 1
    finally:
        held.close()
    assert "open in another Yarrow Lane" in capsys.readouterr().err


def test_no_display_is_said_and_a_virtual_screen_used(monkeypatch, capsys):
    for name in ("DISPLAY", "WAYLAND_DISPLAY", "QT_QPA_PLATFORM"):
        monkeypatch.delenv(name, raising=False)
    starting._use_a_screen()
    assert "virtual screen" in capsys.readouterr().err
    starting._use_a_screen()
    assert capsys.readouterr().err == "", "said once: the platform is chosen now"


def test_the_module_starts_too():
    outcome = subprocess.run([sys.executable, "-m", "yarrow_lane", "--version"], capture_output=True, text=True)
    assert outcome.returncode == 0 and __version__ in outcome.stdout


def test_the_demo_of_another_day_replaces_yesterdays(tmp_path, monkeypatch):
    # How it is built is tested elsewhere; here it only matters when and where.
    monkeypatch.setattr("yarrow_lane.demo.build.build_demo", lambda folder, now: Store(folder, now.date()).close())
    first = demo_folder(tmp_path, NOON)
    stamp = (first / "studio.db").stat().st_mtime_ns
    assert demo_folder(tmp_path, NOON) == first and (first / "studio.db").stat().st_mtime_ns == stamp
    second = demo_folder(tmp_path, NOON + timedelta(days=1))
    assert second != first and not first.exists() and (second / "complete").exists()


def test_the_window_offers_the_demo_and_keeps_the_studio_when_it_fails(qapp, data, tmp_path, built_once):
    application = starting.Application(tmp_path / "mine")
    assert application.start() is None
    try:
        window = application.window
        window.studio_page.want_demo()
        assert application.window is not window and len(application.window.desk.studio.on_shelf) == 6
    finally:
        application.close()


_HOLES = """
import sys, os
import numpy as np
from yarrow_lane.start import give_back_large_memory
if sys.argv[1] == "with": give_back_large_memory()
def megabytes(): return int(open("/proc/self/statm").read().split()[1]) * os.sysconf("SC_PAGE_SIZE") / 1e6
kept = []
before = megabytes()
for _ in range(3):
    pictures = []
    for _ in range(20):
        pictures.append(np.ones(2_000_000))
        kept.append(np.ones(5_000))
    pictures.clear()
print(megabytes() - before)
"""


@pytest.mark.skipif("glibc" not in platform.libc_ver(), reason="another C library is left as it is")
def test_pictures_leave_no_holes_in_memory():
    held = {}
    for how in ("with", "without"):
        outcome = subprocess.run([sys.executable, "-c", _HOLES, how], capture_output=True, text=True, check=True)
        held[how] = float(outcome.stdout)
    assert held["with"] < 30, "MB: the small ones between them alone are 2.4"
    assert held["without"] > 100, "or the library has learnt it and `give_back_large_memory` can go"
