"""Carrying the drawing with mouse and keys: the lines, their ticks on the squares, what goes on paper."""

import xml.etree.ElementTree as ET
from dataclasses import replace

import cv2
import numpy as np
import pypdf
import pytest
from PIL import Image
from PySide6.QtWidgets import QFileDialog

from tests.doing import do_part
from tests.journeys.hands import click, drag, fill, keys, path, press
from tests.ui.rooms.doing import ENTER, ESC, SPACE, UNDO, now
from yarrow_lane.intake.landmarks import Landmark
from yarrow_lane.intake.photos import change_photo
from yarrow_lane.standins.camera import Taking, drawn_on, photograph


def test_lines_are_taken_dropped_drawn_and_taken_back(qtbot, lined, wait_idle):
    window, page = lined, lined.current
    page.work_on("lines")
    wait_idle(window)
    mode, count = page.modes["lines"], len(page.lines)
    assert page.bench.sheet.act.title == "Take these lines"
    keys(qtbot, window, ENTER)
    assert now(window).transfer.lines.made_from and page.mode.name == "which way"
    page.work_on("lines")
    longest = max(page.lines, key=lambda line: len(line.points))
    click(mode.canvas, longest.points[len(longest.points) // 2])
    wait_idle(window)
    assert len(now(window).transfer.lines.dropped) == 1 and len(page.lines) < count
    click(mode.canvas, (2, 2))
    assert "there is none" in window.message.text
    keys(qtbot, window, "d")
    path(mode.canvas, [(40, 40), (60, 45), (90, 40), (120, 48)])
    wait_idle(window)
    assert len(now(window).transfer.lines.by_hand) == 1 and any(line.source == "hand" for line in page.lines)
    keys(qtbot, window, UNDO, UNDO)
    wait_idle(window)
    assert not now(window).transfer.lines.touched and len(page.lines) == count
    fill(qtbot, page, "Of all lines, from outline on", 100.0)
    wait_idle(window)
    assert len(page.lines) > count
    page.choices.button("fewer here").click()
    path(mode.canvas, [(10 + 100 * np.cos(t) + 100, 10 + 120 * np.sin(t) + 120) for t in np.linspace(0, 6.2, 40)])
    wait_idle(window)
    assert len(now(window).transfer.lines.there) == 1


def test_ticks_and_words_follow_the_square_and_the_way_it_is_seen(qtbot, lined):
    window, page = lined, lined.current
    page.work_on("squares")
    mode = page.squaring
    fill(qtbot, page, "Across the short side", 4)
    crowded = max(
        mode.view.squares.all,
        key=lambda s: sum(mode.view.squares.rect(*s).holds(p) for line in page.lines for p in line.points),
    )
    click(mode.canvas, mode.view.squares.rect(*crowded).centre)
    sides, places = mode.sides.text().split("\n"), mode.places.text().split("\n")
    assert len(sides) == len(places) >= 2 and all("edge" in s or s == "through" or "middle" in s for s in sides)
    before = dict(zip(sides, places, strict=True))
    keys(qtbot, window, "f")
    after = mode.sides.text().split("\n")
    swap = {"left edge": "right edge", "right edge": "left edge", "top edge": "bottom edge", "bottom edge": "top edge"}
    assert sorted(after) == sorted(swap.get(s, s) for s in sides), "upside down the left edge is the right one"
    keys(qtbot, window, "f")
    assert dict(zip(mode.sides.text().split("\n"), mode.places.text().split("\n"), strict=True)) == before
    keys(qtbot, window, "q")
    quartered = now(window).transfer.quartered
    keys(qtbot, window, "q")
    assert (crowded in quartered) != (crowded in now(window).transfer.quartered)


def test_rows_and_all_up_to_here_are_marked_at_once(qtbot, lined):
    window, page = lined, lined.current
    page.work_on("squares")
    fill(qtbot, page, "Across the short side", 4)  # 4 x 5
    click(page.squaring.canvas, (100, 100))
    press(qtbot, page, "Mark the row drawn")
    assert now(window).transfer.drawn == ((0, 1), (1, 1), (2, 1), (3, 1))
    click(page.squaring.canvas, (70, 130))
    press(qtbot, page, "All up to here are drawn")
    assert len(now(window).transfer.drawn) == 10 and page.squaring.square == (2, 2)
    keys(qtbot, window, SPACE)
    assert len(now(window).transfer.drawn) == 11


def test_squares_and_lines_go_on_paper_at_true_size(qtbot, lined, wait_idle, tmp_path, monkeypatch):
    window, page = lined, lined.current
    page.work_on("squares")
    fill(qtbot, page, "Across the short side", 4)
    page.bench.fold("On paper", False)
    for name, words in (
        ("s.pdf", "Save the sheets (PDF)…"),
        ("s.png", "Save the squared picture (PNG)…"),
        ("s.svg", "Save squares and lines (SVG)…"),
    ):
        monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_, n=name: (str(tmp_path / n), ""))
        press(qtbot, page, words)
        wait_idle(window)
    text = "".join(p.extract_text() for p in pypdf.PdfReader(tmp_path / "s.pdf").pages)
    assert "the lines to draw" in text and "from the left" in text and "edge" in text
    with Image.open(tmp_path / "s.png") as picture:
        assert picture.width / picture.info["dpi"][0] * 25.4 == pytest.approx(174, abs=1), "as wide as on the sheet"
    root = ET.parse(tmp_path / "s.svg").getroot()
    assert root.get("width") == "240mm" and root.get("viewBox") == "0 0 240 300"
    lines = list(root.iter("{http://www.w3.org/2000/svg}polyline"))
    first = np.array([tuple(map(float, p.split(","))) for p in lines[0].get("points").split()])
    assert len(lines) >= len(page.lines) and np.abs(first - np.array(page.lines[0].points[: len(first)])).max() < 0.006


def test_a_projector_is_set_up_checked_and_shows_the_lines(qtbot, lined, wait_idle):
    window, page = lined, lined.current
    page.work_on("projector")
    mode = page.modes["projector"]
    page.bench.fold("Your projector", False)
    fill(qtbot, page, "Light, lumens", 500.0)
    fill(qtbot, page, "Light of the room, lux", 600.0)
    said = str(page.bench.sheet)
    assert window.desk.studio.equipment.room_lux == 600 and "Line against ground" in said
    fill(qtbot, page, "Light, lumens", 0.0)
    assert "Nothing can be projected" in str(page.bench.sheet) and mode.view.beam is None
    fill(qtbot, page, "Light, lumens", 500.0)
    assert mode.view.beam is not None and len(mode.view.beam.lights) == 3
    page.bench.fold("Does it stand square?", False)
    for label, value in zip(
        ("Top, cross to cross", "Foot", "Across, top left to lower right", "Across, lower left to top right"),
        ("24 cm", "23 cm", "38.4 cm", "38.4 cm"),
        strict=True,
    ):
        fill(qtbot, page, label, value)
    assert "The top is 10 mm wider" in str(page.bench.sheet), "though both diagonals are equal"
    page.bench.fold("Knocked?", False)
    fill(qtbot, page, "Cross top left: the light is right by", 5.0)
    fill(qtbot, page, "Cross lower right: right by", 5.0)
    assert "Slide the light 5 mm left." in str(page.bench.sheet)
    page.bench.act.click()
    screen = mode.screen
    qtbot.waitUntil(lambda: screen.isVisible())
    shown = screen.grab().toImage()
    assert shown.pixelColor(1, 1).lightness() == 0
    lit = sum(shown.pixelColor(x, y).lightness() > 200 for x in range(0, shown.width(), 4) for y in range(0, shown.height(), 4))
    assert lit > 30, "the lines are there"
    keys(qtbot, screen, "+", "c", "b")
    assert screen.thick_px == 4 and screen.colour == 1 and screen.blinking
    with qtbot.waitSignal(screen.destroyed):
        keys(qtbot, screen, ESC)


def test_lines_and_the_picture_go_on_sheets_of_true_size(qtbot, lined, wait_idle, tmp_path, monkeypatch):
    window, page = lined, lined.current
    page.work_on("on paper")
    mode = page.modes["on paper"]
    assert (mode.laid.columns, mode.laid.rows) in ((2, 2), (1, 2), (2, 1)), "24 x 30 cm on A4"
    page.bench.fold("Your printer", False)
    fill(qtbot, page, "100 mm came out across", 99.3)
    assert window.desk.studio.equipment.printer.across_mm == 99.3
    fill(qtbot, page, "and along", 85.0)
    assert "print at 100 %" in window.message.text and window.desk.studio.equipment.printer.along_mm == 100
    for number, what in enumerate(("the lines", "the picture")):
        page.choices.button(what).click()
        wait_idle(window)
        monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_, n=number: (str(tmp_path / f"{n}.pdf"), ""))
        page.bench.act.click()
        wait_idle(window)
        assert len(pypdf.PdfReader(tmp_path / f"{number}.pdf").pages) == len(mode.laid.sheets) + 1
    assert [h.what for h in now(window).log] == ["lines at true size on A4", "picture at true size on A4"]


