"""Choosing how to carry the drawing over, and the ways themselves, with mouse and keys."""

import xml.etree.ElementTree as ET

import cv2
import numpy as np
import pypdf
import pytest
from PIL import Image
from PySide6.QtWidgets import QFileDialog

from tests.journeys.hands import click_way, drag, fill, keys, path, press
from tests.ui.rooms.doing import ENTER, UNDO, now
from yarrow_lane.lane.happening import Photographed, of_kind
from yarrow_lane.standins.camera import Taking, drawn_on, photograph
from yarrow_lane.standins.surface import DARK_INK, marked, painted, scribbles
from yarrow_lane.transfer.record import ways_of
from yarrow_lane.transfer.ways import WAYS, Ways

SIZE = (240.0, 300.0)


def save_to(monkeypatch, target):
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_: (str(target), ""))
    return target


def test_the_advice_is_taken_done_and_learnt_from(qtbot, lined, wait_idle, tmp_path, monkeypatch):
    window, page = lined, lined.current
    assert page.mode is page.choosing and page.bench.sheet.act.title.startswith("Carry it over by")
    assert page.bench.sheet.act.title == page.standing().act.title, "the studio says the same"
    keys(qtbot, window, ENTER)
    assert ways_of(now(window).transfer).chosen and page.mode.name == "on paper"
    save_to(monkeypatch, tmp_path / "sheets.pdf")
    keys(qtbot, window, ENTER)
    wait_idle(window)
    assert (tmp_path / "sheets.pdf").exists() and page.bench.sheet.act.title == "The drawing is on the canvas"
    for minutes in (80.0, 120.0):  # twice: the second after it was taken back
        fill(qtbot, page, "It took, minutes", minutes)
        assert "notes" in page.bench.sheet.act.detail
        keys(qtbot, window, ENTER)
        assert page.standing().act is None and page.bench.sheet.act.title == "Go on to Tone"
        press(qtbot, page, "It is not on the canvas after all")
    assert [s.took for s in window.desk.studio.stints] == [80.0, 120.0]
    page.work_on("which way")
    taken = next(row for row in page.choosing.view.rows if row.taken_for)
    assert taken.offer.own and taken.taken_for == "all of it"
    assert "Your own times known" in str(page.bench.sheet)


def test_two_ways_share_the_work_and_each_is_done(qtbot, lined, wait_idle):
    window, page = lined, lined.current
    click_way(page, "squares")
    assert ways_of(now(window).transfer) == Ways("squares", "squares")
    page.choices.button("the outline").click()
    click_way(page, "by eye")
    assert now(window).transfer.ways == Ways("by eye", "squares")
    assert page.bench.sheet.act.title == "Draw the outline by eye"
    keys(qtbot, window, ENTER)
    assert page.mode.name == "by eye"
    press(qtbot, page, "The outline is on the canvas")
    keys(qtbot, window, ENTER)
    assert page.mode.name == "squares" and page.bench.sheet.act.title.startswith("Take ")
    keys(qtbot, window, ENTER)
    assert now(window).transfer.count and "eyes, nose and mouth" in page.bench.sheet.act.detail
    press(qtbot, page, "Eyes, nose and mouth are on the canvas")
    assert page.standing().act is None and "by eye, then squares" in page.standing().fact
    keys(qtbot, window, UNDO)
    assert page.standing().act is not None
    page.work_on("projector")
    press(qtbot, page, "Carry it over this way")
    assert now(window).transfer.ways == Ways("projector", "projector"), "the painter's choice stands"
    assert len(page.choosing.view.rows) == len(WAYS)


