"""What a key does anywhere in the window."""

from typing import TYPE_CHECKING

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent, QKeySequence
from PySide6.QtWidgets import QAbstractSpinBox, QApplication, QComboBox, QLineEdit, QPlainTextEdit

from yarrow_lane.ui.actions import ACTIONS
from yarrow_lane.ui.rooms_table import BY_KEY

if TYPE_CHECKING:
    from yarrow_lane.ui.window import Window

_WRITING = (QLineEdit, QPlainTextEdit, QAbstractSpinBox)
_ON_THE_BENCH = (*_WRITING, QComboBox)
_EVEN_WHILE_WRITING = ("undo", "redo", "quit")
_ANSWERS = ("act", "back")


def action_of(event: QKeyEvent) -> str | None:
    """The id of the window's action that this key is for."""
    pressed = QKeySequence(event.keyCombination())
    for action in ACTIONS:
        for keys in action.keys:
            if QKeySequence(keys) == pressed or (len(keys) == 1 and event.text() == keys):
                return action.id
    return None


def take_key(window: "Window", event: QKeyEvent) -> bool:
    """Do what a key means here; whether it meant anything."""
    if event.isAutoRepeat() and (action_of(event) == "act" or event.key() == Qt.Key.Key_Space):
        return True  # a key held down does what the yellow field said once
    if window.keys_sheet.isVisible():
        window.keys_sheet.hide()
        return True
    action = action_of(event)
    if action in _EVEN_WHILE_WRITING or (window.question.waiting and action in _ANSWERS):
        getattr(window, str(action))()
        return True
    focus = QApplication.focusWidget()
    if event.key() == Qt.Key.Key_Escape and isinstance(focus, _ON_THE_BENCH):
        window.current.setFocus(Qt.FocusReason.OtherFocusReason)  # Esc leaves the field or list, not the commission
        return True
    if isinstance(focus, _WRITING):
        return True
    if window.current.key(event):
        return True
    if action is not None:
        getattr(window, action)()
        return True
    picture = window.current.picture
    if picture is not None and picture.key(event):
        return True
    if window.commission_id and event.text() in BY_KEY:
        window.open_door(window.commission_id, BY_KEY[event.text()].name)
        return True
    return False
