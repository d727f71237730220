"""The calendar by mouse and keys, on the demo studio: a week planned, a sitting moved, missed, a slow painter, a surprise commission."""

from dataclasses import replace
from datetime import date, timedelta

import icalendar
import pytest
from PySide6.QtCore import QPointF, Qt
from PySide6.QtGui import QMouseEvent
from PySide6.QtWidgets import QFileDialog

from tests.conftest import NOON
from tests.journeys.hands import fill, keys, press, send
from yarrow_lane.calendar.own_time import spans_on
from yarrow_lane.calendar.remedies import Remedy
from yarrow_lane.commission.studio import live_pins
from yarrow_lane.lane.happening import ClockStarted, ClockStopped
from yarrow_lane.ui.rooms.studio.calendar_view import remedy_detail, remedy_title

SHIFT = Qt.KeyboardModifier.ShiftModifier
RIGHT, LEFT = Qt.Key.Key_Right, Qt.Key.Key_Left


@pytest.fixture
def demo_store(own_demo):
    return own_demo


@pytest.fixture
def calendar(qtbot, demo_window, wait_idle):
    """The studio page with the calendar on the table."""
    demo_window.open_studio()
    wait_idle(demo_window)
    keys(qtbot, demo_window, "c")
    wait_idle(demo_window)
    page = demo_window.studio_page
    assert page.on_table == "calendar"
    return page


def pull(table, sitting, day: date) -> None:
    """Drag a sitting's strip to another day."""
    place = next(p for s, p in table.places() if s.sitting == sitting).center()
    to = QPointF(table.scale().middle(day), place.y())
    send(table, QMouseEvent.Type.MouseButtonPress, place)
    send(table, QMouseEvent.Type.MouseMove, (place + to) / 2)
    send(table, QMouseEvent.Type.MouseMove, to)
    send(table, QMouseEvent.Type.MouseButtonRelease, to, Qt.MouseButton.NoButton)


def plan_of(page):
    return page.desk.standings.plan(page.workroom.now)


def free_day(page, after: date, days: int = 3) -> date:
    return next(d for n in range(days, 12) if spans_on(page.studio.time, d := after + timedelta(days=n)))


def test_a_sitting_is_dragged_to_another_day_and_the_rest_moves_round_it(qtbot, calendar, wait_idle):
    before = plan_of(calendar)
    sitting = next(s for s in before.sittings if len(s.acts) and s.day > NOON.date())
    day = free_day(calendar, sitting.day)
    pull(calendar.calendar, sitting, day)
    wait_idle(calendar.window())
    (pin,) = live_pins(calendar.studio, NOON)
    assert (pin.commission_id, pin.start.date()) == (sitting.commission_id, day)
    assert any(s.pinned and s.day == day for s in plan_of(calendar).sittings)
    assert any("from" in n.text or "also" in n.text or "no more" in n.text for n in notes(calendar)), "what moved is said"
    calendar.window().undo()
    assert calendar.studio.pins == (), "and undone"


def notes(page):
    from yarrow_lane.ui.bench_sheet import Note

    return [line for section in page.bench.sheet.sections for line in section.lines if isinstance(line, Note)]


def facts(page):
    from yarrow_lane.ui.bench_sheet import Fact

    return {
        (line.label, line.value) for section in page.bench.sheet.sections for line in section.lines if isinstance(line, Fact)
    }


def test_keys_walk_move_and_fix_a_sitting(qtbot, calendar, wait_idle):
    table = calendar.calendar
    keys(qtbot, table, RIGHT, RIGHT)
    assert "painting" in table.accessibleDescription() or ":" in table.accessibleDescription()
    shown = next(x for x in calendar.bench.sheet.sections if x.title.endswith(", this sitting"))
    at = table.sitting
    assert {line.label for line in shown.lines if hasattr(line, "value")} >= {a.words for a in at.acts[:3]}
    press(qtbot, calendar, "Fix it here")
    assert len(calendar.studio.pins) == 1
    press(qtbot, calendar, "Let it move freely")
    keys(qtbot, table, "p")
    assert len(calendar.studio.pins) == 1 and "fixed by you" in table.accessibleDescription()
    keys(qtbot, table, "p")
    assert calendar.studio.pins == ()
    keys(qtbot, table, (RIGHT, SHIFT))
    wait_idle(calendar.window())
    assert len(calendar.studio.pins) == 1 or "no hours" in calendar.window().message.text


def test_a_day_without_hours_is_refused_in_a_sentence(qtbot, calendar):
    sitting = plan_of(calendar).sittings[0]
    saturday = next(NOON.date() + timedelta(days=n) for n in range(1, 9) if (NOON.date() + timedelta(days=n)).weekday() == 5)
    pull(calendar.calendar, sitting, saturday)
    assert "you have no hours on Sat" in calendar.window().message.text and calendar.studio.pins == ()


