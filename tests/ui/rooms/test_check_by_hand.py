"""Check by mouse and keys on the demo studio: measured, walked, refused, mended and gone; strips, film, a watched folder, the rest."""

from dataclasses import replace
from datetime import timedelta

import pytest
from PIL import Image
from PySide6.QtCore import QPointF, Qt
from PySide6.QtGui import QMouseEvent
from PySide6.QtWidgets import QFileDialog

from tests.journeys.hands import keys, press, send
from yarrow_lane.check.record import CHECK, with_photo
from yarrow_lane.deliver.handover import DELIVER
from yarrow_lane.lane.happening import Photographed
from yarrow_lane.lane.part import Edit
from yarrow_lane.measure.progress import SILENT

DOWN, UP = Qt.Key.Key_Down, Qt.Key.Key_Up


def now(window):
    """The open commission as it is on record."""
    return window.desk.commission(window.commission_id)


@pytest.fixture
def demo_store(own_demo):
    return own_demo


@pytest.fixture
def check(qtbot, demo_window, wait_idle):
    """The cat's painting, twice photographed with the grey frame round it."""
    window = demo_window
    found = next(i for i in window.desk.studio.on_shelf if len(window.desk.commission(i).check.photos) == 2)
    window.open_door(found, "Check")
    wait_idle(window)
    page = window.current
    qtbot.waitUntil(lambda: page.measuring.told() is not None, timeout=60_000)
    wait_idle(window)
    return page


def rows(page):
    from yarrow_lane.ui.bench_sheet import Row

    return [line for section in page.bench.sheet.sections for line in section.lines if isinstance(line, Row)]


def test_it_opens_with_the_list_worst_first_and_what_to_do(check):
    told = check.measuring.told()
    assert 2 <= told.counting <= 6 and told.measured.all_round and told.chosen == 0
    assert [r.number for r in rows(check)] == [str(n + 1) for n in range(len(told.faults))] and rows(check)[0].chosen
    assert check.bench.sheet.act.title == "Mend place 1 at the easel" and "min" in check.bench.sheet.act.detail
    strip = check.measuring.strip
    assert strip.isVisible() and strip.where.text() == told.faults[0].where
    assert strip.reference.levels is not None and strip.painting.levels is not None
    strip.grab()
    check.measuring.legend.grab()
    check.measuring.view.grab()


def test_arrows_walk_rows_choose_and_a_click_on_the_canvas_too(qtbot, check, wait_idle):
    keys(qtbot, check.window(), DOWN)
    assert check.measuring.told().chosen == 1 and rows(check)[1].chosen
    keys(qtbot, check.window(), UP, UP)
    assert check.measuring.told().chosen == len(rows(check)) - 1
    check.bench.line(rows(check)[0].title).click()
    assert check.measuring.told().chosen == 0
    view, at = check.measuring.view, check.measuring.told().faults[1].at
    place = QPointF(view.to_screen(at))
    send(view, QMouseEvent.Type.MouseButtonPress, place)
    send(view, QMouseEvent.Type.MouseButtonRelease, place, Qt.MouseButton.NoButton)
    assert check.measuring.told().chosen == 1


def test_blinking_shows_the_place_on_both(qtbot, check):
    mode = check.measuring
    whole = mode.view.scale
    keys(qtbot, check.window(), "b")
    assert mode.view.scale > 1.5 * whole and mode.view.overlays == ()
    before = mode.view.levels
    mode.blink_now()
    assert mode.view.levels is not before
    keys(qtbot, check.window(), Qt.Key.Key_Escape)
    assert mode.view.scale == pytest.approx(whole) and mode.view.overlays


def test_a_refused_fault_stays_refused_and_a_listed_one_is_on_deliverys_list(qtbot, check, wait_idle):
    window, mode = check.window(), check.measuring
    first = mode.told().faults[0]
    keys(qtbot, window, "m")
    assert now(window).check.meant_so == (first.as_meant,)
    assert mode.told().faults[-1].line == first.line and rows(check)[-1].aside and rows(check)[-1].side == "meant so"
    mode._choose(len(rows(check)) - 1)
    keys(qtbot, window, "m")
    assert now(window).check.meant_so == ()
    mode._choose(0)
    keys(qtbot, window, "l")
    line = mode.told().faults[0].line
    assert [t.words for t in now(window).check.to_mend] == [line]
    assert line in [x.text for x in now(window).deliver.last_list] and rows(check)[0].side == "on the list"
    keys(qtbot, window, "l")
    assert now(window).check.to_mend == () and line not in [x.text for x in now(window).deliver.last_list]
    window.undo()
    assert [t.words for t in now(window).check.to_mend] == [line]


