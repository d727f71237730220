"""Thirty photographs are dropped at once, judged, chosen and asked for, in the real window."""

import io
import math
from dataclasses import replace
from email import message_from_bytes
from email.policy import default

import cv2
import numpy as np
import pdfplumber
import pytest
import skimage.data
from PIL import Image
from PySide6.QtCore import QMimeData, QPoint, QPointF, Qt, QUrl
from PySide6.QtGui import QDragEnterEvent, QDropEvent, QImage, QMouseEvent
from PySide6.QtWidgets import QApplication, QFileDialog

from tests.conftest import jpeg_of
from tests.doing import do_part
from tests.journeys.hands import NONE, click, fill, keys, press, send
from tests.rooms.intake.degraded import CAT_EYES, Harm, Source, harmed
from yarrow_lane.demo.sitter_files import sitter_file
from yarrow_lane.intake.brief import add_sitter
from yarrow_lane.intake.photos import mark_eye
from yarrow_lane.ui.rooms.intake.comparing import eye_rows, light_dials

ENTER, SPACE, ESC = Qt.Key.Key_Return, Qt.Key.Key_Space, Qt.Key.Key_Escape


@pytest.fixture
def room(qtbot, window, commission_id, wait_idle):
    window.open_door(commission_id, "Intake")
    wait_idle(window)
    return window


def commission(window):
    return window.desk.commission(window.commission_id)


def take(qtbot, window, wait_idle, paths, count):
    window.take_files(paths)
    qtbot.waitUntil(lambda: len(commission(window).intake.photos) >= count, timeout=60_000)
    wait_idle(window)
    qtbot.waitUntil(lambda: not window.current._soon.isActive(), timeout=5_000)


def mark(window, photo_id, eyes):
    for eye in eyes:
        do_part(window.desk, window.commission_id, "eye", "intake", lambda i, e=eye: mark_eye(i, photo_id, e))


def thirty(folder):
    """Thirty files: fourteen shots of three subjects, their small copies, and two files twice."""
    dice = np.random.default_rng(9)
    sources = [skimage.data.cat(), skimage.data.astronaut(), skimage.data.coffee()]
    count = 0
    for n in range(14):
        source = sources[n % 3]
        side = 150 + 10 * n
        y, x = int(dice.integers(0, source.shape[0] - side + 1)), int(dice.integers(0, source.shape[1] - side + 1))
        shot = cv2.resize(source[y : y + side, x : x + side], (900, 900), interpolation=cv2.INTER_CUBIC)
        (folder / f"shot-{n:02}.jpg").write_bytes(jpeg_of(shot))
        (folder / f"shot-{n:02}-small.jpg").write_bytes(jpeg_of(cv2.resize(shot, (300, 300), interpolation=cv2.INTER_AREA)))
        count += 2
    for n in range(2):
        (folder / f"z-again-{n}.jpg").write_bytes((folder / f"shot-{n:02}.jpg").read_bytes())
    (folder / ".hidden").write_bytes(b"the system's own")
    return count + 2


def test_a_folder_of_thirty_is_dropped_and_copies_stand_together(qtbot, room, wait_idle, tmp_path):
    folder = tmp_path / "from the client"
    folder.mkdir()
    assert thirty(folder) == 30
    data = QMimeData()
    data.setUrls([QUrl.fromLocalFile(str(folder))])
    drop = QDropEvent(QPointF(400, 400), Qt.DropAction.CopyAction, data, Qt.MouseButton.LeftButton, NONE)
    enter = QDragEnterEvent(QPoint(400, 400), Qt.DropAction.CopyAction, data, Qt.MouseButton.LeftButton, NONE)
    room.dragEnterEvent(enter)
    assert enter.isAccepted()
    room.dropEvent(drop)
    page = room.current
    assert "Reading photographs: looking at what was dropped" in room.works_strip.words.text()
    qtbot.waitUntil(lambda: "of 30 read" in room.works_strip.words.text(), timeout=5_000)
    qtbot.waitUntil(lambda: len(commission(room).intake.photos) == 28, timeout=60_000)
    wait_idle(room)
    qtbot.waitUntil(lambda: not room.works_strip.isVisible(), timeout=5_000)
    page.refresh()
    tiles = [t.name for t in page.view.tiles]
    for n in range(14):
        assert abs(tiles.index(f"shot-{n:02}.jpg") - tiles.index(f"shot-{n:02}-small.jpg")) == 1
    copies = [t for t in page.view.tiles if t.lines[0].startswith("copy of shot-")]
    assert len(copies) == 14
    small = next(p for p in commission(room).intake.photos if p.name == "shot-03-small.jpg")
    page.select(small.id)
    assert "shot-03.jpg is the same shot and shows more: 900 × 900" in str(page.bench.sheet).replace("\\u202f", " ")


