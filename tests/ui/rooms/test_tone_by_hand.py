"""Tone by mouse and keys on the real window: values dragged, reserves, temperature, the ground laid."""

import numpy as np
import pytest
from PySide6.QtCore import QPointF, Qt
from PySide6.QtGui import QMouseEvent

from tests.journeys.hands import fill, keys, press, send
from tests.ui.rooms.doing import ENTER, now
from yarrow_lane.measure.colour.munsell_value import value_of
from yarrow_lane.tone.shapes import borders


@pytest.fixture
def tone(qtbot, framed, wait_idle):
    keys(qtbot, framed, "4")
    wait_idle(framed)
    return framed


def pull(panel, n, to_lightness):
    """Drag a limit along the histogram."""
    y = panel._plot().center().y()
    a, b = QPointF(panel._x(panel.limits[n]), y), QPointF(panel._x(to_lightness), y)
    send(panel, QMouseEvent.Type.MouseButtonPress, a)
    send(panel, QMouseEvent.Type.MouseMove, (a + b) / 2)
    send(panel, QMouseEvent.Type.MouseMove, b)
    send(panel, QMouseEvent.Type.MouseButtonRelease, b, Qt.MouseButton.NoButton)


def test_values_begin_as_the_pictures_own_and_follow_the_hand(qtbot, tone, wait_idle):
    page = tone.current
    own, before = page.found.studied.study.limits, page.found.studied.study.shares
    assert now(tone).tone.limits == () and len(own) == 2 and sum(before) == pytest.approx(1)
    pull(page.values, 1, 88.0)
    wait_idle(tone)
    assert now(tone).tone.limits[1] == pytest.approx(88, abs=1.5)
    assert page.found.studied.study.shares[2] < before[2]
    keys(qtbot, tone, Qt.Key.Key_Right, Qt.Key.Key_Down, Qt.Key.Key_Down)
    wait_idle(tone)
    assert now(tone).tone.limits[0] == pytest.approx(own[0] - 2, abs=0.2)
    press(qtbot, page, "Take the picture's own again")
    wait_idle(tone)
    assert now(tone).tone.limits == () and page.found.studied.study.limits == own
    page.choices.button("7", "in").click()
    wait_idle(tone)
    assert len(page.found.studied.study.shares) == 7 and "Value 4" in str(page.bench.sheet)
    # The study is drawn in its values and no others.
    levels = page.study.levels.images[0]
    seen = {levels.pixelColor(x, y).red() for x in range(0, levels.width(), 9) for y in range(0, levels.height(), 9)}
    assert len(seen) <= 7 and page.study.isVisible() and page.reference.isVisible()


def test_a_pull_past_its_neighbour_stops_before_it(qtbot, tone, wait_idle):
    page = tone.current
    pull(page.values, 0, 99.0)
    wait_idle(tone)
    dark, light = now(tone).tone.limits
    assert dark < light, "a value is left between them"


def test_squint_mirror_and_small(qtbot, tone, wait_idle):
    page = tone.current
    fill(qtbot, page, "Squint from", 6.0)
    wait_idle(tone)
    assert now(tone).tone.squint_mm == pytest.approx(7.39, abs=0.05)
    keys(qtbot, tone, "f")
    assert page.frame.mirrored
    keys(qtbot, tone, "f", "g")
    assert page.frame.grey and not page.frame.mirrored
    fill(qtbot, page, "Turned", "upside down")
    assert page.frame.upside_down
    page.choices.button("squint").click()
    wait_idle(tone)
    assert page.study.isVisible() and not page.reference.isVisible() and page.study.levels is not None


def test_reserves_and_temperature_are_told(qtbot, tone, wait_idle):
    page = tone.current
    page.choices.button("reserves").click()
    wait_idle(tone)
    kept = page.found.kept
    assert kept.lights and kept.darks and page.reference.overlays
    assert min(r.value for r in kept.lights) > max(r.value for r in kept.darks) + 3
    assert "Keep the lightest half step" in str(page.bench.sheet)
    page.choices.button("warm and cool").click()
    wait_idle(tone)
    assert page.found.warmth.scheme in str(page.bench.sheet) and not page.reference.overlays
    image = page.third.levels.images[0]
    colours = np.array([image.pixelColor(x, 40).getRgb()[:3] for x in range(0, image.width(), 5)])
    assert (colours.max(axis=1) != colours.min(axis=1)).any(), "a map in colour"


