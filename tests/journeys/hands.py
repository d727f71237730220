"""Mouse and keys on the real window."""

from datetime import date

from PySide6.QtCore import QPoint, QPointF, Qt
from PySide6.QtGui import QMouseEvent
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QComboBox, QDoubleSpinBox, QLineEdit, QPlainTextEdit, QPushButton

LEFT = Qt.MouseButton.LeftButton
NONE = Qt.KeyboardModifier.NoModifier


def send(widget, kind, position: QPointF, held=LEFT) -> None:
    button = LEFT if kind != QMouseEvent.Type.MouseMove else Qt.MouseButton.NoButton
    event = QMouseEvent(kind, position, widget.mapToGlobal(position), button, held, NONE)
    QApplication.sendEvent(widget, event)


def drag(view, start, end) -> None:
    """Drag with the left button on a picture, from and to points in its own units."""
    a, b = view.to_screen(start), view.to_screen(end)
    send(view, QMouseEvent.Type.MouseButtonPress, a)
    send(view, QMouseEvent.Type.MouseMove, (a + b) / 2)
    send(view, QMouseEvent.Type.MouseMove, b)
    send(view, QMouseEvent.Type.MouseButtonRelease, b, Qt.MouseButton.NoButton)


def path(view, points) -> None:
    """Draw on a picture with the left button held, through points in its own units."""
    places = [view.to_screen(p) for p in points]
    send(view, QMouseEvent.Type.MouseButtonPress, places[0])
    for place in places[1:]:
        send(view, QMouseEvent.Type.MouseMove, place)
    send(view, QMouseEvent.Type.MouseButtonRelease, places[-1], Qt.MouseButton.NoButton)


def click(view, point) -> None:
    """Click a picture at a point in its own units."""
    at = view.to_screen(point)
    send(view, QMouseEvent.Type.MouseButtonPress, at)
    send(view, QMouseEvent.Type.MouseButtonRelease, at, Qt.MouseButton.NoButton)


def reference(window):
    """The reference picture of the open commission as the rooms work on it; it must have been read."""
    found = []
    window.workroom.references.want(window.desk.commission(window.commission_id).compose, window, found.append)
    return found[0].picture


def keys(qtbot, widget, *pressed) -> None:
    for key in pressed:
        if isinstance(key, str):
            qtbot.keyClicks(widget, key)
        elif isinstance(key, tuple):
            qtbot.keyClick(widget, key[0], key[1])
        else:
            qtbot.keyClick(widget, key)


def fill(qtbot, page, label: str, value, nth: int = 0) -> None:
    """Set the editor of one line of the bench as a hand would."""
    line = page.bench.line(label, nth)
    editor = line.ends[value[0] == "to"] if hasattr(line, "ends") else line.editor
    value = value[1] if hasattr(line, "ends") else value
    if isinstance(editor, QComboBox):
        index = [v for v, _ in line.options].index(value)
        editor.setCurrentIndex(index)
        editor.activated.emit(index)
    elif isinstance(editor, QDoubleSpinBox):
        editor.setValue(value)
    elif isinstance(editor, QLineEdit):
        value = value.isoformat() if isinstance(value, date) else value
        editor.setFocus()
        editor.selectAll()
        qtbot.keyClicks(editor, value)
        qtbot.keyClick(editor, Qt.Key.Key_Return)
    elif isinstance(editor, QPlainTextEdit):
        editor.setFocus()
        editor.selectAll()
        qtbot.keyClicks(editor, value)
        page.bench.store_pending()


def press(qtbot, page, words: str) -> None:
    """Press a button of the bench."""
    button = page.bench.line(words)
    assert isinstance(button, QPushButton) and button.isEnabled()
    qtbot.mouseClick(button, LEFT, pos=QPoint(5, 5))


def click_way(page, way) -> None:
    """Take a way of carrying the drawing over by a click on its row."""
    view = page.choosing.view
    at = view.row_rect([row.offer.way for row in view.rows].index(way)).center()
    QTest.mouseClick(view, Qt.MouseButton.LeftButton, pos=QPoint(round(at.x()), round(at.y())))