@pytest.fixture
def marks_photos(tmp_path):
    """Files: bare marks, the same half painted, another canvas; and where the corners are on each."""
    strokes = scribbles(*SIZE, 40, 6)
    bare = drawn_on(*SIZE, 4.0, 6, (205.0, 180.0, 150.0))
    first = marked(bare, 4.0, strokes, DARK_INK, 6)
    half = painted(first, np.full((300, 240, 3), (120, 110, 90), np.uint8), 4.0, strokes, 0.4, 6)
    other = marked(bare, 4.0, scribbles(*SIZE, 40, 9), DARK_INK, 9)
    files = []
    for number, canvas in enumerate((first, half, other)):
        shot = photograph(canvas, *SIZE, 60 + number, Taking(aside=12, longer_px=1600, depth_mm=0.0))
        target = tmp_path / f"marks{number}.jpg"
        Image.fromarray(shot.picture).save(target, quality=92)
        files.append((target, shot.corners(*SIZE)))
    return files


def test_marks_are_photographed_laid_over_and_found_again(qtbot, lined, wait_idle, marks_photos, tmp_path, monkeypatch):
    window, page = lined, lined.current
    page.work_on("marks")
    mode = page.marking

    def take(number):
        file, corners = marks_photos[number]
        window.take_files([file])
        wait_idle(window)
        assert mode.look == "corners"
        for n, corner in enumerate(corners):
            if np.hypot(*(np.array(mode.photos[-1].corners[n]) - corner)) > 3:
                drag(mode.surface, mode.photos[-1].corners[n], tuple(corner))
        assert np.abs(np.array(mode.photos[-1].corners) - corners).max() < 5
        keys(qtbot, window, ENTER)
        wait_idle(window)

    take(0)
    assert mode.laid is not None and len(mode.laid.marks) > 100 and not mode.trouble
    shown = mode.surface.levels.images[0]
    assert (shown.width(), shown.height()) == (480, 600), "the canvas straightened, with the reference over it"
    page.choices.button("lines", of="Laid over").click()
    wait_idle(window)
    assert mode.surface.ground is None and mode.surface.overlays[0].colour not in ((40, 32, 28), (244, 240, 228))
    assert mode.surface.overlays and "Save it on a page (PDF)…" in str(page.bench.sheet)
    target = save_to(monkeypatch, tmp_path / "over.pdf")
    press(qtbot, page, "Save it on a page (PDF)…")
    wait_idle(window)
    (sheet,) = pypdf.PdfReader(target).pages
    assert "draw where its lines meet the marks" in sheet.extract_text() and len(sheet.images) == 1
    take(1)
    assert mode.laid.why_not == "" and mode.laid.agreeing >= 15 and mode.laid.rest_mm < 0.9
    assert "They disagree by" in str(page.bench.sheet)
    take(2)
    assert mode.laid.why_not and "Not laid on by its marks" in str(page.bench.sheet), "another canvas: said, not guessed"
    logged = of_kind(now(window).log, Photographed)
    assert [h.purpose for h in logged] == ["marks"] * len(logged) and len({h.photo_id for h in logged}) == 3
    assert all(len(h.corners) == 4 for h in logged)
    page.bench.fold("Photographs of the marks", False)
    press(qtbot, page, "Begin with new marks")
    assert now(window).transfer.marked_surface == ()


def test_the_camera_stand_in_shows_each_state_of_the_canvas(qtbot, lined, wait_idle):
    window, page = lined, lined.current
    page.work_on("measure")
    press(qtbot, page, "Try it with the camera stand-in")
    wait_idle(window)
    assert now(window).transfer.photos[0].name.startswith("camera stand-in")
    keys(qtbot, window, ENTER)
    wait_idle(window)
    mode = page.measuring
    assert mode.flat is not None or mode.trouble
    if mode.flat is not None and mode.told().verdict.places:
        assert mode.loupes.isVisible()
        keys(qtbot, window, "b")
        wait_idle(window)
        assert mode.fade == 0.5
        keys(qtbot, window, "b", "b")
        assert mode.fade == 0.0