def test_reading_can_be_stopped_and_what_came_stays(qtbot, room, wait_idle, tmp_path):
    thirty(tmp_path)
    room.take_files(sorted(tmp_path.glob("*.jpg")))
    qtbot.waitUntil(lambda: room.workroom.arrivals.reading[0] >= 3, timeout=30_000)
    room.works_strip.stop.click()
    wait_idle(room)
    came = len(commission(room).intake.photos)
    assert 3 <= came < 28 and room.workroom.arrivals.reading == (0, 0)
    assert "the rest was left unread" in room.message.text
    qtbot.wait(400)
    assert len(commission(room).intake.photos) == came


def test_a_second_drop_waits_for_the_first_and_each_goes_where_it_was_dropped(qtbot, room, wait_idle, tmp_path, cat_file):
    folder = tmp_path / "from the client"
    folder.mkdir()
    thirty(folder)
    first = room.commission_id
    room.take_files(sorted(folder.glob("shot-*.jpg")))
    second = room.desk.start_commission(room.desk.commission(first).brief)
    room.open_door(second, "Intake")
    room.take_files([cat_file])
    qtbot.waitUntil(lambda: len(room.desk.commission(second).intake.photos) == 1, timeout=60_000)
    wait_idle(room)
    assert len(room.desk.commission(first).intake.photos) == 28
    assert [p.name for p in room.desk.commission(second).intake.photos] == ["cat.jpg"]


def test_a_copied_picture_and_copied_files_are_pasted(qtbot, room, wait_idle, cat, cat_file):
    clipboard = QApplication.clipboard()
    height, width = cat.shape[:2]
    clipboard.setImage(QImage(np.ascontiguousarray(cat).data, width, height, 3 * width, QImage.Format.Format_RGB888).copy())
    keys(qtbot, room, (Qt.Key.Key_V, Qt.KeyboardModifier.ControlModifier))
    qtbot.waitUntil(lambda: len(commission(room).intake.photos) == 1, timeout=20_000)
    photo = commission(room).intake.photos[0]
    assert (photo.width_px, photo.height_px) == (451, 300) and photo.name.startswith("pasted 2026-03-09")
    data = QMimeData()
    data.setUrls([QUrl.fromLocalFile(str(cat_file))])
    clipboard.setMimeData(data)
    keys(qtbot, room, (Qt.Key.Key_V, Qt.KeyboardModifier.ControlModifier))
    qtbot.waitUntil(lambda: len(commission(room).intake.photos) == 2, timeout=20_000)
    wait_idle(room)
    clipboard.setText("only words")
    keys(qtbot, room, (Qt.Key.Key_V, Qt.KeyboardModifier.ControlModifier))
    assert "Nothing was pasted" in room.message.text


@pytest.mark.parametrize("name", ["dog1", "cat1", "person1"])
def test_irises_of_rendered_sitters_are_measured_within_3_percent(qtbot, room, wait_idle, tmp_path, name):
    """Two drags by whole screen pixels, after zooming in as a painter would, against the renderer's truth."""
    sitter = sitter_file(name)
    path = tmp_path / f"{name}.jpg"
    path.write_bytes(sitter.jpeg)
    take(qtbot, room, wait_idle, [path], 1)
    page = room.current
    keys(qtbot, room, SPACE)
    wait_idle(room)
    for eye in sitter.eyes:
        page.set_look(replace(page.look, mark=eye.side))
        page.marking.picture.fit()
        page.marking.picture.zoom(6.0, page.marking.picture.to_screen((eye.x, eye.y)))
        left, right = (page.marking.picture.to_screen((eye.x + s * eye.radius_px, eye.y)) for s in (-1, 1))
        a, b = QPointF(round(left.x()), round(left.y())), QPointF(round(right.x()), round(right.y()))
        send(page.marking.picture, QMouseEvent.Type.MouseButtonPress, a)
        send(page.marking.picture, QMouseEvent.Type.MouseMove, (a + b) / 2)
        send(page.marking.picture, QMouseEvent.Type.MouseButtonRelease, b, Qt.MouseButton.NoButton)
        marked = commission(room).intake.photos[0].eye(eye.side)
        assert marked.across_px == pytest.approx(eye.across_px, rel=0.03)
        assert math.dist((marked.x, marked.y), (eye.x, eye.y)) < 0.03 * eye.across_px


