"""Palette by mouse and keys on the real window: tubes, strings, mixes, glazes, reading tubes, other lamps."""

from dataclasses import replace

import numpy as np
import pytest
from PySide6.QtCore import QPoint, QPointF, Qt
from PySide6.QtGui import QMouseEvent, QWheelEvent
from PySide6.QtWidgets import QApplication, QFileDialog

from tests.doing import do_part
from tests.journeys.hands import click, fill, keys, press, reference, send
from tests.ui.rooms.doing import ENTER, now
from yarrow_lane.commission.studio import with_paintbox
from yarrow_lane.measure.colour.difference import difference
from yarrow_lane.measure.plane import Rect
from yarrow_lane.palette.paintbox import Paintbox, put_in
from yarrow_lane.palette.recipe import recipe_words
from yarrow_lane.palette.starters import starter
from yarrow_lane.palette.wells import patch_colour


@pytest.fixture
def palette(qtbot, framed, wait_idle):
    """The palette with the eight tubes of the starter."""
    framed.desk.do_studio("Filled", lambda s: with_paintbox(s, starter("eight earths and primaries")))
    keys(qtbot, framed, "5")
    wait_idle(framed)
    return framed


def box(window):
    return window.desk.studio.paintbox


def taken(qtbot, window, wait_idle):
    keys(qtbot, window, ENTER)
    wait_idle(window)
    return window.current


def wheel(widget, by: int) -> None:
    middle = QPointF(widget.rect().center())
    nothing = Qt.KeyboardModifier.NoModifier, Qt.ScrollPhase.NoScrollPhase, False
    turned = QWheelEvent(middle, widget.mapToGlobal(middle), QPoint(), QPoint(0, by), Qt.MouseButton.NoButton, *nothing)
    QApplication.sendEvent(widget, turned)


def sheet(page) -> str:
    return str(page.bench.sheet)


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


def test_wells_are_taken_walked_greyed_and_emptied(qtbot, palette, wait_idle):
    page = palette.current
    page.bench.fold("The string", False)
    fill(qtbot, page, "Patch on the canvas", 8)
    for place in ((60, 60), (120, 150), (200, 280)):
        click(page.string.reference, place)
        wait_idle(palette)
    wells = now(palette).palette.by_lightness
    assert [w.patch_mm for w in wells] == [8, 8, 8]
    page.select(wells[0].id)
    keys(qtbot, palette, Qt.Key.Key_Right)
    assert page.chosen_id == wells[1].id
    keys(qtbot, palette, Qt.Key.Key_Left, Qt.Key.Key_Left)
    assert page.chosen_id == wells[2].id, "the row is walked in a ring"
    keys(qtbot, palette, "g")
    view = page.string.reference
    shown = view.grab().toImage().pixelColor(view.to_screen((100, 100)).toPoint())
    assert shown.red() == shown.green() == shown.blue()
    keys(qtbot, palette, "g")
    scale, at = reference(palette).shape[1] / 240, view.to_content(view.to_screen((120, 150)))
    patch = Rect((at[0] - 4) * scale, (at[1] - 4) * scale, 8 * scale, 8 * scale)
    assert patch_colour(reference(palette), patch)[0] in {w.srgb for w in wells}
    keys(qtbot, palette, ENTER)  # mixes for all three, on few tubes
    wait_idle(palette)
    assert all(w.recipe for w in now(palette).palette.wells)
    page.bench.fold("Change this well", False)
    press(qtbot, page, "Empty this well")
    assert len(now(palette).palette.wells) == 2


def test_a_mix_by_hand_is_reckoned_and_another_way_is_taken(qtbot, palette, wait_idle):
    page = taken(qtbot, palette, wait_idle)
    page.bench.fold("Change this well", False)
    fill(qtbot, page, "Mix, in parts", "white 6 : ochre 2 : sienna 1")
    wait_idle(palette)
    well = page.chosen
    assert recipe_words(well.recipe, box(palette).names) == "6 titanium white : 2 yellow ochre : 1 burnt sienna"
    advice = page.string.advice
    assert advice.mix.off == pytest.approx(
        float(difference(advice.mix.lab, page.mix_colour(well.recipe))) + advice.mix.off, abs=0.02
    )
    assert f"{advice.mix.off:.1f}" in sheet(page), "one truth on panel and bench"
    fill(qtbot, page, "Mix, in parts", "sap green 2")
    wait_idle(palette)
    assert page.chosen.mix == "sap green 2" and not page.chosen.recipe and "Kept as words" in sheet(page)
    page.string.panel.grab()  # the ways have their places once they are drawn
    place = page.string.panel.place_of(1)
    send(page.string.panel, QMouseEvent.Type.MouseButtonPress, place.center())
    wait_idle(palette)
    assert page.chosen.recipe == page.string.advice.answers[1].mix.recipe and page.chosen.mix == ""
    before = page.chosen.recipe
    page.setFocus()
    keys(qtbot, page, "w")
    wait_idle(palette)
    assert page.chosen.recipe != before


