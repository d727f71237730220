"""The paintbox by mouse and keys on the real window: tubes, what is left in them, reading them, dabs that teach."""

from dataclasses import replace

import numpy as np
import pytest
from PySide6.QtCore import Qt
from PySide6.QtGui import QMouseEvent
from PySide6.QtWidgets import QFileDialog

from tests.doing import do_part
from tests.journeys.hands import fill, keys, press, send
from tests.ui.rooms.doing import ENTER, now
from tests.ui.rooms.palette_hands import box, sheet, taken
from yarrow_lane.commission.studio import with_paintbox
from yarrow_lane.palette.paintbox import Paintbox, put_in
from yarrow_lane.palette.starters import starter


def test_an_empty_paintbox_suggests_one_and_the_string_stands_at_once(qtbot, framed, wait_idle):
    keys(qtbot, framed, "5")
    wait_idle(framed)
    page = framed.current
    assert len(page.proposed) == 7 and not now(framed).palette.wells, "an answer first, and nothing taken"
    assert page.box_is_suggested and page.bench.sheet.act.title == "Put 8 tubes in the paintbox"
    keys(qtbot, framed, ENTER)
    wait_idle(framed)
    assert len(box(framed).tubes) == 8 and page.bench.sheet.act.title == "Take this string of 7"
    keys(qtbot, framed, ENTER)
    wait_idle(framed)
    wells = now(framed).palette.wells
    assert len(wells) == 7 and len({s.tube for w in wells for s in w.recipe}) <= 5
    assert page.bench.sheet.act.title == "7 heaps are mixed" and "ml of paint" in page.bench.sheet.act.detail
    before = {t.id: t.left_ml for t in box(framed).tubes}
    keys(qtbot, framed, ENTER)
    wait_idle(framed)
    assert all(w.mixed_on for w in now(framed).palette.wells) and page.bench.sheet.act.title == "Go on to Layers"
    assert sum(before.values()) - sum(t.left_ml for t in box(framed).tubes) == pytest.approx(
        sum(page.ml_of(w) for w in page.wells), abs=0.2
    )
    press(qtbot, page, "Top it up: mix it again")
    wait_idle(framed)
    assert page.bench.sheet.act.title == "The heap is mixed"


def test_a_fresh_string_beside_the_first_and_tubes_that_are_shared(qtbot, palette, wait_idle):
    page = taken(qtbot, palette, wait_idle)
    page.bench.fold("The string", False)
    assert "The picture's hues" in sheet(page)
    press(qtbot, page, "A fresh string of 7 beside these")
    wait_idle(palette)
    assert len(now(palette).palette.wells) == 14 and len({w.id for w in now(palette).palette.wells}) == 14
    do_part(
        palette.desk, palette.commission_id, "Two sitters", "palette",
        lambda p: replace(p, wells=tuple(replace(w, sitter_id=1 + (w.id > 7)) for w in p.wells)),
    )  # fmt: skip
    page.refresh()
    assert "Tubes all sitters share" in sheet(page) and "titanium white" in sheet(page)


def test_tubes_are_named_emptied_read_and_taken_out(qtbot, palette, wait_idle):
    page = palette.current
    page.work_on("tubes")
    wait_idle(palette)
    view = page.mode.view
    place, tube = view._places()[1]
    send(view, QMouseEvent.Type.MouseButtonPress, place.center())
    assert page.mode.tube_id == tube.id and "PY43" in sheet(page) and "generic" in sheet(page)
    fill(qtbot, page, "Your name for it", "light ochre")
    fill(qtbot, page, "Left in it", 5)
    wait_idle(palette)
    changed = box(palette).tube(tube.id)
    assert (changed.called, changed.left_ml) == ("light ochre", 5) and changed.scarce
    assert "nearly empty" in sheet(page)
    fill(qtbot, page, "It covers", "transparent")
    assert box(palette).tube(tube.id).opacity == "transparent"
    page.mode.choose(next(t.id for t in box(palette).tubes if t.pigment == "PR108"))
    assert "Cadmium: never sand or spray" in sheet(page)
    press(qtbot, page, "Take this tube out")
    assert len(box(palette).tubes) == 7
    page.bench.fold("One more tube", False)
    fill(qtbot, page, "Pigment", "PG18")
    press(qtbot, page, "Put this tube in")
    assert box(palette).tubes[-1].pigment == "PG18"
    page.mode.choose(0)
    page.setFocus()
    keys(qtbot, page, Qt.Key.Key_Down)
    assert page.mode.tube_id == box(palette).tubes[0].id