def test_marks_are_nudged_by_a_pixel(qtbot, room, wait_idle, cat_file):
    take(qtbot, room, wait_idle, [cat_file], 1)
    page = room.current
    photo = commission(room).intake.photos[0]
    mark(room, photo.id, CAT_EYES)
    fill(qtbot, page, "Use it as", "lead")
    page.look_closer(photo.id)
    wait_idle(room)
    page.set_look(replace(page.look, mark="left"))
    keys(qtbot, room, Qt.Key.Key_Right, (Qt.Key.Key_Down, Qt.KeyboardModifier.ShiftModifier), "]")
    eye = commission(room).intake.photos[0].eye("left")
    assert (eye.x, eye.y, eye.radius_px) == (172, 126, 32.5)
    page.set_look(replace(page.look, mark="nose tip"))
    click(page.marking.picture, (264, 235))
    page.set_look(replace(page.look, mark="nose tip"))
    keys(qtbot, room, Qt.Key.Key_Left)
    nose = next(m for m in commission(room).intake.photos[0].landmarks if m.name == "nose tip")
    assert nose.x == pytest.approx(263, abs=0.6)
    press(qtbot, page, "Take the marks off")
    assert commission(room).intake.photos[0].landmarks == () == commission(room).intake.photos[0].eyes
    keys(qtbot, room, (Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier))
    assert len(commission(room).intake.photos[0].eyes) == 2


def test_the_detector_suggests_or_says_that_it_cannot(qtbot, room, wait_idle, tmp_path, cat_file):
    path = tmp_path / "face.jpg"
    path.write_bytes(jpeg_of(skimage.data.astronaut()))
    window = room
    do_part(window.desk, window.commission_id, "x", "brief", lambda b: add_sitter(b, "Ida", "person"))
    take(qtbot, window, wait_idle, [path, cat_file], 2)
    page = window.current
    face, cat = commission(window).intake.photos
    ida = commission(window).brief.sitters[1]
    page.select(face.id)
    fill(qtbot, page, "Shows", ida.id)
    page.look_closer(face.id)
    press(qtbot, page, "Suggest the eyes")
    qtbot.waitUntil(lambda: len(commission(window).intake.photo(face.id).eyes) == 2, timeout=20_000)
    page.select(cat.id)
    fill(qtbot, page, "Shows", 1)
    page.look_closer(cat.id)
    press(qtbot, page, "Suggest the eyes")
    qtbot.waitUntil(lambda: "drag" in window.message.text, timeout=20_000)
    assert commission(window).intake.photo(cat.id).eyes == ()


def test_photographs_are_ranked_and_the_painter_overrules(qtbot, room, wait_idle, tmp_path, cat):
    harms = {"soft": Harm(blur=0.15), "best": Harm(), "small": Harm(scale=0.4), "dark": Harm(gain=0.12)}
    marks = {}
    for name, harm in harms.items():
        picture, marks[name] = harmed(Source(cat, CAT_EYES, 0.57), harm)
        Image.fromarray(picture).save(tmp_path / f"{name}.png")
    # The client's own enlargement stores nine times as many pixels and shows no more.
    Image.fromarray(cv2.resize(cat, None, fx=3, fy=3, interpolation=cv2.INTER_CUBIC)).save(tmp_path / "enlarged.png")
    marks["enlarged"] = tuple(type(e)(e.side, e.x * 3, e.y * 3, e.radius_px * 3) for e in CAT_EYES)
    take(qtbot, room, wait_idle, sorted(tmp_path.glob("*.png")), 5)
    page = room.current
    ids = {p.name.removesuffix(".png"): p.id for p in commission(room).intake.photos}
    for name, found in marks.items():
        mark(room, ids[name], found)
    wait_idle(room)
    qtbot.waitUntil(lambda: all("measured" not in t.lines[0] for t in page.view.tiles), timeout=20_000)
    page.refresh()
    # Copies of one shot stand together; the order within them is the order of how much eye they hold.
    assert page.view.tiles[0].name == "best.png" and page.view.tiles[0].share > 0.3
    best_first = eye_rows(commission(room), room.workroom.judging.evidence(commission(room).intake.photos))[0][1]
    assert best_first[0].name == "best.png"
    page.select(ids["best"])
    assert "enlarged.png is the same shot, larger but no sharper" in str(page.bench.sheet)
    page.select(ids["enlarged"])
    assert "detail of about" in str(page.bench.sheet)
    page.select(ids["dark"])
    fill(qtbot, page, "Use it as", "lead")
    assert page.view.tiles[0].name == "dark.png", "the painter's choice comes before the rank"
    page.select(ids["small"])
    fill(qtbot, page, "Use it as", "helper")
    fill(qtbot, page, "for the", "expression")
    assert commission(room).intake.photo(ids["small"]).helps_with == "expression"
    for name in ("best", "soft", "small"):
        page.select(ids[name])
        fill(qtbot, page, "Use it as", "lead")
    assert "More than three leads" in str(page.bench.sheet)
    page.set_look(replace(page.look, mode="light"))
    dials, verdict = light_dials(commission(room), room.workroom.judging.evidence(commission(room).intake.photos))
    assert len(dials) == 4 and verdict


