"""What the window owes whoever leaves a page too early, changes the colours in the middle, or answers a question."""

import random
import time
from dataclasses import replace

import numpy as np
import pytest
from PIL import Image
from PySide6.QtCore import Qt

from tests.doing import do_part
from tests.journeys.hands import keys
from yarrow_lane.commission.recompose import Proposal, recompose
from yarrow_lane.compose.composition import frame
from yarrow_lane.lane.doors import DOORS
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.transfer.record import Transfer

SIZE = (451.0, 300.0)
ESC, ENTER = Qt.Key.Key_Escape, Qt.Key.Key_Return


@pytest.mark.parametrize("seed", range(4))
def test_a_page_left_while_it_loads_arrives_when_come_back_to(qtbot, demo_window, seed):
    dice = random.Random(seed)
    window = demo_window
    shown = [i for i in window.desk.studio.on_shelf if window.desk.commission(i).compose.framed]
    for _ in range(6):
        window.workroom.derived._kept.clear()  # as if nothing had been looked at yet
        window.workroom.derived._bytes = 0
        for _ in range(dice.randint(2, 4)):
            window.open_door(dice.choice(shown), dice.choice(DOORS[1:]))
            qtbot.wait(dice.choice((0, 1, 5, 30)))
        window.open_door(dice.choice(shown), dice.choice(DOORS[1:]))
        if window.door == "Transfer":
            window.current.work_on("squares")  # while no way is chosen it opens without a picture
        elif window.door == "Deliver":
            window.current.show_mode("face")  # the painting in parts has only its thumbnail
        qtbot.waitUntil(lambda: not window.threads.busy, timeout=30_000)
        picture = window.current.picture
        assert picture is not None and picture.levels is not None, f"{window.commission_id} {window.door}"


def test_nothing_that_arrives_is_lost_when_the_colours_change(qtbot, window, commission_id, tmp_path, cat):
    files = []
    for n in range(30):
        files.append(tmp_path / f"photo-{n:02}.jpg")
        Image.fromarray(np.roll(cat, 9 * n, axis=1)).save(files[-1], quality=80)
    window.open_door(commission_id, "Intake")
    window.take_files(files)
    for n in range(4):
        qtbot.wait(60)
        window.desk.do_studio("Colours", lambda s, n=n: replace(s, evening=n % 2 == 0))
    qtbot.waitUntil(lambda: not window.workroom.arrivals.under_way, timeout=60_000)
    assert [p.name for p in window.desk.commission(commission_id).intake.photos] == [f.name for f in files]


def test_long_work_is_shown_and_stopped(qtbot, window):
    works, strip = window.workroom.works, window.works_strip
    heard = []

    def long(progress):
        for n in range(10_000):
            progress.at(n / 10_000)
            time.sleep(0.005)
        return "done"

    assert not strip.isVisible()
    works.run("Writing sheets", long, heard.append)
    qtbot.waitUntil(lambda: "Writing sheets: 0%" in strip.words.text() or "1%" in strip.words.text(), timeout=5000)
    assert strip.isVisible()
    keys(qtbot, window, ESC)
    assert not strip.isVisible()
    works.run("Writing again", long, heard.append)
    strip.stop.click()
    qtbot.waitUntil(lambda: not window.threads.busy, timeout=5000)
    assert heard == [] and works.now == ()
    works.run("Writing", lambda p: 42, heard.append)
    qtbot.waitUntil(lambda: heard == [42], timeout=5000)
    works.run("Writing", lambda p: (_ for _ in ()).throw(Trouble("It was not written", "the disk is full")), heard.append)
    qtbot.waitUntil(lambda: "the disk is full" in window.message.text, timeout=5000)
    assert works.now == () and not strip.isVisible()


def test_what_would_become_of_later_work_is_asked_before_and_enter_takes_it(qtbot, window, commission_id, cat_file):
    desk = window.desk
    photo = window.workroom.photographs.photo_from_file(cat_file, "cat.jpg")
    do_part(desk, commission_id, "in", "intake", lambda i: replace(i, photos=(photo,)))
    do_part(desk, commission_id, "size", "compose", lambda c: replace(c, width_mm=200.0, height_mm=200.0))
    do_part(desk, commission_id, "crop", "compose", lambda c: frame(c, photo.id, SIZE, 250, (200, 150)))
    do_part(desk, commission_id, "drawn", "transfer", lambda t: Transfer(4, ((0, 0), (1, 0))))
    window.open_door(commission_id, "Compose")
    page, before = window.current, desk.commission(commission_id)

    def narrower():
        page.propose(
            Proposal("Moved the crop", "Compose", lambda c: recompose(c, frame(c.compose, photo.id, SIZE, 200, (200, 150))))
        )

    narrower()
    assert window.question.title.text() == "Moved the crop: what becomes of later work"
    assert window.question.waiting and "2 squares are begun anew" in window.question.list.text()
    assert desk.commission(commission_id) == before, "nothing is changed before it is wanted"
    assert not page.bench.act.isEnabled(), "one yellow field at a time"
    keys(qtbot, window, ESC)
    assert not window.question.waiting and desk.commission(commission_id) == before and page.bench.act.isEnabled()
    narrower()
    page.refresh()
    assert not page.bench.act.isEnabled(), "nor after what arrives meanwhile"
    do_part(desk, commission_id, "drawn", "transfer", lambda t: Transfer(4, ((0, 0),)))
    keys(qtbot, window, ENTER)
    assert window.question.waiting and "1 square is begun anew" in window.question.list.text(), "another list is asked again"
    window.open_door(commission_id, "Tone")
    assert not window.question.waiting and desk.commission(commission_id).transfer.drawn == ((0, 0),)
    window.open_door(commission_id, "Compose")
    assert page.bench.act.isEnabled()
    desk.undo(commission_id)
    narrower()
    keys(qtbot, window, ENTER)
    after = desk.commission(commission_id)
    assert after.transfer.drawn == () and after.compose.background.crop.width == pytest.approx(200)
    desk.undo(commission_id)
    assert desk.commission(commission_id) == before, "one step back brings all of it back"
