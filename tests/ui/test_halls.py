"""The studio's other rooms: the books beside the shelf, over a change of theme, a drop, an undo, a commission put away."""

from dataclasses import replace

import pytest
from PySide6.QtCore import Qt

from tests.journeys.hands import keys
from tests.ui.rooms.doing import ESC, UNDO
from yarrow_lane.ui.rooms_table import BOOKS_ROOM


@pytest.fixture
def books(window, commission_id):
    window.open_hall("books", commission_id)
    return window.current


def test_the_books_stay_open_when_the_theme_changes(window, books):
    for evening, percent in ((True, 100), (True, 150), (False, 100)):
        window.desk.do_studio("x", lambda s, e=evening, p=percent: replace(s, evening=e, text_percent=p))
        assert window.room == BOOKS_ROOM.name and window.stack.currentWidget() is window.current
    window.grab()


def test_what_is_taken_back_in_the_books_is_the_chosen_commissions(qtbot, window, books, commission_id):
    before = window.desk.commission(commission_id).books
    books.quoting.pull("materials", 99_00)
    assert window.desk.commission(commission_id).books != before
    keys(qtbot, window, UNDO)
    assert window.desk.commission(commission_id).books == before and "Pulled materials" in window.message.text


def test_photographs_dropped_on_the_books_start_a_commission(window, books, cat_file):
    window.take_files([cat_file])
    assert window.room == "Studio" and window.studio_page.on_bench == "start" and window.studio_page.form.files


def test_the_header_tells_what_is_owed_and_leads_back(qtbot, window, books):
    assert window.header.small.text().endswith("you owe") and window.header.shelf.isVisibleTo(window)
    qtbot.mouseClick(window.header.shelf, Qt.MouseButton.LeftButton)
    assert window.room == "Studio"


def test_put_away_in_the_books_it_is_still_there_with_its_money(window, books, commission_id):
    window.desk.put_away(commission_id)
    books.refresh()
    assert books.commission_id == commission_id or books.commission_id == ""
    window.grab()


def test_escape_goes_back_a_step_at_a_time(qtbot, window, books):
    books.show_mode("year")
    keys(qtbot, window, ESC)
    assert window.room == "Studio"
