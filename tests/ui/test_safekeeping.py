"""Copies in the window: restoring, keeping elsewhere, saving everything; closing waits for what is not on record."""

import zipfile
from datetime import timedelta

import pytest
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QFileDialog

from tests.conftest import NOON
from tests.journeys.hands import LEFT, keys, press
from yarrow_lane.demo.scene import SetClock
from yarrow_lane.desk.desk import Desk
from yarrow_lane.store.store import Store
from yarrow_lane.store.trouble import Damaged, StoreTrouble
from yarrow_lane.ui import main as starting
from yarrow_lane.ui.restore_sheet import RestoreSheet


def choose(monkeypatch, name: str, answer) -> None:
    monkeypatch.setattr(QFileDialog, name, lambda *_: answer)


def copies_sheet(window):
    return window.findChild(RestoreSheet)


@pytest.fixture
def settings(window, commission_id):
    window.studio_page.put_on_bench("settings")
    return window.studio_page


def test_a_copy_is_kept_elsewhere_by_hand_and_then_every_day(qtbot, window, settings, tmp_path, monkeypatch, clock, wait_idle):
    stick = tmp_path / "stick"
    stick.mkdir()
    choose(monkeypatch, "getExistingDirectory", str(stick))
    press(qtbot, settings, "Keep a copy at…")
    wait_idle(window)
    place = stick / "yarrow-lane-copy" / "backups"
    assert [p.name for p in place.iterdir()] == ["2026-03-09.db"]
    assert "same disk" in window.message.text and settings.bench.line("Last kept there") is not None
    clock.now += timedelta(days=1)
    window.workroom.safekeeping.daily()
    wait_idle(window)
    assert sorted(p.name for p in place.iterdir()) == ["2026-03-09.db", "2026-03-10.db"]
    stick.rename(tmp_path / "pulled out")
    clock.now += timedelta(days=1)
    window.workroom.safekeeping.daily()
    assert not window.workroom.works.now, "a stick that is not put in is waited for"
    press(qtbot, settings, "Keep none elsewhere")
    assert window.desk.store.elsewhere is None and (tmp_path / "pulled out" / "yarrow-lane-copy").exists()


def test_a_place_that_cannot_be_used_is_said(qtbot, window, settings, monkeypatch):
    choose(monkeypatch, "getExistingDirectory", str(window.desk.store.folder))
    press(qtbot, settings, "Keep a copy at…")
    assert "inside the studio" in window.message.text and window.desk.store.elsewhere is None


def test_everything_in_one_file(qtbot, window, settings, tmp_path, monkeypatch, wait_idle):
    choose(monkeypatch, "getSaveFileName", (str(tmp_path / "all"), ""))
    press(qtbot, settings, "Save everything…")
    wait_idle(window)
    assert zipfile.ZipFile(tmp_path / "all.zip").testzip() is None and "Everything is in" in window.message.text
    assert not list((window.desk.store.folder / "backups").glob("*.part"))


def test_damage_offers_the_copies_and_enter_takes_the_newest_sound_one(qtbot, window, commission_id, monkeypatch):
    for day in ("2026-03-07", "2026-03-08"):
        window.desk.store.database.backup(day)
    newest = window.desk.store.folder / "backups" / "2026-03-08.db"
    newest.write_bytes(newest.read_bytes()[:6000])
    window.report(Damaged("The commission c0001 cannot be read"))
    assert window.message.offer.text() == "Restore…"
    qtbot.mouseClick(window.message.offer, LEFT)
    sheet = copies_sheet(window)
    qtbot.waitUntil(lambda: sheet.act.isEnabled())
    assert not window.current.bench.act.isEnabled(), "one yellow field at a time"
    rows = [[sheet.list.topLevelItem(n).text(c) for c in range(3)] for n in range(2)]
    assert rows == [["Sun 8\u202fMar 2026", "–", "not sound: it is damaged"], ["Sat 7\u202fMar 2026", "1", "sound"]]
    with qtbot.waitSignal(window.restore_wanted) as told:
        keys(qtbot, sheet.list, Qt.Key.Key_Return)
    assert told.args[0].name == "2026-03-07.db"
    window.show_copies()
    qtbot.waitUntil(lambda: sheet.act.isEnabled())
    keys(qtbot, sheet.list, Qt.Key.Key_Escape)
    assert sheet.isHidden() and window.current.bench.act.isEnabled()
    window.say("Other words", False)
    assert window.message.offer.isHidden()


@pytest.fixture
def application(qapp, fonts, tmp_path, monkeypatch):
    monkeypatch.setattr(starting, "local_now", SetClock(NOON))
    store = Store(tmp_path / "mine", NOON.date())
    desk = Desk(store, SetClock(NOON))
    desk.do_studio("Named", lambda s: type(s)(name="Before"))
    store.database.daily_copy(NOON.date())
    desk.do_studio("Named", lambda s: type(s)(name="After"))
    store.close()
    application = starting.Application(tmp_path / "mine")
    yield application
    assert application.close()


def restored(qtbot, sheet) -> None:
    qtbot.waitUntil(lambda: sheet.act.isEnabled())
    qtbot.mouseClick(sheet.act, LEFT)


def test_restoring_opens_the_copy_and_says_where_the_rest_is(qtbot, application):
    assert application.start() is None and application.window.desk.studio.name == "After"
    application.window.show_copies()
    restored(qtbot, copies_sheet(application.window))
    assert application.window.desk.studio.name == "Before" and "set aside/2026-03-09" in application.window.message.text