def test_what_is_seen_on_the_panel_is_the_mix(qtbot, palette, wait_idle):
    page = taken(qtbot, palette, wait_idle)
    shown = page.string.panel.shown
    assert [word for _, word in shown.swatches] == ["in the photo", "mixed, dry", "mixed, wet"]
    assert sum(b.share for b in shown.bars) == pytest.approx(1) and shown.words[0].startswith("Begin with")
    off = np.array(shown.swatches[0][0], float) - np.array(shown.swatches[1][0], float)
    assert np.abs(off).max() < 40
    image = page.string.panel.grab().toImage()
    colours = {image.pixelColor(x, 70).getRgb()[:3] for x in range(30, image.width() - 30, 5)}
    assert shown.swatches[0][0] in colours and shown.swatches[1][0] in colours


def test_where_else_a_colour_belongs_is_shown(qtbot, palette, wait_idle):
    page = taken(qtbot, palette, wait_idle)
    keys(qtbot, palette, "e")
    wait_idle(palette)
    assert page.string.reference.laid is not None and page.string.elsewhere.share > 0
    page.bench.fold("Where else it belongs", False)
    before = page.string.elsewhere.share
    fill(qtbot, page, "Within a difference of", 12)
    wait_idle(palette)
    assert page.string.elsewhere.share > before
    page.setFocus()
    keys(qtbot, page, "e")
    assert page.string.reference.laid is None


def test_darks_are_fitted_and_what_is_out_of_reach_is_said(qtbot, palette, wait_idle):
    page = palette.current
    do_part(
        palette.desk, palette.commission_id, "A vivid well", "palette",
        lambda p: replace(p, wells=(replace(page.proposed[3], id=1, lab=(60.0, 80.0, -60.0), srgb=(255, 0, 255), recipe=()),), next_id=2),
    )  # fmt: skip
    wait_idle(palette)
    assert page.string.panel.shown.note.startswith("Out of reach") and "duller" in page.string.panel.shown.note
    page.bench.fold("The string", False)
    page.bench.line("Fit the photograph's darks to paint").click()
    assert not now(palette).palette.fit_darks


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


def test_skin_by_four_colours_and_a_step_taken(qtbot, palette, wait_idle):
    page = taken(qtbot, palette, wait_idle)
    page.work_on("skin and blacks")
    wait_idle(palette)
    titles = [r.title for r in page.mode.rows.rows]
    assert "Red and ochre: an orange." in titles and "Blacks of this box, darkest first" in titles
    keys(qtbot, palette, Qt.Key.Key_Down, "t")
    wait_idle(palette)
    assert [w.name for w in now(palette).palette.wells].count("skin") == 1
    assert now(palette).palette.wells[-1].recipe


def test_a_glaze_for_a_change_and_one_worked_backwards(qtbot, palette, wait_idle):
    page = taken(qtbot, palette, wait_idle)
    page.work_on("glaze")
    wait_idle(palette)
    assert page.mode.ways and [w for _, w in page.mode.rows.rows[-1].swatches] == ["thin", "as usual", "thick"]
    warm = page.mode.ways[0].glaze
    page.choices.button("cooler", "Make it").click()
    wait_idle(palette)
    assert page.mode.ways[0].glaze != warm
    place = next(p for p, r in page.mode.rows._places() if r.key == 1)
    send(page.mode.rows, QMouseEvent.Type.MouseButtonPress, QPointF(place.center()))
    wait_idle(palette)
    assert page.chosen.glaze == page.mode.ways[0].glaze and "Planned over this well" in sheet(page)
    page.choices.button("worked backwards", "Glaze").click()
    wait_idle(palette)
    back = page.mode.back
    assert page.bench.sheet.act.title.startswith("Plan it")
    keys(qtbot, palette, ENTER)
    wait_idle(palette)
    assert page.chosen.recipe == back.recipe and page.chosen.glaze == page.mode.plan
    press(qtbot, page, "No glaze over it")
    assert page.chosen.glaze is None