def test_the_yellow_field_puts_it_on_the_list_and_goes_to_the_easel(qtbot, check, wait_idle):
    window = check.window()
    line = check.measuring.told().faults[0].line
    keys(qtbot, window, Qt.Key.Key_Return)
    wait_idle(window)
    assert window.door == "Easel" and [t.words for t in now(window).check.to_mend] == [line]


def test_mended_and_gone_in_the_next_photograph(qtbot, check, wait_idle):
    """The stand-in hand mends its worst places one after the other; what is no longer found can be struck off."""
    window, mode = check.window(), check.measuring
    for n in range(len([f for f in mode.told().faults if f.meant is None])):
        mode._choose(n)
        mode.hands.list_it()
    listed = len(now(window).check.to_mend)
    assert listed >= 2
    check.take_stand_in()
    qtbot.waitUntil(lambda: len(now(window).check.photos) == 3, timeout=60_000)
    wait_idle(window)
    assert check.bench.sheet.act.title == "Measure it", "its corners are a guess until they are agreed to"
    photo = now(window).check.newest
    grips = mode.corners.tool.points
    assert grips == photo.corners
    at = QPointF(mode.view.to_screen(photo.corners[0]))
    send(mode.view, QMouseEvent.Type.MouseButtonPress, at)
    send(mode.view, QMouseEvent.Type.MouseMove, at + QPointF(3, 2))
    send(mode.view, QMouseEvent.Type.MouseButtonRelease, at + QPointF(3, 2), Qt.MouseButton.NoButton)
    assert now(window).check.newest.corners[0] != photo.corners[0]
    window.undo()
    whole = mode.view.scale
    keys(qtbot, window, Qt.Key.Key_Right, Qt.Key.Key_Right)
    assert mode.view.scale > 4 * whole, "a corner, enlarged"
    place = QPointF(mode.view.rect().center()) + QPointF(40, 30)
    aimed = mode.view.to_content(place)
    send(mode.view, QMouseEvent.Type.MouseButtonPress, place)
    send(mode.view, QMouseEvent.Type.MouseButtonRelease, place, Qt.MouseButton.NoButton)
    assert now(window).check.newest.corners[1] == pytest.approx(aimed, abs=0.02), "one click sets the nearest"
    window.undo()
    keys(qtbot, window, Qt.Key.Key_Escape)
    assert mode.view.scale == pytest.approx(whole)
    keys(qtbot, window, Qt.Key.Key_Return)
    qtbot.waitUntil(lambda: mode.told() is not None and mode.told().measured.flat is not None, timeout=60_000)
    wait_idle(window)
    gone = next((s for s in check.bench.sheet.sections if s.title == "No longer found"), None)
    assert gone is not None, [f.line for f in mode.told().faults]
    press(qtbot, check, "Strike them off")
    assert len(now(window).check.to_mend) < listed
    assert any(x.done for x in now(window).deliver.last_list)


def test_strips_are_laid_where_it_is_off_and_printed(qtbot, check, wait_idle, tmp_path, monkeypatch):
    path = tmp_path / "strips.pdf"
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *a, **k: (str(path), ""))
    check.work_on("strips")
    wait_idle(check.window())
    found = check.mode.strips()
    assert len(found.strips) == 4 and found.covered > 0.9
    keys(qtbot, check.window(), Qt.Key.Key_Return)
    wait_idle(check.window())
    assert path.read_bytes().startswith(b"%PDF") and any(h.kind == "printed" for h in now(check.window()).log)
    check.mode._set_many(2)
    assert len(check.mode.strips().strips) == 2


def test_the_film_runs_and_is_saved(qtbot, check, wait_idle, tmp_path, monkeypatch):
    check.work_on("film")
    qtbot.waitUntil(lambda: bool(check.mode.frames), timeout=60_000)
    assert len(check.mode.frames) == 2
    keys(qtbot, check.window(), Qt.Key.Key_Right)
    assert check.mode.at == 1
    keys(qtbot, check.window(), Qt.Key.Key_Space)
    check.mode._next()
    assert check.mode.at == 0
    keys(qtbot, check.window(), Qt.Key.Key_Space)
    for words, name in (("", "film.webp"), ("Frames as PNG…", "frames 01.png"), ("Before and after…", "both.jpg")):
        monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *a, n=name, **k: (str(tmp_path / n), ""))
        if words:
            press(qtbot, check, words)
        else:
            keys(qtbot, check.window(), Qt.Key.Key_Return)
        wait_idle(check.window())
    with Image.open(tmp_path / "film.webp") as film:
        assert film.n_frames > 2
    assert len(list(tmp_path.glob("frames *.png"))) == 2 and (tmp_path / "both.jpg").exists()


