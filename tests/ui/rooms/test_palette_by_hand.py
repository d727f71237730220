"""Palette by mouse and keys on the real window: strings, mixes, glazes, other lamps, papers."""

from dataclasses import replace

import numpy as np
import pytest
from PySide6.QtCore import QPointF, Qt
from PySide6.QtGui import QMouseEvent
from PySide6.QtWidgets import QFileDialog

from tests.doing import do_part
from tests.journeys.hands import click, fill, keys, press, reference, send
from tests.ui.rooms.doing import ENTER, now
from tests.ui.rooms.palette_hands import box, sheet, taken, wheel
from yarrow_lane.measure.colour.difference import difference
from yarrow_lane.measure.plane import Rect
from yarrow_lane.palette.recipe import recipe_words
from yarrow_lane.palette.wells import patch_colour


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
