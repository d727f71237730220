"""The layers room by mouse and keys: from a photograph to the score, the lie, patches, Play and papers."""

import math
from functools import partial

import cv2
import numpy as np
import pypdf
import pytest
from PySide6.QtCore import QPointF, Qt
from PySide6.QtGui import QMouseEvent
from PySide6.QtWidgets import QFileDialog

from tests.conftest import jpeg_of
from tests.doing import do_part, photo_from_file
from tests.journeys.hands import click, fill, keys, path, press, send
from tests.rooms.layers.sitters import sitter
from tests.ui.rooms.doing import ENTER, ESC, UNDO, draw, now
from yarrow_lane.compose.composition import set_size
from yarrow_lane.easel.session import EASEL, finish_pass
from yarrow_lane.intake.landmarks import Landmark
from yarrow_lane.intake.photos import Eye, add_photo, mark_eye, mark_landmark, set_use
from yarrow_lane.lane.part import Edit
from yarrow_lane.layers.regions import area_cm2, region_at
from yarrow_lane.ui.kit.levels import array_of

LEFT, RIGHT, UP = Qt.Key.Key_Left, Qt.Key.Key_Right, Qt.Key.Key_Up


@pytest.fixture
def cat(qtbot, window, commission_id, wait_idle):
    """The made-up cat on 40 x 50 cm with its marks, at Layers."""
    s, desk = sitter("cat1"), window.desk
    photo = photo_from_file(desk, jpeg_of(s.picture), "cat.jpg")
    do_part(desk, commission_id, "in", "intake", lambda i: add_photo(i, photo))
    do_part(desk, commission_id, "lead", "intake", lambda i: set_use(i, photo.id, "lead"))
    for side, (x, y, r) in s.marks.eyes.items():
        do_part(desk, commission_id, "e", "intake", partial(mark_eye, photo_id=photo.id, eye=Eye(side, x, y, r)))
    for name, (x, y) in s.marks.points.items():
        do_part(desk, commission_id, "m", "intake", partial(mark_landmark, photo_id=photo.id, mark=Landmark(name, x, y)))
    do_part(desk, commission_id, "size", "compose", lambda c: set_size(c, 400, 500))
    window.open_door(commission_id, "Compose")
    wait_idle(window)
    keys(qtbot, window, ENTER)
    wait_idle(window)
    keys(qtbot, window, "6")
    wait_idle(window)
    return window


def loop(x, y, rx, ry, n=30):
    return [(x + rx * math.cos(2 * math.pi * k / n), y + ry * math.sin(2 * math.pi * k / n)) for k in range(n + 1)]


def line(a, b, n=14):
    return [(a[0] + (b[0] - a[0]) * k / n, a[1] + (b[1] - a[1]) * k / n) for k in range(n + 1)]


def total(window):
    return sum(area_cm2(r) for r in now(window).layers.regions if r.rings)


def test_a_cat_from_photograph_to_score_in_eight_strokes(qtbot, cat, wait_idle):
    page, s = cat.current, sitter("cat1")
    assert page.mode.name == "regions" and not now(cat).layers.regions
    shown = {r.name for r in page.drawing.layers.regions}
    assert {"background", "head", "body", "nose"} <= shown and sum("ear" in n for n in shown) == 2
    assert page.bench.sheet.act.title == "Take these regions" and "Guessed" in str(page.bench.sheet)
    keys(qtbot, cat, ENTER)
    assert total(cat) == pytest.approx(2000, abs=0.01) and not now(cat).layers.proposed
    strokes = 0
    for side, (x, y, r) in s.marks.eyes.items():  # each eye drawn anew
        eye = region_at(now(cat).layers, (x / 2, y / 2))
        assert eye.kind == "eye", side
        page.drawing.choose_region(eye.id)
        path(page.drawing.view, loop(x / 2, y / 2, 1.15 * r / 2, r / 2))
        strokes += 1
        now_eye = now(cat).layers.region(eye.id)
        assert area_cm2(now_eye) == pytest.approx(math.pi * 1.15 * (r / 2) ** 2 / 100, rel=0.08)
    page.drawing.choose_region(0)
    body = next(r for r in now(cat).layers.regions if r.part == "body")
    b = body.bounds
    path(page.drawing.view, line((b.x - 3, 440), (b.right + 3, 446)))
    strokes += 1
    assert len([r for r in now(cat).layers.regions if r.kind == "fur"]) == 5, "the body is cut in two"
    assert total(cat) == pytest.approx(2000, abs=0.01)
    keys(qtbot, cat, UNDO)
    assert len([r for r in now(cat).layers.regions if r.kind == "fur"]) == 4
    for name in ("lie of the fur", "patches", "score"):
        wait_idle(cat)
        assert page.bench.sheet.act.title.startswith(("Go on", "Take these patches")), page.bench.sheet.act
        while page.mode.name != name:
            keys(qtbot, cat, ENTER)
            wait_idle(cat)
    passes = page.scoring.chart.score.passes
    assert strokes <= 8 and len(passes) > 30 and passes[-1].role == "glint"
    assert page.bench.sheet.act.title == f"Paint {passes[0].title}"
    keys(qtbot, cat, ENTER)
    assert cat.door == "Easel"