def test_the_grey_frame_is_printed_for_this_canvas(qtbot, check, wait_idle, tmp_path, monkeypatch):
    path = tmp_path / "frame.pdf"
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *a, **k: (str(path), ""))
    check.bench.fold("Another photograph", False)
    press(qtbot, check, "Print the grey frame…")
    wait_idle(check.window())
    assert path.read_bytes().startswith(b"%PDF")


def test_looking_in_every_way_keeps_the_even_light(qtbot, check, wait_idle):
    check.work_on("looking")
    wait_idle(check.window())
    for key in ("s", "s", "q", "q", "t", "t", "g", "f"):
        keys(qtbot, check.window(), key)
        check.looking.painting.grab()
    assert check.looking.look.flip == "mirror" and check.looking.look.grey
    keys(qtbot, check.window(), Qt.Key.Key_Escape)
    assert check.looking.look == type(check.looking.look)()


def test_new_pictures_of_a_watched_folder_are_offered_where_one_is_awaited(qtbot, check, wait_idle, tmp_path, cat_file):
    window, watching = check.window(), check.workroom.watching
    watching.watch(str(tmp_path))
    assert window.desk.studio.watched == str(tmp_path)
    (tmp_path / "telephone.jpg").write_bytes(cat_file.read_bytes())
    watching.look()
    photos = len(now(window).intake.photos)
    for door, offered in (("Compose", False), ("Intake", True), ("Easel", True), ("Check", True)):
        window.open_door(window.commission_id, door)
        wait_idle(window)
        assert any("in the folder" in s.title for s in window.current.bench.sheet.sections) == offered, door
    press(qtbot, window.current, "Take “telephone.jpg”")
    wait_idle(window)
    assert now(window).check.newest.name == "telephone.jpg" and watching.offered == ()
    assert len(now(window).intake.photos) == photos
    (tmp_path / "another.jpg").write_bytes(cat_file.read_bytes())
    watching.look()
    press(qtbot, window.current, "None of them")
    watching.look()
    assert watching.offered == ()
    watching.watch("/nowhere/at/all")
    assert any("is not there" in getattr(x, "text", "") for s in window.current.bench.sheet.sections for x in s.lines)


def test_a_photograph_of_something_else_is_refused_in_a_sentence(qtbot, check, wait_idle, cat_file):
    window = check.window()
    check.take_in(cat_file, "other.jpg")
    qtbot.waitUntil(lambda: now(window).check.newest.name == "other.jpg", timeout=30_000)
    wait_idle(window)
    keys(qtbot, window, Qt.Key.Key_Return)
    qtbot.waitUntil(lambda: bool(check.measuring.asking.measured.trouble), timeout=60_000)
    wait_idle(window)
    assert "was not measured" in check.measuring.view.waiting
    assert check.bench.sheet.act.title == "Look at the corners"


def test_while_it_rests_the_picture_is_hidden(qtbot, check, wait_idle):
    window = check.window()
    at = check.workroom.now - timedelta(hours=2)
    window.desk.do(window.commission_id, Edit(DELIVER, "Rests", lambda d: replace(d, rest_from=at, looked=None)))
    wait_idle(window)
    assert "rests unseen" in check.resting.waiting and check.resting.isVisible()
    press(qtbot, check, "Look all the same")
    assert not check.resting.isVisible() and check.measuring.view.isVisible()


def test_a_second_photograph_and_a_white_sheet_are_kept_with_it(qtbot, check, wait_idle, cat_file, monkeypatch):
    window = check.window()
    monkeypatch.setattr(QFileDialog, "getOpenFileName", lambda *a, **k: (str(cat_file), ""))
    check.bench.fold("Another photograph", False)
    press(qtbot, check, "A white sheet in this light…")
    wait_idle(window)
    assert now(window).check.newest.sheet_name == cat_file.name
    press(qtbot, check, "The same state, lamp moved…")
    wait_idle(window)
    assert now(window).check.newest.second and len(now(window).check.together) == 2
    photo = now(window).check.photos[0]
    window.desk.do(window.commission_id, Edit(CHECK, "x", lambda c: with_photo(c, photo)))
    assert len(now(window).check.together) == 1


def test_a_photograph_filed_at_the_easel_is_taken_from_there(qtbot, check, wait_idle, cat_file):
    window = check.window()
    photo_id = check.workroom.photographs.keep_picture(cat_file, "easel.jpg", SILENT)[0]
    window.desk.happen(window.commission_id, Photographed(check.workroom.now, photo_id, "easel.jpg", about="1:x"), "Easel")
    wait_idle(window)
    check.bench.fold("Another photograph", False)
    words = next(
        line.words
        for s in check.bench.sheet.sections
        for line in s.lines
        if getattr(line, "words", "").startswith("Take the one filed")
    )
    press(qtbot, check, words)
    wait_idle(window)
    assert now(window).check.newest.photo_id == photo_id
    assert check._filed_at_easel() is None