def test_a_surprise_is_asked_for_by_letter_and_the_answer_is_linked(qtbot, room, wait_idle, cat_file, tmp_path, monkeypatch):
    page = room.current
    keys(qtbot, room, "a")
    page.set_look(replace(page.look, bench="brief"))
    page.bench.line("It is a surprise").click()
    fill(qtbot, page, "Whom not to contact", "the grandfather")
    fill(qtbot, page, "Client's mail address", "client@example.org")
    keys(qtbot, room, ESC, "a")
    assert "Pip (no photograph yet): one from eye height" in page.letter.toPlainText()
    page.letter.setPlainText(page.letter.toPlainText() + "\nP.S. The collar, please.")
    room.setFocus()
    page.hand(page.act)
    assert "do not contact the grandfather" in room.message.text
    (path,) = (room.desk.store.folder / "outbox").glob("*.eml")
    letter = message_from_bytes(path.read_bytes(), policy=default)
    assert "P.S. The collar, please." in letter.get_content() and "grandfather" in letter["X-Yarrow-Warning"]
    assert letter["To"].addresses[0].addr_spec == "client@example.org"
    keys(qtbot, room, ESC, ESC)
    take(qtbot, room, wait_idle, [cat_file], 1)
    photo = commission(room).intake.photos[0]
    assert photo.answers == 1 and "1 came back" in str(_letter_bench(page))
    page.set_look(replace(page.look, mode="all"))
    fill(qtbot, page, "Use it as", "helper")
    sheet = tmp_path / "sheet.pdf"
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_: (str(sheet), ""))
    press(qtbot, page, "Save the contact sheet (PDF)…")
    qtbot.waitUntil(sheet.exists, timeout=20_000)
    wait_idle(room)
    assert "do not contact the grandfather" in room.message.text
    with pdfplumber.open(io.BytesIO(sheet.read_bytes())) as pdf:
        assert "helper" in pdf.pages[0].extract_text() and "unknown: ask" in pdf.pages[0].extract_text()


def _letter_bench(page):
    page.set_look(replace(page.look, mode="letter"))
    return page.bench.sheet


def test_unknown_rights_need_a_reason_which_the_delivery_repeats(qtbot, room, wait_idle, cat_file):
    take(qtbot, room, wait_idle, [cat_file], 1)
    page = room.current
    mark(room, commission(room).intake.photos[0].id, CAT_EYES)
    fill(qtbot, page, "Use it as", "lead")
    door = room.desk.standings.of(room.commission_id, room.workroom.now).doors[0]
    assert (door.state, door.wants) == ("ahead", "ask who may use cat.jpg")
    keys(qtbot, room, ENTER)
    assert page.bench.line("Permission").editor.view().isVisible(), "the list asked for is open"
    page.bench.line("Permission").editor.hidePopup()
    fill(qtbot, page, "Waive it all the same, because", "an heirloom print, photographer long dead")
    press(qtbot, page, "Waive this door")
    assert room.desk.standings.of(room.commission_id, room.workroom.now).doors[0].state == "waived"
    keys(qtbot, room, "9")
    assert "an heirloom print" in str(room.current.bench.sheet)


def test_a_photograph_taken_away_is_no_longer_measured(qtbot, room, wait_idle, tmp_path):
    thirty(tmp_path)
    take(qtbot, room, wait_idle, sorted(tmp_path.glob("shot-0[0-4].jpg")), 5)
    page = room.current
    for photo in commission(room).intake.photos:
        mark(room, photo.id, CAT_EYES[:1])  # every mark asks for its measures anew
    gone = commission(room).intake.photos[-1]
    page.select(gone.id)
    press(qtbot, page, "Take this photograph away")
    judging = room.workroom.judging
    assert gone.id not in [photo_id for photo_id, _ in (*judging._waiting, judging._now or ("", ""))]
    wait_idle(room)
    assert len(page.view.tiles) == 4
