"""The studio view by mouse and keys: settings, the shelf, files, and the lane beside an open door."""

from PySide6.QtCore import QPointF, Qt
from PySide6.QtGui import QMouseEvent
from PySide6.QtWidgets import QApplication, QFileDialog

from tests.journeys.hands import LEFT, fill, keys, press
from yarrow_lane.calendar.own_time import Span

ESC = Qt.Key.Key_Escape


def test_the_studio_is_set_up_by_hand(qtbot, window, commission_id):
    page = window.studio_page
    page.choices.button("the studio").click()
    fill(qtbot, page, "Your name, under letters", "R. Thorne")
    fill(qtbot, page, "Temperature", 24)
    fill(qtbot, page, "Humidity", 70)
    fill(qtbot, page, "Lengths in", "in")
    studio = window.desk.studio
    assert (studio.painter, studio.climate.celsius, studio.climate.humidity, studio.unit) == ("R. Thorne", 24, 70, "in")
    page.choices.button("own time").click()
    fill(qtbot, page, "Saturday", "8-13:30")
    fill(qtbot, page, "Monday", "none")
    own = window.desk.studio.time
    assert own.weekdays == (1, 2, 3, 4, 5) and own.hours[5] == (Span(480, 810),)
    keys(qtbot, window, ESC, ESC)
    assert page.on_bench == "today"


def test_the_shelf_is_walked_and_opened(qtbot, window, commission_id):
    from tests.rooms.commission.making import fresh

    other = window.desk.start_commission(fresh().brief)
    window.open_studio()
    page = window.studio_page
    page.select(commission_id)
    keys(qtbot, page.shelf, Qt.Key.Key_Right)
    assert page.selected == other
    keys(qtbot, page.shelf, Qt.Key.Key_Right)
    assert page.selected == commission_id, "the shelf is walked in a ring"
    place = next(rect for canvas, rect, _ in page.shelf.places() if canvas.commission_id == other)
    qtbot.mouseClick(page.shelf, LEFT, pos=place.center().toPoint())
    assert page.selected == other
    qtbot.mouseDClick(page.shelf, LEFT, pos=place.center().toPoint())
    assert window.commission_id == other and window.door == "Intake"
    keys(qtbot, window, ESC)
    assert window.commission_id == "" and page.selected == other
    press(qtbot, page, "Put Pip away")
    assert window.desk.studio.on_shelf == (commission_id,)
    keys(qtbot, window, (Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier))
    assert window.desk.studio.on_shelf == (commission_id, other)


def test_promises_and_hours_are_saved_as_files(qtbot, window, commission_id, tmp_path, monkeypatch):
    window.open_studio()
    for key, ending, word in (("calendar…", ".ics", b"BEGIN:VCALENDAR"), ("hours…", ".csv", b"commission,pass")):
        monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_, e=ending: (str(tmp_path / f"f{e}"), ""))
        window.studio_page.choices.button(key).click()
        assert (tmp_path / f"f{ending}").read_bytes().startswith(word)


def test_doors_are_opened_from_the_lane_by_mouse_and_digit(qtbot, window, commission_id):
    window.open_door(commission_id, "Intake")
    lane = window.lane
    row = lane._row(4)
    qtbot.mouseClick(lane, LEFT, pos=row.center().toPoint())
    assert window.door == "Palette"
    keys(qtbot, window, "3")
    assert window.door == "Transfer"
    move = QMouseEvent(
        QMouseEvent.Type.MouseMove, QPointF(row.center()), lane.mapToGlobal(QPointF(row.center())), Qt.MouseButton.NoButton,
        Qt.MouseButton.NoButton, Qt.KeyboardModifier.NoModifier,
    )  # fmt: skip
    QApplication.sendEvent(lane, move)
    assert window.door == "Transfer"
