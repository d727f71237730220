"""Each room by mouse and keys, on a commission that stands at its door."""

from datetime import timedelta

import pytest
from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QApplication, QFileDialog

from tests.conftest import NOON
from tests.journeys.hands import click, drag, fill, keys, press
from tests.ui.rooms.doing import ENTER, ESC, SPACE, draw, now

SHIFT = Qt.KeyboardModifier.ShiftModifier


def test_the_crop_is_pulled_by_its_corners_and_keeps_its_shape(framed):
    canvas, crop = framed.current.crop_view, now(framed).compose.background.crop
    drag(canvas, (crop.right, crop.bottom), (crop.right - 120, crop.bottom - 60))
    smaller = now(framed).compose.background.crop
    assert smaller.width < crop.width and smaller.width / smaller.height == pytest.approx(0.8)
    assert (smaller.x, smaller.y) == pytest.approx((crop.x, crop.y), abs=1.0), "the opposite corner stays"
    drag(canvas, (smaller.x, smaller.y), (smaller.x + 40, smaller.y + 50))
    smallest = now(framed).compose.background.crop
    assert (smallest.right, smallest.bottom) == pytest.approx((smaller.right, smaller.bottom), abs=1.0)
    drag(canvas, (5, 5), (50, 50))
    assert now(framed).compose.background.crop == smallest, "a drag beside the crop moves nothing"


def test_the_crop_never_leaves_the_photograph(qtbot, framed):
    canvas = framed.current.crop_view
    keys(qtbot, canvas, "-", "-", "-", "-")
    for _ in range(40):
        keys(qtbot, canvas, (Qt.Key.Key_Left, SHIFT), (Qt.Key.Key_Up, SHIFT))
    crop = now(framed).compose.background.crop
    assert (crop.x, crop.y) == (0, 0)
    for _ in range(60):
        keys(qtbot, canvas, "+")
    assert now(framed).compose.background.crop.height == pytest.approx(600)


def test_sizes_of_ones_own_in_any_unit(qtbot, framed):
    page = framed.current
    fill(qtbot, page, "Or your own width", "8 1/2 in")
    assert now(framed).compose.width_mm == pytest.approx(215.9) and now(framed).compose.format_name == ""
    fill(qtbot, page, "and height", "as tall as him")
    assert "is not a length" in framed.message.text and now(framed).compose.height_mm == 300
    fill(qtbot, page, "and height", "9 m")
    assert "outside 4 cm to 4 m" in framed.message.text
    page.choices.button("A sizes").click()
    fill(qtbot, page, "Stock size", "iso A3")
    assert (now(framed).compose.width_mm, now(framed).compose.height_mm) == (297, 420)


def test_the_size_may_come_before_the_photograph(qtbot, window, commission_id):
    window.open_door(commission_id, "Compose")
    page = window.current
    fill(qtbot, page, "Or your own width", "30")
    assert "now write the height" in window.message.text
    fill(qtbot, page, "and height", "40")
    assert (now(window).compose.width_mm, now(window).compose.height_mm) == (300, 400)
    keys(qtbot, window, ESC, ENTER)
    assert window.door == "Intake"


def test_another_canvas_forgets_the_squares_drawn_on_the_old(qtbot, framed, wait_idle):
    keys(qtbot, framed, "3")
    wait_idle(framed)
    framed.current.work_on("squares")
    keys(qtbot, framed, SPACE, SPACE)
    assert len(now(framed).transfer.drawn) == 2
    keys(qtbot, framed, "2")
    framed.current.choices.button("lying").click()
    assert framed.question.waiting and "2 squares are begun anew" in framed.question.list.text()
    assert now(framed).compose.width_mm == 240, "what becomes of the squares is shown before"
    keys(qtbot, framed, ESC)
    assert not framed.question.waiting and len(now(framed).transfer.drawn) == 2
    framed.current.choices.button("lying").click()
    keys(qtbot, framed, ENTER)
    assert now(framed).transfer.drawn == () and now(framed).compose.width_mm == 300


