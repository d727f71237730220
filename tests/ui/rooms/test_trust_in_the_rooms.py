"""What cost a painter's trust in the rooms once, each fault through the real window."""

import math
from dataclasses import replace
from datetime import date, timedelta

import pytest
from PySide6.QtCore import QEvent, Qt
from PySide6.QtWidgets import QApplication, QBoxLayout

from tests.conftest import NOON, jpeg_of
from tests.doing import do_part, photo_from_file
from tests.journeys.hands import fill, keys, press
from tests.ui.rooms.doing import ENTER, ESC, SPACE, draw, now
from yarrow_lane.demo.sitter_files import sitter_file
from yarrow_lane.desk.derived import Key, Making
from yarrow_lane.intake.brief import new_brief
from yarrow_lane.intake.photos import Eye, add_photo, mark_eye, set_use
from yarrow_lane.lane.happening import LetterSent

UNDO = (Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier)


def labels(page) -> list[str]:
    return [getattr(slot.line, "label", "") for slot in page.bench._slots if slot.line is not None]


# --- words


def test_a_message_goes_with_the_next_change_at_that_place(qtbot, framed):
    keys(qtbot, framed, "5")
    framed.say("Something could not be read.", True)
    do_part(framed.desk, framed.commission_id, "elsewhere", "palette", lambda p: replace(p, made_from="x"))
    assert framed.message.text == ""
    keys(qtbot, framed, "4")
    framed.say("Something could not be read.", True)
    other = framed.desk.start_commission(new_brief("Moss", "dog", "", "acrylic", NOON.date(), None))
    do_part(framed.desk, other, "there", "tone", lambda t: replace(t, ground="white"))
    assert framed.message.text, "what happens elsewhere leaves it"


def test_a_photograph_chosen_before_the_size_is_said(qtbot, window, commission_id, cat):
    for shade in (0, 40):
        photo = photo_from_file(window.desk, jpeg_of(cat // 2 + shade), f"cat-{shade}.jpg")
        do_part(window.desk, commission_id, "in", "intake", lambda i, p=photo: add_photo(i, p))
    window.open_door(commission_id, "Compose")
    fill(qtbot, window.current, "Framed from", photo.id)
    assert "the canvas has no size yet" in window.message.text and now(window).compose.background is None


def test_a_page_let_go_with_its_theme_hears_of_no_measure(qtbot, window, commission_id, wait_idle):
    window.open_door(commission_id, "Compose")
    for evening in (True, False):
        window.desk.do_studio("theme", lambda s, e=evening: replace(s, evening=e))
        QApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete)
    window.workroom.judging.judged.emit()
    assert window.message.text == ""


def test_nothing_arrives_at_a_page_that_is_gone(qtbot, framed, wait_idle):
    """A page that asks once more while its theme goes is no longer asked for when the answer comes."""
    keys(qtbot, framed, "4")
    page = framed.current
    framed.desk.do_studio("theme", lambda s: replace(s, evening=True))
    page.refresh()
    framed.workroom.derived.want(Key("late", ("x",)), page, Making(lambda _: 1, lambda _: 1), lambda _: page.update())
    QApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete)
    wait_idle(framed)
    assert framed.message.text == ""
    framed.desk.do_studio("theme", lambda s: replace(s, evening=False))


def test_no_number_is_written_with_an_exponent(qtbot, framed):
    keys(qtbot, framed, "2")
    fill(qtbot, framed.current, "Or your own width", "1000000000")
    assert "1000000000" in framed.message.text and "e+" not in framed.message.text


def test_sense_by_sitter(qtbot, window, commission_id, cat):
    page = _with_photo(window, commission_id, cat)
    assert "Consent of who is shown" not in labels(page), "no consent is asked of a cat"
    page.set_look(replace(page.look, bench="brief"))
    assert "Muzzle in front of the eyes" in labels(page) and "Nose in front of the eyes" not in labels(page)
    press(qtbot, page, "Take 9.5\u202fcm, a guess for a cat")
    assert window.desk.commission(commission_id).brief.sitters[0].head_mm == 95
    fill(qtbot, page, "Is a", "person")
    assert "Nose in front of the eyes" in labels(page)
    page.set_look(replace(page.look, bench="photo"))
    assert "Consent of who is shown" in labels(page)


def test_a_letter_without_an_addressee_says_so_and_one_that_asks_nothing_waits_for_nothing(window, commission_id, cat):
    page = _with_photo(window, commission_id, cat)
    window.desk.happen(commission_id, LetterSent(NOON, 1, "Thank you.", ()), "Intake")
    window.desk.happen(commission_id, LetterSent(NOON, 2, "Please.", ("Pip: no photograph yet",)), "Intake")
    page.set_look(replace(page.look, mode="letter"))
    text = str(page.bench.sheet)
    assert "No mail address is written in the brief" in text
    assert "it asked for nothing" in text and text.count("no answer yet") == 1
    do_part(window.desk, commission_id, "mail", "brief", lambda b: replace(b, client_mail="client@example.org"))
    assert "Without an addressee" not in str(page.bench.sheet)


