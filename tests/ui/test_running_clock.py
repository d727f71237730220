"""A clock that runs is seen everywhere, asked about after three hours without a hand, and before the window closes."""

from datetime import timedelta

import pytest
from PySide6.QtCore import Qt

from tests.journeys.hands import LEFT, keys
from yarrow_lane.desk.desk import Desk
from yarrow_lane.easel.clock import minutes_logged, running, stopped


@pytest.fixture
def painting(qtbot, demo_window):
    """Fennel on the easel, three hours after its last film was wet, the clock started."""
    window = demo_window
    window.desk.clock.now += timedelta(hours=3)
    window.open_door(window.desk.studio.on_shelf[1], "Easel")
    keys(qtbot, window, Qt.Key.Key_Space)
    yield window
    # The studio is shared by the tests of this file, and the window may be closed by now: another desk stops what still runs.
    desk = Desk(window.desk.store, window.desk.clock)
    stop = stopped(desk.commission(desk.studio.on_shelf[1]).log, desk.clock())
    if stop is not None:
        desk.happen(desk.studio.on_shelf[1], stop)


def test_it_stands_in_the_header_everywhere(qtbot, painting):
    painting.desk.clock.now += timedelta(minutes=55)
    for door in ("Tone", "Easel"):
        painting.open_door(painting.desk.studio.on_shelf[2], door)
        assert painting.header.clock.text() == "clock 55\u202fmin · Fennel"
    painting.open_studio()
    assert painting.header.clock.isVisible() and painting.clock.ticking
    painting.clock.stop(painting.desk.studio.on_shelf[1])
    assert not painting.header.clock.isVisible() and not painting.clock.ticking


def test_three_hours_without_a_hand_are_asked_about_once(qtbot, painting):
    painting.desk.clock.now += timedelta(hours=2, minutes=50)
    painting.clock.minute_over()
    assert painting.message.text == ""
    painting.desk.clock.now += timedelta(minutes=11)
    painting.clock.minute_over()
    assert "Are you still painting?" in painting.message.text and "Fennel" in painting.message.text
    painting.message.clear()
    painting.clock.minute_over()
    assert painting.message.text == "", "asked once"
    painting.clock._asked_about = None
    painting.clock.minute_over()
    qtbot.mouseClick(painting.message.offer, LEFT)
    assert running(painting.desk.commission(painting.desk.studio.on_shelf[1]).log) is None


def test_closing_asks_and_closing_again_lets_it_run_on(qtbot, painting):
    log = painting.desk.commission(painting.desk.studio.on_shelf[1]).log
    assert not painting.close() and "The clock runs on Fennel" in painting.message.text
    keys(qtbot, painting, Qt.Key.Key_Escape)
    assert not painting.close(), "asked anew after a hand"
    assert painting.close() and painting.desk.commission(painting.desk.studio.on_shelf[1]).log == log


def test_closing_can_stop_it(qtbot, painting):
    before = minutes_logged(painting.desk.commission(painting.desk.studio.on_shelf[1]).log)
    painting.desk.clock.now += timedelta(minutes=20)
    painting.close()
    qtbot.mouseClick(painting.message.offer, LEFT)
    assert not painting.isVisible()
    log = painting.desk.commission(painting.desk.studio.on_shelf[1]).log
    assert running(log) is None and minutes_logged(log) == pytest.approx(before + 20)