def test_squares_by_mouse_and_upside_down(qtbot, framed, wait_idle, tmp_path, monkeypatch):
    keys(qtbot, framed, "3")
    page = framed.current
    wait_idle(framed)
    page.work_on("squares")
    wait_idle(framed)
    fill(qtbot, page, "Across the short side", 6)
    click(page.squaring.canvas, (100, 100))  # sides of 4 cm: the third square across, the third down
    assert page.squaring.square == (2, 2) and page.squaring.heading.text() == "Square C3"
    keys(qtbot, framed, SPACE)
    assert now(framed).transfer.drawn == ((2, 2),) and page.squaring.square == (3, 2)
    click(page.squaring.reference, (100, 100))
    keys(qtbot, framed, SPACE)
    assert now(framed).transfer.drawn == (), "Space takes the mark off again"
    keys(qtbot, framed, "f")
    column = page.squaring.square[0]
    keys(qtbot, framed, Qt.Key.Key_Right)
    assert page.squaring.square[0] == column - 1, "upside down the arrows follow what is seen"
    page.bench.fold("On paper", False)
    fill(qtbot, page, "Paper", "Letter")
    target = tmp_path / "squares"
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_: (str(target), ""))
    press(qtbot, page, "Save the sheets (PDF)…")
    wait_idle(framed)
    assert (tmp_path / "squares.pdf").read_bytes().startswith(b"%PDF") and "Written to" in framed.message.text
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_: ("/proc/no/squares.pdf", ""))
    press(qtbot, page, "Save the sheets (PDF)…")
    wait_idle(framed)
    assert "was not written" in framed.message.text and "choose another folder" in framed.message.text


def test_the_nearest_sizes_are_drawn_and_one_is_taken(framed):
    page = framed.current
    page.choices.button("nearest sizes").click()
    names = [o.text for o in page.crop_view.overlays if hasattr(o, "text")]
    takes = [s.line.words for s in page.bench._slots if getattr(s.line, "words", "").startswith("Take ")]
    assert len(names) == 3 and takes == [f"Take {n}" for n in names]
    page.bench.line(takes[0]).click()
    chosen = now(framed).compose
    assert chosen.format_name.endswith(names[0]) and (chosen.width_mm, chosen.height_mm) != (240, 300) and chosen.framed
    page.choices.button("thirds").click()
    assert not any(hasattr(o, "text") for o in page.crop_view.overlays)


@pytest.fixture
def at_the_easel(qtbot, framed, wait_idle):
    keys(qtbot, framed, "6")
    wait_idle(framed)
    draw(qtbot, framed.current, framed, "fur", ((40, 60), (200, 60), (200, 280), (40, 280)))
    keys(qtbot, framed, "7")
    wait_idle(framed)
    return framed


def test_the_clock_runs_for_the_pass_it_was_started_on(qtbot, at_the_easel, clock):
    page = at_the_easel.current
    started = page.view.paint
    keys(qtbot, at_the_easel, SPACE)
    clock.now += timedelta(minutes=55)
    page.refresh()
    assert page.view.clock == "0:55:00" and "Take a break" in str(page.bench.sheet)
    other = page.bench.line("Now").options[2][0]
    fill(qtbot, page, "Now", other)
    assert page.view.paint.id == started.id, "the hand is still on it"
    keys(qtbot, at_the_easel, SPACE)
    assert page.view.paint.id == other and not page.view.running
    assert page.view.dry_mood == "wrong" and page.view.dry.startswith("first: ")


def test_hours_are_corrected_with_a_reason_and_never_undone(qtbot, at_the_easel, clock):
    page = at_the_easel.current
    keys(qtbot, at_the_easel, SPACE)
    clock.now += timedelta(minutes=30)
    keys(qtbot, at_the_easel, SPACE)
    fill(qtbot, page, "Correct this pass by", -10)
    fill(qtbot, page, "because", "the telephone rang")
    press(qtbot, page, "Write the correction")
    assert [round(e.minutes) for e in _entries(at_the_easel)] == [30, -10]
    assert _entries(at_the_easel)[1].why == "the telephone rang"
    before = len(now(at_the_easel).log)
    keys(qtbot, at_the_easel, (Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier))
    assert len(now(at_the_easel).log) == before