def test_a_stroke_says_what_it_does_before_the_button_is_released(qtbot, cat, wait_idle):
    page = cat.current
    view = page.drawing.view
    places = [view.to_screen(p) for p in loop(200, 430, 25, 20)]
    send(view, QMouseEvent.Type.MouseButtonPress, places[0])
    for place in places[1:]:
        send(view, QMouseEvent.Type.MouseMove, place)
    assert any("a part of" in getattr(o, "text", "") for o in page.drawing.hand.overlays)
    keys(qtbot, cat, ESC)
    send(view, QMouseEvent.Type.MouseButtonRelease, places[-1], Qt.MouseButton.NoButton)
    assert not now(cat).layers.regions, "Esc gave the line up"
    fill(qtbot, page, "A new part is", "cloth")
    path(view, loop(200, 430, 25, 20))
    regions = now(cat).layers.regions
    assert regions[-1].kind == "cloth" and len(regions) > 5, "the first stroke takes the proposal too"
    body = next(r for r in regions if r.part == "body")
    page.drawing.choose_region(body.id)
    path(view, line((190, 430), (210, 431)))
    wait_idle(cat)
    assert region_at(now(cat).layers, (200, 430)).id == body.id, "a short stroke names what lies there"
    keys(qtbot, cat, ESC)
    click(view, (200, 440))
    assert page.drawing.region_id == body.id
    fill(qtbot, page, "Painted as", "long fur")
    fill(qtbot, page, "Name", "the coat")
    assert (now(cat).layers.region(body.id).kind, now(cat).layers.region(body.id).name) == ("long fur", "the coat")
    other = page.bench.line("Join with").line.options[1][0]
    fill(qtbot, page, "Join with", other)
    assert all(r.id != other for r in now(cat).layers.regions) and total(cat) == pytest.approx(2000, abs=0.01)


def test_corners_whiskers_mouth_and_borders(qtbot, cat, wait_idle):
    page = cat.current
    keys(qtbot, cat, ENTER)
    draw(qtbot, page, cat, "cloth", ((100, 400), (140, 400), (140, 440), (100, 440)), close=None)
    keys(qtbot, cat, Qt.Key.Key_Backspace)
    assert len(page.drawing.outline.corners) == 3
    keys(qtbot, cat, "d")
    assert len(page.drawing.outline.corners) == 3, "none is lost by a stray key"
    keys(qtbot, cat, ENTER, ESC)
    assert page.drawing.outline.drawing and not page.drawing.outline.shut, "Esc goes on drawing"
    keys(qtbot, cat, ENTER, ENTER)
    cloth = now(cat).layers.regions[-1]
    assert cloth.kind == "cloth" and area_cm2(cloth) == pytest.approx(8, rel=0.02)
    draw(qtbot, page, cat, "nose", ((30, 30), (40, 30)), close=ENTER)
    assert "has two corners yet" in cat.message.text and page.drawing.outline.corners is not None
    keys(qtbot, cat, ESC)
    press(qtbot, page, "Draw whiskers as lines")
    path(page.drawing.view, line((150, 250), (60, 270)))
    path(page.drawing.view, line((150, 255), (60, 290)))
    whiskers = now(cat).layers.regions[-1]
    assert whiskers.kind == "whiskers" and len(whiskers.lines) == 2
    press(qtbot, page, "Done with lines")
    press(qtbot, page, "Draw a mouth as a line")
    path(page.drawing.view, line((150, 280), (200, 284)))
    mouth = [r for r in now(cat).layers.regions if r.kind == "mouth"]
    assert len(mouth) == 1 and total(cat) == pytest.approx(2000, abs=0.01)
    keys(qtbot, cat, ESC)
    page.drawing.choose_region(cloth.id)
    page.drawing.view.zoom(4.0, page.drawing.view.to_screen((130, 430)))
    corner = min(now(cat).layers.region(cloth.id).rings[0], key=lambda p: math.dist(p, (140, 440)))
    path(page.drawing.view, [corner, (corner[0] + 2, corner[1] + 2), (corner[0] + 4, corner[1] + 4)])
    assert area_cm2(now(cat).layers.region(cloth.id)) > area_cm2(cloth) and total(cat) == pytest.approx(2000, abs=0.01)
    press(qtbot, page, "Wipe this region out")
    assert all(r.id != cloth.id for r in now(cat).layers.regions) and total(cat) == pytest.approx(2000, abs=0.01)