def test_the_yellow_field_begins_what_is_first_today(qtbot, calendar, wait_idle):
    first = calendar.bench.sheet.act
    keys(qtbot, calendar.window(), Qt.Key.Key_Return)
    wait_idle(calendar.window())
    window = calendar.window()
    assert window.commission_id and window.door, first.title


def test_a_promise_in_trouble_shows_remedies_and_taking_one_helps(qtbot, calendar, wait_idle):
    page = calendar
    strip = page.remedies
    assert strip.isVisible() and 2 <= len(strip._cards) <= 4 and strip._cards[-1].number == -1
    commission, now = page.selected, page.workroom.now
    before = page.desk.standings.outlook(commission, now).kept
    found = page.desk.standings.trouble(commission, now)
    order = ("free days", "longer days", "painterly", "short rest", "express")
    number = next(n for kind in order for n, r in enumerate(found.remedies) if r.kind == kind)
    button = strip._buttons[number]
    button.click()
    wait_idle(page.window())
    after = page.desk.standings.outlook(commission, page.workroom.now).kept
    assert after > before, found.remedies[number].kind
    if after >= 0.9:
        assert page.desk.standings.trouble(commission, page.workroom.now) is None


def test_asking_for_days_drafts_a_letter_and_moves_the_promise_when_they_agree(qtbot, calendar, wait_idle):
    page, strip = calendar, calendar.remedies
    commission = page.selected
    strip._buttons[-1].click()
    until = page.ask.until
    assert page.on_bench == "ask" and str(until.day) in page.ask.text
    keys(qtbot, page.window(), Qt.Key.Key_Return)
    letters = list((page.desk.store.folder / "outbox").glob("*more days*.eml"))
    assert len(letters) == 1 and f"{until.day}" in letters[0].read_text()
    page.calendar.setFocus()
    page._acts.take_remedy(-1)
    page.move_promise()
    wait_idle(page.window())
    assert page.desk.commission(commission).brief.promised == until
    assert page.desk.standings.outlook(commission, page.workroom.now).kept >= 0.88


def test_own_time_by_hand(qtbot, calendar, wait_idle):
    page = calendar
    page.choices.button("own time").click()
    fill(qtbot, page, "Saturday", "10-13")
    wait_idle(page.window())
    assert page.studio.time.hours[5] and any(s.day.weekday() == 5 for s in plan_of(page).sittings)
    fill(qtbot, page, "Sunday", "whenever")
    assert "no range of hours" in page.window().message.text and page.studio.time.hours[6] == ()


def test_a_calendar_file_blocks_its_time(qtbot, calendar, wait_idle, tmp_path, monkeypatch):
    page = calendar
    day = free_day(page, NOON.date(), 1)
    holiday, e = icalendar.Calendar(), icalendar.Event()
    holiday.add("prodid", "-//x//EN")
    holiday.add("version", "2.0")
    e.add("uid", "1")
    e.add("summary", "Fair")
    e.add("dtstart", day)
    e.add("dtend", day + timedelta(days=1))
    holiday.add_component(e)
    path = tmp_path / "fairs.ics"
    path.write_bytes(holiday.to_ical())
    monkeypatch.setattr(QFileDialog, "getOpenFileName", lambda *a, **k: (str(path), ""))
    page.choices.button("own time").click()
    page.bench.fold("Other engagements", False)
    press(qtbot, page, "Read a calendar file…")
    wait_idle(page.window())
    assert "1 engagement read" in page.window().message.text
    assert not any(s.day == day for s in plan_of(page).sittings)


def test_before_promising_goes_by_key_into_the_brief(qtbot, calendar, wait_idle):
    page = calendar
    keys(qtbot, page.window(), "n")
    wait_idle(page.window())
    offered = page._acts.offered(page.workroom.now)
    early = offered.offers.earliest or offered.offers.last
    small = early.dates.safe
    fill(qtbot, page, "Sitters", 3)
    wait_idle(page.window())
    offered = page._acts.offered(page.workroom.now)
    assert (offered.offers.earliest or offered.offers.last).dates.safe >= small, "three sitters take longer than one"
    page.promise(small)
    fill(qtbot, page, "Sitter", "Wren, Rook, Jay")
    page.start()
    wait_idle(page.window())
    begun = page.desk.commission(page.selected)
    assert begun.brief.promised == small and [s.name for s in begun.brief.sitters] == ["Wren", "Rook", "Jay"]
    assert (begun.compose.width_mm, begun.compose.height_mm) == (300, 400), "what was asked about is not asked again"
    assert page.piece is None, "the next is asked about anew"


def test_a_missed_sitting_is_seen_the_next_day(qtbot, calendar, wait_idle):
    page = calendar
    planned = next(s for s in plan_of(page).sittings if s.day == NOON.date())
    clock = page.desk.clock
    clock.now = NOON + timedelta(days=1)
    page.refresh()
    wait_idle(page.window())
    title = page.desk.standings.title(planned.commission_id)
    assert any(label == title and "missed" in value for label, value in facts(page))