def test_film_is_laid_round_the_sitters_and_saved(qtbot, placed, wait_idle, tmp_path, monkeypatch):
    window = placed
    keys(qtbot, window, "3")
    wait_idle(window)
    page = window.current
    page.work_on("film")
    names = [p.name for p in now(window).compose.pieces]
    assert len(names) >= 2 and page.bench.sheet.act.title == "Save the outline (PDF)…"
    both = len(page.modes["film"].view.overlays)
    page.bench.line(names[0]).click()
    assert len(page.modes["film"].view.overlays) <= both and now(window).transfer.film.pieces is not None
    fill(qtbot, page, "Larger by", -2.0)
    assert now(window).transfer.film.allowance_mm == -2.0
    target = save_to(monkeypatch, tmp_path / "film.svg")
    press(qtbot, page, "Save it for a plotter (SVG)…")
    wait_idle(window)
    ring = ET.parse(target).getroot().find(".//{http://www.w3.org/2000/svg}polyline").get("points").split()
    assert len(ring) > 20 and ring[0] == ring[-1], "closed"
    target = save_to(monkeypatch, tmp_path / "film.pdf")
    keys(qtbot, window, ENTER)
    wait_idle(window)
    assert len(pypdf.PdfReader(target).pages) >= 2 and "away from the hand" in str(page.bench.sheet)
    for name in names[1:]:
        page.bench.line(name).click()
    assert "nothing is left of it" in str(page.bench.sheet) and page.bench.sheet.act.title != "Save the outline (PDF)…"


def test_checks_by_eye_are_walked_and_own_lengths_measured(qtbot, lined, wait_idle):
    page = lined.current
    page.work_on("by eye")
    wait_idle(lined)
    mode = page.modes["by eye"]
    assert "Mark eyes, nose" in str(page.bench.sheet), "nothing is marked yet: said"
    page.choices.button("own measures").click()
    drag(mode.reference, (50, 60), (150, 60))
    assert (
        mode.own
        and "Measure 1" in str(page.bench.sheet)
        and "10\\u202fcm" in ascii(str(page.bench.sheet)).replace("\\\\", "\\")
    )
    assert mode.canvas.overlays == mode.reference.overlays, "the same on both"
    page.choices.button("shapes between").click()
    assert "Cut a sitter out" in str(page.bench.sheet)


def test_a_sketch_on_paper_is_laid_on_the_canvas_and_printed(qtbot, lined, wait_idle, tmp_path, monkeypatch):
    window, page = lined, lined.current
    page.work_on("on paper")
    page.choices.button("a sketch of yours").click()
    assert page.bench.sheet.act.title == "Choose the sketch…"
    assert page.modes["on paper"].view.ground is None, "the words on the empty view are seen, not a bare sheet"

    def draw(picture, px):
        cv2.circle(picture, (round(96 * px), round(120 * px)), round(50 * px), (60, 60, 60), round(0.7 * px), cv2.LINE_AA)

    paper = (192.0, 240.0)
    shot = photograph(
        drawn_on(*paper, 5.0, 3, (244.0, 242.0, 236.0), draw), *paper, 9, Taking(aside=8, depth_mm=0.0, longer_px=1600)
    )
    file = tmp_path / "sketch.jpg"
    Image.fromarray(shot.picture).save(file)
    window.take_files([file])
    wait_idle(window)
    mode = page.modes["on paper"]
    shown = mode.view.content
    for what in ("the lines", "a sketch of yours"):  # to look elsewhere in between loses nothing
        page.choices.button(what).click()
        wait_idle(window)
    assert mode.view.content == shown and mode.view.levels is not None
    for n, corner in enumerate(shot.corners(*paper)):
        if np.hypot(*(np.array(now(window).transfer.sketch.corners[n]) - corner)) > 3:
            drag(mode.view, now(window).transfer.sketch.corners[n], tuple(corner))
    keys(qtbot, window, ENTER)
    wait_idle(window)
    rows, columns = np.nonzero(mode.sketch.clean[..., 0] < 128)
    px = mode.sketch.clean.shape[1] / 240
    away = np.hypot(columns / px - 120, rows / px - 150)
    assert np.median(away) == pytest.approx(62.5, abs=1.5), "the circle, scaled from paper to canvas"
    target = save_to(monkeypatch, tmp_path / "sketch.pdf")
    keys(qtbot, window, ENTER)
    wait_idle(window)
    assert len(pypdf.PdfReader(target).pages) == len(mode.laid.sheets) + 1