def test_the_lie_is_drawn_and_the_patches_follow(qtbot, cat, wait_idle):
    page = cat.current
    keys(qtbot, cat, ENTER, ENTER)
    wait_idle(cat)
    assert page.mode.name == "lie of the fur" and page.lying.flow is not None
    assert page.lying.flow.ask is not None and page.bench.sheet.act.title == "Go on with the guess"
    x, y = page.lying.flow.ask
    path(page.lying.view, line((x, y - 10), (x, y + 10)))
    wait_idle(cat)
    assert len(now(cat).layers.lie.strokes) == 1 and now(cat).layers.lie.strokes[0].points[0][1] < y
    page.choices.button("one hair, root to tip").click()
    path(page.lying.view, line((x + 20, y), (x + 20, y + 24)))
    assert now(cat).layers.lie.strokes[1].one_hair
    page.choices.button("a parting").click()
    path(page.lying.view, line((200, 70), (200, 130)))
    page.choices.button("it points at me").click()
    click(page.lying.view, (x, y + 40))
    lie = now(cat).layers.lie
    assert len(lie.partings) == 1 and len(lie.dots) == 1
    page.choices.button("take off").click()
    click(page.lying.view, (200, 100))
    assert now(cat).layers.lie.partings == ()
    page.choices.button("the way it grows").click()
    path(page.lying.view, [(10, 10), (10.3, 10.1), (10.4, 10.2), (10.4, 10.3)])
    assert len(now(cat).layers.lie.strokes) == 2, "a slip of the hand is no stroke"
    wait_idle(cat)
    page.work_on("patches")
    wait_idle(cat)
    mode = page.patching
    assert 12 <= len(mode.shown) <= 60 and page.bench.sheet.act.title == "Take these patches"
    click(mode.view, mode.shown[4].middle)
    assert mode.patch_id == mode.shown[4].id and "5 of" in str(page.bench.sheet)
    keys(qtbot, cat, UP)
    wait_idle(cat)
    taken = now(cat).layers.patches.taken
    assert taken[3].id == mode.patch_id and mode.shown[3].id == mode.patch_id, "the painter's order stands"
    page.bench.line("Keep it when proposed anew").click()
    wait_idle(cat)
    assert now(cat).layers.patches.taken[3].locked
    count = len(mode.shown)
    keys(qtbot, cat, ESC)
    big = max(mode.shown, key=lambda p: p.cm2)
    xs = [p[0] for p in big.rings[0]]
    path(mode.view, line((min(xs) - 4, big.middle[1]), (max(xs) + 4, big.middle[1] + 1)))
    wait_idle(cat)
    assert len(now(cat).layers.patches.taken) == count + 1
    press(qtbot, page, "Propose anew round the 1 locked")
    wait_idle(cat)
    assert sum(p.locked for p in mode.shown) == 1 and len(mode.shown) > 10


