"""What Check sent to the easel, by mouse and keys: the card of one place, its clock, the list it is struck from; and how seldom the easel is drawn."""

from dataclasses import replace
from datetime import timedelta

import pytest
from PySide6.QtCore import Qt

from tests.journeys.hands import fill, keys, press
from tests.ui.rooms.doing import ENTER, SPACE, UNDO, now
from yarrow_lane.check.record import ToMend
from yarrow_lane.commission.last_list import listed
from yarrow_lane.easel.clock import time_entries

CHEEK = ToMend("Cheek: a value too dark", (100.0, 120.0), (("value", -1),), 12.0, "p", 24.0)
EAR = ToMend("Ear: too warm", (236.0, 4.0), (("warmth", 1),), 8.0, "p", 2.0)


@pytest.fixture
def demo_store(own_demo):
    return own_demo


@pytest.fixture
def easel(demo_window, wait_idle):
    """The painted cat's easel, two places to mend on the list."""
    window = demo_window
    cid = window.desk.studio.on_shelf[0]
    window.desk.change(cid, "listed", "Check", lambda c: replace(c, check=replace(c.check, to_mend=())))
    for line in (CHEEK, EAR):
        window.desk.change(cid, "listed", "Check", lambda c, line=line: listed(c, line))
    window.open_door(cid, "Easel")
    wait_idle(window)
    return window.current


def done(page) -> dict[str, bool]:
    return {x.text: x.done for x in now(page.window()).deliver.last_list if x.text in (CHEEK.words, EAR.words)}


def test_a_place_is_mended_with_the_clock_and_struck_from_the_last_list(qtbot, easel):
    page, window, clock = easel, easel.window(), easel.desk.clock
    assert (page.view.title, page.view.where) == (EAR.words, "To mend, 2 in all") and page.view.paint is None
    fill(qtbot, page, "Now", CHEEK.words)
    assert page.view.title == CHEEK.words and page.bench.sheet.act.title.startswith("Mend it: about 12")
    before = len(time_entries(now(window).log))
    keys(qtbot, window, ENTER)
    assert page.view.running
    fill(qtbot, page, "Now", EAR.words)
    assert page.view.title == CHEEK.words, "the clock runs for the cheek"
    clock.now += timedelta(minutes=7)
    keys(qtbot, window, SPACE)
    assert not page.view.running and page.view.title == EAR.words
    fill(qtbot, page, "Now", CHEEK.words)
    assert page.view.clock == "0:07:00" and len(time_entries(now(window).log)) == before + 1
    press(qtbot, page, "It is mended: done without the clock")
    assert done(page) == {CHEEK.words: True, EAR.words: False} and page.view.title == EAR.words
    assert page.view.where == "To mend" and CHEEK in now(window).check.to_mend
    keys(qtbot, window, ENTER)
    clock.now += timedelta(minutes=3)
    keys(qtbot, window, ENTER)
    assert done(page) == {CHEEK.words: True, EAR.words: True} and page.view.title == "Every pass is painted."
    keys(qtbot, window, UNDO)
    assert done(page)[EAR.words] is False and page.view.title == EAR.words


def test_the_card_shows_the_place_inside_the_canvas_and_the_stand_says_why_not(qtbot, easel):
    page, window = easel, easel.window()
    canvas = now(window).compose.canvas
    for words in (EAR.words, CHEEK.words):
        fill(qtbot, page, "Now", words)
        area, (ring,) = page.view.area(canvas), page.view.marks
        at = page.view.mend.at
        assert (
            ring.centre == at
            and area.holds(at)
            and canvas.x <= area.x
            and area.right <= canvas.right
            and area.width < canvas.width
        )
        assert max(3.0, page.view.mend.mm / 2) <= ring.radius < area.width / 3, (
            "it lies inside its ring, and a place of 2 mm is found"
        )
    keys(qtbot, window, "f")
    assert not page.hands.is_open and "a place to mend is shown here" in window.message.text


def test_the_easel_is_drawn_by_the_minute_and_its_clock_by_the_second(qtbot, easel, monkeypatch):
    page, window, clock = easel, easel.window(), easel.desk.clock
    drawn = []
    monkeypatch.setattr(page, "refresh", lambda whole=page.refresh: (drawn.append(clock.now), whole()))
    clock.now = clock.now.replace(second=5)
    page._second()
    del drawn[:]
    for _ in range(20):
        clock.now += timedelta(seconds=1)
        page._second()
    assert not drawn, "nothing that is told by the minute has changed"
    clock.now += timedelta(minutes=1)
    page._second()
    assert len(drawn) == 1
    keys(qtbot, window, Qt.Key.Key_Space)
    faces = set()
    for _ in range(3):
        clock.now += timedelta(seconds=1)
        page._second()
        faces.add(page.words._view.clock)
    assert faces == {"0:00:01", "0:00:02", "0:00:03"}
