"""The window: empty, one, many; text sizes; keys; the demo studio; the command line."""

import itertools
from dataclasses import replace

import pytest
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QApplication, QFileDialog

from tests.conftest import NOON
from tests.journeys.hands import fill, keys, press
from yarrow_lane.commission.standing import passes_in
from yarrow_lane.commission.today import todays_acts
from yarrow_lane.demo.scene import SetClock
from yarrow_lane.desk.desk import Desk
from yarrow_lane.easel.clock import running
from yarrow_lane.intake.brief import new_brief
from yarrow_lane.lane.doors import DOORS
from yarrow_lane.ui.kit.levels import make_levels
from yarrow_lane.ui.rooms.easel.view import chosen


def test_the_demo_stands_at_different_doors_with_one_in_trouble(demo_store):
    desk = Desk(demo_store, SetClock(NOON))
    outlooks = desk.standings.outlooks(NOON)
    found = [o.standing for o in outlooks]
    assert len(found) == 6 and len({s.door for s in found}) >= 4
    worried = [o for o in outlooks if o.worry]
    assert len(worried) == 1 and worried[0].worry.startswith("kept in ")
    assert any(s.wet_until for s in found)
    complete = [c for s in found if (c := desk.commission(s.id)).layers.regions and c.log]
    assert len(complete) >= 2
    times = [a.at for a in todays_acts(desk.standings.outlooks(NOON), desk.studio.time, NOON)]
    assert times == sorted(times) and times[0] >= NOON


@pytest.mark.parametrize("door", DOORS)
def test_every_door_of_every_demo_commission_opens(demo_window, wait_idle, door):
    for commission_id in demo_window.desk.studio.on_shelf:
        demo_window.open_door(commission_id, door)
        wait_idle(demo_window)
        assert demo_window.current.bench.act.title.text()
        assert demo_window.message.text == ""


def test_words_of_the_window_fit_at_150_percent(qtbot, demo_window, wait_idle):
    demo_window.desk.do_studio("larger", lambda s: replace(s, text_percent=150))
    demo_window.open_door(demo_window.desk.studio.on_shelf[1], "Layers")
    wait_idle(demo_window)
    bench = demo_window.current.bench
    assert bench.act.height() >= bench.act.title.height() + bench.act.detail.height()
    assert bench.width() == round(306 * 1.5)
    demo_window.desk.do_studio("usual", lambda s: replace(s, text_percent=100))


def test_an_empty_studio_says_what_to_do_first(qtbot, window):
    words = str(window.studio_page.view.bench)
    assert "Start a commission" in words and "demo studio" in words
    with qtbot.waitSignal(window.demo_wanted):
        press(qtbot, window.studio_page, "Show the demo studio instead")
    keys(qtbot, window, Qt.Key.Key_Return)
    assert window.studio_page.on_bench == "start"
    window.studio_page.bench.act.click()
    assert "no sitter is named" in window.message.text


def test_every_door_opens_on_a_commission_with_nothing_in_it(qtbot, window, commission_id, wait_idle):
    window.open_door(commission_id, "")
    assert window.door == "Intake"
    for number in range(1, 10):
        keys(qtbot, window, str(number))
        assert window.door == DOORS[number - 1]
        wait_idle(window)
    keys(qtbot, window, Qt.Key.Key_Escape)
    assert window.door == ""


def test_many_commissions_and_long_names(qtbot, window, wait_idle):
    for n in range(30):
        brief = new_brief(
            f"Bartholomew Maximilian of the Outer Harbour Wall the {n}th", "dog", "x", "acrylic", NOON.date(), None
        )
        window.desk.start_commission(brief)
    wait_idle(window)
    places = window.studio_page.shelf.places()
    assert len(places) == 30
    assert all(a[1].right() < b[1].left() for a, b in itertools.pairwise(places))
    keys(qtbot, window.studio_page.shelf, Qt.Key.Key_Left)
    assert window.studio_page.selected == window.desk.studio.on_shelf[-1]
    last = window.studio_page.shelf.places()[-1][1]
    assert last.left() < window.studio_page.shelf.width()


def test_the_shelf_has_one_true_scale(demo_window, wait_idle):
    wait_idle(demo_window)
    scales = [(rect.width() / c.width_mm, rect.height() / c.height_mm) for c, rect, _ in demo_window.studio_page.shelf.places()]
    assert all(s == pytest.approx(scales[0][0]) for pair in scales for s in pair)


def test_settings_are_kept_and_undone(qtbot, window):
    page = window.studio_page
    page.choices.button("the studio").click()
    fill(qtbot, page, "Temperature", 26)
    assert window.desk.studio.climate.celsius == 26
    fill(qtbot, page, "Lengths in", "in")
    page.bench.line("Dim, for the evening").click()
    page = window.studio_page
    assert window.desk.studio.evening and page.on_bench == "settings"
    keys(qtbot, window, (Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier))
    assert not window.desk.studio.evening


