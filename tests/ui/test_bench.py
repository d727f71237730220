"""The bench shows values, keeps what the painter is writing, and makes no widget anew without need."""

from datetime import date

import pytest
from PySide6.QtCore import QDate, QPoint, QPointF, Qt
from PySide6.QtGui import QWheelEvent
from PySide6.QtWidgets import QApplication

from yarrow_lane.commission.doors import Door
from yarrow_lane.ui.bench import Bench
from yarrow_lane.ui.bench_sheet import (
    Amount,
    BenchSheet,
    ChoiceSheet,
    Day,
    Deed,
    Fact,
    Field,
    Headline,
    NextAct,
    Note,
    Pick,
    Press,
    Section,
    Switch,
    Tick,
    plain_options,
)
from yarrow_lane.ui.choice_row import ChoiceRow
from yarrow_lane.ui.door_section import PASS, REASON, UNPASS, door_section


def sheet(*lines, act=None, title="One") -> BenchSheet:
    return BenchSheet((Section(title, lines),), act)


@pytest.fixture
def bench(qtbot, fonts):
    bench = Bench()
    qtbot.addWidget(bench)
    bench.resize(306, 600)
    bench.show()
    qtbot.waitExposed(bench)
    bench.activateWindow()
    return bench


@pytest.fixture
def heard(bench):
    heard = []
    bench.changed.connect(lambda key, value: heard.append((key, value)))
    bench.pressed.connect(lambda key: heard.append(key))
    return heard


def test_every_kind_of_line_is_shown_and_says_its_value(bench, heard):
    bench.show_sheet(
        sheet(
            Headline("Pip"), Fact("Side", "5 cm", "good"), Note("Rule from one edge."), Deed("10:00", "Pip", "paint", "20 min"),
            Field("name", "Name", "brow"), Amount("count", "Across", 9, 2, 40), Day("due", "Promised", date(2026, 4, 10)),
            Pick("paper", "Paper", "A4", plain_options(("A4", "Letter"))), Tick("gift", "A surprise", False), Press("pdf", "Save"),
        )
    )  # fmt: skip
    assert bench.line("name").text() == "brow" and bench.line("count").editor.value() == 9
    bench.line("count").editor.setValue(12)
    bench.line("due").editor.setDate(QDate(2026, 5, 1))
    bench.line("paper").editor.setCurrentIndex(1)
    bench.line("paper").editor.activated.emit(1)
    bench.line("gift").click()
    bench.line("pdf").click()
    assert heard == [("count", 12.0), ("due", date(2026, 5, 1)), ("paper", "Letter"), ("gift", True), "pdf"]
    with pytest.raises(KeyError):
        bench.line("nothing of that name")


def test_no_date_is_a_date_too(bench, heard):
    bench.show_sheet(sheet(Day("due", "Promised", date(2026, 4, 10))))
    bench.line("due").editor.setDate(QDate(2000, 1, 1))
    assert heard == [("due", None)]
    bench.show_sheet(sheet(Day("due", "Promised", None)))
    assert bench.line("due").editor.text() == "none yet"


def test_showing_again_changes_values_not_widgets_and_tells_nothing(bench, heard):
    bench.show_sheet(sheet(Amount("count", "Across", 9, 2, 40), Pick("p", "Paper", "A4", plain_options(("A4",)))))
    before = bench.line("count"), bench.line("p")
    bench.show_sheet(sheet(Amount("count", "Across", 11, 2, 40), Pick("p", "Paper", "", plain_options(("A4", "B5")))))
    assert (bench.line("count"), bench.line("p")) == before
    assert bench.line("count").editor.value() == 11 and bench.line("p").editor.currentIndex() == -1
    assert heard == []


