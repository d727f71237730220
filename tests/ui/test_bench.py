"""The bench shows values, keeps what the painter is writing, and hands each value to what its line says it means."""

from datetime import date

import pytest
from PySide6.QtCore import QPoint, QPointF, Qt
from PySide6.QtGui import QWheelEvent
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication

from yarrow_lane.measure.trouble import Trouble
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
    Length,
    NextAct,
    Note,
    Pick,
    Press,
    Section,
    Span,
    Swatch,
    Switch,
    Table,
    Tick,
    plain_options,
)
from yarrow_lane.ui.choice_row import ChoiceRow


def sheet(*lines, act=None, title="One", decision="") -> BenchSheet:
    return BenchSheet((Section(title, lines, decision),), act)


def hand(meaning):
    """As a page takes a change: trouble is given back."""
    try:
        meaning()
    except Trouble as trouble:
        return trouble
    return None


@pytest.fixture
def bench(qtbot, fonts):
    bench = Bench(hand)
    qtbot.addWidget(bench)
    bench.resize(306, 600)
    bench.show()
    qtbot.waitExposed(bench)
    bench.activateWindow()
    return bench


TODAY = date(2026, 3, 9)


def write(line, words: str) -> None:
    """Write over what a field holds and press Enter."""
    line.editor.setFocus()
    line.editor.selectAll()
    QTest.keyClick(line.editor, Qt.Key.Key_Delete)
    QTest.keyClicks(line.editor, words)
    QTest.keyClick(line.editor, Qt.Key.Key_Return)


@pytest.fixture
def heard():
    return []


def test_every_kind_of_line_is_shown_and_its_value_is_handed_on(bench, heard):
    says = lambda name: lambda *value: heard.append((name, *value))  # noqa: E731
    bench.show_sheet(
        sheet(
            Headline("Pip"), Fact("Side", "5 cm", "good"), Note("Rule from one edge."), Deed("10:00", "Pip", "paint", "20 min"),
            Swatch("dark", (10, 20, 30), "L* 7"), Table(("", "across"), (("line 1", "3.4"), ("line 2", "6.8"))),
            Field("Name", "brow", says("name")), Amount("Across", 9, 2, 40, says("count")),
            Length("Width", 400.0, "cm", says("width")), Span("Middle", (35, 65), 1, 99, says("middle")),
            Day("Promised", date(2026, 4, 10), TODAY, says("due")), Pick("Paper", "A4", plain_options(("A4", "Letter")), says("paper")),
            Tick("A surprise", False, says("gift")), Press("Save", says("save")),
        )
    )  # fmt: skip
    assert bench.line("Name").text() == "brow" and bench.line("Across").editor.value() == 9
    assert bench.line("Width").editor.text() == "40" and bench.line("Width").label.text() == "Width, cm"
    bench.line("Across").editor.setValue(12)
    bench.line("Width").editor.setText("8 1/2 in")
    bench.line("Width").store()
    bench.line("Middle").ends[1].setValue(70)
    write(bench.line("Promised"), "1 May")
    bench.line("Paper").editor.activated.emit(1)
    bench.line("A surprise").click()
    bench.line("Save").click()
    assert heard == [
        ("count", 12.0), ("width", pytest.approx(215.9)), ("middle", 35.0, 70.0), ("due", date(2026, 5, 1)), ("paper", "Letter"),
        ("gift", True), ("save",),
    ]  # fmt: skip
    with pytest.raises(KeyError):
        bench.line("nothing of that name")


def test_lines_of_equal_name_are_told_apart_by_their_order(bench, heard):
    bench.show_sheet(sheet(Tick("Living", True, lambda v: heard.append(1)), Tick("Living", True, lambda v: heard.append(2))))
    bench.line("Living", 1).click()
    assert heard == [2]


def test_no_date_is_a_date_too(bench, heard):
    bench.show_sheet(sheet(Day("Promised", date(2026, 4, 10), TODAY, heard.append)))
    write(bench.line("Promised"), "")
    assert heard == [None]
    bench.show_sheet(sheet(Day("Promised", None, TODAY)))
    assert bench.line("Promised").editor.text() == ""


def test_a_past_promise_is_asked_about_and_a_second_enter_keeps_it(bench, heard, qtbot):
    bench.show_sheet(sheet(Day("Promised", None, TODAY, heard.append)))
    line = bench.line("Promised")
    write(line, "2026-02-10")
    assert heard == [] and "is past" in line.fault.text() and line.editor.hasFocus()
    line.editor.clearFocus()
    assert heard == [], "leaving the field does not keep it"
    line.editor.setFocus()
    qtbot.keyClick(line.editor, Qt.Key.Key_Return)
    assert heard == [date(2026, 2, 10)] and not line.fault.isVisible()
    write(line, "when it is done")
    assert heard == [date(2026, 2, 10)] and "is no day" in line.fault.text() and line.editor.text() == "when it is done"


