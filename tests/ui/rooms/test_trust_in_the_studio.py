"""What cost a painter's trust in the studio once, each fault through the real window."""

from dataclasses import replace
from datetime import date, timedelta

import pytest
import skimage.data
from PySide6.QtCore import QEvent, Qt
from PySide6.QtGui import QHelpEvent
from PySide6.QtWidgets import QApplication, QToolTip

from tests.conftest import NOON, jpeg_of
from tests.doing import do_part
from tests.journeys.hands import fill, keys, press
from tests.ui.rooms.doing import ENTER, ESC, SPACE, now
from yarrow_lane.commission.studio import put_on_shelf, take_off_shelf
from yarrow_lane.intake.brief import new_brief

UNDO = (Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier)


def test_photographs_dropped_on_an_empty_shelf_start_a_commission(qtbot, window, wait_idle, tmp_path):
    paths = [tmp_path / "IMG_2201-miss_bramble_head.jpg", tmp_path / "DSC01234.jpg"]
    for path, picture in zip(paths, (skimage.data.cat(), skimage.data.astronaut()), strict=True):
        path.write_bytes(jpeg_of(picture))
    window.take_files(paths)
    page = window.studio_page
    assert page.bench.line("Sitter").text() == "Miss Bramble" and "with 2 photographs" in page.bench.sheet.act.detail
    keys(qtbot, page.bench.act, SPACE)
    assert window.door == "Intake" and now(window).brief.title == "Miss Bramble"
    qtbot.waitUntil(lambda: len(now(window).intake.photos) == 2, timeout=60_000)
    wait_idle(window)
    qtbot.waitUntil(lambda: not window.current._soon.isActive(), timeout=5_000)


def test_a_form_half_written_stays(qtbot, window):
    keys(qtbot, window, "n")
    page = window.studio_page
    fill(qtbot, page, "Sitter", "Bramble")
    fill(qtbot, page, "Promised for", "+3w")
    keys(qtbot, window, ESC, ESC, "n")
    assert page.bench.line("Sitter").text() == "Bramble" and page.form.promised == NOON.date() + timedelta(weeks=3)
    press(qtbot, page, "Clear the form")
    assert page.bench.line("Sitter").text() == "" and page.form.promised is None


def test_a_past_promise_is_not_lost_by_starting(qtbot, window):
    keys(qtbot, window, "n")
    page = window.studio_page
    fill(qtbot, page, "Sitter", "Bramble")
    editor = page.bench.line("Promised for").editor
    editor.setFocus()
    qtbot.keyClicks(editor, "2026-01-05")
    page.bench.act.click()
    assert not window.commission_id and page.bench.line("Promised for").property("pointed") == "yes"
    keys(qtbot, editor, ENTER)
    page.bench.act.click()
    assert now(window).brief.promised == date(2026, 1, 5)


def test_what_is_put_away_says_so_and_comes_back(qtbot, window, commission_id):
    other = window.desk.start_commission(new_brief("Moss", "dog", "B. Client", "acrylic", NOON.date(), None))
    window.open_studio()
    page = window.studio_page
    page.select(commission_id)
    assert "nothing is lost" in str(page.bench.sheet)
    press(qtbot, page, "Put Pip away")
    assert window.desk.studio.on_shelf == (other,)
    assert not QApplication.focusWidget() or QApplication.focusWidget().parent() is not page.bench.line("Put Moss away")
    keys(qtbot, window, SPACE)
    assert window.desk.studio.on_shelf == (other,), "the next one's button is not under the key"
    page.choices.button("put away").click()
    press(qtbot, page, "Bring Pip back to the shelf")
    assert window.desk.studio.on_shelf == (other, commission_id) and page.selected == commission_id
    assert "Nothing is put away" in str(page.bench.sheet)


def test_delivered_work_is_found_by_year_and_name(qtbot, window, clock):
    desk = window.desk
    for n in range(13):
        i = desk.start_commission(new_brief(f"Sitter {n:02}", "cat", f"Client {n}", "acrylic", NOON.date(), None))
        if n < 3:
            when = NOON.replace(year=2025 if n else 2026)
            do_part(desk, i, "out", "deliver", lambda d, at=when: replace(d, signed=at, delivered=at))
            desk.put_away(i)
    while len(desk.studio.on_shelf) < 12:
        desk.start_commission(new_brief(f"More {len(desk.studio.on_shelf)}", "cat", "", "acrylic", NOON.date(), None))
    window.open_studio()
    page = window.studio_page
    page.choices.button("put away").click()
    text = str(page.bench.sheet)
    assert text.index("Delivered in 2026") < text.index("Delivered in 2025") and "2 portraits" in text
    keys(qtbot, window, "/")
    assert page.on_bench == "today" and page.bench.line("Find").editor.hasFocus()
    qtbot.keyClicks(page.bench.line("Find").editor, "client 11")
    keys(qtbot, page.bench.line("Find").editor, ENTER)
    assert desk.commission(page.selected).brief.title == "Sitter 11"
    page.find_name("sitter 01")
    assert page.on_bench == "away" and page.bench.line("Bring Sitter 01 back to the shelf").property("pointed") == "yes"
    page.find_name("nobody")
    assert "Nobody here is called" in window.message.text


def test_promises_hold_only_when_something_is_promised(window):
    desk = window.desk
    assert window.studio_page.view.under == ""
    first = desk.start_commission(new_brief("Pip", "cat", "", "acrylic", NOON.date(), None))
    assert window.studio_page.view.under == "nothing is promised"
    do_part(desk, first, "promise", "brief", lambda b: replace(b, promised=date(2026, 12, 31)))
    window.open_studio()
    assert window.studio_page.view.under == "all promises hold"
    desk.do_studio("away", lambda s: take_off_shelf(s, first))
    desk.do_studio("back", lambda s: put_on_shelf(s, first))


def test_one_canvas_does_not_fill_the_shelf_to_the_ceiling(window, commission_id):
    do_part(window.desk, commission_id, "size", "compose", lambda c: replace(c, width_mm=240, height_mm=300))
    window.open_studio()
    window.resize(1920, 1080)
    shelf = window.studio_page.shelf
    ((_, rect, _),) = shelf.places()
    assert rect.height() == pytest.approx(300 * 0.62) and rect.height() < 0.5 * shelf.height()


def test_a_shortened_name_is_whole_under_the_pointer(window, monkeypatch):
    name = ("Bartholomew-Ferdinand-" * 4)[:80]
    window.desk.start_commission(new_brief(name, "dog", "", "acrylic", NOON.date(), None))
    window.open_studio()
    window.grab()
    page, told = window.studio_page, []
    monkeypatch.setattr(QToolTip, "showText", lambda at, words, widget: told.append(words))
    ((_, rect, _),) = page.shelf.places()
    for widget, at in ((page.shelf, rect.center()), (page.weeks, page.weeks._rows[0][0].center())):
        QApplication.sendEvent(widget, QHelpEvent(QEvent.Type.ToolTip, at.toPoint(), widget.mapToGlobal(at.toPoint())))
    assert len(told) == 2 and all(name in words for words in told) and "no size yet" in told[0]
    assert name in window.studio_page.bench.act.toolTip() or name in window.studio_page.bench.act.title.text()