def test_lines_are_joined_and_smoothed_by_hand(qtbot, lined, wait_idle):
    window, page = lined, lined.current
    page.work_on("lines")
    mode, count = page.modes["lines"], len(page.lines)
    keys(qtbot, window, "d")
    path(mode.canvas, [(15, 15), (40, 16), (60, 15)])
    wait_idle(window)
    path(mode.canvas, [(75, 15), (100, 16), (120, 15)])
    wait_idle(window)
    assert len(page.lines) == count + 2
    keys(qtbot, window, "j")
    path(mode.canvas, [(60, 15), (67, 15), (75, 15)])
    wait_idle(window)
    assert len(now(window).transfer.lines.by_hand) == 1 and len(page.lines) == count + 1
    long = np.array(now(window).transfer.lines.by_hand[0])
    assert np.ptp(long[:, 0]) > 95
    keys(qtbot, window, "s")
    mode_point = tuple(long[len(long) // 2])
    path(mode.canvas, [mode_point])
    wait_idle(window)
    assert len(now(window).transfer.lines.by_hand) == 1
    path(mode.canvas, [(235, 295)])
    assert "click on a line" in window.message.text or len(page.lines) == count + 1


def test_the_projector_is_checked_from_a_photograph_of_its_crosses(qtbot, lined, wait_idle, tmp_path):
    from tests.rooms.transfer import test_crosses as wall

    window, page = lined, lined.current
    page.work_on("projector")
    page.choices.button("a photograph of the crosses").click()
    assert page.bench.sheet.act.title == "Choose a photograph of the crosses…"
    places = tuple((x * 0.6, y * 0.6) for x, y in wall.KEYSTONE)
    shot = photograph(wall.lit_wall(wall.KEYSTONE), 560.0, 660.0, 4, Taking(aside=8, depth_mm=0.0, longer_px=1600))
    file = tmp_path / "crosses.png"
    Image.fromarray(shot.picture).save(file)
    window.take_files([file])
    wait_idle(window)
    mode = page.modes["projector"].crosses
    corners = shot.px(np.array([(80.0, 80.0), (480.0, 80.0), (480.0, 580.0), (80.0, 580.0)]))
    for n, corner in enumerate(corners):
        if np.hypot(*(np.array(mode.photo.corners[n]) - corner)) > 3:
            drag(mode.view, mode.photo.corners[n], tuple(corner))
    keys(qtbot, window, ENTER)
    wait_idle(window)
    assert not mode.unknown and np.abs(np.array(mode.places) - np.array(places)).max() < 2
    assert "wider" in str(page.bench.sheet) and of_kind(now(window).log, Photographed)[-1].purpose == "crosses"
    rim = mode.asked.found.rim_mm
    drag(mode.view, (mode.places[0][0] + rim, mode.places[0][1] + rim), (rim, rim))
    assert np.abs(np.array(mode.places[0])).max() < 1, "a hand puts a cross right"


def test_enter_takes_the_squares_that_the_yellow_field_names(qtbot, lined, wait_idle):
    window, page = lined, lined.current
    click_way(page, "squares")
    wait_idle(window)
    assert page.mode is page.choosing and page.bench.sheet.act.title == "Take 8 × 10 squares"
    keys(qtbot, window, ENTER)
    assert page.mode.name == "squares" and now(window).transfer.count == 8
    assert page.bench.sheet.act.title == "Draw square A1"