def test_the_sheet_of_keys(qtbot, window, commission_id):
    window.open_door(commission_id, "Transfer")
    keys(qtbot, window, "?")
    assert window.keys_sheet.isVisible()
    keys(qtbot, window, Qt.Key.Key_Escape)
    assert not window.keys_sheet.isVisible() and window.door == "Transfer"


def test_levels_halve_and_the_right_one_is_drawn(cat):
    levels = make_levels(cat)
    assert [i.width() for i in levels.images] == [451, 225]
    assert levels.for_width(225).width() == 225
    assert levels.for_width(226).width() == 451
    colour = levels.images[0].pixelColor(100, 50)
    assert (colour.red(), colour.green(), colour.blue()) == tuple(int(v) for v in cat[50, 100])


def test_studio_words(window, commission_id):
    window.open_studio()
    view = window.studio_page.view
    assert view.count.startswith("1 commission on the lane")
    assert window.desk.standings.of(commission_id, NOON).doors[0].wants == "no photographs yet"
    assert view.bench.sections[0].lines[0].what.startswith("take in")


def test_the_yellow_field_enter_and_what_happens_are_one_promise(demo_window, wait_idle, monkeypatch):
    """At every door of every demo commission the yellow field is alive, and Enter does something that is seen."""
    asked: list[str] = []
    for ask in ("getOpenFileName", "getOpenFileNames"):
        monkeypatch.setattr(QFileDialog, ask, lambda *_, a=ask: (asked.append(a), ("" if a.endswith("e") else [], ""))[1])
    walked = 0
    for commission_id in demo_window.desk.studio.on_shelf:
        for door in DOORS:
            demo_window.open_door(commission_id, door)
            wait_idle(demo_window)
            page = demo_window.current
            act = page.bench.sheet.act
            assert act.do is not None and act.enabled and page.bench.act.isEnabled(), (commission_id, door)
            before, asked_before = demo_window.desk.commission(commission_id), len(asked)
            desk_paintbox = demo_window.desk.studio.paintbox
            demo_window.act()
            wait_idle(demo_window)
            seen = {
                "a change": demo_window.desk.commission(commission_id) is not before,
                "another place": (demo_window.commission_id, demo_window.door) != (commission_id, door),
                "a line": any(s.line is not None and s.widget.property("pointed") for s in page.bench._slots),
                "files are asked for": len(asked) > asked_before,
                "something on the table": (door == "Intake" and page.look.mode == "one")
                or (door == "Tone" and page.look == "the ground")
                or desk_paintbox is not demo_window.desk.studio.paintbox,
            }
            assert any(seen.values()), (commission_id, door, act.title)
            walked += 1
            popup = QApplication.activePopupWidget()
            if popup is not None:
                popup.close()
    assert walked >= 45 and len(asked) >= 1


def test_a_clock_does_not_run_on_a_pass_that_has_to_wait_again(qtbot, demo_window, wait_idle):
    desk = demo_window.desk
    found = next(i for i in desk.studio.on_shelf if desk.standings.of(i, desk.clock()).door == "Easel")
    demo_window.open_door(found, "Easel")
    wait_idle(demo_window)
    page, c = demo_window.current, lambda: desk.commission(found)
    climate = desk.studio.climate
    passes = passes_in(c(), climate)
    later = None
    while later is None:  # until the pass just finished is the last one another waited for
        finished = page.view.paint
        page.took = 30.0
        page.finish()
        done = {f.pass_id for f in c().easel.finished}
        later = next(
            (
                p
                for p in passes
                if finished.id in {n.id for n in p.needs} and p.id not in done and done.issuperset(n.id for n in p.needs)
            ),
            None,
        )
    page.take(chosen(later.id))
    page.start()
    assert running(c().log).about == later.id
    demo_window.undo()  # the choice
    demo_window.undo()  # the finished pass
    assert running(c().log) is None and "was stopped" in demo_window.message.text


def test_a_fault_of_ours_is_said_written_down_and_changes_nothing(qtbot, window, commission_id, monkeypatch):
    window.open_door(commission_id, "Compose")
    before = window.desk.commission(commission_id)
    monkeypatch.setattr(window.current, "key", lambda event: 1 / 0)
    keys(qtbot, window, "x")
    assert "Yarrow Lane itself" in window.message.text and "ZeroDivisionError" in window.message.text
    log = window.desk.store.folder / "yarrow-lane.log"
    assert str(log) in window.message.text and "ZeroDivisionError" in log.read_text()
    assert window.desk.commission(commission_id) is before