def test_a_day_is_picked_from_a_month_that_opens_at_today(bench, heard, qtbot):
    bench.show_sheet(sheet(Day("Promised", None, TODAY, heard.append)))
    line = bench.line("Promised")
    line._opens.click()
    month = line._month
    assert month.isVisible() and month.day == TODAY
    qtbot.keyClick(month, Qt.Key.Key_PageDown)
    qtbot.keyClick(month, Qt.Key.Key_Down)
    qtbot.keyClick(month, Qt.Key.Key_Return)
    assert heard == [date(2026, 4, 16)] and not month.isVisible()
    line.open_month()
    qtbot.mouseClick(month, Qt.MouseButton.LeftButton, pos=month._place(0).center().toPoint())
    assert len(heard) == 1 and "Mon 23\u202fFeb 2026 is past" in line.fault.text(), "a past day is asked about here too"


def test_what_was_wrong_with_a_value_stays_beneath_it_and_the_record_is_shown(bench):
    def refuse(value):
        raise Trouble("The number was not taken", f"{value:g} is too much", "write less")

    line = Amount("Coats", 3, 0, 12, refuse)
    bench.show_sheet(sheet(line, Length("Width", 400, "cm", lambda mm: None)))
    bench.line("Coats").editor.setValue(9)
    assert bench.line("Coats").fault.text() == "9 is too much" and bench.line("Coats").editor.value() == 3
    width = bench.line("Width")
    width.editor.setText("as tall as him")
    width.store()
    assert "is not a length" in width.fault.text() and width.editor.text() == "as tall as him"
    width.editor.setText("41")
    width.store()
    assert not width.fault.isVisible()


def test_a_length_that_may_be_none_is_emptied(bench, heard):
    bench.show_sheet(sheet(Length("Wall", 2100, "cm", heard.append, 0.0, True), Length("Width", 400, "cm", heard.append)))
    for label in ("Wall", "Width"):
        bench.line(label).editor.setText("")
        bench.line(label).store()
    assert heard == [0.0] and bench.line("Width").editor.text() == "40"


@pytest.mark.parametrize(("unit", "mm", "shown"), [("cm", 400, "40"), ("in", 400, "16"), ("in", 10, "3/8"), ("cm", 0, "")])
def test_an_example_is_told_in_the_painters_unit(bench, unit, mm, shown):
    bench.show_sheet(sheet(Length("Width", 0, unit, usual_mm=mm)))
    assert bench.line("Width").editor.placeholderText() == shown and bench.line("Width").editor.text() == ""


def test_showing_again_changes_values_not_widgets_and_tells_nothing(bench, heard):
    bench.show_sheet(sheet(Amount("Across", 9, 2, 40, heard.append), Pick("Paper", "A4", plain_options(("A4",)))))
    before = bench.line("Across"), bench.line("Paper")
    bench.show_sheet(sheet(Amount("Across", 11, 2, 40, heard.append), Pick("Paper", "", plain_options(("A4", "B5")))))
    assert (bench.line("Across"), bench.line("Paper")) == before
    assert bench.line("Across").editor.value() == 11 and bench.line("Paper").editor.currentIndex() == -1
    assert heard == []


def test_a_line_that_shows_the_same_may_mean_it_of_something_else(bench, heard):
    bench.show_sheet(sheet(Tick("Lead", False, lambda v: heard.append("first"))))
    widget = bench.line("Lead")
    bench.show_sheet(sheet(Tick("Lead", False, lambda v: heard.append("second"))))
    widget.click()
    assert bench.line("Lead") is widget and heard == ["second"]


def test_words_belong_to_what_they_were_written_about(qtbot, bench, heard):
    bench.show_sheet(sheet(Field("Mix", "", lambda t: heard.append(("one", t)), about=1)))
    first = bench.line("Mix")
    bench.show_sheet(sheet(Field("Mix", "", lambda t: heard.append(("two", t)), about=2)))
    assert bench.line("Mix") is not first, "another well has a field of its own"


def test_lines_that_come_and_go_leave_the_others_in_place(bench):
    bench.show_sheet(sheet(Field("A", "1"), Field("B", "2"), Field("C", "3")))
    a, c = bench.line("A"), bench.line("C")
    bench.show_sheet(sheet(Field("A", "1"), Note("between"), Press("X"), Field("C", "3")))
    QApplication.processEvents()  # new lines are laid out in a turn of their own
    assert bench.line("A") is a and bench.line("C") is c and bench.line("X").isVisibleTo(bench)
    with pytest.raises(KeyError):
        bench.line("B")
    assert [slot.shape[1] for slot in bench._slots] == ["One", "A", "", "X", "C"]
    bench.show_sheet(BenchSheet())
    assert bench._slots == [] and not bench.act.isVisibleTo(bench)