def test_a_painter_slower_than_guessed_moves_the_dates(qtbot, calendar, wait_idle):
    """Every pass of a whole painting logged at twice its guess: the days of the others go out."""
    page = calendar
    desk, now = page.desk, page.workroom.now
    before = {o.standing.id: o.safe for o in desk.standings.outlooks(now)}
    painted = next(s for s in desk.standings.all(now) if len(s.paced) > 20)
    c = desk.commission(painted.id)
    for n, done in enumerate(c.easel.finished[:30]):
        start = now - timedelta(days=20) + timedelta(minutes=5 * n)
        desk.happen(c.id, ClockStarted(start, done.pass_id, done.pass_id))
        desk.happen(c.id, ClockStopped(start + timedelta(hours=2), done.pass_id, done.pass_id))
    after = {o.standing.id: o.safe for o in desk.standings.outlooks(now)}
    later = [i for i in before if before[i] and after[i] and after[i] > before[i]]
    assert len(later) >= 2
    assert desk.standings.pace(now).factor("fur") > 1.2
    page.refresh()
    assert any("longer" in value for _, value in facts(page))


def test_no_hours_at_all_is_said_and_nothing_breaks(qtbot, calendar, wait_idle):
    page = calendar
    page.set_studio("No hours", lambda s: replace(s, time=replace(s.time, hours=((),) * 7)))
    wait_idle(page.window())
    assert plan_of(page).sittings == () and "no hours" in page.calendar._view.empty
    assert all(r.words.startswith("no hours") for r in page.calendar._view.rows)


def test_the_calendar_leaves_as_a_file_and_its_plan_as_a_table(qtbot, calendar, wait_idle, tmp_path, monkeypatch):
    page = calendar
    for words, name in (("calendar…", "own.ics"), ("plan…", "plan.csv")):
        monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *a, n=name, **k: (str(tmp_path / n), ""))
        page.choices.button(words).click()
    events = icalendar.Calendar.from_ical((tmp_path / "own.ics").read_bytes()).walk("VEVENT")
    sittings = [e for e in events if str(e["uid"]).startswith("sitting")]
    assert len(sittings) == len([s for s in plan_of(page).sittings if s.minutes])
    assert (tmp_path / "plan.csv").read_text().startswith("day,from,to")
    first = {str(e["uid"]) for e in events}
    page.set_studio("Fewer", lambda s: replace(s, on_shelf=s.on_shelf[:2]))
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *a, **k: (str(tmp_path / "again.ics"), ""))
    page.choices.button("calendar…").click()
    again = icalendar.Calendar.from_ical((tmp_path / "again.ics").read_bytes()).walk("VEVENT")
    gone = {str(e["uid"]) for e in again if str(e.get("status", "")) == "CANCELLED"}
    assert gone and gone <= first, "what is planned no more is called off by its own number"


def taken(page, wait_idle, kind, **how):
    """A remedy of that kind is taken for the one looked at, as the strip does."""
    found = page.desk.standings.trouble(page.selected, page.workroom.now)
    remedy = Remedy(kind, how.pop("size", 1), 0.9, found.dates, 0.0, **how)
    page._acts._take(page.selected, remedy)
    wait_idle(page.window())
    assert kind == "earlier" or remedy_detail(remedy, page.studio)
    return remedy_title(remedy, {o.standing.id: o for o in page.desk.standings.outlooks(page.workroom.now)})


def test_each_remedy_changes_what_it_says_and_can_be_taken_back(qtbot, calendar, wait_idle):
    page = calendar
    desk, commission = page.desk, page.selected
    time, layers, deliver = page.studio.time, desk.commission(commission).layers, desk.commission(commission).deliver
    saturday = next(d for n in range(1, 9) if (d := NOON.date() + timedelta(days=n)).weekday() == 5)
    other = next(o.standing.id for o in desk.standings.outlooks(NOON) if o.standing.id != commission)
    assert taken(page, wait_idle, "free days", days=(saturday,)) == f"Paint on Sat {saturday.day}\u202fMar"
    assert spans_on(page.studio.time, saturday)
    assert "hour longer" in taken(page, wait_idle, "longer days", days=(NOON.date(),))
    assert page.studio.time != time
    title = taken(page, wait_idle, "earlier", jumped=(other,))
    assert desk.standings.title(other) in title and dict(page.studio.pressed)[commission] >= 7
    press(qtbot, page, "Plan it by its own promise")
    assert page.studio.pressed == ()
    assert taken(page, wait_idle, "painterly") and desk.commission(commission).layers.school.finish == "painterly"
    taken(page, wait_idle, "softer background")
    assert all(r.kind != "scene" for r in desk.commission(commission).layers.regions)
    taken(page, wait_idle, "short rest")
    taken(page, wait_idle, "express")
    assert desk.commission(commission).deliver != deliver
    for _ in range(4):
        desk.undo(commission)
    assert desk.commission(commission).layers == layers and desk.commission(commission).deliver == deliver
    page.choices.button("own time").click()
    page.bench.fold("Days off", False)
    press(qtbot, page, "No extra hours after all")
    assert page.studio.time == time