def test_lines_that_come_and_go_leave_the_others_in_place(bench):
    bench.show_sheet(sheet(Field("a", "A", "1"), Field("b", "B", "2"), Field("c", "C", "3")))
    a, c = bench.line("a"), bench.line("c")
    bench.show_sheet(sheet(Field("a", "A", "1"), Note("between"), Press("x", "X"), Field("c", "C", "3")))
    QApplication.processEvents()  # new lines are laid out in a turn of their own
    assert bench.line("a") is a and bench.line("c") is c and bench.line("x").isVisibleTo(bench)
    with pytest.raises(KeyError):
        bench.line("b")
    order = [slot.shape[1] for slot in bench._slots]
    assert order == ["One", "a", "", "x", "c"]
    bench.show_sheet(BenchSheet())
    assert bench._slots == [] and not bench.act.isVisibleTo(bench)


def test_words_being_written_survive_a_refresh_and_are_stored_on_leaving(qtbot, bench, heard):
    bench.show_sheet(sheet(Field("mix", "Mix", ""), Field("long", "Wish", "", long=True)))
    editor = bench.line("mix").editor
    editor.setFocus()
    qtbot.keyClicks(editor, "ochre 2")
    bench.show_sheet(sheet(Field("mix", "Mix", ""), Field("long", "Wish", "", long=True)))
    assert editor.text() == "ochre 2" and heard == []
    qtbot.keyClick(editor, Qt.Key.Key_Return)
    assert heard == [("mix", "ochre 2")]
    longer = bench.line("long").editor
    longer.setFocus()
    qtbot.keyClicks(longer, "soft")
    bench.store_pending()
    assert heard[-1] == ("long", "soft")
    bench.store_pending()
    assert heard.count(("long", "soft")) == 1, "what is stored is not told again"


def test_the_wheel_scrolls_and_never_changes_a_number(bench, heard):
    bench.show_sheet(sheet(Amount("count", "Across", 9, 2, 40)))
    editor = bench.line("count").editor
    editor.clearFocus()
    wheel = QWheelEvent(
        QPointF(5, 5), QPointF(5, 5), QPoint(0, 0), QPoint(0, 120), Qt.MouseButton.NoButton, Qt.KeyboardModifier.NoModifier,
        Qt.ScrollPhase.NoScrollPhase, False,
    )  # fmt: skip
    QApplication.sendEvent(editor, wheel)
    assert editor.value() == 9 and heard == []


def test_the_next_act_says_what_and_whether_it_can_be_done(bench):
    bench.show_sheet(sheet(act=NextAct("Varnish", "coat 2, from 10:40", enabled=False)))
    assert not bench.act.isEnabled() and bench.act.accessibleName() == "Next: Varnish"
    bench.show_sheet(sheet(act=NextAct("Varnish")))
    assert bench.act.isEnabled() and not bench.act.detail.isVisibleTo(bench)


def test_choices_are_a_sentence_of_switches(qtbot, fonts):
    row, chosen = ChoiceRow(), []
    qtbot.addWidget(row)
    row.chosen.connect(lambda key, value: chosen.append((key, value)))
    eyes = Switch("eyes", "Eyes", (("first", "first"), ("last", "last")), "first")
    row.show_sheet(ChoiceSheet((eyes, Switch("save", "", (("pdf", "Save…"),))), "two of three"))
    assert row.button("eyes", "first").isChecked() and not row.button("save", "pdf").isCheckable()
    row.button("eyes", "last").click()
    assert chosen == [("eyes", "last")]
    row.resize(2000, 50)
    one_line = row.layout().heightForWidth(2000)
    assert row.layout().heightForWidth(180) > one_line, "a narrow row goes on in the next line"
    row.show_sheet(ChoiceSheet((eyes,)))
    assert row._remark.isHidden() and row.layout().heightForWidth(2000) == one_line


def test_what_a_door_wants_and_passing_it():
    ahead = door_section(Door("Intake", "ahead", "", "no lead"), "", "prints come")
    assert ahead.lines[0].text == "No lead." and {getattr(x, "key", "") for x in ahead.lines} >= {REASON, PASS}
    passed = door_section(Door("Intake", "passed", "", "no lead"), "prints come", "")
    assert "prints come" in passed.lines[0].text and passed.lines[1].key == UNPASS
    assert door_section(Door("Intake", "shut", "3 photos"), "", "") is None