def test_the_ground_is_proposed_tried_and_laid(qtbot, tone, wait_idle, clock):
    page = tone.current
    assert page.bench.sheet.act.title == "Look at the ground proposed"
    keys(qtbot, tone, ENTER)
    wait_idle(tone)
    assert page.look == "the ground" and page.found.grounds[0].name == page.ground_now()
    assert page.third.levels is not None and "Proposed" in str(page.bench.sheet)
    row, other = page.grounds._rows()[2]
    send(page.grounds, QMouseEvent.Type.MouseButtonPress, row.center())
    wait_idle(tone)
    assert page.ground_now() == other.name and now(tone).tone.ground == "", "trying is not laying"
    keys(qtbot, tone, Qt.Key.Key_Up)
    wait_idle(tone)
    assert page.ground_now() == page.found.grounds[1].name
    keys(qtbot, tone, ENTER)
    wait_idle(tone)
    assert now(tone).tone.ground == page.found.grounds[1].name and now(tone).tone.laid_at == clock.now
    assert page.bench.sheet.act.title == "Go on to Palette" and "✓ On the canvas" in str(page.bench.sheet)
    press(qtbot, page, "It is not laid after all")
    wait_idle(tone)
    assert now(tone).tone.ground == ""


def test_the_wash_tells_its_window_today(qtbot, tone, wait_idle):
    page = tone.current
    page.show_look("the ground")
    page.look_at_ground("burnt sienna wash")
    wait_idle(tone)

    def wipe():
        return float(
            next(
                line.value.split("\u202f")[0]
                for s in page.bench.sheet.sections
                for line in s.lines
                if getattr(line, "label", "") == "Wipe or move until"
            )
        )

    slow = wipe()
    page.bench.line("Retarder, 1 in 10").click()
    wait_idle(tone)
    assert wipe() == pytest.approx(slow / 2, abs=0.1)
    page.bench.line("Lights are wiped out of it").click()
    wait_idle(tone)
    assert now(tone).tone.wipe_out and page.found.grounds[0].name.endswith("wash")
    fill(qtbot, page, "Coats of gesso", 2)
    assert now(tone).tone.ground_coats == 2 and "Sanding primer makes dust" in str(page.bench.sheet)


def test_borders_of_the_values_go_onto_the_sheets(qtbot, tone, wait_idle):
    keys(qtbot, tone, "3")
    wait_idle(tone)
    page = tone.current
    page.work_on("lines")
    wait_idle(tone)
    before = len(page.lines)
    page.bench.line("Borders of the values, broken").click()
    wait_idle(tone)
    added = [line for line in page.lines if line.source == "values"]
    assert added and len(page.lines) == before + len(added) and all(all(line.weak) for line in added)
    assert now(tone).transfer.lines.values
    assert value_of(50) > 4


def test_without_a_composition_the_room_says_what_comes_first(qtbot, window, commission_id, wait_idle):
    window.open_door(commission_id, "Tone")
    wait_idle(window)
    assert "Compose first" in str(window.current.bench.sheet)
    keys(qtbot, window, "g", Qt.Key.Key_Up)
    window.current.show_look("the ground")
    assert window.current.bench.sheet.act.do is not None


def test_beside_the_grounds_the_histogram_gives_way_when_it_is_narrow(qtbot, tone, wait_idle):
    page = tone.current
    page.show_look("the ground")
    wait_idle(tone)
    tone.resize(1600, 900)
    qtbot.wait(20)
    assert page.values.isVisible() and page.grounds.isVisible()
    tone.resize(1000, 700)
    qtbot.wait(20)
    assert not page.values.isVisible() and page.grounds.isVisible()
    page.show_look("values")
    wait_idle(tone)
    assert page.values.isVisible() and not page.grounds.isVisible()


def test_wiping_out_is_laid_in_bands_with_its_clock_on_the_plan(qtbot, tone, wait_idle):
    page = tone.current
    page.show_look("the ground")
    wait_idle(tone)
    page.look_at_ground("burnt sienna wash")
    wait_idle(tone)
    assert not any("wipe until" in str(o) for o in page.third.overlays)
    page.bench.line("Lights are wiped out of it").click()
    wait_idle(tone)
    said = [o.text for o in page.third.overlays if hasattr(o, "text")]
    bands = [words for words in said if words.startswith("lay ")]
    lifts = [words for words in said if words.isdigit()]
    assert bands and bands[0].startswith("lay 0:00") and lifts == [str(n) for n in range(1, len(page.found.kept.lights) + 1)]
    keys(qtbot, tone, ENTER)
    wait_idle(tone)
    assert "Laid: wipe until, dry at" in str(page.bench.sheet)


def test_the_study_on_the_sheets_is_the_one_in_the_room(qtbot, tone, wait_idle):
    """The borders drawn at Transfer enclose what Tone counts as its lightest value."""
    page = tone.current
    study = page.found.studied.study
    keys(qtbot, tone, "3")
    wait_idle(tone)
    tone.current.work_on("lines")
    wait_idle(tone)
    tone.current.bench.line("Borders of the values, broken").click()
    wait_idle(tone)
    on_sheet = {line.points for line in tone.current.lines if line.source == "values"}
    assert on_sheet == set(borders(study))