def test_a_photographed_drawing_is_measured_and_the_next_one_compared(qtbot, lined, wait_idle, tmp_path):
    window, page = lined, lined.current
    desk, size = window.desk, (240.0, 300.0)
    photo = now(window).intake.photos[0]
    spots = {
        "nose tip": (470, 420),
        "chin": (470, 520),
        "left ear tip": (260, 60),
        "right ear tip": (660, 90),
        "crown": (460, 110),
    }
    marked = replace(photo, landmarks=tuple(Landmark(name, *at) for name, at in spots.items()))
    do_part(desk, window.commission_id, "marks", "intake", lambda i: change_photo(i, marked))
    wait_idle(window)
    lines = page.lines

    def file(seed, shift):
        def draw(picture, px):
            for line in lines:
                points = (np.array(line.points) + shift) * px
                cv2.polylines(
                    picture,
                    [np.rint(points * 16).astype(np.int32)],
                    False,
                    (70, 60, 55),
                    max(1, round(0.8 * px)),
                    cv2.LINE_AA,
                    4,
                )

        shot = photograph(drawn_on(*size, 4.0, seed, draw=draw), *size, seed, Taking(aside=15, longer_px=1600))
        path = tmp_path / f"drawing{seed}.png"
        Image.fromarray(shot.picture).save(path)
        return path, shot.corners(*size)

    page.work_on("measure")
    mode = page.measuring
    path, corners = file(1, (2.0, 5.0))
    window.take_files([path])
    wait_idle(window)
    assert len(now(window).transfer.photos) == 1 and len(now(window).intake.photos) == 1, "it is no photograph of the client's"
    for number, corner in enumerate(corners):
        drag(mode.drawing, mode.photo.corners[number], tuple(corner))
    assert np.abs(np.array(mode.photo.corners) - corners).max() < 4
    keys(qtbot, window, ENTER)
    wait_idle(window)
    verdict = mode.told().verdict
    assert verdict is not None and verdict.whole.shift == pytest.approx((2.0, 5.0), abs=1.0)
    assert all(p.mm < 2.5 for p in verdict.places), "only the whole is low"
    assert "low" in str(page.bench.sheet) and page.bench.sheet.act.title.startswith("Note it")
    keys(qtbot, window, ENTER)
    assert now(window).transfer.photos[0].off
    drag(mode.drawing, verdict.places[0].drawn, (verdict.places[0].drawn[0] + 9, verdict.places[0].drawn[1]))
    wait_idle(window)
    worst = mode.told().verdict.places[0]
    assert worst.by_hand and worst.mm > 5 and "too far right" in worst.words
    path, _ = file(2, (0.0, 0.0))
    window.take_files([path])
    wait_idle(window)
    assert len(now(window).transfer.photos) == 2 and mode.look == "corners"
    keys(qtbot, window, ENTER)
    wait_idle(window)
    assert mode.trouble or mode.flat is not None, "corners left where they were put first are measured or refused in words"


def test_what_is_no_drawing_is_said_and_the_door_stays_usable(qtbot, lined, wait_idle, tmp_path):
    window, page = lined, lined.current
    page.work_on("measure")
    path = tmp_path / "wall.png"
    Image.fromarray(np.full((600, 800, 3), 140, np.uint8)).save(path)
    window.take_files([path])
    wait_idle(window)
    keys(qtbot, window, ENTER)
    wait_idle(window)
    assert "not recognised" in str(page.bench.sheet) and page.bench.sheet.act.title == "Look at the corners"
    keys(qtbot, window, ENTER)
    assert page.measuring.look == "corners"
    bad = tmp_path / "no.png"
    bad.write_bytes(b"nothing")
    window.take_files([bad])
    wait_idle(window)
    assert "no.png" in window.message.text and len(now(window).transfer.photos) == 1