def _with_photo(window, commission_id, cat):
    photo = photo_from_file(window.desk, jpeg_of(cat), "cat.jpg")
    do_part(window.desk, commission_id, "in", "intake", lambda i: add_photo(i, photo))
    window.open_door(commission_id, "Intake")
    return window.current


# --- the eyes


@pytest.fixture
def marked(qtbot, window, commission_id, wait_idle):
    """A rendered dog of known eyes, the one at the viewer's left marked."""
    found = sitter_file("dog1")
    photo = photo_from_file(window.desk, found.jpeg, "dog.jpg")
    left, right = sorted(found.eyes, key=lambda e: e.x)
    for step in (
        lambda i: add_photo(i, photo),
        lambda i: set_use(i, photo.id, "lead"),
        lambda i: mark_eye(i, photo.id, replace(left, side="left")),
    ):
        do_part(window.desk, commission_id, "in", "intake", step)
    window.open_door(commission_id, "Intake")
    wait_idle(window)
    window.current.look_closer(photo.id)
    wait_idle(window)
    return window, photo.id, right


def test_the_other_eye_is_offered_and_taken_with_one_key(qtbot, marked, wait_idle):
    window, photo_id, right = marked
    page = window.current
    qtbot.waitUntil(lambda: page.look.partner is not None, timeout=30_000)
    assert "P: take the dashed ring as the left eye" in labels(page), "left is the sitter's own"
    assert now(window).intake.photo(photo_id).eye("right") is None, "a guess marks nothing by itself"
    keys(qtbot, window, "p")
    found = now(window).intake.photo(photo_id).eye("right")
    assert math.hypot(found.x - right.x, found.y - right.y) < 0.75 * right.radius_px and "R sets it" in window.message.text
    keys(qtbot, window, UNDO)
    assert now(window).intake.photo(photo_id).eye("right") is None


def test_a_ring_is_set_to_its_rim_only_on_a_key_and_said(qtbot, marked, wait_idle):
    window, photo_id, _ = marked
    page = window.current
    page.set_look(replace(page.look, mark="left"))
    before = now(window).intake.photo(photo_id).eye("left")
    press(qtbot, page, "R: set the ring to the iris's rim")
    after = now(window).intake.photo(photo_id).eye("left")
    assert after != before and f"became {after.across_px:.0f} px" in window.message.text
    keys(qtbot, window, UNDO)
    assert now(window).intake.photo(photo_id).eye("left") == before
    do_part(window.desk, window.commission_id, "off", "intake", lambda i: mark_eye(i, photo_id, Eye("left", 30, 30, 20)))
    keys(qtbot, window, "r")
    assert "No clear rim" in window.message.text or "A guess" in window.message.text


# --- the other rooms


def test_upside_down_also_turns_from_the_left(qtbot, framed, wait_idle):
    keys(qtbot, framed, "3")
    page = framed.current
    wait_idle(framed)
    page.work_on("squares")
    fill(qtbot, page, "Across the short side", 4)
    assert page.squaring.edges.text().startswith("0\u202fcm to 6\u202fcm from the left")
    keys(qtbot, framed, "f")
    assert page.squaring.edges.text().startswith("18\u202fcm to 24\u202fcm from the left")
    assert "24\u202fcm to 30\u202fcm from the top" in page.squaring.edges.text()


def test_counts_that_give_whole_squares_are_said(qtbot, framed, wait_idle):
    keys(qtbot, framed, "3")
    page = framed.current
    wait_idle(framed)
    page.work_on("squares")
    fill(qtbot, page, "Across the short side", 8)
    assert "All squares are whole" in str(page.bench.sheet)
    fill(qtbot, page, "Across the short side", 7)
    text = str(page.bench.sheet).replace("\\u202f", " ")
    assert "The last row is cut to 2.6 cm. Whole squares with 4, 8, 12" in text
    close = page.squaring.close_up
    assert close.width() > 200 and close.height() > 180, "the enlarged square fills its field"


def pair_of(window):
    """The two pictures of the open room."""
    room = window.current
    return (room if hasattr(room, "_pair") else room.looking)._pair


def test_two_pictures_of_a_lying_canvas_stand_above_each_other(qtbot, framed, wait_idle):
    for door in ("4", "8"):
        keys(qtbot, framed, door)
        assert pair_of(framed).direction() == QBoxLayout.Direction.LeftToRight
    do_part(
        framed.desk, framed.commission_id, "lie", "compose", lambda c: replace(c, width_mm=c.height_mm, height_mm=c.width_mm)
    )
    for door in ("4", "8"):
        keys(qtbot, framed, door)
        assert pair_of(framed).direction() == QBoxLayout.Direction.TopToBottom
    wait_idle(framed)


