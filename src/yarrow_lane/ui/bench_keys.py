"""What keys do in an editor of the bench: Enter stores and gives the keys back, undo is the studio's."""

from PySide6.QtCore import QEvent, QObject, Qt
from PySide6.QtGui import QKeyEvent, QKeySequence
from PySide6.QtWidgets import QAbstractSpinBox, QApplication, QLineEdit, QWidget

_ENTER = (Qt.Key.Key_Return, Qt.Key.Key_Enter)


class KeepsEnter(QObject):
    """Enter in an editor stores what is written and gives the keys back to the page; it must not do the next act at once.

    A field that asks something keeps the keys until it is answered. Undo and redo are the studio's where the editor has nothing of its own to take back.
    """

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        if not isinstance(event, QKeyEvent) or event.type() != QEvent.Type.KeyPress or not isinstance(watched, QWidget):
            return False
        if event.key() in _ENTER:
            if isinstance(watched, QLineEdit):
                watched.editingFinished.emit()
            elif isinstance(watched, QAbstractSpinBox):
                watched.interpretText()
            if not watched.property("asks"):
                give_keys_back(watched)
            return True
        undoes = event.matches(QKeySequence.StandardKey.Undo) or event.matches(QKeySequence.StandardKey.Redo)
        if undoes and not (isinstance(watched, QLineEdit) and (watched.isUndoAvailable() or watched.isRedoAvailable())):
            QApplication.sendEvent(watched.window(), event)
            return True
        return False


def give_keys_back(widget: QWidget) -> None:
    """The keys go to the page again: its numbers, arrows and Enter are alive."""
    page = widget.parentWidget()
    while page is not None and page.property("page") is None:
        page = page.parentWidget()
    if widget.hasFocus():  # storing may have sent the focus elsewhere already
        (page or widget.window()).setFocus(Qt.FocusReason.OtherFocusReason)