def test_a_section_folds_to_its_decision(qtbot, bench):
    bench.show_sheet(sheet(Tick("Monday", True), title="Painting days", decision="Mon Tue"))
    with pytest.raises(KeyError):
        bench.line("Monday")
    heading = bench._slots[0].widget
    assert heading._decision.text() == "Mon Tue"
    qtbot.mouseClick(heading, Qt.MouseButton.LeftButton)
    assert bench.line("Monday") is not None and heading._decision.text() == ""
    bench.show_sheet(sheet(Tick("Monday", False), title="Painting days", decision="Tue"))
    assert bench.line("Monday") is not None, "what the painter opened stays open"


def test_words_being_written_survive_a_refresh_and_are_stored_on_leaving(qtbot, bench, heard):
    lines = (
        Field("Mix", "", lambda t: heard.append(("mix", t))),
        Field("Wish", "", lambda t: heard.append(("wish", t)), long=True),
    )
    bench.show_sheet(sheet(*lines))
    editor = bench.line("Mix").editor
    editor.setFocus()
    qtbot.keyClicks(editor, "ochre 2")
    bench.show_sheet(sheet(*lines))
    assert editor.text() == "ochre 2" and heard == []
    qtbot.keyClick(editor, Qt.Key.Key_Return)
    assert heard == [("mix", "ochre 2")]
    longer = bench.line("Wish").editor
    longer.setFocus()
    qtbot.keyClicks(longer, "soft")
    bench.store_pending()
    assert heard[-1] == ("wish", "soft")
    bench.store_pending()
    assert heard.count(("wish", "soft")) == 1, "what is stored is not told again"


def test_the_wheel_scrolls_and_never_changes_a_number(bench, heard):
    bench.show_sheet(sheet(Amount("Across", 9, 2, 40, heard.append)))
    editor = bench.line("Across").editor
    editor.clearFocus()
    wheel = QWheelEvent(
        QPointF(5, 5), QPointF(5, 5), QPoint(0, 0), QPoint(0, 120), Qt.MouseButton.NoButton, Qt.KeyboardModifier.NoModifier,
        Qt.ScrollPhase.NoScrollPhase, False,
    )  # fmt: skip
    QApplication.sendEvent(editor, wheel)
    assert editor.value() == 9 and heard == []


def test_the_next_act_says_what_and_whether_it_can_be_done(bench):
    bench.show_sheet(sheet(act=NextAct("Varnish", "coat 2, from 10:40")))
    assert not bench.act.isEnabled() and bench.act.accessibleName() == "Next: Varnish"
    bench.show_sheet(sheet(act=NextAct("Varnish", do=lambda: None)))
    assert bench.act.isEnabled() and not bench.act.detail.isVisibleTo(bench)


def test_choices_are_a_sentence_of_switches(qtbot, fonts):
    chosen = []
    row = ChoiceRow(hand)
    qtbot.addWidget(row)
    eyes = Switch("Eyes", (("first", "first"), ("last", "last")), lambda v: chosen.append(("eyes", v)), "first")
    save = Switch("", (("pdf", "Save…"),), lambda v: chosen.append(v))
    row.show_sheet(ChoiceSheet((eyes, save), "two of three"))
    assert row.button("first").isChecked() and not row.button("Save…").isCheckable()
    row.button("last", "Eyes").click()
    assert chosen == [("eyes", "last")] and row.button("first").isChecked(), "until it is on record the choice is the old one"
    row.resize(2000, 50)
    one_line = row.layout().heightForWidth(2000)
    assert row.layout().heightForWidth(180) > one_line, "a narrow row goes on in the next line"
    row.show_sheet(ChoiceSheet((eyes,)))
    assert row.remark.isHidden() and row.layout().heightForWidth(2000) == one_line
    with pytest.raises(KeyError):
        row.button("first", "Background")


def test_what_a_line_has_opened_goes_with_it(bench):
    bench.show_sheet(sheet(Pick("Paper", "A4", plain_options(("A4", "Letter"))), Day("Promised", None, TODAY)))
    bench.point_at("Paper")
    assert bench.line("Paper").editor.view().isVisible()
    bench.show_sheet(sheet(Day("Promised", None, TODAY)))
    assert QApplication.activePopupWidget() is None
    bench.line("Promised").open_month()
    assert QApplication.activePopupWidget() is not None
    bench.hide()
    assert QApplication.activePopupWidget() is None
