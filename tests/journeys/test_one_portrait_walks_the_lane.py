"""One commission from the first photograph to delivery, in the real window, on real photographs."""

import io
from datetime import date, timedelta
from pathlib import Path

import numpy as np
import pypdf
import pytest
from PIL import Image
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QFileDialog

from tests.conftest import NOON
from tests.journeys.hands import click, drag, fill, keys, press, reference
from tests.rooms.intake.test_opening import wide_profile
from yarrow_lane.desk.desk import Desk
from yarrow_lane.easel.clock import time_entries
from yarrow_lane.measure.plane import Rect
from yarrow_lane.palette.recipe import recipe_words
from yarrow_lane.palette.wells import patch_colour
from yarrow_lane.store.store import Store
from yarrow_lane.ui.rooms.studio.papers import hours_csv
from yarrow_lane.ui.window import Window

ENTER, SPACE, ESC = Qt.Key.Key_Return, Qt.Key.Key_Space, Qt.Key.Key_Escape


def turned_and_wide(cat: np.ndarray, path: Path) -> Path:
    """The cat stored lying on its side (EXIF orientation 6) in a wide colour space."""
    exif = Image.Exif()
    exif[0x0112] = 6
    out = io.BytesIO()
    Image.fromarray(np.ascontiguousarray(np.rot90(cat, 1))).save(out, "JPEG", quality=95, exif=exif, icc_profile=wide_profile())
    path.write_bytes(out.getvalue())
    return path


def door(window, name):
    found = window.desk.standings.of(window.commission_id, window.workroom.now)
    return next(d for d in found.doors if d.name == name)


@pytest.fixture
def started(qtbot, window):
    """A commission started by hand."""
    page = window.studio_page
    keys(qtbot, window, "n")
    fill(qtbot, page, "Sitter", "Pip")
    fill(qtbot, page, "Is a", "cat")
    fill(qtbot, page, "Client", "A. Client")
    fill(qtbot, page, "Promised for", date(2026, 4, 24))
    fill(qtbot, page, "Brief, in a sentence or two", "soft background")
    page.bench.act.click()
    assert window.door == "Intake"
    return window


