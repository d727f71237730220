"""Keys go where the painter looks: to the page after Enter in a field and after Esc from a field or list; undo is the studio's."""

import pytest
from PySide6.QtCore import Qt

from tests.journeys.hands import fill, keys

ESC, ENTER = Qt.Key.Key_Escape, Qt.Key.Key_Return
CTRL = Qt.KeyboardModifier.ControlModifier


@pytest.fixture
def settings(window, commission_id):
    window.studio_page.put_on_bench("settings")
    return window.studio_page


def test_after_enter_in_a_field_the_keys_are_the_pages(qtbot, window, commission_id):
    window.open_door(commission_id, "Transfer")
    window.open_door(commission_id, "Compose")
    editor = window.current.bench.line("Or your own width").editor
    editor.setFocus()
    keys(qtbot, editor, "40", ENTER)
    assert window.current.hasFocus()
    keys(qtbot, window, "3")
    assert window.door == "Transfer"


def test_esc_leaves_a_list_or_a_number_and_not_the_commission(qtbot, window, commission_id):
    window.open_door(commission_id, "Compose")
    for label in ("Stock size", "Or your own width"):
        editor = window.current.bench.line(label).editor
        editor.setFocus()
        keys(qtbot, editor, ESC)
        assert window.door == "Compose" and window.current.hasFocus()
    keys(qtbot, window, ESC)
    assert window.door == ""


def test_undo_in_a_number_box_is_the_studios(qtbot, window, settings):
    before = window.desk.studio.climate.celsius
    fill(qtbot, settings, "Temperature", 26)
    assert window.desk.studio.climate.celsius == 26
    editor = settings.bench.line("Temperature").editor
    editor.setFocus()
    keys(qtbot, editor, (Qt.Key.Key_Z, CTRL))
    assert window.desk.studio.climate.celsius == before and editor.value() == before


def test_undo_in_words_is_the_words_own_until_they_are_as_they_were(qtbot, window, settings):
    editor = settings.bench.line("Your name, under letters").editor
    editor.setFocus()
    keys(qtbot, editor, "Rosalind")
    keys(qtbot, editor, (Qt.Key.Key_Z, CTRL))
    assert editor.text() == "" and window.desk.studio.painter == ""
    keys(qtbot, editor, "Rosalind", ENTER)
    assert window.desk.studio.painter == "Rosalind"
    keys(qtbot, window, (Qt.Key.Key_Z, CTRL))
    assert window.desk.studio.painter == ""
