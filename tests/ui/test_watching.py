"""The folder a telephone fills: what is new is offered once, over restarts too, and nothing is taken by itself."""

from dataclasses import replace
from pathlib import Path

import numpy as np
import pytest

from tests.conftest import jpeg_of
from tests.journeys.hands import press
from yarrow_lane.desk.desk import Desk
from yarrow_lane.ui.guard import Guard
from yarrow_lane.ui.watching import _MEMORY, Watching


def put(folder: Path, name: str, grey: int = 90) -> Path:
    """A picture in the folder."""
    path = folder / name
    path.write_bytes(jpeg_of(np.full((40, 60, 3), grey, np.uint8)))
    return path


@pytest.fixture
def folder(tmp_path) -> Path:
    made = tmp_path / "telephone"
    made.mkdir()
    put(made, "before.jpg")
    return made


@pytest.fixture
def watching(qtbot, desk, tmp_path):
    found = Watching(desk, Guard(tmp_path, lambda trouble: None))
    yield found
    found.stop()


def names(watching: Watching) -> list[str]:
    return [p.name for p in watching.offered]


def test_what_lay_there_is_not_offered_what_comes_is(desk, watching, folder):
    watching.watch(str(folder))
    assert names(watching) == [] and desk.studio.watched == str(folder)
    put(folder, "new.jpg")
    (folder / "notes.txt").write_text("no picture")
    watching.look()
    assert names(watching) == ["new.jpg"]
    watching._none()
    watching.look()
    assert names(watching) == [], "left once is left"


def test_what_came_while_the_program_slept_is_offered(desk, watching, folder, tmp_path):
    watching.watch(str(folder))
    watching.stop()
    put(folder, "overnight.jpg")
    later = Watching(desk, Guard(tmp_path, lambda trouble: None))
    later.follow()
    assert names(later) == ["overnight.jpg"]
    later.stop()


def test_another_folder_begins_anew_and_none_remembers_nothing(desk, watching, folder, tmp_path):
    watching.watch(str(folder))
    put(folder, "new.jpg")
    watching.look()
    other = tmp_path / "other"
    other.mkdir()
    put(other, "lay there.jpg")
    watching.watch(str(other))
    assert names(watching) == [] and desk.recall(_MEMORY)["folder"] == str(other)
    before = desk.recall(_MEMORY)
    watching.watch("")
    assert names(watching) == [] and desk.recall(_MEMORY) == before and desk.studio.watched == ""


def test_a_memory_that_is_damaged_offers_nothing_old(desk, folder, tmp_path):
    desk.do_studio("x", lambda s: replace(s, watched=str(folder)))
    desk.remember(_MEMORY, {"folder": str(folder), "known": "all"})
    later = Watching(desk, Guard(tmp_path, lambda trouble: None))
    later.follow()
    assert names(later) == []
    later.stop()


def test_a_folder_that_is_gone_is_said_and_others_are_chosen(qtbot, window, commission_id, folder):
    watching = window.workroom.watching
    watching.watch(str(folder))
    put(folder, "new.jpg")
    watching.look()
    window.open_door(commission_id, "Intake")
    assert window.current.bench.line("Take “new.jpg”").isEnabled()
    press(qtbot, window.current, "None of them")
    assert names(watching) == []
    for path in folder.iterdir():
        path.unlink()
    folder.rmdir()
    window.current.refresh()
    assert "is not there: choose another" in str(window.current.bench.sheet)
    watching.watch("")
    assert isinstance(window.desk, Desk) and "is not there" not in str(window.current.bench.sheet)