def test_a_school_changed_half_way_keeps_what_is_painted(qtbot, cat, wait_idle):
    page = cat.current
    keys(qtbot, cat, ENTER)
    page.work_on("score")
    wait_idle(cat)
    passes = page.scoring.chart.score.passes
    for p in passes[:6]:
        cat.desk.do(cat.commission_id, Edit(EASEL, "painted", lambda e, p=p: finish_pass(e, p, cat.desk.clock())))
    page.choices.button("last", "Eyes").click()
    assert "passes move" in cat.message.text
    keys(qtbot, cat, ENTER) if cat.question.waiting else None
    after = page.scoring.chart.score
    assert {p.id for p in passes[:6]} <= after.done and after.passes[0].id == passes[0].id
    page.choices.button("square by square").click()
    if cat.question.waiting:
        assert "has no place in the new order" in cat.question.list.text() or "have no place" in cat.question.list.text()
        keys(qtbot, cat, ESC)
    assert len(now(cat).easel.finished) == 6
    do_part(cat.desk, cat.commission_id, "water", "brief", lambda b: b.__class__(**{**vars(b), "medium": "watercolour"}))
    page.refresh()
    page.choices.button("middle out").click()
    if cat.question.waiting:
        keys(qtbot, cat, ENTER)
    assert "transparent paint cannot lighten" in cat.message.text, "a school the medium forbids is said"


def test_the_score_is_walked_moved_and_warns(qtbot, cat, wait_idle):
    page = cat.current
    keys(qtbot, cat, ENTER)
    page.work_on("score")
    wait_idle(cat)
    chart = page.scoring.chart
    keys(qtbot, cat, RIGHT)
    first = chart.score.passes[0]
    assert page.scoring.pass_id == first.id and "Goes on the ground" in str(page.bench.sheet)
    keys(qtbot, cat, RIGHT, RIGHT, LEFT)
    assert page.scoring.pass_id == chart.score.passes[1].id and "to be painted" in str(page.bench.sheet)
    glint = chart.score.passes[-1]
    page.scoring.select_pass(glint.id)
    page.bench.fold("Change it", False)
    press(qtbot, page, "What usually goes wrong?")
    assert "the eye looks dead" in str(page.bench.sheet).lower()
    column = (chart._right() - chart._left()) / len(chart.score.passes)
    row = next(n for n, r in enumerate(chart.score.rows) if r.region_id == glint.region_id)
    y = chart._head() + (row + 0.5) * chart._row_h()
    at = QPointF(chart._column(len(chart.score.passes) - 1) + column / 2, y)
    send(chart, QMouseEvent.Type.MouseButtonPress, at)
    send(chart, QMouseEvent.Type.MouseButtonRelease, QPointF(chart._column(3) + 2, y), Qt.MouseButton.NoButton)
    assert now(cat).layers.own.moved and glint.id in [p.id for p in chart.score.passes[:5]]
    assert chart.score.warned and "the lightest note" in str(page.bench.sheet)
    keys(qtbot, cat, ESC)
    press(qtbot, page, "The school's own order again")
    assert not now(cat).layers.own.moved and chart.score.passes[-1].role == "glint"
    page.bench.fold("School", False)
    fill(qtbot, page, "Finish", "painterly")
    assert not any(p.role == "glaze" for p in chart.score.passes)
    fill(qtbot, page, "Keep this order as", "quick ones")
    press(qtbot, page, "Keep it")
    assert cat.desk.studio.schools[0].name == "quick ones"
    fill(qtbot, page, "Finish", "close")
    fill(qtbot, page, "Your schools", "quick ones")
    assert now(cat).layers.school.finish == "painterly"