def test_a_studio_that_does_not_open_has_a_window_with_its_copies(qtbot, application, tmp_path):
    (tmp_path / "mine" / "studio.db").write_bytes(b"in pieces" * 1000)
    trouble = application.start()
    sheet = application.failed
    assert (
        "damaged" in trouble.sentence
        and sheet.words.text() == trouble.sentence
        and str(tmp_path / "mine") in sheet.place.text()
    )
    restored(qtbot, sheet)
    assert application.window.desk.studio.name == "Before" and not sheet.isVisible()
    log = (tmp_path / "mine" / "yarrow-lane.log").read_text()
    assert "Damaged" in log and "in pieces" not in log


def test_a_fault_of_ours_at_the_start_has_a_window_too(qtbot, application, monkeypatch, tmp_path):
    def fault(*_):
        raise ZeroDivisionError("with the words of a client")

    monkeypatch.setattr(starting, "Store", fault)
    assert "ZeroDivisionError" in application.start().sentence
    assert application.failed.isVisible() and "words of a client" not in (tmp_path / "mine" / "yarrow-lane.log").read_text()


def test_a_saved_file_comes_in_where_nothing_opens(qtbot, application, monkeypatch, tmp_path, wait_idle):
    application.start()
    application.window.workroom.safekeeping.save_everything(tmp_path / "all.zip")
    wait_idle(application.window)
    application.window.end()
    application._let_go()
    for path in (tmp_path / "mine").glob("studio.db*"):
        path.unlink()
    for copy in (tmp_path / "mine" / "backups").iterdir():
        copy.write_bytes(b"")
    assert "gone but copies" in application.start().sentence
    sheet = application.failed
    qtbot.waitUntil(lambda: sheet._steps is None)
    assert not sheet.act.isEnabled()
    choose(monkeypatch, "getOpenFileName", (str(tmp_path / "nothing.zip"), ""))
    qtbot.mouseClick(sheet.from_file, LEFT)
    qtbot.waitUntil(lambda: "not there any more" in sheet.state.text())
    choose(monkeypatch, "getOpenFileName", (str(tmp_path / "all.zip"), ""))
    qtbot.mouseClick(sheet.from_file, LEFT)
    restored(qtbot, sheet)
    assert application.window.desk.studio.name == "After"


def test_a_daily_copy_that_failed_is_said_when_the_window_opens(qtbot, application, monkeypatch):
    trouble = StoreTrouble("The daily copy of the studio was not made", "the disk is full")
    monkeypatch.setattr(Store, "_daily_copy", lambda *_: trouble)
    assert application.start() is None and application.window.message.text == trouble.sentence


@pytest.mark.parametrize("text", ["{not json", "[1, 2]", '"Tone"', '["c0001", "Nowhere"]', "null", '["c0001"]'])
def test_a_broken_memory_of_the_last_place_is_ignored(qtbot, application, text):
    application.start()
    database = application.window.desk.store.database
    application.window.end()
    database.remember("place", text)
    application._let_go()
    assert application.start() is None and application.window.door == "" and application.window.message.text == ""


# --- closing


def full_disk(desk, monkeypatch):
    def full(*_, **__):
        raise StoreTrouble("It was not stored", "the disk is full")

    monkeypatch.setattr(desk.store.database, "append", full)


def writing(window):
    field = window.current.bench.line("Your name, under letters").editor
    field.setFocus()
    field.selectAll()
    return field


def test_closing_and_leaving_wait_for_words_that_cannot_be_stored(qtbot, window, commission_id, monkeypatch):
    window.studio_page.put_on_bench("settings")
    field = writing(window)
    with monkeypatch.context() as patch:
        full_disk(window.desk, patch)
        qtbot.keyClicks(field, "Mrs Ambrose")
        assert not window.close() and window.isVisible()
        assert "Not closed yet" in window.message.text and "disk is full" in window.message.text
        window.workroom.guard.attempt(lambda: window.open_door(commission_id, "Tone"))
        assert window.door == "" and field.text() == "Mrs Ambrose", "the painter stays with the words"
        assert "disk is full" in window.message.text
    window.open_door(commission_id, "Tone")
    assert window.desk.studio.painter == "Mrs Ambrose", "there is room again: nothing was lost"
    assert window.close()


def test_closing_all_the_same(qtbot, window, commission_id, monkeypatch):
    window.studio_page.put_on_bench("settings")
    full_disk(window.desk, monkeypatch)
    qtbot.keyClicks(writing(window), "Mrs Ambrose")
    window.close()
    qtbot.mouseClick(window.message.offer, LEFT)
    assert not window.isVisible()


def test_closing_says_what_is_under_way(qtbot, window, commission_id, cat_file, wait_idle):
    window.open_door(commission_id, "Intake")
    window.take_files([cat_file])
    assert not window.close() and "Reading photographs" in window.message.text
    wait_idle(window)
    assert window.close()


def test_a_choice_that_cannot_be_stored_goes_back(qtbot, window, commission_id, monkeypatch):
    window.studio_page.put_on_bench("settings")
    full_disk(window.desk, monkeypatch)
    tick = window.studio_page.bench.line("Dim, for the evening")
    qtbot.mouseClick(tick, LEFT)
    line = window.studio_page.bench.line("Lengths in")
    line.editor.setCurrentIndex(1)
    line.editor.activated.emit(1)
    assert tick.text().startswith("☐") and line.editor.currentText() == "centimetres"
    assert "disk is full" in window.message.text