def test_the_next_kind_stays_over_doors_and_eyes_come_from_their_marks(qtbot, framed, wait_idle):
    photo_id = now(framed).intake.photos[0].id
    do_part(framed.desk, framed.commission_id, "e", "intake", lambda i: mark_eye(i, photo_id, Eye("left", 400, 250, 30)))
    keys(qtbot, framed, "6")
    page = framed.current
    wait_idle(framed)
    assert next(d for d in framed.desk.standings.of(framed.commission_id, NOON).doors if d.name == "Layers").state == "ahead"
    fill(qtbot, page, "A new part is", "cloth")
    keys(qtbot, framed, "5", "6")
    assert framed.current.drawing.kind == "cloth", "what was chosen stays over doors"
    draw(qtbot, page, framed, "fur", ((40, 60), (200, 60), (200, 280)))
    assert page.drawing.kind == "eye" and {r.kind for r in now(framed).layers.regions} == {"fur", "background"}
    press(qtbot, page, "Outline the eyes marked at Intake")
    eye = next(r for r in now(framed).layers.regions if r.kind == "eye")
    assert (eye.kind, eye.name) == ("eye", "right eye") and "a guess" in framed.message.text
    assert "Outline the eyes marked at Intake" not in labels(page)


def test_what_check_notes_is_on_the_last_list(qtbot, framed, wait_idle):
    keys(qtbot, framed, "8")
    page = framed.current
    wait_idle(framed)
    fill(qtbot, page, "To mend", "left ear too light")
    press(qtbot, page, "Note it")
    assert now(framed).check.seen == ("left ear too light",)
    assert [line.text for line in now(framed).deliver.last_list] == ["left ear too light"]
    keys(qtbot, framed, UNDO)
    assert (now(framed).check.seen, now(framed).deliver.last_list) == ((), ()), "one step, taken back in one"
    do_part(framed.desk, framed.commission_id, "old", "check", lambda c: replace(c, seen=("chin", "ear")))
    keys(qtbot, framed, "9")
    press(qtbot, framed.current, "Take in 2 notes from Check")
    assert [line.text for line in now(framed).deliver.last_list] == ["chin", "ear"]


def test_rested_since_takes_a_date(qtbot, framed, clock):
    keys(qtbot, framed, "9")
    page = framed.current
    keys(qtbot, framed, ENTER)
    fill(qtbot, page, "Turned to the wall on", "2026-03-01")
    rest = now(framed).deliver.rest_from
    assert rest.date() == date(2026, 3, 1) and rest.hour == 12 and rest < NOON
    assert page.bench.sheet.act.title == "Look with fresh eyes", "the rest is over"
    fill(qtbot, page, "Turned to the wall on", "tomorrow")
    assert now(framed).deliver.rest_from == rest and "has not come yet" in page.bench.line("Turned to the wall on").fault.text()
    keys(qtbot, page.bench.line("Turned to the wall on").editor, ENTER)
    assert now(framed).deliver.rest_from == rest and "has not come yet" in framed.message.text


def test_the_size_is_changed_after_painting(qtbot, framed, wait_idle, clock):
    """What becomes of squares, wells, regions, finished passes and hours is listed, taken with Enter, and taken back in one step."""
    keys(qtbot, framed, "3")
    framed.current.work_on("squares")
    keys(qtbot, framed, ENTER, ENTER, ENTER, "5")
    wait_idle(framed)
    keys(qtbot, framed, ENTER)  # a starter box, then the string
    wait_idle(framed)
    keys(qtbot, framed, ENTER)
    assert len(now(framed).palette.wells) == 7
    keys(qtbot, framed, "6")
    wait_idle(framed)
    draw(qtbot, framed.current, framed, "fur", ((40, 60), (200, 60), (200, 280)))
    keys(qtbot, framed, "7", SPACE)
    clock.now += timedelta(minutes=42)
    keys(qtbot, framed, ENTER)
    before = now(framed)
    assert len(before.transfer.drawn) == 2 and len(before.easel.finished) == 1 and len(before.layers.regions) == 2
    keys(qtbot, framed, "2")
    fill(qtbot, framed.current, "Or your own width", "36")
    assert framed.question.waiting
    told = framed.question.list.text()
    for words in (
        "2 squares are begun anew",
        "1 finished pass",
        "2 wells stay",
        "Off the canvas, colour and mix kept",
        "hours",
    ):
        assert words in told, told
    keys(qtbot, framed, ESC)
    assert now(framed) == before and framed.current.bench.line("Or your own width").editor.text() == "24", "what holds is shown"
    fill(qtbot, framed.current, "Or your own width", "36")
    keys(qtbot, framed, ENTER)
    after = now(framed)
    assert (after.compose.width_mm, after.transfer.drawn, after.easel.finished) == (360, (), ())
    assert len(after.palette.wells) == 7 and len(after.layers.regions) == 2 and after.log == before.log
    keys(qtbot, framed, UNDO)
    assert replace(now(framed), log=()) == replace(before, log=())
    wait_idle(framed)