def test_play_goes_through_the_passes_and_onto_paper(qtbot, cat, wait_idle, tmp_path, monkeypatch):
    page = cat.current
    keys(qtbot, cat, ENTER)
    page.work_on("play")
    wait_idle(cat)
    mode = page.foreseeing
    page.playing.want(now(cat), page.foreseeing.strip.passes)
    qtbot.waitUntil(lambda: page.playing.ready, timeout=60_000)
    assert mode.count == 0 and "Before the first pass" in str(page.bench.sheet)
    count = len(mode.strip.passes)
    ground = page.playing.small(0)
    keys(qtbot, cat, RIGHT, RIGHT)
    assert mode.count == 2 and (page.playing.small(2) != ground).any()
    keys(qtbot, cat, Qt.Key.Key_End)
    assert mode.count == count and f"After {count} of {count}" in str(page.bench.sheet)
    wait_idle(cat)
    reference, shown = page.playing.stage.scene.reference, array_of(mode.meant.levels.images[0])
    assert np.abs(shown.astype(int) - reference).mean() < 12, "the whole canvas is shown as it should look in the end"
    small = page.playing.small(count)
    size = (small.shape[1], small.shape[0])
    assert np.abs(cv2.resize(shown, size, interpolation=cv2.INTER_AREA).astype(int) - small).mean() < 3, (
        "the small one is the same"
    )
    place = mode.strip._places()[0]
    send(mode.strip, QMouseEvent.Type.MouseButtonPress, place[1].center())
    assert mode.count == place[0]
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *a: (str(tmp_path / "strip.pdf"), ""))
    press(qtbot, page, "Strip of stages (PDF)…")
    strip = pypdf.PdfReader(tmp_path / "strip.pdf")
    assert len(strip.pages) == -(-(count + 1) // 20) and "the ground with the drawing" in strip.pages[0].extract_text()
    page.work_on("patches")
    wait_idle(cat)
    click(page.patching.view, page.patching.shown[5].middle)
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *a: (str(tmp_path / "card.pdf"), ""))
    press(qtbot, page, "Stroke card of this patch…")
    card = pypdf.PdfReader(tmp_path / "card.pdf")
    text = card.pages[0].extract_text()
    assert "true size" in text and "100 mm" in text and "block-in" in text
    kept = page.playing._stacks
    page.work_on("score")
    page.choices.button("last", "Eyes").click()
    wait_idle(cat)
    assert page.playing.ready and all(page.playing._stacks[i] is kept[i] for i in kept), "another order asks for no new stroke"


def test_where_one_looks_what_dries_it_and_own_brushes(qtbot, cat, wait_idle):
    page = cat.current
    keys(qtbot, cat, ENTER)
    press(qtbot, page, "Set where the viewer should look")
    click(page.drawing.view, (210, 300))
    assert now(cat).layers.focal == pytest.approx((210, 300), abs=1)
    page.work_on("score")
    wait_idle(cat)
    body = next(p for p in page.scoring.chart.score.passes if p.kind == "fur" and p.role == "mass")
    page.scoring.select_pass(body.id)
    wet = next(p.dry_minutes for p in page.scoring.chart.score.passes if p.id == body.id)
    page.bench.fold("Drying here", False)
    fill(qtbot, page, "Air", "dryer")
    assert "From 30" in str(page.bench.sheet) and cat.desk.studio.climate.air == "dryer"
    assert next(p.dry_minutes for p in page.scoring.chart.score.passes if p.id == body.id) == pytest.approx(wet / 5)
    page.bench.fold("Your brushes", False)
    fill(qtbot, page, "Kind and width in mm, parted by commas", "flat 9, filbert 14, liner 2")
    assert [b.mm for b in cat.desk.studio.jar] == [9, 14, 2]
    assert "advised" in str(page.bench.sheet) or "flat 9" in str(page.bench.sheet) or "filbert 14" in str(page.bench.sheet)
    fill(qtbot, page, "Kind and width in mm, parted by commas", "flat")
    assert "no kind or no width" in cat.message.text and len(cat.desk.studio.jar) == 3
    page.work_on("patches")
    wait_idle(cat)
    far = max(page.patching.shown, key=lambda p: math.dist(p.middle, (210, 300)))
    page.patching.choose_patch(far.id)
    assert "Finest stroke seen here" in str(page.bench.sheet)


def test_play_stands_beside_the_real_canvas(qtbot, demo_window, wait_idle):
    painted = next(i for i in demo_window.desk.studio.on_shelf if demo_window.desk.commission(i).check.photo_id)
    demo_window.open_door(painted, "Layers")
    page = demo_window.current
    page.work_on("play")
    wait_idle(demo_window)
    page.choices.button("my canvas").click()
    wait_idle(demo_window)
    mode = page.foreseeing
    assert mode.real.levels is not None and mode.real.content == mode.meant.content
    meant, real = mode.meant.levels, mode.real.levels
    keys(qtbot, demo_window, "b")
    assert mode.meant.levels is real and mode.real.levels is meant, "B blinks"
    demo_window.current.refresh()
    assert mode.meant.levels is meant and mode.real.levels is real, "whatever is done next sees each in its place"
    page.choices.button("nothing").click()
    assert not mode.real.isVisible()