def test_the_whole_lane(qtbot, started, wait_idle, clock, cat, cat_file, tmp_path, monkeypatch, workers):
    window = started
    desk = window.desk
    cid = window.commission_id

    def c():
        return desk.commission(cid)

    # Intake: drop two photographs, mark both eyes, lead and rights.
    window.take_files([cat_file, turned_and_wide(cat, tmp_path / "turned.jpg")])
    qtbot.waitUntil(lambda: len(c().intake.photos) == 2, timeout=20_000)
    wait_idle(window)
    assert {(p.width_px, p.height_px) for p in c().intake.photos} == {(451, 300)}
    page = window.current
    page.look_closer(next(p.id for p in c().intake.photos if p.name == "cat.jpg"))
    wait_idle(window)
    drag(page.marking.picture, (139, 116), (203, 116))
    drag(page.marking.picture, (294, 137), (342, 137))
    photo = c().intake.photo(page.chosen_id)
    assert photo.eye("left").across_px == pytest.approx(64, abs=0.5)
    assert photo.eye("right").across_px == pytest.approx(48, abs=0.5)
    fill(qtbot, page, "Use it as", "lead")
    assert door(window, "Intake").state == "ahead"
    fill(qtbot, page, "Permission", "client")
    assert door(window, "Intake").state == "shut"

    # Compose: stock size, turn, crop by mouse and keys.
    keys(qtbot, window, "2")
    page = window.current
    fill(qtbot, page, "Stock size", "metric 24 × 30 cm")
    keys(qtbot, window, ENTER)
    wait_idle(window)
    full = c().compose.background.crop
    assert full.height == pytest.approx(300) and full.width == pytest.approx(240)
    keys(qtbot, page.crop_view, "-", "-", "-", "-", "-", Qt.Key.Key_Right)
    smaller = c().compose.background.crop
    assert smaller.width < full.width and smaller.width / smaller.height == pytest.approx(0.8)
    drag(page.crop_view, smaller.centre, (smaller.centre[0] + 20, smaller.centre[1]))
    assert c().compose.background.crop.x == pytest.approx(smaller.x + 20, abs=1)
    page.choices.button("lying").click()
    assert c().compose.background.crop.width / c().compose.background.crop.height == pytest.approx(1.25)
    keys(qtbot, window, (Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier))
    assert c().compose.height_mm == 300

    # Transfer: squares by keys, the sheets at true size.
    keys(qtbot, window, "3")
    page = window.current
    wait_idle(window)
    page.work_on("squares")
    fill(qtbot, page, "Across the short side", 4)
    keys(qtbot, window, Qt.Key.Key_Right, Qt.Key.Key_Down, SPACE)
    assert c().transfer.drawn == ((1, 1),)
    keys(qtbot, window, "f")
    assert page.frame.upside_down
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_: (str(tmp_path / "squares.pdf"), ""))
    page.bench.fold("On paper", False)
    press(qtbot, page, "Save the sheets (PDF)…")
    qtbot.waitUntil(lambda: len(c().log) == 1, timeout=20_000)
    sheet = pypdf.PdfReader(tmp_path / "squares.pdf")
    assert len(sheet.pages) >= 4, "squares, lines, what to rule, where to tick"
    while len(c().transfer.drawn) < 4 * 5:
        keys(qtbot, window, SPACE)
    assert door(window, "Transfer").state == "shut"

    # Tone: the study, and the ground.
    keys(qtbot, window, "4")
    page = window.current
    wait_idle(window)
    assert sum(page.found.studied.study.shares) == pytest.approx(1)
    keys(qtbot, window, ENTER)
    wait_idle(window)
    page.look_at_ground("raw umber wash")
    wait_idle(window)
    keys(qtbot, window, ENTER)
    assert c().tone.ground == "raw umber wash" and c().tone.laid_at == clock.now

    # Palette: the mean of a patch, named and mixed.
    keys(qtbot, window, "5")
    page = window.current
    wait_idle(window)
    click(page.string.reference, (100, 120))
    well = c().palette.wells[0]
    scale = reference(window).shape[1] / 240
    expected = patch_colour(reference(window), Rect(98 * scale, 118 * scale, 4 * scale, 4 * scale))
    assert well.lab == pytest.approx(expected[1], abs=1.5)
    wait_idle(window)
    keys(qtbot, window, ENTER)  # a starter box into the empty paintbox
    wait_idle(window)
    page.bench.fold("Change this well", False)
    fill(qtbot, page, "Name", "brow")
    fill(qtbot, page, "Mix, in parts", "ochre 2 : white 6")
    names = window.desk.studio.paintbox.names
    assert c().palette.wells[0].name == "brow"
    assert recipe_words(c().palette.wells[0].recipe, names) == "6 titanium white : 2 yellow ochre"
    page.setFocus()
    keys(qtbot, page, ENTER)
    assert c().palette.wells[0].mixed_on == clock.now.date()

    # Layers: background, fur and an eye as polygons; the school changes the order.
    keys(qtbot, window, "6")
    page = window.current
    wait_idle(window)
    for kind, corners in (("fur", ((40, 60), (200, 60), (200, 280), (40, 280))), ("eye", ((80, 100), (110, 100), (95, 120)))):
        page.drawing.choose_region(0)
        fill(qtbot, page, "A new part is", kind)
        keys(qtbot, window, "d")
        for corner in corners:
            click(page.drawing.view, corner)
        keys(qtbot, window, ENTER, ENTER)
    assert [r.kind for r in c().layers.regions] == ["fur", "background", "eye"]
    assert abs(min(x for x, _ in c().layers.regions[0].outline) - 40) < 0.6
    page.work_on("score")
    first = page.scoring.chart.score.passes[3].name
    page.choices.button("last", "Eyes").click()
    assert page.scoring.chart.score.passes[3].name != first
    page.choices.button("first", "Eyes").click()

    # Easel: every pass over dry paint, hours on record.
    keys(qtbot, window, "7")
    page = window.current
    while page.view.paint is not None:
        if page.view.dry_mood == "wrong":
            clock.now += timedelta(minutes=30)
            page.refresh()
            continue
        keys(qtbot, window, SPACE)
        assert page.view.running
        clock.now += timedelta(minutes=20)
        keys(qtbot, window, ENTER)
    assert len(c().easel.finished) == len(time_entries(c().log)) == 15
    csv_lines = hours_csv(desk).strip().splitlines()
    assert len(csv_lines) == 16 and ",20.0," in csv_lines[1]

    # Check: the painting beside the crop.
    keys(qtbot, window, "8")
    window.take_files([cat_file])
    qtbot.waitUntil(lambda: c().check.photo_id != "", timeout=20_000)
    page = window.current
    wait_idle(window)
    page.work_on("looking")
    keys(qtbot, window, "f")
    assert page.looking.frame.mirrored and page.looking.reference.frame is page.looking.painting.frame
    keys(qtbot, window, "g", "b")
    wait_idle(window)
    page.looking.blink_now()
    assert page.looking.painting.isVisible() and not page.looking.reference.isVisible()
    keys(qtbot, window, ESC)
    assert door(window, "Check").state == "shut"

    # Deliver: every date on record.
    keys(qtbot, window, "9", ENTER, ENTER)
    page = window.current
    assert c().deliver.signed and c().deliver.rest_from
    assert page.bench.sheet.act.title == "Back to the studio" and "rests until" in page.bench.sheet.act.detail
    clock.now += timedelta(hours=25)
    page.refresh()
    keys(qtbot, window, ENTER)
    fill(qtbot, page, "To mend in the last sitting", "soften the whiskers")
    press(qtbot, page, "Put it on the list")
    page.bench.line("soften the whiskers").click()
    clock.now += timedelta(days=4)
    page.refresh()
    page.setFocus()  # leave the field
    keys(qtbot, window, ENTER)
    clock.now += timedelta(hours=3)
    page.refresh()
    keys(qtbot, window, ENTER)
    clock.now += timedelta(hours=24)
    page.refresh()
    keys(qtbot, window, ENTER, ENTER)
    assert c().deliver.delivered == clock.now
    assert [d.state for d in desk.standings.of(cid, clock()).doors] == ["shut"] * 9

    # Quit and reopen in the same place; undo reaches back over the restart.
    folder = desk.store.folder
    window.end()
    desk.store.close()
    store = Store(folder, clock().date())
    again = Desk(store, clock)
    second = Window(again, workers)
    qtbot.addWidget(second)
    assert (second.commission_id, second.door) == (cid, "Deliver")
    second.show()
    keys(qtbot, second, (Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier))
    assert again.commission(cid).deliver.delivered is None
    assert "Delivered it" in second.message.text
    keys(qtbot, second, (Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier | Qt.KeyboardModifier.ShiftModifier))
    assert again.commission(cid).deliver.delivered == clock.now
    second.close()
    store.close()


def test_bad_files_are_said_and_the_good_ones_taken(qtbot, started, wait_idle, cat_file, tmp_path):
    window = started
    (tmp_path / "empty.jpg").write_bytes(b"")
    (tmp_path / "letter.png").write_text("Dear painter")
    window.take_files([tmp_path / "empty.jpg", cat_file, tmp_path / "letter.png"])
    qtbot.waitUntil(lambda: "letter.png" in window.message.text, timeout=20_000)
    wait_idle(window)
    assert "empty.jpg" in window.message.text
    assert [p.name for p in window.desk.commission(window.commission_id).intake.photos] == ["cat.jpg"]


def test_a_door_is_waived_with_a_reason_that_is_kept(qtbot, started):
    window = started
    page = window.current
    press(qtbot, page, "Waive this door")
    assert "no reason" in window.message.text
    fill(qtbot, page, "Waive it all the same, because", "the client brings prints")
    press(qtbot, page, "Waive this door")
    assert door(window, "Intake").state == "waived"
    assert "the client brings prints" in str(page.bench.sheet)
    keys(qtbot, window, "9")
    assert "the client brings prints" in str(window.current.bench.sheet)
    assert window.desk.commission(window.commission_id).doors.waived[0].on == NOON.date()