def test_a_box_of_forty_tubes_and_one_without_white(qtbot, palette, wait_idle):
    many = starter("twenty tubes", box=starter("twenty tubes"))
    for n in range(20):
        many = put_in(many, "PY43", name=f"a very long name of an ochre, number {n}")
    palette.desk.do_studio("Many", lambda s: with_paintbox(s, many))
    page = palette.current
    page.refresh()
    wait_idle(palette)
    assert page.proposed and page.mixer is not None and len(page.mixer.table.groups) == 3
    page.work_on("tubes")
    wait_idle(palette)
    assert len(page.mode.view._places()) == 40
    palette.desk.do_studio("No white", lambda s: with_paintbox(s, put_in(Paintbox(), "PBr7bu")))
    page.work_on("string")
    wait_idle(palette)
    assert page.proposed and all(len(w.recipe) == 1 for w in page.proposed)
    page.work_on("calibrate")
    wait_idle(palette)
    assert page.bench.sheet.act.title == "Put a white in the paintbox"


def test_a_tint_is_compared_by_eye_and_the_tubes_learn(qtbot, palette, wait_idle):
    page = taken(qtbot, palette, wait_idle)
    page.work_on("calibrate")
    wait_idle(palette)
    unread = page.mode.expected.now
    for count in range(1, 4):
        keys(qtbot, palette, ENTER)
        assert page.mode.stairs is not None and page.mode.compare.isVisible()
        first = page.mode.compare.srgb
        press(qtbot, page, "The paint is darker")
        assert page.mode.compare.srgb != first
        for _ in range(4):
            keys(qtbot, palette, ENTER)  # it looks the same
        wait_idle(palette)
        assert page.mode.stairs is None and len(box(palette).seen) == count
    assert page.mode.expected.now < 0.8 * unread and "3 of 3" in sheet(page)
    assert len({s.recipe[-1].tube for s in box(palette).seen}) == 3


def test_a_dab_of_a_well_teaches_its_tubes(qtbot, palette, wait_idle):
    page = taken(qtbot, palette, wait_idle)
    before = page.mix_colour(page.chosen.recipe)
    press(qtbot, page, "Compare a dry dab of it…")
    assert page.mode.name == "calibrate" and page.mode.stairs is not None
    press(qtbot, page, "The paint is lighter")
    for _ in range(4):
        keys(qtbot, palette, ENTER)
    wait_idle(palette)
    page.work_on("string")
    wait_idle(palette)
    after = page.mix_colour(page.chosen.recipe)
    assert after[0] > before[0] + 2, "that mix is now thought of as light as it was seen"
    page.compare_dab(page.chosen)
    press(qtbot, page, "Give it up")
    assert page.mode.stairs is None and len(box(palette).seen) == 1


def test_a_card_is_read_and_a_bad_photograph_refused(qtbot, palette, wait_idle, tmp_path, monkeypatch):
    page = palette.current
    page.work_on("calibrate")
    wait_idle(palette)
    page.bench.fold("A swatch card, photographed", False)
    press(qtbot, page, "Read it with the camera stand-in")
    wait_idle(palette)
    assert sum(not t.generic for t in box(palette).tubes) == 4 and "4 tubes read" in sheet(page)
    from PIL import Image

    bad = tmp_path / "no card.jpg"
    Image.fromarray(np.full((300, 400, 3), 130, np.uint8)).save(bad)
    monkeypatch.setattr(QFileDialog, "getOpenFileName", lambda *_: (str(bad), ""))
    page.bench.fold("A swatch card, photographed", False)
    press(qtbot, page, "Read a photograph of the card…")
    wait_idle(palette)
    assert "was not read" in palette.message.text and sum(not t.generic for t in box(palette).tubes) == 4


def test_a_tube_taken_out_leaves_its_wells_with_words_and_other_ways(qtbot, palette, wait_idle):
    page = taken(qtbot, palette, wait_idle)
    gone = page.chosen.recipe[0].tube
    page.work_on("tubes")
    page.mode.choose(gone)
    press(qtbot, page, "Take this tube out")
    wait_idle(palette)
    page.work_on("string")
    wait_idle(palette)
    shown = page.string.panel.shown
    assert "no longer in the paintbox" in shown.note and shown.others and "a tube that is gone" in str(page.string.row._wells)
    for name in ("glaze", "client's light", "skin and blacks"):
        page.work_on(name)
        wait_idle(palette)
    page.work_on("string")
    page.setFocus()
    keys(qtbot, page, "w")
    wait_idle(palette)
    assert page.string.advice.mix is not None and not page.string.panel.shown.note