def test_the_palette_under_other_lamps(qtbot, palette, wait_idle):
    page = palette.current
    page.work_on("client's light")
    wait_idle(palette)
    wait_idle(palette)
    rows = page.mode.rows.rows
    assert [r.title for r in rows] == ["daylight", "north light", "warm lamp", "warm LED", "cool LED"]
    assert all(len(r.swatches) == 7 for r in rows) and rows[0].swatches != rows[2].swatches


@pytest.mark.parametrize("medium", ["watercolour", "soft pastel", "oil over acrylic"])
def test_each_medium_answers_as_far_as_it_can(qtbot, palette, wait_idle, medium):
    do_part(palette.desk, palette.commission_id, "Medium", "brief", lambda b: replace(b, medium=medium))
    page = palette.current
    page.refresh()
    wait_idle(palette)
    keys(qtbot, palette, ENTER)
    wait_idle(palette)
    keys(qtbot, palette, ENTER)
    wait_idle(palette)
    wells = now(palette).palette.wells
    assert len(wells) == 7 and all(w.answered for w in wells), [w.mix for w in wells]
    assert "not reckoned" in sheet(page)
    if medium != "oil over acrylic":
        assert "mixed, wet" not in str(page.string.panel.shown) and all(not w.recipe for w in wells)
        page.work_on("glaze")
        assert page.mode.name == "string" and "not reckoned" in palette.message.text


def test_sheet_card_gpl_and_csv_are_written(qtbot, palette, wait_idle, tmp_path, monkeypatch):
    page = taken(qtbot, palette, wait_idle)
    page.work_on("tubes")
    wait_idle(palette)
    for words, name, begins in (
        ("Save the mixing sheet (PDF)…", "sheet.pdf", b"%PDF"), ("Save a swatch card to paint on (PDF)…", "card.pdf", b"%PDF"),
        ("Save the palette as GPL text…", "p.gpl", b"GIMP Palette"), ("Save the palette as CSV…", "p.csv", b"well,red"),
    ):  # fmt: skip
        target = tmp_path / name
        monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_, t=target: (str(t), ""))
        press(qtbot, page, words)
        assert target.read_bytes().startswith(begins)
    import pypdf

    text = pypdf.PdfReader(tmp_path / "sheet.pdf").pages[0].extract_text()
    assert "titanium white" in text and "ml" in text


def test_a_colour_off_the_canvas_is_no_well(qtbot, palette, wait_idle):
    page = palette.current
    click(page.string.reference, (-30, 20))
    click(page.string.reference, (500, 900))
    wait_idle(palette)
    assert now(palette).palette.wells == ()


def test_without_a_composition_the_room_says_what_comes_first(qtbot, window, commission_id, wait_idle):
    window.open_door(commission_id, "Palette")
    wait_idle(window)
    page = window.current
    assert "Compose it first" in sheet(page) and page.bench.sheet.act.do is not None
    for name in page.modes:
        page.work_on(name)
    keys(qtbot, window, ENTER)


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


def test_watercolour_is_promised_in_its_own_words(qtbot, palette, wait_idle):
    do_part(palette.desk, palette.commission_id, "Medium", "brief", lambda b: replace(b, medium="watercolour"))
    page = palette.current
    page.refresh()
    wait_idle(palette)
    assert page.bench.sheet.act.title == "Put 7 tubes in the paintbox", "the paper is the white"
    keys(qtbot, palette, ENTER)
    wait_idle(palette)
    assert "on 0 tubes" not in page.bench.sheet.act.detail and page.bench.sheet.act.title == "Take this string of 7"
    keys(qtbot, palette, ENTER)
    wait_idle(palette)
    before = page.chosen.mix
    page.setFocus()
    keys(qtbot, page, "w")
    wait_idle(palette)
    assert page.chosen.mix != before and "water" in page.chosen.mix


def test_in_a_low_window_the_row_gives_way_and_the_panel_slides(qtbot, palette, wait_idle):
    page = taken(qtbot, palette, wait_idle)
    palette.resize(1280, 900)
    qtbot.wait(20)
    tall = page.string.row.height()
    palette.resize(1000, 700)
    qtbot.wait(20)
    assert page.string.row.height() < 0.6 * tall
    panel = page.string.panel
    panel.grab()
    before = panel.place_of(len(panel.shown.others) - 1).bottom()
    wheel(panel, -2400)
    panel.grab()
    assert panel.place_of(len(panel.shown.others) - 1).bottom() < before