def test_a_pass_painted_without_the_clock_asks_for_its_minutes(qtbot, at_the_easel):
    """Enter pressed again and again finished pass after pass with no minutes at all."""
    page = at_the_easel.current
    first = page.view.paint
    press(qtbot, page, "It is painted: finish it without the clock")
    assert page.bench.line("It took").editor.value() == round(first.minutes), "your own pace is proposed"
    assert "It is painted: finish it" not in str(page.bench.sheet), "it is asked already"
    assert page.bench.sheet.act.title.startswith("Finish block-in") or "min" in page.bench.sheet.act.title
    keys(qtbot, at_the_easel, Qt.Key.Key_Escape)
    assert at_the_easel.door == "Easel" and now(at_the_easel).easel.finished == ()
    keys(qtbot, at_the_easel, SPACE, ENTER)  # started, and at once called finished
    assert now(at_the_easel).easel.finished == () and "It took" in str(page.bench.sheet)
    fill(qtbot, page, "It took", 25)
    page.setFocus()
    keys(qtbot, at_the_easel, ENTER)
    assert [f.pass_id for f in now(at_the_easel).easel.finished] == [first.id]
    assert sum(e.minutes for e in _entries(at_the_easel)) == pytest.approx(25, abs=0.1)
    assert _entries(at_the_easel)[-1].why == "painted without the clock"


@pytest.mark.parametrize("key", [ENTER, SPACE])
def test_a_key_held_down_does_what_it_says_once(qtbot, at_the_easel, key):
    before = len(now(at_the_easel).log)
    for repeated in (False, True, True, True):
        text = " " if key == SPACE else "\r"
        event = QKeyEvent(QKeyEvent.Type.KeyPress, key, Qt.KeyboardModifier.NoModifier, text, repeated)
        QApplication.sendEvent(at_the_easel, event)
    assert len(now(at_the_easel).log) == before + 1 and at_the_easel.current.view.running
    assert now(at_the_easel).easel.finished == ()


def _entries(window):
    from yarrow_lane.easel.clock import time_entries

    return time_entries(now(window).log)


def test_z_shows_the_whole_and_back(qtbot, at_the_easel):
    place = at_the_easel.current.place
    near = place.scale
    keys(qtbot, at_the_easel, "z")
    whole = place.scale
    keys(qtbot, at_the_easel, "z")
    assert place.scale == pytest.approx(near) and whole <= near
    at_the_easel.current.words.grab()


def test_the_painting_is_checked_in_every_way(qtbot, framed, wait_idle, cat_file):
    keys(qtbot, framed, "8")
    framed.take_files([cat_file])
    qtbot.waitUntil(lambda: bool(now(framed).check.photo_id), timeout=20_000)
    wait_idle(framed)
    page = framed.current
    page.work_on("looking")
    wait_idle(framed)
    keys(qtbot, framed, "f", "f")
    assert page.looking.frame.upside_down and not page.looking.frame.mirrored
    keys(qtbot, framed, "f", "g")
    wait_idle(framed)
    assert not page.looking.frame.upside_down
    colour = page.looking.painting.grab().toImage().pixelColor(page.looking.painting.rect().center())
    assert colour.red() == colour.green() == colour.blue()
    keys(qtbot, framed, "b")
    sides = set()
    for _ in range(2):
        page.looking.blink_now()
        sides.add((page.looking.reference.isVisible(), page.looking.painting.isVisible()))
    assert sides == {(True, False), (False, True)}
    page.choices.button("side by side").click()
    fill(qtbot, page, "To mend", "left ear too light")
    press(qtbot, page, "Note it")
    assert now(framed).check.seen == ("left ear too light",)
    press(qtbot, page, "Note it")
    assert "Nothing was noted" in framed.message.text


def test_the_way_out_refuses_what_is_too_early(qtbot, framed, clock):
    keys(qtbot, framed, "9")
    page = framed.current
    keys(qtbot, framed, ENTER, ENTER)
    assert now(framed).deliver.rest_from == NOON
    commission_id = framed.commission_id
    assert "Look with fresh eyes: rests until" in page.bench.sheet.act.detail
    keys(qtbot, framed, ENTER)
    assert framed.desk.commission(commission_id).deliver.looked is None and not framed.commission_id, "nothing else can be done"
    framed.open_door(commission_id, "Deliver")
    clock.now += timedelta(hours=25)
    page.refresh()
    keys(qtbot, framed, ENTER)
    assert now(framed).deliver.looked == clock.now
    press(qtbot, page, "Put it on the list")
    assert "Nothing was added" in framed.message.text
    page.exploded.grab()
    assert "Signed: on it" in page.exploded.accessibleName() and "Varnish, coat 1: next" in page.exploded.accessibleName()


def test_the_delivery_sheet_is_saved(qtbot, framed, tmp_path, monkeypatch):
    keys(qtbot, framed, "9")
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_: (str(tmp_path / "out.pdf"), ""))
    press(qtbot, framed.current, "Save the delivery sheet (PDF)…")
    assert (tmp_path / "out.pdf").read_bytes().startswith(b"%PDF")
